//! A climb that is killed at any moment loses nothing, does nothing twice, and is told what happened.

mod common;

use std::collections::BTreeSet;
use std::path::Path;
use std::process::Stdio;
use std::time::Duration;

use common::{Home, demo, json_lines, of_kind, output};
use periculum_core::engine::{Entry, Event};
use periculum_core::verdict::Verdict;
use periculum_ledger::{Ledger, Line};

const KILLS: usize = 100;

/// Random enough for moments to die at.
fn moments() -> impl Iterator<Item = Duration> {
    let mut state = 0x2545_f491_4f6c_dd1d_u64;
    std::iter::from_fn(move || {
        state ^= state << 13;
        state ^= state >> 7;
        state ^= state << 17;
        Some(Duration::from_micros(15_000 + state % 90_000))
    })
}

/// Every trial has one beginning and one end, in order, and what the tables say is what the journal says.
fn check_record(ledger: &Ledger, lines: &[Line]) {
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
    let rows = ledger.trials(1).expect("trials");
    assert_eq!(rows.len(), begun as usize);
    assert_eq!(rows.into_iter().filter_map(|row| row.verdict).collect::<Vec<_>>(), verdicts);
    assert_eq!(ledger.incidents(1).expect("incidents").len(), incidents);
}

#[test]
fn a_climb_killed_a_hundred_times_comes_to_its_end() {
    let home = Home::new();
    let plan = demo("dome.plan.toml");
    let climb = ["climb", plan.to_str().expect("a path"), "--headless", "--pace", "1500"];
    let resume = ["resume", "--headless", "--pace", "1500"];
    let mut killed = 0;
    for (round, moment) in moments().take(KILLS).enumerate() {
        let arguments: &[&str] = if home.ledger().exists() && has_climb(&home.ledger()) { &resume } else { &climb };
        let mut child =
            home.periculum().args(arguments).stdout(Stdio::null()).stderr(Stdio::null()).spawn().expect("started");
        std::thread::sleep(moment);
        child.kill().expect("killed");
        if child.wait().expect("ended").code().is_some() {
            assert!(round > 5, "it was over before it could be killed");
            break;
        }
        killed += 1;
    }
    assert!(killed > 5);
    if Ledger::open(&home.ledger()).expect("a ledger").unfinished().expect("read").is_some() {
        output(home.periculum().args(resume).args(["--pace", "max"]).env("PERICULUM_LOG", "warn"));
    }

    let ledger = Ledger::open(&home.ledger()).expect("a ledger");
    assert_eq!(ledger.dropped(), []);
    assert_eq!(ledger.climbs().expect("climbs").len(), 1);
    let lines = ledger.lines(1).expect("lines");
    check_record(&ledger, &lines);

    // Every time the climb was taken up again it was told so, and every death in a trial is an incident of it.
    let restarts = lines.iter().filter(|line| matches!(line.event, Event::Restarted { .. }));
    for line in restarts {
        let told = line
            .entries
            .iter()
            .any(|entry| matches!(entry, Entry::Incident { incident, .. } if incident.evidence.contains("same boot")));
        assert!(told, "{line:?}");
    }
    let Some(Entry::Ended { marks, trials, falls, .. }) = lines.last().and_then(|line| line.entries.last()) else {
        panic!("it did not end");
    };
    let rows = ledger.trials(1).expect("trials");
    let count = |verdict: Verdict| rows.iter().filter(|row| row.verdict.as_deref() == Some(verdict.name())).count();
    assert_eq!((*trials as usize, *falls as usize), (rows.len(), count(Verdict::Fell)));
    assert!(count(Verdict::Void) > 0, "no trial was ever broken off");
    let proved: BTreeSet<u32> = marks.iter().map(|mark| mark.trial).collect();
    for trial in proved {
        assert_eq!(rows[trial as usize - 1].verdict.as_deref(), Some("held"));
    }
}

fn has_climb(ledger: &Path) -> bool {
    Ledger::open(ledger).is_ok_and(|ledger| ledger.unfinished().is_ok_and(|climb| climb.is_some()))
}

/// Breaks a climb off in the middle of a pass and leaves the machine under this boot.
fn broken_off(home: &Home, boot: &str) {
    sysroot(home, boot, 1_000_000_000);
    let mut child = home
        .periculum()
        .arg("climb")
        .arg(demo("dome.plan.toml"))
        .args(["--headless", "--json", "--pace", "40", "--sysroot"])
        .arg(home.path("root"))
        .stdout(Stdio::piped())
        .spawn()
        .expect("started");
    let output = std::io::BufReader::new(child.stdout.take().expect("output"));
    let is_far = |line: std::io::Result<String>| line.is_ok_and(|line| line.contains("\"done\":60000"));
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
