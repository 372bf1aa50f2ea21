//! The keys that mean the same on every screen.

use periculum_core::engine::Answer;
use ratatui::crossterm::event::KeyCode;

use crate::tui::answers::key_of;
use crate::tui::desk::Desk;
use crate::tui::keys::Key;
use crate::tui::screens::View;
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
    Show(View),
    Leave,
    /// Back to the climb that the interface was opened for.
    CloseOther,
    Select(Travel),
}

/// Those that mean something now, in the order in which they are shown, given what the arrows do on the screen.
pub(super) fn keys(desk: &Desk, moves: Option<&'static str>) -> Vec<(General, Key)> {
    let answers = Answer::ALL.iter().filter(|answer| desk.takes(**answer));
    let mut keys: Vec<(General, Key)> =
        answers.map(|answer| (General::Answer(*answer), key_of(*answer).first())).collect();
    if !desk.fields().is_empty() {
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
    keys.extend(View::ALL.into_iter().zip('1'..).map(|(view, digit)| {
        let key =
            if digit == '1' { Key::letter('1', "1–9", labels::VIEWS) } else { Key::silent(KeyCode::Char(digit)) };
        (General::Show(view), key)
    }));
    keys.push(match desk.shows_another() {
        false => (General::Leave, Key::letter('q', "q", labels::LEAVE)),
        true => (General::CloseOther, Key::letter('q', "q", labels::BACK_TO_THIS_CLIMB)),
    });
    if let Some(does) = moves {
        keys.push((General::Select(Travel::Back(1)), Key::new(KeyCode::Up, "↑↓", does)));
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
