//! The card of a pass that somebody makes, or of sensors that somebody reads: what is to be done, what was written down so far,
//! and what follows from that.

use periculum_core::engine::{Field, Question, Takes};
use periculum_core::model::moment::Span as Time;
use periculum_core::model::quantity::scored;
use periculum_core::telling::ask;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};

use super::errand::{answers, what_is_left};
use super::frame::{card_at_side, room_at_side};
use crate::telling::screens::shown as shown_words;
use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect, question: &Question) {
    let theme = &desk.theme;
    let mut lines = vec![Line::styled(ask(question, &desk.shown.rig), theme.text.bold())];
    if let Some(trial) = desk.shown.story.open_trial() {
        lines.push(Line::styled(telling::change_is_for(trial, &desk.shown.rig), theme.muted));
    }
    lines.extend(what_is_left(desk));
    if let Question::Confirm { until, .. } = question {
        let left = telling::goes_back_in(until.since(desk.shown.story.latest));
        lines.extend([Line::default(), Line::styled(left, theme.warning.bold())]);
    }
    lines.extend(screen(desk));
    lines.push(Line::default());
    lines.extend(fields(desk));
    lines.extend(figures(desk, question));
    lines.push(Line::default());
    lines.extend(answers(desk, question, room_at_side(area)));
    card_at_side(frame, desk, area, labels::BY_HAND, Text::from(lines));
}

/// What a rig in software shows, which is what is to be written down.
fn screen(desk: &Desk) -> Option<Line<'static>> {
    let shown = desk.live().shows.as_ref()?;
    Some(Line::styled(shown_words(shown), desk.theme.good))
}

/// A line for everything that may be written down, with what was.
fn fields(desk: &Desk) -> Vec<Line<'static>> {
    let theme = &desk.theme;
    let (fields, written) = (desk.fields(), desk.written());
    let typed = |field: &Field| written.get(&field.name).cloned();
    let wide = fields.iter().map(|field| field.label.chars().count()).max().unwrap_or(0);
    let wide_typed = fields.iter().filter_map(typed).map(|typed| typed.chars().count()).max().unwrap_or(0).max(1);
    let line = |field: &Field| {
        let value = match typed(field) {
            Some(typed) => Span::styled(format!("{typed:>wide_typed$}"), theme.accent.bold()),
            None if field.is_needed => Span::styled(format!("{:>wide_typed$}", "…"), theme.text),
            None => Span::styled(format!("{:>wide_typed$}", "–"), theme.muted),
        };
        let takes = match &field.takes {
            Takes::Number { unit, .. } => unit.clone(),
            Takes::Words(words) if typed(field).is_none() => telling::one_of(words),
            Takes::YesOrNo if typed(field).is_none() => telling::YES_OR_NO.to_owned(),
            Takes::Words(_) | Takes::YesOrNo | Takes::Text => String::new(),
        };
        Line::from(vec![
            Span::styled(format!("  {:<wide$}  ", field.label), theme.muted),
            value,
            Span::styled(format!(" {takes}"), theme.muted),
        ])
    };
    fields.iter().map(line).collect()
}

/// What is calculated from what was written down, as soon as it can be.
fn figures(desk: &Desk, question: &Question) -> Vec<Line<'static>> {
    let Question::Make { task, .. } = question else { return Vec::new() };
    let Ok(report) = task.report(&desk.written(), Time::ZERO) else { return Vec::new() };
    let is_calculated = |name: &str| task.figures.iter().any(|figure| figure.name == name);
    let names = match report.score_names.as_slice() {
        [] => task.scored().map(str::to_owned).collect(),
        names => names.to_vec(),
    };
    let scores = names.iter().map(String::as_str).zip(report.score.iter().chain(&report.further));
    let line = |(name, score): (&str, &periculum_core::model::pass::Score)| {
        let value = format!("{} {}", scored(score.value, score.value), score.unit);
        Line::from(vec![Span::styled(format!("  {name} = "), desk.theme.muted), Span::styled(value, desk.theme.good)])
    };
    scores.filter(|(name, _)| is_calculated(name)).map(line).collect()
}
