//! A bus machine of another age in software: oscillators, a multiplier, wait states, and a slow bus that has to keep up.
//! It checks nothing itself: it does not start, hangs, or garbles the picture.

mod spec;

use periculum_core::model::field::{Field, Takes};
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::rung::Rung;
use periculum_core::model::task::{Better, Read, Task};

pub(super) use spec::Spec;

use crate::simulated::device::{Device, Strained, Work};
use crate::simulated::numbers::to_float;
use crate::simulated::random::{Purpose, Stream};

/// An access takes so many ticks of the bus before any wait state.
const TICKS: f64 = 2.0;

/// Failures in a second at a margin of nothing.
const HAZARD: f64 = 1.0 / 600.0;

/// The share of what a part needs over which the hazard falls by a factor of e.
const WIDTH: f64 = 0.012;

/// With a margin below this share it does not start.
const DEAD: f64 = -0.05;

/// How far specimens differ, standard deviation as a share.
const SPREAD: f64 = 0.03;

/// The processor is warmer than the room by so much at rest, and by so much for each MHz that it works, K.
const WARMER: (f64, f64) = (9.0, 0.22);

/// A load, by how many ticks of the processor and how many accesses to memory a piece of its work takes, in thousands.
const LOADS: [(&str, f64, f64, &str); 2] = [("plot", 310.0, 140.0, "frames/s"), ("copy", 0.05, 0.51, "KB/s")];

/// The frames that are drawn while ticks are counted, and how many of those there are in a second: those of a timer that counts
/// 1.193182 MHz down by 65,536.
const FRAMES: f64 = 1000.0;
const SLOW_CLOCK: f64 = 18.2;

/// The tests that somebody makes of these loads: they have names of their own, since a score belongs to what measured it.
const PLOT_TEST: &str = "plot-test";
const COPY_TEST: &str = "copy-test";

/// The load that a test is made of, or the load itself.
fn made_of(name: &str) -> &str {
    match name {
        PLOT_TEST => "plot",
        COPY_TEST => "copy",
        load => load,
    }
}

/// How its picture may be: right, or wrong and yet to be read.
const PICTURES: [&str; 2] = ["clean", "garbled"];

/// What a sensor may name.
const SOURCES: [&str; 2] = ["room", "package"];

/// One specimen of a bus machine.
#[derive(Clone, Debug)]
pub(super) struct Bus {
    spec: Spec,
    processor_limit: f64,
    access_time: f64,
    slow_limit: f64,
    driven: Driven,
    load: Option<(f64, f64)>,
    package: f64,
}

/// What the settings come to.
#[derive(Clone, Copy, Debug, PartialEq)]
struct Driven {
    /// MHz.
    bus: f64,
    /// MHz.
    processor: f64,
    /// The time that memory has for an access, ns.
    time: f64,
    /// MHz.
    slow: f64,
}

/// What gives way first.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Weakest {
    Processor,
    Memory,
    SlowBus,
}

impl Bus {
    /// The specimen that this seed makes, at rest with this rung.
    pub(super) fn new(spec: Spec, seed: u64, rung: &Rung) -> Self {
        let mut random = Stream::new(seed, Purpose::Specimen);
        let mut about = |usual: f64| usual * (1.0 + SPREAD * random.normal());
        Self {
            processor_limit: about(spec.processor_limit),
            access_time: about(spec.access_time),
            slow_limit: about(spec.slow_limit),
            driven: Driven::by(&spec, rung),
            load: None,
            package: spec.room + WARMER.0,
            spec,
        }
    }

    /// The least margin as a share of what is needed, and what has it. A processor that is warm reaches less.
    fn margin(&self) -> (f64, Weakest) {
        let warm = 1.0 - 0.000_6 * (self.package - self.spec.room - WARMER.0);
        let margins = [
            (self.processor_limit * warm / self.driven.processor - 1.0, Weakest::Processor),
            (self.driven.time / self.access_time - 1.0, Weakest::Memory),
            (self.slow_limit / self.driven.slow - 1.0, Weakest::SlowBus),
        ];
        margins.into_iter().fold(margins[0], |least, one| if one.0 < least.0 { one } else { least })
    }
}

impl Device for Bus {
    fn settings(&self) -> Vec<&str> {
        let Spec { bus, multiplier, waits, divider, .. } = &self.spec;
        [bus, multiplier, waits].into_iter().chain(divider).map(String::as_str).collect()
    }

    /// What plans of before could let run by itself; somebody starts the tests of it, and reads its screen.
    fn loads(&self) -> Vec<&'static str> {
        LOADS.iter().map(|(name, ..)| *name).collect()
    }

    fn tests(&self) -> Vec<(&'static str, Task)> {
        let test = |ask: &str, name: &str, unit: &str, better| {
            let number = Takes::Number { unit: unit.to_owned(), least: Some(1.into()), most: None };
            let [clean, garbled] = PICTURES.map(str::to_owned);
            let picture = Takes::Words(vec![clean.clone(), garbled]);
            let field =
                |name: &str, takes| Field { name: name.to_owned(), label: name.to_owned(), takes, is_needed: true };
            let reads = vec![
                Read { field: field(name, number), right: Vec::new(), better: Some(better) },
                Read { field: field("picture", picture), right: vec![clean], better: None },
            ];
            Task { ask: ask.to_owned(), reads, figures: Vec::new() }
        };
        vec![
            (COPY_TEST, test("Start the copy test and type the rate that it ends with", "rate", "KB/s", Better::More)),
            (
                PLOT_TEST,
                test("Start the plot test and type the ticks that its last line says", "ticks", "ticks", Better::Less),
            ),
        ]
    }

    fn sources(&self) -> Vec<String> {
        SOURCES.map(str::to_owned).to_vec()
    }

    fn set(&mut self, rung: &Rung) {
        self.driven = Driven::by(&self.spec, rung);
    }

    fn is_alive(&self) -> bool {
        self.margin().0 >= DEAD
    }

    fn work(&mut self, work: Option<Work>) -> Option<&'static str> {
        let load = work.and_then(|work| LOADS.iter().find(|(name, ..)| *name == made_of(work.load)));
        self.load = load.map(|(_, ticks, accesses, _)| (*ticks, *accesses));
        load.map(|(.., unit)| *unit)
    }

    fn clocks(&self) -> Vec<f64> {
        self.load.iter().map(|_| self.driven.processor).collect()
    }

    fn tick(&mut self, seconds: f64, parts: &mut Vec<Strained>) -> Option<String> {
        let heat = if self.load.is_some() { WARMER.1 * self.driven.processor } else { 0.0 };
        let target = self.spec.room + WARMER.0 + heat;
        self.package += (target - self.package) * (1.0 - (-seconds / 60.0).exp());
        if let Some((ticks, accesses)) = self.load {
            let hazard = HAZARD * (-self.margin().0 / WIDTH).min(40.0).exp();
            // Thousands of ticks over MHz are milliseconds, and thousands of accesses in ns microseconds.
            let milliseconds = ticks / self.driven.processor + accesses * self.driven.time / 1000.0;
            parts.push(Strained { hazard, work: 1000.0 / milliseconds });
        }
        None
    }

    fn reading(&self, source: &str, noise: f64) -> Option<f64> {
        match source {
            "room" => Some(self.spec.room + 0.1 * noise),
            "package" => Some(self.package + 0.6 * noise),
            _ => None,
        }
    }

    fn failure(&self, _part: usize, random: &mut Stream) -> Incident {
        let (margin, weakest) = self.margin();
        let is_deep = margin < -0.02;
        let (kind, evidence) = match weakest {
            Weakest::SlowBus if is_deep => (IncidentKind::NoPicture, "the picture is gone"),
            Weakest::SlowBus if random.unit() < 0.6 => (IncidentKind::Artefact, "the picture is garbled"),
            Weakest::SlowBus => (IncidentKind::LoadDied, "the disk does not answer"),
            Weakest::Memory if !is_deep && random.unit() < 0.5 => (IncidentKind::Artefact, "columns of wrong dots"),
            _ if is_deep && random.unit() < 0.4 => (IncidentKind::Restart, "it started anew by itself"),
            _ => (IncidentKind::Freeze, "it stands still and was started anew"),
        };
        Incident::new(kind, evidence)
    }

    /// Neither load knows a rate: one counts the ticks of the machine's slow clock for its frames, the other the kilobytes.
    fn screen(&self, load: &str, rate: f64, is_garbled: bool) -> Vec<(String, String)> {
        let number = match load {
            PLOT_TEST => ("ticks", (FRAMES * SLOW_CLOCK / rate).round()),
            COPY_TEST => ("rate", rate.round()),
            _ => return Vec::new(),
        };
        let picture = PICTURES[usize::from(is_garbled)];
        vec![(number.0.to_owned(), number.1.to_string()), ("picture".to_owned(), picture.to_owned())]
    }

    fn copy(&self) -> Box<dyn Device> {
        Box::new(self.clone())
    }
}

impl Driven {
    fn by(spec: &Spec, rung: &Rung) -> Self {
        let of = |setting: &String| rung.get(setting).map_or(1.0, to_float);
        let bus = of(&spec.bus).max(1e-3);
        Self {
            bus,
            processor: bus * of(&spec.multiplier),
            time: (TICKS + of(&spec.waits)) * 1000.0 / bus,
            slow: spec.divider.as_ref().map_or(0.0, |divider| bus / of(divider).max(1e-3)),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use periculum_core::Decimal;
    use proptest::prelude::*;

    fn spec() -> Spec {
        Spec {
            bus: "bus".into(),
            multiplier: "multiplier".into(),
            waits: "waits".into(),
            divider: Some("divider".into()),
            processor_limit: 100.0,
            access_time: 70.0,
            slow_limit: 9.4,
            room: 21.0,
        }
    }

    fn rung(values: [i64; 4]) -> Rung {
        let names = ["bus", "multiplier", "waits", "divider"].map(str::to_owned);
        names.into_iter().zip(values.map(Decimal::from)).collect()
    }

    fn at(seed: u64, values: [i64; 4]) -> Bus {
        let mut bus = Bus::new(spec(), seed, &rung(values));
        bus.work(Some(Work { load: "plot", threads: periculum_core::model::pass::Threads::All }));
        bus
    }

    fn strained(mut bus: Bus) -> Strained {
        let mut parts = Vec::new();
        bus.tick(0.25, &mut parts);
        parts[0]
    }

    #[test]
    fn each_part_has_a_limit_of_its_own() {
        assert!(at(1, [25, 2, 1, 4]).is_alive());
        for (values, weakest) in
            [([45, 3, 3, 6], Weakest::Processor), ([36, 2, 0, 6], Weakest::Memory), ([45, 2, 3, 3], Weakest::SlowBus)]
        {
            let bus = at(1, values);
            assert_eq!((bus.margin().1, bus.is_alive()), (weakest, false), "{values:?}");
        }
    }

    #[test]
    fn specimens_differ() {
        let limits: Vec<f64> = (1..5).map(|seed| at(seed, [25, 2, 1, 4]).processor_limit).collect();
        assert!(limits.windows(2).all(|pair| (pair[0] - pair[1]).abs() > 0.1), "{limits:?}");
    }

    proptest! {
        #[test]
        fn harder_is_never_safer_and_more_clock_is_more_work(
            seed in any::<u64>(), bus in 20i64..45, multiplier in 2i64..4, waits in 0i64..3, divider in 2i64..6,
        ) {
            let easy = strained(at(seed, [bus, multiplier, waits + 1, divider + 1]));
            for harder in [[bus + 1, multiplier, waits + 1, divider + 1], [bus, multiplier + 1, waits + 1, divider + 1],
                [bus, multiplier, waits, divider + 1]] {
                let harder = strained(at(seed, harder));
                prop_assert!(harder.hazard >= easy.hazard && harder.work > easy.work);
            }
            prop_assert!(strained(at(seed, [bus, multiplier, waits + 1, divider])).hazard >= easy.hazard);
        }
    }
}
