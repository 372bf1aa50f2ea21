//! Sensors whose readings a program of the user's own says.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::thread;
use std::time::Duration;

use periculum_core::model::rig::Sensor;

use super::{ask, duration};
use crate::bench::Sensed;
use crate::latest::{FRESH, Latest, NO_ANSWER};

/// How long a program rests between two of its readings.
const BETWEEN: Duration = Duration::from_millis(500);

/// Asks programs as long as it lives.
#[derive(Debug)]
pub(crate) struct Readings {
    latest: Latest,
    is_over: Arc<AtomicBool>,
}

impl Readings {
    /// Asks for those of these sensors that programs read, each in a thread of its own.
    pub(crate) fn start(sensors: &[Sensor]) -> Self {
        let (latest, is_over) = (Latest::default(), Arc::new(AtomicBool::new(false)));
        for sensor in sensors {
            let (Some(inquiry), name) = (sensor.inquiry.clone(), sensor.name.clone()) else { continue };
            latest.miss(&name, NO_ANSWER);
            let (latest, is_over) = (latest.clone(), Arc::clone(&is_over));
            let fresh_for = FRESH + BETWEEN + duration(inquiry.patience);
            thread::spawn(move || {
                while !is_over.load(Ordering::Relaxed) {
                    match ask(&inquiry).and_then(|number| f64::try_from(number).map_err(|error| error.to_string())) {
                        Ok(reading) => latest.put_for(&name, reading, fresh_for),
                        Err(why) => latest.miss(&name, &why),
                    }
                    thread::sleep(BETWEEN);
                }
            });
        }
        Self { latest, is_over }
    }

    /// What was said of late.
    pub(crate) fn sensed(&self) -> Sensed {
        self.latest.sensed()
    }
}

impl Drop for Readings {
    fn drop(&mut self) {
        self.is_over.store(true, Ordering::Relaxed);
    }
}
