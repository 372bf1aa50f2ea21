//! What kinds of things go wrong, and what each says about a rung.

use std::fmt;

use serde::{Deserialize, Serialize};
use strum::{IntoStaticStr, VariantArray};

use crate::model::verdict::Verdict;

/// What kind of thing went wrong.
#[derive(
    Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, IntoStaticStr, VariantArray,
)]
#[serde(rename_all = "kebab-case")]
#[strum(serialize_all = "kebab-case")]
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
    /// A device, such as a graphics card, was reset, and the machine lived on.
    DeviceReset,
    /// The picture was gone, and the machine lived on.
    NoPicture,
    /// The picture was wrong.
    Artefact,
    /// The clock reached under load is below the one asked for.
    Throttled,
    /// A sensor crossed its cut-off.
    TooHot,
    /// A sensor fell below its lower cut-off.
    TooCold,
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
    pub const ALL: &[Self] = Self::VARIANTS;

    /// The kind's name in files and on the screen, as in `wrong-result`.
    pub fn name(self) -> &'static str {
        self.into()
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
            | Self::DeviceReset
            | Self::NoPicture
            | Self::Artefact
            | Self::Stalled => Some(Verdict::Fell),
            Self::CorrectedError
            | Self::Throttled
            | Self::TooHot
            | Self::TooCold
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
        for kind in IncidentKind::ALL.iter().copied() {
            assert_eq!(kind.verdict().is_none(), kind == IncidentKind::Stopped, "{kind}");
        }
    }

    #[test]
    fn names_in_files_are_the_names_on_the_screen() {
        for kind in IncidentKind::ALL {
            assert_eq!(serde_json::to_string(kind).expect("json"), format!("\"{}\"", kind.name()));
        }
    }
}
