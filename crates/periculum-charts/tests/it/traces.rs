//! What sensors read, as pictures: alone over a stretch of time, and several stretches laid over each other.

use std::collections::BTreeMap;

use periculum_charts::{Figure, traces, traces_over};
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::verdict::Verdict;
use periculum_core::story::Story;
use periculum_core::story::series::Series;
use periculum_core::story::stretch::Stretch;
use proptest::prelude::*;

use crate::common::{Teller, circles, every_second, lines, moment, outside, rig_and_plan, texts};

const BLUE: (u8, u8, u8) = (0x2f, 0x5a, 0x9e);
const OCHRE: (u8, u8, u8) = (0x95, 0x68, 0x12);
const RED: (u8, u8, u8) = (0xa8, 0x32, 0x26);

fn readings(heat: impl IntoIterator<Item = f64>, fan: impl IntoIterator<Item = f64>) -> BTreeMap<String, Series> {
    BTreeMap::from([("heat".to_owned(), every_second(heat)), ("fan".to_owned(), every_second(fan))])
}

fn drawn(readings: &BTreeMap<String, Series>, story: &Story, seconds: i64) -> Figure {
    traces(readings, &rig_and_plan().0, story, moment(0), moment(1000 * seconds)).expect("drawn")
}

#[test]
fn a_sensor_that_did_not_move_takes_no_room() {
    let story = Story::default();
    let both = drawn(&readings((0..60).map(f64::from), (0..60).map(f64::from)), &story, 60);
    let one = drawn(&readings((0..60).map(f64::from), [900.0; 60]), &story, 60);
    assert_eq!(one.size.1 * 2, both.size.1);
    assert!(texts(&one).iter().all(|text| !text.starts_with("fan")));
}

#[test]
fn a_sensor_is_told_with_its_unit_and_its_sums() {
    let figure = drawn(&readings([40.0, 50.0, 60.0], [900.0; 3]), &Story::default(), 3);
    assert!(texts(&figure).contains(&"hottest core, °C   40.0 to 60.0, mean 50.0"), "{:?}", texts(&figure));
}

#[test]
fn nothing_read_is_a_picture_too() {
    let figure = drawn(&BTreeMap::new(), &Story::default(), 60);
    assert!(figure.shapes.is_empty() && figure.size.1 > 0, "{figure:?}");
}

#[test]
fn a_cut_off_is_drawn_where_the_readings_come_near_it() {
    let with = |highest: f64| {
        let heat = (0..60).map(|second| highest - 60.0 + f64::from(second));
        lines(&drawn(&readings(heat, [900.0; 60]), &Story::default(), 60), RED, 1).len()
    };
    assert_eq!(with(70.0), 0);
    assert!(with(97.0) > 10, "broken, so that it is no reading where nothing has a colour");
}

#[test]
fn incidents_of_the_stretch_are_drawn_in_the_colour_of_their_verdict() {
    let mut teller = Teller::new();
    let trial = teller.trial((4300, 1200), 100.0, Verdict::Fell);
    teller.incident(20_000, Some(trial), Incident::new(IncidentKind::WrongResult, "a residual"));
    teller.incident(30_000, Some(trial), Incident::new(IncidentKind::Throttled, "the clock fell"));
    teller.incident(90_000, Some(trial), Incident::new(IncidentKind::WrongResult, "later than what is shown"));
    let figure = drawn(&readings((0..60).map(f64::from), [900.0; 60]), &teller.story, 60);
    let (fell, slipped) = (lines(&figure, RED, 2), lines(&figure, OCHRE, 2));
    assert_eq!((fell.len(), slipped.len()), (1, 1));
    let (crosses, circles) = (lines(&figure, RED, 3).len(), circles(&figure, OCHRE));
    assert_eq!((crosses, circles), (2, 2), "and each has the sign that tells it apart in grey");
    assert!(fell[0][0].0 < slipped[0][0].0, "the earlier stands to the left");
    assert_eq!(fell[0][0].0, fell[0][1].0, "it goes straight up");
}

fn part(from: i64, to: i64) -> Stretch {
    Stretch { from: moment(1000 * from), to: moment(1000 * to) }
}

fn over(parts: &[(&str, Stretch)], readings: &BTreeMap<String, Series>) -> Figure {
    let parts: Vec<(String, Stretch)> = parts.iter().map(|(name, part)| ((*name).to_owned(), *part)).collect();
    traces_over(readings, &rig_and_plan().0, &parts).expect("drawn")
}

#[test]
fn parts_begin_at_the_same_place_and_end_where_they_end() {
    let heat = readings((0..200).map(f64::from), (0..200).map(f64::from));
    let figure = over(&[("trial 1", part(0, 100)), ("trial 2", part(100, 150))], &heat);
    let (long, short) = (lines(&figure, BLUE, 2)[0], lines(&figure, OCHRE, 2)[0]);
    let ends = |line: &[(i32, i32)]| (line[0].0, line[line.len() - 1].0);
    let ((from, to), (also_from, half)) = (ends(long), ends(short));
    assert!((from - also_from).abs() <= 2, "{from} {also_from}");
    assert!(((to - from) - 2 * (half - also_from)).abs() <= 12, "half as long: {to} {half}");
    assert!(short[0].1 < long[0].1, "what reads more stands higher");
}

#[test]
fn each_part_carries_its_number_and_its_name() {
    let heat = readings((0..200).map(f64::from), [900.0; 200]);
    let figure = over(&[("trial 1", part(0, 100)), ("trial 7", part(100, 200))], &heat);
    let texts = texts(&figure);
    assert!(texts.contains(&"1 trial 1") && texts.contains(&"2 trial 7"), "{texts:?}");
    assert!(["1", "2"].iter().all(|number| texts.contains(number)), "lines have their numbers: {texts:?}");
}

#[test]
fn a_part_that_nothing_was_read_in_draws_no_line() {
    let heat = readings((0..100).map(f64::from), [900.0; 100]);
    let figure = over(&[("trial 1", part(0, 100)), ("trial 2", part(500, 600))], &heat);
    assert!(lines(&figure, OCHRE, 2).iter().all(|line| line.is_empty()), "{:?}", lines(&figure, OCHRE, 2));
}

proptest! {
    /// Whatever is read, also nothing and what is no number on any scale, stays within the picture.
    #[test]
    fn no_reading_leaves_the_picture(heat in prop::collection::vec(-1e4f64..1e5, 0..300), seconds in 1i64..400, split in 1i64..200) {
        let readings = readings(heat, (0..50).map(f64::from));
        prop_assert_eq!(outside(&drawn(&readings, &Story::default(), seconds)), Vec::new());
        let both = [("a", part(0, split)), ("b", part(split, split + seconds))];
        prop_assert_eq!(outside(&over(&both, &readings)), Vec::new());
    }
}
