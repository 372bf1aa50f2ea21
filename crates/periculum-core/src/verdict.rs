//! How a trial ended.

use std::fmt;

use serde::{Deserialize, Serialize};

use crate::incident::IncidentKind;

/// What a trial says about its rung, from good to bad.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
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
        match self {
            Self::Held => "held",
            Self::Slipped => "slipped",
            Self::Fell => "fell",
            Self::Void => "void",
        }
    }

    /// The verdict of this name.
    pub fn named(name: &str) -> Option<Self> {
        [Self::Held, Self::Slipped, Self::Fell, Self::Void].into_iter().find(|verdict| verdict.name() == name)
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

/// The verdict of a proof that was run to its end or broken off by these incidents: the worst of what they say.
pub fn judge(incidents: impl IntoIterator<Item = IncidentKind>) -> Verdict {
    incidents.into_iter().filter_map(IncidentKind::verdict).max().unwrap_or(Verdict::Held)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_worst_incident_decides() {
        assert_eq!(judge([]), Verdict::Held);
        assert_eq!(judge([IncidentKind::CorrectedError]), Verdict::Slipped);
        assert_eq!(judge([IncidentKind::Throttled, IncidentKind::WrongResult, IncidentKind::Seen]), Verdict::Fell);
    }

    #[test]
    fn every_incident_but_the_operators_stop_says_something() {
        for kind in IncidentKind::ALL {
            assert_eq!(kind.verdict().is_none(), kind == IncidentKind::Stopped, "{kind}");
        }
    }
}
