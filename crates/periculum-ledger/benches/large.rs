//! A ledger of 100,000 trials and 50 million readings: `cargo bench -p periculum-ledger`. It takes some minutes to fill,
//! and 2 GB of room for temporary files.

use std::collections::BTreeMap;
use std::path::PathBuf;
use std::sync::LazyLock;

use divan::{Bencher, black_box};
use periculum_core::Decimal;
use periculum_core::engine::{ClimbEnd, Entry, Event, RULES, Said};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassReport, Score};
use periculum_core::model::reason::Reason;
use periculum_core::model::rung::{InForce, Rung};
use periculum_core::model::verdict::Verdict;
use periculum_core::story::finding::Query;
use periculum_ledger::{ClimbRow, Ledger, Line, NewClimb};
use tempfile::TempDir;

const CLIMBS: i64 = 1_000;
const TRIALS: u32 = 100;

/// Sensors of the nights, and how often each was read in one: twice a second for eight hours.
const SENSORS: usize = 8;
const READ: i64 = 57_600;

/// So many climbs were that long; together they have the 50 million readings.
const NIGHTS: i64 = 109;

struct Filled {
    _folder: TempDir,
    path: PathBuf,
}

static LARGE: LazyLock<Filled> = LazyLock::new(fill);

fn main() {
    divan::main();
}

fn fill() -> Filled {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("large.ledger");
    let mut ledger = Ledger::open(&path).expect("a ledger");
    for number in 0..CLIMBS {
        let wall = Moment::from_millis(1_700_000_000_000 + number * 86_400_000);
        ledger.begin_climb(&new(wall)).expect("a climb");
    }
    for climb in 1..=CLIMBS {
        for trial in 1..=TRIALS {
            lines(trial).iter().for_each(|line| ledger.append(climb, line).expect("written"));
        }
        ledger.append(climb, &end()).expect("written");
    }
    for climb in 1..=NIGHTS {
        read_night(&mut ledger, climb);
    }
    // Climbs that are over are sealed when the ledger is opened for the first time after them.
    drop(ledger);
    drop(Ledger::open(&path).expect("a ledger"));
    Filled { _folder: folder, path }
}

fn new(wall: Moment) -> NewClimb<'static> {
    NewClimb {
        plan: "a plan",
        rig: "a rig",
        specimen: "processor A-0417",
        use_name: "daily",
        seed: None,
        plan_text: "",
        rig_text: "",
        wall,
    }
}

/// A trial of two passes, as its lines are.
fn lines(trial: u32) -> Vec<Line> {
    let clock = 4200 + 5 * i64::from(trial);
    let rung: Rung = [("core_clock".to_owned(), clock.into()), ("core_voltage".to_owned(), Decimal::new(1250, 3))]
        .into_iter()
        .collect();
    let pass = |load: &str| Pass::usual(load, Span::from_seconds(60));
    let report = || PassReport {
        ran: Span::from_seconds(60),
        rounds: 900,
        score: Some(Score::of(101.5, "GFLOP/s")),
        ..PassReport::default()
    };
    let (verdict, note) = if trial.is_multiple_of(9) { (Verdict::Fell, "fan loud") } else { (Verdict::Held, "calm") };
    let began = Entry::TrialBegan {
        trial,
        stage: 0,
        rung,
        proof: "quick".into(),
        reason: Reason::Baseline { nth: trial, of: TRIALS, start: None },
    };
    let ended = Entry::TrialEnded { trial, verdict, incident: None, tested: Span::from_seconds(120), gain: None };
    vec![
        line(vec![began, Entry::PassBegan { trial, pass: 0, order: pass("integer"), on: vec![] }]),
        line(vec![
            Entry::PassEnded { trial, pass: 0, report: report() },
            Entry::PassBegan { trial, pass: 1, order: pass("dense"), on: vec![] },
        ]),
        line(vec![Entry::Operator { said: Said::Note { text: note.into() } }]),
        line(vec![Entry::PassEnded { trial, pass: 1, report: report() }, ended]),
    ]
}

fn end() -> Line {
    let end = ClimbEnd::Completed;
    let tested = Span::from_seconds(12_000);
    line(vec![Entry::Ended {
        end,
        trials: TRIALS,
        falls: 11,
        tested,
        marks: Vec::new(),
        test_hours: 3.3,
        not_at_stock: Vec::new(),
        left_at: None,
    }])
}

fn line(entries: Vec<Entry>) -> Line {
    let moment = Moment::from_millis(0);
    let event = Event::Started { in_force: InForce::new(), ahead: 0, rules: RULES, kinds: Vec::new() };
    Line { at: moment, wall: moment, boot: "a-boot".into(), event, entries }
}

fn read_night(ledger: &mut Ledger, climb: i64) {
    let names: Vec<String> = (0..SENSORS).map(|sensor| format!("sensor {sensor}")).collect();
    let set = |index: i64| {
        let readings = names.iter().enumerate();
        let readings =
            readings.map(|(sensor, name)| (name.clone(), 60.0 + (index as f64 * 0.01 + sensor as f64).sin()));
        (Moment::from_millis(500 * index), readings.collect::<BTreeMap<_, _>>())
    };
    for from in (0..READ).step_by(256) {
        let sets: Vec<_> = (from..(from + 256).min(READ)).map(set).collect();
        ledger.add_samples(climb, &sets).expect("written");
    }
}

fn facts(row: &ClimbRow) -> String {
    format!("climb {} {} {} {}", row.climb, row.rig, row.specimen, row.plan)
}

#[divan::bench(sample_count = 20)]
fn open(bencher: Bencher) {
    let path = &LARGE.path;
    bencher.bench_local(|| Ledger::open(path).expect("a ledger"));
}

/// As `periculum ledger --check` does.
#[divan::bench(sample_count = 1)]
fn check_every_line(bencher: Bencher) {
    let mut ledger = Ledger::open(&LARGE.path).expect("a ledger");
    bencher.bench_local(|| ledger.check().expect("checked"));
}

#[divan::bench(sample_count = 20)]
fn list_climbs(bencher: Bencher) {
    let ledger = Ledger::open(&LARGE.path).expect("a ledger");
    bencher.bench_local(|| ledger.climbs().expect("climbs"));
}

/// What the interface does in a thread of its own when the list of climbs is shown.
#[divan::bench(sample_count = 10)]
fn read_every_trial(bencher: Bencher) {
    let ledger = Ledger::open(&LARGE.path).expect("a ledger");
    let climbs = ledger.climbs().expect("climbs");
    bencher.bench_local(|| ledger.index(&climbs, facts).expect("trials"));
}

/// What it does at each letter that is typed.
#[divan::bench(args = ["fell", "loud clock>4500", "processor a-0417 held clock<4300", "nothing like it"], sample_count = 20)]
fn find(bencher: Bencher, typed: &str) {
    let ledger = Ledger::open(&LARGE.path).expect("a ledger");
    let index = ledger.index(&ledger.climbs().expect("climbs"), facts).expect("trials");
    bencher.bench_local(|| index.find(&Query::of(black_box(typed))));
}

/// Every reading of a night, as when its climb is opened.
#[divan::bench(sample_count = 10)]
fn read_a_night(bencher: Bencher) {
    let ledger = Ledger::open(&LARGE.path).expect("a ledger");
    bencher.bench_local(|| ledger.samples(7).expect("readings"));
}
