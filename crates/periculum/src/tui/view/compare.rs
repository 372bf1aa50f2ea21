//! What was picked, beside each other: what differs comes first, with the difference to the first one.

use periculum_core::analysis::contrast::{Contrast, Fact, Row, Value, contrast};
use ratatui::Frame;
use ratatui::layout::{Constraint, Layout, Rect};
use ratatui::text::{Line, Span, Text};
use ratatui::widgets::Widget;

use super::{draw_scrolled, fit, specimens};
use crate::tui::app::App;
use crate::tui::picked::Picked;
use crate::tui::telling::{self, labels};

/// Columns for what a line is about.
const LABEL: usize = 30;

/// Columns of a side, at least and at most.
const SIDE: (usize, usize) = (25, 36);

pub(super) fn draw(frame: &mut Frame, app: &App, area: Rect) {
    if app.picks.count() < 2 {
        return specimens::draw(frame, app, area);
    }
    let theme = &app.theme;
    let [head, body] = Layout::vertical([Constraint::Length(3), Constraint::Min(0)]).areas(area);
    let room = usize::from(area.width).saturating_sub(LABEL);
    let sides: Vec<&Picked> = app.picks.iter().take((room / SIDE.0).max(2)).collect();
    let wide = (room / sides.len()).min(SIDE.1);
    frame.render_widget(Text::from(titles(app, &sides, wide, area.width)), head);
    let facts: Vec<&[Fact]> = sides.iter().map(|side| side.facts.as_slice()).collect();
    let Contrast { different, same } = contrast(&facts);
    let mut lines: Vec<Line> = Vec::new();
    if different.is_empty() {
        lines.push(Line::styled(telling::NOTHING_DIFFERS, theme.text));
    }
    lines.extend(different.iter().map(|row| line(app, row, wide, true)));
    lines.push(Line::default());
    lines.push(Line::styled(labels::THE_SAME, theme.muted));
    lines.extend(same.iter().map(|row| line(app, row, wide, false)));
    draw_scrolled(frame, app, body, lines.len(), |buffer, area| {
        Text::from_iter(lines.into_iter().map(|line| fit(line, area.width, theme.muted))).render(area, buffer);
    });
}

fn titles(app: &App, sides: &[&Picked], wide: usize, width: u16) -> Vec<Line<'static>> {
    let theme = &app.theme;
    let more = app.picks.count() - sides.len();
    let more = telling::more_need_room(more);
    let mut upper = Line::styled(format!("{more:<LABEL$}"), theme.muted);
    let mut lower = Line::raw(" ".repeat(LABEL));
    for side in sides {
        let [what, of] = &side.title;
        upper.push_span(Span::styled(padded(what, wide), theme.accent.bold()));
        lower.push_span(Span::styled(padded(of, wide), theme.muted));
    }
    vec![fit(upper, width, theme.muted), fit(lower, width, theme.muted)]
}

fn line(app: &App, row: &Row, wide: usize, differs: bool) -> Line<'static> {
    let theme = &app.theme;
    let mut line = Line::styled(padded(&row.label, LABEL), theme.muted);
    for (index, (value, difference)) in row.values.iter().zip(&row.differences).enumerate() {
        let told = value.as_ref().map_or_else(|| "–".into(), Value::to_string);
        let text = if differs { theme.text } else { theme.muted };
        let difference = difference.as_ref().filter(|_| index > 0).filter(|difference| difference.by != 0.0);
        let Some((difference, Some(Value::Number(number)))) = difference.map(|by| (by, value)) else {
            line.push_span(Span::styled(padded(&told, wide), text));
            continue;
        };
        let apart = difference.told(number);
        let style = if difference.is_clear() { theme.warning } else { theme.muted };
        let left = wide.saturating_sub(told.chars().count() + 2);
        line.push_span(Span::styled(format!("{told}  "), text));
        line.push_span(Span::styled(padded(&apart, left), style));
    }
    line
}

/// The text in so many columns, with one left free behind it.
fn padded(text: &str, columns: usize) -> String {
    let room = columns.saturating_sub(1);
    if text.chars().count() <= room {
        return format!("{text:<columns$}");
    }
    let kept: String = text.chars().take(room.saturating_sub(1)).collect();
    format!("{kept}… ")
}
