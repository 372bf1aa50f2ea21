//! What the loads reach beside general libraries and plain C, measured in turn on the same cores:
//! `cargo bench -p periculum-loads --bench figures`. Prints the table that docs/figures.md holds; `-- quick` takes
//! smaller problems, and `-- kernel`, `dense`, `transform`, `memory`, `digits`, `scaling` or `pulse` only that part. Planning the
//! longest transforms of FFTW takes minutes.
//!
//! References are programs in benches/references, built with the C compiler and Cargo when they are first needed; what
//! can't be built here is left out, and said to be.

use std::path::{Path, PathBuf};
use std::process::Command;
use std::sync::Arc;
use std::time::{Duration, Instant};

use periculum_loads::Kernel;
use periculum_loads::catalogue::find;
use periculum_loads::cores::{allowed, pin_to};
use periculum_loads::dense::{Probe, Solver};
use periculum_loads::frame::{NoDisturbance, Order, Stop, Touch, Turns, run};
use periculum_loads::protocol::Message;

/// How often each side has its turn; the best counts.
const TURNS: usize = 3;

/// What takes a moment has more, since other users of the machine come and go.
const SHORT_TURNS: usize = 15;

/// Systems of many seconds have fewer.
const LONG_TURNS: usize = 2;

fn main() {
    let asked: Vec<String> = std::env::args().skip(1).filter(|argument| !argument.starts_with('-')).collect();
    let is_quick = asked.iter().any(|argument| argument == "quick");
    let wants =
        |part: &str| !asked.iter().any(|argument| argument != "quick") || asked.iter().any(|argument| argument == part);
    let bench = References::build();
    println!("| what | ours | reference | ratio | wanted |\n|---|---|---|---|---|");
    if wants("kernel") {
        bench.kernel();
    }
    if wants("dense") {
        bench.dense(if is_quick { 2000 } else { 8000 });
    }
    if wants("transform") {
        bench.transforms(if is_quick { &[16] } else { &[16, 18, 20, 22] });
    }
    if wants("memory") {
        bench.memory(if is_quick { 64 } else { 1024 });
    }
    if wants("digits") {
        bench.digits(if is_quick { 1_000_000 } else { 10_000_000 });
    }
    if wants("scaling") {
        bench.scaling();
    }
    if wants("pulse") {
        pulse();
    }
}

/// The programs that are compared with.
struct References {
    folder: PathBuf,
    /// The program of general crates, where it could be built.
    crates: Option<PathBuf>,
}

impl References {
    fn build() -> Self {
        let source = Path::new(env!("CARGO_MANIFEST_DIR")).join("benches/references");
        let folder = std::env::temp_dir().join(format!("periculum-references-{}", std::process::id()));
        std::fs::create_dir_all(&folder).expect("a folder for programs");
        for (name, libraries) in [
            ("peak", ""),
            ("solve", "-lopenblas"),
            ("transform", "-lfftw3"),
            ("stream", ""),
            ("chase", ""),
            ("pi", "-lgmp"),
        ] {
            let mut compile = Command::new("cc");
            compile
                .args(["-O3", "-march=native", "-o"])
                .arg(folder.join(name))
                .arg(source.join(name).with_extension("c"));
            compile.args(libraries.split_whitespace()).arg("-lm");
            if !compile.output().is_ok_and(|output| output.status.success()) {
                eprintln!("left out: {name}.c could not be built here");
            }
        }
        let crates = source.join("crates");
        let cargo = Command::new(env!("CARGO")).args(["build", "--release", "--quiet"]).current_dir(&crates).status();
        let program = crates.join("target/release/references");
        let is_built = cargo.is_ok_and(|status| status.success());
        if !is_built {
            eprintln!("left out: the crates to compare with could not be built here");
        }
        Self { folder, crates: is_built.then_some(program) }
    }

    /// What a C program measures.
    fn c(&self, name: &str, arguments: &[&str], threads: usize) -> Option<f64> {
        measured(Command::new(self.folder.join(name)).args(arguments), threads)
    }

    /// What the program of general crates measures.
    fn crates(&self, arguments: &[&str], threads: usize) -> Option<f64> {
        measured(Command::new(self.crates.as_ref()?).args(arguments), threads)
    }

    fn kernel(&self) {
        let mut probe = Probe::new(Kernel::best()).expect("memory");
        compare(
            "dense, inner kernel, GFLOP/s; FMA in registers",
            0.85,
            true,
            || kernel_rate(&mut probe),
            || self.c("peak", &[], 1),
        );
    }

    fn dense(&self, order: u64) {
        let text = order.to_string();
        for threads in [1, allowed().len()] {
            let ours = || dense_rate(order, threads);
            let what = format!("dense, n = {order}, {threads} thread(s), checks included, GFLOP/s");
            compare(&format!("{what}; OpenBLAS"), 1.0, true, ours, || self.c("solve", &[&text], threads));
            compare(&format!("{what}; faer"), 1.0, true, ours, || {
                self.crates(&["solve", &text, &threads.to_string()], threads)
            });
        }
    }

    fn transforms(&self, exponents: &[u32]) {
        for exponent in exponents {
            let text = exponent.to_string();
            let ours = || Some(best_rate("transform", 1 << (exponent - 1), 1 << 22 >> exponent));
            let what = format!("square of 2^{exponent} real points, checks included, GFLOP/s");
            compare(&format!("{what}; FFTW"), 1.0, true, ours, || self.c("transform", &[&text], 1));
            compare(&format!("{what}; realfft"), 1.0, true, ours, || self.crates(&["transform", &text], 1));
        }
    }

    fn memory(&self, mib: u64) {
        let text = mib.to_string();
        for way in ["read", "write", "copy"] {
            let ours = || Some(best_rate(&format!("bandwidth-{way}"), mib << 10, 8));
            compare(&format!("bandwidth-{way}, {mib} MiB, GB/s; C"), 0.97, true, ours, || {
                self.c("stream", &[way, &text], 1)
            });
        }
        let ours = || Some(best_rate("memory", mib, 8));
        compare(&format!("memory, {mib} MiB, every word compared, GB/s; C copy"), 0.85, true, ours, || {
            self.c("stream", &["copy", &text], 1)
        });
        for (name, pages) in [("latency", "huge"), ("latency-small-pages", "small")] {
            for kib in [16, 1024, mib << 10] {
                let ours = || Some(best_rate(name, kib, 16));
                compare(&format!("{name}, {kib} KiB, ns; C"), 1.03, false, ours, || {
                    self.c("chase", &[pages, &kib.to_string()], 1)
                });
            }
        }
    }

    fn digits(&self, digits: u64) {
        let ours = || Some(best_rate("digits", digits, 2));
        let what = format!("{digits} digits of π, checks included, Mdigits/s; GMP");
        compare(&what, 0.5, true, ours, || self.c("pi", &[&digits.to_string()], 1));
    }

    /// How much of as many times one core's rate all cores reach.
    fn scaling(&self) {
        let cores = allowed();
        for name in ["dense", "transform", "integer", "render", "encode"] {
            let alone = || Some(rate_on(name, &cores[..1]) * cores.len() as f64);
            let what = format!("{name}, {} cores together; as many times one alone", cores.len());
            compare(&what, 0.95, true, || Some(rate_on(name, &cores)), alone);
        }
    }
}

impl Drop for References {
    fn drop(&mut self) {
        // A folder of programs left behind in the place for such things does no harm.
        let _ = std::fs::remove_dir_all(&self.folder);
    }
}

fn measured(command: &mut Command, threads: usize) -> Option<f64> {
    let output = command.env("OPENBLAS_NUM_THREADS", threads.to_string()).output().ok()?;
    String::from_utf8(output.stdout).ok()?.trim().parse().ok()
}

/// Lets both sides take turns and prints a line of the table.
fn compare(
    what: &str,
    wanted: f64,
    larger_is_better: bool,
    mut ours: impl FnMut() -> Option<f64>,
    mut reference: impl FnMut() -> Option<f64>,
) {
    let better = |best: f64, next: f64| if larger_is_better { best.max(next) } else { best.min(next) };
    let (mut best, mut best_reference) = (None, None);
    let turns = match what {
        _ if what.contains("n = 8000") => LONG_TURNS,
        _ if what.contains("inner kernel") => SHORT_TURNS,
        _ => TURNS,
    };
    for _ in 0..turns {
        best = ours().map(|next| best.map_or(next, |best| better(best, next))).or(best);
        best_reference =
            reference().map(|next| best_reference.map_or(next, |best| better(best, next))).or(best_reference);
    }
    let (Some(best), Some(best_reference)) = (best, best_reference) else {
        eprintln!("left out: {what}");
        return;
    };
    let sign = if larger_is_better { "≥" } else { "≤" };
    println!("| {what} | {best:.2} | {best_reference:.2} | {:.2} | {sign} {wanted} |", best / best_reference);
}

fn kernel_rate(probe: &mut Probe) -> Option<f64> {
    let operations = probe.operations();
    let times = (0..400).map(|_| {
        let began = Instant::now();
        probe.run();
        began.elapsed().as_secs_f64()
    });
    Some(operations / times.fold(f64::MAX, f64::min) / 1e9)
}

/// One system a thread, each solved and checked twice; the time of the slowest of the better round.
fn dense_rate(order: u64, threads: usize) -> Option<f64> {
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
    Some(threads as f64 * Solver::operations(order) / slowest(0).min(slowest(1)) / 1e9)
}

/// The best of so many rounds, checks included; what the load measures itself where it does.
fn best_rate(name: &str, size: u64, rounds: u64) -> f64 {
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

/// The rate of a load in its frame on these cores, over some seconds.
fn rate_on(name: &str, cores: &[usize]) -> f64 {
    let load = find(name).expect("a load");
    let order = Order {
        cores: cores.to_vec(),
        turns: Turns::Together,
        size: load.about().usual_size,
        length: Duration::from_secs(3),
        times: None,
        warm_up: Duration::ZERO,
        seed: 1,
        stop: Stop::AtFirstError,
    };
    let mut rate = 0.0;
    run(load, &order, Arc::new(NoDisturbance), |message| {
        if let Message::Ended(progress) = message {
            rate = progress.rate;
        }
    });
    rate
}

/// How far the clock's readings lie apart on a core that nothing else uses.
fn pulse() {
    pin_to(allowed()[0]);
    let mut readings: Vec<f64> = (0..31).map(|_| best_rate("pulse", 1000, 2)).collect();
    readings.sort_unstable_by(f64::total_cmp);
    let (middle, spread) = (readings[15], (readings[23] - readings[7]) / readings[15]);
    println!("| pulse, MHz; spread of the middle half of 31 readings | {middle:.0} | – | {spread:.4} | ≤ 0.005 |");
}
