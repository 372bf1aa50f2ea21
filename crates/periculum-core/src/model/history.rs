//! What a rig did before anybody climbed it, as its owner says.

use crate::inference::worked::Worked;
use crate::model::moment::Span;
use crate::model::rung::Rung;

/// Work at one rung under full load, and how often it went wrong.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct History {
    /// The rung.
    pub rung: Rung,
    /// For how long.
    pub loaded: Span,
    /// Crashes, freezes and wrong results in that time.
    pub failures: u32,
}

impl History {
    /// These with another one: what is told of one rung in several parts counts as one.
    pub fn with(mut all: Vec<Self>, other: Self) -> Vec<Self> {
        match all.iter_mut().find(|one| one.rung == other.rung) {
            Some(same) => {
                same.loaded += other.loaded;
                same.failures = same.failures.saturating_add(other.failures);
            }
            None => all.push(other),
        }
        all
    }

    /// What it says of the laws by which a rig fails.
    pub fn worked(&self) -> Worked {
        Worked::told(self.loaded.seconds(), self.failures)
    }
}
