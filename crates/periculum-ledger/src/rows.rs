//! What a store tells of the climbs in it.

use std::fmt;

use periculum_core::engine::ClimbEnd;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::rung::Rung;

/// What a climb is known by wherever its record is kept: its number is only its place in one store.
#[derive(Clone, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct ClimbId(String);

/// Bytes of an identifier.
const BYTES: usize = 16;

impl ClimbId {
    /// One that no other climb has.
    ///
    /// # Errors
    /// Where the operating system has no random numbers.
    pub(crate) fn fresh() -> Result<Self, getrandom::Error> {
        let mut bytes = [0; BYTES];
        getrandom::fill(&mut bytes)?;
        Ok(Self::of_bytes(&bytes))
    }

    /// The one that follows from these bytes.
    pub(crate) fn of_bytes(bytes: &[u8]) -> Self {
        Self(bytes.iter().take(BYTES).map(|byte| format!("{byte:02x}")).collect())
    }

    /// One that was written down somewhere.
    pub fn written(text: impl Into<String>) -> Self {
        Self(text.into())
    }

    /// Its 32 digits, in lower case.
    pub fn as_str(&self) -> &str {
        &self.0
    }
}

impl fmt::Display for ClimbId {
    fn fmt(&self, f: &mut fmt::Formatter) -> fmt::Result {
        f.write_str(&self.0)
    }
}

/// What is to be known of a climb before it begins.
#[derive(Clone, Debug)]
pub struct NewClimb<'a> {
    /// The plan's name.
    pub plan: &'a str,
    /// The rig's name.
    pub rig: &'a str,
    /// The specimens of its parts.
    pub specimen: &'a str,
    /// What the result is for.
    pub use_name: &'a str,
    /// The seed of a simulated rig.
    pub seed: Option<u64>,
    /// The plan file, whole, so that the climb can go on when the file is gone or changed.
    pub plan_text: &'a str,
    /// The rig file, whole.
    pub rig_text: &'a str,
    /// When it begins, by this machine's clock.
    pub wall: Moment,
}

/// A climb, as a list shows it.
#[derive(Clone, Debug, PartialEq)]
pub struct ClimbRow {
    /// Its number.
    pub climb: i64,
    /// What it is known by anywhere.
    pub id: ClimbId,
    /// The plan's name.
    pub plan: String,
    /// The rig's name.
    pub rig: String,
    /// The specimens of its parts.
    pub specimen: String,
    /// What the result is for.
    pub use_name: String,
    /// The seed of a simulated rig.
    pub seed: Option<u64>,
    /// When it began, by this machine's clock.
    pub wall: Moment,
    /// How it ended; none while it is unfinished.
    pub end: Option<ClimbEnd>,
    /// How many trials have begun.
    pub trials: u32,
    /// How many of them fell.
    pub falls: u32,
    /// How long passes ran, together.
    pub tested: Span,
    /// The rung of the last mark that stands.
    pub mark: Option<Rung>,
}

/// A trial, as a list shows it.
#[derive(Clone, Debug, PartialEq)]
pub struct TrialRow {
    /// Its number, from 1.
    pub trial: u32,
    /// The rung.
    pub rung: Rung,
    /// The proof's name.
    pub proof: String,
    /// How it ended; none while it is open.
    pub verdict: Option<String>,
    /// The worst that happened.
    pub incident: Option<String>,
    /// How long its passes ran.
    pub tested: Span,
}

/// An incident, as a list shows it.
#[derive(Clone, Debug, PartialEq)]
pub struct IncidentRow {
    /// When, by the rig's clock.
    pub at: Moment,
    /// In which trial.
    pub trial: Option<u32>,
    /// What kind.
    pub kind: String,
    /// Where.
    pub place: Option<String>,
    /// How long into the pass.
    pub into_pass: Option<Span>,
    /// What was found.
    pub evidence: String,
}

/// When an unfinished climb was last heard of.
#[derive(Clone, Debug, PartialEq)]
pub struct LastLife {
    /// Under which boot.
    pub boot: String,
    /// When, by the rig's clock, a sample being as good a sign of life as an event.
    pub at: Moment,
    /// When, by this machine's clock.
    pub wall: Moment,
    /// How long after that it would have been heard of next; none where it gave no signs of life.
    pub next_due: Option<Span>,
}
