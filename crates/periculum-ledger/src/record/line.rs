//! One line of the journal, as it is told and as it is kept.

use periculum_core::engine::{Entry, Event};
use periculum_core::model::moment::Moment;
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};

/// One step of a climb: an event, and the entries that the engine made of it.
#[derive(Clone, Debug, PartialEq)]
pub struct Line {
    /// When, by the rig's clock.
    pub at: Moment,
    /// When, by this machine's clock.
    pub wall: Moment,
    /// The boot identifier of the operating system.
    pub boot: String,
    /// What happened.
    pub event: Event,
    /// What the engine stated.
    pub entries: Vec<Entry>,
}

/// A line as it is kept: written once, with a checksum over all of it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) struct Kept {
    /// The number of its climb in the store.
    pub(crate) climb: i64,
    /// Its number in the climb, from 0.
    pub(crate) number: i64,
    /// When, by the rig's clock, ms.
    pub(crate) at: i64,
    /// When, by the clock of the machine that wrote it, ms.
    pub(crate) wall: i64,
    pub(crate) boot: String,
    /// Event and entries as JSON.
    pub(crate) body: String,
    pub(crate) checksum: Vec<u8>,
}

/// Why a line can't be read.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) enum Flaw {
    /// It is not what was written.
    Damaged(String),
    /// It is what was written, by a version that knows more.
    Newer(String),
}

#[derive(Serialize, Deserialize)]
struct Body {
    event: Event,
    entries: Vec<Entry>,
}

impl Kept {
    /// A line to be kept as that of this number.
    ///
    /// # Errors
    /// Where it can't be turned into text.
    pub(crate) fn of(climb: i64, number: i64, line: &Line) -> Result<Self, serde_json::Error> {
        let body = Body { event: line.event.clone(), entries: line.entries.clone() };
        let unsigned = Self {
            climb,
            number,
            at: line.at.millis(),
            wall: line.wall.millis(),
            boot: line.boot.clone(),
            body: serde_json::to_string(&body)?,
            checksum: Vec::new(),
        };
        Ok(Self { checksum: unsigned.digest().to_vec(), ..unsigned })
    }

    /// What it says.
    ///
    /// # Errors
    /// What is wrong with it, where it is not what was written.
    pub(crate) fn read(&self) -> Result<Line, Flaw> {
        if self.checksum != self.digest().as_slice() {
            return Err(Flaw::Damaged("its checksum does not fit its contents".into()));
        }
        let body: Body = serde_json::from_str(&self.body).map_err(|error| Flaw::Newer(error.to_string()))?;
        Ok(Line {
            at: Moment::from_millis(self.at),
            wall: Moment::from_millis(self.wall),
            boot: self.boot.clone(),
            event: body.event,
            entries: body.entries,
        })
    }

    /// SHA-256 over everything, with the length of the one text that has a neighbour.
    fn digest(&self) -> [u8; 32] {
        let mut digest = Sha256::new();
        for number in [self.climb, self.number, self.at, self.wall, self.boot.len() as i64] {
            digest.update(number.to_le_bytes());
        }
        digest.update(&self.boot);
        digest.update(&self.body);
        digest.finalize().into()
    }
}

#[cfg(test)]
pub(super) mod tests {
    use super::*;

    pub(in super::super) fn kept(number: i64) -> Kept {
        let line = Line {
            at: Moment::from_millis(10 * number),
            wall: Moment::from_millis(10 * number + 5),
            boot: "boot-1".into(),
            event: Event::TIME_PASSED,
            entries: vec![Entry::Paused],
        };
        Kept::of(3, number, &line).expect("kept")
    }

    #[test]
    fn a_line_comes_back_as_it_was_and_a_changed_one_does_not() {
        let kept = kept(4);
        let line = kept.read().expect("whole");
        assert_eq!(
            (line.at, &*line.boot, &line.entries[..]),
            (Moment::from_millis(40), "boot-1", &[Entry::Paused][..])
        );
        let changed = [
            Kept { climb: 4, ..kept.clone() },
            Kept { number: 5, ..kept.clone() },
            Kept { at: 41, ..kept.clone() },
            Kept { wall: 1, ..kept.clone() },
            Kept { boot: "boot-2".into(), ..kept.clone() },
            Kept { body: kept.body.replace("paused", "resumed"), ..kept.clone() },
            Kept { checksum: vec![0; 32], ..kept.clone() },
        ];
        for one in changed {
            assert!(matches!(one.read(), Err(Flaw::Damaged(_))), "{one:?}");
        }
    }

    #[test]
    fn what_a_newer_version_wrote_is_whole_and_not_known() {
        let newer = Kept { body: r#"{"event":{"event":"teleported"},"entries":[]}"#.into(), ..kept(1) };
        let newer = Kept { checksum: newer.digest().to_vec(), ..newer };
        assert!(matches!(newer.read(), Err(Flaw::Newer(what)) if what.contains("teleported")));
    }
}
