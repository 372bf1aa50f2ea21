//! How fast each load works, checks included: `cargo bench -p periculum-loads --bench loads`.

use divan::counter::ItemsCount;
use periculum_loads::Kernel;
use periculum_loads::catalogue::find;
use periculum_loads::dense::Solver;
use periculum_loads::frame::{NoDisturbance, Touch};

fn main() {
    divan::main();
}

const NAMES: [&str; 5] = ["dense", "transform", "integer", "render", "encode"];

/// A round at the usual size.
#[divan::bench(args = NAMES, sample_count = 20)]
fn rounds(bencher: divan::Bencher, name: &str) {
    let load = find(name).expect("a load");
    let mut work = load.begin(Kernel::best(), load.about().usual_size, 1).expect("memory");
    work.restart();
    bencher.bench_local(|| work.round(&mut Touch::of(&NoDisturbance, 0, 1)));
}

/// Items are floating-point operations, as benchmarks of linear systems count them.
#[divan::bench(args = [512, 1024, 2048], sample_count = 20)]
fn dense_without_checks(bencher: divan::Bencher, order: u64) {
    let mut solver = Solver::new(Kernel::best(), order as usize).expect("memory");
    solver.generate(1);
    bencher.counter(ItemsCount::new(Solver::operations(order) as u64)).bench_local(|| {
        solver.factor();
        solver.substitute(&mut []);
    });
}

/// The same items as above, so that the two rates tell what the checks cost.
#[divan::bench(args = [512, 1024, 2048], sample_count = 20)]
fn dense_with_checks(bencher: divan::Bencher, order: u64) {
    let mut solver = Solver::new(Kernel::best(), order as usize).expect("memory");
    solver.generate(1);
    let mut digests = vec![0; solver.parts()];
    bencher.counter(ItemsCount::new(Solver::operations(order) as u64)).bench_local(|| {
        solver.factor();
        solver.substitute(&mut digests);
        solver.digest_solution(&mut digests);
    });
}

#[divan::bench(args = Kernel::ALL, sample_count = 20)]
fn dense_kernels(bencher: divan::Bencher, kernel: Kernel) {
    if !kernel.is_available() {
        eprintln!("skipped: this processor can't run the {} kernel", kernel.name());
        return;
    }
    let mut solver = Solver::new(kernel, 512).expect("memory");
    solver.generate(1);
    bencher.counter(ItemsCount::new(Solver::operations(512) as u64)).bench_local(|| solver.factor());
}
