//! Lists that are longer than the screen and are scrolled as a whole.

use std::cell::Cell;

use ratatui::Frame;
use ratatui::buffer::Buffer;
use ratatui::layout::Rect;
use ratatui::text::Line;

use crate::tui::theme::Theme;
use crate::tui::travel::Travel;

/// No list that is scrolled as a whole is longer.
pub(super) const MOST_LINES: u16 = 5000;

/// How many lines down a list is scrolled, and how many it could be when it was drawn last.
#[derive(Debug, Default)]
pub(super) struct Scroll {
    at: usize,
    room: Cell<usize>,
}

impl Scroll {
    /// Whether there is more than was drawn.
    pub(super) fn can_move(&self) -> bool {
        self.room.get() > 0
    }

    pub(super) fn go(&mut self, step: Travel) {
        self.at = step.from(self.to(), self.room.get() + 1);
    }

    /// Shows the last lines.
    pub(super) fn go_to_end(&mut self) {
        self.at = usize::MAX;
    }

    fn to(&self) -> usize {
        self.at.min(self.room.get())
    }

    /// Draws what has so many lines: all, or as much as there is room for from where it was scrolled to, and where that is.
    pub(super) fn draw(
        &self,
        frame: &mut Frame,
        theme: &Theme,
        area: Rect,
        lines: usize,
        draw: impl FnOnce(&mut Buffer, Rect),
    ) {
        self.room.set(0);
        let lines = u16::try_from(lines).unwrap_or(u16::MAX).min(MOST_LINES);
        let Some(room) = area.height.checked_sub(2).filter(|_| lines > area.height) else {
            return draw(frame.buffer_mut(), area);
        };
        self.room.set(usize::from(lines - room));
        let whole = Rect { height: lines, ..area };
        let mut sheet = Buffer::empty(whole);
        sheet.set_style(whole, theme.text);
        draw(&mut sheet, whole);
        let first = u16::try_from(self.to()).unwrap_or(u16::MAX);
        let buffer = frame.buffer_mut();
        for (y, x) in (0..room).flat_map(|y| (area.left()..area.right()).map(move |x| (y, x))) {
            buffer[(x, area.y + y)] = sheet[(x, area.y + first + y)].clone();
        }
        let place = crate::tui::telling::lines_of(first + 1, first + room, lines);
        frame.render_widget(Line::styled(place, theme.muted), Rect { y: area.bottom() - 1, height: 1, ..area });
    }
}
