//! What came of a setting: asked, reported and measured beside each other.

use std::collections::BTreeMap;

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use crate::model::rig::{Rig, Sensor};
use crate::model::setting::Setting;
use crate::story::TrialStory;
use crate::story::series::Series;

/// A setting with what was asked, what the rig said it has, and what a sensor measured of it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Readback<'a> {
    /// The setting.
    pub setting: &'a Setting,
    /// The value that was asked for.
    pub asked: Decimal,
    /// The value that the rig reported; none where it was not read back.
    pub reported: Option<Decimal>,
    /// What was measured of it.
    pub measured: Option<Measured<'a>>,
}

/// What was measured of a setting.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Measured<'a> {
    /// The mean reading of the sensor that follows it, in the sensor's unit.
    BySensor(&'a Sensor, f64),
    /// What somebody measured, in the setting's unit.
    ByHand(Decimal),
}

impl Measured<'_> {
    /// The number alone.
    pub fn number(&self) -> f64 {
        match self {
            Self::BySensor(_, reading) => *reading,
            Self::ByHand(value) => value.to_f64().unwrap_or(f64::NAN),
        }
    }
}

impl Readback<'_> {
    /// Whether the rig reported what was asked, as far as it can tell; nothing reported is no contradiction.
    pub fn was_taken(&self) -> bool {
        self.reported.is_none_or(|reported| self.setting.is_as_asked(self.asked, reported))
    }
}

/// What came of each setting of a trial, in the rig's order; measured is the mean over its passes. Levers of curves that are as they
/// come, and so reported, go without saying.
pub fn of_trial<'a>(trial: &TrialStory, rig: &'a Rig, traces: &BTreeMap<String, Series>) -> Vec<Readback<'a>> {
    let mean = |sensor: &Sensor| Some(trial.spread(sensor, traces)?.mean);
    let of = |setting: &'a Setting| {
        let asked = trial.rung.get(&setting.name)?;
        let reported = trial.reported.get(&setting.name).copied();
        if rig.goes_without_saying(setting, asked) && reported.is_none_or(|reported| reported == asked) {
            return None;
        }
        let sensor = rig.sensors.iter().find(|sensor| sensor.follows.as_ref() == Some(&setting.name));
        let by_hand = trial.measured.get(&setting.name).copied().map(Measured::ByHand);
        let measured = by_hand.or_else(|| sensor.and_then(|sensor| Some(Measured::BySensor(sensor, mean(sensor)?))));
        Some(Readback { setting, asked, reported, measured })
    };
    rig.settings.iter().filter_map(of).collect()
}
