//! A climb that is led by lines, without the interface, from standard input and from a file.

use std::io::Write;
use std::process::{Output, Stdio};

use crate::common::{Home, demo, json_lines, of_kind, output};

/// What comes of these lines, piped in all at once.
fn led(home: &Home, arguments: &[&str], lines: &str) -> Output {
    let mut command = home.periculum();
    command.arg("climb").arg(demo("lead.plan.toml")).args(["--seed", "5"]).args(arguments);
    command.stdin(Stdio::piped()).stdout(Stdio::piped()).stderr(Stdio::piped());
    let mut child = command.spawn().expect("started");
    child.stdin.take().expect("piped").write_all(lines.as_bytes()).expect("heard");
    child.wait_with_output().expect("ended")
}

#[test]
fn lines_that_are_piped_in_wait_for_their_turns() {
    let home = Home::new();
    let lines =
        "take\ntry core_clock=4600 proof=firm\nback\nsave evening\ntry core_clock=4 700 core_voltage=1,27\nmark\nend\n";
    let led = led(&home, &["--json"], lines);
    assert!(led.status.success(), "{}", String::from_utf8_lossy(&led.stderr));
    let lines = json_lines(&String::from_utf8_lossy(&led.stdout));
    let trials: Vec<(String, String)> = of_kind(&lines, "trial-began")
        .into_iter()
        .map(|line| (line["rung"].to_string(), line["proof"].to_string()))
        .collect();
    let proofs: Vec<&str> = trials.iter().map(|(_, proof)| proof.as_str()).collect();
    assert_eq!(proofs, ["\"quick\"", "\"firm\"", "\"firm\"", "\"firm\""], "a proof stays chosen");
    assert!(trials[3].0.contains("4700") && trials[3].0.contains("1.27"), "{}", trials[3].0);
    assert_eq!(of_kind(&lines, "profile-saved")[0]["profile"]["name"], "evening");
    assert_eq!(of_kind(&lines, "mark-set").len(), 2, "what is saved is a mark, and none is one twice");
    let question = &of_kind(&lines, "asked")[0];
    let answers: Vec<&str> =
        question["answers"].as_array().expect("answers").iter().filter_map(|it| it.as_str()).collect();
    assert_eq!(answers, ["take", "try", "end", "stop", "stop-at-mark", "leave"]);
}

#[test]
fn each_wrong_line_says_why_and_the_turn_stands() {
    let home = Home::new();
    let wrong =
        "try core_clock=9000\ntry core_clock=4710\ntry clock=1\ntry proof=none\nmark\nback\nfoo\ntry 4700\nsave\n";
    let led = led(&home, &["--headless"], &format!("{wrong}take\nend\n"));
    let (said, complained) = (String::from_utf8_lossy(&led.stdout), String::from_utf8_lossy(&led.stderr));
    for told in [
        "core clock 9 000 MHz is above its ceiling of 5 100 MHz",
        "core clock has no 4 710 MHz; the nearest is 4 700 MHz or 4 725 MHz",
    ] {
        assert!(said.contains(told), "{told}\n{said}\n{complained}");
    }
    for told in [
        "nothing called `clock`",
        "`none` is none of quick, firm",
        "`mark` can't be said now",
        "`back` can't be said now",
        "`foo` is no answer",
        "`try 4700` is no answer",
        "`save` is no answer",
    ] {
        assert!(complained.contains(told), "{told}\n{said}\n{complained}");
    }
    assert!(said.contains("that was enough, after 1 trial"), "{said}");
}

#[test]
fn a_turn_that_nobody_answers_waits_and_another_climb_starts_from_what_was_saved() {
    let home = Home::new();
    led(&home, &["--headless"], "try core_clock=4500\nsave evening\n");
    assert!(output(home.periculum().arg("ledger")).contains("not finished"));
    let answers = home.write("answers", "end\n");
    let resumed = output(home.periculum().args(["resume", "--headless", "--answers"]).arg(answers));
    assert!(resumed.contains("held quick") || resumed.contains("is done"), "{resumed}");
    std::fs::copy(demo("dome.rig.toml"), home.path("dome.rig.toml")).expect("copied");
    let plan = std::fs::read_to_string(demo("lead.plan.toml")).expect("read");
    let plan =
        home.write("on.plan.toml", &plan.replace("strategy = \"lead\"", "strategy = \"lead\"\nstart = \"evening\""));
    assert!(output(home.periculum().arg("check").arg(&plan)).contains("lead"));
    let answers = home.write("answers", "take\nend\n");
    let climbed = output(home.periculum().arg("climb").arg(&plan).args(["--headless", "--answers"]).arg(answers));
    assert!(climbed.contains("4 500 MHz at 1.250 V  quick"), "{climbed}");
}

#[test]
fn where_everything_is_kept_is_told_whether_it_is_there_or_not() {
    let home = Home::new();
    let told = output(home.periculum().arg("where"));
    assert_eq!(told.lines().count(), 6, "{told}");
    assert!(told.lines().next().is_some_and(|line| line.contains("not there so far")), "{told}");
    led(&home, &["--headless"], "end\n");
    let told = output(home.periculum().arg("where"));
    let ledger = told.lines().next().expect("a line");
    assert!(ledger.contains(&home.ledger().display().to_string()) && !ledger.contains("not there"), "{told}");
}
