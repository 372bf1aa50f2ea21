//! The last reading of each sensor, from whoever reads it: readers that hang or time out cost only their own readings.

use std::collections::BTreeMap;
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};

use crate::bench::Sensed;

/// What is said of a sensor that was asked and has not come back.
pub const NO_ANSWER: &str = "no answer";

/// A reading that is older than this is none, where whoever reads takes no longer for the next one.
pub const FRESH: Duration = Duration::from_secs(2);

/// Readings by sensor name, shared between those who read and the one who asks.
#[derive(Clone, Debug, Default)]
pub struct Latest(Arc<Mutex<Shared>>);

#[derive(Debug, Default)]
struct Shared {
    readings: BTreeMap<String, Reading>,
    /// Since when a sensor has told nothing, and why.
    missed: BTreeMap<String, (Instant, String)>,
}

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
        let mut shared = self.shared();
        let reading = Reading { value, at: Instant::now(), fresh_for };
        shared.missed.remove(sensor);
        match shared.readings.get_mut(sensor) {
            Some(last) => *last = reading,
            None => drop(shared.readings.insert(sensor.to_owned(), reading)),
        }
    }

    /// Takes in that a sensor told nothing, and why.
    pub fn miss(&self, sensor: &str, why: &str) {
        let mut shared = self.shared();
        let (_, last) = shared.missed.entry(sensor.to_owned()).or_insert_with(|| (Instant::now(), String::new()));
        if last != why {
            why.clone_into(last);
        }
    }

    /// The readings that are fresh, and why the others are missing.
    pub fn sensed(&self) -> Sensed {
        let shared = self.shared();
        let (fresh, stale): (Vec<_>, Vec<_>) =
            shared.readings.iter().partition(|(_, reading)| reading.at.elapsed() <= reading.fresh_for);
        let hanging = stale.into_iter().map(|(sensor, _)| (sensor.clone(), NO_ANSWER.to_owned()));
        // What tells nothing for a moment only is waited for.
        let missed = shared.missed.iter().filter(|(_, (since, _))| since.elapsed() > FRESH);
        let missed = missed.map(|(sensor, (_, why))| (sensor.clone(), why.clone()));
        Sensed {
            readings: fresh.into_iter().map(|(sensor, reading)| (sensor.clone(), reading.value)).collect(),
            silent: hanging.chain(missed).collect(),
        }
    }

    /// How old the last reading of a sensor is; none before the first.
    pub fn age(&self, sensor: &str) -> Option<Duration> {
        self.shared().readings.get(sensor).map(|reading| reading.at.elapsed())
    }

    /// A reader that panicked while it held the readings has left them whole.
    fn shared(&self) -> MutexGuard<'_, Shared> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }
}
