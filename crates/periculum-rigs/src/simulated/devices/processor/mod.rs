//! A processor in software: cores that each need a voltage of their own for their clock, load and heat.

mod electrics;
mod failure;
mod silicon;
mod spec;

use periculum_core::model::incident::Incident;
use periculum_core::model::moment::Span;
use periculum_core::model::pass::Threads;
use periculum_core::model::rung::Rung;

pub use spec::{Power, Silicon, Spec};

use crate::simulated::device::{Device, Strained, Work};
use crate::simulated::hazard::TICK;
use crate::simulated::numbers::to_float;
use crate::simulated::random::Stream;
use electrics::{Demand, Electrics};
use failure::failure;
use silicon::{LOADS, Specimen, Strain, strain};

/// Voltage that an idle core needs less than a loaded one, V.
const IDLE_RELIEF: f64 = 0.06;

/// A processor that is set with less than this margin while idle, V, stops answering at once.
const DEAD_AT_IDLE: f64 = -0.02;

/// A clock this far below the asked one, for this long, is throttled.
const THROTTLED: (f64, Span) = (0.98, Span::from_seconds(5));

/// What takes the clock back.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Limit {
    Temperature,
    Power,
    Current,
}

impl Limit {
    fn name(self) -> &'static str {
        match self {
            Self::Temperature => "temperature limit",
            Self::Power => "power limit",
            Self::Current => "current limit",
        }
    }

    /// What a sensor reads that tells what limits; nothing is 0.
    fn number(self) -> f64 {
        match self {
            Self::Temperature => 1.0,
            Self::Power => 2.0,
            Self::Current => 3.0,
        }
    }
}

/// A load has just begun for so long.
const FRESH: Span = Span::from_seconds(1);

/// Share of the work that waits for memory at the reference clock.
const MEMORY_BOUND: f64 = 0.12;

/// What a sensor may name beside the temperature of each core.
const SOURCES: [&str; 8] =
    ["room", "hottest-core", "cooler", "die-voltage", "power", "reached-clock", "usage", "limited-by"];

/// So many cores may be named whatever the processor has.
const MOST_CORES: usize = 16;

/// One specimen of a processor.
#[derive(Clone, Debug)]
pub(super) struct Processor {
    spec: Spec,
    specimen: Specimen,
    driven: Driven,
    electrics: Electrics,
    /// The clock that is reached, relative to the one that is set.
    reached: f64,
    working: Option<Working>,
}

/// What the settings come to.
#[derive(Clone, Debug, PartialEq)]
struct Driven {
    /// The clock that is set for each core, MHz.
    clocks: Vec<f64>,
    /// The mean of those.
    clock: f64,
    /// The voltage that is set, V.
    voltage: f64,
    /// The power above which the clock is taken back, W.
    power_limit: f64,
}

/// A load that runs on it.
#[derive(Clone, Debug)]
struct Working {
    strain: Strain,
    busy: usize,
    ran: Span,
    throttled: Span,
}

impl Processor {
    /// The specimen that this seed makes, at rest with this rung.
    pub(super) fn new(spec: Spec, seed: u64, rung: &Rung) -> Self {
        Self {
            specimen: Specimen::new(&spec, seed),
            driven: Driven::by(&spec, rung),
            electrics: Electrics::at_rest(&spec),
            reached: 1.0,
            working: None,
            spec,
        }
    }

    /// The least margin of any core when nothing runs, V.
    fn idle_margin(&self) -> f64 {
        let die = self.electrics.network.die;
        let needs = |core| self.specimen.needs(core, self.driven.clocks[core], die, IDLE_RELIEF);
        let hungriest = (0..self.specimen.core_count()).map(needs).fold(0.0, f64::max);
        self.driven.voltage - hungriest
    }

    /// The margin of a core that works, V.
    fn margin(&self, core: usize, strain: &Strain) -> f64 {
        let clock = self.driven.clocks[core] * self.reached;
        let temperature = self.electrics.core(core, self.spec.cores);
        self.electrics.voltage - self.specimen.needs(core, clock, temperature, strain.relief)
    }

    /// Lets a tick of heat, power and throttling go by.
    fn heat(&mut self, seconds: f64) {
        let (busy, heat, is_fresh) = match &self.working {
            Some(working) => (working.busy, working.strain.heat, working.ran < FRESH),
            None => (0, 0.0, false),
        };
        let demand = Demand {
            clock: self.driven.clock * self.reached,
            voltage: self.driven.voltage,
            busy,
            heat,
            undershoot: if is_fresh { self.spec.power.undershoot } else { 0.0 },
        };
        self.electrics.advance(&self.spec, demand, seconds);
        let limited = self.limit().is_some();
        self.reached = if limited { self.reached * 0.99 } else { (self.reached * 1.004).min(1.0) };
    }

    /// What takes the clock back, where something does.
    fn limit(&self) -> Option<Limit> {
        let Electrics { power, voltage, .. } = self.electrics;
        if self.electrics.hottest(self.spec.cores) > self.spec.cooling.limit {
            Some(Limit::Temperature)
        } else if power > self.driven.power_limit {
            Some(Limit::Power)
        } else if power / voltage > self.spec.power.current_limit {
            Some(Limit::Current)
        } else {
            None
        }
    }

    /// Why it counts as throttled, where it has been for long enough.
    fn throttled(&mut self) -> Option<String> {
        let (least, longest) = THROTTLED;
        let working = self.working.as_mut()?;
        working.throttled = if self.reached < least { working.throttled + TICK } else { Span::ZERO };
        (working.throttled >= longest).then(|| {
            format!(
                "reached {:.0} MHz of {:.0} MHz: {}",
                self.driven.clock * self.reached,
                self.driven.clock,
                self.limit().unwrap_or(Limit::Temperature).name()
            )
        })
    }

    fn strained(&self, core: usize, strain: &Strain) -> Strained {
        let reference = self.spec.silicon.reference_clock;
        let relative = self.driven.clocks[core] * self.reached / reference;
        let useful = relative.min(strain.levels_off);
        let gain = useful / (1.0 - MEMORY_BOUND + MEMORY_BOUND * useful);
        Strained {
            hazard: self.specimen.hazard(self.margin(core, strain)),
            work: gain * reference / 1000.0 * strain.work,
        }
    }
}

impl Device for Processor {
    fn settings(&self) -> Vec<&str> {
        let clocks = self.spec.clocks.iter();
        clocks.chain([&self.spec.voltage]).chain(&self.spec.power_limit).map(String::as_str).collect()
    }

    fn loads(&self) -> Vec<&'static str> {
        LOADS.iter().map(|(name, _)| *name).collect()
    }

    fn sources(&self) -> Vec<String> {
        let cores = (0..self.spec.cores.max(MOST_CORES)).map(|core| format!("core-{core}"));
        SOURCES.into_iter().map(str::to_owned).chain(cores).collect()
    }

    fn set(&mut self, rung: &Rung) {
        self.driven = Driven::by(&self.spec, rung);
    }

    fn is_alive(&self) -> bool {
        self.idle_margin() >= DEAD_AT_IDLE
    }

    fn work(&mut self, work: Option<Work>) -> Option<&'static str> {
        let strain = work.as_ref().and_then(|work| strain(work.load));
        self.working = work.zip(strain).map(|(work, strain)| Working {
            strain,
            busy: match work.threads {
                Threads::All | Threads::Each => self.spec.cores,
                Threads::Count(count) => self.spec.cores.min(count as usize),
            },
            ran: Span::ZERO,
            throttled: Span::ZERO,
        });
        strain.map(|strain| strain.unit)
    }

    fn clocks(&self) -> Vec<f64> {
        let busy = self.working.as_ref().map_or(0, |working| working.busy);
        self.driven.clocks[..busy].to_vec()
    }

    fn reached(&self) -> f64 {
        self.reached
    }

    fn tick(&mut self, seconds: f64, parts: &mut Vec<Strained>) -> Option<String> {
        if let Some(working) = &mut self.working {
            working.ran += TICK;
        }
        self.heat(seconds);
        let throttled = self.throttled();
        if let Some(Working { strain, busy, .. }) = &self.working {
            parts.extend((0..*busy).map(|core| self.strained(core, strain)));
        }
        throttled
    }

    fn reading(&self, source: &str, noise: f64) -> Option<f64> {
        let (cores, electrics) = (self.spec.cores, &self.electrics);
        Some(match source {
            "room" => self.spec.room + 0.1 * noise,
            "hottest-core" => electrics.hottest(cores) + 0.3 * noise,
            "cooler" => electrics.network.cooler + 0.2 * noise,
            "die-voltage" => electrics.voltage + 0.001 * noise,
            "power" => electrics.power + 0.8 * noise,
            "reached-clock" => self.driven.clock * self.reached + 0.7 * noise,
            "limited-by" => self.limit().map_or(0.0, Limit::number),
            "usage" => 100.0 * self.clocks().len() as f64 / cores as f64,
            _ => {
                let core: usize = source.strip_prefix("core-")?.parse().ok()?;
                let tilt = if core == 0 { self.spec.cooling.tilt } else { 0.0 };
                electrics.core(core, cores) + tilt + 0.3 * noise
            }
        })
    }

    fn failure(&self, part: usize, random: &mut Stream) -> Incident {
        let margin = self.working.as_ref().map_or(0.0, |working| self.margin(part, &working.strain));
        failure(part, margin, random)
    }

    fn starts_anew(&mut self, _random: &mut Stream) -> Option<Incident> {
        self.reached = 1.0;
        None
    }

    fn voltage(&self) -> Option<f64> {
        Some(self.electrics.voltage)
    }

    fn copy(&self) -> Box<dyn Device> {
        Box::new(self.clone())
    }
}

impl Driven {
    /// What a rung sets: each group of cores has the clock of its setting.
    fn by(spec: &Spec, rung: &Rung) -> Self {
        let of = |setting: &String| rung.get(setting).map_or(0.0, to_float);
        let groups: Vec<f64> = spec.clocks.iter().map(of).collect();
        let clocks: Vec<f64> = (0..spec.cores).map(|core| groups[core * groups.len() / spec.cores]).collect();
        Self {
            clock: clocks.iter().sum::<f64>() / clocks.len() as f64,
            clocks,
            voltage: of(&spec.voltage),
            power_limit: spec.power_limit.as_ref().map_or(spec.power.limit, of),
        }
    }
}
