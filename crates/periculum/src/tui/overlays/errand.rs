//! The card of a question: what somebody is to do, and what they may answer.

use periculum_core::engine::{Field, Question};
use periculum_core::model::errand::Errand;
use periculum_core::model::rung::Change;
use periculum_core::telling::{answer_words, change_words};
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};

use super::frame::{card_at_side, room_at_side};
use crate::tui::answers::{key_of, key_of_writing};
use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

/// So far what stands on one line stands apart: answers, and what is told of a change.
const APART: usize = 3;

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect, question: &Question) {
    let mut lines = question.errand().map(|errand| errand_lines(desk, errand)).unwrap_or_default();
    lines.push(Line::default());
    lines.extend(answers(desk, question, room_at_side(area)));
    card_at_side(frame, desk, area, labels::BY_HAND, Text::from(lines));
}

fn errand_lines(desk: &Desk, errand: &Errand) -> Vec<Line<'static>> {
    let theme = &desk.theme;
    let rig = &desk.shown.rig;
    let why = match desk.shown.story.open_trial() {
        Some(trial) => telling::change_is_for(trial, rig),
        None => telling::CHANGE_IS_FOR_HOME.into(),
    };
    // A start alone stands for itself.
    let changes = errand.changes().iter().filter(|_| !errand.is_start_alone());
    let changes: Vec<(&Change, _)> = changes.map(|change| (change, change_words(change, rig))).collect();
    let written = changes.iter().filter(|(change, _)| rig.needs_start(&change.setting)).count();
    let by_hand = changes.len() - written;
    let shown = desk.written();
    let unknown = || telling::WHATEVER_IT_IS.to_owned();
    let before = |from: &Option<String>| from.clone().unwrap_or_else(unknown);
    let wide = changes.iter().map(|(_, (label, ..))| label.chars().count()).max().unwrap_or(0);
    let wide_before = changes.iter().map(|(_, (_, from, _))| before(from).chars().count()).max().unwrap_or(0);
    let wide_after = changes.iter().map(|(_, (.., to))| to.chars().count()).max().unwrap_or(0);
    let mut lines = vec![Line::styled(telling::errand_to_make(by_hand, written), theme.text)];
    lines.extend((!changes.is_empty()).then(Line::default));
    for (change, (label, from, to)) in changes {
        let mut apart = wide_after - to.chars().count() + APART;
        let mut line = vec![
            Span::styled(format!("  {label:<wide$}  "), theme.muted),
            Span::styled(format!("{:<wide_before$}", before(&from)), theme.text),
            Span::styled("  →  ", theme.muted),
            Span::styled(to, theme.accent.bold()),
        ];
        if by_hand > 0 && written > 0 {
            let starts = rig.needs_start(&change.setting);
            let how = if starts { telling::BY_ITS_START } else { telling::BY_YOUR_HAND };
            line.push(Span::styled(format!("{:apart$}{how}", ""), theme.muted));
            apart = APART;
        }
        if let Some(typed) = shown.get(&change.setting) {
            line.push(Span::styled(format!("{:apart$}{}", "", telling::it_shows(typed)), theme.good));
        }
        lines.push(Line::from(line));
    }
    lines.extend(noted_besides(desk, errand));
    lines.extend([
        Line::default(),
        Line::styled(why, theme.muted),
        Line::styled(telling::NOTHING_IS_LOST, theme.muted),
    ]);
    lines.extend(what_is_left(desk));
    lines
}

/// What is left of the budget, which the card hides where it stands otherwise.
pub(super) fn what_is_left(desk: &Desk) -> Option<Line<'static>> {
    telling::what_is_left(&desk.shown.rest).map(|left| Line::styled(left, desk.theme.muted))
}

/// What was written down beside what the changed settings show: measurements, and what changed by itself.
fn noted_besides(desk: &Desk, errand: &Errand) -> Vec<Line<'static>> {
    let written = desk.written();
    let besides = desk.fields().into_iter().filter(|field| errand.change_of(&field.name).is_none());
    let line = |field: Field| {
        let typed = written.get(&field.name)?;
        let label = Span::styled(format!("  {}  ", telling::field_of(&field, errand)), desk.theme.muted);
        Some(Line::from(vec![label, Span::styled(typed.clone(), desk.theme.good)]))
    };
    besides.filter_map(line).collect()
}

/// Every answer with its key, and the key that writes something down, as many on a line as there is room for.
pub(super) fn answers(desk: &Desk, question: &Question, room: usize) -> Vec<Line<'static>> {
    let is_errand = question.errand().is_some();
    let does = if is_errand { telling::WRITE_WHAT_IT_SHOWS } else { telling::WRITE_WHAT_IT_SAYS };
    let write = (!desk.fields().is_empty()).then(|| (key_of_writing(Some(question)).shown, does));
    let mut all: Vec<(&str, &str)> =
        question.answers().into_iter().map(|answer| (key_of(answer).shown, answer_words(answer, question))).collect();
    // What a pass says comes before the answer that it goes with.
    write.into_iter().for_each(|write| all.insert(usize::from(is_errand), write));
    let mut lines = vec![Line::default()];
    for (key, does) in all {
        let spans = [
            Span::styled(format!("{key} "), desk.theme.accent.bold()),
            Span::styled(format!("{does}   "), desk.theme.text),
        ];
        let wide: usize = spans.iter().map(Span::width).sum();
        let is_full = lines.last().is_some_and(|last| last.width() > 0 && last.width() + wide > room + APART);
        if is_full {
            lines.push(Line::default());
        }
        lines.last_mut().into_iter().for_each(|last| last.spans.extend(spans.clone()));
    }
    lines
}
