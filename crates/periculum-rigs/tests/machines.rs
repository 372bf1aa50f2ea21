//! Machines that are not here, as trees of files laid out as the kernel does: what is found on them.
//!
//! A tree is a text, one attribute a line: its path, a colon, and its text, with `|` for the end of a line in it.

use std::fs;

use periculum_core::files::{Document, Problems, rig_file};
use periculum_rigs::linux::{Linux, Setter, rig_text};

fn tree(text: &str) -> tempfile::TempDir {
    let folder = tempfile::tempdir().expect("a folder");
    for line in text.lines().filter(|line| !line.starts_with('#')) {
        let (path, text) = line.split_once(": ").expect("a path and a text");
        let path = folder.path().join(path);
        fs::create_dir_all(path.parent().expect("a folder")).expect("made");
        fs::write(path, text.replace('|', "\n") + "\n").expect("written");
    }
    folder
}

const TREES: [(&str, &str); 6] = [
    ("desktop", include_str!("trees/desktop.txt")),
    ("hybrid", include_str!("trees/hybrid.txt")),
    ("board", include_str!("trees/board.txt")),
    ("graphics", include_str!("trees/graphics.txt")),
    ("counting", include_str!("trees/counting.txt")),
    ("bare", include_str!("trees/bare.txt")),
];

#[test]
fn each_machine_is_described_by_a_rig_file() {
    for (name, text) in TREES {
        let folder = tree(text);
        insta::assert_snapshot!(name, rig_text(folder.path()));
    }
}

/// What is offered as a comment is right as soon as the comment is taken away.
#[test]
fn every_setting_that_is_offered_can_be_taken() {
    for (name, text) in TREES {
        let folder = tree(text);
        let told = rig_text(folder.path());
        let offered = told.lines().skip_while(|line| !line.starts_with("# What can be set here")).skip(2);
        let settings: String = offered
            .take_while(|line| line.starts_with('#'))
            .map(|line| format!("{}\n", line.trim_start_matches(['#', ' '])))
            .collect();
        let rig = format!("{told}\n{settings}");
        let document = Document::parse(&rig).expect("a document");
        let problems = Problems::default();
        let rig = rig_file::read(&document.top(&problems)).expect("a rig");
        assert!(problems.is_empty(), "{name}: {:?}\n{settings}", problems.into_sorted());
        let setter = Setter::of(folder.path(), &rig, &folder.path().join("kept")).expect("all there");
        assert_eq!(
            setter.read_back().in_force,
            rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect()
        );
    }
}

#[test]
fn sensors_are_read_by_their_lasting_names() {
    let folder = tree(TREES[0].1);
    let mut linux = Linux::below(folder.path());
    assert_eq!(linux.reading("hwmon/corechip/temp1"), Some(61.25));
    assert_eq!(linux.reading("hwmon/boardchip/power1"), Some(88.5));
    assert_eq!(linux.reading("clock/3"), Some(3300.0));
    assert_eq!(linux.reading("pressure/cpu"), Some(1.53));
    assert_eq!(linux.reading("graphics/card1/gpu_busy_percent"), Some(7.0));
    assert_eq!(linux.reading("hwmon/nochip/temp1"), None);
    // The kernel may number its devices otherwise at the next start.
    let class = folder.path().join("sys/class/hwmon");
    fs::rename(class.join("hwmon0"), class.join("hwmon7")).expect("renamed");
    assert_eq!(Linux::below(folder.path()).reading("hwmon/corechip/temp1"), Some(61.25));
}

#[test]
fn a_machine_of_garbage_is_described_without_it() {
    for text in ["\u{1b}[31mred\u{1b}[0m", "\"quoted\\\"", "-9223372036854775809", "é"] {
        let garbage = TREES[0].1.lines().map(|line| {
            let (path, _) = line.split_once(": ").unwrap_or((line, ""));
            format!("{path}: {text}\n")
        });
        let folder = tree(&garbage.filter(|line| !line.starts_with('#')).collect::<String>());
        let told = rig_text(folder.path());
        assert!(!told.contains('\u{1b}') && told.contains("format = 1"), "{told}");
        let document = periculum_core::files::Document::parse(&told);
        assert!(document.is_ok(), "{text:?} breaks the file:\n{told}");
    }
}
