//! What happened, in order, the newest last.

use periculum_core::engine::Entry;
use periculum_core::model::moment::Span as Time;
use periculum_core::telling::tell;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use super::fit::fit;
use crate::tui::desk::Desk;
use crate::tui::telling::labels;

pub(super) fn draw(frame: &mut Frame, desk: &Desk, area: Rect) {
    if area.height < 2 {
        return;
    }
    let theme = &desk.theme;
    let began = desk.shown.story.began.unwrap_or_default();
    let room = usize::from(area.height) - 1;
    let told =
        desk.shown.story.log.iter().rev().filter_map(|(at, entry)| line(desk, at.since(began), entry, area.width));
    let mut lines: Vec<Line> = told.take(room).collect();
    lines.push(Line::styled(labels::LOGBOOK, theme.muted));
    lines.reverse();
    frame.render_widget(Text::from(lines), area);
}

/// An entry by the time since the climb began; none for one that only the record needs.
pub(super) fn line(desk: &Desk, since: Time, entry: &Entry, width: u16) -> Option<Line<'static>> {
    let theme = &desk.theme;
    let time = Span::styled(format!("{:>8}  ", since.clock()), theme.muted);
    let line = Line::from(vec![time, Span::styled(tell(entry, &desk.shown.rig)?, style(desk, entry))]);
    Some(fit(line, width, theme.muted))
}

fn style(desk: &Desk, entry: &Entry) -> Style {
    let theme = &desk.theme;
    match entry {
        Entry::TrialEnded { verdict, .. } => theme.verdict(Some(*verdict)),
        Entry::Incident { .. } | Entry::MarkWithdrawn { .. } => theme.warning,
        Entry::MarkSet { .. } => theme.accent,
        _ => theme.text,
    }
}
