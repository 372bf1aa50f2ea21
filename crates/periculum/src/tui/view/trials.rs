//! The trials of the climb as a list, and the selected one with all that is known of it.

use periculum_core::story::TrialStory;
use ratatui::Frame;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::text::{Line, Span, Text};

use super::{detail, fit};
use crate::tui::app::App;
use crate::tui::pointing::Target;
use crate::tui::telling::{self, labels};

/// Lines below the list where there is no room beside it.
const BELOW: u16 = 9;

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    let [list, beside] = detail::split(area, BELOW);
    draw_list(frame, app, list);
    detail::draw(frame, app, beside);
}

fn draw_list(frame: &mut Frame, app: &App, area: Rect) {
    let theme = &app.theme;
    let found = app.found();
    let [head, rows] = Layout::vertical([Constraint::Length(2), Constraint::Min(0)]).areas(area);
    let selected = app.selected_trial();
    let selected = found.iter().position(|trial| Some(trial.number) == selected);
    let total = app.shown.story.trials.len();
    let place = match selected {
        Some(at) => telling::place_in_list(labels::TRIALS, at + 1, found.len()),
        None => format!("{}   {}", labels::TRIALS, found.len()),
    };
    let mut title = vec![Span::styled(place, theme.muted)];
    if !app.filter.is_empty() {
        let [with, among] = telling::found_among(total);
        title.push(Span::styled(with, theme.muted));
        title.push(Span::styled(app.filter.clone(), theme.accent.bold()));
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
        rung: widest(&|trial| app.shown.rig.written(&trial.rung).chars().count()),
        proof: widest(&|trial| trial.put_to().chars().count()),
    };
    app.places.put_lines(rows, found.iter().skip(first).map(|trial| Target::Trial(trial.number)));
    let lines = found.iter().enumerate().skip(first).take(height);
    let lines =
        lines.map(|(index, trial)| fit(row(app, trial, &widths, Some(index) == selected), rows.width, theme.muted));
    frame.render_widget(Text::from_iter(lines), rows);
}

/// How wide the columns of a list are that depend on what is in it.
struct Widths {
    rung: usize,
    proof: usize,
}

fn row(app: &App, trial: &TrialStory, widths: &Widths, is_selected: bool) -> Line<'static> {
    let theme = &app.theme;
    let text = if is_selected { theme.accent.bold() } else { theme.text };
    let sign = trial.verdict.map_or('○', |verdict| verdict.sign());
    let what = match trial.incident {
        Some(kind) => kind.name().to_owned(),
        None => trial.score().map(|score| format!("{:.1} {}", score.value, score.unit)).unwrap_or_default(),
    };
    let tested = if trial.verdict.is_some() { trial.tested.to_string() } else { String::new() };
    let picked = if app.picks.has(app.shown.number, Some(trial.number)) { "+" } else { " " };
    Line::from(vec![
        Span::styled(if is_selected { "› " } else { "  " }, theme.accent),
        Span::styled(format!("{:>4}", trial.number), theme.muted),
        Span::styled(format!("{picked} "), theme.accent.bold()),
        Span::styled(format!("{sign}  "), theme.verdict(trial.verdict)),
        Span::styled(format!("{:<width$}  ", app.shown.rig.written(&trial.rung), width = widths.rung), text),
        Span::styled(format!("{:<width$}  ", trial.put_to(), width = widths.proof), theme.muted),
        Span::styled(format!("{tested:>10}  "), theme.muted),
        Span::styled(format!("{what:<16}  "), theme.verdict(trial.verdict)),
        Span::styled(trial.reason.because(&app.shown.rig), theme.muted),
    ])
}
