//! What the settings of memory come to.

use periculum_core::Decimal;
use periculum_core::model::rung::Rung;

use super::Spec;
use crate::simulated::numbers::to_float;

/// With two modules on a channel the controller reaches this share of its rate.
const TWO_A_CHANNEL: f64 = 0.80;

/// With two kits on one channel, and with a kit on each channel.
const MIXED: f64 = 0.93;
const EACH_ITS_KIT: f64 = 0.96;

/// More modules want so much more controller voltage each, V.
const WANTS_MORE: f64 = 0.008;

/// Slots of a channel.
const OF_CHANNEL: usize = 2;

/// The settings as numbers.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Driven {
    /// MT/s.
    pub(super) rate: f64,
    /// In clocks, as the board makes them.
    pub(super) timings: [f64; 3],
    /// The column access that was asked for.
    pub(super) asked_cl: Option<Decimal>,
    pub(super) command_rate: f64,
    /// V.
    pub(super) voltage: f64,
    /// How much more time timings need for that, as a factor.
    pub(super) swing: f64,
    /// V, as asked for.
    pub(super) controller: f64,
    /// The kit in each slot; 0 where it is empty.
    slots: Vec<u8>,
}

impl Driven {
    pub(super) fn by(spec: &Spec, rung: &Rung) -> Self {
        let of = |setting: &String| rung.get(setting).map_or(1.0, to_float);
        let command_rate = spec.command_rate.as_ref().map_or(1.0, of);
        let voltage = of(&spec.voltage);
        let timings = spec.timings.each_ref().map(of);
        let is_rounded = spec.rounds && command_rate < 2.0 && timings[0] % 2.0 == 1.0;
        let kit = |setting: &String| if of(setting) >= 2.0 { 2 } else { of(setting) as u8 };
        let slots: Vec<u8> = spec.slots.iter().map(kit).collect();
        Self {
            rate: of(&spec.rate).max(1.0),
            timings: if is_rounded { [timings[0] + 1.0, timings[1], timings[2]] } else { timings },
            asked_cl: rung.get(&spec.timings[0]),
            command_rate,
            voltage,
            swing: (spec.usual / voltage.max(0.1)).powf(0.6),
            controller: of(&spec.controller),
            // A rig without slots has two modules that nobody moves, one a channel.
            slots: if slots.is_empty() { vec![1, 0, 1, 0] } else { slots },
        }
    }

    /// The slots that have a module.
    pub(super) fn slots(&self) -> impl Iterator<Item = usize> + '_ {
        (0..self.slots.len().min(4)).filter(|slot| self.slots[*slot] > 0)
    }

    fn on_channels(&self) -> impl Iterator<Item = &[u8]> {
        self.slots.chunks(OF_CHANNEL).filter(|slots| slots.iter().any(|kit| *kit > 0))
    }

    /// How many channels have a module.
    pub(super) fn channels(&self) -> usize {
        self.on_channels().count()
    }

    /// The share of its rate that the controller reaches with what is in the slots.
    pub(super) fn population(&self) -> f64 {
        let is_full = |slots: &[u8]| slots.iter().filter(|kit| **kit > 0).count() == OF_CHANNEL;
        let is_mixed = |slots: &[u8]| is_full(slots) && slots[0] != slots[1];
        let kits: Vec<u8> = self.on_channels().flatten().copied().filter(|kit| *kit > 0).collect();
        let full = if self.on_channels().any(is_full) { TWO_A_CHANNEL } else { 1.0 };
        let mixed = match () {
            () if self.on_channels().any(is_mixed) => MIXED,
            () if kits.windows(2).any(|pair| pair[0] != pair[1]) => EACH_ITS_KIT,
            () => 1.0,
        };
        full * mixed
    }

    /// How much more voltage the controller wants for what is in the slots, V.
    pub(super) fn wants_more(&self) -> f64 {
        WANTS_MORE * self.slots().count().saturating_sub(OF_CHANNEL) as f64
    }
}
