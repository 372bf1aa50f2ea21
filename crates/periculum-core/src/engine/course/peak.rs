//! `peak`: the value with the best score, where more of a setting at last gives less.

use super::ground::{Ground, Move, Outcome, neighbour};
use crate::engine::scoring::Scoring;
use crate::inference::comparison::Says;
use crate::inference::noise::Noise;
use crate::inference::statistics::mean;
use crate::model::evidence::Bound;
use crate::model::reason::{Reason, StageEnd};
use crate::model::rung::Rung;
use crate::model::strategy::Steps;
use crate::model::verdict::Verdict;

/// The search ends when so many values in a row score clearly less than the best.
const CLEARLY_WORSE: u32 = 2;

/// Measures the score at each value, several times, until it clearly falls.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Peak {
    steps: Steps,
    repeats: u32,
    at: Rung,
    /// The scores at this value so far, a list for each trial.
    scores: Vec<Vec<f64>>,
    /// The values that are behind it.
    known: Vec<Known>,
    worse: u32,
    rules: u32,
}

#[derive(Clone, Debug, PartialEq)]
struct Known {
    rung: Rung,
    trial: u32,
    /// A list for each trial, with a score for each benchmark of the proof.
    scores: Vec<Vec<f64>>,
}

impl Known {
    /// The scores of one benchmark of the proof, in the order of its passes.
    fn of(&self, benchmark: usize) -> Vec<f64> {
        of(&self.scores, benchmark)
    }

    /// How good it is on the whole: the mean of its scores, or where several benchmarks made them the mean of the logarithms,
    /// so that each benchmark counts alike whatever its unit.
    fn merit(&self) -> f64 {
        if self.scores.iter().all(|trial| trial.len() == 1) {
            return mean(&self.of(0));
        }
        let logarithms: Vec<f64> = self.scores.iter().flatten().map(|score| libm::log(*score)).collect();
        mean(&logarithms)
    }
}

fn of(scores: &[Vec<f64>], benchmark: usize) -> Vec<f64> {
    scores.iter().filter_map(|trial| trial.get(benchmark).copied()).collect()
}

impl Peak {
    pub(super) fn new(steps: &Steps, repeats: u32, base: &Rung, ground: Ground) -> Self {
        let (scores, known, rules) = (Vec::new(), Vec::new(), ground.rules);
        Self { steps: steps.clone(), repeats, at: base.clone(), scores, known, worse: 0, rules }
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
        // By the rules of before, the last benchmark alone decided.
        let decide = if ground.rules > 0 {
            &outcome.scores[..]
        } else {
            &outcome.scores[outcome.scores.len().saturating_sub(1)..]
        };
        if decide.is_empty() {
            return self.settle(StageEnd::NoScore, outcome);
        }
        self.scores.push(decide.to_vec());
        if self.scores.len() < self.repeats as usize {
            return self.again();
        }
        let scores = std::mem::take(&mut self.scores);
        let worse_in = self.worse_in(&scores);
        self.worse = if worse_in.is_some() { self.worse + 1 } else { 0 };
        self.known.push(Known { rung: self.at.clone(), trial: outcome.trial, scores });
        let setting = self.steps.setting.clone();
        if self.worse == CLEARLY_WORSE {
            let benchmark = worse_in.filter(|_| ground.rules > 0).and_then(|at| outcome.benchmarks.get(at).cloned());
            return self.settle(StageEnd::PastPeak { setting, benchmark }, outcome);
        }
        match neighbour(&self.steps, self.steps.step, &self.at, ground, true) {
            Ok(harder) => {
                self.at = harder;
                self.again()
            }
            Err(limit) => {
                let value = self.at.get(&setting).unwrap_or_default();
                self.settle(StageEnd::AtLimit { setting, value, limit: Bound::Known(limit) }, outcome)
            }
        }
    }

    /// Which benchmark of the proof, if any, scores clearly less than at the best value.
    fn worse_in(&self, scores: &[Vec<f64>]) -> Option<usize> {
        let winner = self.winner()?;
        (0..winner.scores.first()?.len()).find(|at| {
            let measured = of(scores, *at);
            let all = [self.all(*at), vec![measured.clone()]].concat();
            self.is_less(&winner.of(*at), &measured, &all)
        })
    }

    /// The easiest value that is in no benchmark clearly below the one that is best on the whole.
    fn winner(&self) -> Option<&Known> {
        let highest = self.known.iter().max_by(|a, b| a.merit().total_cmp(&b.merit()))?;
        let is_less = |known: &Known, at| self.is_less(&highest.of(at), &known.of(at), &self.all(at));
        self.known.iter().find(|known| !(0..highest.scores[0].len()).any(|at| is_less(known, at)))
    }

    /// What all values that are behind it scored of a benchmark.
    fn all(&self, benchmark: usize) -> Vec<Vec<f64>> {
        self.known.iter().map(|known| known.of(benchmark)).collect()
    }

    /// Whether a value clearly scores less than the best one: by the noise of all these values, and although that one is the best of so
    /// many. By the rules up to 7 each pair was compared by itself.
    fn is_less(&self, best: &[f64], measured: &[f64], all: &[Vec<f64>]) -> bool {
        if self.rules < 8 {
            return (Scoring::of(self.rules).compare)(best, measured).says() == Says::Less;
        }
        let Some(noise) = Noise::pooled(all.iter().map(Vec::as_slice)) else { return false };
        let others = all.len().saturating_sub(1);
        let [best, measured] = [best, measured].map(|scores| (mean(scores), scores.len()));
        noise.compare_one_of(others, best, measured).says() == Says::Less
    }

    fn settle(&self, end: StageEnd, last: &Outcome) -> Move {
        match self.winner() {
            Some(winner) => Move::Settle { rung: winner.rung.clone(), proved_in: Some(winner.trial), end },
            None if last.verdict == Verdict::Held => Move::Settle { rung: self.at.clone(), proved_in: None, end },
            None => Move::GiveUp(StageEnd::NothingHeld { verdict: last.verdict, incident: last.incident }),
        }
    }
}
