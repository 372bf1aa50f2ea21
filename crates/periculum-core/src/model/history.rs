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
    /// What it says of the laws by which a rig fails.
    pub fn worked(&self) -> Worked {
        Worked::told(self.loaded.seconds(), self.failures)
    }
}
