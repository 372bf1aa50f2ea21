//! The climbs of the ledger, the newest first; the selected one can be opened in every view.

use std::path::Path;

use anyhow::Result;
use periculum_core::engine::ClimbEnd;
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::text::{Line, Span, Text};

use super::fit::{WIDE, fit};
use super::pooled::Attempted;
use super::{Proposed, Screen, Then, export, profile};
use crate::commands::{local_date, local_day, zone};
use crate::tui::climbed::specimen;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::library::Listed;
use crate::tui::overlays::{Card, Entry, Overlay};
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// Lines for the profile of the selected climb, at the least and at the most, and those that the list keeps.
const GLIMPSE: (u16, u16) = (9, 18);
const LEAST_LIST: u16 = 16;

/// A mark of many settings is cut rather than what stands behind it.
const WIDEST_MARK: usize = 28;

/// The screen of the ledger's climbs.
#[derive(Default)]
pub(super) struct Climbs {
    /// What is shown in place of the list, where that is wanted: all attempts of these climbs.
    attempts: Attempted,
    shows_attempts: bool,
}

impl Screen for Climbs {
    fn help(&self) -> &'static str {
        labels::HELP_OF_CLIMBS
    }

    fn signs(&self) -> (usize, usize) {
        (0, 0)
    }

    /// Looks into the ledger anew.
    fn enter(&mut self, desk: &mut Desk) {
        desk.shelf.point_at(desk.shown.number);
        desk.shelf.read();
        if self.shows_attempts {
            desk.shelf.want_attempts();
        }
    }

    fn keys(&self, desk: &Desk) -> Vec<Key> {
        if self.shows_attempts {
            return self.attempts.keys(desk);
        }
        let is_selected = desk.shelf.selected().is_some();
        let again = Key::letter('g', "g", labels::CLIMB_IT_AGAIN);
        vec![
            Key::letter('/', "/", labels::FIND),
            Key::enter(labels::OPEN_IT).only(is_selected, labels::NO_CLIMB_SELECTED),
            Key::letter('p', "p", labels::PICK).only(is_selected, labels::NO_CLIMB_SELECTED),
            Key::letter('t', "t", labels::THEIR_ATTEMPTS),
            again.only(is_selected, labels::NO_CLIMB_SELECTED).only(desk.is_free(), labels::ANOTHER_RUNS),
        ]
    }

    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        match code {
            KeyCode::Char('/') => Then::Open(Overlay::Entry(Entry::find(desk))),
            KeyCode::Char('t') => {
                self.shows_attempts = !self.shows_attempts;
                if self.shows_attempts {
                    desk.shelf.want_attempts();
                }
                Then::Nothing
            }
            _ if self.shows_attempts => self.attempts.press(code, desk),
            KeyCode::Enter if desk.open_other() => Then::Opened,
            KeyCode::Char('p') => {
                pick(desk);
                Then::Nothing
            }
            KeyCode::Char('g') => {
                let number = desk.shelf.selected().unwrap_or(desk.shown.number);
                Then::Open(Overlay::Card(Card::repeating(number)))
            }
            _ => Then::Nothing,
        }
    }

    fn moves(&self, desk: &Desk) -> Option<&'static str> {
        let has_some = if self.shows_attempts { desk.shelf.attempts().is_some() } else { desk.shelf.shown().len() > 1 };
        has_some.then_some(labels::SELECT)
    }

    fn select(&mut self, step: Travel, desk: &mut Desk) {
        if self.shows_attempts {
            self.attempts.select(step, desk);
        } else {
            desk.shelf.select(step);
        }
    }

    fn point(&mut self, target: Target, desk: &mut Desk) -> Then {
        match target {
            Target::Climb(number) => desk.shelf.point_at(number),
            Target::Trial(number) => desk.selected = Some(number),
            Target::Attempt(climb, trial) => self.attempts.point_at(climb, trial),
            Target::Line(_) | Target::View(_) => {}
        }
        Then::Nothing
    }

    fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        if self.shows_attempts {
            self.attempts.draw(frame, desk, area);
        } else {
            draw(frame, desk, area);
        }
    }

    /// `periculum ledger` lists them; all of their attempts are a table.
    fn file(&self, _desk: &Desk) -> Option<Proposed> {
        let name = || export::free(labels::FILE_ATTEMPTS.to_owned());
        self.shows_attempts.then(|| Proposed { name: name(), title: labels::FILE_FOR_TRIALS })
    }

    fn write(&mut self, path: &Path, desk: &mut Desk) -> Result<String> {
        self.attempts.write(path, desk)
    }
}

/// Picks the selected climb, to be compared, or puts it back.
fn pick(desk: &mut Desk) {
    if let Some(climb) = desk.shelf.selected() {
        desk.pick_of(climb, None);
    }
}

fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let theme = &desk.theme;
    let shown = desk.shelf.shown();
    let list = u16::try_from(shown.len()).unwrap_or(u16::MAX).max(1);
    let glimpse = area.height.saturating_sub(list + 4).min(GLIMPSE.1).max(GLIMPSE.0);
    // The list comes first: a small window has no room for more.
    let glimpse = if area.height >= glimpse + list.min(LEAST_LIST) + 3 { glimpse } else { 0 };
    let rows = [Constraint::Length(2), Constraint::Min(0), Constraint::Length(1), Constraint::Length(glimpse)];
    let [head, rows, foot, below] = Layout::vertical(rows).areas(area);
    draw_glimpse(frame, desk, below);
    frame.render_widget(title(desk, shown.len()), head);
    if shown.is_empty() {
        frame.render_widget(Line::styled(why_empty(desk), theme.text), rows);
    }
    let widest = |of: fn(&Listed) -> usize| shown.iter().map(|(listed, _)| of(listed)).max().unwrap_or(0);
    let is_narrow = area.width + 2 < WIDE.0;
    let widths = Widths {
        is_narrow,
        rig: widest(|listed| listed.row.rig.chars().count()),
        specimen: shown.iter().map(|(listed, _)| specimen(&listed.row, is_narrow).chars().count()).max().unwrap_or(0),
        plan: widest(|listed| listed.row.plan.chars().count()),
        mark: widest(|listed| listed.mark.as_ref().map_or(0, |mark| mark.chars().count())).min(WIDEST_MARK),
    };
    let (height, at) = (usize::from(rows.height), desk.shelf.at());
    // The selected one is kept in the middle, as far as there is something on both sides.
    let first = at.saturating_sub(height / 2).min(shown.len().saturating_sub(height));
    desk.places.put_lines(rows, shown.iter().skip(first).map(|(listed, _)| Target::Climb(listed.row.climb)));
    let lines = shown.iter().enumerate().skip(first).take(height);
    let lines = lines
        .map(|(index, (listed, found))| fit(line(desk, listed, *found, &widths, index == at), rows.width, theme.muted));
    frame.render_widget(Text::from_iter(lines), rows);
    if let Some(why) = &desk.shelf.trouble {
        frame.render_widget(fit(Line::styled(why.clone(), theme.bad), foot.width, theme.muted), foot);
    }
}

/// The profile of the selected climb, before it is opened.
fn draw_glimpse(frame: &mut Frame, desk: &Desk, area: Rect) {
    let climbed =
        if desk.shelf.selected() == Some(desk.shown.number) { Some(&desk.shown) } else { desk.shelf.glimpse() };
    if let Some(climbed) = climbed.filter(|_| area.height > 0) {
        profile::draw_of(frame, desk, area, climbed);
    }
}

fn title(desk: &Desk, shown: usize) -> Line<'static> {
    let theme = &desk.theme;
    let place = if shown == 0 { 0 } else { desk.shelf.at() + 1 };
    let mut title = vec![Span::styled(telling::place_in_list(labels::CLIMBS, place, shown), theme.muted)];
    if !desk.filter.is_empty() {
        let [with, among] = telling::found_among(desk.shelf.total());
        title.push(Span::styled(with, theme.muted));
        title.push(Span::styled(desk.filter.clone(), theme.accent.bold()));
        title.push(Span::styled(among, theme.muted));
    }
    if let Some((newest, _)) = desk.shelf.shown().first() {
        title.push(Span::styled(telling::times_in(&zone(newest.row.wall)), theme.muted));
    }
    if desk.shelf.is_busy() {
        title.push(Span::styled(telling::READING, theme.muted));
    }
    Line::from(title)
}

fn why_empty(desk: &Desk) -> &'static str {
    match (desk.shelf.is_reading, desk.shelf.total()) {
        (true, _) => "",
        (false, 0) => telling::NO_CLIMB,
        (false, _) => telling::NO_CLIMB_FOUND,
    }
}

/// How wide the columns are that depend on what is in them.
struct Widths {
    /// Whether there is no room for what can be done without, before the marks.
    is_narrow: bool,
    rig: usize,
    specimen: usize,
    plan: usize,
    mark: usize,
}

fn line(desk: &Desk, listed: &Listed, found: Option<usize>, widths: &Widths, is_selected: bool) -> Line<'static> {
    let theme = &desk.theme;
    let row = &listed.row;
    let text = if is_selected { theme.accent.bold() } else { theme.text };
    let (sign, style) = match &row.end {
        Some(ClimbEnd::Completed) => ("✓", theme.good),
        Some(_) => ("–", theme.warning),
        None => ("○", theme.accent),
    };
    let Widths { is_narrow, rig, specimen: wide, plan, mark } = widths;
    let began = if *is_narrow { local_day(row.wall) } else { local_date(row.wall) };
    let specimen = specimen(row, *is_narrow);
    let end = row.end.as_ref().map_or_else(|| labels::NOT_FINISHED.into(), ClimbEnd::sentence);
    let picked = if desk.picks.has(row.climb, None) { "+" } else { " " };
    let trials = telling::trials(found, row.trials);
    Line::from(vec![
        Span::styled(if is_selected { "› " } else { "  " }, theme.accent),
        Span::styled(format!("{:>4}", row.climb), theme.muted),
        Span::styled(format!("{picked} "), theme.accent.bold()),
        Span::styled(format!("{sign}  "), style),
        Span::styled(format!("{began}  "), theme.muted),
        Span::styled(format!("{:<rig$}  {:<wide$}  {:<plan$}  ", row.rig, specimen, row.plan), text),
        Span::styled(format!("{:<mark$}  ", cut(listed.mark.as_deref().unwrap_or(labels::NO_MARK), *mark)), text),
        Span::styled(
            format!("{trials:>10}  {}  {:>12}  ", telling::fell(row.falls), row.tested.to_string()),
            theme.muted,
        ),
        Span::styled(end, style),
    ])
}

/// The text in no more columns than this.
fn cut(text: &str, columns: usize) -> String {
    if text.chars().count() <= columns {
        return text.to_owned();
    }
    let kept: String = text.chars().take(columns.saturating_sub(1)).collect();
    format!("{kept}…")
}
