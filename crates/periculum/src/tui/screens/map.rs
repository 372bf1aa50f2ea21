//! Two settings against each other: every trial in its place, what is known of the border, and the walls.

use std::path::Path;
use std::rc::Rc;

use anyhow::Result;
use periculum_core::analysis::chance;
use periculum_core::analysis::terrain::{Place, Terrain};
use periculum_core::model::curve::Curve;
use periculum_core::model::rung::Rung;
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Constraint, Layout, Margin, Rect};
use ratatui::text::Line;

use super::plane::{Plane, Shades};
use super::{Proposed, Screen, Then, borders, curve, detail, export, ranges};
use crate::tui::climbed::Climbed;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::pointing::Target;
use crate::tui::shading::Chances;
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// Lines below the map where there is no room beside it.
const BELOW: u16 = 6;

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
            Key::letter('p', "p", labels::PICK).only(desk.selected_trial().is_some(), labels::NO_TRIAL_SO_FAR),
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

    fn moves(&self, desk: &Desk) -> Option<&'static str> {
        (desk.found().len() > 1).then_some(labels::SELECT)
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
    let beside = detail::draw_told(frame, desk, beside);
    let Climbed { story, rig, plan, .. } = &desk.shown;
    let selected = desk.selected_trial();
    let Some(terrain) = sides.and_then(|sides| Terrain::of(story, rig, plan, &sides, selected)) else {
        ranges::draw(frame, desk, beside);
        return frame.render_widget(Line::styled(telling::NO_MAP, desk.theme.text), map);
    };
    let plane = Plane::new(map, &terrain);
    let chances = chances(desk, &terrain, &plane);
    let [border, read] = beside_map(desk, beside, &terrain);
    borders::draw(frame, desk, border, &terrain, chances.as_deref());
    ranges::draw(frame, desk, read);
    let buffer = frame.buffer_mut();
    let shades = match &chances {
        Some(_) => Shades::Drawn,
        None if desk.shading.is_under_way() => Shades::Awaited,
        None => Shades::None,
    };
    plane.draw_axes(buffer, &desk.theme, &terrain, rig, shades);
    if let Some(chances) = chances {
        plane.draw_chances(buffer, &desk.theme, &chances);
    }
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

/// The places of the border's figures, and of what was read, which are whole where there is room for some of the former too.
fn beside_map(desk: &Desk, area: Rect, terrain: &Terrain) -> [Rect; 2] {
    let left = area.height.saturating_sub(ranges::least_height(desk));
    Layout::vertical([Constraint::Length(borders::height(terrain).min(left)), Constraint::Min(0)]).areas(area)
}

/// How likely what lies between the trials survives, as far as that has been worked out: the same for all trials of a stage in one
/// plane, of which the first stands for them.
fn chances(desk: &Desk, terrain: &Terrain, plane: &Plane) -> Option<Rc<Chances>> {
    let Climbed { story, rig, .. } = &desk.shown;
    let own = desk.selected_trial().and_then(|number| story.trial(number)).or(story.trials.last())?;
    let [across, up] = plane.values(terrain, rig)?;
    let values = [&across.0, &up.0].map(|setting| Some((setting, own.rung.get(setting)?)));
    let there =
        |rung: &Rung| values.iter().flatten().fold(rung.clone(), |rung, (setting, value)| rung.with(setting, *value));
    let first = story.trials.iter().find(|trial| trial.stage == own.stage && there(&trial.rung) == own.rung)?;
    desk.shading.of(&desk.shown, chance::Plane { trial: first.number, across, up })
}
