//! The interface as somebody wants it, in a real terminal.

use std::fs;

use crate::common::{Home, demo, output};
use crate::terminal::Terminal;

const WANTED: &str = r#"
format = 1
[screen]
theme = "light"
view = "trials"
[calls]
bell = ["end"]
notify = ["end"]
[keys]
C = "!"
q = "Z"
s = "F12"
"#;

fn preferences(home: &Home, text: &str) {
    fs::create_dir_all(home.path("config/periculum")).expect("made");
    home.write("config/periculum/config.toml", text);
}

/// What tmux knows of the terminal.
fn known(terminal: &Terminal, what: &str) -> String {
    output(&mut terminal.tmux(&["display-message", "-p", what]))
}

/// How often the bell was rung: the sign that also ends commands to a terminal, where it ends none.
fn bells(said: &str) -> usize {
    let behind_commands = |part: &str| part.split_once('\u{7}').map_or(String::new(), |(_, behind)| behind.to_owned());
    let mut parts = said.split("\u{1b}]");
    let first = parts.next().unwrap_or_default().to_owned();
    std::iter::once(first).chain(parts.map(behind_commands)).map(|text| text.matches('\u{7}').count()).sum()
}

#[test]
fn view_keys_title_bell_and_copy_are_as_somebody_wants_them() {
    let home = Home::new();
    preferences(&home, WANTED);
    let terminal = Terminal::new(&home, 160, 40);
    assert!(terminal.tmux(&["set", "-g", "set-clipboard", "on"]).status().expect("tmux").success());
    let said = home.path("said");
    let listen = format!("cat >{}", said.display());
    assert!(terminal.tmux(&["pipe-pane", "-o", &listen]).status().expect("tmux").success());
    let before = known(&terminal, "#{pane_title}");
    terminal.run(&format!("periculum climb {} --yes --pace max --seed 11", demo("dome.plan.toml").display()));
    // The list of trials is shown at first, and says which keys there are.
    let screen = terminal.wait_for_all(&["trials   ", "Z leave", "! copy the trial", "done"]);
    assert!(!screen.contains("C copy"), "{screen}");
    assert!(known(&terminal, "#{pane_title}").starts_with("periculum: dome, "));
    let said = String::from_utf8_lossy(&fs::read(said).expect("read")).into_owned();
    assert!(said.contains("\u{1b}]9;dome: the climb is over: 4 700 MHz"), "a notification");
    assert_eq!(bells(&said), 1);
    terminal.press("q");
    terminal.press("!");
    terminal.wait_for("was handed to the terminal to be pasted");
    let pasted = output(&mut terminal.tmux(&["show-buffer"]));
    assert!(pasted.starts_with("trial ") && pasted.lines().count() > 1, "{pasted}");
    terminal.press("Z");
    terminal
        .wait_until("the prompt", |screen| screen.trim_end().lines().last().is_some_and(|it| it.starts_with("ready>")));
    assert_eq!(known(&terminal, "#{pane_title}"), before, "the title is the shell's again");
}

#[test]
fn what_is_wrong_is_told_before_anything_begins() {
    let home = Home::new();
    preferences(&home, "format = 1\n[screen]\ntheme = \"lite\"\n");
    let terminal = Terminal::new(&home, 160, 40);
    terminal.run(&format!("periculum climb {}; echo code $?", demo("night.plan.toml").display()));
    terminal.wait_for_all(&["config.toml:3", "lite", "light", "code 2"]);
    assert!(!home.ledger().exists(), "nothing was begun");
    preferences(&home, WANTED);
    let checked = output(home.periculum().args(["check", "config/periculum/config.toml"]));
    assert_eq!(checked, "config/periculum/config.toml: how the interface is to be\n");
    assert!(output(home.periculum().arg("where")).contains("config/periculum/config.toml"));
}
