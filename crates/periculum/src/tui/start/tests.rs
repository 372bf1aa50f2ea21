//! The start screen as pictures of characters, and where its keys lead.

use std::path::PathBuf;

use periculum_core::model::moment::{Moment, Span};
use periculum_ledger::{ClimbId, ClimbRow};
use ratatui::Terminal;
use ratatui::backend::TestBackend;
use ratatui::crossterm::event::{Event, KeyCode, KeyEvent, KeyModifiers};

use super::{Chosen, Start, draw};
use crate::practice;
use crate::starting::{KnownRig, Origin, Page, Waiting};
use crate::tui::theme::{Depth, Scheme, Theme};

fn row(climb: i64) -> ClimbRow {
    ClimbRow {
        climb,
        id: ClimbId::written(format!("{climb:032x}")),
        plan: "first light".into(),
        rig: "dome".into(),
        specimen: "processor A-0417".into(),
        use_name: "daily".into(),
        seed: Some(11),
        wall: Moment::from_millis(1_781_989_200_000),
        end: None,
        trials: 23,
        falls: 2,
        tested: Span::from_seconds(2414),
        mark: None,
    }
}

/// The start screen with the rigs that ship, in this folder, with so many climbs that wait.
fn start(folder: PathBuf, waiting: i64) -> Start {
    let rigs = practice::RIGS.map(|it| KnownRig::of(Origin::Practice, it.rig.to_owned()).expect("a rig"));
    let waiting = (1..=waiting).map(|climb| Waiting {
        since: row(climb).wall,
        row: row(climb),
        at: Some("4 725 MHz at 1.250 V".into()),
    });
    let climbs = vec![(row(9), Some("4 700 MHz at 1.250 V".to_owned()))];
    let page = Page { waiting: waiting.collect(), rigs: rigs.into(), climbs };
    Start::new(page, folder, PathBuf::from("/"), Theme::new(Scheme::Dark, Depth::True))
}

fn press(start: &mut Start, keys: &[KeyCode]) {
    keys.iter().for_each(|code| start.take(&Event::Key(KeyEvent::new(*code, KeyModifiers::NONE))));
}

fn picture(start: &Start, columns: u16, rows: u16) -> String {
    let mut terminal = Terminal::new(TestBackend::new(columns, rows)).expect("a terminal");
    terminal.draw(|frame| draw::draw(frame, start)).expect("drawn");
    terminal.backend().to_string()
}

#[test]
fn what_waits_stands_first_and_each_line_says_what_it_would_do() {
    let start = start(PathBuf::from("."), 1);
    let seen = picture(&start, 120, 30);
    insta::assert_snapshot!("start-page", seen.lines().take(16).collect::<Vec<_>>().join("\n"));
    let lines: Vec<&str> = seen.lines().collect();
    let place = |what: &str| lines.iter().position(|line| line.contains(what)).expect("shown");
    assert!(place("`dome` waits at trial 23") < place("to practise on") && place("vault") < place("the last climbs"));
    assert!(picture(&start, 80, 24).contains("It goes on with 4 725 MHz at 1.250 V."));
}

#[test]
fn no_size_loses_the_selected_line() {
    for rows in [24, 12, 6, 3, 1] {
        let mut start = start(PathBuf::from("."), 30);
        press(&mut start, &[KeyCode::End]);
        let seen = picture(&start, 80, rows);
        assert!(rows < 8 || seen.contains("› 9  dome"), "{rows}\n{seen}");
        picture(&start, 5, rows);
    }
}

#[test]
fn every_key_of_the_lists_moves_and_the_way_back_forgets_what_was_answered() {
    let folder = tempfile::tempdir().expect("a folder");
    let mut start = start(folder.path().to_owned(), 0);
    use KeyCode::{Char, Enter, Esc};
    press(&mut start, &[Char('G'), Char('g'), Char('j'), Char('k'), Enter]);
    assert!(picture(&start, 120, 30).contains("what do you want with `dome`?"));
    press(&mut start, &[Char('j'), Char('j'), Char('j'), Enter]);
    assert!(picture(&start, 120, 30).contains("for which use?"));
    press(&mut start, &[Esc, Enter, Char('j'), Enter]);
    let review = picture(&start, 120, 30);
    assert!(review.contains("take the lead, for bench use") && review.contains("5 400 MHz"), "{review}");
    press(&mut start, &[Esc, Char('g'), Enter]);
    insta::assert_snapshot!("start-review", without(&picture(&start, 120, 30), &folder.path().display().to_string()));
    assert_eq!(std::fs::read_dir(folder.path()).expect("a folder").count(), 0, "nothing is written before it begins");
    press(&mut start, &[Enter]);
    assert_eq!(start.chosen, Some(Chosen::Climb(folder.path().join("dome-take-the-lead.plan.toml"))));
    assert_eq!(std::fs::read_dir(folder.path()).expect("a folder").count(), 2);
}

fn without(seen: &str, folder: &str) -> String {
    let lines = seen.lines().filter(|line| !line.contains(&folder[..folder.len().min(12)]) && line.trim() != "\"\"");
    lines.take(22).collect::<Vec<_>>().join("\n")
}

#[test]
fn a_setting_by_hand_is_asked_for_blank_by_blank_and_hostile_text_is_only_text() {
    let folder = tempfile::tempdir().expect("a folder");
    let mut start = start(folder.path().to_owned(), 0);
    let bare =
        KnownRig::of(Origin::ThisMachine, "format = 1\n[rig]\nname = \"bare \\u001b[2J\"\n".into()).expect("a rig");
    start.page.rigs = vec![bare];
    start.leaves[0].0 = super::steps::first(&start.page);
    press(&mut start, &[KeyCode::Enter, KeyCode::Enter]);
    assert!(start.told.is_none() && start.leaves.len() == 2, "what can't be done does nothing");
    press(&mut start, &[KeyCode::End, KeyCode::Up, KeyCode::Enter]);
    // Nothing is no name: it is asked for again; and what was typed can be gone back to.
    press(&mut start, &[KeyCode::Enter]);
    for answer in ["bus \"clock\"", "MHz", "7", "1", "12", "8", "11", "up"] {
        start.take(&Event::Paste(format!("{answer}\u{1b}\n")));
        press(&mut start, &[KeyCode::Enter]);
    }
    let seen = picture(&start, 120, 30);
    assert!(!seen.contains("Add one below.") && !seen.contains('\u{1b}'), "{seen}");
    assert!(start.known.as_ref().is_some_and(|known| known.rig.setting("bus__clock_").is_some()));
}

#[test]
fn nothing_that_was_typed_is_lost_when_it_makes_no_setting() {
    let folder = tempfile::tempdir().expect("a folder");
    let mut start = start(folder.path().to_owned(), 0);
    start.page.rigs =
        vec![KnownRig::of(Origin::ThisMachine, "format = 1\n[rig]\nname = \"bare\"\n".into()).expect("a rig")];
    start.leaves[0].0 = super::steps::first(&start.page);
    press(&mut start, &[KeyCode::Enter, KeyCode::End, KeyCode::Up, KeyCode::Enter]);
    for answer in ["bus clock", "MHz", "7", "1", "12", "8.5", "11", "up"] {
        start.take(&Event::Paste(answer.into()));
        press(&mut start, &[KeyCode::Enter]);
    }
    assert!(picture(&start, 160, 30).contains("that makes no setting"));
    press(&mut start, &[KeyCode::Esc, KeyCode::Esc]);
    assert_eq!(start.prompt.as_ref().map(|prompt| prompt.input.value()), Some("8.5"), "the stock value can be mended");
    press(&mut start, &[KeyCode::Backspace, KeyCode::Backspace, KeyCode::Enter]);
    for answer in ["11", "up"] {
        start.take(&Event::Paste(answer.into()));
        press(&mut start, &[KeyCode::Enter]);
    }
    assert!(start.known.as_ref().is_some_and(|known| known.rig.setting("bus_clock").is_some()));
}

#[test]
fn a_line_of_a_boot_file_is_asked_for_and_its_review_says_which_file_is_written() {
    let (folder, root) = (tempfile::tempdir().expect("a folder"), tempfile::tempdir().expect("a root"));
    std::fs::create_dir(root.path().join("boot")).expect("made");
    std::fs::write(root.path().join("boot/config.txt"), "core_mhz=1500\n").expect("written");
    let mut start = start(folder.path().to_owned(), 0);
    start.root = root.path().to_owned();
    start.page.rigs =
        vec![KnownRig::of(Origin::ThisMachine, "format = 1\n[rig]\nname = \"board\"\n".into()).expect("a rig")];
    start.leaves[0].0 = super::steps::first(&start.page);
    press(&mut start, &[KeyCode::Enter, KeyCode::End, KeyCode::Enter]);
    for answer in [
        "core clock",
        "config.txt",
        "/boot/config.txt",
        "core_mhz",
        "",
        "MHz",
        "1500",
        "25",
        "2400",
        "1500",
        "2000",
        "up",
    ] {
        // The second is no whole path and stays to be mended.
        press(&mut start, &[KeyCode::Backspace; 10]);
        start.take(&Event::Paste(answer.into()));
        press(&mut start, &[KeyCode::Enter]);
    }
    assert!(start.prompt.is_none(), "{}", picture(&start, 120, 30));
    press(&mut start, &[KeyCode::Enter, KeyCode::Enter]);
    let review = picture(&start, 160, 40);
    assert!(review.contains("before it begins") && review.contains("/boot/config.txt"), "{review}");
    assert!(review.contains("restart"), "each value needs one: {review}");
    assert_eq!(std::fs::read_to_string(root.path().join("boot/config.txt")).expect("read"), "core_mhz=1500\n");
}
