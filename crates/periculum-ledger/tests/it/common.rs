//! A climb that is told by hand, and a ledger with it.

use std::path::Path;

use periculum_core::Decimal;
use periculum_core::engine::{ClimbEnd, Entry, Event, RULES, Said};
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassReport, Score};
use periculum_core::model::reason::Reason;
use periculum_core::model::rung::{InForce, Rung};
use periculum_core::model::verdict::Verdict;
use periculum_ledger::{Ledger, Line, NewClimb};

pub(crate) const NEW: NewClimb = NewClimb {
    plan: "a plan",
    rig: "a rig",
    specimen: "processor 1",
    use_name: "daily",
    seed: Some(7),
    plan_text: "plan text",
    rig_text: "rig text",
    wall: Moment::from_millis(1_000),
};

pub(crate) fn rung() -> Rung {
    [("core_clock".to_owned(), Decimal::from(4700))].into_iter().collect()
}

pub(crate) fn line(at: i64, event: Event, entries: Vec<Entry>) -> Line {
    Line { at: Moment::from_millis(at), wall: Moment::from_millis(at + 5), boot: "boot-1".into(), event, entries }
}

/// A climb of one trial that fell.
pub(crate) fn climb_lines() -> Vec<Line> {
    let pass = Pass::usual("dense", Span::from_seconds(60));
    let incident = Incident::new(IncidentKind::WrongResult, "residual 41, allowed 16").at("core 5");
    let report = PassReport {
        ran: Span::from_seconds(41),
        rounds: 12,
        score: Some(Score::of(101.5, "GFLOP/s")),
        incidents: vec![incident.clone()],
        ..PassReport::default()
    };
    let began = vec![
        Entry::Began { in_force: InForce::new() },
        Entry::TrialBegan {
            trial: 1,
            stage: 0,
            rung: rung(),
            proof: "quick".into(),
            reason: Reason::Baseline { nth: 1, of: 1, start: None },
        },
        Entry::PassBegan { trial: 1, pass: 0, order: pass, on: vec![] },
    ];
    let ended = vec![
        Entry::PassEnded { trial: 1, pass: 0, report: report.clone() },
        Entry::Incident { trial: Some(1), pass: Some(0), incident },
        Entry::TrialEnded {
            trial: 1,
            verdict: Verdict::Fell,
            incident: Some(IncidentKind::WrongResult),
            tested: Span::from_seconds(41),
            gain: None,
        },
        Entry::Ended {
            end: ClimbEnd::NothingHeld { stage: 0 },
            marks: vec![],
            trials: 1,
            falls: 1,
            tested: Span::from_seconds(41),
            test_hours: 41.0 / 3600.0,
            not_at_stock: vec![],
            left_at: None,
        },
    ];
    let note = Said::Note { text: "smells warm".into() };
    vec![
        line(10, Event::Started { in_force: InForce::new(), ahead: 0, rules: RULES, kinds: Vec::new() }, began),
        line(20, Event::OperatorSaid { said: note.clone() }, vec![Entry::Operator { said: note }]),
        line(30, Event::PassEnded { report, reported: None }, ended),
    ]
}

pub(crate) fn filled(path: &Path) -> (Ledger, i64) {
    let mut ledger = Ledger::open(path).expect("a ledger");
    let climb = ledger.begin_climb(&NEW).expect("a climb");
    for line in climb_lines() {
        ledger.append(climb, &line).expect("written");
    }
    (ledger, climb)
}
