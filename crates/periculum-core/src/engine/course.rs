//! How a stage chooses its rungs: given what happened so far, the next rung or the end of the stage.

use std::collections::BTreeMap;

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use super::baseline::Baseline;
use super::each::Each;
use super::grid::Grid;
use super::map::Map;
use super::open::Open;
use super::peak::Peak;
use super::seek::Seek;
use super::soak::Soak;
use super::walk::Walk;
use crate::depth::Depth;
use crate::evidence::Known;
use crate::incident::IncidentKind;
use crate::ladder::Direction;
use crate::moment::Span;
use crate::plan::{Stage, Steps, Strategy};
use crate::reason::{Reason, StageEnd};
use crate::rig::{Illegal, Rig};
use crate::rung::Rung;
use crate::verdict::Verdict;

/// What limits every course.
#[derive(Clone, Copy)]
pub(super) struct Ground<'a> {
    pub(super) rig: &'a Rig,
    pub(super) use_name: &'a str,
    /// For how long passes may still run; none where no budget says.
    pub(super) left: Option<Span>,
    /// The rules that decide, see [`crate::engine::RULES`].
    pub(super) rules: u32,
    /// The rungs that held in this climb, by trial.
    pub(super) held: &'a BTreeMap<u32, Rung>,
}

/// What a course wants next.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Move {
    /// Put this rung on trial.
    Try(Rung, Reason),
    /// The stage is over at this rung, which held in this trial; none where the stage proved nothing new.
    Settle { rung: Rung, proved_in: Option<u32>, end: StageEnd },
    /// The stage is over and nothing held.
    GiveUp(StageEnd),
}

/// A trial that is over, as a course needs to know it.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Outcome {
    pub(super) trial: u32,
    pub(super) verdict: Verdict,
    pub(super) incident: Option<IncidentKind>,
    /// The scores of its passes, in order; passes without a score are missing.
    pub(super) scores: Vec<f64>,
    /// The loads that made them.
    pub(super) benchmarks: Vec<String>,
    /// How long its passes ran, together, as far as is known.
    pub(super) tested: Span,
    /// How much longer they may have run before the fall, since nobody heard of it at once.
    pub(super) unheard: Span,
}

impl Outcome {
    /// How deep the fall was.
    pub(super) fn depth(&self) -> Depth {
        Depth::of(self.incident, self.tested)
    }

    /// Whether the machine went down.
    pub(super) fn took_machine_down(&self) -> bool {
        self.incident.is_some_and(IncidentKind::takes_machine_down)
    }

    /// The end of a stage that this outcome of the next value is the reason for: where the rig got too hot or took its
    /// clock back, a stronger voltage would not help, so that is told apart.
    pub(super) fn next_did_not_hold(&self, setting: &str, value: Decimal) -> StageEnd {
        let setting = setting.to_owned();
        match self.incident {
            Some(limited @ (IncidentKind::Throttled | IncidentKind::TooHot)) if self.verdict == Verdict::Slipped => {
                StageEnd::Limited { setting, value, incident: limited }
            }
            incident => StageEnd::NextDidNotHold { setting, value, verdict: self.verdict, incident },
        }
    }

    /// Whether something went wrong in the rig, as chance has it near a limit; being throttled or too hot, or not
    /// taking a value, has other reasons.
    pub(super) fn is_error(&self) -> bool {
        self.verdict == Verdict::Fell || self.incident == Some(IncidentKind::CorrectedError)
    }
}

/// The course of one stage.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Course {
    Baseline(Baseline),
    Open(Open),
    Walk(Walk),
    Seek(Box<Seek>),
    Map(Box<Map>),
    Grid(Grid),
    Each(Box<Each>),
    Peak(Peak),
    Soak(Soak),
}

impl Course {
    /// The course of a stage that stands on this rung, with a proof of this length.
    pub(super) fn of(stage: &Stage, base: &Rung, proof: Span, ground: Ground) -> Self {
        match &stage.strategy {
            Strategy::Baseline { repeats, within } => {
                let within = within.and_then(|within| within.to_f64());
                // A rig that nothing is to be changed on is proved as it is asked for.
                let length = if ground.rig.settings.is_empty() { Span::ZERO } else { proof };
                Self::Baseline(Baseline::new(base, *repeats, within, length))
            }
            Strategy::Open { setting } => Self::Open(Open::new(setting, base, ground)),
            Strategy::Ascend(steps) | Strategy::Trim(steps) => Self::Walk(Walk::new(steps, None, base)),
            Strategy::Feed { steps, feed } => Self::Walk(Walk::new(steps, Some(feed), base)),
            Strategy::Seek { steps, margin } => Self::Seek(Box::new(Seek::new(steps, *margin, base, proof, ground))),
            Strategy::Map { steps, over } => Self::Map(Box::new(Map::new(steps, over, base, proof, ground))),
            Strategy::Grid { over } => Self::Grid(Grid::new(over, base, ground)),
            Strategy::Each(each) => Self::Each(Box::new(Each::new(each, base))),
            Strategy::Peak { steps, repeats } => Self::Peak(Peak::new(steps, *repeats, base)),
            Strategy::Soak { steps, margin } => Self::Soak(Soak::new(steps, *margin, base, ground)),
        }
    }

    /// What the stage does first.
    pub(super) fn first(&mut self, ground: Ground) -> Move {
        match self {
            Self::Baseline(baseline) => baseline.first(),
            Self::Open(open) => open.first(),
            Self::Walk(walk) => walk.first(ground),
            Self::Seek(seek) => seek.first(ground),
            Self::Map(map) => map.first(ground),
            Self::Grid(grid) => grid.go_on(ground),
            Self::Each(each) => each.first(ground),
            Self::Peak(peak) => peak.again(),
            Self::Soak(soak) => soak.first(),
        }
    }

    /// What the stage does after a trial of the rung it asked for.
    pub(super) fn after(&mut self, outcome: &Outcome, ground: Ground) -> Move {
        match self {
            Self::Baseline(baseline) => baseline.after(outcome),
            Self::Open(open) => open.after(outcome),
            Self::Walk(walk) => walk.after(outcome, ground),
            Self::Seek(seek) => seek.after(outcome, ground),
            Self::Map(map) => map.after(outcome, ground),
            Self::Grid(grid) => grid.after(outcome, ground),
            Self::Each(each) => each.after(outcome, ground),
            Self::Peak(peak) => peak.after(outcome, ground),
            Self::Soak(soak) => soak.after(outcome, ground),
        }
    }

    /// How long the trial takes that was asked for last, where that is not as long as the proof.
    pub(super) fn length(&self) -> Option<Span> {
        match self {
            Self::Baseline(baseline) => baseline.length(),
            Self::Seek(seek) => seek.length(),
            Self::Map(map) => map.length(),
            _ => None,
        }
    }

    /// The setting whose limit the trial is about that was asked for last; none where it is about several together.
    pub(super) fn climbs(&self) -> Option<&str> {
        match self {
            Self::Walk(walk) => Some(walk.setting()),
            Self::Seek(seek) => Some(seek.setting()),
            Self::Each(each) => each.climbs_alone(),
            Self::Map(map) => Some(map.setting()),
            Self::Baseline(_) | Self::Open(_) | Self::Grid(_) | Self::Peak(_) | Self::Soak(_) => None,
        }
    }

    /// The best rung so far that held the stage's whole proof, and the trial it held in: what is left when the budget
    /// ends here.
    pub(super) fn best(&self) -> Option<(&Rung, u32)> {
        match self {
            Self::Walk(walk) => walk.best(),
            Self::Grid(grid) => grid.best(),
            Self::Peak(peak) => peak.best(),
            Self::Baseline(_) | Self::Open(_) | Self::Seek(_) | Self::Map(_) | Self::Each(_) | Self::Soak(_) => None,
        }
    }
}

/// The rung one step of this size harder or easier, or what stands against it.
pub(super) fn neighbour(
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
            Illegal::Missing { .. } | Illegal::OutOfReach { .. } => Self::Impossible,
        }
    }
}
