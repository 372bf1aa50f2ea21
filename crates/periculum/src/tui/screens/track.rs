//! One sensor over time: its title with what the readings come to, its trace, its limits, and what went wrong meanwhile.

use periculum_core::Decimal;
use periculum_core::model::cut_off::CutOff;
use periculum_core::model::moment::{Moment, Span as Length};
use periculum_core::model::rig::Sensor;
use periculum_core::story::TrialStory;
use periculum_core::story::series::{Series, Spread};
use periculum_core::story::stretch::Stretch;
use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span};

use super::timeline::{CURSOR, SIGNS, column, over_style};
use crate::tui::desk::Desk;
use crate::tui::habits::fahrenheit;
use crate::tui::telling;
use crate::tui::theme::Shade;

/// Columns for the values beside a trace.
pub(super) const LABELS: u16 = 9;

/// Lines of a sensor at least, its title included.
pub(super) const LEAST: u16 = 4;

/// So many things that went wrong are drawn through the traces; more of them would hide these.
const INCIDENTS: usize = 12;

/// What was read in all of these stretches together.
pub(super) fn spread(series: &Series, shown: &[Stretch]) -> Option<Spread> {
    Spread::all(shown.iter().filter_map(|part| series.between(part.from, part.to)))
}

/// A title with what the readings come to, and below it the trace: in each column from its least to its greatest
/// reading; of several trials only the mean.
pub(super) fn draw(
    frame: &mut Frame,
    desk: &Desk,
    area: Rect,
    sensor: &Sensor,
    shown: &[Stretch],
    cursor: Option<Moment>,
) {
    let series = &desk.shown.traces[&sensor.name];
    let Some(all) = spread(series, shown) else { return };
    let is_state = !sensor.words.is_empty();
    let blank = u16::from(area.height != LEAST);
    let inside = Rect { y: area.y + 1, height: if is_state { 1 } else { area.height - 1 - blank }, ..area };
    let under = match (shown, cursor) {
        ([part], Some(at)) => under_cursor(series, *part, inside, at, is_state),
        _ => None,
    };
    let title = if is_state { states_title(desk, sensor, under) } else { title(desk, sensor, &all, under, area.width) };
    frame.render_widget(title, Rect { height: 1, ..area });
    let buffer = frame.buffer_mut();
    match shown {
        _ if is_state => draw_states(buffer, desk, inside, series, shown),
        [part] => {
            let scale = draw_limited(buffer, desk, inside, sensor, &all, *part);
            draw_ends(buffer, desk, sensor, &scale, &all);
        }
        _ => draw_over(buffer, desk, inside, sensor, &all, shown),
    }
    if let ([part], Some(at)) = (shown, cursor) {
        draw_through(buffer, inside, column(at, *part, inside), CURSOR, desk.theme.accent);
    }
}

/// The label, what the readings come to, and the reading where the cursor stands.
fn title(desk: &Desk, sensor: &Sensor, all: &Spread, under: Option<f64>, width: u16) -> Line<'static> {
    let theme = &desk.theme;
    let told = |value: f64| sensor.written(value);
    let twin = desk.habits.twin(sensor, |_| None);
    let unit = if sensor.unit.is_empty() { String::new() } else { format!(", {}", sensor.unit) };
    let sums = telling::sums(&told(all.least), &told(all.greatest), &told(all.mean));
    let mut title =
        vec![Span::styled(format!("{}{unit}   ", sensor.label), theme.text), Span::styled(sums, theme.muted)];
    title.extend(under.map(|reading| Span::styled(format!("   {CURSOR} {}", told(reading)), theme.accent)));
    let title = Line::from(title);
    let beside = twin.map(|twin| {
        let told = |value: f64| twin.written(fahrenheit(value));
        let sums = telling::sums(&told(all.least), &told(all.greatest), &told(all.mean));
        let under = under.map(|reading| format!("  {CURSOR} {}", told(reading))).unwrap_or_default();
        Span::styled(format!("   {sums}{under} {}", twin.unit), theme.muted)
    });
    match beside.filter(|beside| title.width() + beside.width() <= usize::from(width)) {
        Some(beside) => title + beside,
        None => title,
    }
}

/// The label of what reads states, what the colours stand for, and the state where the cursor stands.
fn states_title(desk: &Desk, sensor: &Sensor, under: Option<f64>) -> Line<'static> {
    let mut title = vec![Span::styled(format!("{}  ", sensor.label), desk.theme.text)];
    for (nth, word) in sensor.words.iter().enumerate() {
        title.push(Span::styled(" ■ ", colour(desk, nth)));
        title.push(Span::styled(word.clone(), desk.theme.muted));
    }
    title.extend(under.map(|state| Span::styled(format!("   {CURSOR} {}", sensor.written(state)), desk.theme.accent)));
    Line::from(title)
}

/// What was read in the column where the cursor stands, or last before it: a machine that died says what it was like then.
fn under_cursor(series: &Series, part: Stretch, area: Rect, at: Moment, is_state: bool) -> Option<f64> {
    let nth = usize::from(column(at, part, area).saturating_sub(area.x));
    let columns = usize::from(area.width);
    let readings: Vec<Option<f64>> = match is_state {
        true => series.states(part.from, part.to, columns),
        false => series.line(part.from, part.to, columns).into_iter().map(|spread| Some(spread?.mean)).collect(),
    };
    readings.into_iter().take(nth + 1).rev().flatten().next()
}

/// One stretch: what went wrong in it and the limits, and before them the trace, red where it is beyond a cut-off.
pub(super) fn draw_limited(
    buffer: &mut Buffer,
    desk: &Desk,
    area: Rect,
    sensor: &Sensor,
    all: &Spread,
    part: Stretch,
) -> Scale {
    let theme = &desk.theme;
    let trial = |x: u16| {
        let at = part.from + Length::from_millis(column_millis(part.length(), area, x));
        desk.shown.story.trial_at(at)
    };
    let limits: Vec<Limits> = (area.left()..area.right()).map(|x| Limits::of(sensor, trial(x))).collect();
    let shown = |limit: &f64| {
        let range = all.greatest - all.least;
        (all.least - range..=all.greatest + range).contains(limit)
    };
    let drawn: Vec<f64> = limits.iter().flat_map(Limits::all).filter(shown).collect();
    let scale = Scale::of(all, &drawn, area);
    let incidents: Vec<Moment> = desk.incidents_in(part).map(|incident| incident.at).collect();
    for at in incidents.iter().filter(|_| incidents.len() <= INCIDENTS) {
        draw_through(buffer, area, column(*at, part, area), "╎", theme.bad);
    }
    for (x, limits) in (area.left()..).zip(&limits) {
        for (limit, style) in
            limits.cut_offs().map(|it| (it, theme.bad)).chain(limits.own().map(|it| (it, theme.warning)))
        {
            if shown(&limit) {
                buffer[(x, scale.row(limit))].set_symbol("┄").set_style(style);
            }
        }
    }
    for (x, spread) in in_columns(&desk.shown.traces[&sensor.name], part, area) {
        let style = if limits[usize::from(x - area.x)].is_beyond(&spread) { theme.bad } else { theme.good };
        draw_column(buffer, &scale, x, &spread, style, theme.shade);
    }
    scale
}

/// Several trials over each other, all on the scale of the longest.
fn draw_over(buffer: &mut Buffer, desk: &Desk, area: Rect, sensor: &Sensor, all: &Spread, shown: &[Stretch]) {
    let scale = Scale::of(all, &[], area);
    draw_ends(buffer, desk, sensor, &scale, all);
    let length = shown.iter().map(|part| part.length()).max().unwrap_or_default();
    for (nth, part) in shown.iter().enumerate().rev() {
        let stretched = Stretch { to: part.from + length, ..*part };
        for (x, spread) in in_columns(&desk.shown.traces[&sensor.name], stretched, area) {
            let part_is_over = stretched.from + Length::from_millis(column_millis(length, area, x)) >= part.to;
            let place = (x, scale.row(spread.mean));
            if area.contains(place.into()) && !part_is_over {
                buffer[place].set_symbol(SIGNS[nth]).set_style(over_style(desk, nth));
            }
        }
    }
}

/// The least and the greatest reading beside their rows.
fn draw_ends(buffer: &mut Buffer, desk: &Desk, sensor: &Sensor, scale: &Scale, all: &Spread) {
    let ends = [all.least, all.greatest];
    for value in ends.into_iter().take(if all.least < all.greatest { 2 } else { 1 }) {
        let text = format!("{:>width$}", sensor.written(value), width = usize::from(LABELS) - 1);
        buffer.set_stringn(scale.area.x - LABELS - 1, scale.row(value), text, LABELS.into(), desk.theme.muted);
    }
}

/// A line through all rows, where nothing else stands.
fn draw_through(buffer: &mut Buffer, area: Rect, x: u16, sign: &str, style: Style) {
    for y in area.top()..area.bottom() {
        if buffer[(x, y)].symbol() == " " {
            let ground = buffer[(x, y)].bg;
            buffer[(x, y)].set_symbol(sign).set_style(style).set_bg(ground);
        }
    }
}

/// A sensor of states as a band: in each column the colour of the state that it was in most.
fn draw_states(buffer: &mut Buffer, desk: &Desk, band: Rect, series: &Series, shown: &[Stretch]) {
    let length = shown.iter().map(|part| part.length()).max().unwrap_or_default();
    let Some(part) = shown.first().map(|part| Stretch { to: part.from + length, ..*part }) else { return };
    let states = series.states(part.from, part.to, usize::from(band.width));
    for (x, state) in (band.x..).zip(states) {
        let Some(state) = state else { continue };
        buffer[(x, band.y)].set_symbol("▄").set_style(colour(desk, state.round().max(0.0) as usize));
    }
}

/// The colour of a state.
fn colour(desk: &Desk, nth: usize) -> Style {
    let theme = &desk.theme;
    let colours = [theme.faint, theme.accent, theme.warning, theme.bad, theme.good, theme.text, theme.muted];
    colours[nth % colours.len()]
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

/// What a sensor is watched for while a trial runs: where a pass is stopped at once, above and below, and where the rig itself takes
/// its clock back or work has stopped arriving.
struct Limits {
    above: Option<f64>,
    below: Option<f64>,
    own: [Option<f64>; 2],
}

impl Limits {
    fn of(sensor: &Sensor, trial: Option<&TrialStory>) -> Self {
        let value = |setting: &str| trial.and_then(|trial| trial.rung.get(setting));
        let number = |limit: Option<Decimal>| limit.and_then(|limit| f64::try_from(limit).ok());
        let of = |cut_off: &Option<CutOff>| number(cut_off.as_ref()?.at(value));
        Self {
            above: of(&sensor.cut_off),
            below: of(&sensor.cut_off_below),
            own: [number(sensor.limit), number(sensor.least)],
        }
    }

    fn cut_offs(&self) -> impl Iterator<Item = f64> {
        self.above.into_iter().chain(self.below)
    }

    fn own(&self) -> impl Iterator<Item = f64> {
        self.own.into_iter().flatten()
    }

    fn all(&self) -> impl Iterator<Item = f64> {
        self.cut_offs().chain(self.own())
    }

    fn is_beyond(&self, spread: &Spread) -> bool {
        self.above.is_some_and(|limit| spread.greatest > limit) || self.below.is_some_and(|limit| spread.least < limit)
    }
}

/// Where a reading lies between the least and the greatest that is shown.
pub(super) struct Scale {
    least: f64,
    range: f64,
    area: Rect,
}

impl Scale {
    /// Of all readings, and of the limits that are drawn beside them.
    fn of(all: &Spread, limits: &[f64], area: Rect) -> Self {
        let least = limits.iter().copied().fold(all.least, f64::min);
        let greatest = limits.iter().copied().fold(all.greatest, f64::max);
        Self { least, range: greatest - least, area }
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
