//! `grid`: every combination of the values of some settings.

use std::collections::VecDeque;

use super::ground::{Ground, Move, Outcome};
use super::neighbours::ordered;
use crate::model::reason::{Fastest, Reason, Spared, StageEnd};
use crate::model::rung::Rung;
use crate::model::strategy::Sweep;
use crate::model::verdict::Verdict;

/// Tries every combination, easy ones first, but none that is in no way easier than one that fell.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Grid {
    base: Rung,
    settings: Vec<String>,
    /// What the order of the combinations spares whoever changes them by hand.
    spared: Option<Spared>,
    all: u32,
    waiting: VecDeque<Rung>,
    at: Rung,
    fallen: Vec<Rung>,
    held: u32,
    fell: u32,
    /// The rung with the best score, or the last one that held where there are none, its trial and its score.
    best: Option<(Rung, u32, Option<f64>)>,
    /// The hardest rung that held, and its trial: easy ones come first, so the last.
    hardest: Option<(Rung, u32)>,
    rules: u32,
    last: Option<Outcome>,
}

impl Grid {
    pub(super) fn new(over: &[Sweep], base: &Rung, ground: Ground) -> Self {
        let mut combinations = vec![(0, base.clone())];
        for sweep in over {
            let values = || sweep.values.iter().enumerate();
            let with = |(rank, rung): (usize, Rung)| {
                values().map(move |(index, value)| (rank + index, rung.with(&sweep.setting, *value)))
            };
            combinations = combinations.into_iter().flat_map(with).collect();
        }
        combinations.retain(|(_, rung)| ground.rig.permit(rung, ground.use_name).is_ok());
        // Easy ones first, and neighbours one after the other.
        combinations.sort_by_key(|(rank, _)| *rank);
        let settings: Vec<String> = over.iter().map(|sweep| sweep.setting.clone()).collect();
        let easy_first: Vec<Rung> = combinations.into_iter().map(|(_, rung)| rung).collect();
        let (waiting, spared) = match ground.rules {
            ..4 => (easy_first, None),
            _ => ordered(easy_first, base, &settings, ground.rig),
        };
        let waiting = VecDeque::from(waiting);
        Self {
            base: base.clone(),
            settings,
            spared,
            all: waiting.len() as u32,
            waiting,
            at: base.clone(),
            fallen: Vec::new(),
            held: 0,
            fell: 0,
            best: None,
            hardest: None,
            rules: ground.rules,
            last: None,
        }
    }

    pub(super) fn best(&self) -> Option<(&Rung, u32)> {
        if self.rules > 0 {
            return self.hardest.as_ref().map(|(rung, trial)| (rung, *trial));
        }
        self.best.as_ref().map(|(rung, trial, _)| (rung, *trial))
    }

    /// The next combination that may hold, or the end.
    pub(super) fn go_on(&mut self, ground: Ground) -> Move {
        while let Some(rung) = self.waiting.pop_front() {
            if self.fallen.iter().any(|fallen| self.is_no_easier(&rung, fallen, ground)) {
                continue;
            }
            self.at = rung;
            let nth = self.held + self.fell + 1;
            return Move::Try(self.at.clone(), Reason::Combination { nth, of: self.all });
        }
        self.end()
    }

    pub(super) fn after(&mut self, outcome: &Outcome, ground: Ground) -> Move {
        if outcome.verdict == Verdict::Held {
            self.held += 1;
            self.hardest = Some((self.at.clone(), outcome.trial));
            let score = outcome.scores.last().copied();
            let is_better = self.best.as_ref().is_none_or(|(_, _, best)| score >= *best);
            if is_better {
                self.best = Some((self.at.clone(), outcome.trial, score));
            }
        } else {
            self.fell += 1;
            self.fallen.push(self.at.clone());
            self.last = Some(outcome.clone());
        }
        self.go_on(ground)
    }

    /// Whether no setting of the first rung is easier than in the second.
    fn is_no_easier(&self, rung: &Rung, than: &Rung, ground: Ground) -> bool {
        self.settings.iter().all(|name| {
            let (Some(setting), Some(value), Some(other)) = (ground.rig.setting(name), rung.get(name), than.get(name))
            else {
                return false;
            };
            !setting.is_harder(value, other)
        })
    }

    fn end(&self) -> Move {
        let skipped = self.all - self.held - self.fell;
        let fastest = self.best.as_ref().filter(|(_, _, score)| score.is_some() && self.rules > 0);
        let fastest = fastest.map(|(rung, trial, _)| Fastest { rung: rung.clone(), trial: *trial });
        let end = StageEnd::GridDone { held: self.held, fell: self.fell, skipped, fastest, spared: self.spared };
        match (self.best(), &self.last) {
            (Some((rung, trial)), _) => Move::Settle { rung: rung.clone(), proved_in: Some(trial), end },
            (None, Some(fall)) => {
                Move::GiveUp(StageEnd::NothingHeld { verdict: fall.verdict, incident: fall.incident })
            }
            (None, None) => Move::Settle { rung: self.base.clone(), proved_in: None, end },
        }
    }
}
