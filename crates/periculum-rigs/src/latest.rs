//! The last reading of each sensor, from whoever reads it: readers that hang or time out cost only their own readings.

use std::collections::BTreeMap;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};

/// A reading that is older than this is none.
const FRESH: Duration = Duration::from_secs(2);

/// Readings by sensor name, shared between those who read and the one who asks.
#[derive(Clone, Debug, Default)]
pub struct Latest(Arc<Mutex<BTreeMap<String, (f64, Instant)>>>);

impl Latest {
    /// Takes in a reading of now.
    pub fn put(&self, sensor: &str, reading: f64) {
        let mut readings = self.readings();
        match readings.get_mut(sensor) {
            Some(last) => *last = (reading, Instant::now()),
            None => drop(readings.insert(sensor.to_owned(), (reading, Instant::now()))),
        }
    }

    /// The readings that are fresh.
    pub fn fresh(&self) -> BTreeMap<String, f64> {
        let readings = self.readings();
        let fresh = readings.iter().filter(|(_, (_, at))| at.elapsed() <= FRESH);
        fresh.map(|(sensor, (reading, _))| (sensor.clone(), *reading)).collect()
    }

    /// How old the last reading of a sensor is; none before the first.
    pub fn age(&self, sensor: &str) -> Option<Duration> {
        self.readings().get(sensor).map(|(_, at)| at.elapsed())
    }

    /// A reader that panicked while it held the readings has left them whole.
    fn readings(&self) -> MutexGuard<'_, BTreeMap<String, (f64, Instant)>> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }
}
