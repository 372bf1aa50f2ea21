//! The ascent profile as SVG.

use periculum_core::Decimal;
use periculum_core::profile::{AscentProfile, Axis, Point};
use periculum_core::quantity::grouped;
use periculum_core::verdict::Verdict;
use plotters::chart::{ChartBuilder, ChartContext};
use plotters::coord::Shift;
use plotters::coord::cartesian::Cartesian2d;
use plotters::coord::types::RangedCoordf64;
use plotters::drawing::{DrawingArea, DrawingAreaErrorKind};
use plotters::element::{Circle, Cross, EmptyElement, PathElement, Polygon, Text};
use plotters::prelude::{IntoDrawingArea, SVGBackend};
use plotters::style::{Color, IntoFont, ShapeStyle, TextStyle, WHITE};

use crate::palette::{BLUE, INK, PALE, RED, of_verdict};

/// Width and height of the picture, in SVG units.
const SIZE: (u32, u32) = (1000, 520);

/// Height of the second setting's part.
const SECOND: u32 = 130;

const FONT: &str = "sans-serif";

/// A chart could not be drawn.
#[derive(Debug, thiserror::Error)]
#[error("the chart can't be drawn: {0}")]
pub struct ChartError(String);

type Area<'a> = DrawingArea<SVGBackend<'a>, Shift>;
type Chart<'a, 'b> = ChartContext<'b, SVGBackend<'a>, Cartesian2d<RangedCoordf64, RangedCoordf64>>;

/// Draws the ascent profile: trials from left to right, the climbed setting as height, and the second one below.
///
/// # Errors
/// When the drawing library refuses something.
pub fn ascent_svg(profile: &AscentProfile) -> Result<String, ChartError> {
    let mut svg = String::new();
    draw(profile, &mut svg).map_err(|error| ChartError(error.to_string()))?;
    Ok(svg)
}

type Drawn = Result<(), DrawingAreaErrorKind<std::io::Error>>;

fn draw(profile: &AscentProfile, svg: &mut String) -> Drawn {
    let root = SVGBackend::with_string(svg, SIZE).into_drawing_area();
    root.fill(&WHITE)?;
    let upper = match &profile.second {
        None => root.clone(),
        Some(axis) => {
            let (upper, lower) = root.split_vertically(SIZE.1 - SECOND);
            draw_second(&lower, profile, axis)?;
            upper
        }
    };
    let heights = profile.points.iter().map(|point| point.height).chain([profile.ceiling]);
    let mut chart = framed(&upper, &profile.height, profile.points.len(), heights, 28)?;
    let ceiling = to_float(profile.ceiling);
    let right = profile.points.len() as f64 + 0.5;
    chart.draw_series(dashes(ceiling, right))?;
    let label = TextStyle::from((FONT, 13).into_font()).color(&RED);
    let words = Text::new(format!("ceiling {}", grouped(profile.ceiling)), (4, -16), label);
    chart.plotting_area().draw(&(EmptyElement::at((0.5, ceiling)) + words))?;
    let heights: Vec<f64> = profile.points.iter().map(|point| to_float(point.height)).collect();
    chart.draw_series([steps(&heights, INK.stroke_width(2))])?;
    profile.points.iter().try_for_each(|point| draw_sign(&chart, point))?;
    profile.points.iter().filter(|point| point.is_mark).try_for_each(|point| draw_flag(&chart, point))?;
    drop(chart);
    root.present()?;
    Ok(())
}

fn draw_second(area: &Area, profile: &AscentProfile, axis: &Axis) -> Drawn {
    let values: Vec<Decimal> = profile.points.iter().filter_map(|point| point.second).collect();
    let mut chart = framed(area, axis, profile.points.len(), values.iter().copied(), 4)?;
    let heights: Vec<f64> = values.into_iter().map(to_float).collect();
    chart.draw_series([steps(&heights, BLUE.stroke_width(2))])?;
    Ok(())
}

/// A chart with an axis for the setting and room around its values.
fn framed<'a, 'b>(
    area: &'b Area<'a>,
    axis: &Axis,
    trials: usize,
    values: impl Iterator<Item = Decimal>,
    top: u32,
) -> Result<Chart<'a, 'b>, DrawingAreaErrorKind<std::io::Error>> {
    let values: Vec<f64> = values.map(to_float).collect();
    let lowest = values.iter().copied().fold(f64::INFINITY, f64::min);
    let highest = values.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    let (lowest, highest) = if lowest.is_finite() { (lowest, highest) } else { (0.0, 1.0) };
    let room = ((highest - lowest) * 0.08).max(highest.abs() * 1e-3).max(1e-9);
    let range = lowest - room..highest + room;
    let decimals = if highest - lowest < 5.0 { 3 } else { 0 };
    let mut chart = ChartBuilder::on(area)
        .margin_right(20)
        .margin_left(10)
        .margin_top(top)
        .x_label_area_size(24)
        .y_label_area_size(76)
        .build_cartesian_2d(0.5..trials as f64 + 0.5, range)?;
    let title = if axis.unit.is_empty() { axis.label.clone() } else { format!("{}, {}", axis.label, axis.unit) };
    chart
        .configure_mesh()
        .disable_mesh()
        .axis_style(PALE)
        .label_style(TextStyle::from((FONT, 13).into_font()).color(&INK))
        .y_desc(title)
        .x_labels(trials.min(24))
        .x_label_formatter(&|trial| format!("{trial:.0}"))
        .y_label_formatter(&|value| periculum_core::quantity::measured(*value, decimals))
        .y_labels(6)
        .draw()?;
    Ok(chart)
}

/// A line that steps from trial to trial.
fn steps(heights: &[f64], style: ShapeStyle) -> PathElement<(f64, f64)> {
    let corners = heights.iter().enumerate().flat_map(|(index, height)| {
        let trial = index as f64 + 1.0;
        [(trial - 0.5, *height), (trial + 0.5, *height)]
    });
    PathElement::new(corners.collect::<Vec<_>>(), style)
}

fn dashes(height: f64, right: f64) -> Vec<PathElement<(f64, f64)>> {
    let count = 60;
    let width = (right - 0.5) / f64::from(count);
    let dash = |index| {
        let left = 0.5 + width * f64::from(index);
        PathElement::new(vec![(left, height), (left + width * 0.5, height)], RED.stroke_width(1))
    };
    (0..count).map(dash).collect()
}

/// A trial's sign: full, hollow and doubled circles and crosses, so that it reads without colour.
fn draw_sign(chart: &Chart, point: &Point) -> Drawn {
    let place = (f64::from(point.trial), to_float(point.height));
    let colour = of_verdict(point.verdict);
    let area = chart.plotting_area();
    match point.verdict {
        Some(Verdict::Held) => area.draw(&Circle::new(place, 5, colour.filled()))?,
        Some(Verdict::Fell) => area.draw(&Cross::new(place, 5, colour.stroke_width(3)))?,
        Some(Verdict::Void) | None => area.draw(&Circle::new(place, 5, colour.stroke_width(2)))?,
        Some(Verdict::Slipped) => {
            area.draw(&Circle::new(place, 5, colour.stroke_width(2)))?;
            area.draw(&Circle::new(place, 2, colour.filled()))?;
        }
    }
    Ok(())
}

fn draw_flag(chart: &Chart, point: &Point) -> Drawn {
    let place = (f64::from(point.trial), to_float(point.height));
    let pole = PathElement::new(vec![(0, -8), (0, -30)], BLUE.stroke_width(2));
    let cloth = Polygon::new(vec![(0, -30), (14, -25), (0, -20)], BLUE.filled());
    chart.plotting_area().draw(&(EmptyElement::at(place) + pole + cloth))?;
    Ok(())
}

fn to_float(value: Decimal) -> f64 {
    f64::try_from(value).unwrap_or_default()
}
