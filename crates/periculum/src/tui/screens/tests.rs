//! The view as pictures of characters, in the states that matter.

use std::collections::BTreeMap;
use std::path::{Path, PathBuf};
use std::sync::Arc;

use periculum_core::Decimal;
use periculum_core::engine::{Answer, Climb, ClimbEnd, Entry as Told, Question, Said};
use periculum_core::model::incident_kind::IncidentKind;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{CoreProgress, Progress, Score, Workload};
use periculum_core::model::verdict::Verdict;
use periculum_core::story::Story;
use periculum_core::story::finding::Index;
use periculum_ledger::{ClimbId, ClimbRow, Entered, EnteredRow, RecordRow};
use ratatui::Terminal;
use ratatui::backend::TestBackend;
use ratatui::crossterm::event::{Event, KeyCode, KeyEvent, KeyModifiers, MouseButton, MouseEvent, MouseEventKind};
use ratatui::style::Color;

use crate::briefing::{Briefing, SourceFile};
use crate::cli::Pace;
use crate::climbing::{Prepared, open_ledger};
use crate::driving::Operator;
use crate::driving::rehearsal::{Rehearsal, Script};
use crate::notice::Notice;
use crate::tui::app::App;
use crate::tui::climbed::Climbed;
use crate::tui::habits::Habits;
use crate::tui::library::{Library, Listed, Read};
use crate::tui::preferences::Preferences;
use crate::tui::screens::View;
use crate::tui::theme::{Depth, Scheme, Theme};

/// What goes wrong in the demo's first climb.
const FIRST_LIGHT: Script = &[
    (15, 1, 51_250, IncidentKind::WrongResult, "core 4", "scaled residual 895.1, allowed 16"),
    (16, 1, 7_250, IncidentKind::WrongResult, "core 6", "scaled residual 5337.8, allowed 16"),
    (17, 1, 19_500, IncidentKind::CorrectedError, "core 1", "3 errors counted and repaired"),
    (23, 1, 56_500, IncidentKind::CorrectedError, "core 1", "4 errors counted and repaired"),
];

/// What goes wrong where its voltage is trimmed.
const QUIET_HOURS: Script = &[
    (6, 1, 33_000, IncidentKind::WrongResult, "core 2", "scaled residual 212.0, allowed 16"),
    (8, 1, 61_000, IncidentKind::WrongResult, "core 2", "scaled residual 87.4, allowed 16"),
];

const NIGHT: Script = &[
    (16, 0, 47_000, IncidentKind::WrongResult, "core 2", "scaled residual 212.0, allowed 16"),
    (18, 0, 160_000, IncidentKind::WrongResult, "core 2", "scaled residual 87.4, allowed 16"),
];

/// The interface after a climb of this demo plan was driven up to here.
pub(super) fn app_at(plan: &str, until: impl Fn(&Climb) -> bool) -> App {
    let folder = tempfile::tempdir().expect("a folder");
    let script = match plan {
        "dome.plan.toml" => FIRST_LIGHT,
        "quiet.plan.toml" => QUIET_HOURS,
        "night.plan.toml" => NIGHT,
        _ => &[],
    };
    let plan = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo").join(plan);
    let briefing = Briefing::read(&plan).expect("a plan");
    let mut app = app(&briefing);
    let ledger = open_ledger(&folder.path().join("test.ledger")).expect("a ledger");
    // A name of its own for the machine, so that whoever else drives it is no matter.
    let machine = folder.path().join("machine");
    std::os::unix::fs::symlink("/", &machine).expect("linked");
    let rig = Arc::clone(&briefing.rig);
    let prepared = Prepared::new(briefing, ledger, &machine, Some(11)).expect("a climb");
    let (words, operator) = Operator::new();
    let is_elsewhere = rig.is_elsewhere();
    let listener = |notice: Notice| {
        // Errands are made, and nobody reads the room: what is looked at there is a pass.
        if let Notice::Told { entry: Told::Asked { question, .. }, .. } = &notice
            && is_elsewhere
            && !matches!(question, Question::Make { .. })
        {
            words.send(Answer::Done.into()).expect("heard");
        }
        app.hear(notice);
    };
    let (mut driver, first, _claim) = prepared.driver(operator, Some(Pace::Max), listener);
    driver.foresees = true;
    if driver.bench.is_virtual() {
        driver.bench = Box::new(Rehearsal::of(&rig, driver.bench.now(), script));
    }
    // What is being applied is there in a moment.
    driver.drive(first, |climb| until(climb) && !climb.is_applying()).expect("driven");
    drop(driver);
    app
}

fn app(briefing: &Briefing) -> App {
    let row = ClimbRow { seed: briefing.adapters.specimen(Some(11)), ..climb_row(1, None) };
    let climbed = Climbed::new(&row, briefing, Story::default(), BTreeMap::new()).under_way(&[]);
    let nowhere = Library::at(PathBuf::from("/nowhere/test.ledger"));
    let mut app = App::new(climbed, nowhere, &Preferences::default());
    app.desk.theme = Theme::new(Scheme::Dark, Depth::True);
    app
}

fn climb_row(climb: i64, end: Option<ClimbEnd>) -> ClimbRow {
    ClimbRow {
        climb,
        id: ClimbId::written(format!("{climb:032x}")),
        plan: "first light".into(),
        rig: "dome".into(),
        specimen: "processor A-0417".into(),
        use_name: "daily".into(),
        seed: Some(11),
        wall: Moment::from_millis(1_781_989_200_000),
        end,
        trials: 24,
        falls: 2,
        tested: Span::from_seconds(2414),
        mark: None,
    }
}

/// Waits until the ledger has been read.
fn read_shelf(app: &mut App) {
    while app.desk.shelf.is_reading {
        let read = app.desk.shelf.reads().recv().expect("a reader");
        app.take_read(read);
    }
}

pub(super) fn picture(app: &App, columns: u16, rows: u16) -> String {
    let mut terminal = Terminal::new(TestBackend::new(columns, rows)).expect("a terminal");
    terminal.draw(|frame| app.draw(frame)).expect("drawn");
    terminal.backend().to_string()
}

/// The same without the lines that every screen has.
pub(super) fn body(app: &App, columns: u16, rows: u16) -> String {
    let picture = picture(app, columns, rows);
    let lines: Vec<&str> = picture.lines().collect();
    lines[2..lines.len() - 1].join("\n")
}

pub(super) fn press(app: &mut App, code: KeyCode) -> Vec<Said> {
    app.press(&Event::Key(KeyEvent::new(code, KeyModifiers::NONE)))
}

#[test]
fn in_the_middle_of_a_climb() {
    let app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    insta::assert_snapshot!("climbing-wide", picture(&app, 160, 40));
    insta::assert_snapshot!("climbing-narrow", picture(&app, 80, 24));
    // What matters from two metres away: where it is, whether it is all right, and what comes next.
    for size in [(160, 40), (80, 24)] {
        let seen = picture(&app, size.0, size.1);
        let asked = ["4 700 MHz at 1.250 V", "climbing", "0 errors", "if it falls", "corrected-error on core 1"];
        asked.iter().for_each(|what| assert!(seen.contains(what), "{what} at {size:?}"));
    }
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
    app.desk.shown.story.progress = Some(Progress {
        done: Span::from_seconds(60),
        warms_up: true,
        rate: Some(Score::of(238.4, "GFLOP/s")),
        workload: Some(workload),
        cores,
        ..Progress::default()
    });
    insta::assert_snapshot!("cores-wide", body(&app, 160, 40));
    insta::assert_snapshot!("cores-narrow", body(&app, 80, 24));
    assert!(body(&app, 80, 24).lines().any(|line| line.contains('2') && line.contains("60.8")), "the core with errors");
    press(&mut app, KeyCode::Char('c'));
    assert!(!app.screens.climb.shows_cores);
}

/// A night that can be claimed lies below what held for minutes: who is content to be less sure sees how far one may go, and a soak that
/// held is not what stood against more.
#[test]
fn at_the_end_of_a_night() {
    let app = app_at("night.plan.toml", Climb::is_ended);
    let body = body(&app, 160, 40);
    let line =
        |label: &str| body.lines().find(|line| line.contains(label)).unwrap_or_else(|| panic!("{label} of {body}"));
    assert!(
        line(" harder  ")
            .contains("survives night with at least 90 %: 80 % sure up to 4 375 MHz, 50 % up to 4 475 MHz"),
        "{body}"
    );
    assert!(line(" limit  ").contains(" is not sure to hold 8 h"), "{body}");
}

#[test]
fn at_the_end_of_a_climb() {
    let mut app = app_at("dome.plan.toml", Climb::is_ended);
    insta::assert_snapshot!("ended-wide", body(&app, 160, 40));
    insta::assert_snapshot!("ended-narrow", body(&app, 80, 24));
    assert!(
        body(&app, 80, 24).contains("⚑ mark") && body(&app, 80, 24).contains("4 700 MHz at 1.230 V"),
        "what was found"
    );
    for (key, view) in [('o', View::Scores), ('p', View::Rig)] {
        press(&mut app, KeyCode::Char('1'));
        press(&mut app, KeyCode::Char(key));
        assert_eq!(app.screens.at, view);
    }
    insta::assert_snapshot!("rig-ended", body(&app, 120, 30));
}

#[test]
fn before_anything_happened() {
    let rig = include_str!("../../../../../demo/dome.rig.toml");
    let plan = include_str!("../../../../../demo/dome.plan.toml");
    let file = |text: &str| SourceFile { path: PathBuf::from("file"), text: text.to_owned() };
    let app = app(&Briefing::of(file(rig), file(plan)).expect("a plan"));
    insta::assert_snapshot!("empty-narrow", body(&app, 80, 24));
}

#[test]
fn a_change_by_hand_is_asked_for_and_answered() {
    let mut app = app_at("by-hand.plan.toml", |climb| climb.question().is_some());
    insta::assert_snapshot!("by-hand-narrow", picture(&app, 80, 24));
    assert_eq!(press(&mut app, KeyCode::Char('x')), [Said::NoStart]);
    assert_eq!(press(&mut app, KeyCode::Char('d')), [Answer::Done.into()]);
}

#[test]
fn what_the_rig_shows_is_written_down_on_the_card() {
    let mut app = app_at("by-hand.plan.toml", |climb| climb.question().is_some());
    assert!(picture(&app, 80, 24).contains("v write down what it shows"));
    press(&mut app, KeyCode::Char('v'));
    type_text(&mut app, "3600");
    press(&mut app, KeyCode::Enter);
    assert!(picture(&app, 120, 30).contains("is hardly right"), "{}", picture(&app, 120, 30));
    for _ in 0..4 {
        press(&mut app, KeyCode::Backspace);
    }
    type_text(&mut app, "35,5");
    press(&mut app, KeyCode::Enter);
    // Nobody has measured it, and nothing is known of the other one.
    for _ in 0..3 {
        press(&mut app, KeyCode::Enter);
    }
    assert!(picture(&app, 80, 24).contains("it shows 35,5"), "{}", picture(&app, 80, 24));
    let written = [("multiplier".to_owned(), "35,5".to_owned())].into();
    assert_eq!(press(&mut app, KeyCode::Char('d')), [Said::Done { written }]);
}

/// Writes these one after the other, each ended by enter.
fn write(app: &mut App, answers: &[&str]) {
    press(app, KeyCode::Enter);
    for answer in answers {
        type_text(app, answer);
        press(app, KeyCode::Enter);
    }
}

#[test]
fn a_pass_by_hand_is_written_down_field_by_field_and_what_is_missing_is_asked_for() {
    let mut app = app_at("tape.plan.toml", |climb| climb.is_made_by_hand());
    insta::assert_snapshot!("pass-by-hand", picture(&app, 120, 30));
    assert_eq!(press(&mut app, KeyCode::Char('d')), []);
    assert!(picture(&app, 120, 30).contains("index is missing"), "{}", picture(&app, 120, 30));
    press(&mut app, KeyCode::Esc);
    write(&mut app, &["3,14", "24", "clean"]);
    type_text(&mut app, "41.5");
    insta::assert_snapshot!("pass-by-hand-written-narrow", picture(&app, 80, 24));
    press(&mut app, KeyCode::Enter);
    let said = press(&mut app, KeyCode::Char('d'));
    let [Said::Done { written }] = said.as_slice() else { panic!("{said:?}") };
    let written: Vec<(&str, &str)> = written.iter().map(|(name, typed)| (name.as_str(), typed.as_str())).collect();
    assert_eq!(written, [("chip", "41.5"), ("index", "3,14"), ("picture", "clean"), ("sieve", "24")]);
}

#[test]
fn what_went_wrong_by_hand_is_a_key_and_a_reading_is_one_at_any_time() {
    let mut app = app_at("tape.plan.toml", |climb| climb.is_made_by_hand());
    assert_eq!(press(&mut app, KeyCode::Char('h')), [Said::Hung]);
    press(&mut app, KeyCode::Char('w'));
    type_text(&mut app, "torn on the left");
    assert_eq!(press(&mut app, KeyCode::Enter), [Said::WrongPicture { what: "torn on the left".into() }]);
    press(&mut app, KeyCode::Char('r'));
    type_text(&mut app, "warm");
    assert_eq!(press(&mut app, KeyCode::Enter), []);
    assert!(picture(&app, 80, 24).contains("`warm` is no number"), "{}", picture(&app, 80, 24));
    for _ in 0..4 {
        press(&mut app, KeyCode::Backspace);
    }
    type_text(&mut app, "21,5");
    let read = |name: &str, typed: &str| Said::Read { written: [(name.to_owned(), typed.to_owned())].into() };
    assert_eq!(press(&mut app, KeyCode::Enter), [read("room", "21,5")]);
    type_text(&mut app, "47");
    assert_eq!(press(&mut app, KeyCode::Enter), [read("chip", "47")]);
    assert_eq!(press(&mut app, KeyCode::Char('l')), [Said::NotToday]);
}

fn type_text(app: &mut App, text: &str) {
    for c in text.chars() {
        press(app, KeyCode::Char(c));
    }
}

/// Climbs a plan of the demo to its end, into this ledger.
fn climb_whole(ledger: &Path, plan: &str) {
    let plan = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo").join(plan);
    let briefing = Briefing::read(&plan).expect("a plan");
    let prepared = Prepared::new(briefing, open_ledger(ledger).expect("a ledger"), Path::new("/"), Some(3));
    let prepared = prepared.expect("a climb");
    let (_words, operator) = Operator::new();
    let (mut driver, first, _claim) = prepared.driver(operator, Some(Pace::Max), |_| ());
    driver.drive(first, Climb::is_ended).expect("driven");
}

/// Takes in what the ledger's readers tell, until they are done.
fn read_attempts(app: &mut App) {
    while app.desk.shelf.is_busy() {
        let read = app.desk.shelf.reads().recv().expect("a reader");
        app.take_read(read);
    }
}

#[test]
fn attempts_of_all_climbs_are_one_table() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("test.ledger");
    for plan in ["dome.plan.toml", "pays.plan.toml"] {
        climb_whole(&path, plan);
    }
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 3);
    app.desk.shelf.library = Library::at(path);
    app.desk.shown.number = 3;
    press(&mut app, KeyCode::Char('6'));
    press(&mut app, KeyCode::Char('t'));
    let reading = picture(&app, 80, 24);
    assert!(reading.contains("attempts   reading …"), "{reading}");
    read_attempts(&mut app);
    // The day is that of the test.
    let today = Moment::from_millis(jiff::Timestamp::now().as_millisecond());
    let of_any_day = |picture: String| picture.replace(&crate::commands::local_day(today), "2026-06-20");
    insta::assert_snapshot!("attempts-narrow", of_any_day(body(&app, 80, 24)));
    press(&mut app, KeyCode::Char('/'));
    type_text(&mut app, "dense>=460 dome hottest<75");
    press(&mut app, KeyCode::Enter);
    let found = picture(&app, 160, 40);
    assert!(found.contains("with dense>=460 dome hottest<75 among"), "{found}");
    (0..8).for_each(|_| drop(press(&mut app, KeyCode::Right)));
    press(&mut app, KeyCode::Char('o'));
    insta::assert_snapshot!("attempts-found", of_any_day(body(&app, 160, 40)));
    // The climbs are found by the same numbers.
    press(&mut app, KeyCode::Char('t'));
    let listed = picture(&app, 160, 40);
    assert!(listed.contains("18 of 26 trials") && listed.contains("17 of 23 trials"), "{listed}");
    press(&mut app, KeyCode::Char('t'));
    press(&mut app, KeyCode::Down);
    let second = app.desk.shelf.attempts().map(|pool| pool.find(&app.desk.query())[1].clone()).expect("a table");
    press(&mut app, KeyCode::Char('p'));
    assert!(app.desk.picks.has(second.climb, Some(second.trial)), "picked unseen");
    press(&mut app, KeyCode::Enter);
    assert_eq!((app.desk.shown.number, app.desk.selected), (second.climb, Some(second.trial)), "opened at the attempt");
    app.desk.look_for("sort:nothing");
    assert!(picture(&app, 160, 40).contains("no column is called nothing"));
    app.desk.look_for("dense>=460");
    let csv = folder.path().join("all.csv");
    press(&mut app, KeyCode::Char('6'));
    read_attempts(&mut app);
    let written = super::Screen::write(&mut app.screens.climbs, &csv, &mut app.desk).expect("written");
    assert!(written.contains("all.csv"));
    let text = std::fs::read_to_string(&csv).expect("a file");
    let head = text.lines().next().expect("a head");
    assert!(head.starts_with("climb,trial,verdict,rig,specimen,began,"), "{head}");
    assert_eq!(
        text.lines().count() - 1,
        app.desk.shelf.attempts().map_or(0, |pool| pool.find(&app.desk.query()).len())
    );
}

#[test]
fn a_question_is_heard_of_while_another_climb_is_shown() {
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("test.ledger");
    climb_whole(&path, "dome.plan.toml");
    let mut app = app_at("by-hand.plan.toml", |climb| climb.question().is_some());
    app.desk.shelf.library = Library::at(path);
    app.desk.shown.number = 2;
    press(&mut app, KeyCode::Char('6'));
    read_shelf(&mut app);
    press(&mut app, KeyCode::Enter);
    let other = picture(&app, 160, 40);
    assert!(other.contains("the climb that runs asks you") && other.contains("every stage is done"), "{other}");
    assert!(other.contains("meanwhile climb 2 on by-hand is at trial 1"), "{other}");
    assert_eq!(press(&mut app, KeyCode::Char('d')), [], "it is not answered from here");
    press(&mut app, KeyCode::Char('q'));
    assert_eq!(press(&mut app, KeyCode::Char('d')), [Answer::Done.into()]);
}

#[test]
fn help_fits_the_smallest_screen() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 3);
    press(&mut app, KeyCode::Char('?'));
    insta::assert_snapshot!("help-narrow", picture(&app, 80, 24));
    press(&mut app, KeyCode::Esc);
    assert!(!picture(&app, 80, 24).contains("what this view shows"));
    for view in '1'..='9' {
        press(&mut app, KeyCode::Char(view));
        press(&mut app, KeyCode::Char('?'));
        let last = app.keys_of_screen().last().map(|key| key.does).expect("a key");
        let help = picture(&app, 80, 24);
        assert!(help.contains(last) && help.contains(":         do"), "{last} is missing in view {view}:\n{help}");
        press(&mut app, KeyCode::Esc);
    }
}

#[test]
fn the_map_shows_where_trials_lie_and_what_is_known_of_the_border() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 19);
    press(&mut app, KeyCode::Char('2'));
    insta::assert_snapshot!("map-wide", body(&app, 160, 40));
    insta::assert_snapshot!("map-narrow", body(&app, 80, 24));
    assert!(body(&app, 160, 40).matches('✕').count() >= 2, "each trial that fell is in its place");
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
    insta::assert_snapshot!("trials-wide", body(&app, 160, 40));
    insta::assert_snapshot!("trials-narrow", body(&app, 80, 24));
    press(&mut app, KeyCode::Char('/'));
    "fell 4".chars().for_each(|letter| drop(press(&mut app, KeyCode::Char(letter))));
    assert!(app.desk.found().iter().all(|trial| trial.verdict == Some(Verdict::Fell)) && !app.desk.found().is_empty());
    press(&mut app, KeyCode::Enter);
    insta::assert_snapshot!("trials-found", body(&app, 80, 24));
    press(&mut app, KeyCode::Esc);
    assert_eq!(app.desk.found().len(), app.desk.shown.story.trials.len(), "all are there again");
    press(&mut app, KeyCode::Char('/'));
    "dense>505 sort:dense".chars().for_each(|letter| drop(press(&mut app, KeyCode::Char(letter))));
    press(&mut app, KeyCode::Enter);
    assert_eq!(app.desk.found().iter().map(|trial| trial.number).collect::<Vec<_>>(), [11, 12, 13, 14]);
    press(&mut app, KeyCode::Esc);
    press(&mut app, KeyCode::Char('/'));
    "nothing like it".chars().for_each(|letter| drop(press(&mut app, KeyCode::Char(letter))));
    assert!(picture(&app, 80, 24).contains("No trial has all of this"));
    assert_eq!(app.desk.selected_trial(), None);
}

/// What the firmware made of a setting stands beside what was asked, where it is not the same.
#[test]
fn a_value_that_was_not_taken_is_told_beside_what_was_asked() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    press(&mut app, KeyCode::Char('4'));
    assert!(!picture(&app, 80, 24).contains('≠'));
    let clock = app.desk.shown.story.reported.get_mut("core_clock").expect("read back");
    *clock -= Decimal::from(100);
    assert!(picture(&app, 80, 24).contains("core clock, MHz  4 700   ≠ 4 600     4 750"));
    app.desk.shown.story.trials.last_mut().expect("a trial").reported.insert("core_clock".into(), Decimal::from(4600));
    press(&mut app, KeyCode::Char('3'));
    assert!(picture(&app, 160, 40).contains("core clock: reported 4 600 MHz"));
}

/// Every sensor can be seen on the smallest screen.
#[test]
fn sensors_that_there_is_no_room_for_are_one_key_away() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    press(&mut app, KeyCode::Char('5'));
    let mut unseen: Vec<String> = app.desk.shown.traced().map(|sensor| sensor.label.clone()).collect();
    let first = picture(&app, 80, 24);
    assert!(first.contains("more sensors, with tab"), "{first}");
    for _ in 0..2 {
        let screen = picture(&app, 80, 24);
        unseen.retain(|label| !screen.contains(&format!("\" {label}")) && !screen.contains(&format!(" {label}")));
        press(&mut app, KeyCode::Tab);
    }
    assert_eq!(unseen, [""; 0]);
    assert!(!picture(&app, 160, 60).contains("with tab"));
    press(&mut app, KeyCode::Tab);
}

#[test]
fn the_rig_is_shown_with_its_limits() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    press(&mut app, KeyCode::Char('4'));
    insta::assert_snapshot!("rig-wide", body(&app, 160, 40));
    insta::assert_snapshot!("rig-narrow", body(&app, 80, 24));
    assert!(body(&app, 80, 24).contains("5 100"), "its ceiling");
    press(&mut app, KeyCode::Char('1'));
    assert!(picture(&app, 160, 40).contains("logbook"));
}

#[test]
fn the_map_is_shaded_by_how_likely_rungs_survive() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 19);
    press(&mut app, KeyCode::Char('2'));
    app.desk.theme = Theme::new(Scheme::Dark, Depth::None);
    let before = body(&app, 160, 40);
    let worked = app.desk.shading.worked().recv().expect("it is worked out beside the drawing");
    app.desk.shading.take(worked);
    insta::assert_snapshot!("map-shaded", body(&app, 160, 40));
    assert_ne!(before, body(&app, 160, 40));
    // Of other settings it is worked out anew, and what was of these is not drawn meanwhile.
    press(&mut app, KeyCode::Char('x'));
    assert!(!body(&app, 160, 40).contains('▓'));
}

#[test]
fn traces_show_the_climb_and_one_trial() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    press(&mut app, KeyCode::Char('5'));
    insta::assert_snapshot!("traces-wide", body(&app, 160, 40));
    let whole = app.screens.traces.stretch(&app.desk).expect("readings");
    press(&mut app, KeyCode::PageUp);
    press(&mut app, KeyCode::Char('z'));
    let trial = app.screens.traces.stretch(&app.desk).expect("readings");
    assert!(trial.from > whole.from && trial.to < whole.to);
    insta::assert_snapshot!("traces-narrow", body(&app, 80, 24));
    assert!(body(&app, 80, 24).contains("hottest core, °C"), "the one that a cut-off rests on comes first");
}

#[test]
fn who_is_used_to_commas_and_fahrenheit_reads_them() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    app.desk.habits = Habits { has_comma: true, has_fahrenheit: true };
    insta::assert_snapshot!("climb-habits", body(&app, 160, 40));
    press(&mut app, KeyCode::Char('3'));
    press(&mut app, KeyCode::Up);
    for view in ['3', '4', '5'] {
        press(&mut app, KeyCode::Char(view));
        assert!(body(&app, 160, 40).contains("°F"), "{}", body(&app, 160, 40));
    }
    press(&mut app, KeyCode::Char('4'));
    assert!(body(&app, 80, 24).contains("212"), "a cut-off of 100 °C");
    // A plan stands as it stands in its file, and a line as it was typed.
    press(&mut app, KeyCode::Char('9'));
    assert!(body(&app, 160, 40).contains("step        0.005"), "{}", body(&app, 160, 40));
    press(&mut app, KeyCode::Char('3'));
    press(&mut app, KeyCode::Char('/'));
    type_text(&mut app, "1.250");
    assert!(picture(&app, 160, 40).contains("1.250"), "{}", picture(&app, 160, 40));
}

#[test]
fn what_ended_a_trial_is_drawn_in_its_own_trace_and_not_in_the_next() {
    let app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    let of = |trial: u32| app.desk.span_of(trial).expect("a trial");
    let drawn = |trial: u32| app.desk.incidents_in(of(trial)).map(|told| told.trial).collect::<Vec<_>>();
    let ended: Vec<u32> = app.desk.shown.story.incidents.iter().filter_map(|told| told.trial).collect();
    let at_its_end = |trial: &u32| app.desk.incidents_in(of(*trial)).any(|told| told.at == of(*trial).to);
    assert!(ended.iter().any(at_its_end), "the next one begins at that moment");
    for trial in 1..=18 {
        assert_eq!(drawn(trial), if ended.contains(&trial) { vec![Some(trial)] } else { Vec::new() }, "{trial}");
    }
}

#[test]
fn climbs_of_the_ledger_are_listed() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 3);
    press(&mut app, KeyCode::Char('6'));
    assert!(picture(&app, 80, 24).contains("reading …"));
    read_shelf(&mut app);
    assert!(picture(&app, 80, 24).contains("There is no climb in this ledger yet"));
    let rows = [(3, None), (2, Some(ClimbEnd::Completed)), (1, Some(ClimbEnd::Stopped))];
    let listed = |(climb, end)| Listed { row: climb_row(climb, end), mark: (climb == 2).then(|| "4 700 MHz".into()) };
    app.take_read(Read::Climbs(rows.map(listed).to_vec()));
    let mut index = Index::default();
    index.add_climb(3, "climb 3");
    index.add_climb(2, "climb 2");
    index.add_trial(1, "trial 1 held core_clock=4200");
    index.add_trial(2, "trial 2 fell core_clock=4700");
    app.take_read(Read::Trials(index));
    press(&mut app, KeyCode::Up);
    let picture = picture(&app, 160, 40);
    assert!(picture.contains("climbs   2 of 3") && picture.contains("›    2  ✓  2026-06-20"), "{picture}");
    assert!(picture.contains("not finished") && picture.contains("stopped"), "{picture}");
    let small = self::picture(&app, 80, 24);
    assert!(small.contains("4 700 MHz") && !small.contains("2026-06-20 2"), "the mark comes before the hour: {small}");
    press(&mut app, KeyCode::Char('/'));
    "clock>4500".chars().for_each(|letter| drop(press(&mut app, KeyCode::Char(letter))));
    press(&mut app, KeyCode::Enter);
    insta::assert_snapshot!("climbs-found", body(&app, 160, 40));
    press(&mut app, KeyCode::Enter);
    assert!(
        app.desk.shelf.trouble.as_ref().is_some_and(|why| why.starts_with("climb 2 can't be opened")),
        "there is no ledger"
    );
}

#[test]
fn scores_show_what_pays_and_how_it_ranks() {
    let mut app = app_at("pays.plan.toml", Climb::is_ended);
    press(&mut app, KeyCode::Char('7'));
    read_shelf(&mut app);
    let score = |climb, value| RecordRow {
        climb,
        trial: 3,
        load: "bandwidth-copy".into(),
        threads: "all".into(),
        value,
        unit: "GB/s".into(),
        merit: value,
    };
    let listed = |climb| Listed { row: climb_row(climb, Some(ClimbEnd::Stopped)), mark: None };
    app.take_read(Read::Climbs(vec![listed(3), listed(2), listed(1)]));
    let result = Entered {
        what: "bandwidth-copy".into(),
        value: 44.1,
        unit: "GB/s".into(),
        specimen: String::new(),
        source: "the club's last meeting".into(),
    };
    let entered = EnteredRow { entered: 1, result, wall: Moment::from_millis(0) };
    // Its own record is not ranked twice.
    app.take_read(Read::Records(vec![score(1, 99.0), score(2, 40.25), score(3, 43.75)], vec![entered]));
    app.desk.shelf.is_reading = false;
    press(&mut app, KeyCode::Right);
    press(&mut app, KeyCode::Right);
    insta::assert_snapshot!("scores-wide", body(&app, 160, 40));
    insta::assert_snapshot!("scores-narrow", body(&app, 80, 24));
    assert!(
        body(&app, 160, 40).contains("rank 3 of 4") && body(&app, 80, 24).contains("4 500 MHz"),
        "where it stops paying"
    );
    press(&mut app, KeyCode::Home);
    press(&mut app, KeyCode::Down);
    press(&mut app, KeyCode::Enter);
    let trial = picture(&app, 160, 40);
    assert!(trial.contains("4 275 MHz") && trial.contains("trial 10 "), "the last trial of the second value: {trial}");
}

#[test]
fn what_is_picked_is_compared_and_specimens_are_ranked_without_it() {
    let mut app = app_at("quiet.plan.toml", Climb::is_ended);
    let mark = |clock: i64| {
        let rung = [("core_clock", clock.into()), ("core_voltage", Decimal::new(1210, 3))];
        Some(rung.map(|(name, value)| (name.to_owned(), value)).into_iter().collect())
    };
    let listed = |climb, clock: i64| Listed {
        row: ClimbRow { mark: mark(clock), ..climb_row(climb, Some(ClimbEnd::Stopped)) },
        mark: Some(format!("{clock} MHz at 1.210 V")),
    };
    app.take_read(Read::Climbs(vec![listed(3, 4650), listed(2, 4725), listed(1, 4700)]));
    press(&mut app, KeyCode::Char('8'));
    insta::assert_snapshot!("compare-nothing", body(&app, 80, 24));
    press(&mut app, KeyCode::Char('3'));
    for code in [KeyCode::Home, KeyCode::Char('p'), KeyCode::End, KeyCode::Char('p'), KeyCode::Up, KeyCode::Char('p')] {
        press(&mut app, code);
    }
    assert!(picture(&app, 160, 40).contains("  1+ "), "it is told in the list that it is picked");
    press(&mut app, KeyCode::Char('8'));
    insta::assert_snapshot!("compare-wide", body(&app, 160, 40));
    press(&mut app, KeyCode::Backspace);
    press(&mut app, KeyCode::PageDown);
    insta::assert_snapshot!("compare-narrow", body(&app, 80, 24));
    press(&mut app, KeyCode::Backspace);
    assert!(picture(&app, 80, 24).contains("trial 1 of climb 1 is picked"));
}

#[test]
fn no_size_breaks_the_view() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    for mode in [
        None,
        Some('?'),
        Some('n'),
        Some('q'),
        Some('2'),
        Some('3'),
        Some('/'),
        Some('4'),
        Some('5'),
        Some('6'),
        Some('7'),
        Some('8'),
        Some('9'),
    ] {
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
    app.desk.theme = Theme::new(Scheme::Dark, Depth::None);
    let mut terminal = Terminal::new(TestBackend::new(160, 40)).expect("a terminal");
    terminal.draw(|frame| app.draw(frame)).expect("drawn");
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

#[test]
fn only_where_there_is_a_mark_the_rig_can_stay_there() {
    for (trials, said) in [(3, vec![]), (22, vec![Said::StopAtMark])] {
        let mut app = app_at("dome.plan.toml", |climb| climb.trials() > trials);
        assert_eq!(app.desk.shown.story.marks.is_empty(), said.is_empty(), "after {trials} trials");
        press(&mut app, KeyCode::Char('s'));
        assert_eq!(picture(&app, 160, 40).contains("stay at the last mark"), !said.is_empty());
        assert_eq!(press(&mut app, KeyCode::Char('m')), said);
    }
}

#[test]
fn traces_are_looked_at_closer_and_over_each_other() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    // From a trial that fell to where it fell, and on to the next one.
    press(&mut app, KeyCode::Char('3'));
    press(&mut app, KeyCode::End);
    while app.desk.selected_trial() != Some(15) {
        press(&mut app, KeyCode::Up);
    }
    press(&mut app, KeyCode::Char('i'));
    insta::assert_snapshot!("traces-incident", body(&app, 120, 36));
    press(&mut app, KeyCode::Char('i'));
    assert_eq!(app.desk.selected_trial(), Some(16));
    let closer = app.screens.traces.stretch(&app.desk);
    press(&mut app, KeyCode::Char('i'));
    press(&mut app, KeyCode::Char('i'));
    press(&mut app, KeyCode::Char('i'));
    assert_eq!(
        (app.desk.selected_trial(), app.screens.traces.stretch(&app.desk)),
        (Some(16), closer),
        "once around all three"
    );
    press(&mut app, KeyCode::Char('+'));
    press(&mut app, KeyCode::Char('-'));
    assert_eq!(app.screens.traces.stretch(&app.desk), closer);
    assert!(body(&app, 120, 36).contains("│ "), "the cursor stands where it went wrong, and its reading is told");
    // The cursor goes left to where nothing more is shown, and what is shown goes on with it.
    (0..80).for_each(|_| _ = press(&mut app, KeyCode::Left));
    assert_ne!(app.screens.traces.stretch(&app.desk), closer);
    // A trial that holds and the one that falls, over each other.
    press(&mut app, KeyCode::Char('p'));
    press(&mut app, KeyCode::Up);
    press(&mut app, KeyCode::Up);
    press(&mut app, KeyCode::Char('p'));
    press(&mut app, KeyCode::Char('o'));
    insta::assert_snapshot!("traces-over", body(&app, 120, 36));
    // The picture that is written has the same trials on it.
    let folder = tempfile::tempdir().expect("a folder");
    let file = folder.path().join("over.svg");
    app.screens.current_mut().write(&file, &mut app.desk).expect("written");
    let svg = std::fs::read_to_string(file).expect("a picture");
    assert!(svg.contains("1 trial 16") && svg.contains("2 trial 14"), "{svg}");
    press(&mut app, KeyCode::Char('o'));
    assert!(picture(&app, 120, 36).contains("✕"), "the climb again");
}

#[test]
fn every_column_is_reached_sorted_by_and_left_out() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    press(&mut app, KeyCode::Char('3'));
    let shown = |app: &App| picture(app, 80, 24).lines().skip(3).take(2).collect::<String>();
    assert!(shown(&app).contains("clock, MHz") && !shown(&app).contains("because"));
    (0..40).for_each(|_| drop(press(&mut app, KeyCode::Right)));
    assert!(shown(&app).contains("because") && !shown(&app).contains("clock, MHz"), "{}", shown(&app));
    (0..40).for_each(|_| drop(press(&mut app, KeyCode::Left)));
    let numbers = |app: &App| app.desk.found().iter().map(|trial| trial.number).collect::<Vec<_>>();
    press(&mut app, KeyCode::Char('o'));
    assert_eq!((numbers(&app)[0], app.desk.filter.as_str()), (1, "sort:core_clock"));
    press(&mut app, KeyCode::Char('o'));
    assert_eq!((numbers(&app)[0], app.desk.filter.as_str()), (15, "sort:-core_clock"));
    assert_eq!(app.desk.selected_trial(), Some(15), "the first of them");
    press(&mut app, KeyCode::Char('o'));
    assert_eq!((numbers(&app)[0], app.desk.filter.as_str()), (1, ""));
    press(&mut app, KeyCode::Char('o'));
    app.press(&Event::Key(KeyEvent::new(KeyCode::Char('-'), KeyModifiers::ALT)));
    assert_eq!(app.desk.filter, "", "escape and a key at once");
    assert!(!shown(&app).contains("clock, MHz") && shown(&app).contains("voltage, V"));
    (0..40).for_each(|_| drop(press(&mut app, KeyCode::Char('-'))));
    assert!(shown(&app).contains("because"), "the last one stays");
    press(&mut app, KeyCode::Char('+'));
    assert!(shown(&app).contains("clock, MHz"));
}

#[test]
fn scores_and_the_map_are_laid_over_what_one_chooses() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    press(&mut app, KeyCode::Char('7'));
    assert!(picture(&app, 160, 40).contains("GB/s over core clock, MHz"));
    press(&mut app, KeyCode::Char('x'));
    let derived = picture(&app, 160, 40);
    assert!(derived.contains("GB/s over peak rate, GFLOP/s") && derived.contains("537.6"), "{derived}");
    press(&mut app, KeyCode::Char('x'));
    press(&mut app, KeyCode::Char('x'));
    assert!(picture(&app, 160, 40).contains("GB/s over core clock, MHz"), "and around");
    press(&mut app, KeyCode::Char('2'));
    let axis = |app: &App| picture(app, 160, 40).lines().nth(3).map(|line| line[..30].trim().to_owned());
    assert!(axis(&app).is_some_and(|line| line.contains("core voltage, V")), "{:?}", axis(&app));
    press(&mut app, KeyCode::Char('y'));
    assert!(axis(&app).is_some_and(|line| line.contains("core clock, MHz")), "they change places: {:?}", axis(&app));
}

#[test]
fn what_can_not_be_done_now_is_found_with_its_reason() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 3);
    press(&mut app, KeyCode::Char(':'));
    "report".chars().for_each(|letter| drop(press(&mut app, KeyCode::Char(letter))));
    assert!(picture(&app, 120, 36).contains("the climb is not over"));
    assert_eq!(press(&mut app, KeyCode::Enter), []);
    assert!(picture(&app, 120, 36).lines().last().is_some_and(|line| line.contains("the climb is not over")));
}

#[test]
fn the_mouse_selects_what_it_is_over() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    let click = |app: &mut App, sign: &str, kind: MouseEventKind| {
        let shown = picture(app, 160, 40);
        let (row, line) = shown.lines().enumerate().find(|(_, line)| line.contains(sign)).expect(sign);
        // The picture has its lines in quotes.
        let column = line.split(sign).next().unwrap_or_default().chars().count() - 1;
        let mouse = MouseEvent { kind, column: column as u16, row: row as u16, modifiers: KeyModifiers::NONE };
        app.press(&Event::Mouse(mouse));
    };
    let left = MouseEventKind::Down(MouseButton::Left);
    click(&mut app, "✕", left);
    assert!(picture(&app, 160, 40).contains("trial 15   ✕ fell"), "from the profile to the list");
    click(&mut app, "4 600", left);
    assert_eq!(app.desk.selected_trial(), Some(10));
    click(&mut app, "trials", MouseEventKind::ScrollDown);
    assert_eq!(app.desk.selected_trial(), Some(11));
    press(&mut app, KeyCode::Char('2'));
    click(&mut app, "✕", left);
    assert_eq!(app.desk.selected_trial(), Some(16), "the first from the left");
    press(&mut app, KeyCode::Char('7'));
    click(&mut app, "4 500 MHz  ", left);
    assert_eq!(app.desk.selected_trial(), Some(8));
    press(&mut app, KeyCode::Char('9'));
    click(&mut app, "core_voltage", left);
    assert!(picture(&app, 160, 40).contains("›   setting     core_voltage"));
    press(&mut app, KeyCode::Char('s'));
    click(&mut app, "core_clock", left);
    assert!(picture(&app, 160, 40).contains("›   setting     core_voltage"), "not beneath a question");
}

#[test]
fn a_rig_of_many_sensors_is_scrolled() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 3);
    press(&mut app, KeyCode::Char('4'));
    assert!(!picture(&app, 80, 40).contains("lines 1 to"), "there is room for all");
    let small = picture(&app, 80, 20);
    assert!(small.contains("lines 1 to 14 of ") && !small.contains("usage, %"), "{small}");
    (0..50).for_each(|_| drop(press(&mut app, KeyCode::Down)));
    let end = picture(&app, 80, 20);
    assert!(end.contains("usage, %") && !end.contains("lines 1 to"), "{end}");
    press(&mut app, KeyCode::Up);
    assert_ne!(picture(&app, 80, 20), end, "not as often up as it was pressed at the end");
}

#[test]
fn a_wrong_picture_that_was_kept_is_shown() {
    let mut app = app_at("dome.plan.toml", |climb| climb.trials() > 17);
    press(&mut app, KeyCode::Char('3'));
    let trial = app.desk.shown.story.incidents[0].trial.expect("of a trial");
    app.desk.selected = Some(trial);
    press(&mut app, KeyCode::Char('v'));
    assert!(!picture(&app, 160, 40).contains("kept as"), "none was kept");
    let folder = tempfile::tempdir().expect("a folder");
    let path = folder.path().join("wrong.png");
    let mut encoder = png::Encoder::new(std::fs::File::create(&path).expect("made"), 40, 30);
    encoder.set_color(png::ColorType::Rgb);
    let mut writer = encoder.write_header().expect("written");
    writer.write_image_data(&[120; 40 * 30 * 3]).expect("written");
    drop(writer);
    app.desk.shown.story.incidents[0].incident.picture = Some(path.display().to_string());
    press(&mut app, KeyCode::Char('v'));
    for (width, height) in [(80, 24), (160, 40)] {
        let seen = picture(&app, width, height);
        assert!(seen.contains("wrong picture") && seen.contains('▀') && seen.contains("kept as "), "{seen}");
    }
    // A ledger that was moved has its pictures beside it.
    app.desk.shelf.library = Library::at(folder.path().join("moved.ledger"));
    let moved = folder.path().join("moved.pictures");
    std::fs::create_dir(&moved).expect("made");
    std::fs::rename(&path, moved.join("wrong.png")).expect("moved");
    for _ in 0..2 {
        press(&mut app, KeyCode::Char('v'));
    }
    assert!(picture(&app, 160, 40).contains('▀') && picture(&app, 160, 40).contains("moved.pictures"));
    std::fs::remove_dir_all(&moved).expect("removed");
    press(&mut app, KeyCode::Char('v'));
    assert!(!picture(&app, 160, 40).contains('▀'), "it was closed");
    press(&mut app, KeyCode::Char('v'));
    assert!(picture(&app, 80, 24).contains("is gone"));
}
