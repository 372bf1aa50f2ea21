//! Every kind of device that a rig can be made of.

mod bus;
pub mod processor;

use bus::Bus;
use periculum_core::files::Section;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;
use processor::Processor;

use crate::simulated::device::Device;

/// What a device is.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Kind {
    Processor(processor::Spec),
    Bus(bus::Spec),
}

/// Each by the word that a file has for it.
pub(super) const KINDS: [(&str, Read); 2] = [
    ("processor", |section, rig, room| processor::Spec::read(section, rig, room).map(Kind::Processor)),
    ("bus", |section, rig, room| bus::Spec::read(section, rig, room).map(Kind::Bus)),
];

pub(super) type Read = fn(&Section, &Rig, f64) -> Option<Kind>;

impl Kind {
    /// The specimen of this seed, at rest with this rung.
    pub(super) fn specimen(&self, seed: u64, rung: &Rung) -> Box<dyn Device> {
        match self {
            Self::Processor(spec) => Box::new(Processor::new(spec.clone(), seed, rung)),
            Self::Bus(spec) => Box::new(Bus::new(spec.clone(), seed, rung)),
        }
    }
}
