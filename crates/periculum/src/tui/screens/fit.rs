//! Lines that are longer than there is room.

use ratatui::style::Style;
use ratatui::text::{Line, Span};

/// From here up there is room for a column beside what a screen is about.
pub(super) const WIDE: (u16, u16) = (120, 30);

/// From here up there is room for a column of figures beside the profile of the climb.
pub(super) const ROOMY: (u16, u16) = (118, 26);

/// The line, or as much of it as there is room for and a sign that there is more.
pub(in crate::tui) fn fit(line: Line<'static>, width: u16, more: Style) -> Line<'static> {
    let width = usize::from(width);
    if line.width() <= width {
        return line;
    }
    let mut room = width.saturating_sub(1);
    let mut fitted = Line::default();
    for span in line.spans {
        if span.width() <= room {
            room -= span.width();
            fitted.push_span(span);
            continue;
        }
        let kept: String = span.content.chars().take(room).collect();
        fitted.push_span(Span::styled(kept, span.style));
        break;
    }
    fitted.push_span(Span::styled("…", more));
    fitted
}
