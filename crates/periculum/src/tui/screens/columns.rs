//! Which columns of a table are shown, and which of them is looked at.

use std::collections::BTreeSet;

use periculum_core::model::ladder::Direction;
use periculum_core::story::finding::{Query, Sorted, sorted_by};
use ratatui::crossterm::event::KeyCode;

use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::telling::labels;
use crate::tui::travel::Travel;

/// The columns of a table as somebody wants to see them.
#[derive(Default)]
pub(super) struct Columns {
    /// The column that is looked at, by name; none for the first.
    looked_at: Option<String>,
    /// Columns that are left out, by name.
    hidden: BTreeSet<String>,
}

/// A column by its name, and in which direction it is better.
pub(super) type Named = (String, Option<Direction>);

impl Columns {
    /// The keys that are about them.
    pub(super) fn keys(&self) -> Vec<Key> {
        vec![
            Key::new(KeyCode::Left, "←→", labels::COLUMN),
            Key::silent(KeyCode::Right),
            Key::letter('o', "o", labels::SORT_BY_IT),
            Key::letter('-', "-", labels::HIDE_COLUMN),
            Key::letter('+', "+", labels::ALL_COLUMNS).only(!self.hidden.is_empty(), labels::ALL_ARE_SHOWN),
        ]
    }

    /// Does what one of these keys is for, given the columns that are shown; whether it was one.
    pub(super) fn press(&mut self, code: KeyCode, shown: &[Named], desk: &mut Desk) -> bool {
        match code {
            KeyCode::Left => self.turn(Travel::Back(1), shown),
            KeyCode::Right => self.turn(Travel::On(1), shown),
            KeyCode::Char('o') => {
                if let Some(words) = self.sorted(shown, &desk.query(), &desk.filter) {
                    desk.look_for(&words);
                }
            }
            KeyCode::Char('-') => self.hide(shown),
            KeyCode::Char('+') => *self = Self::default(),
            _ => return false,
        }
        true
    }

    /// Whether a column is not left out.
    pub(super) fn shows(&self, name: &str) -> bool {
        !self.hidden.contains(name)
    }

    /// The place of the column that is looked at among those that are shown.
    pub(super) fn at<'a>(&self, mut shown: impl Iterator<Item = &'a str>) -> usize {
        shown.position(|name| Some(name) == self.looked_at.as_deref()).unwrap_or_default()
    }

    fn place(&self, shown: &[Named]) -> usize {
        self.at(shown.iter().map(|(name, _)| name.as_str()))
    }

    fn turn(&mut self, step: Travel, shown: &[Named]) {
        let to = step.from(self.place(shown), shown.len());
        self.looked_at = shown.get(to).map(|(name, _)| name.clone());
    }

    /// What is looked for, sorted by the column that is looked at, what is better first; then the other way; then not at all.
    fn sorted(&self, shown: &[Named], query: &Query, typed: &str) -> Option<String> {
        let (column, better) = shown.get(self.place(shown))?;
        let (first, then) = match better {
            Some(Direction::Up) => (Sorted::GreatestFirst, Sorted::LeastFirst),
            _ => (Sorted::LeastFirst, Sorted::GreatestFirst),
        };
        let next = match query.sort() {
            Some((name, sorted)) if name == column => (sorted == first).then_some(then),
            _ => Some(first),
        };
        Some(sorted_by(typed, next.map(|sorted| (column.as_str(), sorted))))
    }

    /// Leaves out the column that is looked at; the next one is looked at then.
    fn hide(&mut self, shown: &[Named]) {
        let at = self.place(shown);
        if shown.len() > 1 {
            self.hidden.insert(shown[at].0.clone());
            self.looked_at = shown.get(at + 1).or(shown.get(at.wrapping_sub(1))).map(|(name, _)| name.clone());
        }
    }
}
