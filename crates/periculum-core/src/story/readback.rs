//! What came of a setting: asked, reported and measured beside each other.

use std::collections::BTreeMap;

use rust_decimal::Decimal;

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
    /// The sensor that follows the setting, and its mean reading in the sensor's unit.
    pub measured: Option<(&'a Sensor, f64)>,
}

impl Readback<'_> {
    /// Whether the rig reported what was asked, as far as it can tell; nothing reported is no contradiction.
    pub fn was_taken(&self) -> bool {
        self.reported.is_none_or(|reported| self.setting.is_as_asked(self.asked, reported))
    }
}

/// What came of each setting of a trial, in the rig's order; measured is the mean over its passes.
pub fn of_trial<'a>(trial: &TrialStory, rig: &'a Rig, traces: &BTreeMap<String, Series>) -> Vec<Readback<'a>> {
    let mean = |sensor: &Sensor| Some(trial.spread(traces.get(&sensor.name)?)?.mean);
    let of = |setting: &'a Setting| {
        let asked = trial.rung.get(&setting.name)?;
        let reported = trial.reported.get(&setting.name).copied();
        let sensor = rig.sensors.iter().find(|sensor| sensor.follows.as_ref() == Some(&setting.name));
        let measured = sensor.and_then(|sensor| Some((sensor, mean(sensor)?)));
        Some(Readback { setting, asked, reported, measured })
    };
    rig.settings.iter().filter_map(of).collect()
}
