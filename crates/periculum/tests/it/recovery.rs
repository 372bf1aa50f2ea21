//! A climb that is killed at any moment loses nothing, does nothing twice, and is told what happened.

use std::process::Stdio;

use crate::common::{Home, demo, json_lines, of_kind, output};
use periculum_core::engine::{Entry, Event};
use periculum_core::model::verdict::Verdict;
use periculum_ledger::{Ledger, Line};

const KILLS: usize = 100;

/// After how many lines it is killed; random enough for moments to die at.
fn moments() -> impl Iterator<Item = usize> {
    let mut state = 0x2545_f491_4f6c_dd1d_u64;
    std::iter::from_fn(move || {
        state ^= state << 13;
        state ^= state >> 7;
        state ^= state << 17;
        Some(1 + (state % 160) as usize)
    })
}

/// Kills a child when it has said so many lines; it can't run far ahead of who listens. Tells whether it was killed.
fn killed_after(command: &mut std::process::Command, lines: usize) -> bool {
    let mut child = command.stdout(Stdio::piped()).stderr(Stdio::null()).spawn().expect("started");
    let output = std::io::BufReader::new(child.stdout.take().expect("its output"));
    std::io::BufRead::lines(output).take(lines).for_each(drop);
    child.kill().expect("killed");
    child.wait().expect("ended").code().is_none()
}

/// Every trial has one beginning and one end, in order, and what the tables say is what the journal says.
fn check_record(ledger: &Ledger, climb: i64, lines: &[Line]) {
    let (mut open, mut begun) = (None, 0);
    let mut verdicts = Vec::new();
    let mut incidents = 0;
    for entry in lines.iter().flat_map(|line| &line.entries) {
        match entry {
            Entry::TrialBegan { trial, .. } => {
                assert_eq!((open, *trial), (None, begun + 1));
                (open, begun) = (Some(*trial), *trial);
            }
            Entry::TrialEnded { trial, verdict, .. } => {
                assert_eq!(open.take(), Some(*trial));
                verdicts.push(verdict.name().to_owned());
            }
            Entry::Incident { .. } => incidents += 1,
            _ => {}
        }
    }
    let rows = ledger.trials(climb).expect("trials");
    assert_eq!(rows.len(), begun as usize);
    assert_eq!(rows.into_iter().filter_map(|row| row.verdict).collect::<Vec<_>>(), verdicts);
    assert_eq!(ledger.incidents(climb).expect("incidents").len(), incidents);
}

#[test]
fn climbs_killed_a_hundred_times_come_to_their_ends() {
    let home = Home::new();
    let plan = demo("dome.plan.toml");
    let climb = ["climb", plan.to_str().expect("a path"), "--json"];
    let resume = ["resume", "--json"];
    let mut moments = moments();
    let mut killed = 0;
    while killed < KILLS {
        let is_begun = Ledger::open(&home.ledger()).expect("a ledger").unfinished().expect("read").is_some();
        let arguments: &[&str] = if is_begun { &resume } else { &climb };
        killed += usize::from(killed_after(home.periculum().args(arguments), moments.next().expect("a moment")));
    }
    // Deaths may have condemned stock itself, which is no success.
    home.periculum().args(["resume", "--headless"]).output().expect("started");

    let ledger = Ledger::open(&home.ledger()).expect("a ledger");
    assert_eq!(ledger.dropped(), []);
    let climbs = ledger.climbs().expect("climbs");
    let taken_up: usize = climbs.iter().map(|row| check_climb(&ledger, row.climb)).sum();
    assert!(taken_up > KILLS / 2, "only {taken_up} deaths came in the middle of a climb");
}

/// What was broken off changes no luck: the same rungs hold as where nothing had died.
#[test]
fn an_interrupted_climb_ends_with_the_marks_of_an_undisturbed_one() {
    let plan = demo("dome.plan.toml").display().to_string();
    let marks = |home: &Home| {
        let ledger = Ledger::open(&home.ledger()).expect("a ledger");
        let lines = ledger.lines(1).expect("lines");
        let Some(Entry::Ended { marks, .. }) = lines.last().and_then(|line| line.entries.last()) else {
            panic!("it did not end")
        };
        marks.iter().map(|mark| mark.rung.clone()).collect::<Vec<_>>()
    };
    let undisturbed = Home::new();
    output(undisturbed.periculum().args(["climb", &plan, "--json", "--seed", "5"]));
    let disturbed = Home::new();
    killed_after(disturbed.periculum().args(["climb", &plan, "--json", "--seed", "5"]), 500);
    // No two deaths at one rung without a verdict between, which would condemn it.
    for lines in [900, 1300, 700] {
        killed_after(disturbed.periculum().args(["resume", "--json"]), lines);
    }
    disturbed.periculum().args(["resume", "--json"]).output().expect("started");
    assert_eq!(marks(&disturbed), marks(&undisturbed));
}

/// Checks a climb that has ended, and tells how often it was taken up again.
fn check_climb(ledger: &Ledger, climb: i64) -> usize {
    let lines = ledger.lines(climb).expect("lines");
    check_record(ledger, climb, &lines);
    // Every time the climb was taken up again it was told so, and every death is an incident.
    let restarts: Vec<&Line> = lines.iter().filter(|line| matches!(line.event, Event::Restarted { .. })).collect();
    for line in &restarts {
        let is_told = |entry: &Entry| matches!(entry, Entry::Incident { incident, .. } if incident.evidence.to_string().contains("same boot"));
        assert!(line.entries.iter().any(is_told), "{line:?}");
    }
    let Some(Entry::Ended { marks, trials, falls, .. }) = lines.last().and_then(|line| line.entries.last()) else {
        panic!("climb {climb} did not end");
    };
    let rows = ledger.trials(climb).expect("trials");
    let fell = rows.iter().filter(|row| row.verdict.as_deref() == Some(Verdict::Fell.name())).count();
    assert_eq!((*trials as usize, *falls as usize), (rows.len(), fell));
    for mark in marks {
        assert_eq!(rows[mark.trial as usize - 1].verdict.as_deref(), Some("held"));
    }
    restarts.len()
}

/// Breaks a climb off in the middle of a pass and leaves the machine under this boot.
fn broken_off(home: &Home, boot: &str) {
    sysroot(home, boot, 1_000_000_000);
    let mut child = home
        .periculum()
        .arg("climb")
        .arg(demo("dome.plan.toml"))
        .args(["--headless", "--json", "--pace", "15", "--sysroot"])
        .arg(home.path("root"))
        .stdout(Stdio::piped())
        .spawn()
        .expect("started");
    let output = std::io::BufReader::new(child.stdout.take().expect("output"));
    let is_far = |line: std::io::Result<String>| {
        let told: serde_json::Value = serde_json::from_str(&line.expect("a line")).expect("JSON");
        told["done"].as_u64().is_some_and(|done| done >= 60_000)
    };
    assert!(std::io::BufRead::lines(output).any(is_far));
    child.kill().expect("killed");
    child.wait().expect("ended");
}

fn sysroot(home: &Home, boot: &str, boot_time: u64) {
    let random = home.path("root/proc/sys/kernel/random");
    std::fs::create_dir_all(&random).expect("a folder");
    std::fs::write(random.join("boot_id"), format!("{boot}\n")).expect("written");
    std::fs::write(home.path("root/proc/stat"), format!("cpu 1 2 3 4 5 6 7 8\nbtime {boot_time}\n")).expect("written");
}

fn resumed(home: &Home) -> Vec<serde_json::Value> {
    let mut resume = home.periculum();
    resume.args(["resume", "--headless", "--json", "--sysroot"]).arg(home.path("root"));
    // A trial that falls at stock ends the climb, which is no success.
    json_lines(&String::from_utf8(resume.output().expect("started").stdout).expect("text"))
}

#[test]
fn another_boot_means_that_the_machine_died_and_the_trial_fell() {
    let now = u64::try_from(jiff::Timestamp::now().as_second()).expect("after 1970");
    for (boot, boot_time, kind, verdict) in [
        ("first", now, "load-died", "void"),
        ("second", now, "restart", "fell"),
        ("third", now + 7200, "freeze", "fell"),
    ] {
        let home = Home::new();
        broken_off(&home, "first");
        sysroot(&home, boot, boot_time);
        let lines = resumed(&home);
        let incident = of_kind(&lines, "incident")[0];
        assert_eq!((&incident["incident"], &incident["trial"]), (&kind.into(), &1.into()), "{boot}");
        let lived = incident["into_pass"].as_u64().expect("how long it lived");
        assert!((30_000..=90_000).contains(&lived), "{lived} ms");
        assert_eq!(of_kind(&lines, "trial-ended")[0]["verdict"], verdict, "{boot}");
        assert_eq!(lines.last().expect("a last line")["kind"], "ended");
    }
}

#[test]
fn a_climb_that_runs_is_not_taken_up_by_another_process() {
    let home = Home::new();
    let mut child = home
        .periculum()
        .arg("climb")
        .arg(demo("dome.plan.toml"))
        .args(["--headless", "--json", "--pace", "1"])
        .stdout(Stdio::piped())
        .spawn()
        .expect("started");
    let output = std::io::BufReader::new(child.stdout.take().expect("output"));
    assert!(std::io::BufRead::lines(output).any(|line| line.expect("a line").contains("pass-began")));
    let refused = home.periculum().args(["resume", "--headless"]).output().expect("started");
    child.kill().expect("killed");
    child.wait().expect("ended");
    assert_eq!(refused.status.code(), Some(1));
    assert!(String::from_utf8_lossy(&refused.stderr).contains("another periculum is climbing"));
}

/// Starts a command of this home below its root, and kills it when it has said this.
fn killed_at(home: &Home, arguments: &[&str], said: &str) {
    let mut command = home.periculum();
    command.args(arguments).args(["--headless", "--json", "--sysroot"]).arg(home.path("root"));
    let mut child = command.stdout(Stdio::piped()).spawn().expect("started");
    let output = std::io::BufReader::new(child.stdout.take().expect("output"));
    assert!(std::io::BufRead::lines(output).any(|line| line.is_ok_and(|line| line.contains(said))), "{said}");
    child.kill().expect("killed");
    child.wait().expect("ended");
}

#[test]
fn with_nobody_there_three_restarts_in_a_row_end_the_climb_at_stock() {
    let home = Home::new();
    let plan = demo("dome.plan.toml");
    let boot = |number: u64| sysroot(&home, &format!("boot-{number}"), 1_000_000_000 + number);
    boot(0);
    killed_at(&home, &["climb", &plan.display().to_string(), "--pace", "400"], "\"trial\":4,");
    for number in 1..3 {
        boot(number);
        killed_at(&home, &["resume", "--unattended", "--pace", "1"], "pass-began");
    }
    boot(3);
    let mut resume = home.periculum();
    resume.args(["resume", "--unattended", "--sysroot"]).arg(home.path("root"));
    let last = resume.output().expect("started");
    let said = String::from_utf8(last.stdout).expect("text");
    assert_eq!(last.status.code(), Some(1), "{said}");
    assert!(said.contains("the machine went down 3 times in a row"), "{said}");
    assert!(said.contains("the rig is back at stock"), "{said}");
}

#[test]
fn with_nobody_there_a_climb_goes_on_to_its_end() {
    let home = Home::new();
    sysroot(&home, "first", 1_000_000_000);
    let plan = demo("dome.plan.toml");
    killed_at(&home, &["climb", &plan.display().to_string(), "--pace", "400"], "\"trial\":4,");
    sysroot(&home, "second", 1_000_000_900);
    let said = output(home.periculum().args(["resume", "--unattended", "--sysroot"]).arg(home.path("root")));
    assert!(said.contains("every stage is done"), "{said}");
}
