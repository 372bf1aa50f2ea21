use periculum_loads::{Kernel, catalogue::find, frame::{Touch, NoDisturbance}};
use std::time::Instant;
fn main() {
    let load = find("transform").unwrap();
    for e in std::env::args().skip(1).map(|a| a.parse::<u32>().unwrap()) {
        let size = 1u64 << (e - 1);
        let mut w = load.begin(Kernel::best(), size, 1).unwrap();
        w.restart();
        let mut best = f64::MAX;
        for r in 0..((1u64 << 24) / size).max(4) { let t = Instant::now(); w.round(&mut Touch::of(&NoDisturbance, 0, r)); best = best.min(t.elapsed().as_secs_f64()); }
        println!("ours 2^{e}: {:.1} GFLOP/s with all checks", load.work(size) / best);
    }
}
