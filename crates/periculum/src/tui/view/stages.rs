//! The stages of the plan: what is behind us, what is under way, what is to come.

use periculum_core::telling::stage_words;
use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};

use crate::tui::app::App;

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    let theme = &app.theme;
    let mut lines = vec![Line::styled("plan", theme.muted)];
    for (index, stage) in app.plan.stages.iter().enumerate() {
        let begun = app.story.stages.get(index);
        let end = begun.and_then(|stage| stage.end.as_ref());
        let (sign, style) = match (begun, end) {
            (_, Some(_)) => ("✓", theme.good),
            (Some(_), None) => ("›", theme.accent),
            (None, _) => (" ", theme.muted),
        };
        let is_ahead = begun.is_none();
        lines.push(Line::from(vec![
            Span::styled(format!("{sign} "), style),
            Span::styled(stage_words(stage, &app.plan, &app.rig), if is_ahead { theme.muted } else { theme.text }),
        ]));
        if let Some(end) = end {
            lines.push(Line::styled(format!("  {}", end.sentence(&app.rig)), theme.muted));
        }
    }
    frame.render_widget(Text::from(lines), area);
}
