//! `soak`: the rung that the stages before have come to, a margin easier, put to a long proof; easier still where it
//! falls.

use super::ground::{Ground, Move, Outcome, neighbour};
use crate::model::reason::{Reason, StageEnd};
use crate::model::rung::Rung;
use crate::model::strategy::{Margin, Steps};
use crate::model::verdict::Verdict;

/// Proves one rung, or the hardest below it that holds.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Soak {
    steps: Steps,
    /// How many steps easier than the mark it begins.
    margin: u32,
    at: Rung,
    /// The last rung that did not hold, and how it ended.
    fallen: Option<(Rung, Outcome)>,
}

impl Soak {
    pub(super) fn new(steps: &Steps, margin: Margin, base: &Rung, ground: Ground) -> Self {
        let margin = in_steps(margin, steps, base, ground);
        let at = easier(steps, base, margin, ground);
        Self { steps: steps.clone(), margin, at, fallen: None }
    }

    pub(super) fn first(&self) -> Move {
        Move::Try(self.at.clone(), Reason::Soak { setting: self.steps.setting.clone(), margin: self.margin })
    }

    pub(super) fn after(&mut self, outcome: &Outcome, ground: Ground) -> Move {
        let setting = self.steps.setting.clone();
        let value = |rung: &Rung| rung.get(&self.steps.setting).unwrap_or_default();
        if outcome.verdict == Verdict::Held {
            let end = match &self.fallen {
                None => StageEnd::Soaked,
                Some((rung, fall)) => fall.next_did_not_hold(&setting, value(rung)),
            };
            return Move::Settle { rung: self.at.clone(), proved_in: Some(outcome.trial), end };
        }
        let fallen = self.at.clone();
        self.at = easier(&self.steps, &fallen, self.steps.back + outcome.depth().steps(), ground);
        if self.at == fallen {
            return Move::GiveUp(StageEnd::NothingHeld { verdict: outcome.verdict, incident: outcome.incident });
        }
        let (from, depth) = (value(&fallen), outcome.depth());
        self.fallen = Some((fallen, outcome.clone()));
        Move::Try(self.at.clone(), Reason::StepBack { setting, from, depth })
    }
}

/// A margin below a mark in steps: as many as there are between stock and the mark, where it would be more.
fn in_steps(margin: Margin, steps: &Steps, mark: &Rung, ground: Ground) -> u32 {
    let value = |rung: &Rung| rung.get(&steps.setting).unwrap_or_default();
    let share = match margin {
        Margin::Steps(count) => return count,
        Margin::Share(share) => share,
    };
    let (mut count, mut at) = (0, mark.clone());
    while (value(&at) - value(mark)).abs() < share * value(mark).abs() {
        let next = easier(steps, &at, 1, ground);
        if next == at {
            break;
        }
        (count, at) = (count + 1, next);
    }
    count
}

/// So many steps easier, but never easier than stock.
fn easier(steps: &Steps, from: &Rung, count: u32, ground: Ground) -> Rung {
    let stock = ground.rig.setting(&steps.setting).map(|setting| setting.stock);
    let mut at = from.clone();
    for _ in 0..count {
        match neighbour(steps, steps.step, &at, ground, false) {
            Ok(easier) if at.get(&steps.setting) != stock => at = easier,
            _ => break,
        }
    }
    at
}
