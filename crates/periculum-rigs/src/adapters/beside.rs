//! Sensors that hang on a rig beside those that its bench reads by itself: instruments, and this machine's where the rig is a
//! simulated one.

use periculum_core::model::ending::Boot;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::rig::Rig;

use super::sensors::{Senses, beside};
use crate::bench::{Bench, BenchEvent, Number, Order, Remains};
use crate::linux::{self, Linux};

/// A bench with sensors beside it.
pub struct Beside {
    bench: Box<dyn Bench>,
    others: Vec<Box<dyn Senses>>,
}

impl Beside {
    /// A simulated rig with the instruments of its rig file, and those sensors of this machine that it names.
    pub fn simulator(bench: Box<dyn Bench>, rig: &Rig, linux: &Linux) -> Self {
        Self { bench, others: beside(rig, &[], linux) }
    }

    /// People at another machine with the instruments of its rig file.
    pub fn elsewhere(bench: Box<dyn Bench>, rig: &Rig, linux: &Linux) -> Self {
        Self { bench, others: beside(rig, &[], linux) }
    }

    /// This machine with the instruments of its rig file.
    pub fn machine(bench: Box<dyn Bench>, rig: &Rig, linux: &Linux) -> Self {
        Self { bench, others: beside(rig, &[linux::ADAPTER], linux) }
    }
}

impl Bench for Beside {
    fn order(&mut self, number: Number, order: Order) {
        self.bench.order(number, order);
    }

    fn events(&mut self, at_most: Span) -> Vec<BenchEvent> {
        let mut events = self.bench.events(at_most);
        for event in &mut events {
            let BenchEvent::Sensed(sensed) = event else { continue };
            for other in self.others.iter().map(|other| other.sensed()) {
                sensed.readings.extend(other.readings);
                sensed.silent.extend(other.silent);
            }
        }
        events
    }

    fn now(&self) -> Moment {
        self.bench.now()
    }

    fn is_virtual(&self) -> bool {
        self.bench.is_virtual()
    }

    fn identity(&self) -> Boot {
        self.bench.identity()
    }

    fn remains(&self, last_heard_of: Moment) -> Remains {
        self.bench.remains(last_heard_of)
    }

    fn late(&self) -> Span {
        self.bench.late()
    }

    fn guard(&mut self, is_on_trial: bool) {
        self.bench.guard(is_on_trial);
    }
}
