//! What is told in rows and columns, and the picture of it.

use periculum_charts::{Shape, Sheet, comparison, places, sheet};
use periculum_core::analysis::contrast::{Fact, Number, Off, Value};
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::verdict::Verdict;
use proptest::prelude::*;

use crate::common::{Teller, outside, rig_and_plan};

fn words(label: &str, words: &str) -> Fact {
    Fact { label: label.into(), value: Value::Words(words.into()) }
}

fn number(label: &str, value: f64, off: f64) -> Fact {
    let number = Number { value, unit: "GFLOP/s".into(), decimals: 1, off: Off::Chance(off) };
    Fact { label: label.into(), value: Value::Number(number) }
}

#[test]
fn what_differs_stands_above_what_is_the_same() {
    let left = [words("rig", "dome"), words("cooling", "water"), number("dense", 100.0, 0.5)];
    let right = [words("rig", "dome"), words("cooling", "air"), number("dense", 110.0, 0.5)];
    let Sheet { head, rows } = comparison(&["climb 1".into(), "climb 2".into()], &[&left, &right]);
    assert_eq!(head, ["", "climb 1", "climb 2"]);
    let labels: Vec<&str> = rows.iter().map(|row| row[0].as_str()).collect();
    assert_eq!(labels, ["cooling", "dense", "", "the same, or could be:", "rig"]);
    assert_eq!(rows[1][1], "100.0 GFLOP/s", "the first is what the others are held against");
    assert!(rows[1][2].starts_with("110.0 GFLOP/s  +10.0"), "{:?}", rows[1]);
    assert!(rows.iter().all(|row| row.len() == head.len()));
}

#[test]
fn what_chance_could_be_is_not_called_a_difference() {
    let (left, right) = ([number("dense", 100.0, 2.0)], [number("dense", 101.0, 2.0)]);
    let rows = comparison(&["a".into(), "b".into()], &[&left, &right]).rows;
    assert_eq!(rows.iter().position(|row| row[0] == "dense"), Some(rows.len() - 1));
}

#[test]
fn what_one_side_does_not_know_is_a_dash() {
    let rows = comparison(&["a".into(), "b".into()], &[&[words("cooling", "water")], &[]]).rows;
    let cooling = rows.iter().find(|row| row[0] == "cooling").expect("told");
    assert_eq!(cooling[1..], ["water", "–"]);
}

#[test]
fn places_are_counted_in_the_order_that_people_count_in() {
    let (rig, _) = rig_and_plan();
    let mut teller = Teller::new();
    let first = teller.trial((4300, 1200), 100.0, Verdict::Fell);
    let second = teller.trial((4250, 1200), 100.0, Verdict::Fell);
    let wrong = |kind, place: &str| Incident::new(kind, "a residual").at(place);
    teller.incident(1_000, Some(first), wrong(IncidentKind::WrongResult, "core 10"));
    teller.incident(2_000, Some(second), wrong(IncidentKind::WrongResult, "core 2"));
    teller.incident(3_000, Some(second), wrong(IncidentKind::Stalled, "core 2"));
    teller.incident(4_000, None, Incident::new(IncidentKind::Restart, "it has no place"));
    let told = places(&teller.story, &rig).rows;
    assert_eq!(told.len(), 2, "{told:?}");
    assert_eq!(told[0][..3], ["core 2", "2", "stalled, wrong-result"]);
    assert_eq!(told[1][..3], ["core 10", "1", "wrong-result"]);
    assert!(told[0][3].contains("4 250") && told[1][3].contains("4 300"), "{told:?}");
}

#[test]
fn an_incident_outside_any_trial_is_at_no_rung() {
    let (rig, _) = rig_and_plan();
    let mut teller = Teller::new();
    teller.incident(1_000, None, Incident::new(IncidentKind::CorrectedError, "counted").at("bank 3"));
    assert_eq!(places(&teller.story, &rig).rows, [["bank 3", "1", "corrected-error", ""]]);
}

proptest! {
    /// Columns stand under each other, rows too, and nothing sticks out of the picture.
    #[test]
    fn a_sheet_is_as_large_as_what_is_in_it(rows in prop::collection::vec(prop::array::uniform3("[ -~]{0,30}"), 0..20)) {
        let head = ["first", "second", "third"].map(str::to_owned).to_vec();
        let table = Sheet { head, rows: rows.iter().map(|row| row.to_vec()).collect() };
        let figure = sheet(&table).expect("drawn");
        prop_assert_eq!(outside(&figure), Vec::new());
        let at: Vec<(i64, i64)> = figure
            .shapes
            .iter()
            .filter_map(|shape| if let Shape::Text { at: (x, y), .. } = shape { Some((*x as i64, *y as i64)) } else { None })
            .collect();
        prop_assert_eq!(at.len(), 3 * (rows.len() + 1));
        for row in at.chunks(3) {
            prop_assert!(row.iter().zip(&at[..3]).all(|(one, first)| one.0 == first.0), "{row:?}");
            prop_assert!(row.windows(2).all(|pair| pair[0].0 < pair[1].0 && pair[0].1 == pair[1].1), "{row:?}");
        }
        prop_assert!(at.windows(4).all(|four| four[3].1 > four[0].1), "each row lies below the one before");
    }
}
