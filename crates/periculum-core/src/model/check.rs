//! What says by itself that a change is well.

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

/// A sensor whose reading says that a change is well, so that nobody has to.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Check {
    /// The sensor's name.
    pub sensor: String,
    /// The least that it reads where all is well, in its unit; anything where there is none.
    pub at_least: Option<Decimal>,
    /// The most that it reads where all is well, in its unit; anything where there is none.
    pub at_most: Option<Decimal>,
}

impl Check {
    /// Whether a reading says that all is well.
    pub fn is_met(&self, reading: f64) -> bool {
        let bound = |bound: Option<Decimal>, otherwise: f64| bound.and_then(|it| it.to_f64()).unwrap_or(otherwise);
        (bound(self.at_least, f64::NEG_INFINITY)..=bound(self.at_most, f64::INFINITY)).contains(&reading)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_reading_within_its_bounds_says_so_and_no_other() {
        let check = |at_least: Option<i64>, at_most: Option<i64>| Check {
            sensor: "frames".into(),
            at_least: at_least.map(Decimal::from),
            at_most: at_most.map(Decimal::from),
        };
        assert!(check(Some(24), None).is_met(24.0) && !check(Some(24), None).is_met(23.9));
        assert!(check(None, Some(1)).is_met(-3.0) && !check(None, Some(1)).is_met(1.1));
        assert!(check(Some(1), Some(2)).is_met(1.5) && !check(Some(1), Some(2)).is_met(f64::NAN));
    }
}
