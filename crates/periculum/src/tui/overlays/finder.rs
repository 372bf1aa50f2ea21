//! Everything that can be done on a screen, to be found by what it does, and why it can't be done now.

use ratatui::Frame;
use ratatui::crossterm::event::{Event, KeyCode};
use ratatui::layout::Rect;
use ratatui::text::{Line, Span, Text};
use tui_input::Input;
use tui_input::backend::crossterm::EventHandler;

use super::frame::card;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::telling::{self, labels};
use crate::tui::travel::Travel;

/// No more of what was found is shown at a time.
const MOST: usize = 12;

/// What is looked for, and which of what was found is selected.
#[derive(Debug, Default)]
pub(in crate::tui) struct Finder {
    words: Input,
    at: usize,
}

impl Finder {
    /// A key while it is open, but the one that takes what is selected.
    pub(in crate::tui) fn press(&mut self, code: KeyCode, event: &Event, keys: &[Key]) {
        let count = self.found(keys).len();
        match code {
            KeyCode::Up => self.at = Travel::Back(1).from(self.at, count),
            KeyCode::Down => self.at = Travel::On(1).from(self.at, count),
            _ => {
                self.words.handle_event(event);
                self.at = 0;
            }
        }
    }

    /// What has all the words that were typed, in what it does.
    fn found<'a>(&self, keys: &'a [Key]) -> Vec<&'a Key> {
        let words = self.words.value().to_lowercase();
        let has = |key: &&Key| words.split_whitespace().all(|word| key.does.to_lowercase().contains(word));
        keys.iter().filter(|key| !key.does.is_empty()).filter(has).collect()
    }

    /// The key of what is selected.
    pub(in crate::tui) fn selected(&self, keys: &[Key]) -> Option<Key> {
        self.found(keys).get(self.at).copied().copied()
    }

    pub(super) fn draw(&self, frame: &mut Frame, desk: &Desk, keys: &[Key], area: Rect) {
        let theme = &desk.theme;
        let found = self.found(keys);
        let typed = self.words.value();
        let mut lines = vec![
            Line::from(vec![Span::styled(": ", theme.accent.bold()), Span::styled(typed.to_owned(), theme.text)]),
            Line::default(),
        ];
        let first = (self.at + 1).saturating_sub(MOST);
        lines.extend(found.iter().enumerate().skip(first).take(MOST).map(|(place, key)| {
            let text = if key.can_be_pressed() { theme.text } else { theme.muted };
            let (sign, style) = if place == self.at { ("› ", text.bold()) } else { ("  ", text) };
            Line::from(vec![
                Span::styled(sign, theme.accent.bold()),
                Span::styled(format!("{:<26} {:<10}", key.does, written(key)), style),
                Span::styled(key.why_not.unwrap_or_default(), theme.muted),
            ])
        }));
        if found.is_empty() {
            lines.push(Line::styled(telling::NOTHING_DOES_THAT, theme.muted));
        }
        card(frame, desk, area, labels::FIND_ACTION, Text::from(lines));
    }
}

/// How a key is written; one that the screen does not list by its sign.
fn written(key: &Key) -> String {
    match (key.shown, key.code) {
        ("", KeyCode::Char(sign)) => sign.to_string(),
        (shown, _) => shown.to_owned(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use ratatui::crossterm::event::{KeyEvent, KeyModifiers};

    fn typed(finder: &mut Finder, text: &str, keys: &[Key]) {
        for sign in text.chars() {
            let code = KeyCode::Char(sign);
            finder.press(code, &Event::Key(KeyEvent::new(code, KeyModifiers::NONE)), keys);
        }
    }

    #[test]
    fn an_action_is_found_by_what_it_does_and_never_one_that_is_not_there() {
        let keys = [Key::letter('s', "s", "stop"), Key::letter('e', "e", "export"), Key::silent(KeyCode::Down)];
        let mut finder = Finder::default();
        assert_eq!(finder.selected(&keys).map(|key| key.code), Some(KeyCode::Char('s')));
        finder.press(KeyCode::Down, &Event::FocusGained, &keys);
        finder.press(KeyCode::Down, &Event::FocusGained, &keys);
        assert_eq!(finder.selected(&keys).map(|key| key.code), Some(KeyCode::Char('e')), "the last stays the last");
        typed(&mut finder, "STO", &keys);
        assert_eq!(finder.selected(&keys).map(|key| key.code), Some(KeyCode::Char('s')));
        typed(&mut finder, "rm", &keys);
        assert!(finder.selected(&keys).is_none());
    }
}
