//! `baseline`: the rig at stock, measured until the noise of its scores is known.

use super::ground::{Ground, Move, Outcome};
use crate::engine::scoring::Scoring;
use crate::inference::statistics::mean_interval;
use crate::model::moment::Span;
use crate::model::reason::{Reason, StageEnd};
use crate::model::rung::Rung;
use crate::model::verdict::Verdict;

/// Proves the rig at stock until its scores are known well enough.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Baseline {
    stock: Rung,
    repeats: u32,
    within: Option<f64>,
    /// Over how many starts of the machine the trials are spread, and which of them it is.
    starts: u32,
    start: u32,
    /// Each trial's number and the scores of its passes.
    trials: Vec<(u32, Vec<f64>)>,
    /// How many trials were disturbed and do not count.
    disturbed: u32,
    /// Whether a short trial comes first, and has not ended.
    warms_up: bool,
}

/// A first trial of this length comes before proofs that are longer than that.
const WARM_UP: Span = Span::from_seconds(30);
const SHORT: Span = Span::from_seconds(150);

/// Fewer measurements than this say too little about their noise to stop early.
const FEWEST: usize = 3;

impl Baseline {
    /// A baseline of at most so many trials over so many starts, fewer when each score is known to this share of its mean.
    pub(super) fn new(stock: &Rung, (repeats, starts): (u32, u32), within: Option<f64>, proof: Span) -> Self {
        let (trials, warms_up) = (Vec::new(), proof > SHORT);
        Self { stock: stock.clone(), repeats, within, starts, start: 1, trials, disturbed: 0, warms_up }
    }

    /// The length of a trial that is shorter than its proof.
    pub(super) fn length(&self) -> Option<Span> {
        self.warms_up.then_some(WARM_UP)
    }

    pub(super) fn first(&mut self) -> Move {
        if self.warms_up {
            return Move::Try(self.stock.clone(), Reason::WarmUp { length: WARM_UP });
        }
        self.again()
    }

    pub(super) fn after(&mut self, outcome: &Outcome, ground: Ground) -> Move {
        if outcome.verdict != Verdict::Held {
            return Move::GiveUp(StageEnd::NothingHeld { verdict: outcome.verdict, incident: outcome.incident });
        }
        if std::mem::take(&mut self.warms_up) {
            return self.again();
        }
        self.trials.push((outcome.trial, outcome.scores.clone()));
        if let Some(index) = self.one_disturbed(ground.rules).filter(|_| self.disturbed < self.repeats) {
            let (trial, _) = self.trials.remove(index);
            self.disturbed += 1;
            return Move::Try(self.stock.clone(), Reason::Disturbed { trial });
        }
        if self.trials.len() < self.repeats as usize && !self.is_known() {
            return self.again();
        }
        Move::Settle { rung: self.stock.clone(), proved_in: None, end: StageEnd::BaselineHeld }
    }

    fn again(&mut self) -> Move {
        let made = self.trials.len() as u32;
        let due = made * self.starts / self.repeats + 1;
        let start = (due > self.start).then_some(due);
        self.start = self.start.max(due);
        Move::Try(self.stock.clone(), Reason::Baseline { nth: made + 1, of: self.repeats, start })
    }

    /// Whether the score of every pass is known as well as is wanted.
    fn is_known(&self) -> bool {
        let Some(within) = self.within.filter(|_| self.start == self.starts) else { return false };
        let is_narrow = |scores: &Vec<f64>| mean_interval(scores).is_some_and(|interval| interval.relative() <= within);
        let passes = self.by_pass();
        self.trials.len() >= FEWEST && !passes.is_empty() && passes.iter().all(is_narrow)
    }

    /// The trial in which a score is clearly below the others of its pass.
    fn one_disturbed(&self, rules: u32) -> Option<usize> {
        let disturbed = Scoring::of(rules).disturbed;
        self.by_pass().iter().find_map(|scores| disturbed(scores).first().copied())
    }

    /// The scores of each pass that every trial has one of.
    fn by_pass(&self) -> Vec<Vec<f64>> {
        let passes = self.trials.iter().map(|(_, scores)| scores.len()).min().unwrap_or(0);
        (0..passes).map(|pass| self.trials.iter().map(|(_, scores)| scores[pass]).collect()).collect()
    }
}
