//! What happened, in order, the newest last.

use periculum_core::engine::Entry;
use periculum_core::telling::tell;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::style::Style;
use ratatui::text::{Line, Span, Text};

use super::fit;
use crate::tui::app::App;
use crate::tui::telling::labels;

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    if area.height < 2 {
        return;
    }
    let theme = &app.theme;
    let began = app.shown.story.began.unwrap_or_default();
    let room = usize::from(area.height) - 1;
    let told = app.shown.story.log.iter().rev().filter_map(|(at, entry)| {
        let time = Span::styled(format!("{:>8}  ", at.since(began).clock()), theme.muted);
        let line = Line::from(vec![time, Span::styled(tell(entry, &app.shown.rig)?, style(app, entry))]);
        Some(fit(line, area.width, theme.muted))
    });
    let mut lines: Vec<Line> = told.take(room).collect();
    lines.push(Line::styled(labels::LOGBOOK, theme.muted));
    lines.reverse();
    frame.render_widget(Text::from(lines), area);
}

fn style(app: &App, entry: &Entry) -> Style {
    let theme = &app.theme;
    match entry {
        Entry::TrialEnded { verdict, .. } => theme.verdict(Some(*verdict)),
        Entry::Incident { .. } | Entry::MarkWithdrawn { .. } => theme.warning,
        Entry::MarkSet { .. } => theme.accent,
        _ => theme.text,
    }
}
