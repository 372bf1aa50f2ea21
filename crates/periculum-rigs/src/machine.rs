//! The computer this runs on: settings are changed by hand, sensors come from the kernel, loads are real.

use std::collections::BTreeMap;
use std::time::{Duration, SystemTime, UNIX_EPOCH};

use periculum_core::incident::{Incident, IncidentKind};
use periculum_core::moment::{Moment, Span};
use periculum_core::pass::PassOrder;
use periculum_core::rig::Rig;
use periculum_core::rung::{Change, InForce};

use crate::bench::{Apply, KeepTime, PassNews, ReadBack, RunPasses, Sense};
use crate::linux::Linux;

/// For how long other programs are watched.
const LOOKING: Duration = Duration::from_millis(250);

/// This machine, with passes run by whatever can run them.
pub struct ThisMachine<R> {
    linux: Linux,
    sensors: Vec<(String, String)>,
    passes: R,
}

impl<R: RunPasses> ThisMachine<R> {
    /// This machine as the rig describes it.
    pub fn new(linux: Linux, rig: &Rig, passes: R) -> Self {
        let sensors = rig.sensors.iter().map(|sensor| (sensor.name.clone(), sensor.source.clone())).collect();
        Self { linux, sensors, passes }
    }
}

/// The wall clock.
pub fn wall_clock() -> Moment {
    let since = SystemTime::now().duration_since(UNIX_EPOCH).unwrap_or_default();
    Moment::from_millis(i64::try_from(since.as_millis()).unwrap_or(i64::MAX))
}

impl<R> Apply for ThisMachine<R> {
    fn apply(&mut self, change: &Change) -> Result<(), Incident> {
        let evidence = "no adapter of this rig can change it; it has to be changed by hand";
        Err(Incident::new(IncidentKind::NotTaken, evidence).at(change.setting.clone()))
    }
}

impl<R> ReadBack for ThisMachine<R> {
    /// What a person changed in firmware or with a tool can't be read back.
    fn read_back(&mut self) -> InForce {
        InForce::new()
    }
}

impl<R> Sense for ThisMachine<R> {
    fn sense(&mut self) -> BTreeMap<String, f64> {
        let Self { linux, sensors, .. } = self;
        sensors.iter().filter_map(|(name, source)| Some((name.clone(), linux.reading(source)?))).collect()
    }

    fn others(&mut self) -> Vec<(String, f64)> {
        self.linux.busy_programs(LOOKING)
    }
}

impl<R: RunPasses> RunPasses for ThisMachine<R> {
    fn start(&mut self, order: &PassOrder) {
        self.passes.start(order);
    }

    fn stop(&mut self) {
        self.passes.stop();
    }

    fn wait(&mut self, at_most: Span) -> Vec<PassNews> {
        self.passes.wait(at_most)
    }
}

impl<R> KeepTime for ThisMachine<R> {
    fn now(&self) -> Moment {
        wall_clock()
    }

    fn is_virtual(&self) -> bool {
        false
    }
}
