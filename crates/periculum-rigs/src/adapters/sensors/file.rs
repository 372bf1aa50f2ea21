//! Sensors whose readings another program writes into a file: a number, anew each time.

use std::fs;
use std::path::Path;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};
use std::thread;
use std::time::Duration;

use periculum_core::model::rig::Sensor;

use crate::bench::Sensed;
use crate::latest::{Latest, NO_ANSWER};

/// The name of the adapter in rig files.
pub(super) const ADAPTER: &str = "file";

/// How often the files are read.
const READING: Duration = Duration::from_millis(500);

/// A file that was not written for this long has no reading any more, where its sensor does not say how long that is.
const PATIENCE: Duration = Duration::from_secs(10);

/// No file with a reading is longer than this, bytes.
const LONGEST: u64 = 4096;

/// Reads files as long as it lives.
#[derive(Debug)]
pub(super) struct Files {
    latest: Latest,
    is_over: Arc<AtomicBool>,
}

impl Files {
    /// Reads the files of those sensors which this adapter serves.
    pub(super) fn start(sensors: &[Sensor]) -> Self {
        let (latest, is_over) = (Latest::default(), Arc::new(AtomicBool::new(false)));
        for sensor in sensors.iter().filter(|sensor| sensor.adapter == ADAPTER).cloned() {
            latest.miss(&sensor.name, NO_ANSWER);
            let (latest, is_over) = (latest.clone(), Arc::clone(&is_over));
            // A file system that hangs costs only its own reading.
            thread::spawn(move || {
                while !is_over.load(Ordering::Relaxed) {
                    match read(&sensor) {
                        Ok(reading) => latest.put(&sensor.name, reading),
                        Err(why) => latest.miss(&sensor.name, &why),
                    }
                    thread::sleep(READING);
                }
            });
        }
        Self { latest, is_over }
    }

    /// What was written of late.
    pub(super) fn sensed(&self) -> Sensed {
        self.latest.sensed()
    }
}

impl Drop for Files {
    fn drop(&mut self) {
        self.is_over.store(true, Ordering::Relaxed);
    }
}

/// The number that stands in a sensor's file, or why there is none.
fn read(sensor: &Sensor) -> Result<f64, String> {
    let path = Path::new(&sensor.source);
    let about = fs::metadata(path).map_err(|error| error.to_string())?;
    if !about.is_file() || about.len() > LONGEST {
        return Err("it is no file with a number in it".into());
    }
    let patience = sensor.patience.map_or(PATIENCE, |patience| Duration::from_millis(patience.millis()));
    let age = about.modified().ok().and_then(|written| written.elapsed().ok()).unwrap_or_default();
    if age > patience {
        return Err(format!("it was last written {} s ago", age.as_secs()));
    }
    let text = fs::read_to_string(path).map_err(|error| error.to_string())?;
    let number = text.split_whitespace().next().and_then(|word| word.parse().ok());
    number.filter(|number: &f64| number.is_finite()).ok_or_else(|| "it has no number in it".into())
}

#[cfg(test)]
mod tests {
    use super::*;
    use periculum_core::model::moment::Span;

    fn sensor(path: &Path) -> Sensor {
        let patience = Some(Span::from_seconds(5));
        Sensor { adapter: ADAPTER.into(), source: path.display().to_string(), patience, ..Sensor::plain("pot") }
    }

    #[test]
    fn a_number_is_read_and_anything_else_says_why_not() {
        let folder = tempfile::tempdir().expect("a folder");
        let path = folder.path().join("pot");
        assert!(read(&sensor(&path)).is_err(), "it is not there");
        assert!(read(&sensor(folder.path())).is_err(), "it is a folder");
        for (text, reading) in
            [("-41.5\n", Some(-41.5)), ("12 °C", Some(12.0)), ("", None), ("NaN", None), ("cold", None)]
        {
            fs::write(&path, text).expect("written");
            assert_eq!(read(&sensor(&path)).ok(), reading, "{text}");
        }
        fs::write(&path, "9".repeat(5000)).expect("written");
        assert!(read(&sensor(&path)).is_err(), "it is too long");
    }

    #[test]
    fn what_is_no_longer_written_is_no_reading() {
        let folder = tempfile::tempdir().expect("a folder");
        let path = folder.path().join("pot");
        fs::write(&path, "-41.5").expect("written");
        let long_ago = std::time::SystemTime::now() - Duration::from_secs(60);
        fs::File::options().write(true).open(&path).and_then(|file| file.set_modified(long_ago)).expect("set");
        assert_eq!(read(&sensor(&path)), Err("it was last written 60 s ago".into()));
    }

    #[test]
    fn the_last_number_is_there_while_it_is_written() {
        let folder = tempfile::tempdir().expect("a folder");
        let path = folder.path().join("pot");
        fs::write(&path, "-41.5").expect("written");
        let files = Files::start(&[sensor(&path)]);
        while files.sensed().readings.is_empty() {
            thread::sleep(Duration::from_millis(5));
        }
        assert_eq!(files.sensed().readings.get("pot"), Some(&-41.5));
    }
}
