//! Power, current and voltage of a simulated processor, and how warm that makes it.

use super::spec::Spec;
use crate::simulated::thermal::Network;

/// What the processor takes, and how hot it is.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Electrics {
    /// Die and cooler.
    pub(super) network: Network,
    /// Power taken, W.
    pub(super) power: f64,
    /// Voltage at the die, V.
    pub(super) voltage: f64,
    /// Heat of each core above the die, K.
    core_rise: f64,
}

/// What the processor is asked to do for a moment.
#[derive(Clone, Copy, Debug)]
pub(super) struct Demand {
    /// Clock, MHz.
    pub(super) clock: f64,
    /// Voltage that is set, V.
    pub(super) voltage: f64,
    /// How many cores are busy.
    pub(super) busy: usize,
    /// Switched power relative to the hardest load; a little even when idle.
    pub(super) heat: f64,
    /// Extra undershoot of a load that has just begun, V.
    pub(super) undershoot: f64,
}

/// What an idle core switches, relative to a busy one.
const IDLE_HEAT: f64 = 0.04;

impl Electrics {
    /// A processor that has been idle for long.
    pub(super) fn at_rest(spec: &Spec) -> Self {
        Self { network: Network::at_rest(spec.room), power: 12.0, voltage: 0.0, core_rise: 0.0 }
    }

    /// Lets some seconds go by under a demand.
    pub(super) fn advance(&mut self, spec: &Spec, demand: Demand, seconds: f64) {
        let (power, cooling) = (&spec.power, &spec.cooling);
        let current = self.power / demand.voltage;
        self.voltage = demand.voltage - power.load_line * current - demand.undershoot;
        let switched_per_core = power.switched * self.voltage * self.voltage * demand.clock / 1000.0;
        let idle = spec.cores - demand.busy;
        let active = demand.busy as f64 * demand.heat + idle as f64 * IDLE_HEAT;
        let leakage = power.leakage * self.voltage * (power.leakage_growth * (self.network.die - 60.0)).exp();
        self.power = switched_per_core * active + leakage * spec.cores as f64;
        self.core_rise = if demand.busy > 0 { cooling.core * switched_per_core * demand.heat } else { 0.0 };
        self.network.advance(cooling, spec.room, self.power, seconds);
    }

    /// Temperature of a busy core, °C: those in the middle of the die run a little hotter.
    pub(super) fn core(&self, core: usize, cores: usize) -> f64 {
        let from_middle = (core as f64 + 0.5) / cores as f64 - 0.5;
        self.network.die + self.core_rise * (1.08 - 0.5 * from_middle.abs())
    }

    /// Temperature of the hottest core, °C.
    pub(super) fn hottest(&self, cores: usize) -> f64 {
        (0..cores).map(|core| self.core(core, cores)).fold(self.network.die, f64::max)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn settled(clock: f64, voltage: f64, busy: usize) -> Electrics {
        let spec = Spec::desktop();
        let mut electrics = Electrics::at_rest(&spec);
        for _ in 0..4000 {
            electrics.advance(&spec, Demand { clock, voltage, busy, heat: 1.0, undershoot: 0.0 }, 0.25);
        }
        electrics
    }

    #[test]
    fn a_loaded_desktop_processor_has_plausible_figures() {
        let electrics = settled(4200.0, 1.25, 8);
        assert!((90.0..160.0).contains(&electrics.power), "{electrics:?}");
        assert!((60.0..85.0).contains(&electrics.hottest(8)), "{electrics:?}");
        assert!((0.02..0.06).contains(&(1.25 - electrics.voltage)), "droop: {electrics:?}");
    }

    #[test]
    fn heat_rises_with_clock_voltage_and_busy_cores() {
        let base = settled(4200.0, 1.20, 4).hottest(8);
        assert!(settled(4600.0, 1.20, 4).hottest(8) > base);
        assert!(settled(4200.0, 1.25, 4).hottest(8) > base);
        assert!(settled(4200.0, 1.20, 8).hottest(8) > base);
        assert!(settled(4200.0, 1.20, 0).hottest(8) < base);
    }
}
