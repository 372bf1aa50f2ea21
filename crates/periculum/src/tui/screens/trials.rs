//! The trials of the climb as a list, and the selected one with all that is known of it.

use std::path::Path;

use anyhow::Result;
use periculum_charts::trials as table_of_trials;
use periculum_core::story::TrialStory;
use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::text::{Line, Span, Text};

use super::fit::fit;
use super::{Proposed, Screen, Then, detail, export};
use crate::tui::climbed::Climbed;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::overlays::{Entry, Overlay};
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// Lines below the list where there is no room beside it.
const BELOW: u16 = 9;

/// The screen of the trials.
pub(super) struct Trials;

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
            Key::letter('p', "p", labels::PICK),
            Key::letter('i', "i", labels::ITS_INCIDENT).only(desk.has_incident(), labels::NOTHING_WENT_WRONG),
            Key::letter('e', "e", labels::EXPORT),
        ]
    }

    fn press(&mut self, code: KeyCode, desk: &mut Desk) -> Then {
        match code {
            KeyCode::Char('/') => return Then::Open(Overlay::Entry(Entry::find(desk))),
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
        draw(frame, desk, area);
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

fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    let [list, beside] = detail::split(area, BELOW);
    draw_list(frame, desk, list);
    detail::draw(frame, desk, beside);
}

fn draw_list(frame: &mut Frame, desk: &Desk, area: Rect) {
    let theme = &desk.theme;
    let found = desk.found();
    let [head, rows] = Layout::vertical([Constraint::Length(2), Constraint::Min(0)]).areas(area);
    let selected = desk.selected_trial();
    let selected = found.iter().position(|trial| Some(trial.number) == selected);
    let total = desk.shown.story.trials.len();
    let place = match selected {
        Some(at) => telling::place_in_list(labels::TRIALS, at + 1, found.len()),
        None => format!("{}   {}", labels::TRIALS, found.len()),
    };
    let mut title = vec![Span::styled(place, theme.muted)];
    if !desk.filter.is_empty() {
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
    let height = usize::from(rows.height);
    let last = selected.unwrap_or(found.len() - 1);
    // The selected one is kept in the middle, as far as there is something on both sides.
    let first = last.saturating_sub(height / 2).min(found.len().saturating_sub(height));
    let widest = |of: &dyn Fn(&TrialStory) -> usize| found.iter().map(|trial| of(trial)).max().unwrap_or(0);
    let widths = Widths {
        rung: widest(&|trial| desk.shown.rig.written(&trial.rung).chars().count()),
        proof: widest(&|trial| trial.put_to().chars().count()),
    };
    desk.places.put_lines(rows, found.iter().skip(first).map(|trial| Target::Trial(trial.number)));
    let lines = found.iter().enumerate().skip(first).take(height);
    let lines =
        lines.map(|(index, trial)| fit(row(desk, trial, &widths, Some(index) == selected), rows.width, theme.muted));
    frame.render_widget(Text::from_iter(lines), rows);
}

/// How wide the columns of a list are that depend on what is in it.
struct Widths {
    rung: usize,
    proof: usize,
}

fn row(desk: &Desk, trial: &TrialStory, widths: &Widths, is_selected: bool) -> Line<'static> {
    let theme = &desk.theme;
    let text = if is_selected { theme.accent.bold() } else { theme.text };
    let sign = trial.verdict.map_or('○', |verdict| verdict.sign());
    let what = match trial.incident {
        Some(kind) => kind.name().to_owned(),
        None => trial.score().map(|score| format!("{:.1} {}", score.value, score.unit)).unwrap_or_default(),
    };
    let tested = if trial.verdict.is_some() { trial.tested.to_string() } else { String::new() };
    let picked = if desk.picks.has(desk.shown.number, Some(trial.number)) { "+" } else { " " };
    Line::from(vec![
        Span::styled(if is_selected { "› " } else { "  " }, theme.accent),
        Span::styled(format!("{:>4}", trial.number), theme.muted),
        Span::styled(format!("{picked} "), theme.accent.bold()),
        Span::styled(format!("{sign}  "), theme.verdict(trial.verdict)),
        Span::styled(format!("{:<width$}  ", desk.shown.rig.written(&trial.rung), width = widths.rung), text),
        Span::styled(format!("{:<width$}  ", trial.put_to(), width = widths.proof), theme.muted),
        Span::styled(format!("{tested:>10}  "), theme.muted),
        Span::styled(format!("{what:<16}  "), theme.verdict(trial.verdict)),
        Span::styled(trial.reason.because(&desk.shown.rig), theme.muted),
    ])
}
