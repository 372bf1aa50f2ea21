//! How fast `dense` solves and checks on one core: `cargo bench -p periculum-loads`.

use divan::counter::ItemsCount;
use periculum_loads::dense::{Kernel, Solver};

fn main() {
    divan::main();
}

/// Items are floating-point operations, as benchmarks of linear systems count them.
#[divan::bench(args = [512, 1024, 2048], sample_count = 20)]
fn factor_and_solve(bencher: divan::Bencher, order: usize) {
    let mut solver = Solver::new(Kernel::best(), order);
    solver.generate(1);
    bencher.counter(ItemsCount::new(Solver::operations(order) as u64)).bench_local(|| {
        solver.factor();
        solver.substitute();
    });
}

/// The same items as above, so that the two rates tell what the checks cost.
#[divan::bench(args = [512, 1024, 2048], sample_count = 20)]
fn factor_solve_and_check(bencher: divan::Bencher, order: usize) {
    let mut solver = Solver::new(Kernel::best(), order);
    solver.generate(1);
    bencher.counter(ItemsCount::new(Solver::operations(order) as u64)).bench_local(|| {
        solver.factor();
        solver.substitute();
        (solver.residual(), solver.digest())
    });
}

#[divan::bench(args = Kernel::ALL, sample_count = 20)]
fn kernels(bencher: divan::Bencher, kernel: Kernel) {
    if !kernel.is_available() {
        eprintln!("skipped: this processor has no {}", kernel.name());
        return;
    }
    let mut solver = Solver::new(kernel, 512);
    solver.generate(1);
    bencher.counter(ItemsCount::new(Solver::operations(512) as u64)).bench_local(|| solver.factor());
}
