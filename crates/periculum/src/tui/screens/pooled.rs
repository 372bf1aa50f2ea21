//! All attempts of the ledger's climbs in one table, or those that are found.

use std::path::Path;

use anyhow::{Result, bail};
use periculum_charts::attempts as table_of_attempts;
use periculum_core::analysis::attempts::Cell;
use periculum_core::analysis::pool::{Pool, Pooled, Row};
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::text::{Line, Span};

use super::attempts::{self, Head, Lead, Rows, Table};
use super::columns::{Columns, Named};
use super::{Then, View, export};
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::overlays::{Entry, Overlay};
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// The table of attempts of several climbs.
#[derive(Default)]
pub(super) struct Attempted {
    columns: Columns,
    /// The selected attempt, by its climb and its trial.
    selected: Option<(i64, u32)>,
}

impl Attempted {
    pub(super) fn keys(&self, desk: &Desk) -> Vec<Key> {
        let is_one = desk.shelf.attempts().is_some_and(|pool| !pool.find(&desk.query()).is_empty());
        let find = Key::letter('/', "/", labels::FIND);
        let others = [
            Key::enter(labels::OPEN_IT).only(is_one, labels::NO_ATTEMPT_SELECTED),
            Key::letter('p', "p", labels::PICK).only(is_one, labels::NO_ATTEMPT_SELECTED),
            Key::letter('t', "t", labels::THE_CLIMBS),
            Key::letter('e', "e", labels::EXPORT).only(is_one, labels::NO_ATTEMPT_SELECTED),
        ];
        [find].into_iter().chain(self.columns.keys()).chain(others).collect()
    }

    pub(super) fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        match code {
            KeyCode::Char('/') => return Then::Open(Overlay::Entry(Entry::find(desk))),
            KeyCode::Char('e') => return Then::Write,
            KeyCode::Enter => return self.open(desk),
            KeyCode::Char('p') => {
                if let Some((climb, trial)) = self.place(desk) {
                    desk.pick_of(climb, Some(trial));
                }
            }
            _ => {}
        }
        let shown = desk.shelf.attempts().map(|pool| self.shown(pool)).unwrap_or_default();
        let named: Vec<Named> = shown.iter().map(|column| (column.name.clone(), column.better)).collect();
        self.columns.press(code, &named, desk);
        Then::Nothing
    }

    /// Opens the climb of the selected attempt, which stays selected there.
    fn open(&self, desk: &mut Desk) -> Then {
        let Some((climb, trial)) = self.place(desk) else { return Then::Nothing };
        desk.shelf.point_at(climb);
        if !desk.open_other() {
            return Then::Nothing;
        }
        desk.selected = Some(trial);
        Then::Show(View::Trials)
    }

    /// The climb and the trial of the selected attempt.
    fn place(&self, desk: &Desk) -> Option<(i64, u32)> {
        let found = desk.shelf.attempts()?.find(&desk.query());
        found.get(self.at(&found)).map(|row| (row.climb, row.trial))
    }

    pub(super) fn select(&mut self, step: Travel, desk: &Desk) {
        let found = desk.shelf.attempts().map(|pool| pool.find(&desk.query())).unwrap_or_default();
        let to = found.get(step.from(self.at(&found), found.len()));
        self.selected = to.map(|row| (row.climb, row.trial));
    }

    pub(super) fn point_at(&mut self, climb: i64, trial: u32) {
        self.selected = Some((climb, trial));
    }

    pub(super) fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        let theme = &desk.theme;
        let layout = [Constraint::Length(2), Constraint::Min(0), Constraint::Length(1)];
        let [head, rows, foot] = Layout::vertical(layout).areas(area);
        if let Some(why) = &desk.shelf.trouble {
            frame.render_widget(Line::styled(why.clone(), theme.bad), foot);
        }
        let Some(pool) = desk.shelf.attempts() else {
            let words = if desk.shelf.trouble.is_some() { "" } else { telling::READING };
            return frame.render_widget(Line::styled(format!("{}{words}", labels::ATTEMPTS), theme.muted), head);
        };
        let found = pool.find(&desk.query());
        frame.render_widget(self.title(desk, pool, &found), head);
        if found.is_empty() {
            let why = if pool.count() == 0 { telling::NO_ATTEMPT } else { telling::NO_TRIAL_FOUND };
            return frame.render_widget(Line::styled(why, theme.text), rows);
        }
        let columns = self.shown(pool);
        let heads: Vec<Head> = columns.iter().map(|column| Head::pooled(column)).collect();
        let at = self.columns.at(columns.iter().map(|column| column.name.as_str()));
        let sorted = desk.query().sort().and_then(|(name, _)| pool.column(name)).map(|column| column.name.clone());
        let selected = Some(self.at(&found));
        let of_climbs = OfClimbs { desk, columns: &columns, found: &found };
        attempts::draw(
            frame,
            desk,
            rows,
            &Table { heads: &heads, at, sorted, rows: &of_climbs, selected, lead: labels::CLIMB_AND_TRIAL },
        );
    }

    fn title(&self, desk: &Desk, pool: &Pool, found: &[&Row]) -> Line<'static> {
        let theme = &desk.theme;
        let at = if found.is_empty() { 0 } else { self.at(found) + 1 };
        let mut title = vec![Span::styled(telling::place_in_list(labels::ATTEMPTS, at, found.len()), theme.muted)];
        if !desk.filter.is_empty() {
            let [with, among] = telling::found_among(pool.count());
            title.push(Span::styled(with, theme.muted));
            title.push(Span::styled(desk.filter.clone(), theme.accent.bold()));
            title.push(Span::styled(among, theme.muted));
        }
        let query = desk.query();
        let unknown = query.sort().filter(|(name, _)| pool.column(name).is_none());
        title.extend(unknown.map(|(name, _)| Span::styled(telling::no_column(name), theme.warning)));
        Line::from(title)
    }

    /// The columns that are not left out.
    fn shown<'a>(&self, pool: &'a Pool) -> Vec<&'a Pooled> {
        pool.columns().iter().filter(|column| self.columns.shows(&column.name)).collect()
    }

    /// The place of the selected attempt among those that are found.
    fn at(&self, found: &[&Row]) -> usize {
        found.iter().position(|row| Some((row.climb, row.trial)) == self.selected).unwrap_or_default()
    }

    /// Writes what is seen: the attempts that are found, in their order, with the columns that are shown.
    pub(super) fn write(&self, path: &Path, desk: &Desk) -> Result<String> {
        let Some(pool) = desk.shelf.attempts() else { bail!(telling::NOTHING_TO_WRITE) };
        export::table(table_of_attempts(&pool.find(&desk.query()), &self.shown(pool)), path)
    }
}

/// The attempts that were found.
struct OfClimbs<'a> {
    desk: &'a Desk,
    columns: &'a [&'a Pooled],
    found: &'a [&'a Row],
}

impl Rows for OfClimbs<'_> {
    fn count(&self) -> usize {
        self.found.len()
    }

    fn lead(&self, row: usize) -> Lead {
        let row = self.found[row];
        Lead {
            number: format!("{:>5} {:>5}", row.climb, row.trial),
            verdict: row.verdict,
            is_picked: self.desk.picks.has(row.climb, Some(row.trial)),
            target: Target::Attempt(row.climb, row.trial),
        }
    }

    fn cell(&self, row: usize, column: usize) -> Cell {
        self.found[row].cell(self.columns[column]).clone()
    }

    fn extremes(&self, column: usize) -> Option<(f64, f64)> {
        self.columns[column].extremes(self.found)
    }
}
