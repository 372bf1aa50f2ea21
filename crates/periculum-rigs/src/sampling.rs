//! The rules by which sensors are read: how often, for how long back, and which of them have got stuck.

use std::collections::{BTreeMap, VecDeque};
use std::time::{Duration, Instant};

use periculum_core::engine::watch::WINDOW;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::PassReport;
use periculum_core::model::rig::Sensor;

/// How often sensors are read, by the rig's clock.
pub const SAMPLING: Span = Span::from_millis(500);

/// A sensor whose reading never was another one in so many samples is stuck.
const STUCK: u32 = 240;

/// So many samples are written together.
const SAMPLES_AT_ONCE: usize = 512;

/// Samples never wait longer than this to be written.
const OLDEST_SAMPLE: Duration = Duration::from_millis(500);

/// Sensor readings on their way to the ledger, and the highest of each during the running pass and of late.
#[derive(Debug, Default)]
pub struct Readings {
    waiting: Vec<(Moment, BTreeMap<String, f64>)>,
    oldest: Option<Instant>,
    last: Option<Moment>,
    peaks: BTreeMap<String, f64>,
    /// Of each sensor that is watched for longer than a moment the readings of the running pass that none since was higher than,
    /// as far back as the engine looks.
    recent: BTreeMap<String, VecDeque<(Moment, f64)>>,
    /// When the first reading of the running pass was kept, and the last.
    kept: Option<(Moment, Moment)>,
    /// The first reading of each sensor that a cut-off rests on, while there was no other one, and how often it was read.
    unmoved: BTreeMap<String, Option<(f64, u32)>>,
}

impl Readings {
    /// Whether sensors are to be read now.
    pub fn is_due(&self, now: Moment) -> bool {
        self.last.is_none_or(|last| now.since(last) >= SAMPLING || now < last)
    }

    /// Readings of these sensors.
    pub fn of(sensors: &[Sensor]) -> Self {
        let guarded = sensors.iter().filter(|sensor| sensor.is_guarded() && sensor.asked.is_none());
        let unmoved = guarded.map(|sensor| (sensor.name.clone(), Some((f64::NAN, 0)))).collect();
        let watched = sensors.iter().filter(|sensor| is_watched_for_long(sensor));
        let recent = watched.map(|sensor| (sensor.name.clone(), VecDeque::new())).collect();
        Self { unmoved, recent, ..Self::default() }
    }

    /// Takes out the readings that a cut-off rests on and that have never moved in two minutes of passes: what is stuck
    /// guards nothing.
    pub fn drop_stuck(&mut self, readings: &mut BTreeMap<String, f64>, counts: bool) {
        readings.retain(|sensor, reading| {
            let Some(unmoved) = self.unmoved.get_mut(sensor) else { return true };
            *unmoved = match *unmoved {
                Some((first, times)) if first.is_nan() || first == *reading => {
                    Some((*reading, times + u32::from(counts)))
                }
                // Once it has moved, it is alive for good.
                _ => None,
            };
            unmoved.is_none_or(|(_, times)| times < STUCK)
        });
    }

    /// Keeps what was read.
    pub fn keep(&mut self, now: Moment, readings: &BTreeMap<String, f64>) {
        self.last = Some(now);
        self.oldest.get_or_insert_with(Instant::now);
        self.waiting.push((now, readings.clone()));
        self.kept = Some((self.kept.map_or(now, |(first, _)| first), now));
        for (sensor, value) in readings {
            if let Some(peak) = self.peaks.get_mut(sensor) {
                *peak = peak.max(*value);
            } else {
                self.peaks.insert(sensor.clone(), *value);
            }
            if let Some(recent) = self.recent.get_mut(sensor) {
                while recent.pop_back_if(|(_, before)| *before <= *value).is_some() {}
                recent.push_back((now, *value));
            }
        }
        for recent in self.recent.values_mut() {
            while recent.pop_front_if(|(at, _)| now.since(*at) > WINDOW).is_some() {}
        }
    }

    /// Notes what somebody read, who is heard once and not all the time.
    pub fn note(&mut self, now: Moment, readings: BTreeMap<String, f64>) {
        self.waiting.push((now, readings));
    }

    /// The highest reading in the last moments of the pass of each sensor that is watched so, once it has run so long.
    pub fn highest(&self) -> BTreeMap<String, f64> {
        if self.kept.is_none_or(|(first, last)| last.since(first) <= WINDOW) {
            return BTreeMap::new();
        }
        let highest = self.recent.iter().filter_map(|(sensor, recent)| Some((sensor.clone(), recent.front()?.1)));
        highest.collect()
    }

    /// Whether enough waits, or waits long enough, to be written.
    pub fn should_be_written(&self) -> bool {
        self.waiting.len() >= SAMPLES_AT_ONCE || self.oldest.is_some_and(|oldest| oldest.elapsed() >= OLDEST_SAMPLE)
    }

    /// Takes out what waits to be written.
    pub fn take_waiting(&mut self) -> Vec<(Moment, BTreeMap<String, f64>)> {
        self.oldest = None;
        std::mem::take(&mut self.waiting)
    }

    /// Another pass begins.
    pub fn begin_pass(&mut self) {
        self.peaks.clear();
        self.recent.values_mut().for_each(VecDeque::clear);
        self.kept = None;
    }

    /// Gives the highest readings of the pass to its report.
    pub fn move_peaks_to(&mut self, report: &mut PassReport) {
        report.peaks = std::mem::take(&mut self.peaks);
    }
}

/// Whether the engine looks at more than the last reading of a sensor.
fn is_watched_for_long(sensor: &Sensor) -> bool {
    sensor.follows.is_some() || sensor.least.is_some() || sensor.is_guarded()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_sensor_that_never_moves_is_stuck_and_one_that_moved_once_is_not() {
        let guarded = |name| Sensor { cut_off: Some(95.into()), ..Sensor::plain(name) };
        let mut readings = Readings::of(&[guarded("stuck"), guarded("alive"), Sensor::plain("errors")]);
        let mut left = BTreeMap::new();
        for time in 0..STUCK + 1 {
            let moved = if time == 3 { 61.0 } else { 60.0 };
            left = [("stuck", 60.0), ("alive", moved), ("errors", 0.0)].map(|(name, it)| (name.to_owned(), it)).into();
            readings.drop_stuck(&mut left, true);
            assert_eq!(left.len(), if time + 1 < STUCK { 3 } else { 2 }, "{time}");
        }
        assert!(left.contains_key("alive") && left.contains_key("errors"));
    }

    #[test]
    fn readings_are_due_twice_a_second_and_their_peaks_belong_to_the_pass() {
        let mut readings = Readings::of(&[Sensor { cut_off: Some(95.into()), ..Sensor::plain("core") }]);
        let at = Moment::from_millis;
        assert!(readings.is_due(at(0)));
        readings.keep(at(0), &[("core".to_owned(), 71.0)].into());
        assert!(!readings.is_due(at(499)) && readings.is_due(at(500)));
        assert!(readings.is_due(at(-10)), "a clock that was set back does not stop the sampling");
        readings.keep(at(500), &[("core".to_owned(), 64.0)].into());
        assert!(readings.highest().is_empty(), "the pass has not run long enough");
        for (millis, reading) in [(5000, 66.0), (10_001, 65.0), (10_501, 60.0)] {
            readings.keep(at(millis), &[("core".to_owned(), reading)].into());
        }
        assert_eq!(readings.highest(), [("core".to_owned(), 66.0)].into(), "what is long ago no longer counts");
        let mut report = PassReport::default();
        readings.move_peaks_to(&mut report);
        assert_eq!(report.peaks, [("core".to_owned(), 71.0)].into());
        assert_eq!(readings.take_waiting().len(), 5);
        assert!(readings.take_waiting().is_empty());
    }
}
