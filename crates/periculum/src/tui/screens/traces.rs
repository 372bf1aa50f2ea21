//! What the sensors read over the climb, a part of it or one trial, with everything that went wrong on the axis of time;
//! or of several trials, laid over each other from their beginnings on.

use std::cell::Cell;
use std::path::Path;

use anyhow::{Result, bail};
use periculum_core::model::moment::{Moment, Span as Length};
use periculum_core::model::rig::Sensor;
use periculum_core::story::series::{Series, Spread};
use periculum_core::story::stretch::Stretch;
use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span};

use super::{Proposed, Screen, Then, export};
use crate::tui::desk::Desk;
use crate::tui::keys::{Key, offered};
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};
use crate::tui::theme::Shade;
use crate::tui::travel::Travel;

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

/// How the stretch of time that traces show changes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Look {
    Closer,
    Farther,
    Earlier,
    Later,
}

/// So much time is shown around something that went wrong.
const AROUND_INCIDENT: Length = Length::from_seconds(120);

/// The screen of the traces.
#[derive(Default)]
pub(in crate::tui) struct Traces {
    /// Whether they are those of the selected trial only.
    shows_trial: bool,
    /// The part that they show, where it is neither the climb nor a trial, and at which move of the selection that was chosen.
    looked_at: Option<(u32, Stretch)>,
    /// Which thing that went wrong was looked at last, by its place in the record.
    incident: Option<usize>,
    /// Whether they show the picked trials over each other.
    lays_over: bool,
    /// Which sensor stands first, and for how many there was no room when they were drawn last.
    first_sensor: usize,
    sensors_left: Cell<usize>,
}

impl Screen for Traces {
    fn help(&self) -> &'static str {
        labels::HELP_OF_TRACES
    }

    fn signs(&self) -> (usize, usize) {
        (0, 4)
    }

    fn keys(&self, desk: &Desk) -> Vec<Key> {
        let has_incidents = !desk.shown.story.incidents.is_empty();
        let can_lay_over = desk.picks.trials_of(desk.shown.number).count() > 1;
        offered([
            (!self.shows_trial, Key::letter('z', "z", labels::THIS_TRIAL)),
            (self.shows_trial, Key::letter('z', "z", labels::WHOLE_CLIMB)),
            (true, Key::letter('p', "p", labels::PICK)),
            (true, Key::letter('+', "+ -", labels::CLOSER_FARTHER)),
            (true, Key::silent(KeyCode::Char('-'))),
            (true, Key::new(KeyCode::Left, "←→", labels::MOVE)),
            (true, Key::silent(KeyCode::Right)),
            (true, Key::letter('i', "i", labels::NEXT_INCIDENT).only(has_incidents, labels::NOTHING_WENT_WRONG)),
            (true, Key::tab(labels::MORE_SENSORS).only(self.sensors_left.get() > 0, labels::ALL_ARE_SHOWN)),
            (!self.lays_over, Key::letter('o', "o", labels::LAY_OVER).only(can_lay_over, labels::PICK_TWO_TRIALS)),
            (self.lays_over, Key::letter('o', "o", labels::ONE_BY_ONE)),
            (true, Key::letter('e', "e", labels::EXPORT)),
        ])
    }

    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        match code {
            KeyCode::Char('z') => (self.shows_trial, self.looked_at) = (!self.shows_trial, None),
            KeyCode::Char('p') => desk.pick_trial(),
            KeyCode::Char('+') => self.look(Look::Closer, desk),
            KeyCode::Char('-') => self.look(Look::Farther, desk),
            KeyCode::Left => self.look(Look::Earlier, desk),
            KeyCode::Right => self.look(Look::Later, desk),
            KeyCode::Char('i') => self.look_at_next_incident(desk),
            KeyCode::Tab => self.turn_sensors(desk),
            KeyCode::Char('o') => self.lays_over = !self.lays_over,
            KeyCode::Char('e') => return Then::Write,
            _ => {}
        }
        Then::Nothing
    }

    fn moves(&self, _desk: &Desk) -> Option<&'static str> {
        Some(labels::SELECT)
    }

    fn select(&mut self, step: Travel, desk: &mut Desk) {
        desk.select_among_found(step);
    }

    fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        self.draw_all(frame, desk, area);
    }

    fn file(&self, desk: &Desk) -> Option<Proposed> {
        Some(export::picture_of(desk, labels::FILE_TRACES))
    }

    fn write(&mut self, path: &Path, desk: &mut Desk) -> Result<String> {
        let (over, stretch) = (self.laid_over(desk), self.stretch(desk));
        export::picture(path, desk, |drawn| match stretch {
            _ if !over.is_empty() => drawn.traces_over(&over),
            Some(Stretch { from, to }) => drawn.traces(from, to),
            None => bail!(telling::NO_READING),
        })
    }
}

impl Traces {
    /// The stretch of time that traces show; none before anything was read.
    pub(in crate::tui) fn stretch(&self, desk: &Desk) -> Option<Stretch> {
        let whole = whole_stretch(desk)?;
        let looked_at = self.looked_at.filter(|(moves, _)| *moves == desk.moves).map(|(_, stretch)| stretch);
        let trial = desk.selected_span().filter(|trial| self.shows_trial && trial.from < trial.to);
        Some(looked_at.or(trial).unwrap_or(whole))
    }

    /// The picked trials of this climb, where they are laid over each other.
    fn laid_over(&self, desk: &Desk) -> Vec<(u32, Stretch)> {
        if !self.lays_over {
            return Vec::new();
        }
        let picked = desk.picks.trials_of(desk.shown.number);
        picked.filter_map(|trial| Some((trial, desk.span_of(trial)?))).collect()
    }

    /// Looks closer, from farther away, earlier or later.
    fn look(&mut self, how: Look, desk: &Desk) {
        let (Some(whole), Some(now)) = (whole_stretch(desk), self.stretch(desk)) else { return };
        let looked_at = match how {
            Look::Closer => now.closer(whole),
            Look::Farther => now.farther(whole),
            Look::Earlier => now.moved(false, whole),
            Look::Later => now.moved(true, whole),
        };
        self.looked_at = Some((desk.moves, looked_at)).filter(|_| looked_at != whole);
    }

    /// Goes to where the next thing went wrong, behind that which was looked at last.
    fn look_at_next_incident(&mut self, desk: &mut Desk) {
        let is_looking = self.looked_at.is_some_and(|(moves, _)| moves == desk.moves);
        let next = match self.incident {
            Some(last) if is_looking => (last + 1) % desk.shown.story.incidents.len().max(1),
            _ => 0,
        };
        self.look_at_incident(next, desk);
    }

    /// Goes to where something went wrong in the selected trial; tells whether there is anything to be seen.
    pub(in crate::tui) fn look_at_incident_of_selected(&mut self, desk: &mut Desk) -> bool {
        let selected = desk.selected_trial();
        let first = desk.shown.story.incidents.iter().position(|told| told.trial == selected);
        self.look_at_incident(first.unwrap_or(0), desk)
    }

    fn look_at_incident(&mut self, number: usize, desk: &mut Desk) -> bool {
        let told = desk.shown.story.incidents.get(number).map(|told| (told.trial, told.at));
        let (Some(whole), Some((trial, at))) = (whole_stretch(desk), told) else { return false };
        desk.selected = trial.or(desk.selected);
        self.looked_at = Some((desk.moves, Stretch::around(at, AROUND_INCIDENT.millis(), whole)));
        (self.lays_over, self.incident) = (false, Some(number));
        true
    }

    /// Those that there was room for stand last then.
    fn turn_sensors(&mut self, desk: &Desk) {
        let all = desk.shown.traced().count();
        self.first_sensor = (self.first_sensor + all - self.sensors_left.get()) % all.max(1);
    }

    fn draw_all(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        let Some(stretch) = self.stretch(desk) else {
            return frame.render_widget(Line::styled(telling::NO_READING, desk.theme.text), area);
        };
        if area.height < LEAST + AXIS || area.width < 3 * LABELS {
            return frame.render_widget(Line::styled(telling::NO_ROOM_FOR_TRACES, desk.theme.text), area);
        }
        let over = self.laid_over(desk);
        let shown: Vec<Stretch> = if over.is_empty() {
            vec![stretch]
        } else {
            over.iter().take(SIGNS.len()).map(|(_, part)| *part).collect()
        };
        let mut sensors: Vec<&Sensor> = desk.shown.traced().collect();
        let first = self.first_sensor % sensors.len().max(1);
        sensors.rotate_left(first);
        let heights = heights(desk, &sensors, area.height - AXIS, &shown);
        let plot = Rect { x: area.x + LABELS + 1, width: area.width.saturating_sub(LABELS + 1), ..area };
        let mut y = area.y;
        for (sensor, height) in sensors.iter().zip(&heights) {
            draw_sensor(frame, desk, Rect { y, height: *height, ..plot }, sensor, &shown);
            y += height;
        }
        let axis = Rect { y, height: AXIS, ..plot };
        if axis.bottom() > area.bottom() {
            return;
        }
        if over.is_empty() {
            draw_axis(frame, desk, axis, stretch);
            put_trials(desk, Rect { height: axis.bottom() - area.y, ..plot }, stretch);
        } else {
            draw_legend(frame, desk, axis, &over);
        }
        let left_out = sensors.len() - heights.len();
        self.sensors_left.set(left_out);
        if left_out > 0 {
            let more = Line::styled(telling::more_sensors(left_out), desk.theme.muted);
            frame.render_widget(more, Rect { y: axis.y + 2, height: 1, ..axis });
        }
    }
}

/// The stretch of time in which anything was read.
fn whole_stretch(desk: &Desk) -> Option<Stretch> {
    let spans = desk.shown.traces.values().filter_map(Series::span);
    let (from, to) = spans.reduce(|(from, to), (begin, end)| (from.min(begin), to.max(end)))?;
    // The last reading belongs to it.
    Some(Stretch { from, to: to + Length::from_millis(1) })
}

/// How many lines each sensor has, for as many as there is room for: a reading that never changes needs only one.
fn heights(desk: &Desk, sensors: &[&Sensor], room: u16, shown: &[Stretch]) -> Vec<u16> {
    let is_flat = |sensor: &&Sensor| {
        !sensor.words.is_empty()
            || spread(&desk.shown.traces[&sensor.name], shown).is_none_or(|spread| spread.least == spread.greatest)
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
fn draw_sensor(frame: &mut Frame, desk: &Desk, area: Rect, sensor: &Sensor, shown: &[Stretch]) {
    let theme = &desk.theme;
    let series = &desk.shown.traces[&sensor.name];
    if !sensor.words.is_empty() {
        return draw_states(frame, desk, area, sensor, shown);
    }
    let Some(all) = spread(series, shown) else { return };
    let told = |value: f64| sensor.written(value);
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
        let cut_off = |x: u16| {
            let at = part.from + Length::from_millis(column_millis(part.length(), inside, x));
            let trial = desk.shown.story.trial_at(at);
            let value = |setting: &str| trial.and_then(|trial| trial.rung.get(setting));
            f64::try_from(sensor.cut_off.as_ref()?.at(value)?).ok()
        };
        for (x, spread) in in_columns(series, *part, inside) {
            let style =
                if cut_off(x).is_some_and(|cut_off| spread.greatest > cut_off) { theme.bad } else { theme.good };
            draw_column(buffer, &scale, x, &spread, style, desk.theme.shade);
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
                buffer[place].set_symbol(SIGNS[nth]).set_style(over_style(desk, nth));
            }
        }
    }
}

/// A sensor of states as a band: in each column the colour of the state that it was in most, and what the colours stand for.
fn draw_states(frame: &mut Frame, desk: &Desk, area: Rect, sensor: &Sensor, shown: &[Stretch]) {
    let theme = &desk.theme;
    let colours = [theme.faint, theme.accent, theme.warning, theme.bad, theme.good, theme.text, theme.muted];
    let colour = |nth: usize| colours[nth % colours.len()];
    let mut title = vec![Span::styled(format!("{}  ", sensor.label), theme.text)];
    for (nth, word) in sensor.words.iter().enumerate() {
        title.push(Span::styled(" ■ ", colour(nth)));
        title.push(Span::styled(word.clone(), theme.muted));
    }
    frame.render_widget(Line::from(title), Rect { height: 1, ..area });
    let band = Rect { y: area.y + 1, height: 1, ..area };
    let length = shown.iter().map(|part| part.length()).max().unwrap_or_default();
    let Some(part) = shown.first().map(|part| Stretch { to: part.from + length, ..*part }) else { return };
    let states = desk.shown.traces[&sensor.name].states(part.from, part.to, usize::from(band.width));
    for (x, state) in (band.x..).zip(states) {
        let Some(state) = state else { continue };
        frame.buffer_mut()[(x, band.y)].set_symbol("▄").set_style(colour(state.round().max(0.0) as usize));
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

fn over_style(desk: &Desk, nth: usize) -> Style {
    [desk.theme.accent, desk.theme.warning, desk.theme.good, desk.theme.text][nth]
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
fn draw_axis(frame: &mut Frame, desk: &Desk, area: Rect, stretch: Stretch) {
    let theme = &desk.theme;
    let buffer = frame.buffer_mut();
    for x in area.left()..area.right() {
        buffer[(x, area.y)].set_symbol("╌").set_style(theme.faint);
    }
    if let Some(trial) = desk.selected_span().filter(|trial| trial.to > stretch.from && trial.from < stretch.to) {
        for x in column(trial.from, stretch, area)..=column(trial.to, stretch, area) {
            buffer[(x, area.y)].set_symbol("━").set_style(theme.accent);
        }
    }
    for incident in desk.shown.story.incidents.iter().filter(|incident| stretch.has(incident.at)) {
        let verdict = incident.incident.kind.verdict();
        let sign = verdict.map_or('–', |verdict| verdict.sign()).to_string();
        let x = column(incident.at, stretch, area);
        buffer[(x, area.y)].set_symbol(&sign).set_style(theme.verdict(verdict).bold());
    }
    let began = desk.shown.story.began.unwrap_or_default();
    draw_times(buffer, desk, area, stretch.from.since(began), stretch.length());
}

/// Times from one on, over this length.
fn draw_times(buffer: &mut Buffer, desk: &Desk, area: Rect, from: Length, length: Length) {
    let times = (area.width / BETWEEN_TIMES).max(1);
    let apart = Length::from_millis(length.millis() / u64::from(times));
    for nth in 0..times {
        let at = from + Length::from_millis(length.millis() * u64::from(nth) / u64::from(times));
        let x = area.x + area.width * nth / times;
        if area.height > 1 {
            buffer.set_stringn(x, area.y + 1, at.clock_among(apart), usize::from(BETWEEN_TIMES), desk.theme.muted);
        }
    }
}

/// Which trial has which sign, and the time since each began.
fn draw_legend(frame: &mut Frame, desk: &Desk, area: Rect, over: &[(u32, Stretch)]) {
    let mut line = Line::default();
    for (nth, (trial, _)) in over.iter().enumerate() {
        match SIGNS.get(nth) {
            Some(sign) => {
                line.push_span(Span::styled(format!("{sign}{sign} "), over_style(desk, nth)));
                line.push_span(Span::styled(format!("{}   ", telling::trial(*trial)), desk.theme.text));
            }
            None => line.push_span(Span::styled(format!("{}   ", telling::left_out(*trial)), desk.theme.muted)),
        }
    }
    frame.render_widget(line, Rect { height: 1, ..area });
    let length = over.iter().map(|(_, part)| part.length()).max().unwrap_or_default();
    draw_times(frame.buffer_mut(), desk, area, Length::ZERO, length);
}

/// Each trial can be pointed at where it lies in time.
fn put_trials(desk: &Desk, area: Rect, stretch: Stretch) {
    let trials = &desk.shown.story.trials;
    let first = trials.partition_point(|trial| trial.began < stretch.from).saturating_sub(1);
    for (index, trial) in trials.iter().enumerate().skip(first).take_while(|(_, trial)| trial.began < stretch.to) {
        let end = trials.get(index + 1).map_or(stretch.to, |next| next.began);
        let (left, right) = (column(trial.began, stretch, area), column(end, stretch, area));
        desk.places.put(Rect { x: left, width: (right - left).max(1), ..area }, Target::Trial(trial.number));
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
