use periculum_loads::{Kernel, dense::Solver};
use std::time::Instant;
fn main() {
    let sizes: Vec<usize> = std::env::args().skip(1).map(|a| a.parse().unwrap()).collect();
    for n in sizes {
        let mut s = Solver::new(Kernel::best(), n).unwrap();
        s.generate(1);
        let reps = (40e9 / Solver::operations(n as u64)).clamp(1.0, 50.0) as usize;
        let (mut best, mut bestc) = (f64::MAX, f64::MAX);
        let mut d = vec![0; s.parts()];
        for _ in 0..reps + 1 {
            let t = Instant::now(); s.factor(); s.substitute(); let e = t.elapsed().as_secs_f64(); best = best.min(e);
            s.digests(&mut d); bestc = bestc.min(t.elapsed().as_secs_f64());
        }
        println!("n {n}: {:.1} GFLOP/s, with checks {:.1} residual {:.3}", Solver::operations(n as u64) / best / 1e9, Solver::operations(n as u64) / bestc / 1e9, s.residual());
    }
}
