//! What the sensors read over the climb or over one trial, with everything that went wrong on the axis of time.

use periculum_core::moment::Moment;
use periculum_core::quantity::measured;
use periculum_core::rig::Sensor;
use periculum_core::series::Spread;
use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span};

use crate::tui::app::App;

/// Lines of a sensor, its title included: as many as there is room for.
const LEAST: u16 = 4;
const MOST: u16 = 12;

/// Lines of a sensor that reads the same all the time.
const FLAT: u16 = 3;

/// Columns for the values beside the traces, and lines for the axis of time.
const LABELS: u16 = 9;
const AXIS: u16 = 3;

/// About so many columns from one time to the next on the axis.
const BETWEEN_TIMES: u16 = 16;

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    let Some((from, to)) = app.stretch() else {
        return frame.render_widget(Line::styled("No sensor was read yet.", app.theme.text), area);
    };
    if area.height < LEAST + AXIS || area.width < 3 * LABELS {
        return frame.render_widget(Line::styled("Traces need a larger window.", app.theme.text), area);
    }
    let sensors: Vec<&Sensor> = app.rig.sensors.iter().filter(|sensor| app.traces.contains_key(&sensor.name)).collect();
    let heights = heights(app, &sensors, area.height - AXIS, from, to);
    let plot = Rect { x: area.x + LABELS + 1, width: area.width.saturating_sub(LABELS + 1), ..area };
    let mut y = area.y;
    for (sensor, height) in sensors.iter().zip(&heights) {
        draw_sensor(frame, app, Rect { y, height: *height, ..plot }, sensor, from, to);
        y += height;
    }
    let fit = heights.len();
    let axis = Rect { y, height: AXIS, ..plot };
    if axis.bottom() <= area.bottom() {
        draw_axis(frame, app, axis, from, to);
        let left_out = sensors.len() - fit;
        if left_out > 0 {
            let what = if left_out == 1 { "one more sensor needs" } else { "more sensors need" };
            let text = format!("{what} a higher window");
            frame.render_widget(Line::styled(text, app.theme.muted), Rect { y: axis.y + 2, height: 1, ..axis });
        }
    }
}

/// How many lines each sensor has, for as many as there is room for: a reading that never changes needs only one.
fn heights(app: &App, sensors: &[&Sensor], room: u16, from: Moment, to: Moment) -> Vec<u16> {
    let is_flat = |sensor: &&Sensor| {
        app.traces[&sensor.name].between(from, to).is_none_or(|spread| spread.least == spread.greatest)
    };
    let flat = sensors.iter().filter(|sensor| is_flat(sensor)).count() as u16;
    let moving = (sensors.len() as u16 - flat).max(1);
    let height = (room.saturating_sub(flat * FLAT) / moving).clamp(LEAST, MOST);
    let wanted = sensors.iter().map(|sensor| if is_flat(sensor) { FLAT } else { height });
    let mut left = room;
    wanted
        .map_while(|height| {
            left = left.checked_sub(height)?;
            Some(height)
        })
        .collect()
}

/// A title with what the readings come to, and below it the trace: in each column from its least to its greatest reading.
fn draw_sensor(frame: &mut Frame, app: &App, area: Rect, sensor: &Sensor, from: Moment, to: Moment) {
    let theme = &app.theme;
    let series = &app.traces[&sensor.name];
    let columns = series.columns(from, to, usize::from(area.width));
    let Some(all) = series.between(from, to) else { return };
    let told = |value: f64| measured(value, sensor.decimals);
    let unit = if sensor.unit.is_empty() { String::new() } else { format!(", {}", sensor.unit) };
    let sums = format!("{} to {}, mean {}", told(all.least), told(all.greatest), told(all.mean));
    let title = Line::from(vec![
        Span::styled(format!("{}{unit}   ", sensor.label), theme.text),
        Span::styled(sums, theme.muted),
    ]);
    frame.render_widget(title, Rect { height: 1, ..area });
    let blank = u16::from(area.height != LEAST);
    let inside = Rect { y: area.y + 1, height: area.height - 1 - blank, ..area };
    let scale = Scale::of(&all, inside);
    let buffer = frame.buffer_mut();
    let ends = [(all.least, inside.bottom() - 1), (all.greatest, inside.top())];
    for (value, row) in ends.into_iter().take(if all.least < all.greatest { 2 } else { 1 }) {
        let text = format!("{:>width$}", told(value), width = usize::from(LABELS) - 1);
        buffer.set_stringn(area.x - LABELS - 1, row, text, LABELS.into(), theme.muted);
    }
    let cut_off = sensor.cut_off.and_then(|cut_off| f64::try_from(cut_off).ok());
    for (column, spread) in columns.iter().enumerate() {
        let Some(spread) = spread else { continue };
        let style = if cut_off.is_some_and(|cut_off| spread.greatest > cut_off) { theme.bad } else { theme.good };
        draw_column(buffer, inside, &scale, inside.x + column as u16, spread, style);
    }
}

fn draw_column(buffer: &mut Buffer, area: Rect, scale: &Scale, x: u16, spread: &Spread, style: Style) {
    let (top, bottom) = (scale.row(spread.greatest), scale.row(spread.least));
    for y in top..=bottom {
        if area.contains((x, y).into()) {
            buffer[(x, y)].set_symbol(if top == bottom { "─" } else { "│" }).set_style(style);
        }
    }
}

/// Times below the traces, what went wrong above them, and where the selected trial lies.
fn draw_axis(frame: &mut Frame, app: &App, area: Rect, from: Moment, to: Moment) {
    let theme = &app.theme;
    let began = app.story.began.unwrap_or_default();
    let length = to.since(from).seconds().max(0.001);
    let column = |at: Moment| {
        let share = (at.since(from).seconds() / length).clamp(0.0, 1.0);
        area.x + (share * f64::from(area.width.saturating_sub(1))).round() as u16
    };
    let buffer = frame.buffer_mut();
    for x in area.left()..area.right() {
        buffer[(x, area.y)].set_symbol("╌").set_style(theme.faint);
    }
    if let Some((begin, end)) = app.selected_span() {
        for x in column(begin.max(from))..=column(end.min(to)) {
            buffer[(x, area.y)].set_symbol("━").set_style(theme.accent);
        }
    }
    for incident in app.story.incidents.iter().filter(|incident| incident.at >= from && incident.at <= to) {
        let verdict = incident.incident.kind.verdict();
        let sign = verdict.map_or('–', |verdict| verdict.sign()).to_string();
        buffer[(column(incident.at), area.y)].set_symbol(&sign).set_style(theme.verdict(verdict).bold());
    }
    let times = (area.width / BETWEEN_TIMES).max(1);
    for nth in 0..times {
        let share = f64::from(nth) / f64::from(times);
        let at = Moment::from_millis(from.millis() + (length * 1000.0 * share) as i64);
        let x = area.x + (share * f64::from(area.width)).round() as u16;
        if area.height > 1 {
            buffer.set_stringn(x, area.y + 1, at.since(began).clock(), usize::from(BETWEEN_TIMES), theme.muted);
        }
    }
}

/// Where a reading lies between the least and the greatest that is shown.
struct Scale {
    least: f64,
    range: f64,
    area: Rect,
}

impl Scale {
    fn of(all: &Spread, area: Rect) -> Self {
        Self { least: all.least, range: all.greatest - all.least, area }
    }

    fn row(&self, reading: f64) -> u16 {
        let share = if self.range > 0.0 { (reading - self.least) / self.range } else { 0.0 };
        let rows = f64::from(self.area.height.saturating_sub(1));
        self.area.bottom().saturating_sub(1).saturating_sub((share.clamp(0.0, 1.0) * rows).round() as u16)
    }
}
