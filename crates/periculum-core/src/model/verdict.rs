//! How a trial ended.

use std::fmt;

use serde::{Deserialize, Serialize};
use strum::{EnumString, IntoStaticStr};

/// What a trial says about its rung, from good to bad.
#[derive(
    Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, EnumString, IntoStaticStr,
)]
#[serde(rename_all = "kebab-case")]
#[strum(serialize_all = "kebab-case")]
pub enum Verdict {
    /// It survived the whole proof.
    Held,
    /// It runs, but throttled, lost score, or did not take.
    Slipped,
    /// Anything wrong, lost or dead.
    Fell,
    /// It was broken off and says nothing about the rung; the rung is tried again.
    Void,
}

impl Verdict {
    /// The verdict's name.
    pub fn name(self) -> &'static str {
        self.into()
    }

    /// The verdict of this name.
    pub fn named(name: &str) -> Option<Self> {
        name.parse().ok()
    }

    /// The verdict's sign, which reads without colour.
    pub fn sign(self) -> char {
        match self {
            Self::Held => '●',
            Self::Slipped => '◐',
            Self::Fell => '✕',
            Self::Void => '–',
        }
    }
}

impl fmt::Display for Verdict {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.pad(self.name())
    }
}
