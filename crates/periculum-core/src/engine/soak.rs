//! `soak`: the rung that the stages before have come to, a margin easier, put to a long proof; easier still where it
//! falls.

use super::course::{Ground, Move, Outcome, neighbour};
use crate::plan::Steps;
use crate::reason::{Reason, StageEnd};
use crate::rung::Rung;
use crate::verdict::Verdict;

/// Proves one rung, or the hardest below it that holds.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Soak {
    steps: Steps,
    margin: u32,
    at: Rung,
    /// The last rung that did not hold, and how it ended.
    fallen: Option<(Rung, Outcome)>,
}

impl Soak {
    pub(super) fn new(steps: &Steps, margin: u32, base: &Rung, ground: Ground) -> Self {
        let at = easier(steps, base, margin, ground);
        Self { steps: steps.clone(), margin, at, fallen: None }
    }

    pub(super) fn first(&self) -> Move {
        Move::Try(self.at.clone(), Reason::Soak { setting: self.steps.setting.clone(), margin: self.margin })
    }

    pub(super) fn after(&mut self, outcome: Outcome, ground: Ground) -> Move {
        let setting = self.steps.setting.clone();
        let value = |rung: &Rung| rung.get(&self.steps.setting).unwrap_or_default();
        if outcome.verdict == Verdict::Held {
            let end = match &self.fallen {
                None => StageEnd::Soaked,
                Some((rung, fall)) => StageEnd::NextDidNotHold {
                    setting,
                    value: value(rung),
                    verdict: fall.verdict,
                    incident: fall.incident,
                },
            };
            return Move::Settle { rung: self.at.clone(), proved_in: Some(outcome.trial), end };
        }
        let fallen = self.at.clone();
        self.at = easier(&self.steps, &fallen, self.steps.back, ground);
        if self.at == fallen {
            return Move::GiveUp(StageEnd::NothingHeld { verdict: outcome.verdict, incident: outcome.incident });
        }
        let from = value(&fallen);
        self.fallen = Some((fallen, outcome));
        Move::Try(self.at.clone(), Reason::StepBack { setting, from })
    }
}

/// So many steps easier, but never easier than stock.
fn easier(steps: &Steps, from: &Rung, count: u32, ground: Ground) -> Rung {
    let stock = ground.rig.setting(&steps.setting).map(|setting| setting.stock);
    let mut at = from.clone();
    for _ in 0..count {
        match neighbour(steps, &at, ground, false) {
            Ok(easier) if at.get(&steps.setting) != stock => at = easier,
            _ => break,
        }
    }
    at
}
