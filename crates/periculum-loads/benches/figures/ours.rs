//! What the loads reach here.

use std::sync::Arc;
use std::time::{Duration, Instant};

use periculum_loads::Kernel;
use periculum_loads::catalogue::find;
use periculum_loads::cores::{allowed, pin_to};
use periculum_loads::dense::{Probe, Solver};
use periculum_loads::frame::{NoDisturbance, Order, Stop, Touch, Turns, run};
use periculum_loads::protocol::{Message, Progress};

/// The rate of the innermost loop of `dense` in panels that stay in the caches.
pub(crate) fn kernel_rate(probe: &mut Probe) -> f64 {
    let operations = probe.operations();
    let times = (0..400).map(|_| {
        let began = Instant::now();
        probe.run();
        began.elapsed().as_secs_f64()
    });
    operations / times.fold(f64::MAX, f64::min) / 1e9
}

/// One system a thread, each solved and checked twice; the time of the slowest of the better round.
pub(crate) fn dense_rate(order: u64, threads: usize) -> f64 {
    let solve = |core: usize| {
        pin_to(core);
        let mut solver = Solver::new(Kernel::best(), order as usize).expect("memory");
        solver.generate(1);
        let mut digests = vec![0; solver.parts()];
        let mut times = [0.0; 2];
        for time in &mut times {
            let began = Instant::now();
            solver.factor();
            solver.substitute(&mut digests);
            solver.digest_solution(&mut digests);
            *time = began.elapsed().as_secs_f64();
        }
        times
    };
    let times: Vec<[f64; 2]> = std::thread::scope(|scope| {
        let running: Vec<_> =
            allowed().into_iter().take(threads).map(|core| scope.spawn(move || solve(core))).collect();
        running.into_iter().map(|thread| thread.join().expect("no panic")).collect()
    });
    let slowest = |round: usize| times.iter().map(|times| times[round]).fold(0.0, f64::max);
    threads as f64 * Solver::operations(order) / slowest(0).min(slowest(1)) / 1e9
}

/// The best of so many rounds, checks included; what the load measures itself where it does.
pub(crate) fn best_rate(name: &str, size: u64, rounds: u64) -> f64 {
    let load = find(name).expect("a load");
    let mut work = load.begin(Kernel::best(), size, 1).expect("memory");
    work.restart();
    let mut best = f64::MAX;
    for round in 1..=rounds.max(2) {
        let began = Instant::now();
        assert_eq!(work.round(&mut Touch::of(&NoDisturbance, 0, round)), None);
        best = best.min(began.elapsed().as_secs_f64());
    }
    work.reading().unwrap_or(load.work(size) / best)
}

/// The same at once on each of the first processors, in sum.
pub(crate) fn best_on_each(name: &str, size: u64, rounds: u64, processors: usize) -> f64 {
    std::thread::scope(|scope| {
        let best = |core: usize| {
            pin_to(core);
            best_rate(name, size, rounds)
        };
        let cores = allowed().into_iter().take(processors);
        let running: Vec<_> = cores.map(|core| scope.spawn(move || best(core))).collect();
        running.into_iter().map(|thread| thread.join().expect("no panic")).sum()
    })
}

/// How far a load comes in its frame on these cores; of its usual size where none is given.
pub(crate) fn pass(name: &str, cores: &[usize], size: Option<u64>, seconds: u64) -> Progress {
    let load = find(name).expect("a load");
    let order = Order {
        cores: cores.to_vec(),
        turns: Turns::Together,
        size: size.unwrap_or(load.about().usual_size),
        length: Duration::from_secs(seconds),
        times: None,
        warm_up: Duration::ZERO,
        seed: 1,
        stop: Stop::AtFirstError,
    };
    let mut end = Progress::default();
    run(load, &order, Arc::new(NoDisturbance), |message| {
        if let Message::Ended(progress) = message {
            end = progress;
        }
    });
    assert_eq!(end.errors, 0, "{name}");
    end
}

/// How far the clock's readings lie apart on a core that nothing else uses.
pub(crate) fn pulse() {
    pin_to(allowed()[0]);
    let mut readings: Vec<f64> = (0..31).map(|_| best_rate("pulse", 1000, 2)).collect();
    readings.sort_unstable_by(f64::total_cmp);
    let (middle, spread) = (readings[15], (readings[23] - readings[7]) / readings[15]);
    println!("| pulse, MHz; spread of the middle half of 31 readings | {middle:.0} | – | {spread:.4} | ≤ 0.005 |");
}
