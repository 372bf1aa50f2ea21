//! The last reading of each sensor, from whoever reads it: readers that hang or time out cost only their own readings.

use std::collections::BTreeMap;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};

/// A reading that is older than this is none, where whoever reads takes no longer for the next one.
pub const FRESH: Duration = Duration::from_secs(2);

/// Readings by sensor name, shared between those who read and the one who asks.
#[derive(Clone, Debug, Default)]
pub struct Latest(Arc<Mutex<BTreeMap<String, Reading>>>);

#[derive(Clone, Copy, Debug)]
struct Reading {
    value: f64,
    at: Instant,
    fresh_for: Duration,
}

impl Latest {
    /// Takes in a reading of now.
    pub fn put(&self, sensor: &str, reading: f64) {
        self.put_for(sensor, reading, FRESH);
    }

    /// The same from whoever reads seldom: it is fresh for so long.
    pub fn put_for(&self, sensor: &str, value: f64, fresh_for: Duration) {
        let mut readings = self.readings();
        let reading = Reading { value, at: Instant::now(), fresh_for };
        match readings.get_mut(sensor) {
            Some(last) => *last = reading,
            None => drop(readings.insert(sensor.to_owned(), reading)),
        }
    }

    /// The readings that are fresh.
    pub fn fresh(&self) -> BTreeMap<String, f64> {
        let readings = self.readings();
        let fresh = readings.iter().filter(|(_, reading)| reading.at.elapsed() <= reading.fresh_for);
        fresh.map(|(sensor, reading)| (sensor.clone(), reading.value)).collect()
    }

    /// How old the last reading of a sensor is; none before the first.
    pub fn age(&self, sensor: &str) -> Option<Duration> {
        self.readings().get(sensor).map(|reading| reading.at.elapsed())
    }

    /// A reader that panicked while it held the readings has left them whole.
    fn readings(&self) -> MutexGuard<'_, BTreeMap<String, Reading>> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }
}
