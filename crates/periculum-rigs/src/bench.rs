//! All that a driver sees of a rig: orders in, events out.
//!
//! A bench answers later. Setting a value may take a microsecond or minutes, may fail half-way, and may happen on another
//! machine; whoever drives it goes on watching sensors and hearing the operator in the meantime.

use std::collections::BTreeMap;

use periculum_core::engine::{Said, Written};
use periculum_core::model::ending::Boot;
use periculum_core::model::errand::Errand;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{PassOrder, PassReport, Progress};
use periculum_core::model::rung::InForce;
use periculum_core::model::task::Task;

/// Tells one order from another, and so which order an answer belongs to; chosen by whoever gives the order.
pub type Number = u64;

/// What a bench can be told to do. Each order but [`Order::Break`] has one answer, unless the bench, or its machine, is gone.
#[derive(Clone, Debug, PartialEq)]
pub enum Order {
    /// Make the changes of an errand that needs nobody, all at once, and read back what is in force then.
    Apply(Errand),
    /// Make ready for an errand that somebody completes: what is in force at the next start is written down, several lines of
    /// a file in one step.
    Prepare(Errand),
    /// Somebody says that this errand is done: read back what is in force, and whether there was a start.
    Confirm(Errand),
    /// Read back what is in force.
    ReadBack,
    /// Put back what was there before the first change, as far as it takes effect at once.
    PutBack,
    /// Start the machine anew, which ends this program soon.
    StartAnew,
    /// Run a pass; there is one at a time.
    Run(PassOrder),
    /// Let somebody make a pass with this load, for so long, and tell what they see: where the rig is one in software.
    Show {
        /// The load's name.
        load: String,
        /// How long it takes.
        length: Span,
    },
    /// Break the running pass off at once; its end is told as usual.
    Break,
}

/// What came of an order.
#[derive(Clone, Debug, PartialEq)]
pub enum Answer {
    /// This is in force now: of [`Order::Apply`], [`Order::Confirm`] and [`Order::ReadBack`].
    InForce(ReadBack),
    /// It could not be done, or the rig did not survive it: of [`Order::Apply`], [`Order::Prepare`] and
    /// [`Order::Confirm`].
    Failed(Incident),
    /// All is ready for somebody to complete it: of [`Order::Prepare`].
    Prepared,
    /// It was put back, but for this, in sentences: of [`Order::PutBack`].
    PutBack(Vec<String>),
    /// The machine will be down in a moment: of [`Order::StartAnew`].
    StartingAnew,
    /// The machine can't be started anew, and why: of [`Order::StartAnew`].
    NotStartedAnew(String),
    /// The pass is over, and this is in force: of [`Order::Run`].
    Ended(Box<PassReport>, ReadBack),
    /// Somebody has seen this: of [`Order::Show`].
    Shown(Shown),
}

/// What somebody sees who makes a pass on a rig.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Shown {
    /// What its screen says at the end, each with what it is called; nothing where there is nothing to be seen.
    pub says: Vec<(String, String)>,
    /// What went wrong before their eyes.
    pub wrong: Option<Incident>,
}

impl Shown {
    /// What they say of it who were given this task, and write down what of it is asked for.
    pub fn said(&self, task: &Task) -> Said {
        let is_asked = |name: &str| task.reads.iter().any(|read| read.field.name == name);
        let written: Written = self.says.iter().filter(|(name, _)| is_asked(name)).cloned().collect();
        match &self.wrong {
            Some(incident) if self.says.is_empty() => match incident.kind {
                IncidentKind::NoPicture | IncidentKind::Artefact => {
                    Said::WrongPicture { what: incident.evidence.to_string() }
                }
                _ => Said::Hung,
            },
            _ => Said::Done { written },
        }
    }
}

/// What a rig reports of its settings.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct ReadBack {
    /// The reported value of every setting that can be read; the others are missing.
    pub in_force: InForce,
    /// Whether the machine has started since it was read back the last time.
    pub started_anew: bool,
    /// Why what should be readable is not, by setting.
    pub unread: BTreeMap<String, String>,
}

impl From<InForce> for ReadBack {
    fn from(in_force: InForce) -> Self {
        Self { in_force, ..Self::default() }
    }
}

/// What a bench has to tell.
#[derive(Clone, Debug, PartialEq)]
pub enum BenchEvent {
    /// An order is answered.
    Answered {
        /// Which.
        to: Number,
        /// With what.
        answer: Answer,
    },
    /// The running pass came further.
    Progress(Progress),
    /// Sensors were read.
    Sensed(Sensed),
    /// The hardware counted or the kernel logged errors.
    Noticed(Vec<Incident>),
    /// Other programs use the processor just before a trial's first pass, busiest first: name and percent of one core.
    OthersBusy(Vec<(String, f64)>),
}

/// What sensors read.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Sensed {
    /// Readings by sensor name, in each sensor's unit; one that does not answer is missing.
    pub readings: BTreeMap<String, f64>,
    /// Why those that do not answer do not, by sensor name.
    pub silent: BTreeMap<String, String>,
}

/// What the end of an earlier boot left behind.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Remains {
    /// Whether the watchdog restarted the machine; none where it can't tell.
    pub has_bitten: Option<bool>,
    /// What the kernel said last, where it kept that.
    pub last_words: Option<String>,
}

/// A rig that is set, read back, sensed and loaded.
pub trait Bench: Send {
    /// Takes an order; never waits.
    fn order(&mut self, number: Number, order: Order);

    /// Lets at most this much of the rig's time go by, less when something happens, and tells what did.
    fn events(&mut self, at_most: Span) -> Vec<BenchEvent>;

    /// The time on the rig's clock.
    fn now(&self) -> Moment;

    /// Whether the clock is virtual, so that [`Bench::events`] returns at once.
    fn is_virtual(&self) -> bool;

    /// Which start of which machine it is on.
    fn identity(&self) -> Boot;

    /// What is left of the boot that was last heard of at this moment of the wall clock.
    fn remains(&self, _last_heard_of: Moment) -> Remains {
        Remains::default()
    }

    /// How much later than it was ordered the running pass began to work, since it had to get ready.
    fn late(&self) -> Span {
        Span::ZERO
    }

    /// Says that all goes on, with a trial under way or with nothing to be watched: a machine that stands still and does not
    /// hear this for long may start anew by itself.
    fn guard(&mut self, _is_on_trial: bool) {}
}

/// Something a running pass has to tell.
#[derive(Clone, Debug, PartialEq)]
pub enum PassNews {
    /// It came further.
    Progress(Progress),
    /// It is over; nothing follows.
    Ended(PassReport),
}

/// Runs passes on this machine, one at a time.
pub trait RunPasses: Send {
    /// Starts a pass; what becomes of it is told by [`RunPasses::wait`], a failed start as an ended pass.
    fn start(&mut self, order: &PassOrder);

    /// Breaks the running pass off at once; its end is told as usual.
    fn stop(&mut self);

    /// How much later than it was ordered the running pass began to work, since it had to get ready.
    fn late(&self) -> Span {
        Span::ZERO
    }

    /// Waits at most this long, less when the pass ends, and tells what the pass has to say.
    fn wait(&mut self, at_most: Span) -> Vec<PassNews>;
}

/// Gives an order and waits for its answer, at most this long by the rig's clock; what happens beside it is
/// lost. For whoever has nothing else to do meanwhile.
///
/// Returns none where it is not answered in time.
pub fn answer_to(bench: &mut dyn Bench, order: Order, at_most: Span) -> Option<Answer> {
    /// Nothing else is under way, so that any number will do.
    const ONLY: Number = 0;
    bench.order(ONLY, order);
    let until = bench.now() + at_most;
    loop {
        for event in bench.events(AT_A_TIME) {
            if let BenchEvent::Answered { to: ONLY, answer } = event {
                return Some(answer);
            }
        }
        if bench.now() > until {
            return None;
        }
    }
}

/// For so long events are waited for at a time.
const AT_A_TIME: Span = Span::from_millis(50);

#[cfg(test)]
mod tests {
    use super::*;
    use periculum_core::model::field::{Field, Takes};
    use periculum_core::model::task::Read;

    #[test]
    fn what_is_seen_is_written_down_as_far_as_it_is_asked_for() {
        let field = Field { name: "ticks".into(), label: "ticks".into(), takes: Takes::Text, is_needed: true };
        let read = Read { field, right: Vec::new(), better: None };
        let task = Task { ask: "Read".into(), reads: vec![read], figures: Vec::new() };
        let says: Vec<(String, String)> =
            [("ticks", "440"), ("picture", "clean")].map(|(name, value)| (name.into(), value.into())).to_vec();
        let seen = |kind: Option<IncidentKind>, says: &[(String, String)]| {
            Shown { says: says.to_vec(), wrong: kind.map(|kind| Incident::new(kind, "dark")) }.said(&task)
        };
        let written = Written::from([("ticks".to_owned(), "440".to_owned())]);
        assert_eq!(seen(None, &says), Said::Done { written: written.clone() });
        assert_eq!(seen(Some(IncidentKind::Artefact), &says), Said::Done { written }, "it can still be read");
        assert_eq!(seen(Some(IncidentKind::NoPicture), &[]), Said::WrongPicture { what: "dark".into() });
        assert_eq!(seen(Some(IncidentKind::Freeze), &[]), Said::Hung);
    }
}
