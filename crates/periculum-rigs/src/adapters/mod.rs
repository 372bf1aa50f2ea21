//! What a rig file says of the adapters that serve it: read, and held against each setting and sensor. Nothing outside of here
//! knows their names.

mod beside;
mod sensors;
mod settings;

use periculum_core::files::Section;
use periculum_core::model::moment::Moment;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::InForce;
use periculum_core::model::task::Task;

pub use beside::Beside;

use crate::bench::Bench;
use crate::elsewhere::Elsewhere;
use crate::linux::Linux;
use crate::simulated::{Simulator, Spec, Truth};
use crate::steady::SteadyClock;

/// Where a rig is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Place {
    /// It is the machine that this runs on.
    Here,
    /// It is simulated.
    Simulated,
    /// It is another machine, with people at it.
    Elsewhere,
}

/// The name that rig files have for simulated hardware.
const SIMULATED: &str = "simulated";

/// What serves a rig: simulated hardware on a virtual clock, the machine this runs on and whoever stands at it, or people at
/// another machine.
#[derive(Clone, Debug, PartialEq)]
pub struct Adapters {
    simulated: Option<Spec>,
    is_elsewhere: bool,
}

impl Adapters {
    /// Reads `[adapter]` of a rig file, and checks that every setting and sensor has an adapter that serves it; problems go
    /// where the section's problems go. None where it can't be read.
    pub fn read(top: &Section, rig: &Rig) -> Option<Self> {
        let sections = top.optional_section("adapter");
        let section = sections.as_ref().and_then(|sections| sections.optional_section(SIMULATED));
        let is_meant = section.is_some();
        let simulated = section.and_then(|section| Spec::read(section, rig));
        if let Some(sections) = sections {
            sections.finish();
        }
        if is_meant && simulated.is_none() {
            return None;
        }
        let adapters = Self { simulated, is_elsewhere: rig.is_elsewhere() };
        if adapters.is_simulated() && rig.is_elsewhere() {
            top.problems().advise(top.at(), "a simulated rig is nowhere else than here", "leave `where` out");
        }
        settings::check(top, rig, adapters.place());
        sensors::check(top, adapters.place(), adapters.simulated.as_ref());
        Some(adapters)
    }

    /// Whether the rig is simulated, so that nothing of this machine is set, loaded or held by it.
    pub fn is_simulated(&self) -> bool {
        self.simulated.is_some()
    }

    /// Whether the rig is the machine that this runs on, so that something of it is set, loaded or held.
    pub fn is_here(&self) -> bool {
        self.place() == Place::Here
    }

    fn place(&self) -> Place {
        match (&self.simulated, self.is_elsewhere) {
            (Some(_), _) => Place::Simulated,
            (None, true) => Place::Elsewhere,
            (None, false) => Place::Here,
        }
    }

    /// The loads that the rig runs by itself; none where it runs those of this machine.
    pub fn loads(&self) -> Option<Vec<&'static str>> {
        match self.place() {
            Place::Simulated => self.simulated.as_ref().map(Spec::loads),
            Place::Elsewhere => Some(Vec::new()),
            Place::Here => None,
        }
    }

    /// The tests that somebody has to start on the rig and to read, where it is known what they say.
    pub fn tests(&self) -> Vec<(&'static str, Task)> {
        self.simulated.as_ref().map(Spec::tests).unwrap_or_default()
    }

    /// The bench of a rig that is another machine, by this clock; none where it is this one or simulated.
    pub fn elsewhere(&self, rig: &Rig, clock: SteadyClock, linux: &Linux) -> Option<Box<dyn Bench>> {
        let is_elsewhere = self.place() == Place::Elsewhere;
        is_elsewhere.then(|| Box::new(Beside::elsewhere(Box::new(Elsewhere::new(clock)), rig, linux)) as Box<dyn Bench>)
    }

    /// The specimen of this seed, or else the usual one; none where the rig is what it is.
    pub fn specimen(&self, seed: Option<u64>) -> Option<u64> {
        self.simulated.as_ref().map(|spec| seed.unwrap_or(spec.seed))
    }

    /// The bench of the specimen of this seed at this moment, with this in force of what outlives a start, driven in the running
    /// boot of this machine; none where the rig is this machine.
    pub fn simulator(
        &self,
        rig: &Rig,
        seed: Option<u64>,
        (now, in_force): (Moment, &InForce),
        linux: &Linux,
    ) -> Option<Box<dyn Bench>> {
        let (spec, seed) = self.simulated.as_ref().zip(self.specimen(seed))?;
        let simulator = Simulator::new(spec, rig, seed, now).with_lasting(in_force).in_boot(linux.boot());
        Some(Box::new(Beside::simulator(Box::new(simulator), rig, linux)))
    }

    /// The truth about the specimen of this seed; none where nobody knows it.
    pub fn truth<'a>(&'a self, rig: &'a Rig, seed: Option<u64>) -> Option<Truth<'a>> {
        let (spec, seed) = self.simulated.as_ref().zip(self.specimen(seed))?;
        Some(Truth::of(rig, spec, seed))
    }
}
