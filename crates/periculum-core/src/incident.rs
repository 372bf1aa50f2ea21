//! One thing that went wrong: its kind, its place and its evidence.

use std::fmt;

use serde::{Deserialize, Serialize};

use crate::evidence::Evidence;
use crate::moment::Span;
use crate::verdict::Verdict;

/// What kind of thing went wrong.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum IncidentKind {
    /// The rig did not start with the setting.
    NoStart,
    /// The rig started, but with values put back to their defaults.
    SafeDefaults,
    /// The rig restarted by itself.
    Restart,
    /// The rig stopped answering until somebody restarted it.
    Freeze,
    /// The program that runs the load died, and the machine lived on.
    LoadDied,
    /// A load's result was wrong.
    WrongResult,
    /// A word in memory was not what had been written.
    MemoryFault,
    /// The hardware counted an error and repaired it.
    CorrectedError,
    /// The picture was wrong.
    Artefact,
    /// The clock reached under load is below the one asked for.
    Throttled,
    /// A sensor crossed its cut-off.
    TooHot,
    /// Work stopped arriving.
    Stalled,
    /// The score fell by more than its noise.
    ScoreLoss,
    /// The reported value differs from the asked one.
    NotTaken,
    /// A sensor that a cut-off rests on stopped answering.
    SensorLost,
    /// The operator saw something.
    Seen,
    /// The operator stopped it.
    Stopped,
}

impl IncidentKind {
    /// Every kind.
    pub const ALL: [Self; 17] = [
        Self::NoStart,
        Self::SafeDefaults,
        Self::Restart,
        Self::Freeze,
        Self::LoadDied,
        Self::WrongResult,
        Self::MemoryFault,
        Self::CorrectedError,
        Self::Artefact,
        Self::Throttled,
        Self::TooHot,
        Self::Stalled,
        Self::ScoreLoss,
        Self::NotTaken,
        Self::SensorLost,
        Self::Seen,
        Self::Stopped,
    ];

    /// The kind's name in files and on the screen, as in `wrong-result`.
    pub fn name(self) -> &'static str {
        match self {
            Self::NoStart => "no-start",
            Self::SafeDefaults => "safe-defaults",
            Self::Restart => "restart",
            Self::Freeze => "freeze",
            Self::LoadDied => "load-died",
            Self::WrongResult => "wrong-result",
            Self::MemoryFault => "memory-fault",
            Self::CorrectedError => "corrected-error",
            Self::Artefact => "artefact",
            Self::Throttled => "throttled",
            Self::TooHot => "too-hot",
            Self::Stalled => "stalled",
            Self::ScoreLoss => "score-loss",
            Self::NotTaken => "not-taken",
            Self::SensorLost => "sensor-lost",
            Self::Seen => "seen",
            Self::Stopped => "stopped",
        }
    }

    /// What the kind alone says about a rung; nothing where it says nothing, as when the operator stops.
    pub fn verdict(self) -> Option<Verdict> {
        match self {
            Self::NoStart
            | Self::SafeDefaults
            | Self::Restart
            | Self::Freeze
            | Self::LoadDied
            | Self::WrongResult
            | Self::MemoryFault
            | Self::Artefact
            | Self::Stalled => Some(Verdict::Fell),
            Self::CorrectedError
            | Self::Throttled
            | Self::TooHot
            | Self::ScoreLoss
            | Self::NotTaken
            | Self::SensorLost
            | Self::Seen => Some(Verdict::Slipped),
            Self::Stopped => None,
        }
    }

    /// Whether the machine itself went down, so that whatever does not outlive a restart is back at stock.
    pub fn takes_machine_down(self) -> bool {
        matches!(self, Self::NoStart | Self::SafeDefaults | Self::Restart | Self::Freeze)
    }
}

impl fmt::Display for IncidentKind {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.name())
    }
}

/// One thing that went wrong.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Incident {
    /// What kind of thing.
    #[serde(rename = "incident")]
    pub kind: IncidentKind,
    /// Where: a core, an address, a sensor or a setting, in words; none where it has no place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub place: Option<String>,
    /// How long into the pass; none where no pass was running.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub into_pass: Option<Span>,
    /// How long into the pass at most, where nobody heard of it at once; none where `into_pass` is the time itself.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at_most: Option<Span>,
    /// What was expected and found, or how it is known.
    pub evidence: Evidence,
}

impl Incident {
    /// An incident without a place and outside any pass.
    pub fn new(kind: IncidentKind, evidence: impl Into<Evidence>) -> Self {
        Self { kind, place: None, into_pass: None, at_most: None, evidence: evidence.into() }
    }

    /// The same incident at a place.
    #[must_use]
    pub fn at(mut self, place: impl Into<String>) -> Self {
        self.place = Some(place.into());
        self
    }

    /// The same incident at most this long into a pass.
    #[must_use]
    pub fn at_most(mut self, span: Span) -> Self {
        self.at_most = Some(span).filter(|span| self.into_pass.is_some_and(|least| *span > least));
        self
    }

    /// The same incident this long into a pass.
    #[must_use]
    pub fn into_pass(mut self, span: Span) -> Self {
        self.into_pass = Some(span);
        self
    }
}

impl fmt::Display for Incident {
    /// One sentence: `wrong-result on core 5 after 41 s: …`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}", self.kind)?;
        if let Some(place) = &self.place {
            write!(f, " on {place}")?;
        }
        match (self.into_pass, self.at_most) {
            (Some(least), Some(most)) => write!(f, " after {least} to {most}")?,
            (Some(span), None) => write!(f, " after {span}")?,
            (None, _) => {}
        }
        write!(f, ": {}", self.evidence)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_in_files_are_the_names_on_the_screen() {
        for kind in IncidentKind::ALL {
            assert_eq!(serde_json::to_string(&kind).expect("json"), format!("\"{}\"", kind.name()));
        }
    }

    #[test]
    fn an_incident_is_told_in_one_sentence() {
        let incident = Incident::new(IncidentKind::WrongResult, "residual 41.2, allowed 16")
            .at("core 5")
            .into_pass(Span::from_seconds(41));
        assert_eq!(incident.to_string(), "wrong-result on core 5 after 41 s: residual 41.2, allowed 16");
    }
}
