//! The keys that mean the same on every screen.

use periculum_core::engine::Answer;
use ratatui::crossterm::event::KeyCode;

use crate::tui::answers::{key_of, key_of_writing};
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
    /// Writes down what the rig shows or says.
    WriteDown,
    /// Writes down what is another of the rig.
    Change,
    /// Writes down what a sensor reads that somebody reads.
    Read,
    PauseOrGoOn,
    Stop,
    Help,
    /// Finds an action by what it does.
    Find,
    Show(View),
    Leave,
    /// Copies what is known of the selected trial.
    Copy,
    /// Back to the climb that the interface was opened for.
    CloseOther,
    Select(Travel),
}

/// All of them in the order in which they are shown, given what the arrows do on the screen; what can't be done now says
/// why.
pub(super) fn keys(
    desk: &Desk,
    moves: Option<&'static str>,
    takes_digits: bool,
    is_climb_view: bool,
) -> Vec<(General, Key)> {
    // Who leads answers on the form, whose keys are those of its view.
    let leads = desk.turn().is_some();
    let answers = Answer::ALL.iter().filter(|answer| !leads || !desk.takes(**answer));
    let key = |answer: Answer| key_of(answer).first().only(desk.takes(answer), labels::NOTHING_IS_ASKED);
    let mut keys: Vec<(General, Key)> = answers.map(|answer| (General::Answer(*answer), key(*answer))).collect();
    let write_down = key_of_writing(desk.question()).first();
    let has_fields = !leads && !desk.fields().is_empty();
    keys.push((General::WriteDown, write_down.only(has_fields, labels::NOTHING_IS_ASKED)));
    let (is_climbing, waits) = (desk.is_climbing(), desk.waits_for_go());
    let pause = Key::space(if waits { labels::GO_ON } else { labels::PAUSE }).first();
    let pause = pause.only(waits || desk.shown.story.question.is_none(), labels::QUESTION_STANDS);
    keys.push((General::PauseOrGoOn, pause.only(is_climbing, labels::NOTHING_IS_CLIMBED)));
    let stop = Key::letter('s', "s", labels::STOP);
    keys.push((General::Stop, stop.only(is_climbing, labels::NOTHING_IS_CLIMBED)));
    keys.push((General::Help, Key::letter('?', "?", labels::HELP_KEY).first()));
    keys.extend(views(takes_digits));
    keys.push(match desk.shows_another() {
        false => (General::Leave, Key::letter('q', "q", labels::LEAVE)),
        true => (General::CloseOther, Key::letter('q', "q", labels::BACK_TO_THIS_CLIMB)),
    });
    keys.push((General::Find, Key::letter(':', ":", labels::FINDER_KEY)));
    let has_trial = desk.selected_trial().is_some();
    // The climb has keys enough to show.
    let copy = if is_climb_view { Key::silent(KeyCode::Char('C')) } else { Key::letter('C', "C", labels::COPY_TRIAL) };
    keys.push((General::Copy, copy.only(has_trial, labels::NO_TRIAL_SO_FAR)));
    keys.extend(of_rig(desk, is_climb_view));
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

/// What people read and change of the rig: written down from every view, and shown where the climb is, since others have keys enough.
fn of_rig(desk: &Desk, is_climb_view: bool) -> [(General, Key); 2] {
    let key = |letter: char, shown: &'static str, does: &'static str| match is_climb_view {
        true => Key::letter(letter, shown, does),
        false => Key::silent(KeyCode::Char(letter)),
    };
    let is_climbing = |key: Key| key.only(desk.is_climbing(), labels::NOTHING_IS_CLIMBED);
    let is_read = desk.shown.rig.read_by_hand().next().is_some();
    [
        (General::Read, is_climbing(key('r', "r", labels::READING)).only(is_read, labels::NOBODY_READS)),
        (General::Change, is_climbing(key('u', "u", labels::RIG_CHANGED))),
    ]
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
