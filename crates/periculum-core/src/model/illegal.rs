//! Why a rung must not be applied.

use std::fmt;

use rust_decimal::Decimal;

/// Why a rung must not be applied.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub enum Illegal {
    /// A setting has no value.
    #[error("the rung has no value for {setting}")]
    Missing {
        /// The setting's name.
        setting: String,
    },
    /// A value is off the ladder, below the floor or above the ceiling.
    #[error("{setting} = {value} is off its ladder or outside {floor} … {ceiling}")]
    OutOfReach {
        /// The setting's name.
        setting: String,
        /// The value that was asked for.
        value: Decimal,
        /// The smallest value that may be applied.
        floor: Decimal,
        /// The largest value that may be applied for the use.
        ceiling: Decimal,
    },
    /// A value is below the floor that the others leave it.
    #[error("{setting} = {value} is below {floor}, its floor here")]
    BelowFloor {
        /// The setting's name.
        setting: String,
        /// The value that was asked for.
        value: Decimal,
        /// The smallest value that may be applied with those of the other settings.
        floor: Decimal,
    },
    /// What a pass is to be stopped at, or how low a setting may be, can't be calculated.
    #[error("a limit of {of} can't be calculated here")]
    Limitless {
        /// The label of the sensor, or the name of the setting.
        of: String,
    },
    /// A derived value leaves its specification window or can't be calculated.
    #[error("{derived} would be {value}, outside its window {window}")]
    OutsideWindow {
        /// The derived value's name.
        derived: String,
        /// What it would be.
        value: String,
        /// The window.
        window: Window,
    },
}

/// The specification window of a derived value, as people read it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Window(pub(super) Option<Decimal>, pub(super) Option<Decimal>);

impl Window {
    /// Open below.
    pub(super) fn up_to(highest: Option<Decimal>) -> Self {
        Self(None, highest)
    }
}

impl fmt::Display for Window {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let side = |limit: Option<Decimal>| limit.map_or("open".to_owned(), |limit| limit.to_string());
        write!(f, "{} … {}", side(self.0), side(self.1))
    }
}
