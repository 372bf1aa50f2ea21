//! Where a sensor ends a pass at once: at a number, or at what a formula of the settings says.

use std::fmt;

use rust_decimal::Decimal;

use crate::model::formula::Formula;

/// The reading beyond which a pass is stopped at once, in the sensor's unit.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum CutOff {
    /// The same for every rung.
    At(Decimal),
    /// What the rung makes it: a chip that holds out colder at a higher voltage, or hotter at a lower one.
    By(Formula),
}

impl CutOff {
    /// The reading for these values of the settings; none where the formula has no value for them.
    pub fn at(&self, value: impl Fn(&str) -> Option<Decimal>) -> Option<Decimal> {
        match self {
            Self::At(reading) => Some(*reading),
            Self::By(formula) => formula.value(value).map(|reading| reading.round_dp(DECIMALS).normalize()),
        }
    }
}

/// No sensor reads anything finer, so that no more of a quotient's digits are told.
const DECIMALS: u32 = 6;

impl<T: Into<Decimal>> From<T> for CutOff {
    fn from(reading: T) -> Self {
        Self::At(reading.into())
    }
}

impl fmt::Display for CutOff {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::At(reading) => write!(f, "{reading}"),
            Self::By(formula) => write!(f, "{formula}"),
        }
    }
}
