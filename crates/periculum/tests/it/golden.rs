//! Ledgers of earlier formats, as an earlier release left them: each is shown, and goes on where it was.

use std::fs;
use std::path::PathBuf;

use crate::common::{Home, json_lines, of_kind, output};

/// A ledger that was written out as the statements that make it: one climb that is over, one that was killed in the middle,
/// and one that waits for somebody's hands.
const LEDGERS: [(&str, &str); 3] = [
    ("format-3", include_str!("golden/format-3.sql")),
    ("format-4", include_str!("golden/format-4.sql")),
    ("format-5", include_str!("golden/format-5.sql")),
];

fn laid(home: &Home, name: &str, sql: &str) -> PathBuf {
    let path = home.path(&format!("{name}.ledger"));
    let made = rusqlite::Connection::open(&path).and_then(|connection| connection.execute_batch(sql));
    made.unwrap_or_else(|why| panic!("{name}: {why}"));
    path
}

#[test]
fn every_format_is_listed_reported_and_exported() {
    for (name, sql) in LEDGERS {
        let home = Home::new();
        let ledger = laid(&home, name, sql);
        let with = |arguments: &[&str]| output(home.periculum().args(arguments).arg("--ledger").arg(&ledger));
        let list = with(&["ledger"]);
        assert!(list.contains("every stage is done") && list.matches("not finished").count() == 2, "{list}");
        assert!(with(&["ledger", "1"]).contains("fell"), "{name}");
        with(&["report", "1", "-o", "climb.md"]);
        let report = fs::read_to_string(home.path("climb.md")).expect("a report");
        assert!(report.contains("dome") && report.contains("held"), "{report}");
        with(&["export", "2", "trials", "-o", "trials.csv"]);
        assert!(fs::read_to_string(home.path("trials.csv")).expect("a table").lines().count() > 10, "{name}");
    }
}

#[test]
fn every_format_goes_on_where_it_was() {
    for (name, sql) in LEDGERS {
        let home = Home::new();
        let ledger = laid(&home, name, sql);
        let mut resume = home.periculum();
        resume.args(["resume", "2", "--json", "--ledger"]).arg(&ledger);
        let lines = json_lines(&output(&mut resume));
        assert_eq!(lines.last().expect("an end")["kind"], "ended", "{name}");
        assert!(!of_kind(&lines, "mark-set").is_empty(), "{name}");
        // The one that waits for hands asks again, and goes on waiting where nobody is there.
        let mut resume = home.periculum();
        resume.args(["resume", "3", "--headless", "--ledger"]).arg(&ledger).stdin(std::process::Stdio::null());
        let waits = resume.output().expect("started");
        let told = String::from_utf8_lossy(&waits.stdout).into_owned();
        assert_eq!(waits.status.code(), Some(130), "{told}{}", String::from_utf8_lossy(&waits.stderr));
        assert!(told.contains("change multiplier from 36.0 × to 36.5 ×"), "{told}");
    }
}
