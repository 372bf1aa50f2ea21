//! Sensors that hang on a rig beside those that its bench reads by itself: instruments, and this machine's where the rig is a
//! simulated one.

use periculum_core::model::ending::Boot;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::rig::{Rig, Sensor};

use crate::bench::{Bench, BenchEvent, Number, Order, Remains};
use crate::latest::Latest;
use crate::linux::{self, Linux, Sampler};
use crate::scpi::Instruments;

/// A bench with sensors beside it.
pub struct Beside {
    bench: Box<dyn Bench>,
    instruments: Instruments,
    kernel: Option<(Sampler, Latest)>,
}

impl Beside {
    /// The bench with the instruments of its rig.
    pub fn instruments(bench: Box<dyn Bench>, rig: &Rig) -> Self {
        Self { bench, instruments: Instruments::start(&rig.sensors), kernel: None }
    }

    /// The same with the sensors of this machine that the rig names.
    #[must_use]
    pub fn and_kernel(self, linux: &Linux, rig: &Rig) -> Self {
        let of_kernel = rig.sensors.iter().filter(|sensor| sensor.adapter == linux::ADAPTER).cloned();
        let sensors: Vec<Sensor> = of_kernel.collect();
        let latest = Latest::default();
        let kernel = (!sensors.is_empty()).then(|| (Sampler::start(linux, &sensors, &latest), latest));
        Self { kernel, ..self }
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
            let of_kernel = self.kernel.iter().map(|(_, latest)| latest.sensed());
            for beside in of_kernel.chain([self.instruments.sensed()]) {
                sensed.readings.extend(beside.readings);
                sensed.silent.extend(beside.silent);
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
