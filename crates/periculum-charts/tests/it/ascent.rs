//! The ascent profile as SVG, for every verdict and for the poorest of climbs.

use periculum_charts::ascent;
use periculum_core::Decimal;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::profile::{AscentProfile, Axis, Other, Point};

fn profile(verdicts: &[Option<Verdict>]) -> AscentProfile {
    let points = verdicts.iter().enumerate().map(|(index, verdict)| Point {
        trial: index as u32 + 1,
        height: Decimal::from(4200 + 50 * index),
        verdict: *verdict,
        is_mark: *verdict == Some(Verdict::Held),
    });
    let voltage = Other {
        axis: Axis { label: "core voltage".into(), unit: "V".into(), words: Vec::new() },
        values: (0..verdicts.len() as i64).map(|nth| Some(Decimal::new(1250 - 5 * nth, 3))).collect(),
    };
    AscentProfile {
        height: Axis { label: "core <clock>".into(), unit: "MHz".into(), words: Vec::new() },
        others: vec![voltage],
        bands: Vec::new(),
        points: points.collect(),
        stock: Decimal::from(4200),
        ceiling: Decimal::from(5100),
    }
}

fn ascent_svg(profile: &AscentProfile) -> String {
    ascent(profile).expect("drawn").svg()
}

#[test]
fn every_verdict_has_a_sign_of_its_own() {
    let sign = |verdict| {
        let with = ascent_svg(&profile(&[verdict]));
        let circles = with.matches("<circle").count();
        (circles, with.contains("fill=\"none\" stroke=\"#956812\""), with.matches("<line").count())
    };
    let signs: Vec<_> =
        [Some(Verdict::Held), Some(Verdict::Slipped), Some(Verdict::Fell)].into_iter().map(sign).collect();
    assert_eq!((signs[0].0, signs[1].0, signs[2].0), (1, 2, 0), "one, two and no circles: {signs:?}");
}

#[test]
fn labels_can_not_break_the_picture() {
    let svg = ascent_svg(&profile(&[Some(Verdict::Held), None, Some(Verdict::Void)]));
    assert!(svg.contains("core &lt;clock&gt;, MHz") && !svg.contains("<clock>"), "{svg}");
    assert!(svg.contains("ceiling 5 100"));
    assert_eq!(svg.matches("<polygon").count(), 1, "one flag for one mark");
}

#[test]
fn a_climb_without_trials_or_without_other_settings_is_drawn_too() {
    let mut poor = profile(&[]);
    ascent_svg(&poor);
    let room = Other { axis: Axis { label: "fan".into(), unit: "%".into(), words: Vec::new() }, values: Vec::new() };
    poor.others.push(room);
    assert!(ascent_svg(&poor).contains("core voltage") && ascent_svg(&poor).contains("fan, %"));
    poor.others.clear();
    assert!(!ascent_svg(&poor).contains("core voltage"));
}

#[test]
fn the_same_climb_gives_the_same_bytes() {
    let verdicts = [Some(Verdict::Held), Some(Verdict::Fell), None];
    assert_eq!(ascent_svg(&profile(&verdicts)), ascent_svg(&profile(&verdicts)));
}
