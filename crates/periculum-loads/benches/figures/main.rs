//! What the loads reach beside general libraries and plain C, measured in turn on the same cores:
//! `cargo bench -p periculum-loads --bench figures`. Prints the table that docs/figures.md holds; `-- quick` takes
//! smaller problems, and `-- kernel`, `dense`, `heat`, `checks`, `graphics`, `transform`, `memory`, `latency`, `digits`, `scaling` or
//! `pulse` only that part. Planning the longest transforms of FFTW takes minutes.

mod ours;
mod references;
mod turns;
mod unchecked;

use periculum_loads::Kernel;
use periculum_loads::catalogue::LOADS;
use periculum_loads::cores::allowed;
use periculum_loads::dense::Probe;

use ours::{best_on_each, best_rate, dense_rate, kernel_rate, pass, pulse};
use references::References;
use turns::{Counts, Row};
use unchecked::Both;

fn main() {
    let asked: Vec<String> = std::env::args().skip(1).filter(|argument| !argument.starts_with('-')).collect();
    let is_quick = asked.iter().any(|argument| argument == "quick");
    let wants =
        |part: &str| !asked.iter().any(|argument| argument != "quick") || asked.iter().any(|argument| argument == part);
    let references = References::build();
    println!("| what | ours | reference | ratio | wanted |\n|---|---|---|---|---|");
    if wants("kernel") {
        kernel(&references);
    }
    if wants("dense") {
        dense(&references, if is_quick { &[2000] } else { &[2000, 8000] });
    }
    if wants("heat") {
        heat(&references);
    }
    if wants("checks") {
        checks();
    }
    if wants("graphics") {
        on_devices();
    }
    if wants("transform") {
        transforms(&references, if is_quick { &[16] } else { &[16, 18, 20, 22] });
    }
    if wants("memory") {
        memory(&references, if is_quick { 64 } else { 1024 });
    }
    if wants("latency") {
        latency(&references, if is_quick { 64 } else { 1024 });
    }
    if wants("digits") {
        digits(&references, if is_quick { 1_000_000 } else { 10_000_000 });
    }
    if wants("scaling") {
        scaling();
    }
    if wants("pulse") {
        pulse();
    }
}

/// One processor, and all of them where there are more.
fn numbers_of_processors() -> Vec<usize> {
    let mut numbers = vec![1, allowed().len()];
    numbers.dedup();
    numbers
}

fn kernel(references: &References) {
    let mut probe = Probe::new(Kernel::best()).expect("memory");
    Row::of("dense, inner kernel, GFLOP/s; FMA in registers", 0.92, 10, Counts::Median)
        .compare(|| Some(kernel_rate(&mut probe)), || references.c_on_each("peak", &[], 1));
}

fn dense(references: &References, orders: &[u64]) {
    for order in orders {
        let text = order.to_string();
        let turns = if *order > 4000 { 3 } else { 9 };
        for threads in numbers_of_processors() {
            let ours = || Some(dense_rate(*order, threads));
            let what = format!("dense, n = {order}, {threads} thread(s), checks included, GFLOP/s");
            let row = |beside: &str, wanted: f64| Row::of(format!("{what}; {beside}"), wanted, turns, Counts::Best);
            row("FMA in registers", if threads == 1 { 0.80 } else { 0.75 })
                .compare(ours, || references.c_on_each("peak", &[], threads));
            row("OpenBLAS", 1.0).compare(ours, || references.c("solve", &[&text], threads));
            row("faer", 1.0).compare(ours, || references.crates(&["solve", &text, &threads.to_string()], threads));
        }
    }
}

/// How busy the multipliers are from the beginning of a pass to its end, by turns of the load and of multiply-adds between registers.
fn heat(references: &References) {
    let all = allowed();
    for (name, cores) in [("product", &all[..1]), ("product", &all[..]), ("dense", &all[..])] {
        let what = format!("{name}, a pass of 10 s on {} core(s), work over all time, GFLOP/s", cores.len());
        Row::of(format!("{what}; FMA in registers"), 0.8, 5, Counts::Median)
            .compare(|| Some(pass(name, cores, None, 10).over_time), || references.c_on_each("peak", &[], cores.len()));
    }
}

/// What of the time goes into looking, for every load whose rate is work over time, by two programs that share a processor. Words of
/// memory are compared as they are read, so that there is nothing to leave out.
fn checks() {
    let Some(both) = Both::build() else {
        eprintln!("left out: loads without checks could not be built here");
        return;
    };
    let loads = LOADS.map(|load| load.about());
    for about in loads.iter().filter(|about| about.adds_up && !["swing", "idle", "memory"].contains(&about.name)) {
        Row::of(format!("{}, with checks, {}; without", about.name, about.unit), 0.98, 9, Counts::Median)
            .compare_pairs(|turn| both.side_by_side(about.name, turn));
    }
}

/// What looking costs on the graphics processor. The words of its memory are compared as they are read, so that there is nothing to
/// leave out; and bursts of the swing end by the clock.
fn on_devices() {
    let Some(both) = Both::build().filter(|_| cfg!(feature = "graphics")) else {
        eprintln!("left out: loads on the graphics processor, which take `--features graphics`");
        return;
    };
    for (name, unit) in [("graphics-render", "frames/s"), ("graphics-compute", "GFLOP/s")] {
        Row::of(format!("{name}, with checks, {unit}; without"), 0.97, 9, Counts::Median)
            .compare(|| both.with_checks(name), || both.without(name));
    }
}

fn transforms(references: &References, exponents: &[u32]) {
    for exponent in exponents {
        let text = exponent.to_string();
        let ours = || Some(best_rate("transform", 1 << (exponent - 1), 1 << 22 >> exponent));
        let what = format!("square of 2^{exponent} real points, checks included, GFLOP/s");
        let row = |beside: &str| Row::of(format!("{what}; {beside}"), 1.2, 7, Counts::Median);
        row("FFTW").compare(ours, || references.c("transform", &[&text], 1));
        row("realfft").compare(ours, || references.crates(&["transform", &text], 1));
    }
}

fn memory(references: &References, mib: u64) {
    let text = mib.to_string();
    for processors in numbers_of_processors() {
        for way in ["read", "write", "copy"] {
            let ours = || Some(best_on_each(&format!("bandwidth-{way}"), mib << 10, 8, processors));
            Row::of(format!("bandwidth-{way}, {mib} MiB, {processors} core(s), GB/s; C"), 0.99, 9, Counts::Median)
                .compare(ours, || references.c_on_each("stream", &[way, &text], processors));
        }
        let what = format!("memory, {mib} MiB, {processors} core(s), every word compared, GB/s; C copy");
        // The load's rate is of all its rounds, so that of the loop is too.
        Row::of(what, 0.99, 9, Counts::Median).compare(
            || Some(best_on_each("memory", mib, 8, processors)),
            || references.c_on_each("stream", &["copy", &text, "all"], processors),
        );
    }
}

fn latency(references: &References, mib: u64) {
    for (name, pages) in [("latency", "huge"), ("latency-small-pages", "small")] {
        for kib in [16, 1024, mib << 10] {
            let row = Row::of(format!("{name}, {kib} KiB, ns; C"), 1.03, 9, Counts::Best);
            Row { more_is_better: false, ..row }
                .compare(|| Some(best_rate(name, kib, 16)), || references.c("chase", &[pages, &kib.to_string()], 1));
        }
    }
}

fn digits(references: &References, digits: u64) {
    let what = format!("{digits} digits of π, checks included, Mdigits/s; GMP");
    Row::of(what, 0.5, 3, Counts::Best)
        .compare(|| Some(best_rate("digits", digits, 2)), || references.c("pi", &[&digits.to_string()], 1));
}

/// How much of as many times one core's rate all cores reach.
fn scaling() {
    let cores = allowed();
    for name in ["dense", "product", "transform", "integer", "render", "encode"] {
        let what = format!("{name}, {} cores together; as many times one alone", cores.len());
        Row::of(what, 0.95, 27, Counts::Median).compare(
            || Some(pass(name, &cores, None, 1).rate),
            || Some(pass(name, &cores[..1], None, 1).rate * cores.len() as f64),
        );
    }
}
