//! The card of a question: what somebody is to do, and what they may answer.

use periculum_core::engine::Question;
use periculum_core::model::errand::Errand;
use periculum_core::model::rung::Change;
use periculum_core::telling::{answer_words, ask, change_words};
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};

use super::frame::card_at_side;
use crate::tui::answers::key_of;
use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect, question: &Question) {
    let mut lines = match question.errand() {
        Some(errand) => errand_lines(desk, errand),
        None => vec![Line::styled(ask(question, &desk.shown.rig), desk.theme.text)],
    };
    lines.push(Line::default());
    lines.extend(answers(desk, question));
    card_at_side(frame, desk, area, labels::BY_HAND, Text::from(lines));
}

fn errand_lines(desk: &Desk, errand: &Errand) -> Vec<Line<'static>> {
    let theme = &desk.theme;
    let rig = &desk.shown.rig;
    let why = match desk.shown.story.open_trial() {
        Some(trial) => telling::change_is_for(trial, rig),
        None => telling::CHANGE_IS_FOR_HOME.into(),
    };
    let written = errand.changes().iter().filter(|change| rig.needs_start(&change.setting)).count();
    let by_hand = errand.changes().len() - written;
    let shown = desk.written();
    let changes: Vec<(&Change, _)> =
        errand.changes().iter().map(|change| (change, change_words(change, rig))).collect();
    let unknown = || telling::WHATEVER_IT_IS.to_owned();
    let before = |from: &Option<String>| from.clone().unwrap_or_else(unknown);
    let wide = changes.iter().map(|(_, (label, ..))| label.chars().count()).max().unwrap_or(0);
    let wide_before = changes.iter().map(|(_, (_, from, _))| before(from).chars().count()).max().unwrap_or(0);
    let mut lines = vec![Line::styled(telling::errand_to_make(by_hand, written), theme.text), Line::default()];
    for (change, (label, from, to)) in changes {
        let mut line = vec![
            Span::styled(format!("    {label:<wide$}    "), theme.muted),
            Span::styled(format!("{:<wide_before$}", before(&from)), theme.text),
            Span::styled("   →   ", theme.muted),
            Span::styled(to, theme.accent.bold()),
        ];
        if by_hand > 0 && written > 0 {
            let starts = rig.needs_start(&change.setting);
            let how = if starts { telling::BY_ITS_START } else { telling::BY_YOUR_HAND };
            line.push(Span::styled(format!("   {how}"), theme.muted));
        }
        if let Some(typed) = shown.get(&change.setting) {
            line.push(Span::styled(format!("   {}", telling::it_shows(typed)), theme.good));
        }
        lines.push(Line::from(line));
    }
    lines.extend([
        Line::default(),
        Line::styled(why, theme.muted),
        Line::styled(telling::NOTHING_IS_LOST, theme.muted),
    ]);
    lines
}

fn answers(desk: &Desk, question: &Question) -> impl Iterator<Item = Line<'static>> {
    let theme = &desk.theme;
    let shows = (!desk.fields().is_empty()).then_some(("v", telling::WRITE_WHAT_IT_SHOWS));
    let answers = question.answers().into_iter().map(|answer| (key_of(answer).shown, answer_words(answer)));
    answers.chain(shows).map(|(key, does)| {
        Line::from(vec![Span::styled(format!("    {key}  "), theme.accent.bold()), Span::styled(does, theme.text)])
    })
}
