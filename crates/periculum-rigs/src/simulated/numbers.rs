//! Numbers of `[adapter.simulated]`.

use periculum_core::Decimal;
use periculum_core::files::Section;

/// The number under the key, which must be above nothing, or the usual one.
pub(super) fn positive_or(section: &Section, key: &'static str, usual: f64) -> f64 {
    let Some(number) = section.optional_number(key) else { return usual };
    if number.value <= Decimal::ZERO {
        section.problems().add(number.at, format!("`{key}` must be above 0"));
        return usual;
    }
    to_float(number.value)
}

/// The number under the key, which must not be negative, or the usual one.
pub(super) fn number_or(section: &Section, key: &'static str, usual: f64) -> f64 {
    let Some(number) = section.optional_number(key) else { return usual };
    if number.value < Decimal::ZERO {
        section.problems().add(number.at, format!("`{key}` can't be negative"));
        return usual;
    }
    to_float(number.value)
}

pub(super) fn to_float(value: Decimal) -> f64 {
    f64::try_from(value).unwrap_or(f64::MAX)
}
