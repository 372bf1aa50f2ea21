//! The map as a picture: what is known of the border, and nothing beside the paper.

use periculum_charts::{Shape, map};
use periculum_core::Decimal;
use periculum_core::analysis::terrain::{Bounds, Place, Side, Terrain};
use periculum_core::model::ladder::Direction;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::profile::Axis;
use proptest::prelude::*;

use crate::common::{Teller, lines, outside, rig_and_plan, texts};

const OCHRE: (u8, u8, u8) = (0x95, 0x68, 0x12);
const RED: (u8, u8, u8) = (0xa8, 0x32, 0x26);

fn side(name: &str, stock: i64, ceiling: i64) -> Side {
    let axis = Axis { label: name.into(), unit: "MHz".into(), words: Vec::new() };
    let (stock, ceiling) = (stock.into(), ceiling.into());
    Side { name: name.into(), axis, stock, floor: Decimal::from(0), ceiling, harder: Direction::Up }
}

fn terrain(places: Vec<Place>, border: Vec<Bounds>, ceiling: i64) -> Terrain {
    Terrain { across: side("clock", 4200, ceiling), up: side("volts", 1200, 1300), beside: Vec::new(), places, border }
}

fn place(trial: u32, across: i64, up: i64, verdict: Verdict) -> Place {
    Place { trial, across: across.into(), up: up.into(), verdict: Some(verdict), is_in_plane: true }
}

fn bounds(holds: Option<i64>, falls: Option<i64>) -> Bounds {
    Bounds { up: 1200.into(), holds: holds.map(Decimal::from), falls: falls.map(Decimal::from) }
}

fn strokes(terrain: &Terrain) -> usize {
    let figure = map(terrain).expect("drawn");
    figure.shapes.iter().filter(|shape| matches!(shape, Shape::Polygon { .. })).count()
}

#[test]
fn what_holds_is_one_stroke_and_what_falls_is_two() {
    let with =
        |holds, falls| strokes(&terrain(vec![place(1, 4200, 1200, Verdict::Held)], vec![bounds(holds, falls)], 9000));
    let counts = [with(None, None), with(Some(4300), None), with(None, Some(4400)), with(Some(4300), Some(4400))];
    assert_eq!(counts, [0, 1, 2, 3]);
}

#[test]
fn only_what_lies_between_two_borders_is_shown_as_unknown() {
    let bands = |holds, falls| {
        let terrain = terrain(vec![place(1, 4200, 1200, Verdict::Held)], vec![bounds(holds, falls)], 9000);
        lines(&map(&terrain).expect("drawn"), OCHRE, 7).len()
    };
    assert_eq!([bands(Some(4300), None), bands(None, Some(4400)), bands(Some(4300), Some(4400))], [0, 0, 1]);
}

#[test]
fn a_band_goes_from_left_to_right_whichever_border_is_where() {
    let band = |holds, falls| {
        let places = vec![place(1, 4200, 1200, Verdict::Held), place(2, 4500, 1200, Verdict::Fell)];
        let figure = map(&terrain(places, vec![bounds(Some(holds), Some(falls))], 9000)).expect("drawn");
        lines(&figure, OCHRE, 7)[0].to_vec()
    };
    assert_eq!(band(4300, 4400), band(4400, 4300), "near a border chance may turn them around");
    assert!(band(4300, 4400)[0].0 < band(4300, 4400)[1].0);
}

#[test]
fn a_ceiling_that_is_far_away_is_not_drawn() {
    let places = || vec![place(1, 4200, 1200, Verdict::Held), place(2, 4500, 1190, Verdict::Held)];
    let near = map(&terrain(places(), Vec::new(), 4500)).expect("drawn");
    let far = map(&terrain(places(), Vec::new(), 9000)).expect("drawn");
    assert!(texts(&near).contains(&"ceiling") && !texts(&far).contains(&"ceiling"));
    assert!(lines(&near, RED, 1).len() > 10 && lines(&far, RED, 1).is_empty());
}

#[test]
fn the_terrain_of_a_climb_has_its_settings_on_its_axes() {
    let (rig, plan) = rig_and_plan();
    let mut teller = Teller::new();
    teller.trial((4200, 1200), 100.0, Verdict::Held);
    teller.trial((4250, 1200), 101.0, Verdict::Fell);
    let terrain = Terrain::usual(&rig, &plan)
        .and_then(|sides| Terrain::of(&teller.story, &rig, &plan, &sides, None))
        .expect("two settings");
    let figure = map(&terrain).expect("drawn");
    let texts = texts(&figure);
    assert!(texts.contains(&"core clock, MHz") && texts.contains(&"core voltage, mV"), "{texts:?}");
}

proptest! {
    /// Whatever was tried, its signs are on the paper, one for each trial.
    #[test]
    fn nothing_is_drawn_beside_the_paper(tried in prop::collection::vec((-500i64..9000, 0i64..2000, 0usize..4), 0..30)) {
        let verdicts = [Verdict::Held, Verdict::Slipped, Verdict::Fell, Verdict::Void];
        let places: Vec<Place> =
            (1..).zip(&tried).map(|(trial, (across, up, verdict))| place(trial, *across, *up, verdicts[*verdict])).collect();
        let border = places.iter().map(|place| Bounds { up: place.up, holds: Some(place.across), falls: None }).collect();
        let figure = map(&terrain(places, border, 4500)).expect("drawn");
        prop_assert_eq!(outside(&figure), Vec::new());
        let circles = figure.shapes.iter().filter(|shape| matches!(shape, Shape::Circle { .. })).count();
        let wanted: usize = tried.iter().map(|(_, _, verdict)| [1, 2, 0, 1][*verdict]).sum();
        prop_assert_eq!(circles, wanted);
    }
}
