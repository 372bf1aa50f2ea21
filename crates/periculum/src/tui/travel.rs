//! How a selection moves.

use ratatui::crossterm::event::KeyCode;

/// How the selection moves.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Travel {
    Back(usize),
    On(usize),
    First,
    Last,
}

/// What the letters mean that move selections in many a program of terminals, where nothing else is meant by them.
pub(super) fn travel_of(code: KeyCode) -> Option<Travel> {
    match code {
        KeyCode::Char('j') => Some(Travel::On(1)),
        KeyCode::Char('k') => Some(Travel::Back(1)),
        KeyCode::Char('g') => Some(Travel::First),
        KeyCode::Char('G') => Some(Travel::Last),
        _ => None,
    }
}

impl Travel {
    /// Where it leads from a place among so many.
    pub(super) fn from(self, at: usize, count: usize) -> usize {
        let last = count.saturating_sub(1);
        match self {
            Self::Back(by) => at.saturating_sub(by),
            Self::On(by) => (at + by).min(last),
            Self::First => 0,
            Self::Last => last,
        }
    }
}
