//! A key: what is pressed, how that is written, what it does, and why it can't be done now.

use ratatui::crossterm::event::KeyCode;

/// A key, and whether it can be pressed now.
#[derive(Clone, Copy, Debug)]
pub(super) struct Key {
    pub(super) code: KeyCode,
    /// How it is written; nothing for one that goes without saying.
    pub(super) shown: &'static str,
    pub(super) does: &'static str,
    /// Whether it stands before what every screen has.
    pub(super) is_first: bool,
    /// What stands against it now.
    pub(super) why_not: Option<&'static str>,
}

impl Key {
    pub(super) const fn new(code: KeyCode, shown: &'static str, does: &'static str) -> Self {
        Self { code, shown, does, is_first: false, why_not: None }
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

    /// The same, which can be pressed only where this is so, and else says why not.
    pub(super) const fn only(self, is_so: bool, why_not: &'static str) -> Self {
        if is_so { self } else { Self { why_not: Some(why_not), ..self } }
    }

    /// Whether it can be pressed now.
    pub(super) const fn can_be_pressed(&self) -> bool {
        self.why_not.is_none()
    }

    /// One that another key speaks for.
    pub(super) const fn silent(code: KeyCode) -> Self {
        Self::new(code, "", "")
    }
}

/// The keys of these that are there, whether they can be pressed or not.
pub(super) fn offered<const N: usize>(keys: [(bool, Key); N]) -> Vec<Key> {
    keys.into_iter().filter(|(is_offered, _)| *is_offered).map(|(_, key)| key).collect()
}
