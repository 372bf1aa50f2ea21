//! One thread on one processor.

use std::any::Any;
use std::panic::{AssertUnwindSafe, catch_unwind};
use std::sync::Arc;
use std::sync::mpsc::Sender;
use std::time::{Duration, Instant};

use super::clock::Clock;
use super::counted::Counted;
use super::load::{Disturb, Fault, FaultKind, Load, Touch, Work};
use super::order::Stop;
use super::reference::{Opinion, Reference, difference};
use super::stint::Stint;
use super::tally::Tally;
use crate::cores::pin_to;
use crate::kernel::Kernel;
use crate::protocol::{CoreState, Wrong};
use crate::struck;

/// What a worker tells the thread that listens.
pub(super) enum Told {
    Wrong(Wrong),
    Failed(String),
    /// It works no more, though nobody has ended it.
    Lost {
        core: usize,
        why: String,
    },
}

/// What every digest is before a round: whatever a round does not make stays so.
const UNMADE: u64 = 0x4e6f_7420_6d61_6465;

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

/// Something wrong, and whose fault it is; none where nobody can tell.
struct Blamed {
    fault: Fault,
    core: Option<usize>,
}

/// What a worker compares with as it goes along.
#[derive(Default)]
struct Known {
    reference: Option<Arc<Reference>>,
    last_wrong: Option<Fault>,
    /// How many digests a result has, from the beginning on.
    parts: usize,
    /// A digest of what all rounds start from.
    inputs: u64,
}

/// What all rounds start from, and whether the reference still stands, is looked at again after so many of them.
const LOOKED_AT: u64 = 16;

impl Worker {
    /// Works until the stint is over; whatever else ends it is told.
    pub(super) fn work(self) {
        let _room = struck::stand_by(self.core);
        self.tally.begin();
        // Whatever it left half done is used by nobody any more.
        if let Err(panic) = catch_unwind(AssertUnwindSafe(|| self.work_through())) {
            let why = format!("its thread was led astray and ended: {}", message(panic.as_ref()));
            // Nobody listens any more when the pass is over.
            let _ = self.listener.send(Told::Lost { core: self.core, why });
            self.stint.end();
        }
        self.tally.set(CoreState::Done);
    }

    fn work_through(&self) {
        let expected = self.stint.gate.expect();
        pin_to(self.core);
        let mut work = match self.load.begin(self.kernel, self.stint.size, self.seed) {
            Ok(work) => work,
            Err(error) => {
                let bytes = self.load.bytes(self.stint.size);
                let why = format!("core {} can't have {bytes} bytes of memory: {error}", self.core);
                let _ = self.listener.send(Told::Failed(why));
                return self.stint.end();
            }
        };
        work.restart();
        let mut known = Known { parts: work.digests().len(), inputs: work.inputs(), ..Known::default() };
        self.tally.set(CoreState::Ready);
        let (mut clock, began) = (Clock::new(), expected.come());
        self.tally.set(CoreState::Works);
        let (mut rounds, mut working) = (0u64, Duration::ZERO);
        let mut counted = Counted::default();
        while !self.stint.is_over() && self.stint.times.is_none_or(|times| rounds < times) {
            let round = self.tally.rounds() + 1;
            let began_round = Instant::now();
            // A round that becomes the reference is worked twice.
            let is_plain = known.reference.is_some() || known.parts == 0;
            let blamed = self.round(work.as_mut(), round, &mut known);
            rounds += 1;
            working += began_round.elapsed();
            counted.take(is_plain, began_round.elapsed());
            self.tell_round(work.as_ref(), &counted, &mut clock);
            if let Some(blamed) = blamed {
                // What follows an error starts from the seed, as the first round does.
                work.restart();
                known.reference = None;
                self.tell_wrong(round, &blamed, known.last_wrong.as_ref());
                known.last_wrong = Some(blamed.fault);
            }
            self.stint.rest_after(working, began);
        }
    }

    /// One round and everything that can be wrong with it.
    fn round(&self, work: &mut dyn Work, round: u64, known: &mut Known) -> Option<Blamed> {
        let mut touch = Touch { disturb: self.disturb.as_ref(), core: self.core, round };
        let fault = self.made(work, &mut touch, known.parts);
        let is_due = round.is_multiple_of(LOOKED_AT);
        let looked = if fault.is_some() || is_due { changed(work, known.inputs) } else { None };
        // What a round started from comes before what became of it.
        if let Some(fault) = looked.or(fault) {
            return self.own(fault);
        }
        if known.parts == 0 {
            return None;
        }
        let stands = |reference: &Arc<Reference>| !is_due || self.stint.agreement.stands(reference);
        let Some(reference) = known.reference.clone().filter(stands) else {
            return self.find_reference(work, &mut touch, known);
        };
        let fault = compare(work, &reference.digests)?;
        if reference.is_whole() {
            return self.own(changed(work, known.inputs).unwrap_or(fault));
        }
        known.reference = None;
        // Each core meets it; one tells.
        self.stint.agreement.forget(&reference).then(reference_changed)
    }

    fn own(&self, fault: Fault) -> Option<Blamed> {
        Some(Blamed { fault, core: Some(self.core) })
    }

    /// A round that must make all of its result; where a wrong number led the load's own code astray, that is a wrong result
    /// like any other.
    fn made(&self, work: &mut dyn Work, touch: &mut Touch, parts: usize) -> Option<Fault> {
        work.digests_mut().fill(UNMADE);
        // Whatever the round left half done is made anew before the next one.
        let outcome = catch_unwind(AssertUnwindSafe(|| work.round(touch)));
        let fault = outcome.unwrap_or_else(|panic| {
            let found = format!("the load's code was led astray: {}", message(panic.as_ref()));
            Some(Fault::result("a result", found))
        });
        fault.or_else(|| self.lacking(work, parts))
    }

    /// What is missing of a result, or was never asked for.
    fn lacking(&self, work: &dyn Work, parts: usize) -> Option<Fault> {
        let (size, wanted) = (work.size(), self.stint.size);
        if size != wanted {
            let of = |size: u64| format!("work on {size} {}", self.load.about().size_name);
            return Some(Fault::result(of(wanted), of(size)));
        }
        let digests = work.digests();
        if digests.len() != parts {
            return Some(Fault::result(format!("{parts} parts"), format!("{} of them", digests.len())));
        }
        let unmade = digests.iter().position(|digest| *digest == UNMADE)?;
        Some(Fault::result("a result", "none was made").in_part(work.part(unmade)))
    }

    /// Takes a result that this processor found twice from scratch as the reference, or tells why it can't be one.
    fn find_reference(&self, work: &mut dyn Work, touch: &mut Touch, known: &mut Known) -> Option<Blamed> {
        if let Some(fault) = work.inspect() {
            return self.own(fault);
        }
        let first = work.digests().to_vec();
        work.restart();
        if let Some(fault) = self.made(work, touch, known.parts).or_else(|| compare(work, &first)) {
            return self.own(fault);
        }
        let of = |reference: &Reference, part: usize| reference.digests.get(part).copied().unwrap_or_default();
        match self.stint.agreement.on(&first, self.core) {
            Opinion::Agrees(reference) => {
                known.reference = Some(reference);
                None
            }
            Opinion::Replaces(reference) => {
                known.reference = Some(reference);
                Some(reference_changed())
            }
            Opinion::Differs { reference, is_alone } => {
                let (part, _) = difference(&first, &reference.digests)?;
                let fault = Fault::result(
                    format!("{:016x} (core {} found it twice)", of(&reference, part), reference.finder),
                    format!("{:016x} twice on core {}", first[part], self.core),
                );
                // Of two that disagree either may be wrong.
                let core = (!is_alone).then_some(self.core);
                Some(Blamed { fault: fault.in_part(work.part(part)), core })
            }
            Opinion::Outvotes { reference, wrong } => {
                let (part, _) = difference(&first, &wrong.digests)?;
                known.reference = Some(reference);
                let fault = Fault::result(
                    format!("{:016x} (core {} and others found it)", first[part], self.core),
                    format!("{:016x} twice", of(&wrong, part)),
                );
                Some(Blamed { fault: fault.in_part(work.part(part)), core: Some(wrong.finder) })
            }
        }
    }

    fn tell_round(&self, work: &dyn Work, counted: &Counted, clock: &mut Clock) {
        let work_of_round = self.load.work(self.stint.size);
        let over_time = counted.worked() * work_of_round / self.stint.gate.open_for().as_secs_f64().max(1e-9);
        let rate = work.reading().unwrap_or_else(|| counted.a_second() * work_of_round);
        self.tally.round_ended(rate, counted.noise(), over_time, self.stint.seconds());
        if let Some(clock) = clock.glimpse() {
            self.tally.set_clock(clock);
        }
    }

    fn tell_wrong(&self, round: u64, blamed: &Blamed, last: Option<&Fault>) {
        let nth = self.tally.count_error();
        let Blamed { fault, core } = blamed;
        let same =
            |last: &Fault| (&last.part, &last.expected, &last.found) == (&fault.part, &fault.expected, &fault.found);
        let wrong = Wrong {
            core: *core,
            round,
            seconds: self.stint.seconds(),
            kind: fault.kind,
            part: fault.part.clone(),
            expected: fault.expected.clone(),
            found: fault.found.clone(),
            nth,
            repeats: fault.repeats.or(last.map(same)),
            picture: None,
        };
        // Nobody listens any more when the pass is over, and then nothing more is told.
        let _ = self.listener.send(Told::Wrong(wrong));
        if self.stop == Stop::AtFirstError {
            self.stint.end();
        }
    }
}

/// The digests that all cores compare with are others than they were: whose memory that was nobody can tell.
fn reference_changed() -> Blamed {
    Blamed { fault: Fault::of_reference("what all cores compare with"), core: None }
}

/// Whether what all rounds start from is no longer what it was.
fn changed(work: &dyn Work, inputs: u64) -> Option<Fault> {
    let now = work.inputs();
    let of = |digest| format!("digest {digest:016x} of what rounds start from");
    (now != inputs).then(|| Fault { kind: FaultKind::Memory, ..Fault::result(of(inputs), of(now)) })
}

/// What was said when something panicked.
fn message(panic: &(dyn Any + Send)) -> &str {
    let message = panic.downcast_ref::<String>().map(String::as_str);
    message.or(panic.downcast_ref::<&str>().copied()).unwrap_or("for no known reason")
}

/// What differs from the reference; what the work itself says about its result comes first.
fn compare(work: &mut dyn Work, expected: &[u64]) -> Option<Fault> {
    let (part, parts) = difference(work.digests(), expected)?;
    let place = match parts {
        1 => work.part(part),
        _ => format!("{} and {} more parts", work.part(part), parts - 1),
    };
    let of = |digests: &[u64]| digests.get(part).map_or("no digest".into(), |digest| format!("digest {digest:016x}"));
    let (wanted, found) = (of(expected), of(work.digests()));
    Some(work.inspect().unwrap_or_else(|| Fault::result(wanted, found)).in_part(place))
}
