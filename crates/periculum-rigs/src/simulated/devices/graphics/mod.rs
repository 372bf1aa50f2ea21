//! A graphics card in software: it chooses its own clock from a curve, says what limits it, draws wrong pixels near its border, and is
//! reset by its driver beyond it. Its memory repeats what went wrong, so that it gets slower before anything is seen.

mod curve;
mod spec;

use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::rung::Rung;

use curve::{Asked, Point, sit};
pub(super) use spec::Spec;

use crate::simulated::device::{Device, Strained, Work};
use crate::simulated::numbers::to_float;
use crate::simulated::random::{Purpose, Stream};
use crate::simulated::thermal::Network;

/// Failures of the core in a second at a margin of nothing, and the margin over which that falls by a factor of e, V.
const CORE: (f64, f64) = (1.0 / 240.0, 0.008);

/// The same of the memory, with its margin as a share of its clock.
const MEMORY: (f64, f64) = (1.0 / 400.0, 0.005);

/// Artefacts come so far beyond the clock from which transfers are repeated, as a share.
const ARTEFACTS: f64 = 0.03;

/// The share of the clock over which the share of repeated transfers grows by a factor of e.
const REPEATED: f64 = 0.011;

/// What the core needs at this clock in MHz and 50 °C, V; how that grows with the clock, V a GHz and V a GHz squared; and
/// with heat, V/K.
const NEEDS_FROM: f64 = 1020.0;
const NEEDS: [f64; 4] = [0.50, 0.155, 0.145, 0.000_5];

/// How far specimens differ: what the core needs, V, and what the memory reaches, as a share.
const SPREAD: [f64; 2] = [0.011, 0.012];

/// Power of the core, W for each V² and MHz; leakage, W for each V at 50 °C; and of memory and board, W.
const POWER: [f64; 3] = [0.082, 14.0, 24.0];

/// A frame is drawn in so many millions of cycles of the core, and so many of the memory.
const FRAME: [f64; 2] = [9.1, 2.6];

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Kind {
    /// Frames of a scene: mostly the core.
    Frames,
    /// Sums: the core alone, hotter.
    Sums,
    /// Transfers: the memory alone.
    Transfers,
}

/// A load with its unit, and how hard it is on the core, as a factor of its power.
const LOADS: [(&str, &str, Kind, f64); 3] = [
    ("scene", "frames/s", Kind::Frames, 1.0),
    ("sums", "GFLOP/s", Kind::Sums, 1.18),
    ("transfers", "GB/s", Kind::Transfers, 0.55),
];

const SOURCES: [&str; 9] =
    ["room", "die", "power", "voltage", "clock", "memory-clock", "fan", "limited-by", "replayed"];

/// One specimen of a card.
#[derive(Clone, Debug)]
pub(super) struct Graphics {
    spec: Spec,
    made: Made,
    driven: Driven,
    network: Network,
    load: Option<(Kind, f64)>,
    point: Point,
    power: f64,
}

/// What differs from specimen to specimen.
#[derive(Clone, Debug)]
struct Made {
    /// V.
    needs_more: f64,
    /// The clock from which the memory repeats transfers, MHz.
    memory_limit: f64,
}

/// What the settings come to.
#[derive(Clone, Debug, PartialEq)]
struct Driven {
    /// The voltage of each point of the curve, V, and the clock that is asked for there, MHz.
    points: Vec<(f64, f64)>,
    /// MHz.
    memory: f64,
    /// W.
    power_limit: f64,
    /// 0 to 1.
    fan: f64,
}

impl Driven {
    fn by(spec: &Spec, rung: &Rung) -> Self {
        let of = |setting: &String| rung.get(setting).map_or(0.0, to_float);
        let percent = |setting: &Option<String>, usual: f64| {
            setting.as_ref().and_then(|name| rung.get(name)).map_or(usual, to_float) / 100.0
        };
        let voltages = spec.curve.points.iter().map(|point| to_float(point.at) / 1000.0);
        let clocks = spec.curve.asked(|name| rung.get(name)).into_iter().map(to_float);
        Self {
            points: voltages.zip(clocks).collect(),
            memory: spec.memory[0] + of(&spec.memory_offset),
            power_limit: spec.power * percent(&spec.power_limit, 100.0),
            fan: percent(&spec.fan, 45.0).clamp(0.0, 1.0),
        }
    }
}

impl Graphics {
    /// The specimen that this seed makes, at rest with this rung.
    pub(super) fn new(spec: Spec, seed: u64, rung: &Rung) -> Self {
        let mut random = Stream::new(seed, Purpose::Specimen);
        let made = Made {
            needs_more: SPREAD[0] * random.normal(),
            memory_limit: (spec.memory[0] + spec.memory[1]) * (1.0 + SPREAD[1] * random.normal()),
        };
        let driven = Driven::by(&spec, rung);
        let point = Point::at_rest(driven.points[0].0);
        Self { network: Network::at_rest(spec.room), made, driven, load: None, point, power: 18.0, spec }
    }

    /// What the core draws now at a voltage in V and a clock in MHz, W.
    fn power_now(&self) -> impl Fn(f64, f64) -> f64 + use<> {
        let [core, leakage, rest] = POWER;
        let switched = core * self.load.map_or(0.0, |(_, hard)| hard);
        let leaks = leakage * (0.012 * (self.network.die - 50.0)).exp();
        move |voltage, clock| switched * voltage * voltage * clock + leaks * voltage + rest
    }

    /// What the core needs at this clock, V.
    fn needs(&self, clock: f64) -> f64 {
        let [least, slope, curve, heat] = NEEDS;
        let more = (clock - NEEDS_FROM) / 1000.0;
        least + slope * more + curve * more * more.abs() + heat * (self.network.die - 50.0) + self.made.needs_more
    }

    /// The margin of the core, V.
    fn core_margin(&self) -> f64 {
        self.point.voltage - self.needs(self.point.clock)
    }

    /// The margin of the memory to its artefacts, as a share of its clock.
    fn memory_margin(&self) -> f64 {
        self.made.memory_limit * (1.0 + ARTEFACTS) / self.driven.memory - 1.0
    }

    /// The share of transfers that are repeated.
    fn replayed(&self) -> f64 {
        let beyond = self.driven.memory / self.made.memory_limit - 1.0;
        (beyond / REPEATED).min(5.0).exp() * 0.02
    }

    /// The clock that memory is worth, MHz.
    fn useful_memory(&self) -> f64 {
        self.driven.memory * (1.0 - 3.0 * self.replayed()).max(0.05)
    }

    fn work_of(&self, kind: Kind) -> f64 {
        match kind {
            Kind::Frames => {
                let [core, memory] = FRAME;
                1.0 / (core / self.point.clock + memory / self.useful_memory())
            }
            Kind::Sums => self.point.clock * 5.12,
            Kind::Transfers => self.useful_memory() * 0.256,
        }
    }
}

impl Device for Graphics {
    fn settings(&self) -> Vec<&str> {
        let Spec { curve, memory_offset, power_limit, fan, .. } = &self.spec;
        let others = [memory_offset].into_iter().chain(power_limit).chain(fan).map(String::as_str);
        curve.levers().chain(others).collect()
    }

    fn loads(&self) -> Vec<&'static str> {
        LOADS.iter().map(|(name, ..)| *name).collect()
    }

    fn sources(&self) -> Vec<String> {
        SOURCES.map(str::to_owned).to_vec()
    }

    fn set(&mut self, rung: &Rung) {
        self.driven = Driven::by(&self.spec, rung);
    }

    /// A card at rest sits at its lowest point, which hardly anything is too much for.
    fn is_alive(&self) -> bool {
        let (voltage, clock) = self.driven.points[0];
        self.memory_margin() > -0.05 && self.needs(clock - 700.0) < voltage
    }

    fn work(&mut self, work: Option<Work>) -> Option<&'static str> {
        let load = work.and_then(|work| LOADS.iter().find(|(name, ..)| *name == work.load));
        self.load = load.map(|(.., kind, hard)| (*kind, *hard));
        load.map(|(_, unit, ..)| *unit)
    }

    fn clocks(&self) -> Vec<f64> {
        self.load.iter().map(|_| self.point.clock).collect()
    }

    fn tick(&mut self, seconds: f64, parts: &mut Vec<Strained>) -> Option<String> {
        let asked = Asked {
            points: &self.driven.points,
            die: self.network.die,
            hottest: self.spec.cooling.limit,
            power_limit: self.driven.power_limit,
        };
        let power = self.power_now();
        self.point = match self.load {
            Some(_) => sit(asked, &power),
            None => Point::at_rest(self.driven.points[0].0),
        };
        self.power = power(self.point.voltage, self.point.clock);
        // Fans that blow harder take more heat away.
        let cooler = self.spec.cooling.cooler * (1.35 - 0.7 * self.driven.fan);
        let cooling = crate::simulated::thermal::Cooling { cooler, ..self.spec.cooling.clone() };
        self.network.advance(&cooling, self.spec.room, self.power, seconds);
        if let Some((kind, _)) = self.load {
            let hazard = |(at_nothing, width): (f64, f64), margin: f64| at_nothing * (-margin / width).min(40.0).exp();
            let core = if kind == Kind::Transfers { 0.0 } else { hazard(CORE, self.core_margin()) };
            parts.push(Strained { hazard: core + hazard(MEMORY, self.memory_margin()), work: self.work_of(kind) });
        }
        None
    }

    fn reading(&self, source: &str, noise: f64) -> Option<f64> {
        match source {
            "room" => Some(self.spec.room + 0.1 * noise),
            "die" => Some(self.network.die + 0.3 * noise),
            "power" => Some(self.power + 0.6 * noise),
            "voltage" => Some(self.point.voltage),
            "clock" => Some(self.point.clock.round()),
            "memory-clock" => Some(self.driven.memory),
            "fan" => Some((3200.0 * self.driven.fan + 8.0 * noise).max(0.0).round()),
            "limited-by" => Some(self.point.limit.number()),
            "replayed" => Some(100.0 * self.replayed()),
            _ => None,
        }
    }

    /// Wrong pixels near the border, a reset of the driver deeper, and the machine with it deepest.
    fn failure(&self, _part: usize, random: &mut Stream) -> Incident {
        let (core, memory) = (self.core_margin() / CORE.1, self.memory_margin() / MEMORY.1);
        let (deep, drawn) = (core.min(memory), random.unit());
        if deep < -6.0 && drawn < 0.35 {
            return Incident::new(IncidentKind::Freeze, "the machine stood still with the card and was started anew");
        }
        if deep < -2.0 && drawn < 0.75 {
            let why = "the driver reset the card, and what was set is gone";
            return Incident::new(IncidentKind::DeviceReset, why).at("graphics card");
        }
        let pixels = 1 + (random.unit() * 9.0 * (-deep).max(1.0)) as u32;
        let (x, y) = ((random.unit() * 60.0) as u32, (random.unit() * 34.0) as u32);
        let (place, evidence) = if memory < core {
            (format!("tile {x},{y}"), format!("{pixels} stripes of wrong pixels"))
        } else {
            (format!("tile {x},{y}"), format!("{pixels} wrong pixels"))
        };
        Incident::new(IncidentKind::Artefact, evidence).at(place)
    }

    fn loses_on(&self, kind: IncidentKind) -> bool {
        kind == IncidentKind::DeviceReset
    }

    fn voltage(&self) -> Option<f64> {
        Some(self.point.voltage)
    }

    fn copy(&self) -> Box<dyn Device> {
        Box::new(self.clone())
    }
}

#[cfg(test)]
mod tests;
