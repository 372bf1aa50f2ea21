//! The keys that mean the same on every screen.

use periculum_core::engine::Answer;
use ratatui::crossterm::event::KeyCode;

use crate::tui::answers::key_of;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::screens::{DIGITS, View};
use crate::tui::telling::labels;
use crate::tui::travel::Travel;

/// How many trials a page has.
const PAGE: usize = 10;

/// What can be done on every screen.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum General {
    Answer(Answer),
    /// Writes down what the rig shows.
    WriteDown,
    PauseOrGoOn,
    Stop,
    Help,
    /// Finds an action by what it does.
    Find,
    Show(View),
    Leave,
    /// Back to the climb that the interface was opened for.
    CloseOther,
    Select(Travel),
}

/// Those that mean something now, in the order in which they are shown, given what the arrows do on the screen.
pub(super) fn keys(desk: &Desk, moves: Option<&'static str>, takes_digits: bool) -> Vec<(General, Key)> {
    // Who leads answers on the form, whose keys are those of its view.
    let leads = desk.turn().is_some();
    let answers = Answer::ALL.iter().filter(|answer| !leads && desk.takes(**answer));
    let mut keys: Vec<(General, Key)> =
        answers.map(|answer| (General::Answer(*answer), key_of(*answer).first())).collect();
    if !leads && !desk.fields().is_empty() {
        keys.push((General::WriteDown, Key::letter('v', "v", labels::WHAT_IT_SHOWS).first()));
    }
    if desk.is_climbing() {
        if desk.waits_for_go() {
            keys.push((General::PauseOrGoOn, Key::space(labels::GO_ON).first()));
        } else if desk.shown.story.question.is_none() {
            keys.push((General::PauseOrGoOn, Key::space(labels::PAUSE).first()));
        }
        keys.push((General::Stop, Key::letter('s', "s", labels::STOP)));
    }
    keys.push((General::Help, Key::letter('?', "?", labels::HELP_KEY).first()));
    keys.extend(views(takes_digits));
    keys.push((General::Find, Key::letter(':', ":", labels::FINDER_KEY)));
    keys.push(match desk.shows_another() {
        false => (General::Leave, Key::letter('q', "q", labels::LEAVE)),
        true => (General::CloseOther, Key::letter('q', "q", labels::BACK_TO_THIS_CLIMB)),
    });
    if let Some(does) = moves {
        let arrows = Key::new(KeyCode::Up, "↑↓", does);
        keys.push((General::Select(Travel::Back(1)), if leads { arrows.first() } else { arrows }));
        let silent = [
            (KeyCode::Down, Travel::On(1)),
            (KeyCode::PageUp, Travel::Back(PAGE)),
            (KeyCode::PageDown, Travel::On(PAGE)),
            (KeyCode::Home, Travel::First),
            (KeyCode::End, Travel::Last),
        ];
        keys.extend(silent.map(|(code, step)| (General::Select(step), Key::silent(code))));
    }
    keys
}

/// Each view by its digit and by its function key, of which the first speaks for all.
fn views(takes_digits: bool) -> impl Iterator<Item = (General, Key)> {
    let by_digit = View::ALL
        .into_iter()
        .zip(DIGITS.chars())
        .filter(move |_| !takes_digits)
        .map(|(view, digit)| (General::Show(view), Key::new(KeyCode::Char(digit), "", labels::name_of(view))));
    // Their names stand above the screen with their numbers.
    let by_function = View::ALL.into_iter().zip(1..).map(move |(view, number)| {
        let code = KeyCode::F(number);
        let key =
            if takes_digits && number == 1 { Key::new(code, "F1–F9", labels::VIEWS) } else { Key::silent(code) };
        (General::Show(view), key)
    });
    by_digit.chain(by_function)
}
