//! Every command: what docs/commands.md says of it is so, and what lists something lists it for other programs too.

use serde_json::Value;

use crate::common::{Home, demo, json_lines, output};

/// The rows of the table: a command, and whether it writes JSON and into a file.
fn table() -> Vec<(String, bool, bool)> {
    let text = std::fs::read_to_string(demo("../docs/commands.md")).expect("read");
    let rows = text.lines().filter(|line| line.starts_with("| `")).map(|line| {
        let cells: Vec<&str> = line.split('|').map(str::trim).collect();
        (cells[1].trim_matches('`').to_owned(), cells[3] == "yes", cells[4] == "yes")
    });
    rows.filter(|(command, ..)| command != "periculum").collect()
}

#[test]
fn the_table_of_commands_is_right() {
    let home = Home::new();
    let help = output(home.periculum().arg("--help"));
    let listed = help.split_once("Commands:").and_then(|(_, rest)| rest.split_once("\n\n")).expect("commands").0;
    // Each stands two columns in; what it does may go on in the next line.
    let commands: Vec<&str> = listed
        .lines()
        .filter(|line| line.starts_with("  ") && !line.starts_with("   "))
        .filter_map(|line| line.split_whitespace().next())
        .filter(|name| *name != "help")
        .collect();
    let rows = table();
    let mut named: Vec<&str> = rows.iter().map(|(name, ..)| name.as_str()).collect();
    let mut all = commands.clone();
    named.sort_unstable();
    all.sort_unstable();
    assert_eq!(named, all);
    for (command, writes_json, writes_file) in &rows {
        let help = output(home.periculum().args([command, "--help"]));
        assert_eq!(help.contains("--json"), *writes_json, "{command}");
        assert_eq!(help.contains("-o, --output"), *writes_file, "{command}");
    }
    let documented = std::fs::read_to_string(demo("../docs/commands.md")).expect("read");
    let words = |text: &str| text.split_whitespace().collect::<Vec<_>>().join(" ");
    let codes = help.split_once("Exit codes: ").expect("told").1;
    assert!(words(&documented).contains(&words(codes)), "{codes}");
}

#[test]
fn lists_are_objects_for_other_programs() {
    let home = Home::new();
    output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).args(["--headless", "--seed", "11"]));
    let listed = |arguments: &[&str]| json_lines(&output(home.periculum().args(arguments)));
    let climbs = listed(&["ledger", "--json"]);
    assert_eq!((climbs.len(), &climbs[0]["rig"], &climbs[0]["trials"]), (1, &"dome".into(), &24.into()));
    assert_eq!((&climbs[0]["end"]["how"], &climbs[0]["mark"]["core_clock"]), (&"completed".into(), &"4700".into()));
    let of_one = listed(&["ledger", "1", "--check", "--json"]);
    let count = |kind: &str| of_one.iter().filter(|line| line["kind"] == kind).count();
    assert_eq!((count("trial"), count("incident") > 3), (24, true));
    assert!(listed(&["where", "--json"]).iter().any(|kept| kept["is_there"] == true));
    assert!(listed(&["profile", "--json"]).iter().all(|profile| profile["profile"].is_string()));
    output(home.periculum().args(["report", "1", "--bundle", "climb.tar"]));
    assert_eq!(listed(&["verify", "climb.tar", "--json"])[0]["is_whole"], true);

    home.write("bad.rig.toml", "format = 1\n[rig]\nnane = \"x\"\n");
    let checked = home.periculum().args(["check", "bad.rig.toml", "gone.toml", "--json"]).output().expect("started");
    assert_eq!(checked.status.code(), Some(2));
    let checked: Vec<Value> = json_lines(&String::from_utf8(checked.stdout).expect("text"));
    let problems = checked[0]["problems"].as_array().expect("problems");
    assert!(problems.iter().any(|problem| problem["line"] == 3 && problem["column"] == 1), "{problems:?}");
    assert_eq!((&checked[0]["is_good"], &checked[1]["is_good"]), (&false.into(), &false.into()));
}

#[test]
fn what_is_written_goes_to_standard_output_too() {
    let home = Home::new();
    output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).args(["--headless", "--seed", "11"]));
    let said = |arguments: &[&str]| output(home.periculum().args(arguments));
    assert!(said(&["report", "1", "-o", "-"]).starts_with("# "));
    assert!(said(&["report", "1", "-o", "-", "--as", "html"]).starts_with("<!DOCTYPE html>"));
    assert!(said(&["report", "1", "-o", "-", "--picture", "map"]).contains("<svg "));
    assert!(said(&["export", "1", "trials", "-o", "-"]).starts_with("trial,"));
    assert_eq!(json_lines(&said(&["export", "1", "trials", "-o", "-", "--as", "jsonl"])).len(), 24);
    assert!(said(&["export", "1", "marks", "-o", "-"]).ends_with("# EOF\n"));
    said(&["export", "1", "trials", "-o", "odd.name", "--as", "csv"]);
    assert!(home.path("odd.name").exists());
}

#[test]
fn who_is_quiet_says_only_what_other_programs_read() {
    let home = Home::new();
    let plan = demo("dome.plan.toml");
    let climbed = output(home.periculum().arg("climb").arg(&plan).args(["--plain", "--seed", "11", "--quiet"]));
    assert_eq!(climbed, "", "the exit code says that a mark was found");
    for arguments in [&["ledger", "-q"][..], &["ledger", "1", "-q"], &["where", "-q"]] {
        assert_eq!(output(home.periculum().args(arguments)), "", "{arguments:?}");
    }
    assert_eq!(json_lines(&output(home.periculum().args(["ledger", "--json", "--quiet"]))).len(), 1);
    assert!(output(home.periculum().args(["export", "1", "trials", "-o", "-", "--quiet"])).lines().count() > 24);
    let wrong = home.periculum().args(["check", "nowhere.toml", "--quiet"]).output().expect("run");
    assert_eq!((wrong.status.code(), wrong.stdout.is_empty(), wrong.stderr.is_empty()), (Some(2), true, false));
}

#[test]
fn who_wants_more_finds_it_in_the_log() {
    let home = Home::new();
    let both = home.periculum().args(["where", "--quiet", "--verbose"]).output().expect("run");
    assert_eq!(both.status.code(), Some(2), "less and more at once");
    let log = || std::fs::read_to_string(home.path("state/periculum/periculum.log")).expect("a log");
    let climb = |more: &[&str]| {
        let plan = demo("dome.plan.toml");
        output(home.periculum().arg("climb").arg(plan).args(["--headless", "--seed", "11"]).args(more));
    };
    climb(&[]);
    assert!(!log().contains("carrying out"), "{}", log());
    climb(&["--verbose"]);
    assert!(log().contains("carrying out"), "{}", log());
}
