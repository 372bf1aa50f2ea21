//! The point of its curve that a graphics card sits at, and what keeps it from a higher one.

/// The clock falls by one step for each so many degrees from here on: °C, K, MHz.
const WARM: (f64, f64, f64) = (42.0, 6.0, 12.0);

/// Beyond its hottest it gives up so much voltage for each degree, V.
const GIVEN_UP: f64 = 0.0125;

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

impl Point {
    /// Where a card without work is, V.
    pub(super) fn at_rest(voltage: f64) -> Self {
        Self { voltage, clock: 300.0, limit: Limit::Load }
    }
}

/// What decides about the point.
#[derive(Clone, Copy, Debug)]
pub(super) struct Asked<'a> {
    /// The voltage of each point, V, and the clock that is asked for there, MHz.
    pub(super) points: &'a [(f64, f64)],
    /// °C.
    pub(super) die: f64,
    /// The temperature at which it takes back more, °C.
    pub(super) hottest: f64,
    /// W.
    pub(super) power_limit: f64,
}

/// The highest point whose power stays below the limit, and the lowest voltage that has its clock; `power` tells that of a voltage in
/// V and a clock in MHz.
pub(super) fn sit(asked: Asked, power: impl Fn(f64, f64) -> f64) -> Point {
    let Asked { points, die, hottest, power_limit } = asked;
    let (from, each, lost) = WARM;
    let warm = ((die - from) / each).floor().max(0.0) * lost;
    let at = |(voltage, clock): (f64, f64)| (voltage, (clock - warm).max(300.0));
    let top = points.last().map_or(0.0, |point| point.0);
    let highest = top - (die - hottest).max(0.0) * GIVEN_UP;
    let fits = |nth: &usize| {
        let (voltage, clock) = at(points[*nth]);
        voltage <= highest && power(voltage, clock) <= power_limit
    };
    let sits = (0..points.len()).rev().find(fits).unwrap_or(0);
    // Where the curve is flat, more voltage gains nothing.
    let lowest = points.iter().position(|point| point.1 >= points[sits].1).unwrap_or(sits);
    let limit = match () {
        () if sits + 1 == points.len() || points[sits].1 >= points[points.len() - 1].1 => Limit::Voltage,
        () if points[sits + 1].0 > highest => Limit::Temperature,
        () => Limit::Power,
    };
    let (voltage, clock) = at(points[lowest]);
    Point { voltage, clock, limit }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    /// A curve that gains less and less, shifted by this many MHz.
    fn points(offset: f64) -> Vec<(f64, f64)> {
        let point = |nth: u32| {
            let left = 1.0 - f64::from(nth) / 16.0;
            (0.64 + 0.025 * f64::from(nth), 1020.0 + 1180.0 * (1.0 - left * left.sqrt()) + offset)
        };
        (0..=16).map(point).collect()
    }

    fn asked(points: &[(f64, f64)]) -> Asked<'_> {
        Asked { points, die: 50.0, hottest: 83.0, power_limit: 200.0 }
    }

    fn power(voltage: f64, clock: f64) -> f64 {
        0.09 * voltage * voltage * clock + 20.0
    }

    #[test]
    fn what_limits_is_told() {
        let points = points(0.0);
        assert_eq!(sit(Asked { power_limit: 1000.0, ..asked(&points) }, power).limit, Limit::Voltage);
        assert_eq!(sit(Asked { power_limit: 120.0, ..asked(&points) }, power).limit, Limit::Power);
        let hot = sit(Asked { power_limit: 1000.0, die: 90.0, ..asked(&points) }, power);
        assert_eq!(hot.limit, Limit::Temperature);
        assert!(hot.voltage < 1.04);
    }

    #[test]
    fn a_flat_curve_pins_it() {
        let flat: Vec<(f64, f64)> =
            points(0.0).into_iter().map(|(voltage, clock)| (voltage, clock.min(1800.0))).collect();
        let pinned = sit(Asked { power_limit: 1000.0, ..asked(&flat) }, power);
        assert_eq!(pinned.limit, Limit::Voltage);
        assert!((0.8..0.92).contains(&pinned.voltage) && pinned.clock > 1770.0, "{pinned:?}");
        let free = points(0.0);
        let free = sit(Asked { power_limit: 1000.0, ..asked(&free) }, power);
        assert!(power(pinned.voltage, pinned.clock) < power(free.voltage, free.clock) * 0.75, "{free:?}");
    }

    proptest! {
        #[test]
        fn it_sits_below_its_limits(offset in -200.0f64..300.0, die in 20.0f64..95.0, limit in 60.0f64..300.0) {
            let points = points(offset);
            let asked = Asked { die, power_limit: limit, ..asked(&points) };
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
