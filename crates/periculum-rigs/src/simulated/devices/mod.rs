//! Every kind of device that a rig can be made of.

mod board;
mod bus;
mod cold;
mod graphics;
mod memory;
mod panel;
pub mod processor;

use board::Board;
use bus::Bus;
use cold::Cold;
use graphics::Graphics;
use memory::Memory;
use panel::Panel;
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
    Memory(memory::Spec),
    Graphics(graphics::Spec),
    Board(board::Spec),
    Cold(cold::Spec),
    Panel(panel::Spec),
}

/// Each by the word that a file has for it.
pub(super) const KINDS: [(&str, Read); 7] = [
    ("processor", |section, rig, room| processor::Spec::read(section, rig, room).map(Kind::Processor)),
    ("bus", |section, rig, room| bus::Spec::read(section, rig, room).map(Kind::Bus)),
    ("memory", |section, rig, room| memory::Spec::read(section, rig, room).map(Kind::Memory)),
    ("graphics", |section, rig, room| graphics::Spec::read(section, rig, room).map(Kind::Graphics)),
    ("board", |section, rig, room| board::Spec::read(section, rig, room).map(Kind::Board)),
    ("cold", |section, rig, room| cold::Spec::read(section, rig, room).map(Kind::Cold)),
    ("panel", |section, rig, room| panel::Spec::read(section, rig, room).map(Kind::Panel)),
];

pub(super) type Read = fn(&Section, &Rig, f64) -> Option<Kind>;

impl Kind {
    /// The specimen of this seed, at rest with this rung.
    pub(super) fn specimen(&self, seed: u64, rung: &Rung) -> Box<dyn Device> {
        match self {
            Self::Processor(spec) => Box::new(Processor::new(spec.clone(), seed, rung)),
            Self::Bus(spec) => Box::new(Bus::new(spec.clone(), seed, rung)),
            Self::Graphics(spec) => Box::new(Graphics::new(spec.clone(), seed, rung)),
            Self::Board(spec) => Box::new(Board::new(spec.clone(), seed, rung)),
            Self::Cold(spec) => Box::new(Cold::new(spec.clone(), seed, rung)),
            Self::Panel(spec) => Box::new(Panel::new(spec.clone(), seed, rung)),
            Self::Memory(spec) => Box::new(Memory::new(spec.clone(), seed, rung)),
        }
    }
}
