//! A key: what is pressed, how that is written, and what it does.

use ratatui::crossterm::event::KeyCode;

/// A key that can be pressed now.
#[derive(Clone, Copy, Debug)]
pub(super) struct Key {
    pub(super) code: KeyCode,
    /// How it is written; nothing for one that goes without saying.
    pub(super) shown: &'static str,
    pub(super) does: &'static str,
    /// Whether it stands before what every screen has.
    pub(super) is_first: bool,
}

impl Key {
    pub(super) const fn new(code: KeyCode, shown: &'static str, does: &'static str) -> Self {
        Self { code, shown, does, is_first: false }
    }

    /// One that is written by the letter on it.
    pub(super) const fn letter(letter: char, shown: &'static str, does: &'static str) -> Self {
        Self::new(KeyCode::Char(letter), shown, does)
    }

    pub(super) const fn enter(does: &'static str) -> Self {
        Self::new(KeyCode::Enter, "enter", does)
    }

    pub(super) const fn backspace(does: &'static str) -> Self {
        Self::new(KeyCode::Backspace, "backspace", does)
    }

    pub(super) const fn tab(does: &'static str) -> Self {
        Self::new(KeyCode::Tab, "tab", does)
    }

    pub(super) const fn space(does: &'static str) -> Self {
        Self::letter(' ', "space", does)
    }

    /// The same, standing before what every screen has.
    pub(super) const fn first(self) -> Self {
        Self { is_first: true, ..self }
    }

    /// One that another key speaks for.
    pub(super) const fn silent(code: KeyCode) -> Self {
        Self::new(code, "", "")
    }
}

/// The keys of these that are offered.
pub(super) fn offered<const N: usize>(keys: [(bool, Key); N]) -> Vec<Key> {
    keys.into_iter().filter(|(is_offered, _)| *is_offered).map(|(_, key)| key).collect()
}
