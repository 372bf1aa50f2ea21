//! A walk through every view, as somebody takes it who presses everything.

use std::collections::BTreeSet;
use std::fs;
use std::path::Path;

use periculum_core::engine::Climb;
use ratatui::Terminal;
use ratatui::backend::TestBackend;
use ratatui::buffer::Buffer;
use ratatui::crossterm::event::KeyCode;

use super::View;
use super::tests::{app_at, picture, press};
use crate::tui::app::App;
use crate::tui::keymap;
use crate::tui::travel::travel_of;

/// The sizes that a screen is looked at in.
const SIZES: [(u16, u16); 4] = [(80, 24), (120, 30), (160, 40), (240, 60)];

/// A climb under way, one that asks somebody for something, and one that is over.
fn scenes() -> [(&'static str, App); 3] {
    [
        ("under way", app_at("dome.plan.toml", |climb| climb.trials() > 17)),
        ("asking", app_at("by-hand.plan.toml", |climb| climb.question().is_some())),
        ("over", app_at("quiet.plan.toml", Climb::is_ended)),
    ]
}

/// Shows a view by its function key.
fn go(app: &mut App, view: View) {
    let at = View::ALL.iter().position(|other| *other == view).expect("a view");
    press(app, KeyCode::F(at as u8 + 1));
    assert_eq!(app.screens.at, view);
}

/// All that somebody could notice of a key.
fn noticed(app: &App) -> (Buffer, bool, bool, bool) {
    let mut terminal = Terminal::new(TestBackend::new(160, 40)).expect("a terminal");
    let drawn = terminal.draw(|frame| app.draw(frame)).expect("drawn");
    (drawn.buffer.clone(), app.is_done, app.wanted.is_some(), app.copied.is_some())
}

/// Whether pressing this is noticed; what it opened is closed again.
fn does_something(app: &mut App, code: KeyCode) -> bool {
    let before = noticed(app);
    let said = press(app, code);
    let is_noticed = !said.is_empty() || noticed(app) != before;
    (app.is_done, app.copied, app.desk.told) = (false, None, None);
    press(app, KeyCode::Esc);
    is_noticed
}

/// What is pressed for a key of which two are shown together.
fn both(code: KeyCode) -> Vec<KeyCode> {
    match code {
        KeyCode::Left => vec![code, KeyCode::Right],
        KeyCode::Up => vec![code, KeyCode::Down],
        KeyCode::Char('+') => vec![code, KeyCode::Char('-')],
        code => vec![code],
    }
}

#[test]
fn no_key_is_offered_that_does_nothing_and_none_does_anything_that_is_not() {
    for (scene, mut app) in scenes() {
        for view in View::ALL {
            go(&mut app, view);
            picture(&app, 160, 40);
            let shown: Vec<_> = app.keys_of_screen().into_iter().filter(|key| !key.shown.is_empty()).collect();
            for key in shown {
                go(&mut app, view);
                // What another key has done may stand against this one now.
                if !app.keys_of_screen().iter().any(|now| now.code == key.code) {
                    continue;
                }
                let is_noticed = both(key.code).into_iter().any(|code| does_something(&mut app, code));
                assert!(is_noticed, "{scene}, {view:?}: `{}` {} does nothing", key.shown, key.does);
                assert!(keymap::knows(key.code), "{view:?}: `{}` can't be moved by anybody", key.shown);
            }
            go(&mut app, view);
            let before = noticed(&app);
            let signs = keymap::SIGNS.chars().map(KeyCode::Char);
            let others = signs.chain([KeyCode::Insert, KeyCode::Delete, KeyCode::F(11), KeyCode::F(12)]);
            let is_told =
                |code: &KeyCode| travel_of(*code).is_some() || app.actions().iter().any(|key| key.code == *code);
            let untold: Vec<KeyCode> = others.filter(|code| !is_told(code)).collect();
            let said: Vec<_> = untold.iter().flat_map(|code| press(&mut app, *code)).collect();
            assert!(said.is_empty() && noticed(&app) == before, "{scene}, {view:?}: one of {untold:?} does something");
        }
    }
}

/// The words of a text that are so long that half of one is none.
fn words(text: &str) -> impl Iterator<Item = &str> {
    text.split(|sign: char| !sign.is_alphabetic()).filter(|word| word.chars().count() > 3)
}

/// Every word that stands in our code or in the files of the demo.
fn known() -> BTreeSet<String> {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../..");
    let mut folders = vec![root.join("crates"), root.join("demo")];
    let mut known = BTreeSet::new();
    while let Some(folder) = folders.pop() {
        for entry in fs::read_dir(folder).expect("a folder").flatten() {
            let path = entry.path();
            if path.is_dir() {
                folders.push(path);
            } else if path.extension().is_some_and(|kind| kind == "rs" || kind == "toml") {
                let text = fs::read_to_string(path).expect("a text");
                known.extend(words(&text).map(str::to_owned));
            }
        }
    }
    known
}

#[test]
fn no_word_is_cut_without_a_sign_of_it() {
    let known = known();
    for (scene, mut app) in scenes() {
        for view in View::ALL {
            go(&mut app, view);
            for over in ["", "?", ":"] {
                over.chars().for_each(|sign| _ = press(&mut app, KeyCode::Char(sign)));
                for (columns, rows) in SIZES {
                    let drawn = picture(&app, columns, rows);
                    // What lies over a screen hides half of its words.
                    let lines = drawn.lines().filter_map(|line| match over {
                        "" => Some(line),
                        _ => line.split('│').nth(1),
                    });
                    for line in lines {
                        // A word before the sign is half of one, and what lies over a screen hides the end of another.
                        let parts = line.split_inclusive(['…', '│']);
                        let whole = parts.map(|part| match part.strip_suffix(['…', '│']) {
                            Some(cut) => cut.trim_end_matches(char::is_alphabetic),
                            None => part,
                        });
                        let whole = whole.collect::<Vec<_>>().join(" ");
                        let cut = words(&whole).find(|word| !known.contains(*word));
                        assert_eq!(cut, None, "{scene}, {view:?} `{over}` at {columns}×{rows}: {line}");
                    }
                }
                press(&mut app, KeyCode::Esc);
            }
        }
    }
}
