//! What holds for every record, whatever is in it.

use std::collections::BTreeMap;

use periculum_core::engine::{Entry, Event, Mark, Said};
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassReport, Score};
use periculum_core::model::reason::Reason;
use periculum_core::model::verdict::Verdict;
use periculum_ledger::{Ledger, Line};
use proptest::prelude::*;

use crate::common::{NEW, line, rung};

const VERDICTS: [Verdict; 4] = [Verdict::Held, Verdict::Slipped, Verdict::Fell, Verdict::Void];

/// What may happen in a trial.
#[derive(Clone, Debug)]
struct Trial {
    verdict: usize,
    score: Option<f64>,
    incidents: Vec<(usize, Option<String>, String)>,
    note: Option<String>,
    marked: bool,
    withdrawn: bool,
    rejudged: Option<usize>,
}

fn any_trial() -> impl Strategy<Value = Trial> {
    let incident = (0..IncidentKind::ALL.len(), prop::option::of(".{0,12}"), ".{0,30}");
    (
        0usize..4,
        prop::option::of(-1e9f64..1e9),
        prop::collection::vec(incident, 0..4),
        prop::option::of(any::<String>()),
        any::<bool>(),
        any::<bool>(),
        prop::option::of(0usize..4),
    )
        .prop_map(|(verdict, score, incidents, note, marked, withdrawn, rejudged)| Trial {
            verdict,
            score,
            incidents,
            note,
            marked,
            withdrawn,
            rejudged,
        })
}

/// A trial as lines of the journal.
fn told(number: u32, trial: &Trial) -> Vec<Line> {
    let at = i64::from(number) * 100;
    let began = vec![
        Entry::TrialBegan {
            trial: number,
            stage: 0,
            rung: rung(),
            proof: "quick".into(),
            reason: Reason::Baseline { nth: 1, of: 1, start: None },
        },
        Entry::PassBegan { trial: number, pass: 0, order: Pass::usual("dense", Span::from_seconds(60)), on: vec![] },
    ];
    let score = trial.score.map(|value| Score::of(value, "GFLOP/s"));
    let report = PassReport { ran: Span::from_seconds(60), rounds: 3, score, ..PassReport::default() };
    let mut ended = vec![Entry::PassEnded { trial: number, pass: 0, report }];
    ended.extend(trial.incidents.iter().map(|(kind, place, evidence)| {
        let incident = Incident { place: place.clone(), ..Incident::new(IncidentKind::ALL[*kind], evidence.as_str()) };
        Entry::Incident { trial: Some(number), pass: Some(0), incident }
    }));
    let verdict = |index: usize| VERDICTS[index];
    let tested = Span::from_seconds(60);
    ended.push(Entry::TrialEnded {
        trial: number,
        verdict: verdict(trial.verdict),
        incident: None,
        tested,
        gain: None,
    });
    let mark = Mark { rung: rung(), setting: "core_clock".into(), proof: "quick".into(), trial: number, stage: 0 };
    if trial.marked {
        ended.push(Entry::MarkSet { mark: mark.clone() });
    }
    let mut lines = vec![line(at, Event::TIME_PASSED, began), line(at + 60, Event::TIME_PASSED, ended)];
    if let Some(text) = &trial.note {
        let said = Said::Note { text: text.clone() };
        lines.push(line(at + 61, Event::OperatorSaid { said: said.clone() }, vec![Entry::Operator { said }]));
    }
    let mut later = Vec::new();
    later.extend(trial.rejudged.map(|index| Entry::Rejudged {
        trial: number,
        verdict: verdict(index),
        incident: None,
    }));
    if trial.marked && trial.withdrawn {
        later.push(Entry::MarkWithdrawn { mark, trial: number });
    }
    lines.push(line(at + 62, Event::TIME_PASSED, later));
    lines
}

/// What a ledger says of a climb by its tables.
fn tables(ledger: &Ledger, climb: i64) -> String {
    let (row, trials) = (ledger.climb(climb).expect("read"), ledger.trials(climb).expect("read"));
    let (incidents, records) = (ledger.incidents(climb).expect("read"), ledger.records().expect("read"));
    format!("{row:?} {trials:?} {incidents:?} {records:?}")
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(20))]

    /// What was appended is read again, the tables follow it step by step, and a check of everything has nothing to say.
    #[test]
    fn a_record_is_read_as_it_was_written(trials in prop::collection::vec(any_trial(), 0..8)) {
        let folder = tempfile::tempdir().expect("a folder");
        let path = folder.path().join("l");
        let mut ledger = Ledger::open(&path).expect("a ledger");
        let climb = ledger.begin_climb(&NEW).expect("a climb");
        let lines: Vec<Line> = (1..).zip(&trials).flat_map(|(number, trial)| told(number, trial)).collect();
        for line in &lines {
            ledger.append(climb, line).expect("written");
        }
        let live = tables(&ledger, climb);
        drop(ledger);
        let mut ledger = Ledger::open(&path).expect("a ledger");
        prop_assert_eq!(ledger.dropped(), []);
        prop_assert_eq!(ledger.lines(climb).expect("read"), lines);
        ledger.check().expect("checked");
        prop_assert_eq!(ledger.dropped(), [], "tables that were made step by step are those that the journal makes");
        prop_assert_eq!(tables(&ledger, climb), live);
    }

    /// What the tables say of a trial is what was said of it last.
    #[test]
    fn the_last_word_counts(trials in prop::collection::vec(any_trial(), 1..8)) {
        let folder = tempfile::tempdir().expect("a folder");
        let mut ledger = Ledger::open(&folder.path().join("l")).expect("a ledger");
        let climb = ledger.begin_climb(&NEW).expect("a climb");
        for line in (1..).zip(&trials).flat_map(|(number, trial)| told(number, trial)) {
            ledger.append(climb, &line).expect("written");
        }
        let last = |trial: &Trial| VERDICTS[trial.rejudged.unwrap_or(trial.verdict)];
        let rows = ledger.trials(climb).expect("read");
        let verdicts: Vec<&str> = rows.iter().filter_map(|row| row.verdict.as_deref()).collect();
        let wanted: Vec<&str> = trials.iter().map(|trial| last(trial).name()).collect();
        prop_assert_eq!(verdicts, wanted);
        let row = ledger.climb(climb).expect("read");
        let fell = trials.iter().filter(|trial| last(trial) == Verdict::Fell).count();
        prop_assert_eq!((row.trials as usize, row.falls as usize), (trials.len(), fell));
        let stands = trials.iter().any(|trial| trial.marked && !trial.withdrawn);
        prop_assert_eq!(row.mark.is_some(), stands);
        let told: usize = trials.iter().map(|trial| trial.incidents.len()).sum();
        prop_assert_eq!(ledger.incidents(climb).expect("read").len(), told);
    }

    /// Readings come back as they were given, in whatever portions they came.
    #[test]
    fn readings_come_back_in_any_portions(
        steps in prop::collection::vec((1i64..5000, 0usize..3, any::<f64>()), 0..400), portion in 1usize..100,
    ) {
        let folder = tempfile::tempdir().expect("a folder");
        let mut ledger = Ledger::open(&folder.path().join("l")).expect("a ledger");
        let climb = ledger.begin_climb(&NEW).expect("a climb");
        let (mut at, mut sets, mut wanted) = (0, Vec::new(), BTreeMap::<String, Vec<(Moment, f64)>>::new());
        for (step, sensor, value) in steps {
            at += step;
            let (moment, sensor) = (Moment::from_millis(at), ["core", "fan", "wall"][sensor].to_owned());
            sets.push((moment, BTreeMap::from([(sensor.clone(), value)])));
            if value.is_finite() {
                wanted.entry(sensor).or_default().push((moment, value));
            }
        }
        for some in sets.chunks(portion) {
            ledger.add_samples(climb, some).expect("written");
        }
        let read = ledger.samples(climb).expect("read");
        let read: BTreeMap<String, Vec<(Moment, f64)>> =
            read.into_iter().map(|(sensor, series)| (sensor, series.iter().collect())).collect();
        prop_assert_eq!(read, wanted);
    }
}
