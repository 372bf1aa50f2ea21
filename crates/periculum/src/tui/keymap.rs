//! Which key is pressed for which: every action has a key of its own, which may lie elsewhere on somebody's keyboard.

use ratatui::crossterm::event::KeyCode;

use super::keys::Key;

/// The signs that mean something in some view.
const MEANT: &str = "abcdeghijklmnopqrstuvwxyz?:/+-CG ";

/// Those of them that belong together and stay where they are.
const PAIRED: &str = "+-";

/// Names of keys that are no signs.
const NAMED: [(&str, KeyCode); 8] = [
    ("space", KeyCode::Char(' ')),
    ("enter", KeyCode::Enter),
    ("tab", KeyCode::Tab),
    ("backspace", KeyCode::Backspace),
    ("insert", KeyCode::Insert),
    ("delete", KeyCode::Delete),
    ("F11", KeyCode::F(11)),
    ("F12", KeyCode::F(12)),
];

/// Every sign that can be typed on a keyboard without more than shift.
pub(super) const SIGNS: &str = "abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ?:/+-.,;!=*#_<>()[]{}'\"$%&@^~|\\`";

/// A key that can be named, and how it is written.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Named {
    code: KeyCode,
    shown: &'static str,
}

impl Named {
    /// The key of this name: a sign, or a word for a key that has none.
    pub(super) fn of(name: &str) -> Option<Self> {
        let by_word = NAMED.into_iter().find(|(word, _)| word.eq_ignore_ascii_case(name));
        if let Some((shown, code)) = by_word {
            return Some(Self { code, shown });
        }
        let mut signs = name.chars();
        let (sign, None) = (signs.next()?, signs.next()) else { return None };
        let at = SIGNS.find(sign)?;
        Some(Self { code: KeyCode::Char(sign), shown: &SIGNS[at..at + sign.len_utf8()] })
    }

    /// Whether it means something where nobody has moved it.
    fn is_meant(self) -> bool {
        match self.code {
            KeyCode::Char(sign) => MEANT.contains(sign),
            code => matches!(code, KeyCode::Enter | KeyCode::Tab | KeyCode::Backspace),
        }
    }

    /// Whether what it means can lie on another key.
    pub(super) fn can_be_moved(self) -> bool {
        self.is_meant() && !PAIRED.contains(self.shown)
    }
}

/// Keys that were moved: what each meant, and where that lies now.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub(super) struct Keymap(Vec<(Named, Named)>);

impl Keymap {
    /// The map of these moves.
    ///
    /// # Errors
    /// The place of the first that leads to a key which means something else.
    pub(super) fn of(moves: Vec<(Named, Named)>) -> Result<Self, usize> {
        let clashes = |(at, (from, to)): (usize, &(Named, Named))| {
            let is_taken = moves[..at].iter().any(|other| other.0 == *from || other.1 == *to);
            let stays = to.is_meant() && !moves.iter().any(|(from, _)| from == to);
            (is_taken || stays).then_some(at)
        };
        match moves.iter().enumerate().find_map(clashes) {
            Some(at) => Err(at),
            None => Ok(Self(moves)),
        }
    }

    /// What a pressed key stands for; none where what it meant was moved away.
    pub(super) fn meant(&self, pressed: KeyCode) -> Option<KeyCode> {
        if let Some((from, _)) = self.0.iter().find(|(_, to)| to.code == pressed) {
            return Some(from.code);
        }
        (!self.0.iter().any(|(from, _)| from.code == pressed)).then_some(pressed)
    }

    /// How this key is written, which is written so where nobody has moved it.
    pub(super) fn written(&self, code: KeyCode, shown: &'static str) -> &'static str {
        let moved = self.0.iter().find(|(from, _)| from.code == code && from.shown == shown);
        moved.map_or(shown, |(_, to)| to.shown)
    }

    /// A key as whoever has moved it sees it.
    pub(super) fn moved(&self, key: Key) -> Key {
        Key { shown: self.written(key.code, key.shown), ..key }
    }
}

/// Whether a key that does something is one of those that can be moved, or that stay where they are for everybody.
#[cfg(test)]
pub(super) fn knows(code: KeyCode) -> bool {
    match code {
        KeyCode::Char(sign) => MEANT.contains(sign) || sign.is_ascii_digit(),
        _ => true,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn named(name: &str) -> Named {
        Named::of(name).expect("a key")
    }

    fn map(moves: &[(&str, &str)]) -> Result<Keymap, usize> {
        Keymap::of(moves.iter().map(|(from, to)| (named(from), named(to))).collect())
    }

    #[test]
    fn what_was_moved_is_pressed_and_written_elsewhere() {
        let keys = map(&[("s", "!"), ("space", "F12")]).expect("no clash");
        assert_eq!(keys.meant(KeyCode::Char('!')), Some(KeyCode::Char('s')));
        assert_eq!(keys.meant(KeyCode::Char('s')), None, "it is elsewhere now");
        assert_eq!(keys.meant(KeyCode::F(12)), Some(KeyCode::Char(' ')));
        assert_eq!(keys.meant(KeyCode::Char('x')), Some(KeyCode::Char('x')));
        assert_eq!(
            (keys.moved(Key::letter('s', "s", "stop")).shown, keys.moved(Key::space("pause")).shown),
            ("!", "F12")
        );
        assert_eq!(keys.moved(Key::silent(KeyCode::Char('s'))).shown, "", "what goes without saying still does");
    }

    #[test]
    fn two_meanings_never_lie_on_one_key() {
        assert_eq!(map(&[("s", "!"), ("e", "!")]), Err(1));
        assert_eq!(map(&[("enter", "!"), ("Enter", ".")]), Err(1), "one key by two names");
        assert_eq!(map(&[("s", "e")]), Err(0), "it means something else");
        assert!(map(&[("s", "e"), ("e", "s")]).is_ok(), "they change places");
        assert!(!named("+").can_be_moved() && !named("!").can_be_moved() && named("enter").can_be_moved());
        assert_eq!((Named::of("ss"), Named::of(""), Named::of("ß"), Named::of("7")), (None, None, None, None));
    }

    proptest! {
        #[test]
        fn every_meaning_has_one_key(moves in proptest::collection::vec(("[a-zC?:/]", "[a-zA-Z!.,]"), 0..6)) {
            let moves: Vec<(Named, Named)> = moves.iter().map(|(from, to)| (named(from), named(to))).collect();
            let Ok(keys) = Keymap::of(moves) else { return Ok(()) };
            for sign in MEANT.chars() {
                let on: Vec<char> = SIGNS.chars().chain([' ']).filter(|key| keys.meant(KeyCode::Char(*key)) == Some(KeyCode::Char(sign))).collect();
                prop_assert!(on.len() <= 1, "{sign} on {on:?}");
            }
        }
    }
}
