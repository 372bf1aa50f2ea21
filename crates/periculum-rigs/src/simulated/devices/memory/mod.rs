//! Memory in software: modules whose timings need their time, a controller whose best voltage has two sides, and a board that trains
//! them when it starts.

mod driven;
mod spec;

use periculum_core::Decimal;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::rung::Rung;

use driven::Driven;
pub(super) use spec::Spec;

use crate::simulated::device::{Device, Strained, Work};
use crate::simulated::random::{Purpose, Stream};

/// Failures of a module in a second at a margin of nothing.
const HAZARD: f64 = 1.0 / 600.0;

/// The margin of a timing over which the hazard falls by a factor of e, ns.
const TIMING_WIDTH: f64 = 0.12;

/// The same of the rate, as a share.
const RATE_WIDTH: f64 = 0.007;

/// How far what timings need, and rates, differ from specimen to specimen: standard deviations as shares.
const SPREAD: [f64; 2] = [0.013, 0.012];

/// How far modules of one kit differ in what they need, as a share.
const MODULE_SPREAD: f64 = 0.006;

/// How far the controller's best voltage differs from specimen to specimen, V.
const BEST_SPREAD: f64 = 0.018;

/// Training succeeds in every second start where the easiest margin is so many widths below nothing, and how sharply that changes.
const TRAINING: (f64, f64) = (-4.0, 0.8);

/// So many tries before a board comes back with its defaults.
const TRIES: u32 = 3;

/// With a margin so many widths below nothing it does not answer.
const DEAD: f64 = -14.0;

/// Modules are warmer than the room by so much at rest, and by so much more under load, K; they follow in so many seconds.
const WARMER: [f64; 3] = [9.0, 22.0, 120.0];

/// A load with its unit and how it follows rate and latency.
type Load = (&'static str, &'static str, Kind);

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Kind {
    /// So many percent of what the rate allows.
    Transfers(u32),
    /// The time of an access.
    Accesses,
}

const LOADS: [Load; 5] = [
    ("read", "GB/s", Kind::Transfers(93)),
    ("write", "GB/s", Kind::Transfers(88)),
    ("copy", "GB/s", Kind::Transfers(84)),
    ("pattern", "GB/s", Kind::Transfers(71)),
    ("latency", "ns", Kind::Accesses),
];

const SOURCES: [&str; 4] = ["room", "module", "controller-voltage", "module-voltage"];

/// One specimen of controller, modules and board.
#[derive(Clone, Debug)]
pub(super) struct Memory {
    spec: Spec,
    made: Made,
    driven: Driven,
    load: Option<Kind>,
    /// Temperature of the modules, °C.
    module: f64,
    /// How much looser training has left what nobody sees, 0 to 1.
    hidden: f64,
}

/// What differs from specimen to specimen.
#[derive(Clone, Debug)]
struct Made {
    needs: [f64; 3],
    rate_limit: f64,
    best: f64,
    /// What each slot's module needs of that, as a factor.
    modules: [f64; 4],
    /// What the board makes of a voltage that is asked for: an offset in V, and a slope.
    board: [f64; 2],
}

impl Made {
    fn new(spec: &Spec, seed: u64) -> Self {
        let mut random = Stream::new(seed, Purpose::Specimen);
        let mut about = |usual: f64, spread: f64| usual * (1.0 + spread * random.normal());
        Self {
            needs: spec.needs.map(|need| about(need, SPREAD[0])),
            rate_limit: about(spec.rate_limit, SPREAD[1]),
            best: spec.best + about(1.0, BEST_SPREAD) - 1.0,
            modules: [0; 4].map(|_| about(1.0, MODULE_SPREAD)),
            board: [about(1.0, 0.004) - 1.0, about(1.0, 0.006)],
        }
    }
}

impl Memory {
    /// The specimen that this seed makes, at rest with this rung.
    pub(super) fn new(spec: Spec, seed: u64, rung: &Rung) -> Self {
        Self {
            made: Made::new(&spec, seed),
            driven: Driven::by(&spec, rung),
            load: None,
            module: spec.room + WARMER[0],
            hidden: 0.0,
            spec,
        }
    }

    /// The voltage that the controller really gets, V.
    fn controller(&self) -> f64 {
        self.made.board[0] + self.made.board[1] * self.driven.controller
    }

    /// The least margin of the module in a slot in widths, with the timing that has it; none where it is the rate.
    fn margin(&self, slot: usize) -> (f64, Option<usize>) {
        let driven = &self.driven;
        let warm = 1.0 + 0.001 * (self.module - 45.0);
        // A command that stands for two clocks has more time, and costs some.
        let relief = if driven.command_rate > 1.0 { 0.03 } else { 0.0 };
        let of_timing = |(nth, need): (usize, &f64)| {
            let needed = need * self.made.modules[slot] * driven.swing * warm - relief;
            ((driven.timings[nth] * 2000.0 / driven.rate - needed) / TIMING_WIDTH, Some(nth))
        };
        let off = self.controller() - self.made.best - driven.wants_more();
        let reach = self.made.rate_limit * driven.population() - 60_000.0 * off * off;
        let of_rate = ((reach / driven.rate - 1.0) / RATE_WIDTH, None);
        let margins = self.made.needs.iter().enumerate().map(of_timing).chain([of_rate]);
        margins.fold((f64::INFINITY, None), |least, one| if one.0 < least.0 { one } else { least })
    }

    /// The least margin of all modules that are there, in widths.
    fn least(&self) -> f64 {
        self.driven.slots().map(|slot| self.margin(slot).0).fold(f64::INFINITY, f64::min)
    }

    /// What a second of the load comes to, in its unit: GB/s, or ns an access.
    fn work_of(&self, load: Kind) -> f64 {
        let driven = &self.driven;
        match load {
            Kind::Transfers(percent) => {
                let channels = driven.channels() as f64;
                let wasted = 0.01 * (driven.command_rate - 1.0) + 0.006 * self.hidden;
                driven.rate * 8.0 * channels / 1000.0 * f64::from(percent) / 100.0 * (1.0 - wasted)
            }
            Kind::Accesses => {
                let [cl, trcd, _] = driven.timings;
                let clocks = cl + trcd + driven.command_rate - 1.0;
                (38.0 + clocks * 2000.0 / driven.rate) * (1.0 + 0.015 * self.hidden)
            }
        }
    }
}

impl Device for Memory {
    fn settings(&self) -> Vec<&str> {
        let Spec { rate, timings, command_rate, voltage, controller, slots, .. } = &self.spec;
        let all = [rate].into_iter().chain(timings).chain(command_rate).chain([voltage, controller]).chain(slots);
        all.map(String::as_str).collect()
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

    fn is_alive(&self) -> bool {
        self.least() >= DEAD
    }

    fn work(&mut self, work: Option<Work>) -> Option<&'static str> {
        let load = work.and_then(|work| LOADS.iter().find(|(name, ..)| *name == work.load));
        self.load = load.map(|(.., kind)| *kind);
        load.map(|(_, unit, _)| *unit)
    }

    /// One part a module, all at the rate.
    fn clocks(&self) -> Vec<f64> {
        self.load.iter().flat_map(|_| self.driven.slots().map(|_| self.driven.rate / 2.0)).collect()
    }

    fn tick(&mut self, seconds: f64, parts: &mut Vec<Strained>) -> Option<String> {
        let [rest, load, slowness] = WARMER;
        let heat = if self.load.is_some() { load * self.driven.rate / 6000.0 } else { 0.0 };
        self.module += (self.spec.room + rest + heat - self.module) * (1.0 - (-seconds / slowness).exp());
        if let Some(load) = self.load {
            let share = self.work_of(load) / self.driven.slots().count().max(1) as f64;
            parts.extend(self.driven.slots().map(|slot| {
                let hazard = HAZARD * (-self.margin(slot).0).min(40.0).exp();
                Strained { hazard, work: share }
            }));
        }
        None
    }

    fn reading(&self, source: &str, noise: f64) -> Option<f64> {
        match source {
            "room" => Some(self.spec.room + 0.1 * noise),
            "module" => Some(self.module + 0.4 * noise),
            "controller-voltage" => Some(self.controller() + 0.001 * noise),
            "module-voltage" => Some(self.driven.voltage + 0.001 * noise),
            _ => None,
        }
    }

    /// A wrong bit has an address and a lane that belong to one module.
    fn failure(&self, part: usize, random: &mut Stream) -> Incident {
        let slot = self.driven.slots().nth(part).unwrap_or_default();
        let (margin, _) = self.margin(slot);
        let drawn = random.unit();
        if margin < -3.0 && drawn < 0.5 {
            return Incident::new(IncidentKind::Freeze, "the machine stood still and was started anew");
        }
        if margin < -1.5 && drawn < 0.4 {
            return Incident::new(IncidentKind::Restart, "the machine started anew by itself");
        }
        let [address, lane, bit] = [random.unit(), random.unit(), random.unit()];
        let address = (address * 32.0 * 1024.0 * 1024.0 * 1024.0) as u64 & !7;
        let (lane, bit) = ((lane * 8.0) as u32, (bit * 8.0) as u32);
        let evidence = format!("bit {bit} of lane {lane} at {address:#011x} was not as written");
        Incident::new(IncidentKind::MemoryFault, evidence).at(format!("module {}", slot + 1))
    }

    /// Trains: up to three tries, then the board's defaults. What nobody sees may come out looser each time.
    fn starts_anew(&mut self, random: &mut Stream) -> Option<Incident> {
        let (middle, width) = TRAINING;
        let succeeds = 1.0 / (1.0 + (-(self.least() - middle) / width).exp());
        let tries = (1..=TRIES).find(|_| random.unit() < succeeds);
        self.hidden = random.unit();
        if tries.is_some() {
            return None;
        }
        let why = format!("{TRIES} tries to train its memory failed, and it came back with its defaults");
        Some(Incident::new(IncidentKind::SafeDefaults, why))
    }

    fn is_off_while_changed(&self) -> bool {
        true
    }

    fn rounds_to(&self) -> Vec<(String, Decimal)> {
        let asked = self.driven.asked_cl;
        let rounded = asked.filter(|asked| f64::try_from(*asked).is_ok_and(|asked| asked != self.driven.timings[0]));
        rounded.map(|asked| (self.spec.timings[0].clone(), asked + Decimal::ONE)).into_iter().collect()
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
