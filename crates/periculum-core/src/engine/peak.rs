//! `peak`: the value with the best score, where more of a setting at last gives less.

use super::course::{Ground, Move, Outcome, neighbour};
use crate::comparison::{Says, compare};
use crate::plan::Steps;
use crate::reason::{Reason, StageEnd};
use crate::rung::Rung;
use crate::statistics::mean;
use crate::verdict::Verdict;

/// The search ends when so many values in a row score clearly less than the best.
const CLEARLY_WORSE: u32 = 2;

/// Measures the score at each value, several times, until it clearly falls.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Peak {
    steps: Steps,
    repeats: u32,
    at: Rung,
    /// The scores at this value so far.
    scores: Vec<f64>,
    /// The values that are behind it.
    known: Vec<Known>,
    worse: u32,
}

#[derive(Clone, Debug, PartialEq)]
struct Known {
    rung: Rung,
    trial: u32,
    scores: Vec<f64>,
}

impl Peak {
    pub(super) fn new(steps: &Steps, repeats: u32, base: &Rung) -> Self {
        Self { steps: steps.clone(), repeats, at: base.clone(), scores: Vec::new(), known: Vec::new(), worse: 0 }
    }

    /// The best value so far: the easiest whose score is not clearly below the highest.
    pub(super) fn best(&self) -> Option<(&Rung, u32)> {
        self.winner().map(|winner| (&winner.rung, winner.trial))
    }

    pub(super) fn again(&self) -> Move {
        let nth = self.scores.len() as u32 + 1;
        let reason = Reason::Score { setting: self.steps.setting.clone(), nth, of: self.repeats };
        Move::Try(self.at.clone(), reason)
    }

    pub(super) fn after(&mut self, outcome: &Outcome, ground: Ground) -> Move {
        if outcome.verdict != Verdict::Held {
            let value = self.at.get(&self.steps.setting).unwrap_or_default();
            return self.settle(outcome.next_did_not_hold(&self.steps.setting, value), outcome);
        }
        let Some(score) = outcome.scores.last() else {
            return self.settle(StageEnd::NoScore, outcome);
        };
        self.scores.push(*score);
        if self.scores.len() < self.repeats as usize {
            return self.again();
        }
        let scores = std::mem::take(&mut self.scores);
        let is_worse = self.winner().is_some_and(|winner| compare(&winner.scores, &scores).says() == Says::Less);
        self.worse = if is_worse { self.worse + 1 } else { 0 };
        self.known.push(Known { rung: self.at.clone(), trial: outcome.trial, scores });
        let setting = self.steps.setting.clone();
        if self.worse == CLEARLY_WORSE {
            return self.settle(StageEnd::PastPeak { setting }, outcome);
        }
        match neighbour(&self.steps, self.steps.step, &self.at, ground, true) {
            Ok(harder) => {
                self.at = harder;
                self.again()
            }
            Err(limit) => {
                let value = self.at.get(&setting).unwrap_or_default();
                self.settle(StageEnd::AtLimit { setting, value, limit }, outcome)
            }
        }
    }

    fn winner(&self) -> Option<&Known> {
        let highest = self.known.iter().max_by(|a, b| mean(&a.scores).total_cmp(&mean(&b.scores)))?;
        self.known.iter().find(|known| compare(&highest.scores, &known.scores).says() != Says::Less)
    }

    fn settle(&self, end: StageEnd, last: &Outcome) -> Move {
        match self.winner() {
            Some(winner) => Move::Settle { rung: winner.rung.clone(), proved_in: Some(winner.trial), end },
            None if last.verdict == Verdict::Held => Move::Settle { rung: self.at.clone(), proved_in: None, end },
            None => Move::GiveUp(StageEnd::NothingHeld { verdict: last.verdict, incident: last.incident }),
        }
    }
}
