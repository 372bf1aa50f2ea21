//! What lies where on the screen, for the mouse: each view says so while it draws.

use std::cell::RefCell;

use ratatui::layout::{Position, Rect};

use super::screens::View;

/// Something that can be pointed at.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Target {
    /// A trial of the shown climb, by its number.
    Trial(u32),
    /// A climb of the ledger, by its number.
    Climb(i64),
    /// A trial of a climb of the ledger, by both numbers.
    Attempt(i64, u32),
    /// A line of the plan, by its place.
    Line(usize),
    /// Another view.
    View(View),
}

/// The places of everything that can be pointed at, as they were drawn last.
#[derive(Default)]
pub(super) struct Places(RefCell<Vec<(Rect, Target)>>);

impl Places {
    /// Forgets all, before the screen is drawn anew.
    pub(super) fn clear(&self) {
        self.0.borrow_mut().clear();
    }

    /// Says what lies here, above whatever was said to lie here before.
    pub(super) fn put(&self, area: Rect, target: Target) {
        self.0.borrow_mut().push((area, target));
    }

    /// Says what lies on the lines of a list from its first line on.
    pub(super) fn put_lines(&self, area: Rect, targets: impl Iterator<Item = Target>) {
        for (y, target) in (area.top()..area.bottom()).zip(targets) {
            self.put(Rect { y, height: 1, ..area }, target);
        }
    }

    /// What lies here.
    pub(super) fn at(&self, x: u16, y: u16) -> Option<Target> {
        let places = self.0.borrow();
        places.iter().rev().find(|(area, _)| area.contains(Position { x, y })).map(|(_, target)| *target)
    }
}
