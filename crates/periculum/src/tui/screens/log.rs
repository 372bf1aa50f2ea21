//! The whole logbook of a climb, the newest last.

use ratatui::Frame;
use ratatui::crossterm::event::KeyCode;
use ratatui::layout::Rect;
use ratatui::text::{Line, Text};
use ratatui::widgets::Widget;

use super::logbook::line;
use super::scroll::{MOST_LINES, Scroll};
use super::{Proposed, Screen, Then};
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::telling::labels;
use crate::tui::travel::Travel;

/// The logbook, as far as it was scrolled.
#[derive(Default)]
pub(super) struct Log {
    scroll: Scroll,
}

impl Screen for Log {
    fn help(&self) -> &'static str {
        labels::HELP_OF_LOG
    }

    fn signs(&self) -> (usize, usize) {
        (0, 0)
    }

    /// What happened last is seen first.
    fn enter(&mut self, _desk: &mut Desk) {
        self.scroll.go_to_end();
    }

    fn keys(&self, _desk: &Desk) -> Vec<Key> {
        Vec::new()
    }

    fn press(&mut self, _code: KeyCode, _desk: &mut Desk) -> Then {
        Then::Nothing
    }

    fn moves(&self, _desk: &Desk) -> Option<&'static str> {
        self.scroll.can_move().then_some(labels::SCROLL)
    }

    fn select(&mut self, step: Travel, _desk: &mut Desk) {
        self.scroll.go(step);
    }

    fn draw(&self, frame: &mut Frame, desk: &Desk, area: Rect) {
        let lines = lines(desk, area.width);
        let count = lines.len();
        self.scroll.draw(frame, &desk.theme, area, count, |buffer, whole| Text::from(lines).render(whole, buffer));
    }

    fn file(&self, _desk: &Desk) -> Option<Proposed> {
        None
    }
}

fn lines(desk: &Desk, width: u16) -> Vec<Line<'static>> {
    let story = &desk.shown.story;
    let began = story.began.unwrap_or_default();
    let told = story.log.iter().filter_map(|(at, entry)| line(desk, at.since(began), entry, width));
    let told: Vec<Line> = told.collect();
    // Of a record that is longer than a list can be, the end matters.
    let first = told.len().saturating_sub(MOST_LINES.into());
    told.into_iter().skip(first).collect()
}
