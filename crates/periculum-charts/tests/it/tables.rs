//! The tables that a climb is exported as.

use std::collections::BTreeMap;

use periculum_charts::{Cell, Table, incidents, samples, scores, trials};
use periculum_core::engine::Event;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::Span;
use periculum_core::model::rung::InForce;
use periculum_core::model::verdict::Verdict;
use proptest::prelude::*;

use crate::common::{TRIAL, Teller, every_second, rig_and_plan};

type Row = BTreeMap<String, Cell>;

/// The rows of a table by the names of its columns, of which each row has all.
fn rows(table: Table) -> Vec<Row> {
    let columns = table.columns;
    let named = |row: Vec<Cell>| {
        assert_eq!(row.len(), columns.len(), "{columns:?} {row:?}");
        columns.iter().cloned().zip(row).collect()
    };
    table.rows.map(named).collect()
}

fn text(text: &str) -> Cell {
    Cell::Text(text.into())
}

fn number(number: &str) -> Cell {
    Cell::Number(number.into())
}

#[test]
fn a_trial_is_told_with_its_rung_and_how_it_ended() {
    let (rig, _) = rig_and_plan();
    let mut teller = Teller::new();
    teller.trial((4300, 1200), 101.5, Verdict::Held);
    teller.trial((4350, 1190), 99.0, Verdict::Fell);
    let told = rows(trials(&teller.story, &rig, &BTreeMap::new()));
    assert_eq!(told.len(), 2);
    let wanted = [
        ("trial", number("2")),
        ("began", text("1970-01-01T00:01:40.000Z")),
        ("stage", number("2")),
        ("proof", text("quick")),
        ("verdict", text("fell")),
        ("incident", Cell::Nothing),
        ("tested_s", number("60")),
        ("score", number("99")),
        ("score_unit", text("GFLOP/s")),
        ("clock", number("4350")),
        ("volts", number("1190")),
        ("clock_reported", Cell::Nothing),
        ("clock_measured", Cell::Nothing),
    ];
    for (column, cell) in wanted {
        assert_eq!(told[1][column], cell, "{column}");
    }
    assert!(matches!(&told[1]["because"], Cell::Text(why) if why.contains("4 300")), "{:?}", told[1]["because"]);
}

#[test]
fn what_the_rig_reports_stands_beside_what_was_asked() {
    let (rig, _) = rig_and_plan();
    let mut teller = Teller::new();
    teller.story.hear(&Event::Applied { reported: InForce::from([("clock".to_owned(), 4290.into())]) });
    teller.trial((4300, 1200), 101.5, Verdict::Held);
    let told = rows(trials(&teller.story, &rig, &BTreeMap::new()));
    assert_eq!((&told[0]["clock"], &told[0]["clock_reported"]), (&number("4300"), &number("4290")));
    assert_eq!(told[0]["volts_reported"], Cell::Nothing, "what was not read back is not made up");
}

#[test]
fn every_pass_with_a_score_has_a_row() {
    let mut teller = Teller::new();
    teller.trial((4300, 1200), 101.5, Verdict::Held);
    teller.trial((4350, 1200), 102.5, Verdict::Fell);
    let told = rows(scores(&teller.story));
    let column = |name: &str| told.iter().map(|row| row[name].clone()).collect::<Vec<_>>();
    assert_eq!(column("trial"), [number("1"), number("2")]);
    assert_eq!(column("score"), [number("101.5"), number("102.5")]);
    assert_eq!(column("less_is_better"), [Cell::Flag(false), Cell::Flag(false)]);
    assert_eq!(column("ran_s"), [number("60"), number("60")]);
}

#[test]
fn an_incident_is_told_with_its_place_in_the_climb_and_in_its_pass() {
    let mut teller = Teller::new();
    let trial = teller.trial((4300, 1200), 100.0, Verdict::Fell);
    let wrong = Incident::new(IncidentKind::WrongResult, "expected 1, found 2");
    teller.incident(41_500, Some(trial), wrong.at("core 3").into_pass(Span::from_millis(41_500)));
    teller.incident(2 * TRIAL, None, Incident::new(IncidentKind::CorrectedError, "counted"));
    let told = rows(incidents(&teller.story));
    assert_eq!((&told[0]["into_climb_s"], &told[0]["into_pass_s"]), (&number("41.5"), &number("41.5")));
    assert_eq!((&told[0]["trial"], &told[0]["pass"]), (&number("1"), &number("1")));
    assert_eq!((&told[0]["incident"], &told[0]["place"]), (&text("wrong-result"), &text("core 3")));
    assert_eq!(told[0]["evidence"], text("expected 1, found 2"));
    assert_eq!((&told[1]["trial"], &told[1]["place"]), (&Cell::Nothing, &Cell::Nothing));
}

#[test]
fn readings_are_told_sensor_by_sensor_with_their_units() {
    let (rig, _) = rig_and_plan();
    let readings =
        BTreeMap::from([("heat".to_owned(), every_second([40.5, 41.0])), ("stray".to_owned(), every_second([7.0]))]);
    let mut teller = Teller::new();
    teller.trial((4300, 1200), 100.0, Verdict::Held);
    let told = rows(samples(&teller.story, &readings, &rig));
    let cells: Vec<_> =
        told.iter().map(|row| (&row["sensor"], &row["unit"], &row["into_climb_s"], &row["reading"])).collect();
    let (heat, stray, degrees) = (text("heat"), text("stray"), text("°C"));
    assert_eq!(cells[0], (&heat, &degrees, &number("0"), &number("40.5")));
    assert_eq!(cells[1], (&heat, &degrees, &number("1"), &number("41")));
    assert_eq!(cells[2], (&stray, &Cell::Nothing, &number("0"), &number("7")), "a sensor that the rig no longer has");
}

proptest! {
    /// Whatever happened, every row of every table has every column, and numbers are what programs read as numbers.
    #[test]
    fn tables_are_whole(
        ended in prop::collection::vec((0i64..12, 0i64..12, -1e12f64..1e12, 0usize..4), 0..20), evidence in ".{0,20}",
    ) {
        let (rig, _) = rig_and_plan();
        let verdicts = [Verdict::Held, Verdict::Slipped, Verdict::Fell, Verdict::Void];
        let mut teller = Teller::new();
        for (clock, volts, score, verdict) in &ended {
            let trial = teller.trial((4200 + 50 * clock, 1200 - 10 * volts), *score, verdicts[*verdict]);
            let at = i64::from(trial) * TRIAL;
            teller.incident(at, Some(trial), Incident::new(IncidentKind::Seen, evidence.as_str()));
        }
        let readings = BTreeMap::from([("heat".to_owned(), every_second(ended.iter().map(|one| one.2)))]);
        let story = &teller.story;
        let tables = [trials(story, &rig, &readings), scores(story), incidents(story), samples(story, &readings, &rig)];
        for table in tables {
            let told = rows(table);
            prop_assert_eq!(told.len(), ended.len());
            for cell in told.iter().flat_map(BTreeMap::values) {
                prop_assert!(!matches!(cell, Cell::Number(number) if number.parse::<f64>().is_err()), "{cell:?}");
                prop_assert!(!matches!(cell, Cell::Text(text) if text.is_empty()), "nothing is nothing, and no empty text");
            }
        }
    }
}
