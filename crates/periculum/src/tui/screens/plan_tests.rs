//! The plan as it is written: what is foreseen, what is refused and where, and that nothing is lost.

use std::path::{Path, PathBuf};

use periculum_core::engine::Said;
use ratatui::crossterm::event::KeyCode;

use super::View;
use super::tests::{app_at, picture, press};
use crate::climbing::Wanted;
use crate::tui::app::App;
use crate::tui::climbed::Climbed;
use crate::tui::draft::Draft;
use crate::tui::library::Library;
use crate::tui::preferences::Preferences;
use crate::tui::theme::{Depth, Scheme, Theme};

/// The interface over a copy of the demo's plan, in a folder that is gone with the second.
fn planning() -> (App, tempfile::TempDir) {
    let folder = tempfile::tempdir().expect("a folder");
    for name in ["dome.plan.toml", "dome.rig.toml"] {
        let demo = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo").join(name);
        std::fs::copy(demo, folder.path().join(name)).expect("copied");
    }
    let draft = Draft::of_file(&folder.path().join("dome.plan.toml"), None, &|_| Vec::new()).expect("a plan");
    let shown = Climbed::not_begun(&draft.briefing().expect("a rig"));
    let mut app = App::new(shown, Library::at(PathBuf::from("/nowhere/test.ledger")), &Preferences::default());
    app.desk.theme = Theme::new(Scheme::Dark, Depth::True);
    (app.desk.draft, app.screens.at, app.desk.is_driver_gone) = (Some(draft), View::Plan, true);
    (app, folder)
}

fn file(folder: &tempfile::TempDir) -> String {
    std::fs::read_to_string(folder.path().join("dome.plan.toml")).expect("read")
}

fn type_over(app: &mut App, text: &str) {
    press(app, KeyCode::Enter);
    for _ in 0..40 {
        press(app, KeyCode::Backspace);
    }
    text.chars().for_each(|letter| drop(press(app, KeyCode::Char(letter))));
    press(app, KeyCode::Enter);
}

/// The picture without the folder, which has another name each time.
fn steady(app: &App, folder: &tempfile::TempDir, columns: u16, rows: u16) -> String {
    let shown = picture(app, columns, rows).replace(&format!("{}/", folder.path().display()), "");
    shown.lines().map(|line| line.trim_matches('"').trim_end()).collect::<Vec<_>>().join("\n")
}

#[test]
fn what_it_would_do_is_told_before_it_begins() {
    let (app, folder) = planning();
    insta::assert_snapshot!("plan-wide", steady(&app, &folder, 160, 40));
    insta::assert_snapshot!("plan-narrow", steady(&app, &folder, 80, 24));
}

#[test]
fn what_can_not_be_is_refused_in_its_place() {
    let (mut app, folder) = planning();
    (0..3).for_each(|_| drop(press(&mut app, KeyCode::Down)));
    type_over(&mut app, "dayly");
    press(&mut app, KeyCode::End);
    press(&mut app, KeyCode::Up);
    type_over(&mut app, "0.007");
    insta::assert_snapshot!("plan-wrong", steady(&app, &folder, 120, 40));
    // It is not written like this, and nothing of it is lost.
    press(&mut app, KeyCode::Char('e'));
    press(&mut app, KeyCode::Enter);
    assert!(picture(&app, 120, 40).contains("it is not written while 3 of its lines can't be"), "told");
    assert!(file(&folder).contains("\"daily\"") && file(&folder).contains("0.005"));
    assert!(picture(&app, 120, 40).contains("dome.plan.toml"), "the name that was typed stands there to be mended");
    press(&mut app, KeyCode::Esc);
    press(&mut app, KeyCode::Char('u'));
    press(&mut app, KeyCode::Char('u'));
    assert!(picture(&app, 120, 40).contains("20 trials (10 to 34)"), "both changes are taken back");
}

#[test]
fn a_plan_is_changed_written_and_climbed() {
    let (mut app, folder) = planning();
    let before = file(&folder);
    press(&mut app, KeyCode::End);
    press(&mut app, KeyCode::Up);
    type_over(&mut app, "0.010");
    assert!(!picture(&app, 160, 40).contains("climb it"), "what is in no file is not climbed");
    press(&mut app, KeyCode::Char('q'));
    assert!(picture(&app, 160, 40).contains("give it up?"), "nor lost by leaving");
    press(&mut app, KeyCode::Esc);
    assert!(!app.is_done);
    press(&mut app, KeyCode::Char('e'));
    press(&mut app, KeyCode::Enter);
    assert_eq!(file(&folder), before.replace("step = 0.005", "step = 0.010"), "all else stays, comments too");
    // What somebody else writes meanwhile is not written over.
    press(&mut app, KeyCode::Home);
    press(&mut app, KeyCode::Down);
    type_over(&mut app, "mine");
    std::fs::write(folder.path().join("dome.plan.toml"), "theirs").expect("written");
    press(&mut app, KeyCode::Char('e'));
    press(&mut app, KeyCode::Enter);
    assert!(picture(&app, 160, 40).contains("was changed meanwhile") && file(&folder) == "theirs");
    press(&mut app, KeyCode::Esc);
    press(&mut app, KeyCode::Char('u'));
    press(&mut app, KeyCode::Char('g'));
    assert!(app.wanted.is_none() && picture(&app, 160, 40).contains("climb this plan?"));
    press(&mut app, KeyCode::Char('y'));
    assert_eq!(app.wanted, Some(Wanted::Plan(folder.path().join("dome.plan.toml"))));
    assert!(app.is_done);
}

#[test]
fn a_plan_whose_rig_is_gone_can_still_be_left() {
    let (mut app, folder) = planning();
    press(&mut app, KeyCode::Down);
    type_over(&mut app, "another");
    std::fs::remove_file(folder.path().join("dome.rig.toml")).expect("removed");
    press(&mut app, KeyCode::Char('u'));
    assert!(picture(&app, 160, 40).contains("can't read"), "without the rig nothing is known of it");
    press(&mut app, KeyCode::Char('q'));
    press(&mut app, KeyCode::Char('y'));
    assert!(app.is_done);
}

#[test]
fn a_climb_is_climbed_again_once_nothing_else_goes_on() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 3);
    press(&mut app, KeyCode::Char('9'));
    press(&mut app, KeyCode::Char('g'));
    assert!(app.wanted.is_none() && !picture(&app, 160, 40).contains("g climb it"));
    app.driver_is_gone();
    app.is_done = false;
    press(&mut app, KeyCode::Char('g'));
    assert!(picture(&app, 80, 24).contains("Climb 1 is climbed again as a new climb"));
    press(&mut app, KeyCode::Esc);
    assert!(app.wanted.is_none() && !app.is_done, "a wrong key begins nothing");
    press(&mut app, KeyCode::Char('g'));
    press(&mut app, KeyCode::Char('y'));
    assert_eq!((&app.wanted, app.is_done), (&Some(Wanted::Again(1)), true));
}

/// A plan that was written of a climb never comes onto another rig unsaid.
#[test]
fn a_rig_of_that_name_that_is_another_is_told_and_kept() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 3);
    app.driver_is_gone();
    app.is_done = false;
    let folder = tempfile::tempdir().expect("a folder");
    std::fs::write(folder.path().join("dome.rig.toml"), "another").expect("written");
    press(&mut app, KeyCode::Char('9'));
    press(&mut app, KeyCode::Down);
    type_over(&mut app, "second light");
    let told = app.desk.draft.as_mut().expect("a plan").save(&folder.path().join("p.toml")).expect("written");
    assert!(told.contains("is not the rig that this was climbed on"), "{told}");
    assert_eq!(std::fs::read_to_string(folder.path().join("dome.rig.toml")).expect("kept"), "another");
    press(&mut app, KeyCode::Char('g'));
    assert!(app.wanted.is_none(), "it is not offered");
}

#[test]
fn stages_are_copied_moved_and_removed() {
    let (mut app, _folder) = planning();
    press(&mut app, KeyCode::End);
    press(&mut app, KeyCode::PageUp);
    let stage = |app: &App| app.desk.draft.as_ref().map(|draft| draft.lines[draft.at()].path.clone()).expect("a plan");
    while format!("{:?}", stage(&app)) != r#"[Key("stage"), Nth(1)]"# {
        press(&mut app, KeyCode::Down);
    }
    press(&mut app, KeyCode::Char('c'));
    assert!(picture(&app, 160, 60).contains("stage 4   trim core voltage"));
    press(&mut app, KeyCode::Char('-'));
    assert!(picture(&app, 160, 60).contains("stage 1   ascend core clock"), "it went before the baseline");
    press(&mut app, KeyCode::Char('-'));
    assert!(picture(&app, 160, 60).contains("it is the first already"));
    press(&mut app, KeyCode::Backspace);
    assert!(picture(&app, 160, 60).contains("stage 1   baseline"));
    for written in ["[proof.night]", "passes = [{ load = \"dense\", for = \"8h\" }]", "[proof.night"] {
        press(&mut app, KeyCode::Char('a'));
        written.chars().for_each(|letter| drop(press(&mut app, KeyCode::Char(letter))));
        press(&mut app, KeyCode::Enter);
    }
    let screen = picture(&app, 160, 60);
    assert!(screen.contains("proof night") && screen.contains("this is not TOML"), "{screen}");
}

#[test]
fn the_plan_of_a_climb_becomes_another_file() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 3);
    press(&mut app, KeyCode::Char('9'));
    assert!(picture(&app, 160, 40).contains("as climb 1 was begun with"));
    press(&mut app, KeyCode::Down);
    type_over(&mut app, "second light");
    press(&mut app, KeyCode::Char('e'));
    assert!(picture(&app, 160, 40).contains("second-light.plan.toml"), "a name of its own is proposed");
    press(&mut app, KeyCode::Esc);
    // It is written, changed and written again.
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("p.toml");
    for name in ["second light", "third light"] {
        type_over(&mut app, name);
        press(&mut app, KeyCode::Char('e'));
        (0..90).for_each(|_| drop(press(&mut app, KeyCode::Backspace)));
        path.display().to_string().chars().for_each(|letter| drop(press(&mut app, KeyCode::Char(letter))));
        press(&mut app, KeyCode::Enter);
        assert!(std::fs::read_to_string(&path).expect("written").contains(name));
        assert!(picture(&app, 160, 40).contains("p.toml"), "it has a file now");
        // Its rig lies beside it, so that it can be climbed.
        assert_eq!(
            std::fs::read_to_string(folder.path().join("dome.rig.toml")).expect("written"),
            app.desk.shown.texts[0]
        );
    }
    assert!(!picture(&app, 160, 40).contains("g climb it"), "not while another climb goes on");
    app.driver_is_gone();
    press(&mut app, KeyCode::Char('g'));
    press(&mut app, KeyCode::Char('y'));
    assert_eq!(app.wanted, Some(Wanted::Plan(path)));
    (app.wanted, app.is_done, app.desk.is_driver_gone) = (None, false, false);
    type_over(&mut app, "fourth light");
    press(&mut app, KeyCode::Char('q'));
    press(&mut app, KeyCode::Char('y'));
    assert_eq!(press(&mut app, KeyCode::Char('l')), [Said::Leave], "then it is asked what becomes of the climb");
}
