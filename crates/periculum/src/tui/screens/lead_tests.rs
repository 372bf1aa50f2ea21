//! The form of who leads, as pictures of characters, and what its keys say.

use std::collections::BTreeMap;

use periculum_core::engine::{Answer, Climb, Entry, Said};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::reason::Reason;
use periculum_core::model::verdict::Verdict;
use ratatui::crossterm::event::KeyCode;

use super::View;
use super::tests::{app_at, body, picture, press};
use crate::notice::Notice;
use crate::tui::app::App;

/// The first turn of the plan that is led.
fn first_turn() -> App {
    app_at("lead.plan.toml", |climb: &Climb| climb.question().is_some())
}

/// A trial of what is in force with another clock, told as a driver would, while the turn stands.
fn told(app: &mut App, trial: u32, clock: u32, verdict: Verdict) {
    let at = Moment::from_millis(i64::from(trial) * 60_000);
    let rung = app.desk.shown.rig.stock().with("core_clock", clock.into());
    let (proof, reason, tested) = ("quick".to_owned(), Reason::Chosen, Span::from_seconds(30));
    app.hear(Notice::Told { at, entry: Entry::TrialBegan { trial, stage: 0, rung, proof, reason } });
    app.hear(Notice::Told { at, entry: Entry::TrialEnded { trial, verdict, incident: None, tested, gain: None } });
}

fn typed(app: &mut App, keys: &str) -> Vec<Said> {
    keys.chars().flat_map(|key| press(app, KeyCode::Char(key))).collect()
}

#[test]
fn the_next_rung_stands_under_the_cursor_with_what_is_known_of_it() {
    let mut app = first_turn();
    for (trial, clock, verdict) in [(1, 4200, Verdict::Held), (2, 4600, Verdict::Held), (3, 4900, Verdict::Fell)] {
        told(&mut app, trial, clock, verdict);
    }
    typed(&mut app, "4700");
    press(&mut app, KeyCode::Enter);
    insta::assert_snapshot!("lead-wide", body(&app, 160, 40));
    insta::assert_snapshot!("lead-narrow", body(&app, 80, 24));
    for size in [(160, 40), (80, 24)] {
        let seen = picture(&app, size.0, size.1);
        let wanted = [
            "4 200 MHz",
            "4 700 MHz",
            "core clock to 4 600 MHz, then core clock to 4 700 MHz",
            "survives quick",
            "between trial 2, which held",
        ];
        wanted.iter().for_each(|what| assert!(seen.contains(what), "{what} at {size:?}\n{seen}"));
    }
    typed(&mut app, "4950");
    press(&mut app, KeyCode::Enter);
    assert!(picture(&app, 160, 40).contains("harder than trial 3, which fell"));
    typed(&mut app, "4300");
    press(&mut app, KeyCode::Enter);
    assert!(picture(&app, 160, 40).contains("easier than trial 2, which held"));
}

#[test]
fn what_is_changed_is_said_and_nothing_else() {
    let mut app = first_turn();
    assert_eq!(press(&mut app, KeyCode::Enter), [Said::Try { written: BTreeMap::new() }], "the same again");
    press(&mut app, KeyCode::Right);
    press(&mut app, KeyCode::Down);
    press(&mut app, KeyCode::Char('<'));
    press(&mut app, KeyCode::Down);
    press(&mut app, KeyCode::Left);
    let pairs = [("core_clock", "4225"), ("core_voltage", "1.200"), ("proof", "firm")];
    let written = pairs.map(|(name, value)| (name.to_owned(), value.to_owned())).into();
    assert_eq!(press(&mut app, KeyCode::Enter), [Said::Try { written }]);
    // What goes back to what it was is no change.
    press(&mut app, KeyCode::Right);
    press(&mut app, KeyCode::Home);
    press(&mut app, KeyCode::Left);
    press(&mut app, KeyCode::Down);
    press(&mut app, KeyCode::Char('>'));
    assert_eq!(press(&mut app, KeyCode::Enter), [Said::Try { written: BTreeMap::new() }]);
    assert_eq!(press(&mut app, KeyCode::Char('t')), [Said::Take]);
    assert_eq!(press(&mut app, KeyCode::Backspace), [], "nothing has held so far");
    assert_eq!(press(&mut app, KeyCode::Char('x')), [Answer::End.into()]);
}

#[test]
fn what_can_not_be_tried_is_not_said_and_what_is_no_number_stays_open() {
    let mut app = first_turn();
    typed(&mut app, "9000");
    press(&mut app, KeyCode::Enter);
    assert_eq!(press(&mut app, KeyCode::Enter), []);
    assert!(picture(&app, 160, 40).contains("core clock 9 000 MHz is above its ceiling of 5 100 MHz"));
    typed(&mut app, "4710");
    press(&mut app, KeyCode::Enter);
    assert!(picture(&app, 160, 40).contains("core clock has no 4 710 MHz; the nearest is 4 700 MHz or 4 725 MHz"));
    typed(&mut app, "4.7.0");
    press(&mut app, KeyCode::Enter);
    let seen = picture(&app, 160, 40);
    assert!(seen.contains("is no number") && seen.contains("4.7.0"), "{seen}");
}

#[test]
fn digits_are_values_while_it_is_ones_turn_and_views_are_a_function_key_away() {
    let mut app = first_turn();
    press(&mut app, KeyCode::Char('3'));
    press(&mut app, KeyCode::Esc);
    assert_eq!(app.screens.at, View::Climb);
    press(&mut app, KeyCode::F(3));
    assert_eq!(app.screens.at, View::Trials);
    press(&mut app, KeyCode::Char('1'));
    assert_eq!(app.screens.at, View::Climb);
    press(&mut app, KeyCode::Char(':'));
    typed(&mut app, "suggest");
    assert_eq!(press(&mut app, KeyCode::Enter), [Said::Take], "anything is found by what it does");
}
