//! How a stage chooses its rungs: given what happened so far, the next rung or the end of the stage.
//!
//! [`ground`] is what all strategies stand on; each is a file of its own above it, and knows no other but those it is made of.

mod back;
mod baseline;
mod each;
mod estimate;
mod grid;
mod ground;
mod lead;
mod map;
mod neighbours;
mod open;
mod peak;
mod seek;
mod soak;
mod track;
mod walk;

use rust_decimal::prelude::ToPrimitive;

use baseline::Baseline;
use each::Each;
use grid::Grid;
pub(super) use ground::{Ground, Move, Outcome, Seen};
pub(super) use lead::Lead;
use map::Map;
use open::Open;
use peak::Peak;
use seek::Seek;
use soak::Soak;
use walk::Walk;

use crate::model::moment::Span;
use crate::model::plan::{Proof, Stage};
use crate::model::rung::Rung;
use crate::model::strategy::Strategy;

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
    Lead(Lead),
    Soak(Soak),
}

impl Course {
    /// The course of a stage that stands on this rung, with this proof.
    pub(super) fn of(stage: &Stage, base: &Rung, proof: &Proof, ground: Ground) -> Self {
        // Nobody makes a pass for a part of its time, so that there is no length to choose from.
        let whole = if proof.is_by_hand() { Span::ZERO } else { proof.length() };
        match &stage.strategy {
            Strategy::Baseline { repeats, within, starts, .. } => {
                let within = within.and_then(|within| within.to_f64());
                // A rig that nothing is to be changed on is proved as it is asked for.
                let length = if ground.rig.settings.is_empty() { Span::ZERO } else { whole };
                Self::Baseline(Baseline::new(base, (*repeats, *starts), within, length))
            }
            Strategy::Open { setting } => Self::Open(Open::new(setting, base, ground)),
            Strategy::Ascend(steps) | Strategy::Trim(steps) => Self::Walk(Walk::new(steps, None, base)),
            Strategy::Feed { steps, feed } => Self::Walk(Walk::new(steps, Some(feed), base)),
            Strategy::Seek { steps, margin } if ground.rules > 6 => Self::Seek(Box::new(Seek::weighing(
                steps,
                *margin,
                base,
                (proof, &stage.wants.unwrap_or_default()),
                ground,
            ))),
            Strategy::Seek { steps, margin } => Self::Seek(Box::new(Seek::new(steps, *margin, base, whole, ground))),
            Strategy::Map { steps, over } => {
                Self::Map(Box::new(Map::new(steps, over, base, (proof, stage.wants), ground)))
            }
            Strategy::Grid { over } => Self::Grid(Grid::new(over, base, ground)),
            Strategy::Each(each) => Self::Each(Box::new(Each::new(each, base))),
            Strategy::Peak { steps, repeats } => Self::Peak(Peak::new(steps, *repeats, base, ground)),
            Strategy::Lead { setting } => Self::Lead(Lead::new(setting, base, ground)),
            Strategy::Soak { steps, margin } => match (&steps[..], &stage.wants) {
                ([one], Some(wants)) if ground.rules > 7 && !proof.is_by_hand() => {
                    Self::Seek(Box::new(Seek::soaking(one, *margin, base, (proof, wants), ground)))
                }
                _ => Self::Soak(Soak::new(steps, *margin, base, ground)),
            },
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
            Self::Lead(lead) => lead.first(ground),
            Self::Soak(soak) => soak.first(),
        }
    }

    /// What the stage does after a trial of the rung it asked for.
    pub(super) fn after(&mut self, outcome: &Outcome, ground: Ground) -> Move {
        match self {
            Self::Baseline(baseline) => baseline.after(outcome, ground),
            Self::Open(open) => open.after(outcome),
            Self::Walk(walk) => walk.after(outcome, ground),
            Self::Seek(seek) => seek.after(outcome, ground),
            Self::Map(map) => map.after(outcome, ground),
            Self::Grid(grid) => grid.after(outcome, ground),
            Self::Each(each) => each.after(outcome, ground),
            Self::Peak(peak) => peak.after(outcome, ground),
            Self::Lead(lead) => lead.after(outcome, ground),
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
            Self::Baseline(_) | Self::Open(_) | Self::Grid(_) | Self::Peak(_) | Self::Lead(_) | Self::Soak(_) => None,
        }
    }

    /// The best rung so far that held the stage's whole proof, and the trial it held in: what is left when the budget
    /// ends here.
    pub(super) fn best(&self) -> Option<(&Rung, u32)> {
        match self {
            Self::Walk(walk) => walk.best(),
            Self::Grid(grid) => grid.best(),
            Self::Peak(peak) => peak.best(),
            Self::Lead(lead) => lead.held(),
            Self::Baseline(_) | Self::Open(_) | Self::Seek(_) | Self::Map(_) | Self::Each(_) | Self::Soak(_) => None,
        }
    }
}
