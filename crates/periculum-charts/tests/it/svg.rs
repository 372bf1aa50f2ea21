//! Pictures as SVG: readable for programs and people, whatever the texts are.

use std::collections::BTreeSet;

use periculum_charts::{Colour, Figure, Shape};
use proptest::prelude::*;

fn saying(texts: &[String]) -> Figure {
    let colour = Colour { rgb: (1, 2, 3), alpha: 1.0 };
    let shape =
        |text: &String| Shape::Text { at: (1.0, 2.0), size: 13.0, text: text.clone(), colour, is_upright: false };
    Figure { size: (100, 50), shapes: texts.iter().map(shape).collect() }
}

/// What stands between each of two signs of this beginning and the next quotation mark.
fn quoted<'a>(svg: &'a str, beginning: &str) -> BTreeSet<&'a str> {
    svg.split(beginning).skip(1).filter_map(|rest| rest.split('"').next()).collect()
}

#[test]
fn it_says_what_it_is_about_to_those_who_do_not_see_it() {
    let svg = saying(&["core clock, MHz".into(), "ceiling".into()]).svg();
    assert!(svg.contains("role=\"img\"") && svg.contains("<title>core clock, MHz</title>"), "{svg}");
    assert!(svg.contains("<desc>core clock, MHz; ceiling</desc>"), "{svg}");
}

#[test]
fn a_picture_without_words_has_a_title_too() {
    assert!(saying(&[]).svg().contains("<title>a chart</title>"));
}

#[test]
fn what_lets_something_through_says_how_much() {
    let polygon = |alpha| {
        let colour = Colour { rgb: (255, 0, 16), alpha };
        Figure { size: (9, 9), shapes: vec![Shape::Polygon { points: vec![(0, 0), (1, 2)], colour }] }.svg()
    };
    assert!(polygon(1.0).contains("<polygon points=\"0,0 1,2\" fill=\"#ff0010\"/>"), "{}", polygon(1.0));
    assert!(polygon(0.25).contains("fill=\"#ff0010\" fill-opacity=\"0.25\""), "{}", polygon(0.25));
}

#[test]
fn upright_text_is_turned() {
    let mut figure = saying(&["up".into()]);
    assert!(!figure.svg().contains("rotate(-90)"));
    if let Shape::Text { is_upright, .. } = &mut figure.shapes[0] {
        *is_upright = true;
    }
    assert!(figure.svg().contains("rotate(-90)"));
}

proptest! {
    /// No text can end an attribute, open an element, or bring in what XML can't have; and each sign is drawn once only.
    #[test]
    fn no_text_breaks_out(texts in prop::collection::vec(any::<String>(), 1..4)) {
        let svg = saying(&texts).svg();
        prop_assert_eq!(svg.matches("<title>").count(), 1);
        prop_assert_eq!(svg.matches("aria-label=").count(), texts.len());
        let plain = |sign: char| sign == '\n' || !(sign.is_control() || matches!(sign, '\u{fffe}' | '\u{ffff}'));
        prop_assert!(svg.chars().all(plain));
        let opened = svg.matches('<').count();
        prop_assert_eq!(opened, svg.matches('>').count(), "every element that is opened is closed");
        let ampersands = svg.split('&').skip(1);
        for behind in ampersands {
            prop_assert!(["amp;", "lt;", "gt;", "quot;"].iter().any(|name| behind.starts_with(name)), "{}", behind);
        }
        prop_assert_eq!(quoted(&svg, "xlink:href=\"#g"), quoted(&svg, "<path id=\"g"));
    }
}
