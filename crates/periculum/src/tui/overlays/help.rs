//! What a screen shows, what its signs mean, and its keys.

use ratatui::Frame;
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};

use super::Below;
use super::frame::card;
use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

/// From this height up its parts stand off each other.
const ROOMY: u16 = 30;

pub(super) fn draw(frame: &mut Frame, desk: &Desk, below: &Below, area: Rect) {
    let theme = &desk.theme;
    let styles =
        [theme.good, theme.warning, theme.bad, theme.muted, theme.accent, theme.muted, theme.accent, theme.bad];
    // Of the signs only those that the screen has.
    let (from, to) = below.signs;
    let mut lines = vec![Line::styled(below.help, theme.text), Line::default()];
    if from < to {
        let signs = telling::SIGNS[from..to].iter().zip(&styles[from..to]);
        lines.extend(signs.map(|((sign, meaning), style)| {
            Line::from(vec![Span::styled(format!("  {sign}  "), *style), Span::styled(*meaning, theme.text)])
        }));
        lines.push(Line::default());
    }
    let shown = below.keys.iter().filter(|key| !key.shown.is_empty());
    let keys: Vec<String> = shown.map(|key| format!("  {:<9} {:<23}", key.shown, key.does)).collect();
    lines.extend(keys.chunks(2).map(|pair| Line::styled(pair.concat(), theme.muted)));
    if area.height < ROOMY {
        lines.retain(|line| line.width() > 0);
    }
    card(frame, desk, area, labels::HELP, Text::from(lines));
}
