//! What the sensors read over the climb, a part of it or one trial, with everything that went wrong on the axis of time;
//! or of several trials, laid over each other from their beginnings on.

use std::cell::Cell;
use std::path::Path;

use anyhow::{Result, bail};
use periculum_core::model::moment::{Moment, Span as Length};
use periculum_core::model::rig::Sensor;
use periculum_core::story::series::Series;
use periculum_core::story::stretch::Stretch;
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::Rect;
use ratatui::text::Line;

use super::timeline::{SIGNS, draw_axis, draw_legend, put_trials};
use super::track::{LABELS, LEAST, spread};
use super::{Proposed, Screen, Then, export, track};
use crate::tui::desk::Desk;
use crate::tui::keys::{Key, offered};
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// Lines of a sensor, its title included, at most.
const MOST: u16 = 14;

/// Lines of a sensor at least where there are as many lines as this in all: a trace of six rows, its title and a blank line.
const EASY: u16 = 8;
const ROOMY: u16 = 27;

/// Lines of a sensor that reads the same all the time.
const FLAT: u16 = 3;

/// Lines for the axis of time.
const AXIS: u16 = 3;

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
    /// The moment of which the readings are told, and how many columns the traces had when they were drawn last.
    cursor: Option<Moment>,
    columns: Cell<u16>,
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
        let read = |key: Key| key.only(whole_stretch(desk).is_some(), labels::NOTHING_READ);
        let pick = Key::letter('p', "p", labels::PICK);
        offered([
            (!self.shows_trial, read(Key::letter('z', "z", labels::THIS_TRIAL))),
            (self.shows_trial, Key::letter('z', "z", labels::WHOLE_CLIMB)),
            (true, pick.only(desk.selected_trial().is_some(), labels::NO_TRIAL_SO_FAR)),
            (!self.lays_over, read(Key::new(KeyCode::Left, "←→", labels::LOOK_AT_MOMENT))),
            (!self.lays_over, read(Key::silent(KeyCode::Right))),
            (!self.lays_over, read(Key::letter('+', "+ -", labels::CLOSER_FARTHER))),
            (!self.lays_over, read(Key::silent(KeyCode::Char('-')))),
            (true, Key::letter('i', "i", labels::NEXT_INCIDENT).only(has_incidents, labels::NOTHING_WENT_WRONG)),
            (true, Key::tab(labels::MORE_SENSORS).only(self.sensors_left.get() > 0, labels::ALL_ARE_SHOWN)),
            (!self.lays_over, Key::letter('o', "o", labels::LAY_OVER).only(can_lay_over, labels::PICK_TWO_TRIALS)),
            (self.lays_over, Key::letter('o', "o", labels::ONE_BY_ONE)),
            (true, read(Key::letter('e', "e", labels::EXPORT))),
        ])
    }

    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        match code {
            KeyCode::Char('z') => {
                (self.shows_trial, self.looked_at, self.cursor) = (!self.shows_trial, None, None);
            }
            KeyCode::Char('p') => desk.pick_trial(),
            KeyCode::Char('+') => self.look(true, desk),
            KeyCode::Char('-') => self.look(false, desk),
            KeyCode::Left => self.step(false, desk),
            KeyCode::Right => self.step(true, desk),
            KeyCode::Char('i') => self.look_at_next_incident(desk),
            KeyCode::Tab => self.turn_sensors(desk),
            KeyCode::Char('o') => self.lays_over = !self.lays_over,
            KeyCode::Char('e') => return Then::Write,
            _ => {}
        }
        Then::Nothing
    }

    fn moves(&self, desk: &Desk) -> Option<&'static str> {
        (desk.found().len() > 1).then_some(labels::SELECT)
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

    /// Looks closer or from farther away, at the cursor where it stands there.
    fn look(&mut self, closer: bool, desk: &Desk) {
        let (Some(whole), Some(now)) = (whole_stretch(desk), self.stretch(desk)) else { return };
        let middle = self.cursor.filter(|at| now.has(*at)).unwrap_or(now.middle());
        self.look_at(if closer { now.closer(middle, whole) } else { now.farther(middle, whole) }, whole, desk);
    }

    /// Moves the cursor by a column; where it comes to an end of what is shown, that goes on with it.
    fn step(&mut self, later: bool, desk: &Desk) {
        let (Some(whole), Some(now)) = (whole_stretch(desk), self.stretch(desk)) else { return };
        let by = (now.length().millis() / u64::from(self.columns.get().max(1))).max(1) as i64;
        let at = match self.cursor.filter(|at| now.has(*at)) {
            Some(at) => at.millis() + if later { by } else { -by },
            None => now.middle().millis(),
        };
        let at = Moment::from_millis(at.clamp(whole.from.millis(), whole.to.millis() - 1));
        self.cursor = Some(at);
        if !now.has(at) {
            self.look_at(now.moved(later, whole), whole, desk);
        }
    }

    fn look_at(&mut self, part: Stretch, whole: Stretch, desk: &Desk) {
        self.looked_at = Some((desk.moves, part)).filter(|_| part != whole);
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
        (self.lays_over, self.incident, self.cursor) = (false, Some(number), Some(at));
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
        self.columns.set(plot.width);
        let cursor = self.cursor.filter(|at| over.is_empty() && stretch.has(*at));
        let mut y = area.y;
        for (sensor, height) in sensors.iter().zip(&heights) {
            track::draw(frame, desk, Rect { y, height: *height, ..plot }, sensor, &shown, cursor);
            y += height;
        }
        let axis = Rect { y, height: AXIS, ..plot };
        if axis.bottom() > area.bottom() {
            return;
        }
        if over.is_empty() {
            draw_axis(frame, desk, axis, stretch, cursor);
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
    let least = if room >= ROOMY { EASY } else { LEAST };
    let height = (room.saturating_sub(flat * FLAT) / moving).clamp(least, MOST);
    let wanted = sensors.iter().map(|sensor| if is_flat(sensor) { FLAT } else { height });
    let mut left = room;
    wanted
        .map_while(|height| {
            left = left.checked_sub(height)?;
            Some(height)
        })
        .collect()
}
