//! How a program or a machine that was in the middle of something came to its end.

use serde::{Deserialize, Serialize};

use crate::incident::IncidentKind;
use crate::moment::{Moment, Span};

/// What went down.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Ending {
    /// Periculum died and the machine lived on.
    ProgramDied,
    /// The machine restarted by itself.
    MachineRestarted,
    /// The machine stood still until somebody restarted it.
    MachineFroze,
}

impl Ending {
    /// The kind of incident it is.
    pub fn incident(self) -> IncidentKind {
        match self {
            Self::ProgramDied => IncidentKind::LoadDied,
            Self::MachineRestarted => IncidentKind::Restart,
            Self::MachineFroze => IncidentKind::Freeze,
        }
    }

    /// How it is known, in words.
    pub fn evidence(self) -> &'static str {
        match self {
            Self::ProgramDied => "the program died; the machine has the same boot identifier as before",
            Self::MachineRestarted => "the machine has started anew, soon after it was last heard of",
            Self::MachineFroze => "the machine has started anew, long after it was last heard of",
        }
    }

    /// The same with what the kernel said last, where it kept that and it was the machine that went down.
    pub fn told(self, last_words: Option<&str>) -> String {
        match last_words.filter(|_| self != Self::ProgramDied) {
            Some(words) => format!("{}; the kernel's last words: {words}", self.evidence()),
            None => self.evidence().to_owned(),
        }
    }
}

/// One run of the operating system, by wall clock.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Boot {
    /// The boot identifier, which no two boots share.
    pub id: String,
    /// When it started; none where the system does not say.
    pub since: Option<Moment>,
}

/// A machine that was silent for longer than this before it started anew stood still: by itself it restarts
/// within seconds, and firmware takes no longer than this to train memory and hand over.
const LONGEST_RESTART: Span = Span::from_seconds(180);

/// What went down between the last sign of life, by wall clock and under the boot with this identifier, and now.
pub fn classify(last_boot: &str, last_sign_of_life: Moment, now: &Boot) -> Ending {
    if last_boot == now.id {
        return Ending::ProgramDied;
    }
    let silence = now.since.map(|since| since.since(last_sign_of_life));
    match silence {
        Some(silence) if silence > LONGEST_RESTART => Ending::MachineFroze,
        _ => Ending::MachineRestarted,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn boot(id: &str, since: i64) -> Boot {
        Boot { id: id.into(), since: Some(Moment::from_millis(since)) }
    }

    #[test]
    fn the_boot_tells_what_died() {
        let last = Moment::from_millis(1_000_000);
        assert_eq!(classify("a", last, &boot("a", 0)), Ending::ProgramDied);
        assert_eq!(classify("a", last, &boot("b", 1_030_000)), Ending::MachineRestarted);
        assert_eq!(classify("a", last, &boot("b", 9_000_000)), Ending::MachineFroze);
        assert_eq!(classify("a", last, &Boot { id: "b".into(), since: None }), Ending::MachineRestarted);
    }
}
