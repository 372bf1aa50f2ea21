//! Reads this machine's sensors again and again, each device in a thread of its own: one that hangs keeps nobody waiting.

use std::collections::BTreeMap;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::thread;
use std::time::{Duration, Instant};

use periculum_core::model::rig::Sensor;

use super::Linux;
use crate::latest::{Latest, NO_ANSWER};

/// How often a sensor is read that a cut-off rests on, and any other one.
const URGENT: Duration = Duration::from_millis(100);
const USUAL: Duration = Duration::from_millis(500);

/// Temperatures outside this, °C, are no temperatures: a sensor that has lost its wire, or its mind.
const PLAUSIBLE: std::ops::RangeInclusive<f64> = -60.0..=200.0;

/// The threads that read; they end when it is dropped.
#[derive(Debug)]
pub struct Sampler {
    is_over: Arc<AtomicBool>,
}

impl Sampler {
    /// Reads these sensors from now on.
    pub fn start(linux: &Linux, sensors: &[Sensor], latest: &Latest) -> Self {
        let is_over = Arc::new(AtomicBool::new(false));
        let mut devices: BTreeMap<String, Vec<Sensor>> = BTreeMap::new();
        for sensor in sensors {
            latest.miss(&sensor.name, NO_ANSWER);
            devices.entry(device(&sensor.source)).or_default().push(sensor.clone());
        }
        for (_, sensors) in devices {
            let (linux, latest, is_over) = (linux.clone(), latest.clone(), Arc::clone(&is_over));
            thread::spawn(move || read_on(linux, &sensors, &latest, &is_over));
        }
        Self { is_over }
    }
}

impl Drop for Sampler {
    fn drop(&mut self) {
        self.is_over.store(true, Ordering::Relaxed);
    }
}

/// What a source belongs to: all but the last part of its name, or the whole name where it has one part.
fn device(source: &str) -> String {
    source.rsplit_once('/').map_or(source, |(device, _)| device).to_owned()
}

fn period(sensor: &Sensor) -> Duration {
    if sensor.is_guarded() { URGENT } else { USUAL }
}

fn read_on(mut linux: Linux, sensors: &[Sensor], latest: &Latest, is_over: &AtomicBool) {
    let shortest = sensors.iter().map(period).min().unwrap_or(USUAL);
    let mut due = vec![Instant::now(); sensors.len()];
    while !is_over.load(Ordering::Relaxed) {
        for (sensor, due) in sensors.iter().zip(&mut due).filter(|(_, due)| **due <= Instant::now()) {
            *due = Instant::now() + period(sensor);
            match linux.reading(&sensor.source) {
                Some(reading) if is_plausible(sensor, reading) => latest.put(&sensor.name, reading),
                Some(reading) => latest.miss(&sensor.name, &format!("{reading} {} can't be", sensor.unit)),
                None => latest.miss(&sensor.name, &linux.why_silent(&sensor.source)),
            }
        }
        thread::sleep(shortest);
    }
}

fn is_plausible(sensor: &Sensor, reading: f64) -> bool {
    reading.is_finite() && (sensor.unit != "°C" || PLAUSIBLE.contains(&reading))
}

#[cfg(test)]
mod tests {
    use super::super::attribute::tests::tree;
    use super::*;
    use std::fs;

    fn sensor(name: &str, source: &str) -> Sensor {
        Sensor { unit: "°C".into(), source: source.into(), cut_off: Some(95.into()), ..Sensor::plain(name) }
    }

    /// Waits until it is so, for at most ten seconds.
    fn comes(is_so: impl Fn() -> bool) -> bool {
        let began = Instant::now();
        while !is_so() && began.elapsed() < Duration::from_secs(60) {
            thread::sleep(Duration::from_millis(10));
        }
        is_so()
    }

    /// An attribute that hangs is one whose reading never returns: a pipe that nobody writes to.
    #[test]
    fn a_chip_that_hangs_costs_only_its_own_readings() {
        let files = [
            ("sys/class/hwmon/hwmon0/name", "good\n"),
            ("sys/class/hwmon/hwmon0/temp1_input", "61000\n"),
            ("sys/class/hwmon/hwmon0/temp2_input", "999000\n"),
            ("sys/class/hwmon/hwmon1/name", "bad\n"),
        ];
        let root = tree("hangs", &files);
        let pipe = root.join("sys/class/hwmon/hwmon1/temp1_input");
        assert!(std::process::Command::new("mkfifo").arg(&pipe).status().expect("started").success());
        let sensors =
            [sensor("a", "hwmon/good/temp1"), sensor("hot", "hwmon/good/temp2"), sensor("b", "hwmon/bad/temp1")];
        let latest = Latest::default();
        let sampler = Sampler::start(&Linux::below(&root), &sensors, &latest);
        assert!(comes(|| !latest.sensed().readings.is_empty()));
        assert_eq!(latest.sensed().readings, [("a".to_owned(), 61.0)].into(), "999 °C is no temperature");
        fs::write(root.join(files[1].0), "62000\n").expect("written");
        assert!(comes(|| latest.sensed().readings == [("a".to_owned(), 62.0)].into()));
        fs::remove_file(root.join(files[1].0)).expect("removed");
        assert!(comes(|| latest.sensed().readings.is_empty()), "what is no longer read is no longer told");
        assert!(comes(|| latest.sensed().silent.len() == 3), "{:?}", latest.sensed());
        let silent = latest.sensed().silent;
        assert_eq!((&*silent["b"], &*silent["hot"]), (NO_ANSWER, "999 °C can't be"));
        drop(sampler);
        // Whoever hangs is let go.
        fs::write(&pipe, "1\n").expect("written");
        fs::remove_dir_all(&root).expect("removed");
    }
}
