//! Which key gives which answer to a question.

use periculum_core::engine::Answer;

use super::keys::Key;
use super::telling::labels;

/// The key that gives an answer.
pub(super) fn key_of(answer: Answer) -> Key {
    match answer {
        Answer::Done => Key::letter('d', "d", labels::ANSWER_DONE),
        Answer::NoStart => Key::letter('x', "x", labels::ANSWER_NO_START),
        Answer::Defaults => Key::letter('b', "b", labels::ANSWER_DEFAULTS),
        Answer::Take => Key::letter('t', "t", labels::ANSWER_TAKE),
        Answer::Try => Key::enter(labels::ANSWER_TRY),
        Answer::Back => Key::backspace(labels::ANSWER_BACK),
        Answer::Mark => Key::letter('m', "m", labels::ANSWER_MARK),
        Answer::Save => Key::letter('p', "p", labels::ANSWER_SAVE),
        Answer::End => Key::letter('x', "x", labels::ANSWER_END),
    }
}
