//! The last trials that are over, newest first, where the figures leave room: what was tried, and what it came to.

use periculum_core::story::TrialStory;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};

use super::fit::fit;
use super::trial::rung_told;
use crate::tui::desk::Desk;
use crate::tui::telling::labels;

/// Fewer lines than this are better left empty: a head and a single trial say no more than the profile does.
const LEAST: u16 = 3;

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    if area.height < LEAST {
        return;
    }
    let over = desk.shown.story.trials.iter().rev().filter(|trial| trial.verdict.is_some());
    let lines = over.take(usize::from(area.height) - 1).map(|trial| line(desk, trial, area.width));
    let mut lines: Vec<Line> = lines.collect();
    if !lines.is_empty() {
        lines.insert(0, Line::styled(labels::LAST_TRIALS, desk.theme.muted));
    }
    frame.render_widget(Text::from(lines), area);
}

fn line(desk: &Desk, trial: &TrialStory, width: u16) -> Line<'static> {
    let theme = &desk.theme;
    let sign = trial.verdict.map_or('○', |verdict| verdict.sign());
    let came_to = trial.incident.map_or_else(|| trial.proof.clone(), |incident| incident.to_string());
    let line = Line::from(vec![
        Span::styled(format!("{:>3} ", trial.number), theme.muted),
        Span::styled(format!("{sign}  "), theme.verdict(trial.verdict)),
        Span::styled(rung_told(desk, &trial.rung, width), theme.text),
        Span::styled(format!("  {came_to}"), theme.muted),
    ]);
    fit(line, width, theme.muted)
}
