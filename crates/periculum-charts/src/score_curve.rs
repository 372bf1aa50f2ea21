//! A benchmark's scores over the values of a setting as a picture.

use periculum_core::analysis::scores::{Benchmark, Level};
use periculum_core::model::quantity::scored;
use periculum_core::story::profile::Axis;
use plotters::element::{Circle, EmptyElement, PathElement, Text};
use plotters::style::Color;

use crate::figure::{Area, ChartError, Drawn, Figure};
use crate::font::{Face, width};
use crate::palette::{BLUE, INK, LINES, OCHRE, PALE};
use crate::plane::{Legend, Plane, Scale, TEXT, around, draw_broken, framed, on_axis, text, to_float};

/// Width and height of the picture, units.
const SIZE: (u32, u32) = (1000, 420);

/// Draws the mean scores of a family of named curves over one axis: of the one that is shown with their 95 % intervals, the
/// score at stock, and from where on the score hardly follows.
///
/// # Errors
/// When the drawing library refuses something.
pub fn score_curve(family: &[(String, &Benchmark)], shown: usize, axis: &Axis) -> Result<Figure, ChartError> {
    let Some((_, benchmark)) = family.get(shown) else { return Figure::drawn(SIZE, |_| Ok(())) };
    if let [_] = family {
        return Figure::drawn(SIZE, |root| draw(root, family, benchmark, axis));
    }
    let legend = Legend::of(family.iter().map(|(name, _)| name.as_str()), SIZE.0);
    Figure::drawn((SIZE.0, SIZE.1 + legend.height()), |root| {
        let (head, body) = root.split_vertically(legend.height());
        legend.draw(&head)?;
        draw(&body, family, benchmark, axis)
    })
}

/// The levels of a benchmark where they lie on the axis.
fn places(benchmark: &Benchmark) -> Vec<(f64, &Level)> {
    benchmark.levels.iter().filter_map(|level| Some((to_float(level.value?), level))).collect()
}

fn draw(root: &Area, family: &[(String, &Benchmark)], shown: &Benchmark, axis: &Axis) -> Drawn {
    let off = |level: &Level| shown.noise.map_or(0.0, |noise| noise.half_width(level.scores.len()) * level.mean());
    let stock = shown.baseline.map(|(stock, _)| stock);
    let all: Vec<(f64, &Level)> = family.iter().flat_map(|(_, benchmark)| places(benchmark)).collect();
    let own = places(shown);
    let across = around(all.iter().map(|(value, _)| *value));
    let bounds = own.iter().flat_map(|(_, level)| [level.mean() - off(level), level.mean() + off(level)]);
    let up = around(all.iter().map(|(_, level)| level.mean()).chain(bounds).chain(stock));
    let (on_across, on_up) = (|value: &f64| on_axis(*value, &across, axis), |value: &f64| scored(*value, up.end));
    let what = format!("{}, {}", shown.what.load, shown.what.unit);
    let chart = framed(
        root,
        &Scale { title: axis.title(), range: across.clone(), written: &on_across, labels: 8 },
        &Scale { title: what, range: up.clone(), written: &on_up, labels: 6 },
        24,
    )?;
    let area = chart.plotting_area();
    if let Some(stock) = stock {
        draw_broken(&chart, (across.start, stock), (across.end, stock), PALE)?;
        area.draw(&(EmptyElement::at((across.start, stock)) + Text::new("stock".to_owned(), (4, -16), text(&PALE))))?;
    }
    if let Some((value, _)) = shown.pays_until.and_then(|index| own.get(index)) {
        draw_broken(&chart, (*value, up.start), (*value, up.end), OCHRE)?;
        let words = "little gain beyond here";
        // To the side where there is more room.
        let is_right = value - across.start > across.end - value;
        let left = if is_right { -6 - width(words, Face::Plain, TEXT.into()).ceil() as i32 } else { 6 };
        area.draw(&(EmptyElement::at((*value, up.start)) + Text::new(words.to_owned(), (left, -18), text(&OCHRE))))?;
    }
    for (value, level) in &own {
        let (mean, off) = (level.mean(), off(level));
        area.draw(&PathElement::new(vec![(*value, mean - off), (*value, mean + off)], PALE.stroke_width(2)))?;
    }
    if family.len() > 1 {
        family.iter().enumerate().try_for_each(|(nth, (_, benchmark))| draw_numbered(&chart, nth, benchmark))?;
    } else {
        area.draw(&PathElement::new(line_of(&own), INK.stroke_width(1)))?;
    }
    for (index, place) in line_of(&own).into_iter().enumerate() {
        let is_best = index == shown.best;
        area.draw(&Circle::new(place, 5, if is_best { BLUE } else { INK }.filled()))?;
        if is_best {
            area.draw(&Circle::new(place, 9, BLUE.stroke_width(2)))?;
        }
    }
    Ok(())
}

fn line_of(places: &[(f64, &Level)]) -> Vec<(f64, f64)> {
    places.iter().map(|(value, level)| (*value, level.mean())).collect()
}

/// A curve of a family, with its number at its end.
fn draw_numbered(chart: &Plane, nth: usize, benchmark: &Benchmark) -> Drawn {
    let colour = LINES[nth % LINES.len()];
    let area = chart.plotting_area();
    let line = line_of(&places(benchmark));
    area.draw(&PathElement::new(line.clone(), colour.stroke_width(2)))?;
    let Some(end) = line.last() else { return Ok(()) };
    area.draw(&(EmptyElement::at(*end) + Text::new((nth + 1).to_string(), (7, -7), text(colour))))?;
    Ok(())
}
