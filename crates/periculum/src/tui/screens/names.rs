//! The names of all views on one line, the one that is looked at plain to see.

use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span};

use super::{DIGITS, View};
use crate::tui::desk::Desk;
use crate::tui::pointing::Target;
use crate::tui::telling::labels;

/// Draws the names, each of which can be pointed at.
pub(in crate::tui) fn draw(frame: &mut Frame, desk: &Desk, at: View, area: Rect) {
    let theme = &desk.theme;
    let width = |view: View| labels::name_of(view).chars().count() + 2;
    let whole: usize = View::ALL.into_iter().map(width).sum::<usize>() + 2 * (View::ALL.len() - 1);
    let gap = if whole <= usize::from(area.width) { 2 } else { 1 };
    let mut x = area.x;
    for (view, number) in View::ALL.into_iter().zip(DIGITS.chars()) {
        let name = labels::name_of(view);
        let (digit, style) =
            if view == at { (theme.accent.bold(), theme.text.bold()) } else { (theme.faint, theme.muted) };
        let line = Line::from(vec![Span::styled(format!("{number} "), digit), Span::styled(name, style)]);
        let width = u16::try_from(line.width()).unwrap_or(u16::MAX);
        if x + width > area.right() {
            return;
        }
        let place = Rect { x, y: area.y, width, height: 1 };
        frame.render_widget(line, place);
        desk.places.put(place, Target::View(view));
        x += width + gap;
    }
}
