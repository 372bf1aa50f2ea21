//! The machine dies while the ledger is written to, and the disk keeps a part of what was on its way.

use std::fs;
use std::path::{Path, PathBuf};

use periculum_core::engine::{Entry, Event, Said};
use periculum_core::model::moment::Span;
use periculum_ledger::{Ledger, Line};
use proptest::prelude::*;

use crate::common::{NEW, climb_lines, line};

fn beside(path: &Path, ending: &str) -> PathBuf {
    let mut name = path.as_os_str().to_owned();
    name.push(ending);
    name.into()
}

/// A climb with so many notes between its first line and the others.
fn lines(notes: usize) -> Vec<Line> {
    let note = |number: usize| {
        let said = Said::Note { text: format!("note {number} {}", "and more of it ".repeat(number % 40)) };
        line(15, Event::OperatorSaid { said: said.clone() }, vec![Entry::Operator { said }])
    };
    let mut lines = climb_lines();
    lines.splice(1..1, (0..notes).map(note));
    lines
}

/// What the disk holds of a ledger at a moment: the file, and the log of what is to come into it.
struct Disk {
    file: Vec<u8>,
    log: Vec<u8>,
}

impl Disk {
    fn now(path: &Path) -> Self {
        Self { file: fs::read(path).expect("a file"), log: fs::read(beside(path, "-wal")).expect("a log") }
    }

    fn restored(&self, to: &Path, log: &[u8]) -> Ledger {
        fs::write(to, &self.file).expect("written");
        fs::write(beside(to, "-wal"), log).expect("written");
        Ledger::open(to).expect("a ledger that lost its end is one still")
    }
}

/// A ledger on whose disk everything is that was written, and nothing is tidied up.
fn written(path: &Path, lines: &[Line]) -> (Disk, i64) {
    let mut ledger = Ledger::open(path).expect("a ledger");
    let climb = ledger.begin_climb(&NEW).expect("a climb");
    lines.iter().for_each(|line| ledger.append(climb, line).expect("written"));
    (Disk::now(path), climb)
}

/// The lines that a ledger has of the climb, where it has the climb.
fn kept(ledger: &Ledger, climb: i64) -> Vec<Line> {
    let has = ledger.climbs().expect("read").iter().any(|row| row.climb == climb);
    if has { ledger.lines(climb).expect("whole") } else { Vec::new() }
}

/// What the tables say agrees with what the lines say.
fn tables_agree(ledger: &Ledger, climb: i64, kept: &[Line]) {
    let entries = || kept.iter().flat_map(|line| &line.entries);
    let (mut began, mut notes, mut tested) = (0, 0, Span::ZERO);
    for entry in entries() {
        match entry {
            Entry::TrialBegan { .. } => began += 1,
            Entry::Operator { .. } => notes += 1,
            Entry::TrialEnded { tested: span, .. } => tested = *span,
            _ => {}
        }
    }
    assert_eq!(ledger.trials(climb).expect("read").len(), began);
    let row = ledger.climb(climb).expect("read");
    assert_eq!((row.trials, row.tested), (began as u32, tested), "{notes} notes");
    assert_eq!(row.end.is_some(), entries().any(|entry| matches!(entry, Entry::Ended { .. })));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(20))]

    /// However much of the log's end is lost, what is left is a beginning of the record, whole and without an excuse.
    #[test]
    fn a_torn_end_leaves_a_whole_beginning(notes in 0usize..40, at in any::<prop::sample::Index>()) {
        let folder = tempfile::tempdir().expect("a folder");
        let lines = lines(notes);
        let (disk, climb) = written(&folder.path().join("written"), &lines);
        let ledger = disk.restored(&folder.path().join("restored"), &disk.log[..at.index(disk.log.len() + 1)]);
        prop_assert_eq!(ledger.dropped(), []);
        let kept = kept(&ledger, climb);
        prop_assert!(lines.starts_with(&kept), "{} of {}", kept.len(), lines.len());
        if !kept.is_empty() {
            tables_agree(&ledger, climb, &kept);
        }
    }

    /// The same where the disk kept a wrong byte somewhere in the log: what was written behind it is lost, and nothing else is.
    #[test]
    fn a_wrong_byte_in_the_log_costs_what_is_behind_it(
        notes in 0usize..40, at in any::<prop::sample::Index>(), flip in 1u8..,
    ) {
        let folder = tempfile::tempdir().expect("a folder");
        let lines = lines(notes);
        let (disk, climb) = written(&folder.path().join("written"), &lines);
        let mut log = disk.log.clone();
        let at = at.index(log.len());
        log[at] ^= flip;
        let ledger = disk.restored(&folder.path().join("restored"), &log);
        let kept = kept(&ledger, climb);
        prop_assert!(lines.starts_with(&kept), "{} of {}", kept.len(), lines.len());
        if !kept.is_empty() {
            tables_agree(&ledger, climb, &kept);
        }
    }
}

#[test]
fn everything_that_was_confirmed_is_there_when_nothing_is_lost() {
    let folder = tempfile::tempdir().expect("a folder");
    let lines = lines(30);
    let (disk, climb) = written(&folder.path().join("written"), &lines);
    let ledger = disk.restored(&folder.path().join("restored"), &disk.log);
    assert_eq!(kept(&ledger, climb), lines);
}

#[test]
fn a_climb_goes_on_behind_what_was_kept() {
    let folder = tempfile::tempdir().expect("a folder");
    let lines = lines(30);
    let (disk, climb) = written(&folder.path().join("written"), &lines);
    let path = folder.path().join("restored");
    let mut ledger = disk.restored(&path, &disk.log[..disk.log.len() - 100]);
    let before = kept(&ledger, climb);
    assert!(before.len() < lines.len(), "the last line was on its way");
    let last = lines.last().expect("a last one");
    ledger.append(climb, last).expect("written");
    drop(ledger);
    let ledger = Ledger::open(&path).expect("a ledger");
    assert_eq!(ledger.dropped(), []);
    assert_eq!(kept(&ledger, climb).last(), Some(last));
}
