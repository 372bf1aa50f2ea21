//! A small board in software: one clock for all cores, a supply that sags, a report that is rounded, and a graphics unit that wants a
//! flag before it goes faster.

use periculum_core::files::Section;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::pass::Threads;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;

use crate::simulated::device::{Device, Strained, Work};
use crate::simulated::names::{optional_setting, setting};
use crate::simulated::numbers::{positive_or, to_float};
use crate::simulated::random::{Purpose, Stream};

/// Failures of a core in a second at a margin of nothing, and the margin over which that falls by a factor of e, V.
const HAZARD: (f64, f64) = (1.0 / 900.0, 0.008);

/// What the cores need at their stock clock and 50 °C, V; how that grows, V for each GHz and V for each GHz squared; and V/K.
const NEEDS: [f64; 4] = [0.81, 0.17, 0.28, 0.000_5];

/// Its voltage without any delta, V.
const USUAL: f64 = 0.905;

/// How far specimens differ: what cores need, V, and the clock that the supply carries, as a share.
const SPREAD: [f64; 2] = [0.009, 0.012];

/// The graphics unit goes this far beyond its stock clock, MHz, and its hazard falls by a factor of e over so many: without the flag, and
/// with it.
const GRAPHICS: [(f64, f64); 2] = [(20.0, 2.0), (260.0, 12.0)];

/// Its report is rounded to so many MHz.
const ROUNDED: f64 = 100.0;

/// Warmer than the room at rest; more with the flag; by each core and GHz that works, K; and how slowly, s.
const WARMER: [f64; 4] = [14.0, 7.0, 4.2, 80.0];

/// With so much less than it needs at rest it does not start, V.
const DEAD: f64 = -0.045;

const CORES: usize = 4;

/// A load with its unit, and what it takes from the supply beside others.
const LOADS: [(&str, &str, f64); 3] =
    [("integer", "GB/s", 1.0), ("encode", "frames/s", 0.9), ("draw", "frames/s", 0.6)];

/// A small board, and which of the rig's settings drive it; specimens differ by seed.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::simulated) struct Spec {
    /// The setting that is the clock of its cores, MHz.
    clock: String,
    /// The setting that is what their voltage has more, mV, where one is.
    delta: Option<String>,
    /// The setting that is the clock of its graphics unit, MHz, where one is.
    graphics: Option<String>,
    /// The setting that is the flag which lets that go faster: 0 or 1.
    flag: Option<String>,
    /// Stock clocks of cores and graphics unit, MHz.
    stock: [f64; 2],
    /// The clock up to which its supply lets work follow, MHz.
    supply: f64,
    room: f64,
}

impl Spec {
    /// Reads its keys of a section, for this rig in a room of this temperature, °C; problems go where the section's problems go.
    pub(in crate::simulated) fn read(section: &Section, rig: &Rig, room: f64) -> Option<Self> {
        let clock = setting(section, "clock", rig);
        let [delta, graphics, flag] = ["delta", "graphics", "flag"].map(|key| optional_setting(section, key, rig));
        let stock = [positive_or(section, "stock_clock", 1800.0), positive_or(section, "stock_graphics", 500.0)];
        let supply = positive_or(section, "supply", 2230.0);
        Some(Self { clock: clock?, delta, graphics, flag, stock, supply, room })
    }
}

/// One specimen of a board.
#[derive(Clone, Debug)]
pub(in crate::simulated) struct Board {
    spec: Spec,
    /// V.
    needs_more: f64,
    /// MHz.
    supply: f64,
    driven: Driven,
    /// °C.
    chip: f64,
    load: Option<(&'static str, f64, usize)>,
}

/// What the settings come to.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
struct Driven {
    /// MHz.
    clock: f64,
    /// V.
    voltage: f64,
    /// MHz.
    graphics: f64,
    has_flag: bool,
}

impl Board {
    /// The specimen that this seed makes, at rest with this rung.
    pub(in crate::simulated) fn new(spec: Spec, seed: u64, rung: &Rung) -> Self {
        let mut random = Stream::new(seed, Purpose::Specimen);
        let needs_more = SPREAD[0] * random.normal();
        let supply = spec.supply * (1.0 + SPREAD[1] * random.normal());
        let chip = spec.room + WARMER[0];
        let mut made = Self { spec, needs_more, supply, driven: Driven::default(), chip, load: None };
        made.set(rung);
        made
    }

    /// The clock that is executed: beyond what the supply carries it is stretched, MHz.
    fn executed(&self) -> f64 {
        let beyond = (self.driven.clock - self.supply).max(0.0);
        self.driven.clock - 0.9 * beyond
    }

    /// What a core has more than it needs, V.
    fn margin(&self) -> f64 {
        let [least, slope, curve, heat] = NEEDS;
        let more = (self.executed() - self.spec.stock[0]) / 1000.0;
        let sags = if self.load.is_some() { 0.018 } else { 0.0 };
        let needs = least + slope * more + curve * more * more.abs() + heat * (self.chip - 50.0) + self.needs_more;
        self.driven.voltage - sags - needs
    }

    /// What the graphics unit has left beyond its stock clock, in widths.
    fn graphics_margin(&self) -> f64 {
        let (room, width) = GRAPHICS[usize::from(self.driven.has_flag)];
        (self.spec.stock[1] + room - self.driven.graphics) / width
    }
}

impl Device for Board {
    fn settings(&self) -> Vec<&str> {
        let Spec { clock, delta, graphics, flag, .. } = &self.spec;
        [clock].into_iter().chain(delta).chain(graphics).chain(flag).map(String::as_str).collect()
    }

    fn loads(&self) -> Vec<&'static str> {
        LOADS.iter().map(|(name, ..)| *name).collect()
    }

    fn sources(&self) -> Vec<String> {
        ["room", "chip", "reported-clock", "executed-clock", "voltage", "limited-by"].map(str::to_owned).to_vec()
    }

    fn set(&mut self, rung: &Rung) {
        let of = |setting: &Option<String>| setting.as_ref().and_then(|name| rung.get(name)).map(to_float);
        self.driven = Driven {
            clock: rung.get(&self.spec.clock).map_or(self.spec.stock[0], to_float),
            voltage: USUAL + of(&self.spec.delta).unwrap_or(0.0) / 1000.0,
            graphics: of(&self.spec.graphics).unwrap_or(self.spec.stock[1]),
            has_flag: of(&self.spec.flag).is_some_and(|flag| flag >= 1.0),
        };
    }

    fn is_alive(&self) -> bool {
        self.margin() >= DEAD && self.graphics_margin() >= -60.0
    }

    fn work(&mut self, work: Option<Work>) -> Option<&'static str> {
        let busy = |threads: Threads| match threads {
            Threads::Count(count) => (count as usize).min(CORES),
            Threads::All | Threads::Each => CORES,
        };
        let load =
            work.and_then(|work| Some((LOADS.iter().find(|(name, ..)| *name == work.load)?, busy(work.threads))));
        self.load = load.map(|((name, _, share), busy)| (*name, *share, busy));
        load.map(|((_, unit, _), _)| *unit)
    }

    fn clocks(&self) -> Vec<f64> {
        self.load.map(|(.., busy)| vec![self.executed(); busy]).unwrap_or_default()
    }

    fn tick(&mut self, seconds: f64, parts: &mut Vec<Strained>) -> Option<String> {
        let [rest, flagged, each, slowness] = WARMER;
        let heat = self.load.map_or(0.0, |(_, share, busy)| each * share * busy as f64 * self.executed() / 1000.0);
        let flag = if self.driven.has_flag { flagged } else { 0.0 };
        self.chip += (self.spec.room + rest + flag + heat - self.chip) * (1.0 - (-seconds / slowness).exp());
        if let Some((name, _, busy)) = self.load {
            let (at_nothing, width) = HAZARD;
            let core = at_nothing * (-self.margin() / width).min(40.0).exp();
            let graphics = at_nothing * (-self.graphics_margin()).min(40.0).exp();
            let clock = if name == "draw" { self.driven.graphics } else { self.executed() };
            let work = clock / 1000.0 * 1.9;
            parts.extend((0..busy).map(|_| Strained { hazard: core + graphics / busy as f64, work }));
        }
        None
    }

    fn reading(&self, source: &str, noise: f64) -> Option<f64> {
        match source {
            "room" => Some(self.spec.room + 0.1 * noise),
            "chip" => Some(self.chip + 0.5 * noise),
            "reported-clock" => Some((self.driven.clock / ROUNDED).round() * ROUNDED),
            "executed-clock" => Some(self.executed() + 0.5 * noise),
            "voltage" => Some(self.driven.voltage),
            // 1 is the supply, which stretches the clock where it sags.
            "limited-by" => Some(if self.executed() < self.driven.clock { 1.0 } else { 0.0 }),
            _ => None,
        }
    }

    /// The benchmark dies before the system does.
    fn failure(&self, part: usize, random: &mut Stream) -> Incident {
        if self.graphics_margin() < self.margin() / HAZARD.1 {
            return Incident::new(IncidentKind::Artefact, "triangles that are nowhere in the scene");
        }
        let drawn = random.unit();
        if self.margin() < -0.02 && drawn < 0.6 {
            return Incident::new(IncidentKind::Freeze, "the board stood still and was started anew");
        }
        if drawn < 0.75 {
            return Incident::new(IncidentKind::LoadDied, "the load died of signal 11").at(Incident::on_core(part));
        }
        Incident::new(IncidentKind::WrongResult, "a sum of its blocks was wrong").at(Incident::on_core(part))
    }

    fn starts_anew(&mut self, _random: &mut Stream) -> Option<Incident> {
        self.chip = self.spec.room + WARMER[0];
        None
    }

    fn voltage(&self) -> Option<f64> {
        Some(self.driven.voltage)
    }

    fn copy(&self) -> Box<dyn Device> {
        Box::new(self.clone())
    }
}

#[cfg(test)]
mod tests;
