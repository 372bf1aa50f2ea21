//! The curve of a graphics card: what clock each voltage is good for, and which point it sits at.

/// The voltages of the points, mV: from the first to the last in steps of this.
pub(super) const VOLTAGES: (u32, u32, f64) = (640, 1040, 12.5);

/// The clock falls by one step for each so many degrees from here on: °C, K, MHz.
const WARM: (f64, f64, f64) = (42.0, 6.0, 12.0);

/// What keeps a card from a higher point.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Limit {
    Power,
    Temperature,
    Voltage,
    Load,
}

impl Limit {
    /// By the number that a driver has for it.
    pub(super) fn number(self) -> f64 {
        match self {
            Self::Load => 0.0,
            Self::Voltage => 1.0,
            Self::Power => 2.0,
            Self::Temperature => 3.0,
        }
    }
}

/// The point that a card sits at.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Point {
    /// V.
    pub(super) voltage: f64,
    /// MHz.
    pub(super) clock: f64,
    pub(super) limit: Limit,
}

/// What decides about the point.
#[derive(Clone, Copy, Debug)]
pub(super) struct Asked {
    /// The clock at the lowest point, and what the curve gains to its highest, MHz.
    pub(super) curve: [f64; 2],
    /// What lifts all of it, MHz.
    pub(super) offset: f64,
    /// °C.
    pub(super) die: f64,
    /// The temperature at which it takes back more, °C.
    pub(super) hottest: f64,
    /// W.
    pub(super) power_limit: f64,
}

/// The highest point whose power stays below the limit; `power` tells that of a voltage in V and a clock in MHz.
pub(super) fn sit(asked: Asked, power: impl Fn(f64, f64) -> f64) -> Point {
    let (first, last, step) = VOLTAGES;
    let count = (f64::from(last - first) / step) as u32;
    let (from, each, lost) = WARM;
    let warm = ((asked.die - from) / each).floor().max(0.0) * lost;
    // Beyond its hottest it gives up points, one for each degree.
    let given_up = (asked.die - asked.hottest).ceil().clamp(0.0, f64::from(count)) as u32;
    let at = |nth: u32| {
        let left = 1.0 - f64::from(nth) / f64::from(count);
        // More voltage gains less and less.
        let gained = asked.curve[1] * (1.0 - left * left.sqrt());
        let clock = (asked.curve[0] + gained + asked.offset - warm).max(300.0);
        (f64::from(first) / 1000.0 + step * f64::from(nth) / 1000.0, clock)
    };
    let top = count - given_up;
    let fits = |nth: &u32| {
        let (voltage, clock) = at(*nth);
        power(voltage, clock) <= asked.power_limit
    };
    let sits = (0..=top).rev().find(fits).unwrap_or(0);
    let limit = match () {
        () if sits < top => Limit::Power,
        () if given_up > 0 => Limit::Temperature,
        () => Limit::Voltage,
    };
    let (voltage, clock) = at(sits);
    Point { voltage, clock, limit }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const ASKED: Asked = Asked { curve: [1020.0, 1180.0], offset: 0.0, die: 50.0, hottest: 83.0, power_limit: 200.0 };

    fn power(voltage: f64, clock: f64) -> f64 {
        0.09 * voltage * voltage * clock + 20.0
    }

    #[test]
    fn what_limits_is_told() {
        assert_eq!(sit(Asked { power_limit: 1000.0, ..ASKED }, power).limit, Limit::Voltage);
        assert_eq!(sit(Asked { power_limit: 120.0, ..ASKED }, power).limit, Limit::Power);
        let hot = sit(Asked { power_limit: 1000.0, die: 90.0, ..ASKED }, power);
        assert_eq!(hot.limit, Limit::Temperature);
        assert!(hot.voltage < 1.04);
    }

    proptest! {
        #[test]
        fn it_sits_below_its_limits(offset in -200.0f64..300.0, die in 20.0f64..95.0, limit in 60.0f64..300.0) {
            let asked = Asked { offset, die, power_limit: limit, ..ASKED };
            let point = sit(asked, power);
            prop_assert!(point.voltage <= 0.64 + 1e-9 || power(point.voltage, point.clock) <= limit);
            prop_assert!((0.639..1.041).contains(&point.voltage));
            let warmer = sit(Asked { die: die + 12.0, ..asked }, power);
            let less = sit(Asked { power_limit: limit - 20.0, ..asked }, power);
            prop_assert!(less.clock <= point.clock && less.voltage <= point.voltage);
            prop_assert!(warmer.clock <= point.clock || warmer.voltage > point.voltage);
        }
    }
}
