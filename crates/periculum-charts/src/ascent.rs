//! The ascent profile as a picture.

use periculum_core::Decimal;
use periculum_core::story::profile::{AscentProfile, Axis, Other};
use plotters::element::{EmptyElement, PathElement, Text};
use plotters::style::{Color, ShapeStyle};

use crate::figure::{Area, ChartError, Drawn, Figure};
use crate::palette::{BLUE, INK, RED};
use crate::plane::{Scale, around, draw_broken, draw_flag, draw_sign, framed, on_axis, text, to_float};

/// Width of the picture, units.
const WIDTH: u32 = 1000;

/// Height of the climbed setting's part, alone and with others below it.
const ALONE: u32 = 520;
const UPPER: u32 = 390;

/// Height of another setting's part.
const OTHER: u32 = 130;

/// Draws the ascent profile: trials from left to right, the climbed setting as height, and below it the others that moved.
///
/// # Errors
/// When the drawing library refuses something.
pub fn ascent(profile: &AscentProfile) -> Result<Figure, ChartError> {
    let upper = if profile.others.is_empty() { ALONE } else { UPPER };
    Figure::drawn((WIDTH, upper + OTHER * profile.others.len() as u32), |root| draw(root, upper, profile))
}

fn draw(root: &Area, upper: u32, profile: &AscentProfile) -> Drawn {
    let (upper, mut below) = root.split_vertically(upper);
    for other in &profile.others {
        let (lower, rest) = below.split_vertically(OTHER);
        draw_other(&lower, other)?;
        below = rest;
    }
    let heights: Vec<f64> = profile.points.iter().map(|point| to_float(point.height)).collect();
    let ceiling = to_float(profile.ceiling);
    let mut chart = over_trials(&upper, &profile.height, &heights, Some(ceiling), 28)?;
    let right = heights.len() as f64 + 0.5;
    draw_broken(&chart, (0.5, ceiling), (right, ceiling), RED)?;
    let words = Text::new(format!("ceiling {}", profile.height.written(profile.ceiling)), (4, -16), text(&RED));
    chart.plotting_area().draw(&(EmptyElement::at((0.5, ceiling)) + words))?;
    chart.draw_series([steps(&heights, INK.stroke_width(2))])?;
    let place = |trial: u32, height: Decimal| (f64::from(trial), to_float(height));
    for point in &profile.points {
        draw_sign(&chart, place(point.trial, point.height), point.verdict)?;
    }
    let marks = profile.points.iter().filter(|point| point.is_mark);
    marks.map(|point| place(point.trial, point.height)).try_for_each(|place| draw_flag(&chart, place))
}

fn draw_other(area: &Area, other: &Other) -> Drawn {
    let heights: Vec<f64> = other.values.iter().flatten().copied().map(to_float).collect();
    let mut chart = over_trials(area, &other.axis, &heights, None, 4)?;
    chart.draw_series([steps(&heights, BLUE.stroke_width(2))])?;
    Ok(())
}

/// A chart of a setting over the trials.
fn over_trials<'a>(
    area: &'a Area,
    axis: &Axis,
    heights: &[f64],
    limit: Option<f64>,
    top: u32,
) -> Result<crate::plane::Plane<'a>, plotters::drawing::DrawingAreaErrorKind<std::convert::Infallible>> {
    let range = around(heights.iter().copied().chain(limit));
    let whole = |trial: &f64| format!("{trial:.0}");
    let trials = Scale {
        title: String::new(),
        range: 0.5..heights.len() as f64 + 0.5,
        written: &whole,
        labels: heights.len().min(24),
    };
    let written = |value: &f64| on_axis(*value, &range, axis);
    let up = Scale { title: axis.title(), range: range.clone(), written: &written, labels: 6 };
    framed(area, &trials, &up, top)
}

/// A line that steps from trial to trial.
fn steps(heights: &[f64], style: ShapeStyle) -> PathElement<(f64, f64)> {
    let corners = heights.iter().enumerate().flat_map(|(index, height)| {
        let trial = index as f64 + 1.0;
        [(trial - 0.5, *height), (trial + 0.5, *height)]
    });
    PathElement::new(corners.collect::<Vec<_>>(), style)
}
