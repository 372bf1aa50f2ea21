//! What sensors say about a running pass: over a cut-off, throttled, stalled, or one core far hotter than the others.

use std::collections::BTreeMap;

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use crate::model::evidence::{Finding, HeldBack, Reading};
use crate::model::incident::{Incident, IncidentKind};
use crate::model::moment::Span;
use crate::model::rig::Sensor;

/// How long a reading must be out of order before it is more than a moment's weakness.
pub const WINDOW: Span = Span::from_seconds(10);

/// A sensor that a cut-off rests on may be silent for so long into a pass.
const LONG_SILENCE: Span = Span::from_seconds(15);

/// Under load a clock this far below the asked one is throttled.
const REACHED: f64 = 0.98;

/// A reading this near to the rig's own limit is at it.
const AT_LIMIT: f64 = 0.97;

/// One core this much hotter than the median of the others, °C, has a badly mounted cooler.
const UNEVEN: f64 = 20.0;

/// So long into a pass the cores are warm.
const WARM: Span = Span::from_seconds(20);

/// Fewer cores than this are not compared.
const FEWEST: usize = 3;

/// Sensor readings by sensor name, in each sensor's unit.
#[derive(Clone, Copy, Debug)]
pub struct Sample<'a> {
    /// Those of now.
    pub readings: &'a BTreeMap<String, f64>,
    /// The highest of each during the last [`WINDOW`] of the running pass; empty before it has run so long.
    pub highest: &'a BTreeMap<String, f64>,
}

/// Everything that is out of order; `asked` tells the value of a setting on trial.
pub fn watch(
    sensors: &[Sensor],
    sample: &Sample,
    asked: impl Fn(&str) -> Option<Decimal>,
    into_pass: Span,
) -> Vec<Incident> {
    let of = |sensor: &Sensor| {
        let over = cut_off(sensor, sample, &asked).or_else(|| cut_off_below(sensor, sample, &asked));
        let slow =
            sensor.follows.as_deref().and_then(&asked).and_then(|asked| throttled(sensor, sensors, asked, sample));
        let idle = if into_pass >= WINDOW { stalled(sensor, sample) } else { None };
        [over, slow, idle].into_iter().flatten()
    };
    sensors.iter().flat_map(of).collect()
}

/// Whether a reading is beyond a cut-off of its sensor, at these values of the settings.
pub fn is_over_cut_off(
    sensors: &[Sensor],
    readings: &BTreeMap<String, f64>,
    value: impl Fn(&str) -> Option<Decimal>,
) -> bool {
    let highest = &BTreeMap::new();
    let sample = Sample { readings, highest };
    let is_over =
        |sensor: &Sensor| cut_off(sensor, &sample, &value).or_else(|| cut_off_below(sensor, &sample, &value)).is_some();
    sensors.iter().any(is_over)
}

fn cut_off_below(sensor: &Sensor, sample: &Sample, value: &impl Fn(&str) -> Option<Decimal>) -> Option<Incident> {
    let (cut_off, reading) = (sensor.cut_off_below.as_ref()?.at(value)?, *sample.readings.get(&sensor.name)?);
    (reading < float(cut_off)).then(|| {
        let evidence = Finding::UnderCutOff { reading: read(sensor, reading), cut_off };
        Incident::new(IncidentKind::TooCold, evidence).at(&sensor.label)
    })
}

fn cut_off(sensor: &Sensor, sample: &Sample, value: &impl Fn(&str) -> Option<Decimal>) -> Option<Incident> {
    let (cut_off, reading) = (sensor.cut_off.as_ref()?.at(value)?, *sample.readings.get(&sensor.name)?);
    (reading > float(cut_off)).then(|| {
        let evidence = Finding::OverCutOff { reading: read(sensor, reading), cut_off };
        Incident::new(IncidentKind::TooHot, evidence).at(&sensor.label)
    })
}

fn throttled(sensor: &Sensor, sensors: &[Sensor], asked: Decimal, sample: &Sample) -> Option<Incident> {
    let reached = *sample.highest.get(&sensor.name)?;
    if reached >= REACHED * float(asked) {
        return None;
    }
    let cause = sensors.iter().find_map(|other| at_limit(other, sample));
    let reports = sensors.iter().find(|other| {
        other.follows == sensor.follows
            && sample.highest.get(&other.name).is_some_and(|it| *it >= REACHED * float(asked))
    });
    let (kind, held_back) = match (cause, reports) {
        (Some(cause), _) => (IncidentKind::Throttled, cause),
        // Reported up, executed not: nothing holds it back, it never took.
        (None, Some(other)) => (IncidentKind::NotTaken, HeldBack::Nothing { reported_by: other.label.clone() }),
        (None, None) => (IncidentKind::Throttled, HeldBack::Unknown),
    };
    let evidence = Finding::BelowAsked { reached: read(sensor, reached), asked, held_back };
    Some(Incident::new(kind, evidence).at(&sensor.label))
}

/// The limit of the rig's own that a sensor is at.
fn at_limit(sensor: &Sensor, sample: &Sample) -> Option<HeldBack> {
    let (limit, reading) = (sensor.limit?, *sample.readings.get(&sensor.name)?);
    let held_back = || HeldBack::Limit { sensor: sensor.label.clone(), reading: read(sensor, reading), limit };
    (reading >= AT_LIMIT * float(limit)).then(held_back)
}

fn stalled(sensor: &Sensor, sample: &Sample) -> Option<Incident> {
    let (least, highest) = (sensor.least?, *sample.highest.get(&sensor.name)?);
    (highest < float(least)).then(|| {
        let evidence = Finding::TooLittle { reading: read(sensor, highest), least, during: WINDOW };
        Incident::new(IncidentKind::Stalled, evidence).at(&sensor.label)
    })
}

/// What is said where a sensor that a cut-off rests on has not answered for a while, given why sensors are silent.
pub fn lost(
    sensors: &[Sensor],
    sample: &Sample,
    into_pass: Span,
    silent: &BTreeMap<String, String>,
) -> Option<Finding> {
    let is_silent =
        |sensor: &&Sensor| !sample.readings.contains_key(&sensor.name) && !sample.highest.contains_key(&sensor.name);
    // Whoever reads by hand is asked, and not heard all the time.
    let is_guarded = |sensor: &&Sensor| sensor.is_guarded() && sensor.asked.is_none();
    let mut guarded = sensors.iter().filter(|sensor| is_guarded(sensor) && into_pass >= LONG_SILENCE);
    let sensor = guarded.find(is_silent)?;
    Some(Finding::Silent { sensor: sensor.label.clone(), because: silent.get(&sensor.name).cloned() })
}

/// What is said where one core is far hotter than the others.
pub fn uneven_cores(sensors: &[Sensor], readings: &BTreeMap<String, f64>, into_pass: Span) -> Option<Finding> {
    let core = |sensor: &'_ Sensor| Some((sensor.core?, *readings.get(&sensor.name)?));
    let mut cores: Vec<(u32, f64)> = sensors.iter().filter_map(core).collect();
    cores.sort_by(|(_, a), (_, b)| a.total_cmp(b));
    let (number, hottest) = cores.pop()?;
    let (_, median) = *cores.get(cores.len() / 2)?;
    let is_uneven = into_pass >= WARM && cores.len() + 1 >= FEWEST && hottest - median > UNEVEN;
    is_uneven.then_some(Finding::Uneven { core: number, hottest, median })
}

fn read(sensor: &Sensor, value: f64) -> Reading {
    Reading { value, decimals: sensor.decimals, unit: sensor.unit.clone() }
}

fn float(value: Decimal) -> f64 {
    value.to_f64().unwrap_or(f64::INFINITY)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::model::cut_off::CutOff;
    use crate::model::formula::Formula;

    fn sensor(name: &str, unit: &str) -> Sensor {
        Sensor { unit: unit.into(), ..Sensor::plain(name) }
    }

    fn kinds(
        sensors: &[Sensor],
        now: &[(&str, f64)],
        highest: &[(&str, f64)],
        seconds: u64,
    ) -> Vec<(IncidentKind, String)> {
        let map =
            |readings: &[(&str, f64)]| readings.iter().map(|(name, value)| ((*name).to_owned(), *value)).collect();
        let (readings, highest) = (map(now), map(highest));
        let sample = Sample { readings: &readings, highest: &highest };
        let found = watch(sensors, &sample, |_| Some(Decimal::from(4900)), Span::from_seconds(seconds));
        found.into_iter().map(|incident| (incident.kind, incident.evidence.to_string())).collect()
    }

    #[test]
    fn what_is_below_its_lower_cut_off_is_too_cold() {
        let pot = Sensor { cut_off_below: Some((-60).into()), cut_off: Some(20.into()), ..sensor("pot", "°C") };
        let found = |reading: f64| -> Vec<IncidentKind> {
            let (readings, highest) = (BTreeMap::from([("pot".to_owned(), reading)]), BTreeMap::new());
            let sensors = std::slice::from_ref(&pot);
            let found = watch(sensors, &Sample { readings: &readings, highest: &highest }, |_| None, Span::ZERO);
            assert_eq!(found.is_empty(), !is_over_cut_off(sensors, &readings, |_| None));
            found.into_iter().map(|incident| incident.kind).collect()
        };
        assert_eq!(found(-62.0), [IncidentKind::TooCold]);
        assert_eq!(found(21.0), [IncidentKind::TooHot]);
        assert!(found(-60.0).is_empty() && found(20.0).is_empty());
    }

    #[test]
    fn a_cut_off_may_depend_on_what_is_asked() {
        let formula = Formula::parse("100 * volts - 200").expect("a formula");
        let pot = [Sensor { cut_off_below: Some(CutOff::By(formula)), ..sensor("pot", "°C") }];
        let kinds = |reading: f64, volts: &str| -> Vec<IncidentKind> {
            let (readings, highest) = (BTreeMap::from([("pot".to_owned(), reading)]), BTreeMap::new());
            let sample = Sample { readings: &readings, highest: &highest };
            let asked = |name: &str| (name == "volts").then(|| volts.parse().expect("a number"));
            assert_eq!(watch(&pot, &sample, asked, Span::ZERO).len() == 1, is_over_cut_off(&pot, &readings, asked));
            watch(&pot, &sample, asked, Span::ZERO).into_iter().map(|incident| incident.kind).collect()
        };
        assert_eq!(kinds(-55.0, "1.5"), [IncidentKind::TooCold]);
        assert!(kinds(-55.0, "1.4").is_empty(), "it holds out colder at less");
    }

    #[test]
    fn a_reading_over_its_cut_off_is_too_hot_and_at_it_is_not() {
        let sensors = [Sensor { cut_off: Some(95.into()), ..sensor("core", "°C") }];
        assert!(kinds(&sensors, &[("core", 95.0)], &[], 1).is_empty());
        assert_eq!(kinds(&sensors, &[("core", 95.4)], &[], 1)[0].0, IncidentKind::TooHot);
    }

    #[test]
    fn a_clock_that_stays_below_the_asked_one_is_throttled_by_what_is_at_its_limit() {
        let clock = Sensor { follows: Some("clock".into()), ..sensor("reached", "MHz") };
        let power = Sensor { limit: Some(220.into()), ..sensor("power", "W") };
        let sensors = [clock, power];
        assert!(kinds(&sensors, &[("power", 219.0)], &[("reached", 4890.0)], 60).is_empty());
        assert!(kinds(&sensors, &[("reached", 4000.0)], &[], 5).is_empty(), "a moment's weakness");
        let found = kinds(&sensors, &[("power", 219.0)], &[("reached", 4700.0)], 60);
        assert_eq!(found[0].0, IncidentKind::Throttled);
        assert_eq!(found[0].1, "reached 4700 MHz of 4 900 MHz: power at 219 W, its limit 220 W");
        assert!(kinds(&sensors, &[("power", 90.0)], &[("reached", 4700.0)], 60)[0].1.ends_with("known here"));
    }

    #[test]
    fn a_clock_that_is_reported_and_not_executed_has_not_been_taken() {
        let clock = |name: &str| Sensor { follows: Some("clock".into()), ..sensor(name, "MHz") };
        let sensors =
            [clock("reported"), clock("executed"), Sensor { limit: Some(220.into()), ..sensor("power", "W") }];
        let clocks = [("reported", 4900.0), ("executed", 4200.0)];
        let found = kinds(&sensors, &[("power", 90.0)], &clocks, 60);
        let evidence = "reached 4200 MHz of 4 900 MHz, though reported reports it".to_owned();
        assert_eq!(found, [(IncidentKind::NotTaken, evidence)]);
        assert_eq!(
            kinds(&sensors, &[("power", 220.0)], &clocks, 60)[0].0,
            IncidentKind::Throttled,
            "held back by power"
        );
    }

    #[test]
    fn work_that_stops_arriving_is_stalled() {
        let sensors = [Sensor { least: Some(90.into()), ..sensor("usage", "%") }];
        assert_eq!(kinds(&sensors, &[], &[("usage", 55.0)], 30)[0].0, IncidentKind::Stalled);
        assert!(kinds(&sensors, &[], &[("usage", 55.0)], 5).is_empty(), "it has only begun");
        assert!(kinds(&sensors, &[], &[("usage", 99.0)], 30).is_empty());
    }

    #[test]
    fn a_sensor_with_a_cut_off_that_falls_silent_is_lost() {
        let sensors = [sensor("fan", "1/min"), Sensor { cut_off: Some(95.into()), ..sensor("core", "°C") }];
        let of = |names: &[&str]| names.iter().map(|name| ((*name).to_owned(), 50.0)).collect::<BTreeMap<_, _>>();
        let told = |now: &[&str], highest: &[&str], seconds| {
            let silent = BTreeMap::from([("core".to_owned(), "no such device".to_owned())]);
            let sample = Sample { readings: &of(now), highest: &of(highest) };
            lost(&sensors, &sample, Span::from_seconds(seconds), &silent)
        };
        assert_eq!(told(&["fan", "core"], &[], 60), None);
        assert_eq!(told(&["fan"], &["fan", "core"], 60), None, "silent for a moment");
        assert_eq!(told(&["fan"], &["fan"], 5), None, "the pass has only begun");
        let why = told(&["fan"], &["fan"], 60).expect("lost");
        assert_eq!(why.to_string(), "core no longer tells anything (no such device), and a cut-off rests on it");
        assert_eq!(told(&["core"], &["core"], 60), None, "nothing rests on the fan");
    }

    #[test]
    fn one_core_far_hotter_than_the_others_is_told_when_all_are_warm() {
        let core = |number: u32| Sensor { core: Some(number), ..sensor(&format!("core{number}"), "°C") };
        let sensors: Vec<Sensor> = (0..4).map(core).collect();
        let readings = |temperatures: [f64; 4]| {
            temperatures.iter().enumerate().map(|(core, value)| (format!("core{core}"), *value)).collect()
        };
        let told = |temperatures, seconds| uneven_cores(&sensors, &readings(temperatures), Span::from_seconds(seconds));
        assert_eq!(told([70.0, 72.0, 95.0, 71.0], 5), None);
        assert_eq!(told([70.0, 72.0, 85.0, 71.0], 60), None);
        let why = told([70.0, 72.0, 95.0, 71.0], 60).expect("uneven");
        assert!(why.to_string().starts_with("core 2 is at 95 °C and the others at 71 °C"), "{why}");
        assert_eq!(uneven_cores(&sensors[..2], &readings([40.0, 90.0, 0.0, 0.0]), WARM), None, "too few");
    }
}
