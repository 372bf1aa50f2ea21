//! Which key gives which answer to a question.

use periculum_core::engine::{Answer, Question};

use super::keys::Key;
use super::telling::labels;

/// The key that gives an answer.
pub(super) fn key_of(answer: Answer) -> Key {
    match answer {
        Answer::Done => Key::letter('d', "d", labels::ANSWER_DONE),
        Answer::NoStart => Key::letter('x', "x", labels::ANSWER_NO_START),
        Answer::Defaults => Key::letter('b', "b", labels::ANSWER_DEFAULTS),
        Answer::Hung => Key::letter('h', "h", labels::ANSWER_HUNG),
        Answer::WrongPicture => Key::letter('w', "w", labels::ANSWER_WRONG_PICTURE),
        Answer::NotToday => Key::letter('l', "l", labels::ANSWER_NOT_TODAY),
        Answer::Take => Key::letter('t', "t", labels::ANSWER_TAKE),
        Answer::Try => Key::enter(labels::ANSWER_TRY),
        Answer::Back => Key::backspace(labels::ANSWER_BACK),
        Answer::Mark => Key::letter('m', "m", labels::ANSWER_MARK),
        Answer::Save => Key::letter('p', "p", labels::ANSWER_SAVE),
        Answer::End => Key::letter('x', "x", labels::ANSWER_END),
    }
}

/// The key that writes something down for a question, where one stands.
pub(super) fn key_of_writing(question: Option<&Question>) -> Key {
    match question.is_none_or(|question| question.errand().is_some()) {
        true => Key::letter('v', "v", labels::WHAT_IT_SHOWS),
        false => Key::enter(labels::WHAT_IT_SAYS),
    }
}
