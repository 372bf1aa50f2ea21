//! Scores over a setting as a picture.

use periculum_charts::{Figure, Shape, score_curve};
use periculum_core::analysis::scores::{Benchmark, Level, Measure, Took};
use periculum_core::inference::noise::Noise;
use periculum_core::model::pass::Threads;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::profile::Axis;
use proptest::prelude::*;

use crate::common::{lines, outside, texts};

const PALE: (u8, u8, u8) = (0x9a, 0x9d, 0xa2);
const BLUE: (u8, u8, u8) = (0x2f, 0x5a, 0x9e);

fn level(value: i64, scores: &[f64]) -> Level {
    Level {
        value: Some(value.into()),
        set_to: Some(value.into()),
        trials: vec![1],
        verdict: Verdict::Held,
        scores: scores.to_vec(),
        disturbed: 0,
        over_baseline: None,
        over_before: None,
        took: Took::default(),
    }
}

fn benchmark(scores: &[f64], best: usize) -> Benchmark {
    let what = Measure { load: "dense".into(), threads: Threads::All, unit: "GFLOP/s".into(), less_is_better: false };
    Benchmark {
        what,
        beside: Vec::new(),
        noise: Some(Noise { deviation: 0.01, freedom: 3 }),
        baseline: Some((100.0, 2)),
        at_stock: Took::default(),
        levels: (0..).zip(scores).map(|(index, score)| level(4200 + 50 * index, &[*score])).collect(),
        best,
        pays_until: None,
    }
}

fn drawn(benchmark: &Benchmark) -> Figure {
    let axis = Axis { label: "core clock".into(), unit: "MHz".into(), words: Vec::new() };
    score_curve(&[(String::new(), benchmark)], 0, &axis).expect("drawn")
}

#[test]
fn the_best_level_stands_out() {
    let figure = drawn(&benchmark(&[101.0, 105.0, 103.0], 1));
    let blue: Vec<usize> = figure
        .shapes
        .iter()
        .filter_map(|shape| if let Shape::Circle { colour, .. } = shape { Some(colour.rgb) } else { None })
        .enumerate()
        .filter_map(|(index, colour)| (colour == BLUE).then_some(index))
        .collect();
    assert_eq!(blue, [1, 2], "with a ring around it, which stands out in grey too");
}

#[test]
fn each_curve_of_a_family_is_there_with_its_name_and_number() {
    let (slow, fast) = (benchmark(&[101.0, 105.0, 103.0], 1), benchmark(&[121.0, 125.0], 1));
    let axis = Axis { label: "core clock".into(), unit: "MHz".into(), words: Vec::new() };
    let family = [("bus clock 7 MHz".to_owned(), &slow), ("bus clock 8 MHz".to_owned(), &fast)];
    let figure = score_curve(&family, 1, &axis).expect("drawn");
    assert_eq!(outside(&figure), Vec::new());
    let words = texts(&figure);
    for (told, times) in [("1 bus clock 7 MHz", 1), ("2 bus clock 8 MHz", 1), ("1", 1), ("2", 1)] {
        assert_eq!(words.iter().filter(|word| **word == told).count(), times, "{told} in {words:?}");
    }
    assert_eq!(lines(&figure, PALE, 2).len(), 2, "only the shown one has intervals");
}

#[test]
fn each_level_has_an_interval_where_the_noise_is_known() {
    let heights = |benchmark: &Benchmark| -> Vec<i32> {
        lines(&drawn(benchmark), PALE, 2).iter().map(|line| line[0].1 - line[1].1).collect()
    };
    let known = benchmark(&[101.0, 105.0, 103.0], 1);
    let unknown = Benchmark { noise: None, ..known.clone() };
    assert!(heights(&known).iter().all(|height| *height > 0), "{:?}", heights(&known));
    assert_eq!(heights(&unknown), [0, 0, 0], "what nobody knows has no length");
}

#[test]
fn more_measurements_make_a_shorter_interval() {
    let mut twice = benchmark(&[101.0, 105.0, 103.0], 1);
    twice.levels[0].scores = vec![101.0; 4];
    let figure = drawn(&twice);
    let heights: Vec<i32> = lines(&figure, PALE, 2).iter().map(|line| line[0].1 - line[1].1).collect();
    assert!(heights[0] * 3 < heights[1] * 2, "{heights:?}: half as long, as four are one root of it");
}

#[test]
fn what_is_not_known_is_not_said() {
    let said = |benchmark: &Benchmark| -> Vec<bool> {
        let figure = drawn(benchmark);
        ["stock", "little gain beyond here"].iter().map(|words| texts(&figure).contains(words)).collect()
    };
    let all = Benchmark { pays_until: Some(1), ..benchmark(&[101.0, 105.0, 105.1], 1) };
    assert_eq!(said(&all), [true, true]);
    assert_eq!(said(&Benchmark { baseline: None, ..all.clone() }), [false, true]);
    assert_eq!(said(&Benchmark { pays_until: None, ..all }), [true, false]);
}

proptest! {
    /// Whatever was scored, and however poorly it is known, it is on the paper, and the words are.
    #[test]
    fn every_curve_fits_the_paper(
        scores in prop::collection::vec(1e-3f64..1e6, 1..20), best in any::<prop::sample::Index>(),
        pays in any::<prop::sample::Index>(), deviation in 0.0f64..0.5,
    ) {
        let mut benchmark = benchmark(&scores, best.index(scores.len()));
        benchmark.pays_until = Some(pays.index(scores.len()));
        benchmark.noise = Some(Noise { deviation, freedom: 5 });
        prop_assert_eq!(outside(&drawn(&benchmark)), Vec::new());
    }
}
