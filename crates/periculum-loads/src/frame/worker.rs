//! One thread on one processor.

use std::panic::{AssertUnwindSafe, catch_unwind};
use std::sync::Arc;
use std::sync::atomic::{AtomicU64, Ordering};
use std::sync::mpsc::Sender;
use std::time::{Duration, Instant};

use super::clock::Clock;
use super::load::{Disturb, Fault, Load, Touch, Work};
use super::order::Stop;
use super::reference::{Reference, difference};
use super::run::Stint;
use crate::cores::pin_to;
use crate::kernel::Kernel;
use crate::protocol::{CoreProgress, Wrong};

/// What a worker tells the thread that listens.
pub(super) enum Told {
    Wrong(Wrong),
    Failed(String),
}

/// How far one core is, as its worker writes and others read it.
#[derive(Default)]
pub(super) struct Tally {
    rounds: AtomicU64,
    errors: AtomicU64,
    /// These are numbers' bits.
    rate: AtomicU64,
    noise: AtomicU64,
    clock: AtomicU64,
    checked: AtomicU64,
}

impl Tally {
    /// Rounds of the warm-up are not those that a pass is for.
    pub(super) fn forget_rounds(&self) {
        self.rounds.store(0, Ordering::Relaxed);
    }

    pub(super) fn progress(&self, core: usize) -> CoreProgress {
        let number = |bits: &AtomicU64| f64::from_bits(bits.load(Ordering::Relaxed));
        CoreProgress {
            core,
            rounds: self.rounds.load(Ordering::Relaxed),
            errors: self.errors.load(Ordering::Relaxed),
            rate: number(&self.rate),
            noise: number(&self.noise),
            clock: number(&self.clock),
            checked: number(&self.checked),
        }
    }
}

/// One thread's part of a stint.
pub(super) struct Worker {
    pub(super) load: &'static dyn Load,
    pub(super) kernel: Kernel,
    pub(super) seed: u64,
    pub(super) stop: Stop,
    pub(super) stint: Arc<Stint>,
    pub(super) core: usize,
    pub(super) tally: Arc<Tally>,
    pub(super) disturb: Arc<dyn Disturb>,
    pub(super) listener: Sender<Told>,
}

impl Worker {
    /// Works until the stint is over.
    pub(super) fn work(self) {
        pin_to(self.core);
        let mut work = match self.load.begin(self.kernel, self.stint.size, self.seed) {
            Ok(work) => work,
            Err(error) => {
                let why = format!(
                    "core {} can't have {} bytes of memory: {error}",
                    self.core,
                    self.load.bytes(self.stint.size)
                );
                let _ = self.listener.send(Told::Failed(why));
                self.stint.end();
                // The others wait for it.
                self.stint.begin();
                return;
            }
        };
        work.restart();
        let mut reference: Option<Arc<Reference>> = None;
        let mut last_wrong: Option<Fault> = None;
        let (mut clock, began) = (Clock::new(), self.stint.begin());
        let (mut rounds, mut working) = (0u64, Duration::ZERO);
        let mut counted = Counted::default();
        while !self.stint.is_over() && self.stint.times.is_none_or(|times| rounds < times) {
            let round = self.tally.rounds.load(Ordering::Relaxed) + 1;
            let began_round = Instant::now();
            // A round that becomes the reference is worked twice.
            let is_plain = reference.is_some() || work.digests().is_empty();
            let fault = self.round(work.as_mut(), round, &mut reference);
            rounds += 1;
            working += began_round.elapsed();
            counted.take(is_plain, began_round.elapsed());
            self.tell_round(work.as_ref(), &counted, &mut clock);
            if let Some(fault) = fault {
                // What follows an error starts from the seed, as the first round does.
                work.restart();
                reference = None;
                self.tell_wrong(round, &fault, last_wrong.as_ref());
                last_wrong = Some(fault);
            }
            self.stint.rest_after(working, began);
        }
    }

    /// One round and everything that can be wrong with it.
    fn round(&self, work: &mut dyn Work, round: u64, reference: &mut Option<Arc<Reference>>) -> Option<Fault> {
        let mut touch = Touch { disturb: self.disturb.as_ref(), core: self.core, round };
        if let Some(fault) = survived(work, &mut touch) {
            return Some(fault);
        }
        match reference {
            Some(reference) => compare(work, &reference.digests),
            None => {
                if work.digests().is_empty() {
                    return None;
                }
                self.find_reference(work, &mut touch, reference)
            }
        }
    }

    /// Takes a result that this processor found twice from scratch as the reference, or tells why it can't be one.
    fn find_reference(
        &self,
        work: &mut dyn Work,
        touch: &mut Touch,
        reference: &mut Option<Arc<Reference>>,
    ) -> Option<Fault> {
        if let Some(fault) = work.inspect() {
            return Some(fault);
        }
        let first = work.digests().to_vec();
        work.restart();
        if let Some(fault) = survived(work, touch).or_else(|| compare(work, &first)) {
            return Some(fault);
        }
        let agreed = self.stint.agreement.on(&first, self.core);
        match difference(&first, &agreed.digests) {
            None => {
                *reference = Some(agreed);
                None
            }
            Some((part, _)) => {
                let fault = Fault::result(
                    format!("{:016x} (core {} found it twice)", agreed.digests[part], agreed.finder),
                    format!("{:016x} twice", first[part]),
                );
                Some(fault.in_part(work.part(part)))
            }
        }
    }

    fn tell_round(&self, work: &dyn Work, counted: &Counted, clock: &mut Clock) {
        let write = |bits: &AtomicU64, number: f64| bits.store(number.to_bits(), Ordering::Relaxed);
        let tally = &self.tally;
        tally.rounds.fetch_add(1, Ordering::Relaxed);
        let over_time = || counted.a_second() * self.load.work(self.stint.size);
        write(&tally.rate, work.reading().unwrap_or_else(over_time));
        write(&tally.noise, counted.noise());
        write(&tally.checked, self.stint.seconds());
        if let Some(clock) = clock.glimpse() {
            write(&tally.clock, clock);
        }
    }

    fn tell_wrong(&self, round: u64, fault: &Fault, last: Option<&Fault>) {
        let nth = self.tally.errors.fetch_add(1, Ordering::Relaxed) + 1;
        let same = |last: &Fault| last.part == fault.part && last.found == fault.found;
        let wrong = Wrong {
            core: Some(self.core),
            round,
            seconds: self.stint.seconds(),
            kind: fault.kind,
            part: fault.part.clone(),
            expected: fault.expected.clone(),
            found: fault.found.clone(),
            nth,
            repeats: fault.repeats.or(last.map(same)),
        };
        // Nobody listens any more when the pass is over, and then nothing more is told.
        let _ = self.listener.send(Told::Wrong(wrong));
        if self.stop == Stop::AtFirstError {
            self.stint.end();
        }
    }
}

/// The rounds that a rate is taken from: all plain ones, or the first, which is worked twice, until there are any.
///
/// Mean and spread of their times are kept by Welford's method (Note on a method for calculating corrected sums of
/// squares and products, 1962).
#[derive(Default)]
struct Counted {
    rounds: f64,
    /// Mean time of a round, seconds.
    mean: f64,
    /// Sum of squared distances from the mean.
    squares: f64,
    is_plain: bool,
}

impl Counted {
    fn take(&mut self, is_plain: bool, time: Duration) {
        if is_plain && !self.is_plain {
            *self = Self { is_plain, ..Self::default() };
        }
        if is_plain == self.is_plain {
            let seconds = if is_plain { time.as_secs_f64() } else { time.as_secs_f64() / 2.0 };
            self.rounds += 1.0;
            let off = seconds - self.mean;
            self.mean += off / self.rounds;
            self.squares += off * (seconds - self.mean);
        }
    }

    fn a_second(&self) -> f64 {
        1.0 / self.mean.max(1e-9)
    }

    /// Standard error of the mean, as a share of it; nothing where one round says nothing about it.
    fn noise(&self) -> f64 {
        if self.rounds < 2.0 {
            return 0.0;
        }
        (self.squares / (self.rounds - 1.0) / self.rounds).sqrt() / self.mean.max(1e-9)
    }
}

/// A round; where a wrong number led the load's own code astray, that is a wrong result like any other.
fn survived(work: &mut dyn Work, touch: &mut Touch) -> Option<Fault> {
    // Whatever the round left half done is made anew before the next one.
    let outcome = catch_unwind(AssertUnwindSafe(|| work.round(touch)));
    outcome.unwrap_or_else(|panic| {
        let message = panic.downcast_ref::<String>().map(String::as_str);
        let message = message.or(panic.downcast_ref::<&str>().copied()).unwrap_or("for no known reason");
        Some(Fault::result("a result", format!("the load's code was led astray: {message}")))
    })
}

/// What differs from the reference; what the work itself says about its result comes first.
fn compare(work: &mut dyn Work, expected: &[u64]) -> Option<Fault> {
    let (part, parts) = difference(work.digests(), expected)?;
    let place = match parts {
        1 => work.part(part),
        _ => format!("{} and {} more parts", work.part(part), parts - 1),
    };
    let found = work.digests()[part];
    let fault = work
        .inspect()
        .unwrap_or_else(|| Fault::result(format!("digest {:016x}", expected[part]), format!("digest {found:016x}")));
    Some(fault.in_part(place))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_rate_is_taken_from_plain_rounds_once_there_are_any() {
        let mut counted = Counted::default();
        counted.take(false, Duration::from_secs(8));
        assert_eq!(counted.a_second(), 0.25);
        for seconds in [1, 2, 3, 2] {
            counted.take(true, Duration::from_secs(seconds));
        }
        counted.take(false, Duration::from_secs(90));
        assert_eq!(counted.a_second(), 0.5);
        // The deviation of 1, 2, 3, 2 is √(2/3); that of their mean half of it.
        assert!((counted.noise() - (2.0f64 / 3.0).sqrt() / 2.0 / 2.0).abs() < 1e-12);
    }
}
