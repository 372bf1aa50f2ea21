//! What may be written down of a setting, and of a sensor.

use rust_decimal::Decimal;

use crate::model::field::{Field, Takes};
use crate::model::rig::Sensor;
use crate::model::setting::Setting;

/// So many times less or more than the ladder has is not believed: it is another unit.
const BEYOND: Decimal = Decimal::TWO;

impl Field {
    /// A value of a setting: what the rig itself shows of one that somebody changed, or what it is to be.
    pub fn of_setting(setting: &Setting) -> Self {
        let takes = match setting.words.as_slice() {
            [] => Takes::Number {
                unit: setting.unit.clone(),
                least: Some(beyond(setting.ladder.lowest(), false)),
                most: Some(beyond(setting.ladder.highest(), true)),
            },
            words => Takes::Words(words.to_vec()),
        };
        Self { name: setting.name.clone(), label: setting.label.clone(), takes, is_needed: false }
    }

    /// A reading of a sensor; one that a cut-off rests on is needed.
    pub fn of_sensor(sensor: &Sensor) -> Self {
        Self {
            name: sensor.name.clone(),
            label: sensor.label.clone(),
            takes: Takes::Number { unit: sensor.unit.clone(), least: None, most: None },
            is_needed: sensor.is_guarded(),
        }
    }
}

/// The bound of what is believed beyond the end of a ladder.
fn beyond(end: Decimal, upwards: bool) -> Decimal {
    match upwards == (end >= Decimal::ZERO) {
        true => end.checked_mul(BEYOND).unwrap_or(end),
        false => end / BEYOND,
    }
}
