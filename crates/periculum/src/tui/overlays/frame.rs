//! The frames that overlays are drawn in.

use ratatui::Frame;
use ratatui::layout::{Constraint, Flex, Layout, Rect};
use ratatui::text::{Span, Text};
use ratatui::widgets::{Block, BorderType, Clear, Padding, Paragraph, Wrap};

use crate::tui::desk::Desk;

/// From here up there is room beside it, and so wide it is then.
const WIDE: u16 = 90;
const SIDE: u16 = 64;

/// A frame in the middle with a title and text in it.
pub(super) fn card(frame: &mut Frame, desk: &Desk, area: Rect, title: &str, text: Text<'static>) {
    let width = area.width.saturating_sub(4).min(84);
    let place = centred(area, width, height_of(&text, width, area));
    put(frame, desk, place, title, text);
}

/// The same at the side, so that what it is about can still be read: the profile from the left on, and the trial below.
pub(super) fn card_at_side(frame: &mut Frame, desk: &Desk, area: Rect, title: &str, text: Text<'static>) {
    let is_wide = area.width >= WIDE;
    let width = area.width.saturating_sub(2).min(if is_wide { SIDE } else { 84 });
    let height = height_of(&text, width, area);
    let x = area.right().saturating_sub(width + 1);
    put(frame, desk, Rect { x, y: area.y + 2.min(area.height - height), width, height }, title, text);
}

/// How many columns a card at the side has for its text.
pub(super) fn room_at_side(area: Rect) -> usize {
    let width = area.width.saturating_sub(2).min(if area.width >= WIDE { SIDE } else { 84 });
    usize::from(width.saturating_sub(6))
}

/// As many lines as the text takes at this width, as far as there is room.
fn height_of(text: &Text, width: u16, area: Rect) -> u16 {
    let inner = usize::from(width.saturating_sub(6)).max(1);
    let rows: usize = text.lines.iter().map(|line| line.width().div_ceil(inner).max(1)).sum();
    u16::try_from(rows + 4).unwrap_or(u16::MAX).min(area.height.saturating_sub(2))
}

fn put(frame: &mut Frame, desk: &Desk, place: Rect, title: &str, text: Text<'static>) {
    frame.render_widget(Clear, place);
    frame.render_widget(
        Paragraph::new(text).style(desk.theme.text).wrap(Wrap { trim: false }).block(block(desk, title)),
        place,
    );
}

/// A rounded frame with a title.
pub(super) fn block<'a>(desk: &Desk, title: &'a str) -> Block<'a> {
    Block::bordered()
        .border_type(BorderType::Rounded)
        .border_style(desk.theme.faint)
        .title(Span::styled(format!(" {title} "), desk.theme.accent.bold()))
        .padding(Padding::new(2, 2, 1, 1))
        .style(desk.theme.text)
}

fn centred(area: Rect, width: u16, height: u16) -> Rect {
    let [row] = Layout::vertical([Constraint::Length(height)]).flex(Flex::Center).areas(area);
    let [place] = Layout::horizontal([Constraint::Length(width)]).flex(Flex::Center).areas(row);
    place
}
