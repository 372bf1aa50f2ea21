//! How a program or a machine that was in the middle of something came to its end.

use serde::{Deserialize, Serialize};

use crate::model::incident_kind::IncidentKind;
use crate::model::moment::{Moment, Span};

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
    /// The machine stood still until its watchdog restarted it.
    WatchdogBit,
}

impl Ending {
    /// The kind of incident it is.
    pub fn incident(self) -> IncidentKind {
        match self {
            Self::ProgramDied => IncidentKind::LoadDied,
            Self::MachineRestarted => IncidentKind::Restart,
            Self::MachineFroze | Self::WatchdogBit => IncidentKind::Freeze,
        }
    }

    /// How it is known, in words.
    pub fn evidence(self) -> &'static str {
        match self {
            Self::ProgramDied => "the program died; the machine has the same boot identifier as before",
            Self::MachineRestarted => "the machine has started anew, soon after it was last heard of",
            Self::MachineFroze => "the machine has started anew, long after it was last heard of",
            Self::WatchdogBit => "the watchdog restarted the machine, which did not answer it any more",
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

/// What went down between the last sign of life, by wall clock and under the boot with this identifier, and now; where a
/// watchdog guarded the machine, with its word on whether it restarted it.
///
/// A watchdog's word is better than the silence: under one a machine doesn't stand still for long, and the clock may have
/// been wrong at either start.
pub fn classify(last_boot: &str, last_sign_of_life: Moment, now: &Boot, has_bitten: Option<bool>) -> Ending {
    if last_boot == now.id {
        return Ending::ProgramDied;
    }
    if let Some(has_bitten) = has_bitten {
        return if has_bitten { Ending::WatchdogBit } else { Ending::MachineRestarted };
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
        let alone = |now: &Boot| classify("a", last, now, None);
        assert_eq!(alone(&boot("a", 0)), Ending::ProgramDied);
        assert_eq!(alone(&boot("b", 1_030_000)), Ending::MachineRestarted);
        assert_eq!(alone(&boot("b", 9_000_000)), Ending::MachineFroze);
        assert_eq!(alone(&Boot { id: "b".into(), since: None }), Ending::MachineRestarted);
    }

    #[test]
    fn a_watchdogs_word_is_better_than_the_clocks() {
        let last = Moment::from_millis(1_000_000);
        let guarded = |id: &str, has_bitten| classify("a", last, &boot(id, 9_000_000_000), Some(has_bitten));
        assert_eq!(guarded("b", false), Ending::MachineRestarted, "years later by a clock that was wrong");
        assert_eq!(guarded("b", true), Ending::WatchdogBit);
        assert_eq!(guarded("a", true), Ending::ProgramDied, "that was before this start");
    }
}
