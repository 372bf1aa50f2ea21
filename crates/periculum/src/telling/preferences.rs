//! What is wrong with how somebody wants the interface.

use super::sentences;

pub(crate) const OCCASION: &str = "occasion to call somebody";
pub(crate) const KEYS_TO_MOVE: &str = "before the `=` stands a key as the last line of a view and `?` write it: a letter, `?`, `:`, `/`, space, \
    enter, tab or backspace";
pub(crate) const KEYS_TO_PRESS: &str =
    "write a letter or a sign, or space, enter, tab, backspace, insert, delete, F11 or F12";
pub(crate) const MOVE_THAT_TOO: &str = "take a key that means nothing so far, or move what lies there as well";

sentences! {
    is_taken(key) = "`{key}` means something else";
    no_key(key) = "no key is called `{key}`";
    no_key_to_move(key) = "`{key}` is no key that can lie elsewhere";
}
