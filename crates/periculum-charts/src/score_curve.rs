//! A benchmark's scores over the values of a setting as a picture.

use periculum_core::analysis::scores::{Benchmark, Level};
use periculum_core::model::quantity::scored;
use periculum_core::story::profile::Axis;
use plotters::element::{Circle, EmptyElement, PathElement, Text};
use plotters::style::Color;

use crate::figure::{Area, ChartError, Drawn, Figure};
use crate::font::{Face, width};
use crate::palette::{BLUE, INK, OCHRE, PALE};
use crate::plane::{Scale, TEXT, around, dashes, framed, on_axis, text, title, to_float};

/// Width and height of the picture, units.
const SIZE: (u32, u32) = (1000, 420);

/// Draws the mean scores with their 95 % intervals, the score at stock, and from where on the score hardly follows.
///
/// # Errors
/// When the drawing library refuses something.
pub fn score_curve(benchmark: &Benchmark, setting: &Axis) -> Result<Figure, ChartError> {
    Figure::drawn(SIZE, |root| draw(root, benchmark, setting))
}

fn draw(root: &Area, benchmark: &Benchmark, setting: &Axis) -> Drawn {
    let off = |level: &Level| benchmark.noise.map_or(0.0, |noise| noise.half_width(level.scores.len()) * level.mean());
    let places: Vec<(f64, &Level)> =
        benchmark.levels.iter().filter_map(|level| Some((to_float(level.value?), level))).collect();
    let stock = benchmark.baseline.map(|(stock, _)| stock);
    let across = around(places.iter().map(|(value, _)| *value));
    let bounds = places.iter().flat_map(|(_, level)| [level.mean() - off(level), level.mean() + off(level)]);
    let up = around(bounds.chain(stock));
    let (on_across, on_up) = (|value: &f64| on_axis(*value, &across), |value: &f64| scored(*value, up.end));
    let what = format!("{}, {}", benchmark.what.load, benchmark.what.unit);
    let chart = framed(
        root,
        &Scale { title: title(setting), range: across.clone(), written: &on_across, labels: 8 },
        &Scale { title: what, range: up.clone(), written: &on_up, labels: 6 },
        24,
    )?;
    let area = chart.plotting_area();
    if let Some(stock) = stock {
        for dash in dashes((across.start, stock), (across.end, stock), PALE) {
            area.draw(&dash)?;
        }
        area.draw(&(EmptyElement::at((across.start, stock)) + Text::new("stock".to_owned(), (4, -16), text(&PALE))))?;
    }
    if let Some((value, _)) = benchmark.pays_until.and_then(|index| places.get(index)) {
        for dash in dashes((*value, up.start), (*value, up.end), OCHRE) {
            area.draw(&dash)?;
        }
        let words = "little gain beyond here";
        // To the side where there is more room.
        let is_right = value - across.start > across.end - value;
        let left = if is_right { -6 - width(words, Face::Plain, TEXT.into()).ceil() as i32 } else { 6 };
        area.draw(&(EmptyElement::at((*value, up.start)) + Text::new(words.to_owned(), (left, -18), text(&OCHRE))))?;
    }
    for (value, level) in &places {
        let (mean, off) = (level.mean(), off(level));
        area.draw(&PathElement::new(vec![(*value, mean - off), (*value, mean + off)], PALE.stroke_width(2)))?;
    }
    let line: Vec<(f64, f64)> = places.iter().map(|(value, level)| (*value, level.mean())).collect();
    area.draw(&PathElement::new(line.clone(), INK.stroke_width(1)))?;
    for (index, place) in line.into_iter().enumerate() {
        let colour = if index == benchmark.best { BLUE } else { INK };
        area.draw(&Circle::new(place, 5, colour.filled()))?;
    }
    Ok(())
}
