//! What sensors read over a stretch of time as a picture.

use std::collections::BTreeMap;
use std::ops::Range;

use periculum_core::model::cut_off::CutOff;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::quantity::measured;
use periculum_core::model::rig::{Rig, Sensor};
use periculum_core::story::Story;
use periculum_core::story::series::{Series, Spread};
use plotters::element::{PathElement, Text};
use plotters::style::Color;

use crate::figure::{Area, ChartError, Drawn, Figure};
use crate::palette::{BLUE, INK, RED, of_verdict};
use crate::plane::{Plane, Scale, around, draw_broken, draw_sign, framed, text};

/// The width of the picture, units.
pub(crate) const WIDTH: u32 = 1000;

/// The height of each sensor's part where there is room, units, and where there are many pictures.
pub(crate) const TALL: u32 = 130;
pub(crate) const LOW: u32 = 92;

/// So many stretches of time are summed up, each in a column.
pub(crate) const COLUMNS: usize = 440;

/// Draws each sensor whose readings moved, from its least to its greatest reading in each of many columns, and what went wrong
/// meanwhile.
///
/// # Errors
/// When the drawing library refuses something.
pub fn traces(
    readings: &BTreeMap<String, Series>,
    rig: &Rig,
    story: &Story,
    from: Moment,
    to: Moment,
) -> Result<Figure, ChartError> {
    traces_in_parts(readings, rig, story, [from, to], TALL)
}

/// The same with each sensor in a part of this height.
pub(crate) fn traces_in_parts(
    readings: &BTreeMap<String, Series>,
    rig: &Rig,
    story: &Story,
    [from, to]: [Moment; 2],
    part: u32,
) -> Result<Figure, ChartError> {
    let moved = |sensor: &&Sensor| {
        let spread = readings.get(&sensor.name).and_then(|series| series.between(from, to));
        spread.is_some_and(|spread| spread.least < spread.greatest)
    };
    let sensors: Vec<&Sensor> = rig.sensors.iter().filter(moved).collect();
    let size = (WIDTH, (sensors.len() as u32).max(1) * part);
    Figure::drawn(size, |root| {
        let parts = root.split_evenly((sensors.len().max(1), 1));
        let stretch = Stretch { story, from, to, unit: unit(to.since(from).seconds()) };
        sensors.iter().zip(&parts).try_for_each(|(sensor, part)| stretch.draw(part, sensor, &readings[&sensor.name]))
    })
}

/// The stretch of time that is shown, and the climb that it is of.
struct Stretch<'a> {
    story: &'a Story,
    from: Moment,
    to: Moment,
    /// The unit of its axis, seconds: one whose round numbers are round times.
    unit: f64,
}

impl Stretch<'_> {
    /// The place on the axis: since the climb began, in its unit.
    fn place(&self, at: Moment) -> f64 {
        at.since(self.story.began.unwrap_or_default()).seconds() / self.unit
    }

    /// Where a sensor's cut-off was: from place to place, trial by trial where it depends on what is on trial.
    fn cut_offs(&self, sensor: &Sensor, ends: Range<f64>) -> impl Iterator<Item = (f64, f64, f64)> {
        let cut_off = sensor.cut_off.clone();
        let trials = match cut_off {
            Some(CutOff::By(_)) => &self.story.trials[..],
            _ => &[],
        };
        let always = cut_off.as_ref().and_then(|cut_off| cut_off.at(|_| None)).map(|at| (ends.clone(), at));
        let begins = trials.iter().map(|trial| self.place(trial.began));
        let until = begins.skip(1).chain([ends.end]);
        let by_trial = trials.iter().zip(until).filter_map(move |(trial, until)| {
            let at = cut_off.as_ref()?.at(|setting| trial.rung.get(setting))?;
            let (from, until) = (self.place(trial.began).max(ends.start), until.min(ends.end));
            (from < until).then_some((from..until, at))
        });
        always
            .into_iter()
            .chain(by_trial)
            .filter_map(|(part, at)| Some((part.start, part.end, f64::try_from(at).ok()?)))
    }

    fn draw(&self, area: &Area, sensor: &Sensor, series: &Series) -> Drawn {
        let columns = series.columns(self.from, self.to, COLUMNS);
        let (begin, end) = (self.place(self.from), self.place(self.to));
        let range = around(columns.iter().flatten().flat_map(|spread| [spread.least, spread.greatest]));
        let time = |place: &f64| clock(*place * self.unit, (end - begin) * self.unit);
        let value = |value: &f64| sensor.written(*value);
        let unit = if sensor.unit.is_empty() { String::new() } else { format!(", {}", sensor.unit) };
        let chart = framed(
            area,
            &Scale { title: String::new(), range: begin..end, written: &time, labels: LABELS },
            &Scale { title: String::new(), range: range.clone(), written: &value, labels: 3 },
            20,
        )?;
        let sums = series.between(self.from, self.to).map(|spread| sums(&spread, sensor.decimals));
        let head = format!("{}{unit}   {}", sensor.label, sums.unwrap_or_default());
        area.draw(&Text::new(head, (90, 2), text(&INK)))?;
        let width = (end - begin) / COLUMNS as f64;
        for (index, spread) in columns.iter().enumerate() {
            let Some(spread) = spread else { continue };
            let x = begin + width * (index as f64 + 0.5);
            let ends = vec![(x, spread.least), (x, spread.greatest)];
            chart.plotting_area().draw(&PathElement::new(ends, BLUE.stroke_width(2)))?;
        }
        let means = columns
            .iter()
            .enumerate()
            .filter_map(|(index, spread)| Some((begin + width * (index as f64 + 0.5), spread.as_ref()?.mean)));
        chart.plotting_area().draw(&PathElement::new(means.collect::<Vec<_>>(), BLUE.stroke_width(1)))?;
        for (from, to, cut_off) in self.cut_offs(sensor, begin..end).filter(|(_, _, at)| range.contains(at)) {
            draw_broken(&chart, (from, cut_off), (to, cut_off), RED)?;
        }
        self.draw_incidents(&chart, &range)
    }

    /// What went wrong, as lines over the whole height with the sign of what it counts as.
    fn draw_incidents(&self, chart: &Plane, range: &Range<f64>) -> Drawn {
        let told = self.story.incidents.iter().filter(|told| told.at >= self.from && told.at <= self.to);
        for incident in told {
            let (x, verdict) = (self.place(incident.at), incident.incident.kind.verdict());
            let line = vec![(x, range.start), (x, range.end)];
            chart.plotting_area().draw(&PathElement::new(line, of_verdict(verdict).stroke_width(2)))?;
            draw_sign(chart, (x, range.end), verdict)?;
        }
        Ok(())
    }
}

fn sums(spread: &Spread, decimals: usize) -> String {
    let told = |value: f64| measured(value, decimals);
    format!("{} to {}, mean {}", told(spread.least), told(spread.greatest), told(spread.mean))
}

/// The unit for an axis of so many seconds.
pub(crate) fn unit(seconds: f64) -> f64 {
    match seconds {
        ..240.0 => 1.0,
        ..14_400.0 => 60.0,
        _ => 3600.0,
    }
}

/// About so many times stand below an axis.
pub(crate) const LABELS: usize = 8;

/// Seconds as hours, minutes and seconds, on an axis of this length, seconds: finer where that is short.
pub(crate) fn clock(seconds: f64, length: f64) -> String {
    let span = |seconds: f64| Span::from_millis((1000.0 * seconds.max(0.0)).round() as u64);
    span(seconds).clock_among(span(length / LABELS as f64))
}
