//! What sensors read in several parts of a climb, laid over each other from their beginnings on, as a picture.

use std::collections::BTreeMap;

use periculum_core::model::rig::{Rig, Sensor};
use periculum_core::story::series::{Series, Spread};
use periculum_core::story::stretch::Stretch;
use plotters::element::{PathElement, Text};
use plotters::style::Color;

use crate::figure::{Area, ChartError, Drawn, Figure};
use crate::palette::{INK, LINES};
use crate::plane::{Legend, Plane, Scale, around, framed, text};
use crate::traces::{COLUMNS, LABELS, TALL, WIDTH, clock, unit};

/// A line carries its number every so many columns.
const NUMBERED: usize = 110;

/// Draws each sensor that was read in one of these named parts, all from their beginnings on, on the scale of the longest.
///
/// # Errors
/// When the drawing library refuses something.
pub fn traces_over(
    readings: &BTreeMap<String, Series>,
    rig: &Rig,
    parts: &[(String, Stretch)],
) -> Result<Figure, ChartError> {
    let spread = |series: &Series| Spread::all(parts.iter().filter_map(|(_, part)| series.between(part.from, part.to)));
    let sensors: Vec<(&Sensor, &Series, Spread)> = rig
        .sensors
        .iter()
        .filter_map(|sensor| {
            let series = readings.get(&sensor.name)?;
            Some((sensor, series, spread(series)?))
        })
        .collect();
    let legend = Legend::of(parts.iter().map(|(name, _)| name.as_str()), WIDTH);
    let size = (WIDTH, legend.height() + (sensors.len() as u32).max(1) * TALL);
    let longest = parts.iter().map(|(_, part)| part.length()).max().unwrap_or_default();
    Figure::drawn(size, |root| {
        let (head, body) = root.split_vertically(legend.height());
        legend.draw(&head)?;
        let areas = body.split_evenly((sensors.len().max(1), 1));
        sensors.iter().zip(&areas).try_for_each(|((sensor, series, all), area)| {
            let over = Over { parts, seconds: longest.seconds().max(0.001) };
            over.draw(area, sensor, series, all)
        })
    })
}

/// Parts laid over each other.
struct Over<'a> {
    parts: &'a [(String, Stretch)],
    /// How long the longest of them is.
    seconds: f64,
}

impl Over<'_> {
    fn draw(&self, area: &Area, sensor: &Sensor, series: &Series, all: &Spread) -> Drawn {
        let unit_of_time = unit(self.seconds);
        let end = self.seconds / unit_of_time;
        let time = |place: &f64| clock(*place * unit_of_time, self.seconds);
        let value = |value: &f64| sensor.written(*value);
        let range = around([all.least, all.greatest].into_iter());
        let chart = framed(
            area,
            &Scale { title: String::new(), range: 0.0..end, written: &time, labels: LABELS },
            &Scale { title: String::new(), range, written: &value, labels: 3 },
            20,
        )?;
        let unit = if sensor.unit.is_empty() { String::new() } else { format!(", {}", sensor.unit) };
        area.draw(&Text::new(format!("{}{unit}", sensor.label), (90, 2), text(&INK)))?;
        self.parts.iter().enumerate().try_for_each(|(nth, (_, part))| {
            let share = part.length().seconds() / self.seconds;
            let count = ((COLUMNS as f64 * share).round() as usize).max(1);
            let width = end * share / count as f64;
            let means = series.line(part.from, part.to, count).into_iter().enumerate();
            let points = means.filter_map(|(column, spread)| Some((width * (column as f64 + 0.5), spread?.mean)));
            draw_line(&chart, nth, &points.collect::<Vec<_>>())
        })
    }
}

/// A line that carries its number now and then, each at places of its own.
fn draw_line(chart: &Plane, nth: usize, points: &[(f64, f64)]) -> Drawn {
    let colour = LINES[nth % LINES.len()];
    let area = chart.plotting_area();
    area.draw(&PathElement::new(points.to_vec(), colour.stroke_width(2)))?;
    let first = NUMBERED * (nth % LINES.len() + 1) / (LINES.len() + 1);
    points
        .iter()
        .skip(first)
        .step_by(NUMBERED)
        .try_for_each(|place| area.draw(&Text::new((nth + 1).to_string(), *place, text(colour))))
}
