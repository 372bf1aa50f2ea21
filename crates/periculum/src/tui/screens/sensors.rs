//! The sensors that matter, each with its cut-off: what they read now, or between what they read in a climb that is over.

use std::borrow::Cow;

use periculum_core::Decimal;
use periculum_core::model::cut_off::CutOff;
use periculum_core::model::rig::Sensor;
use periculum_core::story::series::Series;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use crate::tui::desk::Desk;
use crate::tui::habits::fahrenheit;
use crate::tui::telling::{self, labels};

/// Nearer to its cut-off than this share of it, a reading is worth a second look.
const NEAR: f64 = 0.08;

/// One sensor as it stands.
struct Reading<'a> {
    sensor: Cow<'a, Sensor>,
    value: String,
    /// Whether it is near its cut-off, or over it.
    is_near: bool,
    style: Style,
}

fn readings(desk: &Desk) -> Vec<Reading<'_>> {
    let theme = &desk.theme;
    desk.shown
        .rig
        .sensors
        .iter()
        .map(|sensor| {
            let (value, told) = value(desk, sensor);
            let float = |cut_off: &Option<CutOff>| f64::try_from(cut_off.as_ref()?.at(in_force(desk))?).ok();
            let below = float(&sensor.cut_off_below);
            let style = match value.zip(float(&sensor.cut_off)) {
                _ if value.zip(below).is_some_and(|(value, below)| value < below) => theme.bad,
                Some((value, cut_off)) if value > cut_off => theme.bad,
                Some((value, cut_off)) if value > cut_off * (1.0 - NEAR) => theme.warning,
                _ => theme.text,
            };
            Reading { sensor: Cow::Borrowed(sensor), value: told, is_near: style != theme.text, style }
        })
        .collect()
}

/// The value of a setting that is in force as far as anybody knows, by which a cut-off may go.
fn in_force(desk: &Desk) -> impl Fn(&str) -> Option<Decimal> {
    move |name| {
        let trial = desk.shown.story.trials.last();
        trial.and_then(|trial| trial.rung.get(name)).or_else(|| Some(desk.shown.rig.setting(name)?.stock))
    }
}

/// The reading that comes nearest to a cut-off, and what is told of all: the last one, or between what a climb that is over had them.
pub(super) fn value(desk: &Desk, sensor: &Sensor) -> (Option<f64>, String) {
    value_as(desk, sensor, |value| sensor.written(value))
}

/// The same in degrees Fahrenheit for somebody who is used to these: the sensor, and what is told of it.
pub(super) fn twin(desk: &Desk, sensor: &Sensor) -> Option<(Sensor, String)> {
    let twin = desk.habits.twin(sensor, in_force(desk))?;
    let (_, told) = value_as(desk, sensor, |value| twin.written(fahrenheit(value)));
    Some((twin, told))
}

/// That in one piece, with the cut-offs.
fn beside(desk: &Desk, sensor: &Sensor) -> Option<String> {
    let (twin, told) = twin(desk, sensor)?;
    Some(telling::reading_of_limit(&told, twin.cut_offs(|_| None).as_deref(), &twin.unit))
}

fn value_as(desk: &Desk, sensor: &Sensor, told: impl Fn(f64) -> String) -> (Option<f64>, String) {
    if !desk.is_over() {
        let reading = desk.shown.story.readings.get(&sensor.name).copied();
        return (reading, reading.map_or("–".into(), told));
    }
    let series = desk.shown.traces.get(&sensor.name);
    if let Some(series) = series.filter(|_| !sensor.words.is_empty()) {
        return (None, sensor.written_states(&series.all_states()));
    }
    let all = series.and_then(Series::all);
    match all {
        Some(all) if all.least < all.greatest => {
            (Some(all.greatest), telling::from_to(&told(all.least), &told(all.greatest)))
        }
        Some(all) => (Some(all.greatest), told(all.greatest)),
        None => (None, "–".into()),
    }
}

/// The lines of the list: the sensors, and below each what it reads in degrees Fahrenheit for whoever wants that.
fn listed(desk: &Desk) -> Vec<Reading<'_>> {
    readings(desk).into_iter().flat_map(|reading| with_twin(desk, reading)).collect()
}

fn with_twin<'a>(desk: &Desk, reading: Reading<'a>) -> impl Iterator<Item = Reading<'a>> {
    let twin = twin(desk, &reading.sensor).map(|(twin, value)| Reading {
        sensor: Cow::Owned(Sensor { label: String::new(), ..twin }),
        value,
        ..reading
    });
    std::iter::once(reading).chain(twin)
}

/// How many lines the list takes.
pub(super) fn list_height(desk: &Desk) -> u16 {
    u16::try_from(listed(desk).len()).unwrap_or(u16::MAX)
}

/// One line a sensor, numbers aligned on the decimal sign.
pub(super) fn draw_list(frame: &mut Frame, desk: &Desk, area: Rect) {
    let theme = &desk.theme;
    let readings = listed(desk);
    let widest_label = readings.iter().map(|reading| reading.sensor.label.chars().count()).max().unwrap_or(0);
    // What lies between two numbers has no decimal sign of its own to be aligned on.
    let whole = |value: &str| if desk.is_over() { 0 } else { value.find('.').unwrap_or(value.len()) };
    let widest_whole = readings.iter().map(|reading| whole(&reading.value)).max().unwrap_or(0);
    let longest = readings.iter().map(|reading| widest_whole - whole(&reading.value) + reading.value.chars().count());
    let width = longest.max().unwrap_or(0).max(widest_whole + 4);
    let limit = |cut_offs: String| match desk.is_over() {
        true => telling::of_limit(&cut_offs),
        false => format!("{} {cut_offs}", labels::CUT_OFF),
    };
    let lines = readings.iter().map(|reading| {
        let indent = " ".repeat(widest_whole - whole(&reading.value));
        let number = format!("{indent}{}", reading.value);
        let limit = reading.sensor.cut_offs(in_force(desk)).map(limit).unwrap_or_default();
        Line::from(vec![
            Span::styled(format!("{:<widest_label$}  ", reading.sensor.label), theme.muted),
            Span::styled(format!("{number:<width$}"), reading.style),
            Span::styled(format!(" {:<5}", reading.sensor.unit), theme.muted),
            Span::styled(limit, if reading.is_near { reading.style } else { theme.faint }),
        ])
    });
    frame.render_widget(Text::from_iter(lines), area);
}

/// How many lines the sensors take when they stand side by side.
pub(super) fn compact_height(desk: &Desk, width: u16) -> u16 {
    u16::try_from(compact_lines(desk, width).len()).unwrap_or(u16::MAX)
}

/// As many sensors in a line as there is room for.
pub(super) fn draw_compact(frame: &mut Frame, desk: &Desk, area: Rect) {
    frame.render_widget(Text::from(compact_lines(desk, area.width)), area);
}

fn compact_lines(desk: &Desk, width: u16) -> Vec<Line<'static>> {
    let theme = &desk.theme;
    let mut lines: Vec<Line> = Vec::new();
    for reading in readings(desk) {
        let sensor = &*reading.sensor;
        let cut_off = sensor
            .cut_offs(in_force(desk))
            .map(|cut_offs| format!(" {}", telling::of_limit(&cut_offs)))
            .unwrap_or_default();
        let beside = beside(desk, sensor).map(|beside| format!(", {beside}")).unwrap_or_default();
        let cell = vec![
            Span::styled(format!("{} ", sensor.label), theme.muted),
            Span::styled(reading.value, reading.style),
            Span::styled(format!("{cut_off} {}{beside}   ", sensor.unit), theme.muted),
        ];
        let cell_width: usize = cell.iter().map(Span::width).sum();
        match lines.last_mut().filter(|line| line.width() + cell_width <= usize::from(width) + 3) {
            Some(line) => line.extend(cell),
            None => lines.push(Line::from(cell)),
        }
    }
    lines
}
