//! `open`: a limit that only holds the search back goes as far as it may, in one trial.

use super::ground::{Ground, Move, Outcome};
use crate::model::ladder::Direction;
use crate::model::reason::{Reason, StageEnd};
use crate::model::rung::Rung;
use crate::model::verdict::Verdict;

/// Takes one setting to its hardest allowed value, and leaves it where it was if that does not hold.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::engine) struct Open {
    setting: String,
    base: Rung,
    opened: Rung,
}

impl Open {
    pub(super) fn new(setting: &str, base: &Rung, ground: Ground) -> Self {
        let farthest = ground.rig.setting(setting).map(|setting| match setting.harder {
            Direction::Up => setting.ceiling(ground.use_name),
            Direction::Down => setting.floor,
        });
        let opened = farthest.map_or_else(|| base.clone(), |farthest| base.with(setting, farthest));
        Self { setting: setting.to_owned(), base: base.clone(), opened }
    }

    pub(super) fn first(&self) -> Move {
        Move::Try(self.opened.clone(), Reason::Open { setting: self.setting.clone() })
    }

    /// An open limit is no mark: nothing was climbed.
    pub(super) fn after(&self, outcome: &Outcome) -> Move {
        let value = self.opened.get(&self.setting).unwrap_or_default();
        let (rung, end) = match outcome.verdict {
            Verdict::Held => (&self.opened, StageEnd::Opened { setting: self.setting.clone(), value }),
            _ => (&self.base, outcome.next_did_not_hold(&self.setting, value)),
        };
        Move::Settle { rung: rung.clone(), proved_in: None, end }
    }
}
