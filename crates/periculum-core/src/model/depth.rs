//! How deep a fall was: what comes late and in one result is near the limit, what takes the machine down is far beyond.

use serde::{Deserialize, Serialize};

use crate::model::incident::IncidentKind;
use crate::model::moment::Span;

/// A fall within this time comes at once.
const AT_ONCE: Span = Span::from_seconds(10);

/// How deep a fall was.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Depth {
    /// Something was wrong after a while, and the load went on.
    #[default]
    Shallow,
    /// Something was wrong, or the load died, at once.
    Deep,
    /// The machine went down while it worked.
    MachineDown,
}

impl Depth {
    /// The depth of a fall of this kind after so much testing.
    pub fn of(kind: Option<IncidentKind>, tested: Span) -> Self {
        match kind {
            Some(IncidentKind::Restart | IncidentKind::Freeze) => Self::MachineDown,
            Some(
                IncidentKind::WrongResult
                | IncidentKind::MemoryFault
                | IncidentKind::DeviceReset
                | IncidentKind::NoPicture
                | IncidentKind::Artefact
                | IncidentKind::LoadDied,
            ) if tested < AT_ONCE => Self::Deep,
            _ => Self::Shallow,
        }
    }

    /// How many steps farther back it sends.
    ///
    /// A machine that does not start says only that it is too much: with some rigs that is all that ever happens.
    pub fn steps(self) -> u32 {
        match self {
            Self::Shallow => 0,
            Self::Deep => 1,
            Self::MachineDown => 2,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_wrong_result_late_is_shallower_than_one_at_once_and_a_freeze_is_deepest() {
        let wrong = |seconds| Depth::of(Some(IncidentKind::WrongResult), Span::from_seconds(seconds));
        let freeze = Depth::of(Some(IncidentKind::Freeze), Span::from_seconds(500));
        assert!(wrong(540) < wrong(3) && wrong(3) < freeze);
        assert!(wrong(540).steps() < wrong(3).steps() && wrong(3).steps() < freeze.steps());
        assert_eq!(Depth::of(Some(IncidentKind::Throttled), Span::ZERO), Depth::Shallow);
        assert_eq!(Depth::of(Some(IncidentKind::NoStart), Span::ZERO), Depth::Shallow);
    }
}
