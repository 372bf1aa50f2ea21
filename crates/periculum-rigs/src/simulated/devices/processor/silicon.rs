//! One specimen of a processor: what each core needs, and how likely it fails with what it gets.

use super::spec::{Silicon, Spec};
use crate::simulated::random::{Purpose, Stream};

/// A load as the silicon feels it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Strain {
    /// Voltage needed less than under `dense`, the hardest load, V.
    pub(super) relief: f64,
    /// Switched power relative to that of `dense`.
    pub(super) heat: f64,
    /// Work per second of one core at 1 GHz, in the load's unit.
    pub(super) work: f64,
    /// The unit of that work.
    pub(super) unit: &'static str,
    /// The clock, relative to the reference clock, from which on memory gives no more, so that the work levels off.
    pub(super) levels_off: f64,
}

/// The loads that a simulated processor can run.
pub(super) const LOADS: [(&str, Strain); 7] = [
    ("dense", Strain { relief: 0.0, heat: 1.0, work: 13.6, unit: "GFLOP/s", levels_off: f64::INFINITY }),
    ("product", Strain { relief: 0.004, heat: 1.07, work: 19.4, unit: "GFLOP/s", levels_off: f64::INFINITY }),
    ("transform", Strain { relief: 0.008, heat: 0.93, work: 4.1, unit: "GFLOP/s", levels_off: f64::INFINITY }),
    ("integer", Strain { relief: 0.024, heat: 0.72, work: 0.19, unit: "GB/s", levels_off: f64::INFINITY }),
    ("division", Strain { relief: 0.028, heat: 0.6, work: 0.61, unit: "Mpairs/s", levels_off: f64::INFINITY }),
    ("render", Strain { relief: 0.03, heat: 0.8, work: 0.33, unit: "Mray/s", levels_off: f64::INFINITY }),
    ("bandwidth-copy", Strain { relief: 0.034, heat: 0.55, work: 1.21, unit: "GB/s", levels_off: 1.075 }),
];

/// How a load of this name strains the silicon.
pub(super) fn strain(load: &str) -> Option<Strain> {
    LOADS.iter().find(|(name, _)| *name == load).map(|(_, strain)| *strain)
}

/// One specimen: its cores, each with needs of its own.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Specimen {
    silicon: Silicon,
    cores: Vec<Core>,
}

#[derive(Clone, Copy, Debug, PartialEq)]
struct Core {
    needs: f64,
    slope: f64,
    curve: f64,
}

impl Specimen {
    /// The specimen that this seed makes.
    pub(super) fn new(spec: &Spec, seed: u64) -> Self {
        let mut random = Stream::new(seed, Purpose::Specimen);
        let silicon = &spec.silicon;
        let shared_needs = silicon.needs + silicon.aged + silicon.specimen_spread * random.normal();
        let shared_slope = silicon.slope * (1.0 + 0.04 * random.normal());
        let cores = (0..spec.cores).map(|_| Core {
            needs: shared_needs + silicon.core_spread * random.normal(),
            slope: shared_slope * (1.0 + 0.015 * random.normal()),
            curve: silicon.curve * (1.0 + 0.02 * random.normal()),
        });
        Self { cores: cores.collect(), silicon: silicon.clone() }
    }

    /// The voltage that a core needs at a clock in MHz and a temperature in °C, V.
    pub(super) fn needs(&self, core: usize, clock: f64, temperature: f64, relief: f64) -> f64 {
        let Core { needs, slope, curve } = self.cores[core];
        let x = clock / self.silicon.reference_clock - 1.0;
        needs + slope * x + curve * x * x + self.silicon.per_degree * (temperature - 60.0) - relief
    }

    /// Failures of one core in a second at a margin in V, by the law of its silicon.
    pub(super) fn hazard(&self, margin: f64) -> f64 {
        let Silicon { law, hazard, width, .. } = self.silicon;
        hazard * law.share(margin / width) + law.background() / self.cores.len() as f64
    }

    pub(super) fn core_count(&self) -> usize {
        self.cores.len()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn more_clock_or_heat_needs_more_voltage(seed in any::<u64>(), clock in 3800f64..5600.0, degrees in 20f64..100.0) {
            let specimen = Specimen::new(&Spec::desktop(), seed);
            for core in 0..specimen.core_count() {
                let needs = specimen.needs(core, clock, degrees, 0.0);
                prop_assert!(specimen.needs(core, clock + 25.0, degrees, 0.0) > needs);
                prop_assert!(specimen.needs(core, clock, degrees + 1.0, 0.0) > needs);
                prop_assert!(specimen.needs(core, clock, degrees, 0.01) < needs);
            }
        }

        #[test]
        fn less_margin_is_more_hazard(margin in -0.2f64..0.2) {
            let specimen = Specimen::new(&Spec::desktop(), 1);
            prop_assert!(specimen.hazard(margin - 0.001) > specimen.hazard(margin));
        }
    }

    #[test]
    fn specimens_and_cores_differ() {
        let needs = |seed, core| Specimen::new(&Spec::desktop(), seed).needs(core, 4200.0, 60.0, 0.0);
        assert_ne!(needs(1, 0), needs(2, 0));
        assert_ne!(needs(1, 0), needs(1, 1));
        assert_eq!(needs(1, 0), needs(1, 0));
    }
}
