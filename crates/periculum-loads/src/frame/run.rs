//! The run of a load: stints one after the other, each on some cores at once.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::mpsc::{RecvTimeoutError, channel};
use std::thread;
use std::time::{Duration, Instant};

use rustix::time::{ClockId, clock_gettime};

use super::gate::Gate;
use super::load::{Disturb, Load, NoDisturbance, Touch};
use super::order::{Order, SEED, Turns};
use super::reference::Agreement;
use super::stint::Stint;
use super::tally::Tally;
use super::worker::{Told, Worker};
use crate::kernel::Kernel;
use crate::protocol::{CoreState, Message, Progress, Started};
use crate::thread::look;

/// How often progress is told.
const TELLING: Duration = Duration::from_millis(250);

/// How long rounds that have begun may go on when the time is over.
const GRACE: Duration = Duration::from_secs(2);

/// How often a thread is looked at before it is called lost, and how far apart.
const LOOKS: u32 = 10;
const BETWEEN_LOOKS: Duration = Duration::from_millis(20);

/// The bytes of a core in the warm-up: what the caches near it hold.
const LIGHT: u64 = 1 << 20;

/// The parts of its time that a core works in the warm-up, one after the other.
const LADDER: [f64; 3] = [0.25, 0.5, 0.75];

/// What a run keeps for all its stints.
struct Run<'a, T> {
    load: &'static dyn Load,
    order: &'a Order,
    kernel: Kernel,
    disturb: Arc<dyn Disturb>,
    tallies: Vec<Arc<Tally>>,
    began: Instant,
    tell: T,
}

/// Runs a load on all its processors and tells how it goes.
///
/// Rounds that take longer than the time that is left are dropped; their threads live on until they end, or until
/// the process does.
pub fn run(load: &'static dyn Load, order: &Order, disturb: Arc<dyn Disturb>, mut tell: impl FnMut(Message)) {
    let kernel = Kernel::best();
    let at_a_time = if order.turns == Turns::OneByOne { 1 } else { order.cores.len() as u64 };
    tell(Message::Started(Started {
        load: load.about().name.into(),
        kernel: kernel.name().into(),
        cores: order.cores.clone(),
        size: order.size,
        size_name: load.about().size_name.into(),
        bytes: load.bytes(order.size) * at_a_time,
        round_seconds: seconds_a_round(load, order.size),
        unit: load.about().unit.into(),
        // What a load measures is a rate, or how long one access takes.
        less_is_better: load.about().unit == "ns",
    }));
    let tallies = order.cores.iter().map(|_| Arc::default()).collect();
    let mut run = Run { load, order, kernel, disturb, tallies, began: Instant::now(), tell };
    let goes_on = order.warm_up.is_zero() || LADDER.into_iter().all(|duty| run.warm_up(duty));
    if goes_on {
        run.work();
    }
    let progress = run.progress(false);
    (run.tell)(Message::Ended(progress));
}

/// For how long this thread has had a processor, seconds.
fn thread_time() -> f64 {
    let time = clock_gettime(ClockId::ThreadCPUTime);
    time.tv_sec as f64 + time.tv_nsec as f64 / 1e9
}

/// How long a round of this size should take on this processor, in seconds, from a small one that is worked at once; none
/// where there is no memory for that.
pub fn seconds_a_round(load: &dyn Load, of_size: u64) -> Option<f64> {
    let size = light_size(load, of_size);
    let mut work = load.begin(Kernel::best(), size, SEED).ok()?;
    let mut touch = Touch { disturb: &NoDisturbance, core: 0, round: 0 };
    work.restart();
    // The first round meets cold caches; and what else the machine does is no matter, as far as that can be left out.
    work.round(&mut touch);
    let mut timed = || {
        let began = thread_time();
        work.round(&mut touch);
        thread_time() - began
    };
    let least = [timed(), timed(), timed()].into_iter().fold(f64::INFINITY, f64::min);
    Some(least * load.effort(of_size) / load.effort(size))
}

/// The size of the warm-up's problems.
fn light_size(load: &dyn Load, of_size: u64) -> u64 {
    load.nearest(load.size_for(LIGHT).min(of_size))
}

impl<T: FnMut(Message)> Run<'_, T> {
    /// One step of the warm-up; says whether to go on.
    fn warm_up(&mut self, duty: f64) -> bool {
        let size = light_size(self.load, self.order.size);
        let length = self.order.warm_up / LADDER.len() as u32;
        self.stint(self.order.cores.clone(), size, length, (duty, None), true)
    }

    /// What the warm-up is for.
    fn work(&mut self) {
        self.tallies.iter().for_each(|tally| tally.forget_rounds());
        let length = self.order.length.saturating_sub(self.began.elapsed());
        let (size, times) = (self.order.size, self.order.times);
        match self.order.turns {
            Turns::Together => {
                self.stint(self.order.cores.clone(), size, length, (1.0, times), false);
            }
            Turns::OneByOne => {
                let each = length / self.order.cores.len().max(1) as u32;
                for core in self.order.cores.clone() {
                    if !self.stint(vec![core], size, each, (1.0, times), false) {
                        return;
                    }
                }
            }
        }
    }

    /// Lets some cores work and tells what they say; says whether to go on.
    fn stint(
        &mut self,
        cores: Vec<usize>,
        size: u64,
        length: Duration,
        (duty, times): (f64, Option<u64>),
        warms_up: bool,
    ) -> bool {
        let stint = Arc::new(Stint {
            gate: Gate::new(cores.len()),
            cores,
            size,
            times,
            duty,
            began_all: self.began,
            length,
            over: AtomicBool::new(false),
            agreement: Agreement::default(),
        });
        let (listener, told) = channel();
        for core in &stint.cores {
            let worker = Worker {
                load: self.load,
                kernel: self.kernel,
                seed: self.order.seed,
                stop: self.order.stop,
                stint: Arc::clone(&stint),
                core: *core,
                tally: self.tally_of(*core),
                disturb: Arc::clone(&self.disturb),
                listener: listener.clone(),
            };
            thread::spawn(move || worker.work());
        }
        drop(listener);
        let mut due = Instant::now() + TELLING;
        while stint.gate.open_for() < length + GRACE {
            match told.recv_timeout(due.saturating_duration_since(Instant::now())) {
                Ok(Told::Wrong(wrong)) => (self.tell)(Message::Wrong(wrong)),
                Ok(Told::Failed(why)) => (self.tell)(Message::Failed { why }),
                Ok(Told::Lost { core, why }) => self.tell_lost(core, why),
                Err(RecvTimeoutError::Timeout) => {
                    let progress = self.progress(warms_up);
                    (self.tell)(Message::Progress(progress));
                    due += TELLING;
                }
                Err(RecvTimeoutError::Disconnected) => break,
            }
        }
        let goes_on = !stint.over.load(Ordering::Relaxed);
        if goes_on {
            self.miss(&stint);
        }
        goes_on
    }

    /// Tells the cores whose work has not come to its end and goes on no longer: a round that takes longer than there is time for
    /// would run on.
    fn miss(&mut self, stint: &Stint) {
        if !self.load.rests(stint.size).is_zero() {
            // Who sleeps can't be told apart from who is gone; those who watch from outside know for how long one may.
            return;
        }
        for core in &stint.cores {
            let tally = self.tally_of(*core);
            let lives = || look(std::process::id(), tally.thread()).is_some_and(|seen| seen.is_runnable);
            // One look may meet it in a moment in which it waits for something.
            let is_lost = (0..LOOKS).all(|_| {
                thread::sleep(BETWEEN_LOOKS);
                tally.state() != CoreState::Done && !lives()
            });
            if is_lost {
                self.tell_lost(*core, "its thread no longer worked when the time was over".into());
            }
        }
    }

    fn tally_of(&self, core: usize) -> Arc<Tally> {
        let index = self.order.cores.iter().position(|known| *known == core).unwrap_or_default();
        Arc::clone(&self.tallies[index])
    }

    fn tell_lost(&mut self, core: usize, why: String) {
        (self.tell)(Message::Lost { core, seconds: self.began.elapsed().as_secs_f64(), why });
    }

    fn progress(&self, warms_up: bool) -> Progress {
        let cores: Vec<_> =
            self.order.cores.iter().zip(&self.tallies).map(|(core, tally)| tally.progress(*core)).collect();
        let sum: f64 = cores.iter().map(|core| core.rate).sum();
        let working = cores.iter().filter(|core| core.rate > 0.0).count().max(1) as f64;
        let over_time: f64 = cores.iter().map(|core| core.over_time).sum();
        // Who sleeps on purpose does no work then, and rates that don't add up are none over time.
        let is_plain = self.load.about().adds_up && self.load.rests(self.order.size).is_zero();
        let adds_up = self.order.turns == Turns::Together && self.load.about().adds_up;
        Progress {
            seconds: self.began.elapsed().as_secs_f64(),
            warms_up,
            rounds: cores.iter().map(|core| core.rounds).sum(),
            errors: cores.iter().map(|core| core.errors).sum(),
            rate: if adds_up { sum } else { sum / working },
            over_time: match adds_up {
                _ if !is_plain => 0.0,
                true => over_time,
                false => over_time / working,
            },
            cores,
            figures: Vec::new(),
        }
    }
}
