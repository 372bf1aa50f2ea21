//! Trials of all climbs are found by what they say.

use periculum_core::engine::{Entry, Event, Said};
use periculum_core::story::finding::Query;
use periculum_ledger::Ledger;

use crate::common::{NEW, climb_lines, line};

/// The climbs that are found by what was typed, of one climb that fell and one that was only begun.
fn found(typed: &str) -> Vec<i64> {
    let folder = tempfile::tempdir().expect("a folder");
    let mut ledger = Ledger::open(&folder.path().join("l")).expect("a ledger");
    let fell = ledger.begin_climb(&NEW).expect("a climb");
    climb_lines().iter().for_each(|line| ledger.append(fell, line).expect("written"));
    let other = ledger.begin_climb(&NEW).expect("a climb");
    ledger.append(other, &climb_lines()[0]).expect("written");
    let said = Said::Note { text: "Coil whine".into() };
    let note = line(20, Event::OperatorSaid { said: said.clone() }, vec![Entry::Operator { said }]);
    ledger.append(other, &note).expect("written");
    let climbs = ledger.climbs().expect("read");
    let index = ledger.index(&climbs, |row| format!("{} {}", row.plan, row.rig)).expect("an index");
    assert_eq!(index.trials(), 2);
    let mut found: Vec<i64> = index.find(&Query::of(typed)).iter().map(|found| found.climb).collect();
    found.sort_unstable();
    found
}

#[test]
fn a_trial_is_found_by_its_verdict_its_incidents_and_its_values() {
    assert_eq!(found("fell"), [1]);
    assert_eq!(found("wrong-result"), [1]);
    assert_eq!(found("4700"), [1, 2]);
}

#[test]
fn a_note_is_found_whatever_its_letters() {
    assert_eq!(found("coil WHINE"), [2]);
    assert_eq!(found("smells"), [1]);
}

#[test]
fn every_word_has_to_be_there() {
    assert_eq!(found("quick wrong-result"), [1]);
    assert!(found("wrong-result whine").is_empty());
    assert!(found("nobody wrote this").is_empty());
}
