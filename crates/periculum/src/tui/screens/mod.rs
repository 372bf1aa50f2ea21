//! The views that fill the screen, each with its keys, its state and its picture.

mod attempts;
mod borders;
mod climb;
mod climbs;
mod columns;
mod compare;
mod cores;
mod curve;
mod detail;
mod ended;
mod export;
mod figures;
mod fit;
mod header;
mod latest;
mod lead;
mod log;
mod logbook;
mod map;
mod names;
mod plan;
mod plane;
mod pooled;
mod profile;
mod ranges;
mod ranks;
mod rig;
mod score_curve;
mod score_levels;
mod scores;
mod screen;
mod scroll;
mod sensors;
mod specimens;
mod stages;
mod timeline;
mod traces;
mod track;
mod trial;
mod trials;

#[cfg(test)]
mod lead_tests;
#[cfg(test)]
mod plan_tests;
#[cfg(test)]
mod tests;
#[cfg(test)]
mod walk_tests;

pub(super) use fit::fit;
pub(super) use header::{draw as draw_header, draw_keys, state_of};
pub(super) use names::draw as draw_names;
pub(super) use screen::{Proposed, Screen, Then};
pub(super) use stages::wrapped;
pub(super) use traces::Traces;

/// Which screen is looked at. Each has the number by which it is shown.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum View {
    /// Where we are, and what comes next.
    Climb,
    /// Two settings against each other.
    Map,
    /// The trials, one by one.
    Trials,
    /// What the rig is and may be.
    Rig,
    /// What the sensors read.
    Traces,
    /// Every climb of the ledger.
    Climbs,
    /// What the benchmarks say.
    Scores,
    /// What was picked, beside each other.
    Compare,
    /// What is climbed, or is to be.
    Plan,
    /// Everything that happened.
    Log,
}

impl View {
    /// Every one, in the order of their numbers.
    pub(super) const ALL: [Self; 10] = [
        Self::Climb,
        Self::Map,
        Self::Trials,
        Self::Rig,
        Self::Traces,
        Self::Climbs,
        Self::Scores,
        Self::Compare,
        Self::Plan,
        Self::Log,
    ];
}

/// The digit that shows each view, in their order.
pub(super) const DIGITS: &str = "1234567890";

/// Every screen with what it remembers, and the one that is looked at.
pub(super) struct Screens {
    pub(super) at: View,
    climb: climb::Climb,
    map: map::Map,
    trials: trials::Trials,
    rig: rig::Rig,
    pub(super) traces: Traces,
    climbs: climbs::Climbs,
    scores: scores::Scores,
    compare: compare::Compare,
    plan: plan::Plan,
    log: log::Log,
}

impl Screens {
    /// The screens of a climb, which loads cores where it climbs nothing.
    pub(super) fn new(climbs_nothing: bool) -> Self {
        Self {
            at: View::Climb,
            climb: climb::Climb { shows_cores: climbs_nothing },
            map: map::Map::default(),
            trials: trials::Trials::default(),
            rig: rig::Rig::default(),
            traces: Traces::default(),
            climbs: climbs::Climbs::default(),
            scores: scores::Scores::default(),
            compare: compare::Compare::default(),
            plan: plan::Plan,
            log: log::Log::default(),
        }
    }

    /// The screen that is looked at.
    pub(super) fn current(&self) -> &dyn Screen {
        match self.at {
            View::Climb => &self.climb,
            View::Map => &self.map,
            View::Trials => &self.trials,
            View::Rig => &self.rig,
            View::Traces => &self.traces,
            View::Climbs => &self.climbs,
            View::Scores => &self.scores,
            View::Compare => &self.compare,
            View::Plan => &self.plan,
            View::Log => &self.log,
        }
    }

    /// The same, to be changed.
    pub(super) fn current_mut(&mut self) -> &mut dyn Screen {
        match self.at {
            View::Climb => &mut self.climb,
            View::Map => &mut self.map,
            View::Trials => &mut self.trials,
            View::Rig => &mut self.rig,
            View::Traces => &mut self.traces,
            View::Climbs => &mut self.climbs,
            View::Scores => &mut self.scores,
            View::Compare => &mut self.compare,
            View::Plan => &mut self.plan,
            View::Log => &mut self.log,
        }
    }
}
