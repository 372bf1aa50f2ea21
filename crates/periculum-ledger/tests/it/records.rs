//! The best scores of one's own, and results that were entered by hand.

use periculum_core::engine::{Entry, Event};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassReport, Score, Threads};
use periculum_core::model::reason::Reason;
use periculum_core::model::verdict::Verdict;
use periculum_ledger::{Entered, Ledger, RecordRow};

use crate::common::{NEW, line, rung};

struct Scored {
    clock: u32,
    load: &'static str,
    threads: Threads,
    score: Score,
    verdict: Verdict,
}

fn of(value: f64, verdict: Verdict) -> Scored {
    Scored { clock: 4700, load: "dense", threads: Threads::All, score: Score::of(value, "GFLOP/s"), verdict }
}

/// The records of a climb with these scores.
fn records(scored: Vec<Scored>) -> Vec<RecordRow> {
    let folder = tempfile::tempdir().expect("a folder");
    let mut ledger = Ledger::open(&folder.path().join("l")).expect("a ledger");
    let climb = ledger.begin_climb(&NEW).expect("a climb");
    for (number, one) in (1..).zip(scored) {
        let order = Pass { threads: one.threads, ..Pass::usual(one.load, Span::from_seconds(60)) };
        let report = PassReport { score: Some(one.score), ..PassReport::default() };
        let entries = vec![
            Entry::TrialBegan {
                trial: number,
                stage: 0,
                rung: rung().with("core_clock", one.clock.into()),
                proof: "quick".into(),
                reason: Reason::Baseline { nth: 1, of: 1, start: None },
            },
            Entry::PassBegan { trial: number, pass: 0, order, on: vec![] },
            Entry::PassEnded { trial: number, pass: 0, report },
            Entry::TrialEnded { trial: number, verdict: one.verdict, incident: None, tested: Span::ZERO, gain: None },
        ];
        ledger.append(climb, &line(i64::from(number), Event::TIME_PASSED, entries)).expect("written");
    }
    ledger.records().expect("read")
}

fn trials(scored: Vec<Scored>) -> Vec<u32> {
    records(scored).iter().map(|row| row.trial).collect()
}

#[test]
fn the_best_at_a_rung_that_did_not_fall_is_the_record() {
    let (held, fell) = (Verdict::Held, Verdict::Fell);
    let at = |clock: u32, scored: Scored| Scored { clock, ..scored };
    assert_eq!(trials(vec![of(100.0, held), of(103.0, held), at(4800, of(110.0, fell)), of(101.0, held)]), [2]);
    assert_eq!(trials(vec![of(100.0, held), of(104.0, Verdict::Slipped)]), [2], "what slipped was reached");
    let fell_later = vec![of(100.0, held), at(4800, of(108.0, held)), at(4800, of(107.0, fell))];
    assert_eq!(trials(fell_later), [1], "what fell later does not stand");
    assert!(trials(vec![of(100.0, fell), of(100.0, Verdict::Void)]).is_empty());
}

#[test]
fn of_times_the_shortest_is_the_best() {
    let time =
        |value| Scored { score: Score { value, unit: "s".into(), less_is_better: true }, ..of(0.0, Verdict::Held) };
    let rows = records(vec![time(12.0), time(11.5), time(13.0)]);
    assert_eq!((rows.len(), rows[0].trial, rows[0].value), (1, 2, 11.5));
}

#[test]
fn what_was_measured_otherwise_is_a_record_of_its_own() {
    let one_thread = Scored { threads: Threads::Count(1), ..of(50.0, Verdict::Held) };
    let other_load = Scored { load: "integer", ..of(7.0, Verdict::Held) };
    let mut told = trials(vec![of(100.0, Verdict::Held), one_thread, other_load]);
    told.sort_unstable();
    assert_eq!(told, [1, 2, 3]);
}

#[test]
fn what_was_entered_is_kept_until_it_is_taken_back() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("l");
    let result = |what: &str, value| Entered {
        what: what.into(),
        value,
        unit: "MHz".into(),
        specimen: "A-0417".into(),
        source: "a letter, \"quoted\"\n".into(),
    };
    let ledger = Ledger::open(&path).expect("a ledger");
    let first = ledger.enter(&result("core_clock", 5012.5), Moment::from_millis(7)).expect("entered");
    let second = ledger.enter(&result("dense", 1e-9), Moment::from_millis(8)).expect("entered");
    drop(ledger);
    let ledger = Ledger::open(&path).expect("a ledger");
    let told = ledger.entered().expect("read");
    assert_eq!(told.iter().map(|row| row.entered).collect::<Vec<_>>(), [first, second]);
    assert_eq!(told[0].result, result("core_clock", 5012.5));
    assert!(ledger.take_back(first).expect("written"));
    assert!(!ledger.take_back(first).expect("written"), "it is gone");
    assert_eq!(ledger.entered().expect("read").len(), 1);
}
