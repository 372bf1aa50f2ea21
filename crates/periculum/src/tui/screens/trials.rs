//! The trials of the climb as a list, and the selected one with all that is known of it.

use std::collections::BTreeSet;
use std::path::Path;

use anyhow::Result;
use periculum_charts::trials as table_of_trials;
use periculum_core::analysis::attempts::Column;
use periculum_core::model::ladder::Direction;
use periculum_core::story::finding::{Sorted, sorted_by};
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::text::{Line, Span};

use super::{Proposed, Screen, Then, attempts, detail, export};
use crate::tui::climbed::Climbed;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::overlays::{Entry, Overlay};
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// Lines below the list where there is no room beside it.
const BELOW: u16 = 9;

/// The screen of the trials.
#[derive(Default)]
pub(super) struct Trials {
    /// The column that is looked at, by name; none for the first.
    column: Option<String>,
    /// Columns that are left out, by name.
    hidden: BTreeSet<String>,
}

impl Screen for Trials {
    fn help(&self) -> &'static str {
        labels::HELP_OF_TRIALS
    }

    fn signs(&self) -> (usize, usize) {
        (0, 5)
    }

    fn keys(&self, desk: &Desk) -> Vec<Key> {
        vec![
            Key::letter('/', "/", labels::FIND),
            Key::new(KeyCode::Left, "←→", labels::COLUMN),
            Key::silent(KeyCode::Right),
            Key::letter('o', "o", labels::SORT_BY_IT),
            Key::letter('-', "-", labels::HIDE_COLUMN),
            Key::letter('+', "+", labels::ALL_COLUMNS).only(!self.hidden.is_empty(), labels::ALL_ARE_SHOWN),
            Key::letter('p', "p", labels::PICK),
            Key::letter('i', "i", labels::ITS_INCIDENT).only(desk.has_incident(), labels::NOTHING_WENT_WRONG),
            Key::letter('e', "e", labels::EXPORT),
        ]
    }

    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        match code {
            KeyCode::Char('/') => return Then::Open(Overlay::Entry(Entry::find(desk))),
            KeyCode::Left => self.turn(Travel::Back(1), desk),
            KeyCode::Right => self.turn(Travel::On(1), desk),
            KeyCode::Char('o') => self.sort(desk),
            KeyCode::Char('-') => self.hide(desk),
            KeyCode::Char('+') => *self = Self::default(),
            KeyCode::Char('p') => desk.pick_trial(),
            KeyCode::Char('i') => return Then::LookAtIncident,
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
        let [list, beside] = detail::split(area, BELOW);
        draw_list(frame, desk, list, &self.columns(desk), self.at(desk));
        detail::draw(frame, desk, beside);
    }

    fn file(&self, desk: &Desk) -> Option<Proposed> {
        let name = export::free(telling::file_of_climb(desk.shown.number, labels::FILE_TRIALS));
        Some(Proposed { name, title: labels::FILE_FOR_TRIALS })
    }

    fn write(&mut self, path: &Path, desk: &mut Desk) -> Result<String> {
        let Climbed { story, rig, traces, .. } = &desk.shown;
        export::table(table_of_trials(story, rig, traces), path)
    }
}

impl Trials {
    /// The columns that are not left out.
    fn columns<'a>(&self, desk: &'a Desk) -> Vec<Column<'a>> {
        let mut columns = desk.shown.attempts().columns();
        columns.retain(|column| !self.hidden.contains(&column.name));
        columns
    }

    /// The place of the column that is looked at.
    fn at(&self, desk: &Desk) -> usize {
        self.columns(desk).iter().position(|column| Some(&column.name) == self.column.as_ref()).unwrap_or_default()
    }

    fn turn(&mut self, step: Travel, desk: &Desk) {
        let columns = self.columns(desk);
        let to = step.from(self.at(desk), columns.len());
        self.column = columns.get(to).map(|column| column.name.clone());
    }

    /// Sorts by the column that is looked at, what is better first; then the other way; then not at all.
    fn sort(&self, desk: &mut Desk) {
        let columns = self.columns(desk);
        let Some(column) = columns.get(self.at(desk)) else { return };
        let (first, then) = match column.better() {
            Some(Direction::Up) => (Sorted::GreatestFirst, Sorted::LeastFirst),
            _ => (Sorted::LeastFirst, Sorted::GreatestFirst),
        };
        let next = match desk.query().sort() {
            Some((name, sorted)) if name == column.name => (sorted == first).then_some(then),
            _ => Some(first),
        };
        let words = sorted_by(&desk.filter, next.map(|sorted| (column.name.as_str(), sorted)));
        desk.look_for(&words);
    }

    /// Leaves out the column that is looked at; the next one is looked at then.
    fn hide(&mut self, desk: &Desk) {
        let columns = self.columns(desk);
        let at = self.at(desk);
        if columns.len() > 1 {
            self.hidden.insert(columns[at].name.clone());
            self.column = columns.get(at + 1).or(columns.get(at.wrapping_sub(1))).map(|column| column.name.clone());
        }
    }
}

fn draw_list(frame: &mut Frame, desk: &Desk, area: Rect, columns: &[Column], at: usize) {
    let theme = &desk.theme;
    let found = desk.found();
    let [head, rows] = Layout::vertical([Constraint::Length(1), Constraint::Min(0)]).areas(area);
    let selected = desk.selected_trial();
    let selected = found.iter().position(|trial| Some(trial.number) == selected);
    let total = desk.shown.story.trials.len();
    let place = match selected {
        Some(at) => telling::place_in_list(labels::TRIALS, at + 1, found.len()),
        None => format!("{}   {}", labels::TRIALS, found.len()),
    };
    let mut title = vec![Span::styled(place, theme.muted)];
    if desk.query().is_empty() && desk.is_sorted() {
        title.push(Span::styled(format!("   {}", desk.filter), theme.accent.bold()));
    } else if !desk.filter.is_empty() {
        let [with, among] = telling::found_among(total);
        title.push(Span::styled(with, theme.muted));
        title.push(Span::styled(desk.filter.clone(), theme.accent.bold()));
        title.push(Span::styled(among, theme.muted));
    }
    frame.render_widget(Line::from(title), head);
    if found.is_empty() {
        let why = if total == 0 { telling::NO_TRIAL } else { telling::NO_TRIAL_FOUND };
        return frame.render_widget(Line::styled(why, theme.text), rows);
    }
    attempts::draw(frame, desk, rows, &attempts::Table { columns, at, found: &found, selected });
}
