//! What a search estimates of the limit of one setting, in steps from the rung that it began at.

mod former;
mod weighed;

pub(super) use former::Former;
pub(super) use weighed::Weighed;

use crate::inference::hazard::{Observation, Survival};

/// Moments of a trial that are told apart, seconds: falls before the first one come at once.
const MOMENTS: [f64; 7] = [10.0, 30.0, 120.0, 300.0, 900.0, 1800.0, 3600.0];

/// No trial is shorter than this, seconds.
pub(super) const SHORTEST: f64 = 120.0;

/// What a fall costs, and one that comes at once, which mostly takes the machine down, in seconds of testing.
const FALL: f64 = 30.0;
const DEEP_FALL: f64 = 900.0;

/// Where the next trial may be.
#[derive(Clone, Copy)]
pub(super) struct Reach {
    /// The hardest rung that held for any time.
    pub(super) held: usize,
    /// The hardest rung that it may go to.
    pub(super) highest: usize,
    /// Whether something fell.
    pub(super) has_fallen: bool,
    /// What setting up a trial costs, in seconds of testing.
    pub(super) setting_up: f64,
}

impl Reach {
    /// What a trial costs of which this is expected, in seconds of testing.
    fn cost(&self, seconds: f64, falls: f64, falls_at_once: f64) -> f64 {
        self.setting_up + seconds + FALL * falls + DEEP_FALL * falls_at_once
    }
}

/// By one law of which three figures are not known, as the rules up to 6 had it, or by many laws.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Estimate {
    Former(Former),
    Weighed(Weighed),
}

impl Estimate {
    pub(super) fn observe(&mut self, rung: f64, observation: Observation) {
        match self {
            Self::Former(former) => former.model.observe(rung, observation),
            Self::Weighed(weighed) => weighed.laws.observe(rung, observation),
        }
    }

    /// The limit's expectation and its standard deviation, in steps.
    pub(super) fn limit(&self) -> (f64, f64) {
        match self {
            Self::Former(former) => former.model.limit(),
            Self::Weighed(weighed) => weighed.laws.limit(&weighed.aim),
        }
    }

    /// How a rung survives the proof.
    pub(super) fn survival(&self, rung: f64) -> Survival {
        match self {
            Self::Former(former) => former.model.survival(rung),
            Self::Weighed(weighed) => weighed.laws.survival(rung, weighed.aim.proof, weighed.aim.sure),
        }
    }

    /// The probability that a rung is within the limit.
    pub(super) fn within(&self, rung: f64) -> f64 {
        match self {
            Self::Former(former) => former.model.within(rung),
            Self::Weighed(weighed) => weighed.laws.within(rung, &weighed.aim),
        }
    }

    /// The hardest rung up to this one that is worth its proof, with so many steps between it and what is to be good enough.
    pub(super) fn candidate(&self, most: usize, margin: impl Fn(usize) -> f64) -> usize {
        match self {
            Self::Former(former) => former.candidate(most, margin),
            Self::Weighed(weighed) => weighed.candidate(most, margin),
        }
    }

    /// The trial that teaches most for its cost, and its length in seconds; none where enough is known, or nothing more is to be
    /// learnt in reason.
    pub(super) fn lesson(&self, reach: Reach) -> Option<(usize, f64)> {
        match self {
            Self::Former(former) => former.lesson(reach),
            Self::Weighed(weighed) => weighed.lesson(reach),
        }
    }
}
