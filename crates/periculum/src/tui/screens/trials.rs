//! The trials of the climb as a list, and the selected one with all that is known of it.

use std::path::Path;

use anyhow::Result;
use periculum_charts::trials as table_of_trials;
use periculum_core::analysis::attempts::{Cell, Column};
use periculum_core::story::TrialStory;
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::text::{Line, Span};

use super::attempts::{Head, Lead, Rows, Table};
use super::columns::{Columns, Named};
use super::{Proposed, Screen, Then, attempts, detail, export};
use crate::tui::climbed::Climbed;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::overlays::{Artefact, Entry, Overlay};
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// Lines below the list where there is no room beside it.
const BELOW: u16 = 9;

/// The screen of the trials.
#[derive(Default)]
pub(super) struct Trials {
    columns: Columns,
}

impl Screen for Trials {
    fn help(&self) -> &'static str {
        labels::HELP_OF_TRIALS
    }

    fn signs(&self) -> (usize, usize) {
        (0, 5)
    }

    fn keys(&self, desk: &Desk) -> Vec<Key> {
        let others = [
            Key::letter('p', "p", labels::PICK),
            Key::letter('i', "i", labels::ITS_INCIDENT).only(desk.has_incident(), labels::NOTHING_WENT_WRONG),
            Key::letter('v', "v", labels::ITS_PICTURE).only(desk.wrong_picture().is_some(), labels::NO_PICTURE_KEPT),
            Key::letter('e', "e", labels::EXPORT),
        ];
        let find = Key::letter('/', "/", labels::FIND);
        [find].into_iter().chain(self.columns.keys()).chain(others).collect()
    }

    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        match code {
            KeyCode::Char('/') => return Then::Open(Overlay::Entry(Entry::find(desk))),
            KeyCode::Char('p') => desk.pick_trial(),
            KeyCode::Char('i') => return Then::LookAtIncident,
            KeyCode::Char('v') => {
                let Some((kept, told)) = desk.wrong_picture() else { return Then::Nothing };
                let place = desk.shelf.library.picture(Path::new(kept));
                return Then::Open(Overlay::Artefact(Artefact::of(&place, told)));
            }
            KeyCode::Char('e') => return Then::Write,
            _ => {
                let named: Vec<Named> =
                    self.shown(desk).iter().map(|column| (column.name.clone(), column.better())).collect();
                self.columns.press(code, &named, desk);
            }
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
        let [list, beside] = detail::split(area, BELOW);
        draw_list(frame, desk, list, &self.shown(desk), &self.columns);
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
    fn shown<'a>(&self, desk: &'a Desk) -> Vec<Column<'a>> {
        let mut columns = desk.shown.attempts().columns();
        columns.retain(|column| self.columns.shows(&column.name));
        columns
    }
}

/// The attempts of the climb that is shown.
struct OfClimb<'a> {
    desk: &'a Desk,
    columns: &'a [Column<'a>],
    found: &'a [&'a TrialStory],
}

impl Rows for OfClimb<'_> {
    fn count(&self) -> usize {
        self.found.len()
    }

    fn lead(&self, row: usize) -> Lead {
        let trial = self.found[row];
        Lead {
            number: format!("{:>4}", trial.number),
            verdict: trial.verdict,
            is_picked: self.desk.picks.has(self.desk.shown.number, Some(trial.number)),
            target: Target::Trial(trial.number),
        }
    }

    fn cell(&self, row: usize, column: usize) -> Cell {
        self.desk.shown.attempts().cell(&self.columns[column], self.found[row])
    }

    fn extremes(&self, column: usize) -> Option<(f64, f64)> {
        self.desk.shown.attempts().extremes(&self.columns[column], self.found)
    }
}

fn draw_list(frame: &mut Frame, desk: &Desk, area: Rect, columns: &[Column], wanted: &Columns) {
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
    let query = desk.query();
    let unknown = query.sort().filter(|(name, _)| total > 0 && desk.shown.attempts().column(name).is_none());
    title.extend(unknown.map(|(name, _)| Span::styled(telling::no_column(name), theme.warning)));
    frame.render_widget(Line::from(title), head);
    if found.is_empty() {
        let why = if total == 0 { telling::NO_TRIAL } else { telling::NO_TRIAL_FOUND };
        return frame.render_widget(Line::styled(why, theme.text), rows);
    }
    let heads: Vec<Head> = columns.iter().map(Head::of).collect();
    let sorted = desk.query().sort().and_then(|(name, _)| desk.shown.attempts().column(name)).map(|column| column.name);
    let at = wanted.at(columns.iter().map(|column| column.name.as_str()));
    let of_climb = OfClimb { desk, columns, found: &found };
    attempts::draw(frame, desk, rows, &Table { heads: &heads, at, sorted, rows: &of_climb, selected, lead: "" });
}
