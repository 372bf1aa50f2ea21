//! The view as pictures of characters, in the states that matter.

use std::path::{Path, PathBuf};
use std::sync::Arc;

use periculum_core::engine::{Climb, Said};
use periculum_core::moment::{Moment, Span};
use periculum_core::pass::{CoreProgress, Progress, Score, Workload};
use periculum_core::story::Story;
use periculum_core::verdict::Verdict;
use periculum_ledger::ClimbRow;
use ratatui::Terminal;
use ratatui::backend::TestBackend;
use ratatui::crossterm::event::{Event, KeyCode, KeyEvent, KeyModifiers};
use ratatui::style::Color;

use super::draw;
use crate::ask::Operator;
use crate::briefing::{Briefing, SourceFile};
use crate::cli::Pace;
use crate::climbing::{Prepared, open_ledger};
use crate::tui::app::{App, Heading};
use crate::tui::library::Library;
use crate::tui::theme::{Depth, Theme};

/// The interface after a climb of this demo plan was driven up to here.
fn app_at(plan: &str, until: impl Fn(&Climb) -> bool) -> App {
    let folder = tempfile::tempdir().expect("a folder");
    let plan = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo").join(plan);
    let briefing = Briefing::read(&plan).expect("a plan");
    let mut app = app(&briefing);
    let ledger = open_ledger(&folder.path().join("test.ledger")).expect("a ledger");
    let prepared = Prepared::new(briefing, ledger, Path::new("/"), Some(11)).expect("a climb");
    let (_words, operator) = Operator::new();
    let (mut driver, first, _claim) = prepared.driver(operator, Some(Pace::Max), |notice| app.hear(notice));
    driver.drive(first, until).expect("driven");
    drop(driver);
    app
}

fn app(briefing: &Briefing) -> App {
    let heading = Heading { number: 1, seed: briefing.simulated.as_ref().map(|_| 11) };
    let (rig, plan) = (Arc::clone(&briefing.rig), Arc::clone(&briefing.plan));
    App::new(heading, rig, plan, Story::default(), Theme::new(Depth::True))
}

fn picture(app: &App, columns: u16, rows: u16) -> String {
    let mut terminal = Terminal::new(TestBackend::new(columns, rows)).expect("a terminal");
    terminal.draw(|frame| draw(frame, app)).expect("drawn");
    terminal.backend().to_string()
}

fn press(app: &mut App, code: KeyCode) -> Vec<Said> {
    app.press(&Event::Key(KeyEvent::new(code, KeyModifiers::NONE)))
}

#[test]
fn in_the_middle_of_a_climb() {
    let app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    insta::assert_snapshot!("climbing-wide", picture(&app, 160, 40));
    insta::assert_snapshot!("climbing-narrow", picture(&app, 80, 24));
}

#[test]
fn the_cores_of_a_pass() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    press(&mut app, KeyCode::Char('c'));
    let core = |core, rate, errors| CoreProgress {
        core,
        rounds: 40,
        errors,
        rate,
        noise: 0.001,
        clock: Some(4700.0),
        checked: Some(Span::from_seconds(57)),
    };
    let cores = vec![core(0, 61.0, 0), core(1, 55.5, 0), core(2, 60.8, 2), core(3, 61.1, 0)];
    let workload = Workload {
        kernel: "avx2".into(),
        size: 2000,
        size_name: "unknowns".into(),
        bytes: 131 << 20,
        round: Some(Span::from_millis(180)),
    };
    app.story.progress = Some(Progress {
        done: Span::from_seconds(60),
        warms_up: true,
        rate: Some(Score::of(238.4, "GFLOP/s")),
        workload: Some(workload),
        cores,
        ..Progress::default()
    });
    insta::assert_snapshot!("cores-wide", picture(&app, 160, 40));
    insta::assert_snapshot!("cores-narrow", picture(&app, 80, 24));
    press(&mut app, KeyCode::Char('c'));
    assert!(!app.shows_cores);
}

#[test]
fn at_the_end_of_a_climb() {
    let app = app_at("dome.plan.toml", Climb::is_ended);
    insta::assert_snapshot!("ended-wide", picture(&app, 160, 40));
    insta::assert_snapshot!("ended-narrow", picture(&app, 80, 24));
}

#[test]
fn before_anything_happened() {
    let rig = include_str!("../../../../../demo/dome.rig.toml");
    let plan = include_str!("../../../../../demo/dome.plan.toml");
    let file = |text: &str| SourceFile { path: PathBuf::from("file"), text: text.to_owned() };
    let app = app(&Briefing::of(file(rig), file(plan)).expect("a plan"));
    insta::assert_snapshot!("empty-narrow", picture(&app, 80, 24));
}

#[test]
fn a_change_by_hand_is_asked_for_and_answered() {
    let mut app = app_at("by-hand.plan.toml", |climb| climb.question().is_some());
    insta::assert_snapshot!("by-hand-narrow", picture(&app, 80, 24));
    assert_eq!(press(&mut app, KeyCode::Char('x')), [Said::NoStart]);
    assert_eq!(press(&mut app, KeyCode::Char('d')), [Said::Done]);
}

#[test]
fn a_question_is_heard_of_while_another_climb_is_shown() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("test.ledger");
    let dome = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/dome.plan.toml");
    let briefing = Briefing::read(&dome).expect("a plan");
    let ledger = open_ledger(&path).expect("a ledger");
    let prepared = Prepared::new(briefing, ledger, Path::new("/"), Some(3)).expect("a climb");
    let (_words, operator) = Operator::new();
    let (mut driver, first, _claim) = prepared.driver(operator, Some(Pace::Max), |_| ());
    driver.drive(first, Climb::is_ended).expect("driven");
    let mut app = app_at("by-hand.plan.toml", |climb| climb.question().is_some());
    app.library = Library::at(path);
    app.heading.number = 2;
    press(&mut app, KeyCode::Char('6'));
    press(&mut app, KeyCode::Enter);
    let other = picture(&app, 160, 40);
    assert!(other.contains("the climb that runs asks you") && other.contains("every stage is done"), "{other}");
    assert_eq!(press(&mut app, KeyCode::Char('d')), [], "it is not answered from here");
    press(&mut app, KeyCode::Char('q'));
    assert_eq!(press(&mut app, KeyCode::Char('d')), [Said::Done]);
}

#[test]
fn help_fits_the_smallest_screen() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 3);
    press(&mut app, KeyCode::Char('?'));
    insta::assert_snapshot!("help-narrow", picture(&app, 80, 24));
    press(&mut app, KeyCode::Esc);
    assert!(!picture(&app, 80, 24).contains("what this view shows"));
}

#[test]
fn the_map_shows_where_trials_lie_and_what_is_known_of_the_border() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 19);
    press(&mut app, KeyCode::Char('2'));
    insta::assert_snapshot!("map-wide", picture(&app, 160, 40));
    insta::assert_snapshot!("map-narrow", picture(&app, 80, 24));
    press(&mut app, KeyCode::Up);
    assert!(picture(&app, 160, 40).contains("trial 19 "), "the one before the newest");
}

#[test]
fn trials_are_listed_found_and_opened() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    press(&mut app, KeyCode::Char('3'));
    for code in [KeyCode::Up, KeyCode::PageUp, KeyCode::Down] {
        press(&mut app, code);
    }
    insta::assert_snapshot!("trials-wide", picture(&app, 160, 40));
    insta::assert_snapshot!("trials-narrow", picture(&app, 80, 24));
    press(&mut app, KeyCode::Char('/'));
    "fell 4".chars().for_each(|letter| drop(press(&mut app, KeyCode::Char(letter))));
    assert!(app.found().iter().all(|trial| trial.verdict == Some(Verdict::Fell)) && !app.found().is_empty());
    press(&mut app, KeyCode::Enter);
    insta::assert_snapshot!("trials-found", picture(&app, 80, 24));
    press(&mut app, KeyCode::Esc);
    assert_eq!(app.found().len(), app.story.trials.len(), "all are there again");
    press(&mut app, KeyCode::Char('/'));
    "nothing like it".chars().for_each(|letter| drop(press(&mut app, KeyCode::Char(letter))));
    assert!(picture(&app, 80, 24).contains("No trial has all of these words"));
    assert_eq!(app.selected_trial(), None);
}

#[test]
fn the_rig_is_shown_with_its_limits() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    press(&mut app, KeyCode::Char('4'));
    insta::assert_snapshot!("rig-wide", picture(&app, 160, 40));
    insta::assert_snapshot!("rig-narrow", picture(&app, 80, 24));
    press(&mut app, KeyCode::Char('1'));
    assert!(picture(&app, 160, 40).contains("logbook"));
}

#[test]
fn traces_show_the_climb_and_one_trial() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    press(&mut app, KeyCode::Char('5'));
    insta::assert_snapshot!("traces-wide", picture(&app, 160, 40));
    let whole = app.stretch().expect("readings");
    press(&mut app, KeyCode::PageUp);
    press(&mut app, KeyCode::Char('z'));
    let trial = app.stretch().expect("readings");
    assert!(trial.0 > whole.0 && trial.1 < whole.1);
    insta::assert_snapshot!("traces-narrow", picture(&app, 80, 24));
}

#[test]
fn climbs_of_the_ledger_are_listed() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 3);
    press(&mut app, KeyCode::Char('6'));
    assert!(picture(&app, 80, 24).contains("There is no climb in this ledger yet"));
    let row = |climb, end: Option<&str>| ClimbRow {
        climb,
        plan: "first light".into(),
        rig: "dome".into(),
        specimen: "processor A-0417".into(),
        use_name: "daily".into(),
        seed: Some(11),
        wall: Moment::from_millis(1_781_989_200_000),
        end: end.map(str::to_owned),
        trials: 24,
        falls: 2,
        tested: Span::from_seconds(2414),
    };
    app.climbs = vec![row(3, None), row(2, Some("every stage is done")), row(1, Some("stopped"))];
    press(&mut app, KeyCode::Down);
    let picture = picture(&app, 160, 40);
    assert!(picture.contains("climbs   2 of 3") && picture.contains("›    2  ✓  2026-06-20"), "{picture}");
    assert!(picture.contains("not finished") && picture.contains("stopped"), "{picture}");
    press(&mut app, KeyCode::Enter);
    assert!(app.trouble.as_ref().is_some_and(|why| why.starts_with("climb 2 can't be opened")), "there is no ledger");
}

#[test]
fn no_size_breaks_the_view() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    for mode in
        [None, Some('?'), Some('n'), Some('q'), Some('2'), Some('3'), Some('/'), Some('4'), Some('5'), Some('6')]
    {
        if let Some(key) = mode {
            press(&mut app, KeyCode::Esc);
            press(&mut app, KeyCode::Char(key));
        }
        for (columns, rows) in [(1, 1), (5, 3), (20, 8), (80, 24), (119, 29), (120, 30), (400, 120)] {
            picture(&app, columns, rows);
        }
    }
}

#[test]
fn without_colours_nothing_is_coloured() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    app.theme = Theme::new(Depth::None);
    let mut terminal = Terminal::new(TestBackend::new(160, 40)).expect("a terminal");
    terminal.draw(|frame| draw(frame, &app)).expect("drawn");
    let is_plain = |colour| colour == Color::Reset;
    assert!(terminal.backend().buffer().content().iter().all(|cell| is_plain(cell.fg) && is_plain(cell.bg)));
}

#[test]
fn keys_do_what_the_key_line_offers() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 3);
    assert_eq!(press(&mut app, KeyCode::Char(' ')), [Said::Pause]);
    assert_eq!(press(&mut app, KeyCode::Char(' ')), [Said::Resume]);
    assert_eq!(press(&mut app, KeyCode::Char('d')), []);
    press(&mut app, KeyCode::Char('n'));
    for letter in "q? ok".chars() {
        assert_eq!(press(&mut app, KeyCode::Char(letter)), []);
    }
    press(&mut app, KeyCode::Backspace);
    assert_eq!(press(&mut app, KeyCode::Enter), [Said::Note { text: "q? o".into() }]);
    press(&mut app, KeyCode::Char('n'));
    assert_eq!(press(&mut app, KeyCode::Enter), [], "an empty note is none");
    press(&mut app, KeyCode::Char('s'));
    assert_eq!(press(&mut app, KeyCode::Esc), []);
    press(&mut app, KeyCode::Char('s'));
    assert_eq!(press(&mut app, KeyCode::Char('y')), [Said::Stop]);
    press(&mut app, KeyCode::Char('q'));
    assert_eq!(press(&mut app, KeyCode::Char('l')), [Said::Leave]);
}
