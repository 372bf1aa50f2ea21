//! How commands end: with an exit code that says what came of it, quietly where nobody reads, and at once where nobody could.

use std::fs;
use std::io::Read;
use std::process::{Command, Stdio};

use crate::common::{Home, demo, output};
use rusqlite::Connection;

/// A home with a ledger of one climb.
fn climbed() -> Home {
    let home = Home::new();
    output(home.periculum().arg("climb").arg(demo("dome.plan.toml")).args(["--headless", "--seed", "3"]));
    home
}

fn refused(command: &mut Command, code: i32) -> String {
    let run = command.stdin(Stdio::null()).output().expect("started");
    let told = String::from_utf8_lossy(&run.stderr).into_owned();
    assert_eq!(run.status.code(), Some(code), "{command:?}: {told}{}", String::from_utf8_lossy(&run.stdout));
    told
}

#[test]
fn a_closed_pipe_is_no_reason_to_panic() {
    let home = climbed();
    let rig = demo("dome.rig.toml").display().to_string();
    let plan = demo("dome.plan.toml").display().to_string();
    let commands: [&[&str]; 13] = [
        &["ledger"],
        &["ledger", "1"],
        &["ledger", "--check"],
        &["profile"],
        &["enter"],
        &["attach", "1"],
        &["check", &rig, &plan],
        &["reveal", &rig, "--plan", &plan],
        &["rig"],
        &["restore"],
        &["--help"],
        &["climb", &plan, "--headless"],
        &["climb", &plan, "--json"],
    ];
    for arguments in commands {
        let mut child =
            home.periculum().args(arguments).stdout(Stdio::piped()).stderr(Stdio::piped()).spawn().expect("started");
        drop(child.stdout.take());
        let mut told = String::new();
        child.stderr.take().expect("its errors").read_to_string(&mut told).expect("text");
        let code = child.wait().expect("ended").code();
        assert!(!told.contains("panicked") && code.is_some_and(|code| code < 100), "{arguments:?}: {code:?} {told}");
    }
    // Nobody hears its complaints either.
    let mut child = home.periculum().args(["ledger", "99"]).stderr(Stdio::piped()).spawn().expect("started");
    drop(child.stderr.take());
    assert_eq!(child.wait().expect("ended").code(), Some(2));
}

#[test]
fn a_climb_or_a_ledger_that_there_is_not_is_the_users_mistake() {
    let home = climbed();
    for arguments in [&["ledger", "99"][..], &["report", "99", "-o", "x.pdf"], &["show", "99"]] {
        let told = refused(home.periculum().args(arguments).current_dir(home.path("")), 2);
        assert!(told.contains("no climb 99") || told.contains("needs a terminal"), "{told}");
    }
    let folder = home.path("");
    for no_ledger in ["/dev/null", &folder.display().to_string()] {
        let told = refused(home.periculum().args(["ledger", "1", "--ledger", no_ledger]), 2);
        let plan = demo("dome.plan.toml");
        let climb = refused(home.periculum().arg("climb").arg(plan).args(["--headless", "--ledger", no_ledger]), 2);
        assert!(told.contains("there is no ledger") && climb.contains("can't be a ledger"), "{told}{climb}");
    }
}

#[test]
fn without_a_terminal_nothing_is_begun() {
    let home = Home::new();
    let plan = demo("dome.plan.toml").display().to_string();
    for arguments in [&["climb", &plan][..], &["demo"]] {
        let told = refused(home.periculum().args(arguments), 2);
        assert!(told.contains("needs a terminal") && told.contains("--headless"), "{told}");
    }
    assert!(!home.ledger().exists() && !home.path("data/periculum/demo.ledger").exists());
}

#[test]
fn a_climb_that_asks_nobody_needs_no_standard_input() {
    let home = Home::new();
    let mut climb = home.periculum();
    climb.arg("climb").arg(demo("dome.plan.toml")).arg("--headless").stdin(Stdio::null());
    assert!(output(&mut climb).contains("every stage is done"));
}

#[test]
fn a_ledger_that_is_not_there_is_not_made_by_reading_it() {
    let home = Home::new();
    let missing = home.path("none.ledger");
    for arguments in [
        &["ledger"][..],
        &["show"],
        &["export", "1", "trials", "-o", "x.csv"],
        &["report", "1", "-o", "x.md"],
        &["resume", "--headless"],
    ] {
        let told = refused(home.periculum().args(arguments).arg("--ledger").arg(&missing), 2);
        assert!(told.contains("there is no ledger"), "{told}");
        assert!(refused(home.periculum().args(arguments), 2).contains("there is no climb so far"));
    }
    assert!(!missing.exists() && !home.ledger().exists());
}

#[test]
fn a_climb_is_chosen_by_its_number_and_one_that_is_over_is_not_resumed() {
    let home = climbed();
    let told = refused(home.periculum().args(["resume", "1", "--headless"]), 2);
    assert!(told.contains("climb 1 is over") && told.contains("`periculum climb --again 1`"), "{told}");
    assert!(refused(home.periculum().args(["resume", "7", "--headless"]), 2).contains("there is no climb 7"));
}

#[test]
fn the_demos_ledger_has_a_name() {
    let home = climbed();
    fs::rename(home.ledger(), home.path("data/periculum/demo.ledger")).expect("renamed");
    assert!(output(home.periculum().args(["ledger", "--ledger", "demo"])).contains("first light"));
    // A folder is no ledger, as where this program is built.
    fs::create_dir(home.path("demo")).expect("made");
    assert!(output(home.periculum().args(["ledger", "--ledger", "demo"])).contains("first light"));
}

#[test]
fn a_climb_without_a_mark_ends_with_a_code_of_its_own() {
    let home = Home::new();
    let plan = fs::read_to_string(demo("dome.plan.toml")).expect("read");
    let rig = fs::read_to_string(demo("dome.rig.toml")).expect("read");
    home.write("dome.rig.toml", &rig);
    // One hour of passes is spent by the baseline alone.
    home.write("short.plan.toml", &format!("{plan}\n[budget]\nhours = 0.04\n"));
    let run = home.periculum().args(["climb", "short.plan.toml", "--headless"]).output().expect("started");
    let told = String::from_utf8_lossy(&run.stdout).into_owned();
    assert_eq!(run.status.code(), Some(3), "{told}{}", String::from_utf8_lossy(&run.stderr));
}

#[test]
fn a_score_that_is_not_sure_enough_says_so() {
    let home = Home::new();
    let score = ["score", "latency", "--for", "1s", "--repeats", "2", "--within", "0.0000001"];
    let told = refused(home.periculum().args(score), 4);
    assert!(told.contains("not known within") && told.contains("latency"), "{told}");
    let told = refused(home.periculum().args(["score", "dens"]), 2);
    assert!(told.contains("there is no benchmark `dens`"), "{told}");
}

#[test]
fn what_a_newer_version_wrote_is_left_as_it_is() {
    let home = climbed();
    let connection = Connection::open(home.ledger()).expect("opened");
    let count =
        || connection.query_row("SELECT count(*) FROM journal", [], |row| row.get::<_, i64>(0)).expect("counted");
    // Reopened climbs are read again: take its seal and its end, and let its last line say something new.
    let (line, at, wall, boot, body): (i64, i64, i64, String, String) = connection
        .query_row("SELECT line, at, wall, boot, body FROM journal ORDER BY line DESC LIMIT 1", [], |row| {
            Ok((row.get(0)?, row.get(1)?, row.get(2)?, row.get(3)?, row.get(4)?))
        })
        .expect("a line");
    let body = body.replacen("\"kind\":\"", "\"kind\":\"from-the-future-", 1);
    let mut digest = <sha2::Sha256 as sha2::Digest>::new();
    for number in [1, line, at, wall, boot.len() as i64] {
        sha2::Digest::update(&mut digest, number.to_le_bytes());
    }
    sha2::Digest::update(&mut digest, boot.as_bytes());
    sha2::Digest::update(&mut digest, body.as_bytes());
    let checksum = sha2::Digest::finalize(digest);
    connection
        .execute(
            "UPDATE journal SET body = ?, checksum = ? WHERE line = ?",
            rusqlite::params![body, &checksum[..], line],
        )
        .expect("changed");
    connection.execute_batch("DELETE FROM seals; DELETE FROM ends;").expect("reopened");
    let before = count();
    let run = home.periculum().arg("ledger").output().expect("started");
    let told = String::from_utf8_lossy(&run.stderr).into_owned();
    assert!(run.status.success() && told.contains("a newer version wrote line"), "{told}");
    let told = refused(home.periculum().arg("climb").arg(demo("dome.plan.toml")).arg("--headless"), 1);
    assert!(told.contains("only read by this version"), "{told}");
    assert_eq!(count(), before, "nothing was moved");
}
