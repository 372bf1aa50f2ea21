//! A two-stage thermal network: a device on its cooler in a room.

use periculum_core::files::Section;

use super::numbers::{number_or, positive_or};

/// `[adapter.simulated.cooling]`: die → cooler → room.
#[derive(Clone, Debug, PartialEq)]
pub struct Cooling {
    /// From a core to the die around it, K/W.
    pub core: f64,
    /// From the die to the cooler, K/W.
    pub die: f64,
    /// From the cooler to the room, K/W.
    pub cooler: f64,
    /// How fast the die follows, s.
    pub die_time: f64,
    /// How fast the cooler follows, s.
    pub cooler_time: f64,
    /// Temperature at which the clock is taken back, °C.
    pub limit: f64,
    /// How much hotter the first core is than it should be, where the cooler is mounted badly, K.
    pub tilt: f64,
}

impl Default for Cooling {
    fn default() -> Self {
        Self { core: 0.55, die: 0.12, cooler: 0.16, die_time: 3.0, cooler_time: 70.0, limit: 97.0, tilt: 0.0 }
    }
}

impl Cooling {
    pub(super) fn read(section: Section) -> Self {
        let usual = Self::default();
        let read = Self {
            core: number_or(&section, "core", usual.core),
            die: positive_or(&section, "die", usual.die),
            cooler: positive_or(&section, "cooler", usual.cooler),
            die_time: positive_or(&section, "die_time", usual.die_time),
            cooler_time: positive_or(&section, "cooler_time", usual.cooler_time),
            limit: positive_or(&section, "limit", usual.limit),
            tilt: number_or(&section, "tilt", usual.tilt),
        };
        section.finish();
        read
    }
}

/// How warm a device and its cooler are.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Network {
    /// Temperature of the device, °C.
    pub(super) die: f64,
    /// Temperature of its cooler, °C.
    pub(super) cooler: f64,
    /// How far both go towards their targets in a step of this many seconds.
    pace: (f64, [f64; 2]),
}

impl Network {
    /// One that has been idle for long in a room of this temperature, °C.
    pub(super) fn at_rest(room: f64) -> Self {
        Self { die: room + 8.0, cooler: room + 5.0, pace: (0.0, [0.0; 2]) }
    }

    /// Lets some seconds go by in a room of this temperature in °C, while the device takes this power in W.
    pub(super) fn advance(&mut self, cooling: &Cooling, room: f64, power: f64, seconds: f64) {
        let die_target = self.cooler + cooling.die * power;
        let cooler_target = room + cooling.cooler * power;
        if self.pace.0 != seconds {
            self.pace = (seconds, [cooling.die_time, cooling.cooler_time].map(|time| 1.0 - (-seconds / time).exp()));
        }
        let [of_die, of_cooler] = self.pace.1;
        self.die += (die_target - self.die) * of_die;
        self.cooler += (cooler_target - self.cooler) * of_cooler;
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_network_settles_where_power_and_resistances_say_and_the_cooler_last() {
        let cooling = Cooling::default();
        let mut network = Network::at_rest(21.0);
        for _ in 0..20 {
            network.advance(&cooling, 21.0, 150.0, 0.25);
        }
        let (die, cooler) = (network.die - 29.0, network.cooler - 26.0);
        assert!(die > 8.0 && cooler < 4.0, "the die is quick, the cooler is not: {die} K, {cooler} K");
        for _ in 0..4000 {
            network.advance(&cooling, 21.0, 150.0, 0.25);
        }
        assert!((network.cooler - (21.0 + 150.0 * cooling.cooler)).abs() < 0.1, "{network:?}");
        assert!((network.die - (network.cooler + 150.0 * cooling.die)).abs() < 0.1, "{network:?}");
    }
}
