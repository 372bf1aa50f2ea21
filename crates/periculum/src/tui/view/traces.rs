//! What the sensors read over the climb, a part of it or one trial, with everything that went wrong on the axis of time;
//! or of several trials, laid over each other from their beginnings on.

use periculum_core::model::moment::{Moment, Span as Length};
use periculum_core::model::quantity::measured;
use periculum_core::model::rig::Sensor;
use periculum_core::story::series::{Series, Spread};
use periculum_core::story::stretch::Stretch;
use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span};

use crate::tui::app::App;
use crate::tui::pointing::Target;
use crate::tui::telling;
use crate::tui::theme::Shade;

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

/// The signs of trials that are laid over each other; there are no more of them.
const SIGNS: [&str; 4] = ["━", "╍", "·", "═"];

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    let Some(stretch) = app.stretch() else {
        return frame.render_widget(Line::styled(telling::NO_READING, app.theme.text), area);
    };
    if area.height < LEAST + AXIS || area.width < 3 * LABELS {
        return frame.render_widget(Line::styled(telling::NO_ROOM_FOR_TRACES, app.theme.text), area);
    }
    let over = app.laid_over();
    let shown: Vec<Stretch> =
        if over.is_empty() { vec![stretch] } else { over.iter().take(SIGNS.len()).map(|(_, part)| *part).collect() };
    let mut sensors: Vec<&Sensor> = app.shown.traced().collect();
    let first = app.first_sensor % sensors.len().max(1);
    sensors.rotate_left(first);
    let heights = heights(app, &sensors, area.height - AXIS, &shown);
    let plot = Rect { x: area.x + LABELS + 1, width: area.width.saturating_sub(LABELS + 1), ..area };
    let mut y = area.y;
    for (sensor, height) in sensors.iter().zip(&heights) {
        draw_sensor(frame, app, Rect { y, height: *height, ..plot }, sensor, &shown);
        y += height;
    }
    let axis = Rect { y, height: AXIS, ..plot };
    if axis.bottom() > area.bottom() {
        return;
    }
    if over.is_empty() {
        draw_axis(frame, app, axis, stretch);
        put_trials(app, Rect { height: axis.bottom() - area.y, ..plot }, stretch);
    } else {
        draw_legend(frame, app, axis, &over);
    }
    let left_out = sensors.len() - heights.len();
    app.sensors_left.set(left_out);
    if left_out > 0 {
        let more = Line::styled(telling::more_sensors(left_out), app.theme.muted);
        frame.render_widget(more, Rect { y: axis.y + 2, height: 1, ..axis });
    }
}

/// How many lines each sensor has, for as many as there is room for: a reading that never changes needs only one.
fn heights(app: &App, sensors: &[&Sensor], room: u16, shown: &[Stretch]) -> Vec<u16> {
    let is_flat = |sensor: &&Sensor| {
        spread(&app.shown.traces[&sensor.name], shown).is_none_or(|spread| spread.least == spread.greatest)
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

/// What was read in all of these stretches together.
fn spread(series: &Series, shown: &[Stretch]) -> Option<Spread> {
    Spread::all(shown.iter().filter_map(|part| series.between(part.from, part.to)))
}

/// A title with what the readings come to, and below it the trace: in each column from its least to its greatest
/// reading; of several trials only the mean.
fn draw_sensor(frame: &mut Frame, app: &App, area: Rect, sensor: &Sensor, shown: &[Stretch]) {
    let theme = &app.theme;
    let series = &app.shown.traces[&sensor.name];
    let Some(all) = spread(series, shown) else { return };
    let told = |value: f64| measured(value, sensor.decimals);
    let unit = if sensor.unit.is_empty() { String::new() } else { format!(", {}", sensor.unit) };
    let sums = telling::sums(&told(all.least), &told(all.greatest), &told(all.mean));
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
    if let [part] = shown {
        let cut_off = sensor.cut_off.and_then(|cut_off| f64::try_from(cut_off).ok());
        for (x, spread) in in_columns(series, *part, inside) {
            let style = if cut_off.is_some_and(|cut_off| spread.greatest > cut_off) { theme.bad } else { theme.good };
            draw_column(buffer, &scale, x, &spread, style, app.theme.shade);
        }
        return;
    }
    // All on the scale of the longest.
    let length = shown.iter().map(|part| part.length()).max().unwrap_or_default();
    for (nth, part) in shown.iter().enumerate().rev() {
        let stretched = Stretch { to: part.from + length, ..*part };
        for (x, spread) in in_columns(series, stretched, inside) {
            let part_is_over = stretched.from + Length::from_millis(column_millis(length, inside, x)) >= part.to;
            let place = (x, scale.row(spread.mean));
            if inside.contains(place.into()) && !part_is_over {
                buffer[place].set_symbol(SIGNS[nth]).set_style(over_style(app, nth));
            }
        }
    }
}

/// What was read in each column of an area, where something was.
fn in_columns(series: &Series, part: Stretch, area: Rect) -> impl Iterator<Item = (u16, Spread)> {
    let columns = series.line(part.from, part.to, usize::from(area.width));
    let at = move |(column, spread): (usize, Option<Spread>)| Some((area.x + column as u16, spread?));
    columns.into_iter().enumerate().filter_map(at)
}

/// How far behind the beginning a column is.
fn column_millis(length: Length, area: Rect, x: u16) -> u64 {
    length.millis() * u64::from(x - area.x) / u64::from(area.width.max(1))
}

fn over_style(app: &App, nth: usize) -> Style {
    [app.theme.accent, app.theme.warning, app.theme.good, app.theme.text][nth]
}

/// The mean as a line, and behind it a shade from the least to the greatest reading.
fn draw_column(buffer: &mut Buffer, scale: &Scale, x: u16, spread: &Spread, style: Style, shade: Shade) {
    let is_wide = scale.level(spread.greatest) != scale.level(spread.least);
    for y in (scale.row(spread.greatest)..=scale.row(spread.least)).filter(|_| is_wide) {
        match shade {
            Shade::Ground(colour) => buffer[(x, y)].set_bg(colour),
            Shade::Sign(style) => buffer[(x, y)].set_symbol("┊").set_style(style),
        };
    }
    let (row, sign) = scale.level(spread.mean);
    let ground = buffer[(x, row)].bg;
    buffer[(x, row)].set_symbol(sign).set_style(style).set_bg(ground);
}

/// The column in which a moment lies.
fn column(at: Moment, stretch: Stretch, area: Rect) -> u16 {
    let share = at.since(stretch.from).seconds() / stretch.length().seconds().max(0.001);
    area.x + (share.clamp(0.0, 1.0) * f64::from(area.width.saturating_sub(1))).round() as u16
}

/// Times below the traces, what went wrong above them, and where the selected trial lies.
fn draw_axis(frame: &mut Frame, app: &App, area: Rect, stretch: Stretch) {
    let theme = &app.theme;
    let buffer = frame.buffer_mut();
    for x in area.left()..area.right() {
        buffer[(x, area.y)].set_symbol("╌").set_style(theme.faint);
    }
    if let Some(trial) = app.selected_span().filter(|trial| trial.to > stretch.from && trial.from < stretch.to) {
        for x in column(trial.from, stretch, area)..=column(trial.to, stretch, area) {
            buffer[(x, area.y)].set_symbol("━").set_style(theme.accent);
        }
    }
    for incident in app.shown.story.incidents.iter().filter(|incident| stretch.has(incident.at)) {
        let verdict = incident.incident.kind.verdict();
        let sign = verdict.map_or('–', |verdict| verdict.sign()).to_string();
        let x = column(incident.at, stretch, area);
        buffer[(x, area.y)].set_symbol(&sign).set_style(theme.verdict(verdict).bold());
    }
    let began = app.shown.story.began.unwrap_or_default();
    draw_times(buffer, app, area, stretch.from.since(began), stretch.length());
}

/// Times from one on, over this length.
fn draw_times(buffer: &mut Buffer, app: &App, area: Rect, from: Length, length: Length) {
    let times = (area.width / BETWEEN_TIMES).max(1);
    let apart = Length::from_millis(length.millis() / u64::from(times));
    for nth in 0..times {
        let at = from + Length::from_millis(length.millis() * u64::from(nth) / u64::from(times));
        let x = area.x + area.width * nth / times;
        if area.height > 1 {
            buffer.set_stringn(x, area.y + 1, at.clock_among(apart), usize::from(BETWEEN_TIMES), app.theme.muted);
        }
    }
}

/// Which trial has which sign, and the time since each began.
fn draw_legend(frame: &mut Frame, app: &App, area: Rect, over: &[(u32, Stretch)]) {
    let mut line = Line::default();
    for (nth, (trial, _)) in over.iter().enumerate() {
        match SIGNS.get(nth) {
            Some(sign) => {
                line.push_span(Span::styled(format!("{sign}{sign} "), over_style(app, nth)));
                line.push_span(Span::styled(format!("{}   ", telling::trial(*trial)), app.theme.text));
            }
            None => line.push_span(Span::styled(format!("{}   ", telling::left_out(*trial)), app.theme.muted)),
        }
    }
    frame.render_widget(line, Rect { height: 1, ..area });
    let length = over.iter().map(|(_, part)| part.length()).max().unwrap_or_default();
    draw_times(frame.buffer_mut(), app, area, Length::ZERO, length);
}

/// Each trial can be pointed at where it lies in time.
fn put_trials(app: &App, area: Rect, stretch: Stretch) {
    let trials = &app.shown.story.trials;
    let first = trials.partition_point(|trial| trial.began < stretch.from).saturating_sub(1);
    for (index, trial) in trials.iter().enumerate().skip(first).take_while(|(_, trial)| trial.began < stretch.to) {
        let end = trials.get(index + 1).map_or(stretch.to, |next| next.began);
        let (left, right) = (column(trial.began, stretch, area), column(end, stretch, area));
        app.places.put(Rect { x: left, width: (right - left).max(1), ..area }, Target::Trial(trial.number));
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
        self.level(reading).0
    }

    /// The row of a reading, and a line low, in the middle or high in it.
    fn level(&self, reading: f64) -> (u16, &'static str) {
        const LINES: [&str; 3] = ["▁", "━", "▔"];
        let share = if self.range > 0.0 { (reading - self.least) / self.range } else { 0.5 };
        let levels = self.area.height.max(1) * LINES.len() as u16;
        let level = (share.clamp(0.0, 1.0) * f64::from(levels - 1)).round() as u16;
        let row = self.area.bottom().saturating_sub(1 + level / LINES.len() as u16);
        (row, LINES[usize::from(level) % LINES.len()])
    }
}
