//! What charts over two axes share: the axes, and the signs of verdicts and marks.

use std::convert::Infallible;
use std::ops::Range;

use periculum_core::Decimal;
use periculum_core::model::quantity::measured;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::profile::Axis;
use plotters::chart::{ChartBuilder, ChartContext};
use plotters::coord::cartesian::Cartesian2d;
use plotters::coord::types::RangedCoordf64;
use plotters::drawing::DrawingAreaErrorKind;
use plotters::element::{Circle, Cross, EmptyElement, PathElement, Polygon, Text};
use plotters::style::{Color, IntoFont, RGBColor, TextStyle};

use crate::figure::{Area, Drawn, Recorder};
use crate::font::{self, Face};
use crate::palette::{BLUE, INK, LINES, PALE, of_verdict};

const FONT: &str = "sans-serif";

/// The size of a chart's texts, units.
pub(crate) const TEXT: u32 = 13;

pub(crate) type Plane<'a> = ChartContext<'a, Recorder, Cartesian2d<RangedCoordf64, RangedCoordf64>>;

/// Texts of a chart in a colour.
pub(crate) fn text(colour: &'static RGBColor) -> TextStyle<'static> {
    TextStyle::from((FONT, TEXT).into_font()).color(colour)
}

/// An axis of a chart.
pub(crate) struct Scale<'a> {
    /// What is on it.
    pub(crate) title: String,
    /// From where to where it goes.
    pub(crate) range: Range<f64>,
    /// How its values are written.
    pub(crate) written: &'a dyn Fn(&f64) -> String,
    /// How many values are written.
    pub(crate) labels: usize,
}

/// A chart with both axes, with so much room above it.
pub(crate) fn framed<'a>(
    area: &'a Area,
    across: &Scale,
    up: &Scale,
    top: u32,
) -> Result<Plane<'a>, DrawingAreaErrorKind<Infallible>> {
    let mut chart = ChartBuilder::on(area)
        .margin_right(20)
        .margin_left(10)
        .margin_top(top)
        .margin_bottom(if across.title.is_empty() { 0 } else { 6 })
        .x_label_area_size(if across.title.is_empty() { 24 } else { 42 })
        .y_label_area_size(76)
        .build_cartesian_2d(across.range.clone(), up.range.clone())?;
    chart
        .configure_mesh()
        .disable_mesh()
        .axis_style(PALE)
        .label_style(text(&INK))
        .x_desc(&across.title)
        .y_desc(&up.title)
        .x_labels(across.labels)
        .y_labels(up.labels)
        .x_label_formatter(across.written)
        .y_label_formatter(up.written)
        .draw()?;
    Ok(chart)
}

/// The range of these values with a little room around it.
pub(crate) fn around(values: impl Iterator<Item = f64>) -> Range<f64> {
    let (lowest, highest) = values
        .filter(|value| value.is_finite())
        .fold((f64::INFINITY, f64::NEG_INFINITY), |(lowest, highest), value| (lowest.min(value), highest.max(value)));
    let (lowest, highest) = if lowest <= highest { (lowest, highest) } else { (0.0, 1.0) };
    let room = ((highest - lowest) * 0.08).max(highest.abs() * 1e-3).max(1e-9);
    lowest - room..highest + room
}

/// A value on an axis of this range: a number, or the word that it stands for.
pub(crate) fn on_axis(value: f64, range: &Range<f64>, axis: &Axis) -> String {
    if !axis.words.is_empty() {
        let nearest = value.round();
        let is_one = (value - nearest).abs() < 1e-6;
        return Decimal::from_f64_retain(nearest).filter(|_| is_one).map_or_else(String::new, |it| axis.written(it));
    }
    let decimals = match range.end - range.start {
        ..0.02 => 4,
        ..0.5 => 3,
        ..5.0 => 2,
        ..50.0 => 1,
        _ => 0,
    };
    measured(value, decimals)
}

/// The names of lines with their numbers and colours, above a chart, in as many rows as they need.
pub(crate) struct Legend {
    names: Vec<(String, i32, i32)>,
}

impl Legend {
    const LEFT: i32 = 90;
    const ROW: i32 = 24;

    /// For lines of these names, above a chart of this width.
    pub(crate) fn of<'a>(names: impl Iterator<Item = &'a str>, width: u32) -> Self {
        let (mut x, mut y) = (Self::LEFT, 4);
        let mut placed = Vec::new();
        for (nth, name) in names.enumerate() {
            let name = format!("{} {name}", nth + 1);
            let wide = font::width(&name, Face::Plain, TEXT.into()).ceil() as i32;
            if x > Self::LEFT && x + wide > width as i32 {
                (x, y) = (Self::LEFT, y + Self::ROW);
            }
            placed.push((name, x, y));
            x += wide + Self::ROW;
        }
        Self { names: placed }
    }

    /// Its height, units.
    pub(crate) fn height(&self) -> u32 {
        self.names.last().map_or(0, |(_, _, y)| y + Self::ROW - 4) as u32
    }

    pub(crate) fn draw(&self, area: &Area) -> Drawn {
        self.names.iter().enumerate().try_for_each(|(nth, (name, x, y))| {
            area.draw(&Text::new(name.clone(), (*x, *y), text(LINES[nth % LINES.len()])))
        })
    }
}

/// A trial's sign: full, hollow and doubled circles and crosses, so that it reads without colour.
pub(crate) fn draw_sign(chart: &Plane, place: (f64, f64), verdict: Option<Verdict>) -> Drawn {
    let colour = of_verdict(verdict);
    let area = chart.plotting_area();
    match verdict {
        Some(Verdict::Held) => area.draw(&Circle::new(place, 5, colour.filled())),
        Some(Verdict::Fell) => area.draw(&Cross::new(place, 5, colour.stroke_width(3))),
        Some(Verdict::Void) | None => area.draw(&Circle::new(place, 5, colour.stroke_width(2))),
        Some(Verdict::Slipped) => {
            area.draw(&Circle::new(place, 5, colour.stroke_width(2)))?;
            area.draw(&Circle::new(place, 2, colour.filled()))
        }
    }
}

/// The flag of a mark.
pub(crate) fn draw_flag(chart: &Plane, place: (f64, f64)) -> Drawn {
    let pole = PathElement::new(vec![(0, -8), (0, -30)], BLUE.stroke_width(2));
    let cloth = Polygon::new(vec![(0, -30), (14, -25), (0, -20)], BLUE.filled());
    chart.plotting_area().draw(&(EmptyElement::at(place) + pole + cloth))
}

/// Pixels from one dash of a broken line to the next one.
const DASH: f64 = 12.0;

/// A broken line from one point to another one.
pub(crate) fn draw_broken(chart: &Plane, from: (f64, f64), to: (f64, f64), colour: RGBColor) -> Drawn {
    let (begin, end) = (chart.backend_coord(&from), chart.backend_coord(&to));
    let dashes = f64::from(begin.0.abs_diff(end.0) + begin.1.abs_diff(end.1)) / DASH;
    let at = |dash: f64| {
        let share = (dash / dashes).min(1.0);
        (from.0 + (to.0 - from.0) * share, from.1 + (to.1 - from.1) * share)
    };
    let dash = |nth: f64| PathElement::new(vec![at(nth), at(nth + 0.5)], colour.stroke_width(1));
    (0..dashes.ceil() as u32).map(f64::from).try_for_each(|nth| chart.plotting_area().draw(&dash(nth)))
}

pub(crate) fn to_float(value: Decimal) -> f64 {
    f64::try_from(value).unwrap_or_default()
}
