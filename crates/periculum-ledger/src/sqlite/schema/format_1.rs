//! Format 1: climbs, their journal, and the tables that are made from it.

use rusqlite::Transaction;

use crate::error::LedgerError;

/// Times are milliseconds since the Unix epoch; `at` is by the rig's clock, `wall` by this machine's.
const TABLES: &str = "
CREATE TABLE climbs (
    climb INTEGER PRIMARY KEY,
    plan TEXT NOT NULL,
    rig TEXT NOT NULL,
    specimen TEXT NOT NULL,
    use_name TEXT NOT NULL,
    seed INTEGER,
    plan_text TEXT NOT NULL,
    rig_text TEXT NOT NULL,
    wall INTEGER NOT NULL
);
CREATE TABLE journal (
    climb INTEGER NOT NULL REFERENCES climbs,
    line INTEGER NOT NULL,
    at INTEGER NOT NULL,
    wall INTEGER NOT NULL,
    boot TEXT NOT NULL,
    body TEXT NOT NULL,
    checksum BLOB NOT NULL,
    PRIMARY KEY (climb, line)
) WITHOUT ROWID;
CREATE TABLE dropped (
    climb INTEGER NOT NULL,
    line INTEGER NOT NULL,
    why TEXT NOT NULL,
    body TEXT
);

CREATE TABLE ends (
    climb INTEGER PRIMARY KEY,
    at INTEGER NOT NULL,
    how TEXT NOT NULL,
    trials INTEGER NOT NULL,
    falls INTEGER NOT NULL,
    tested INTEGER NOT NULL
);
CREATE TABLE trials (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    stage INTEGER NOT NULL,
    rung TEXT NOT NULL,
    proof TEXT NOT NULL,
    began INTEGER NOT NULL,
    verdict TEXT,
    incident TEXT,
    tested INTEGER,
    PRIMARY KEY (climb, trial)
) WITHOUT ROWID;
CREATE TABLE passes (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    pass INTEGER NOT NULL,
    load TEXT NOT NULL,
    began INTEGER NOT NULL,
    ran INTEGER,
    rounds INTEGER,
    PRIMARY KEY (climb, trial, pass)
) WITHOUT ROWID;
CREATE TABLE scores (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    pass INTEGER NOT NULL,
    load TEXT NOT NULL,
    value REAL NOT NULL,
    unit TEXT NOT NULL,
    PRIMARY KEY (climb, trial, pass)
) WITHOUT ROWID;
CREATE TABLE incidents (
    climb INTEGER NOT NULL,
    line INTEGER NOT NULL,
    entry INTEGER NOT NULL,
    at INTEGER NOT NULL,
    trial INTEGER,
    pass INTEGER,
    kind TEXT NOT NULL,
    place TEXT,
    into_pass INTEGER,
    evidence TEXT NOT NULL,
    PRIMARY KEY (climb, line, entry)
) WITHOUT ROWID;
CREATE TABLE marks (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    stage INTEGER NOT NULL,
    setting TEXT NOT NULL,
    rung TEXT NOT NULL,
    proof TEXT NOT NULL,
    withdrawn_in INTEGER,
    PRIMARY KEY (climb, trial, stage)
) WITHOUT ROWID;
";

pub(super) fn bring_up(transaction: &Transaction) -> Result<(), LedgerError> {
    Ok(transaction.execute_batch(TABLES)?)
}
