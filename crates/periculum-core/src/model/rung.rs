//! A complete combination of setting values, and what of it is known to be in force.

use std::collections::BTreeMap;

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

/// What a rig reports, or is believed, to have in force; a setting that is missing is unknown.
pub type InForce = BTreeMap<String, Decimal>;

/// One complete combination of setting values by setting name: what is asked of a rig at one moment.
#[derive(Clone, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(transparent)]
pub struct Rung(BTreeMap<String, Decimal>);

impl Rung {
    /// The value of a setting.
    pub fn get(&self, setting: &str) -> Option<Decimal> {
        self.0.get(setting).copied()
    }

    /// The same rung with one setting at another value.
    #[must_use]
    pub fn with(&self, setting: &str, value: Decimal) -> Self {
        let mut changed = self.clone();
        changed.0.insert(setting.to_owned(), value);
        changed
    }

    /// Whether every setting has the value that it has in another rung, but perhaps this one.
    pub fn differs_only_in(&self, setting: &str, other: &Self) -> bool {
        other.iter().all(|(name, value)| name == setting || self.get(name) == Some(value))
    }

    /// Every setting's name and value.
    pub fn iter(&self) -> impl Iterator<Item = (&str, Decimal)> {
        self.0.iter().map(|(name, value)| (name.as_str(), *value))
    }
}

impl FromIterator<(String, Decimal)> for Rung {
    fn from_iter<I: IntoIterator<Item = (String, Decimal)>>(values: I) -> Self {
        Self(values.into_iter().collect())
    }
}

/// One setting going from one value to another.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Change {
    /// The setting's name.
    pub setting: String,
    /// The value it is believed to have; none where nobody knows.
    pub from: Option<Decimal>,
    /// The value it is to have.
    pub to: Decimal,
}
