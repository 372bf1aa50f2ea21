//! What every strategy stands on: what limits it, what it can ask for, and how the trial it asked for ended.

use std::collections::{BTreeMap, BTreeSet};

use rust_decimal::Decimal;

use crate::engine::question::Suggestion;
use crate::inference::hazard::Observation;
use crate::inference::prior::Beliefs;
use crate::model::depth::Depth;
use crate::model::evidence::Known;
use crate::model::incident::IncidentKind;
use crate::model::kind::Kind;
use crate::model::ladder::Direction;
use crate::model::moment::Span;
use crate::model::pass::Threads;
use crate::model::reason::{Reason, StageEnd};
use crate::model::rig::{Illegal, Rig};
use crate::model::rung::Rung;
use crate::model::strategy::Steps;
use crate::model::verdict::Verdict;

/// What limits every course.
#[derive(Clone, Copy)]
pub(in crate::engine) struct Ground<'a> {
    pub(in crate::engine) rig: &'a Rig,
    pub(in crate::engine) use_name: &'a str,
    /// For how long passes may still run; none where no budget says.
    pub(in crate::engine) left: Option<Span>,
    /// The rules that decide, see [`crate::engine::RULES`].
    pub(in crate::engine) rules: u32,
    /// The rungs that held in this climb, by trial.
    pub(in crate::engine) held: &'a BTreeMap<u32, Rung>,
    /// What is expected of settings, each under the loads of some proof.
    pub(in crate::engine) kinds: &'a [Kind],
    /// What the climb has seen of rungs, in the state that the rig has now.
    pub(in crate::engine) seen: &'a [Seen],
}

impl Ground<'_> {
    /// What is believed of rigs before anything is seen of them.
    pub(super) fn beliefs(&self) -> Beliefs {
        match self.rules {
            ..=7 => Beliefs::OF_7,
            8 => Beliefs::OF_8,
            9 => Beliefs::OF_9,
            10.. => Beliefs::PRESENT,
        }
    }
}

/// What one trial says of its rung.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Seen {
    pub(in crate::engine) trial: u32,
    pub(in crate::engine) rung: Rung,
    /// What its proof is made of.
    pub(in crate::engine) works: BTreeSet<(String, Threads)>,
    pub(in crate::engine) observation: Observation,
}

/// What a course wants next.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) enum Move {
    /// Put this rung on trial.
    Try(Rung, Reason),
    /// The stage is over at this rung, which held in this trial; none where the stage proved nothing new.
    Settle { rung: Rung, proved_in: Option<u32>, end: StageEnd },
    /// The stage is over and nothing held.
    GiveUp(StageEnd),
    /// The operator says what comes next; this is what a strategy would try.
    Ask(Option<Suggestion>),
}

/// A trial that is over, as a course needs to know it.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Outcome {
    pub(in crate::engine) trial: u32,
    pub(in crate::engine) verdict: Verdict,
    pub(in crate::engine) incident: Option<IncidentKind>,
    /// The cores that something went wrong on, as far as that is known.
    pub(in crate::engine) cores: BTreeSet<u32>,
    /// The scores of its passes, in order; passes without a score are missing.
    pub(in crate::engine) scores: Vec<f64>,
    /// The loads that made them.
    pub(in crate::engine) benchmarks: Vec<String>,
    /// How long its passes ran, together, as far as is known.
    pub(in crate::engine) tested: Span,
    /// How much longer they may have run before the fall, since nobody heard of it at once.
    pub(in crate::engine) unheard: Span,
}

impl Outcome {
    /// How deep the fall was.
    pub(in crate::engine) fn depth(&self) -> Depth {
        Depth::of(self.incident, self.tested)
    }

    /// Whether the machine went down.
    pub(in crate::engine) fn took_machine_down(&self) -> bool {
        self.incident.is_some_and(IncidentKind::takes_machine_down)
    }

    /// The end of a stage that this outcome of the next value is the reason for: where the rig got too hot or took its
    /// clock back, a stronger voltage would not help, so that is told apart.
    pub(in crate::engine) fn next_did_not_hold(&self, setting: &str, value: Decimal) -> StageEnd {
        let setting = setting.to_owned();
        match self.incident {
            Some(limited @ (IncidentKind::Throttled | IncidentKind::TooHot)) if self.verdict == Verdict::Slipped => {
                StageEnd::Limited { setting, value, incident: limited }
            }
            incident => StageEnd::NextDidNotHold { setting, value, verdict: self.verdict, incident },
        }
    }

    /// What it says of how often its rung fails; nothing where it ended for other reasons.
    pub(in crate::engine) fn observation(&self) -> Option<Observation> {
        let (tested, unheard) = (self.tested.seconds(), self.unheard.seconds());
        match self.verdict {
            Verdict::Held => Some(Observation::Held(tested)),
            _ if self.is_error() && unheard > 0.0 => Some(Observation::FellBetween(tested, tested + unheard)),
            _ if self.is_error() => Some(Observation::Fell(tested)),
            _ => None,
        }
    }

    /// Whether something went wrong in the rig, as chance has it near a limit; being throttled or too hot, or not
    /// taking a value, has other reasons.
    pub(in crate::engine) fn is_error(&self) -> bool {
        self.verdict == Verdict::Fell || self.incident == Some(IncidentKind::CorrectedError)
    }
}

/// The rung one step of this size harder or easier, or what stands against it.
pub(in crate::engine) fn neighbour(
    steps: &Steps,
    size: Option<Decimal>,
    from: &Rung,
    ground: Ground,
    harder: bool,
) -> Result<Rung, Known> {
    let value = from.get(&steps.setting).unwrap_or_default();
    let setting = ground.rig.setting(&steps.setting).ok_or(Known::Impossible)?;
    let direction = if harder { setting.harder } else { setting.harder.reversed() };
    let next = match size {
        None => setting.ladder.next(value, direction),
        Some(step) => {
            let there = if direction == Direction::Up { value + step } else { value - step };
            Some(there).filter(|value| setting.ladder.contains(*value))
        }
    };
    let next = next.ok_or(Known::LadderEnds)?;
    let ceiling = setting.ceiling(ground.use_name);
    if next > ceiling {
        return Err(Known::Ceiling { use_name: ground.use_name.to_owned(), at: ceiling });
    }
    if next < setting.floor {
        return Err(Known::Floor { at: setting.floor });
    }
    let rung = from.with(&setting.name, next);
    ground.rig.permit(&rung, ground.use_name)?;
    Ok(rung)
}

impl From<Illegal> for Known {
    fn from(illegal: Illegal) -> Self {
        match illegal {
            Illegal::OutsideWindow { derived, value, window } => {
                Self::Window { derived, value, window: window.to_string() }
            }
            Illegal::BelowFloor { floor, .. } => Self::Floor { at: floor },
            Illegal::Missing { .. } | Illegal::OutOfReach { .. } | Illegal::Limitless { .. } => Self::Impossible,
        }
    }
}
