//! The load itself: threads that solve and check until their time is over.

use std::sync::Mutex;
use std::sync::atomic::{AtomicBool, AtomicU64, Ordering};
use std::sync::mpsc::{RecvTimeoutError, channel};
use std::thread;
use std::time::{Duration, Instant};

use crate::cores::pin_to;
use crate::dense::kernel::Kernel;
use crate::dense::system::{Solver, WORST_RESIDUAL};
use crate::protocol::{CoreProgress, Message, Progress, Wrong};

/// What is to be run.
#[derive(Clone, Debug)]
pub struct Order {
    /// The processors to load, one thread on each.
    pub cores: Vec<usize>,
    /// Order of the linear systems, above zero.
    pub order: usize,
    /// How long to work.
    pub length: Duration,
    /// Which system is solved.
    pub seed: u64,
    /// When to end before the time is over.
    pub stop: Stop,
}

/// When a load ends before its time is over.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Stop {
    /// At the first wrong result.
    AtFirstError,
    /// Never.
    Never,
}

/// How often progress is told.
const TELLING: Duration = Duration::from_millis(250);

/// Something that disturbs the work, as tests do to see that every check catches it.
pub trait Disturb: Sync {
    /// Called before a system is factored, with the matrix and the right-hand side.
    fn system(&self, _core: usize, _round: u64, _a: &mut [f64], _b: &mut [f64]) {}
    /// Called before the factored system is solved, with the factors.
    fn factors(&self, _core: usize, _round: u64, _factors: &mut [f64]) {}
    /// Called before a solution is checked.
    fn solution(&self, _core: usize, _round: u64, _x: &mut [f64]) {}
}

/// Nothing disturbs the work.
pub struct NoDisturbance;

impl Disturb for NoDisturbance {}

/// Runs the load on all its processors and tells how it goes.
pub fn run(order: &Order, disturb: &impl Disturb, mut tell: impl FnMut(Message)) {
    let kernel = Kernel::best();
    tell(Message::Started {
        load: "dense".into(),
        kernel: kernel.name().into(),
        cores: order.cores.clone(),
        order: order.order,
        bytes: Solver::bytes(order.order) * order.cores.len() as u64,
    });
    let shared = Shared::new(order);
    let (sender, wrongs) = channel();
    thread::scope(|scope| {
        for index in 0..order.cores.len() {
            let (sender, shared) = (sender.clone(), &shared);
            scope
                .spawn(move || Worker { order, shared, index, kernel }.work(disturb, |wrong| drop(sender.send(wrong))));
        }
        drop(sender);
        let mut due = Instant::now() + TELLING;
        loop {
            match wrongs.recv_timeout(due.saturating_duration_since(Instant::now())) {
                Ok(wrong) => tell(Message::Wrong(wrong)),
                Err(RecvTimeoutError::Timeout) => {
                    tell(Message::Progress(shared.progress(order)));
                    due += TELLING;
                }
                Err(RecvTimeoutError::Disconnected) => break,
            }
        }
    });
    tell(Message::Ended(shared.progress(order)));
}

/// What the threads share.
struct Shared {
    began: Instant,
    over: AtomicBool,
    /// The digest that every round must have, once a processor has found it twice from scratch, and its finder.
    reference: Mutex<Option<(u64, usize)>>,
    rounds: Vec<AtomicU64>,
    errors: Vec<AtomicU64>,
}

impl Shared {
    fn new(order: &Order) -> Self {
        let counters = || order.cores.iter().map(|_| AtomicU64::new(0)).collect();
        Self {
            began: Instant::now(),
            over: AtomicBool::new(false),
            reference: Mutex::new(None),
            rounds: counters(),
            errors: counters(),
        }
    }

    fn progress(&self, order: &Order) -> Progress {
        let seconds = self.began.elapsed().as_secs_f64();
        let rate = |rounds: u64| rounds as f64 * Solver::operations(order.order) / seconds / 1e9;
        let cores = order.cores.iter().enumerate().map(|(index, core)| {
            let rounds = self.rounds[index].load(Ordering::Relaxed);
            let errors = self.errors[index].load(Ordering::Relaxed);
            CoreProgress { core: *core, rounds, errors, rate: rate(rounds) }
        });
        let cores: Vec<_> = cores.collect();
        let rounds = cores.iter().map(|core| core.rounds).sum();
        let errors = cores.iter().map(|core| core.errors).sum();
        Progress { seconds, rounds, errors, rate: rate(rounds), cores }
    }

    /// The reference and its finder, which is this digest and this core where there was none.
    fn agree(&self, digest: u64, core: usize) -> (u64, usize) {
        // A thread that panicked can't have left half a reference behind.
        let mut reference = self.reference.lock().unwrap_or_else(std::sync::PoisonError::into_inner);
        *reference.get_or_insert((digest, core))
    }
}

/// One thread on one processor.
struct Worker<'a> {
    order: &'a Order,
    shared: &'a Shared,
    index: usize,
    kernel: Kernel,
}

/// A round's result.
#[derive(Clone, Copy, PartialEq)]
struct Solved {
    digest: u64,
    residual: f64,
}

impl Worker<'_> {
    fn work(&self, disturb: &impl Disturb, wrong: impl Fn(Wrong)) {
        pin_to(self.core());
        let mut solver = Solver::new(self.kernel, self.order.order);
        let mut reference = None;
        for round in 1.. {
            if self.is_over() {
                return;
            }
            // The reference comes from two rounds that each start from the seed, and so does whatever follows an error.
            if reference.is_none() {
                solver.generate(self.order.seed);
            }
            let solved = self.round(&mut solver, round, disturb);
            self.shared.rounds[self.index].fetch_add(1, Ordering::Relaxed);
            let evidence = match reference {
                Some(expected) => evidence(solved, expected),
                None => {
                    solver.generate(self.order.seed);
                    let again = self.round(&mut solver, round, disturb);
                    self.find_reference(&mut reference, solved, again)
                }
            };
            if let Some(evidence) = evidence {
                reference = None;
                self.shared.errors[self.index].fetch_add(1, Ordering::Relaxed);
                let seconds = self.shared.began.elapsed().as_secs_f64();
                wrong(Wrong { core: self.core(), round, seconds, evidence });
                if self.order.stop == Stop::AtFirstError {
                    self.shared.over.store(true, Ordering::Relaxed);
                }
            }
        }
    }

    /// Takes a digest that this processor found twice as the reference, or tells why it can't be one.
    fn find_reference(&self, reference: &mut Option<u64>, first: Solved, second: Solved) -> Option<String> {
        let wrong = evidence(first, second.digest).or_else(|| evidence(second, first.digest));
        if wrong.is_some() {
            return wrong;
        }
        let (agreed, finder) = self.shared.agree(first.digest, self.core());
        if agreed == first.digest {
            *reference = Some(agreed);
            return None;
        }
        Some(format!(
            "digest {:016x} twice, where core {finder} found {agreed:016x} twice: one of the two is wrong every time",
            first.digest
        ))
    }

    fn round(&self, solver: &mut Solver, round: u64, disturb: &impl Disturb) -> Solved {
        let core = self.core();
        let (a, b) = solver.system_mut();
        disturb.system(core, round, a, b);
        solver.factor();
        disturb.factors(core, round, solver.result_mut().0);
        solver.substitute();
        disturb.solution(core, round, solver.result_mut().1);
        Solved { digest: solver.digest(), residual: solver.residual() }
    }

    fn core(&self) -> usize {
        self.order.cores[self.index]
    }

    fn is_over(&self) -> bool {
        self.shared.over.load(Ordering::Relaxed) || self.shared.began.elapsed() >= self.order.length
    }
}

/// What is wrong with a result, where something is.
fn evidence(solved: Solved, expected: u64) -> Option<String> {
    // What is not a number is no good residual either.
    let good_residual = solved.residual < WORST_RESIDUAL;
    match (good_residual, solved.digest == expected) {
        (true, true) => None,
        (true, false) => Some(format!("digest {:016x}, expected {expected:016x}", solved.digest)),
        (false, _) => Some(format!("scaled residual {:.1}, allowed {WORST_RESIDUAL}", solved.residual)),
    }
}
