//! A processor under a pot in software: somebody pours, so that its temperature is set. Cold lets it go faster, up to where it stops.

use periculum_core::files::Section;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::pass::Threads;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;

use crate::simulated::device::{Device, Strained, Work};
use crate::simulated::names::{known, optional_setting, setting};
use crate::simulated::numbers::{positive_or, to_float};
use crate::simulated::random::{Purpose, Stream};

/// Failures of a core in a second at a margin of nothing, and the margin over which that falls by a factor of e, V.
const HAZARD: (f64, f64) = (1.0 / 300.0, 0.010);

/// What a core needs at the reference clock and 20 °C, V; V for each GHz more and for each GHz squared; and V/K.
const NEEDS: [f64; 4] = [1.10, 0.175, 0.052, 0.001_15];

/// How far cores differ, V, and how far cold limits do, K.
const SPREAD: [f64; 2] = [0.020, 3.0];

/// The die is warmer than the pot by so much for each V² and GHz of a core that works, K.
const ABOVE_POT: f64 = 1.05;

/// Below this input voltage the cold limit stays where it is; above it falls by a step for each so many V: V, V, K.
const STEPS: (f64, f64, f64) = (1.80, 0.05, 9.0);

/// A base clock that moves farther than this in one change hangs it, MHz.
const JUMP: f64 = 3.0;

/// After a crash a quick reset works so often; otherwise the pot has to warm up.
const QUICK: f64 = 0.8;

/// A load with its unit and how hard it is on a core, V.
const LOADS: [(&str, &str, f64, f64); 3] =
    [("digits", "M/s", 0.0, 1.0), ("render", "Mray/s", 0.012, 0.45), ("dense", "GFLOP/s", 0.030, 13.0)];

/// A processor under a pot, and which of the rig's settings drive it; specimens differ by seed.
#[derive(Clone, Debug, PartialEq)]
pub(in crate::simulated) struct Spec {
    /// The settings that are the cores' multipliers, one for all or one each.
    multipliers: Vec<String>,
    /// The setting that is the base clock, MHz.
    base: String,
    /// The setting that is the core voltage, V.
    voltage: String,
    /// The setting that is the input voltage by which the cold limit goes, V, where one is.
    input: Option<String>,
    /// The setting that is the temperature of the pot, °C.
    pot: String,
    /// How many cores it has.
    cores: usize,
    /// The clock that needs are measured from, MHz.
    reference: f64,
    /// The usual cold limit, K below 0 °C.
    cold: f64,
    room: f64,
}

impl Spec {
    /// Reads its keys of a section, for this rig in a room of this temperature, °C; problems go where the section's problems go.
    pub(in crate::simulated) fn read(section: &Section, rig: &Rig, room: f64) -> Option<Self> {
        let names = section.optional_texts("multipliers");
        let multipliers: Vec<String> = names.map_or_else(Vec::new, |names| {
            let at = names.at;
            let named = |value| known(periculum_core::files::Located { value, at: at.clone() }, section, rig);
            names.value.into_iter().filter_map(named).collect()
        });
        let (base, voltage) = (setting(section, "base", rig), setting(section, "voltage", rig));
        let (input, pot) = (optional_setting(section, "input", rig), setting(section, "pot", rig));
        let cores = section.optional_count("cores", 1).map_or(6, |cores| cores.value as usize);
        let reference = positive_or(section, "reference_clock", 4600.0);
        let cold = positive_or(section, "cold_limit", 96.0);
        if multipliers.is_empty() || !cores.is_multiple_of(multipliers.len()) {
            let help = "write `multipliers = [\"multiplier\"]`, or one for each group of cores";
            section.problems().advise(section.at(), format!("{cores} cores need multipliers in equal groups"), help);
            return None;
        }
        Some(Self { multipliers, base: base?, voltage: voltage?, input, pot: pot?, cores, reference, cold, room })
    }
}

/// One specimen under its pot.
#[derive(Clone, Debug)]
pub(in crate::simulated) struct Cold {
    spec: Spec,
    /// What each core needs more than usual, V.
    needs_more: Vec<f64>,
    /// °C.
    cold: f64,
    driven: Driven,
    /// Whether the base clock moved too far at once.
    is_hung: bool,
    /// °C, behind what was poured.
    pot: f64,
    load: Option<(f64, f64, usize)>,
}

/// What the settings come to.
#[derive(Clone, Debug, Default, PartialEq)]
struct Driven {
    /// MHz, of each core.
    clocks: Vec<f64>,
    /// MHz.
    base: f64,
    /// V.
    voltage: f64,
    /// V.
    input: f64,
    /// °C.
    pot: f64,
}

impl Driven {
    fn by(spec: &Spec, rung: &Rung) -> Self {
        let of = |setting: &String, usual: f64| rung.get(setting).map_or(usual, to_float);
        let base = of(&spec.base, 100.0);
        let of_group = spec.cores / spec.multipliers.len();
        let clock = |core: usize| of(&spec.multipliers[core / of_group], 46.0) * base;
        Self {
            clocks: (0..spec.cores).map(clock).collect(),
            base,
            voltage: of(&spec.voltage, 1.25),
            input: spec.input.as_ref().map_or(1.7, |input| of(input, 1.7)),
            pot: of(&spec.pot, 20.0),
        }
    }
}

impl Cold {
    /// The specimen that this seed makes, at rest with this rung.
    pub(in crate::simulated) fn new(spec: Spec, seed: u64, rung: &Rung) -> Self {
        let mut random = Stream::new(seed, Purpose::Specimen);
        let needs_more = (0..spec.cores).map(|_| SPREAD[0] * random.normal()).collect();
        let cold = -spec.cold + SPREAD[1] * random.normal();
        let driven = Driven::by(&spec, rung);
        Self { needs_more, cold, pot: driven.pot, driven, is_hung: false, load: None, spec }
    }

    /// Below this temperature it stops, °C: it falls by steps of the input voltage.
    fn cold_limit(&self) -> f64 {
        let (from, each, step) = STEPS;
        self.cold - step * ((self.driven.input - from) / each + 1e-9).floor().max(0.0)
    }

    /// The temperature of a core, °C.
    fn die(&self, core: usize) -> f64 {
        let works = self.load.is_some_and(|(.., busy)| core < busy);
        let heat =
            if works { ABOVE_POT * self.driven.voltage.powi(2) * self.driven.clocks[core] / 1000.0 } else { 0.0 };
        self.pot + heat
    }

    /// What a core has more than it needs under something so hard, V.
    fn margin(&self, core: usize, hard: f64) -> f64 {
        let [least, slope, curve, heat] = NEEDS;
        let more = (self.driven.clocks[core] - self.spec.reference) / 1000.0;
        let grown = slope * more + curve * more * more.abs();
        let needs = least + grown + heat * (self.die(core) - 20.0) + hard + self.needs_more[core];
        self.driven.voltage - needs
    }

    fn is_too_cold(&self) -> bool {
        self.pot < self.cold_limit()
    }
}

impl Device for Cold {
    fn settings(&self) -> Vec<&str> {
        let Spec { multipliers, base, voltage, input, pot, .. } = &self.spec;
        multipliers.iter().chain([base, voltage]).chain(input).chain([pot]).map(String::as_str).collect()
    }

    fn loads(&self) -> Vec<&'static str> {
        LOADS.iter().map(|(name, ..)| *name).collect()
    }

    fn sources(&self) -> Vec<String> {
        let cores = (0..self.spec.cores).map(|core| format!("core-{core}"));
        ["room", "pot", "hottest-core", "core-voltage", "clock"].map(str::to_owned).into_iter().chain(cores).collect()
    }

    fn set(&mut self, rung: &Rung) {
        let before = self.driven.base;
        self.driven = Driven::by(&self.spec, rung);
        self.is_hung |= before > 0.0 && (self.driven.base - before).abs() > JUMP;
    }

    fn is_alive(&self) -> bool {
        let idles = (0..self.spec.cores).all(|core| self.margin(core, -0.08) >= -0.02);
        !self.is_hung && !self.is_too_cold() && idles
    }

    fn work(&mut self, work: Option<Work>) -> Option<&'static str> {
        let cores = self.spec.cores;
        let load = work.and_then(|work| {
            let (_, unit, hard, each) = LOADS.iter().find(|(name, ..)| *name == work.load)?;
            let busy = match work.threads {
                Threads::Count(count) => (count as usize).min(cores),
                Threads::All | Threads::Each => cores,
            };
            Some((*unit, (*hard, *each, busy)))
        });
        self.load = load.map(|(_, load)| load);
        load.map(|(unit, _)| unit)
    }

    fn clocks(&self) -> Vec<f64> {
        self.load.map(|(.., busy)| self.driven.clocks[..busy].to_vec()).unwrap_or_default()
    }

    fn tick(&mut self, seconds: f64, parts: &mut Vec<Strained>) -> Option<String> {
        self.pot += (self.driven.pot - self.pot) * (1.0 - (-seconds / 4.0).exp());
        if let Some((hard, each, busy)) = self.load {
            let (at_nothing, width) = HAZARD;
            // Too cold is too cold for all of it at once.
            let stops = if self.is_too_cold() { 10.0 } else { 0.0 };
            parts.extend((0..busy).map(|core| {
                let hazard = at_nothing * (-self.margin(core, hard) / width).min(40.0).exp();
                Strained { hazard: hazard + stops, work: each * self.driven.clocks[core] / 1000.0 }
            }));
        }
        None
    }

    fn reading(&self, source: &str, noise: f64) -> Option<f64> {
        match source {
            "room" => Some(self.spec.room + 0.1 * noise),
            "pot" => Some(self.pot + 0.4 * noise),
            "hottest-core" => {
                let dies = (0..self.spec.cores).map(|core| self.die(core));
                Some(dies.fold(f64::NEG_INFINITY, f64::max) + 0.5 * noise)
            }
            "core-voltage" => Some(self.driven.voltage + 0.001 * noise),
            "clock" => Some(self.driven.clocks.iter().copied().fold(0.0, f64::max)),
            _ => {
                let core = source.strip_prefix("core-")?.parse().ok().filter(|core| *core < self.spec.cores)?;
                Some(self.die(core) + 0.5 * noise)
            }
        }
    }

    /// Near the border a core is wrong; beyond it the machine stands still, and only sometimes comes back without warming up.
    fn failure(&self, part: usize, random: &mut Stream) -> Incident {
        if self.is_too_cold() {
            return Incident::new(IncidentKind::NoStart, "it stopped for cold; the pot has to warm up");
        }
        let margin = self.margin(part, self.load.map_or(0.0, |(hard, ..)| hard));
        let drawn = random.unit();
        if margin > -0.012 && drawn < 0.7 {
            return Incident::new(IncidentKind::WrongResult, "a digit was wrong").at(Incident::on_core(part));
        }
        if random.unit() < QUICK {
            return Incident::new(IncidentKind::Freeze, "it stood still, and a quick reset brought it back");
        }
        Incident::new(IncidentKind::NoStart, "no quick reset brought it back; the pot has to warm up")
    }

    fn starts_anew(&mut self, _random: &mut Stream) -> Option<Incident> {
        self.is_hung = false;
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
