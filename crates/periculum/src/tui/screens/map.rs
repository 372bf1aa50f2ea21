//! Two settings against each other: every trial in its place, what is known of the border, and the walls.

use std::path::Path;

use anyhow::Result;
use periculum_core::Decimal;
use periculum_core::analysis::terrain::{Bounds, Place, Side, Terrain};
use periculum_core::model::curve::Curve;
use periculum_core::model::rig::Rig;
use periculum_core::telling::beside_words;
use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Margin, Rect};
use ratatui::style::Style;
use ratatui::text::Line;

use super::{Proposed, Screen, Then, curve, detail, export};
use crate::tui::climbed::Climbed;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};
use crate::tui::theme::Theme;
use crate::tui::travel::Travel;

/// Lines below the map where there is no room beside it.
const BELOW: u16 = 6;

/// Columns for the values beside the axis, and lines for those below it.
const LABELS: u16 = 9;
const FOOT: u16 = 3;

/// The screen of the map.
#[derive(Default)]
pub(super) struct Map {
    /// The settings across and up; none for those that the plan moves.
    sides: Option<[String; 2]>,
    /// Which of the rig's curves is shown in the map's place, by its own.
    curve: Option<usize>,
}

impl Screen for Map {
    fn help(&self) -> &'static str {
        if self.curve.is_some() { labels::HELP_OF_CURVE } else { labels::HELP_OF_MAP }
    }

    fn signs(&self) -> (usize, usize) {
        (0, 5)
    }

    fn keys(&self, desk: &Desk) -> Vec<Key> {
        let has_curve = !desk.shown.rig.curves.is_empty();
        let next =
            if self.curve(desk).is_none() || self.next_curve(desk).is_some() { labels::CURVE } else { labels::MAP };
        let curve = Key::letter('c', "c", next).only(has_curve, labels::NO_CURVE);
        let has_map = self.sides(desk).is_some() && self.curve(desk).is_none();
        vec![
            if has_curve { curve.first() } else { curve },
            Key::letter('x', "x", labels::OTHER_ACROSS).only(has_map, labels::NO_MAP_OF_THIS),
            Key::letter('y', "y", labels::OTHER_UP).only(has_map, labels::NO_MAP_OF_THIS),
            Key::letter('p', "p", labels::PICK),
            Key::letter('i', "i", labels::ITS_INCIDENT).only(desk.has_incident(), labels::NOTHING_WENT_WRONG),
            Key::letter('e', "e", labels::EXPORT).only(self.curve(desk).is_none(), labels::NO_PICTURE_OF_CURVE),
        ]
    }

    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        match code {
            KeyCode::Char('c') => self.curve = self.next_curve(desk),
            KeyCode::Char('x') => self.turn(0, desk),
            KeyCode::Char('y') => self.turn(1, desk),
            KeyCode::Char('p') => desk.pick_trial(),
            KeyCode::Char('i') => return Then::LookAtIncident,
            KeyCode::Char('e') if self.curve(desk).is_none() => return Then::Write,
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
        match self.curve(desk) {
            Some(curve) => curve::draw(frame, desk, area, curve),
            None => draw(frame, desk, area, self.sides(desk)),
        }
    }

    fn file(&self, desk: &Desk) -> Option<Proposed> {
        Some(export::picture_of(desk, labels::FILE_MAP))
    }

    fn write(&mut self, path: &Path, desk: &mut Desk) -> Result<String> {
        let (sides, plane) = (self.sides(desk), desk.selected_trial());
        export::picture(path, desk, |drawn| match &sides {
            Some([across, up]) => drawn.map([Some(across), Some(up)], plane),
            None => drawn.map([None; 2], plane),
        })
    }
}

impl Map {
    /// The curve that is shown, where what is shown has it.
    fn curve<'a>(&self, desk: &'a Desk) -> Option<&'a Curve> {
        desk.shown.rig.curves.get(self.curve?)
    }

    /// The curve behind the one that is shown; none behind the last, where the map's turn is.
    fn next_curve(&self, desk: &Desk) -> Option<usize> {
        let next = self.curve(desk).and(self.curve).map_or(0, |at| at + 1);
        (next < desk.shown.rig.curves.len()).then_some(next)
    }

    /// The settings across and up, where the rig of what is shown has them.
    fn sides(&self, desk: &Desk) -> Option<[String; 2]> {
        let (rig, plan) = (&desk.shown.rig, &desk.shown.plan);
        let chosen = self.sides.clone().filter(|sides| sides.iter().all(|name| rig.setting(name).is_some()));
        chosen.or_else(|| Terrain::usual(rig, plan))
    }

    /// Lays the next setting of the rig on a side; where that is on the other side already, they change places.
    fn turn(&mut self, side: usize, desk: &Desk) {
        let Some(mut sides) = self.sides(desk) else { return };
        let (rig, story) = (&desk.shown.rig, &desk.shown.story);
        let settings = rig.settings_told(story.trials.iter().map(|trial| &trial.rung));
        let at = settings.iter().position(|setting| setting.name == sides[side]).unwrap_or_default();
        let next = settings[(at + 1) % settings.len()].name.clone();
        if sides[1 - side] == next {
            sides.swap(0, 1);
        } else {
            sides[side] = next;
        }
        self.sides = Some(sides);
    }
}

fn draw(frame: &mut Frame, desk: &Desk, area: Rect, sides: Option<[String; 2]>) {
    let [map, beside] = detail::split(area, BELOW);
    detail::draw(frame, desk, beside);
    let Climbed { story, rig, plan, .. } = &desk.shown;
    let selected = desk.selected_trial();
    let Some(terrain) = sides.and_then(|sides| Terrain::of(story, rig, plan, &sides, selected)) else {
        return frame.render_widget(Line::styled(telling::NO_MAP, desk.theme.text), map);
    };
    let plane = Plane::new(map, &terrain);
    let buffer = frame.buffer_mut();
    plane.draw_axes(buffer, &desk.theme, &terrain, rig);
    for bounds in &terrain.border {
        plane.draw_border(buffer, &desk.theme, bounds);
    }
    plane.draw_walls(buffer, &desk.theme, &terrain, rig);
    // What lies in the plane is not hidden by what lies elsewhere.
    let (elsewhere, here): (Vec<&Place>, Vec<&Place>) = terrain.places.iter().partition(|place| !place.is_in_plane);
    for place in elsewhere.into_iter().chain(here) {
        plane.draw_place(buffer, &desk.theme, place, Some(place.trial) == selected);
        let at = Rect { x: plane.column(place.across), y: plane.row(place.up), width: 1, height: 1 };
        desk.places.put(at.outer(Margin::new(1, 0)), Target::Trial(place.trial));
    }
}

/// What lies upwards, and where the plane is.
fn upwards(terrain: &Terrain, rig: &Rig) -> String {
    let beside =
        if terrain.beside.is_empty() { String::new() } else { telling::plane_at(&beside_words(&terrain.beside, rig)) };
    terrain.up.axis.title() + &beside
}

/// Where values lie on the screen.
struct Plane {
    area: Rect,
    across: (Decimal, Decimal),
    up: (Decimal, Decimal),
}

/// From the lowest to the highest of what is shown of a setting: all that was tried, and its ceiling where that is not
/// farther away than what was tried is wide.
fn range(side: &Side, tried: impl Iterator<Item = Decimal>) -> (Decimal, Decimal) {
    let (low, high) = tried.fold((side.stock, side.stock), |(low, high), value| (low.min(value), high.max(value)));
    let span = if low == high { side.ceiling - low } else { high - low };
    (low, if high + span >= side.ceiling { high.max(side.ceiling) } else { high + span / Decimal::from(3) })
}

fn share(value: Decimal, (low, high): (Decimal, Decimal)) -> f64 {
    let span = high - low;
    if span.is_zero() { 0.5 } else { f64::try_from((value - low) / span).unwrap_or(0.0).clamp(0.0, 1.0) }
}

impl Plane {
    fn new(area: Rect, terrain: &Terrain) -> Self {
        let inside = Rect {
            x: area.x + LABELS + 1,
            y: area.y + 2,
            width: area.width.saturating_sub(LABELS + 2),
            height: area.height.saturating_sub(2 + FOOT),
        };
        Self {
            area: inside,
            across: range(&terrain.across, terrain.places.iter().map(|place| place.across)),
            up: range(&terrain.up, terrain.places.iter().map(|place| place.up)),
        }
    }

    fn column(&self, value: Decimal) -> u16 {
        let columns = f64::from(self.area.width.saturating_sub(1));
        self.area.x + (share(value, self.across) * columns).round() as u16
    }

    fn row(&self, value: Decimal) -> u16 {
        let rows = f64::from(self.area.height.saturating_sub(1));
        (self.area.bottom().saturating_sub(1)).saturating_sub((share(value, self.up) * rows).round() as u16)
    }

    fn put(&self, buffer: &mut Buffer, x: u16, y: u16, sign: &str, style: Style) {
        if self.area.contains((x, y).into()) {
            buffer[(x, y)].set_symbol(sign).set_style(style);
        }
    }

    fn draw_axes(&self, buffer: &mut Buffer, theme: &Theme, terrain: &Terrain, rig: &Rig) {
        let area = self.area;
        if area.height == 0 || area.width == 0 {
            return;
        }
        let upwards = upwards(terrain, rig);
        buffer.set_stringn(area.x - LABELS - 1, area.y - 2, upwards, area.width.into(), theme.muted);
        let below = area.bottom() + 1;
        let across = terrain.across.axis.title();
        let x = area.right().saturating_sub(across.chars().count() as u16);
        buffer.set_stringn(x, below + 1, &across, area.width.into(), theme.muted);
        let mut at = area.x;
        let most = area.right().saturating_sub(across.chars().count() as u16 + 2);
        for (sign, style, words) in [
            ("·", theme.good, labels::HOLDS),
            ("░", theme.warning, labels::NOT_KNOWN),
            ("▏", theme.bad, labels::FALLS_FROM_HERE),
        ] {
            let wide = words.chars().count() as u16 + 4;
            if at + wide < most {
                buffer.set_string(at, below + 1, sign, style);
                buffer.set_string(at + 2, below + 1, words, theme.muted);
                at += wide + 1;
            }
        }
        for y in area.top()..area.bottom() {
            buffer[(area.x - 1, y)].set_symbol("╎").set_style(theme.faint);
        }
        for x in area.left()..area.right() {
            buffer[(x, area.bottom())].set_symbol("╌").set_style(theme.faint);
        }
        let mut free = area.bottom();
        let mut values: Vec<Decimal> = terrain.border.iter().map(|bounds| bounds.up).collect();
        values.extend(Some(terrain.up.ceiling).filter(|ceiling| *ceiling <= self.up.1));
        values.sort();
        values.dedup();
        for value in values {
            let y = self.row(value);
            if y < free {
                let text = format!("{:>width$}", terrain.up.axis.written(value), width = usize::from(LABELS) - 1);
                buffer.set_stringn(area.x - LABELS - 1, y, text, LABELS.into(), theme.muted);
                free = y.saturating_sub(1);
            }
        }
        let mut free = area.x;
        let mut values: Vec<Decimal> = terrain.places.iter().map(|place| place.across).collect();
        values.extend(Some(terrain.across.ceiling).filter(|ceiling| *ceiling <= self.across.1));
        values.sort();
        values.dedup();
        for value in values {
            let text = terrain.across.axis.written(value);
            let wide = text.chars().count() as u16;
            let x = self
                .column(value)
                .saturating_sub(wide / 2)
                .clamp(area.x, area.right().saturating_sub(wide).max(area.x));
            if x >= free && x + wide <= area.right() {
                buffer.set_stringn(x, below, &text, wide.into(), theme.muted);
                free = x + wide + 2;
            }
        }
    }

    /// What is known to hold, and the gap up to what is known to fall.
    fn draw_border(&self, buffer: &mut Buffer, theme: &Theme, bounds: &Bounds) {
        let y = self.row(bounds.up);
        let (holds, falls) = (bounds.holds.map(|it| self.column(it)), bounds.falls.map(|it| self.column(it)));
        // Where chance has let something harder hold than what fell, nobody knows between the two either.
        let (sure, unsure) = match (holds, falls) {
            (Some(holds), Some(falls)) => (Some(holds.min(falls.saturating_sub(1))), holds.max(falls)),
            (holds, falls) => (holds, falls.or(holds).unwrap_or(self.area.x)),
        };
        for x in sure.into_iter().flat_map(|sure| self.area.left()..=sure) {
            self.put(buffer, x, y, "·", theme.good);
        }
        for x in sure.into_iter().flat_map(|sure| sure + 1..unsure) {
            self.put(buffer, x, y, "░", theme.warning);
        }
        if falls.is_some() {
            self.put(buffer, unsure, y, "▏", theme.bad);
        }
    }

    fn draw_walls(&self, buffer: &mut Buffer, theme: &Theme, terrain: &Terrain, rig: &Rig) {
        if terrain.across.ceiling <= self.across.1 {
            let x = self.column(terrain.across.ceiling);
            (self.area.top()..self.area.bottom()).for_each(|row| self.put(buffer, x, row, "┊", theme.bad));
        }
        if terrain.up.ceiling <= self.up.1 {
            let y = self.row(terrain.up.ceiling);
            (self.area.left()..self.area.right()).for_each(|column| self.put(buffer, column, y, "┄", theme.bad));
        }
        let sides = [&terrain.across, &terrain.up];
        let told = telling::ceilings(sides.map(|side| (side.axis.label.as_str(), side.axis.written(side.ceiling))));
        let wide = told.chars().count() as u16;
        let x = self.area.right().saturating_sub(wide);
        if self.area.height > 0 && x > self.area.x + upwards(terrain, rig).chars().count() as u16 {
            buffer.set_stringn(x, self.area.y - 2, &told, wide.into(), theme.bad);
        }
    }

    fn draw_place(&self, buffer: &mut Buffer, theme: &Theme, place: &Place, is_selected: bool) {
        let (x, y) = (self.column(place.across), self.row(place.up));
        let sign = place.verdict.map_or('○', |verdict| verdict.sign()).to_string();
        let style = if place.is_in_plane { theme.verdict(place.verdict).bold() } else { theme.faint };
        self.put(buffer, x, y, &sign, style);
        if is_selected {
            self.put(buffer, x.saturating_sub(1), y, "›", theme.accent.bold());
            self.put(buffer, x + 1, y, "‹", theme.accent.bold());
        }
    }
}
