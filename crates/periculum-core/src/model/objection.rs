//! What stands against a rung that somebody wants to try: as data, which `telling` makes sentences of.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::model::ladder::Direction;
use crate::model::rig::{Illegal, Rig};
use crate::model::rung::Rung;
use crate::model::setting::Setting;

/// What stands against a rung.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(tag = "against", rename_all = "kebab-case")]
pub enum Objection {
    /// A value that the ladder of its setting does not have.
    OffLadder {
        /// The setting.
        setting: String,
        /// The value that was asked for.
        value: Decimal,
        /// The values of the ladder next to it, the lower one first; one where it lies beyond an end.
        nearest: Vec<Decimal>,
    },
    /// A value above the ceiling for the use.
    AboveCeiling {
        /// The setting.
        setting: String,
        /// The value that was asked for.
        value: Decimal,
        /// The largest that may be applied.
        ceiling: Decimal,
    },
    /// A value below the floor.
    BelowFloor {
        /// The setting.
        setting: String,
        /// The value that was asked for.
        value: Decimal,
        /// The smallest that may be applied.
        floor: Decimal,
    },
    /// A derived value that would leave its window.
    OutsideWindow {
        /// The derived value's name.
        derived: String,
        /// What it would be.
        value: String,
        /// Its window, as people read it.
        window: String,
    },
    /// What a pass is to be stopped at, or how low a setting may be, can't be calculated at the rung.
    Limitless {
        /// The sensor's label, or the setting's name.
        of: String,
    },
    /// A setting that the rung has no value of.
    NoValue {
        /// The setting.
        setting: String,
    },
}

impl Objection {
    /// Everything that stands against a rung for this use, setting by setting; where nothing does, what a derived value has against
    /// it.
    pub fn all(rig: &Rig, rung: &Rung, use_name: &str) -> Vec<Self> {
        let of_settings: Vec<Self> = rig.settings.iter().filter_map(|one| Self::of(one, rung, use_name)).collect();
        match rig.permit(rung, use_name) {
            Err(Illegal::OutsideWindow { derived, value, window }) if of_settings.is_empty() => {
                vec![Self::OutsideWindow { derived, value, window: window.to_string() }]
            }
            Err(Illegal::BelowFloor { setting, value, floor }) if of_settings.is_empty() => {
                vec![Self::BelowFloor { setting, value, floor }]
            }
            Err(Illegal::Limitless { of }) if of_settings.is_empty() => vec![Self::Limitless { of }],
            _ => of_settings,
        }
    }

    /// What stands against the value of one setting.
    fn of(setting: &Setting, rung: &Rung, use_name: &str) -> Option<Self> {
        let name = setting.name.clone();
        let Some(value) = rung.get(&name) else { return Some(Self::NoValue { setting: name }) };
        let (floor, ceiling) = (setting.floor, setting.ceiling(use_name));
        if value > ceiling {
            return Some(Self::AboveCeiling { setting: name, value, ceiling });
        }
        if value < floor {
            return Some(Self::BelowFloor { setting: name, value, floor });
        }
        if setting.ladder.contains(value) {
            return None;
        }
        let sides = [Direction::Down, Direction::Up].map(|direction| setting.ladder.next(value, direction));
        Some(Self::OffLadder { setting: name, value, nearest: sides.into_iter().flatten().collect() })
    }
}
