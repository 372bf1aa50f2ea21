//! Format 3: readings packed by sensor, climbs that were checked and are over, on how many threads scores were made and how good
//! they are, what operators wrote down, results that were entered by hand, and whose readings were attached afterwards.

use rusqlite::Transaction;

use crate::error::LedgerError;
use crate::sqlite::samples;

const TABLES: &str = "
CREATE TABLE tail (
    climb INTEGER NOT NULL,
    at INTEGER NOT NULL,
    sensor TEXT NOT NULL,
    value REAL NOT NULL,
    PRIMARY KEY (climb, at, sensor)
) WITHOUT ROWID;
CREATE TABLE runs (
    climb INTEGER NOT NULL,
    at INTEGER NOT NULL,
    until INTEGER NOT NULL,
    sensor TEXT NOT NULL,
    body BLOB NOT NULL
);
CREATE INDEX runs_of_climb ON runs (climb, at);
CREATE TABLE seals (
    climb INTEGER PRIMARY KEY,
    digest BLOB NOT NULL
);
ALTER TABLE passes ADD COLUMN threads TEXT;
DROP TABLE scores;
CREATE TABLE scores (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    pass INTEGER NOT NULL,
    load TEXT NOT NULL,
    threads TEXT NOT NULL,
    value REAL NOT NULL,
    unit TEXT NOT NULL,
    merit REAL NOT NULL,
    PRIMARY KEY (climb, trial, pass)
) WITHOUT ROWID;
CREATE TABLE notes (
    climb INTEGER NOT NULL,
    line INTEGER NOT NULL,
    entry INTEGER NOT NULL,
    trial INTEGER,
    text TEXT NOT NULL,
    PRIMARY KEY (climb, line, entry)
) WITHOUT ROWID;
CREATE TABLE entered (
    entered INTEGER PRIMARY KEY,
    what TEXT NOT NULL,
    value REAL NOT NULL,
    unit TEXT NOT NULL,
    specimen TEXT NOT NULL,
    source TEXT NOT NULL,
    wall INTEGER NOT NULL
);
CREATE TABLE attached (
    climb INTEGER NOT NULL REFERENCES climbs,
    sensor TEXT NOT NULL,
    label TEXT NOT NULL,
    unit TEXT NOT NULL,
    decimals INTEGER NOT NULL,
    source TEXT NOT NULL,
    PRIMARY KEY (climb, sensor)
) WITHOUT ROWID;
";

pub(super) fn bring_up(transaction: &Transaction) -> Result<(), LedgerError> {
    transaction.execute_batch(TABLES)?;
    let has_rows = "SELECT count(*) FROM sqlite_schema WHERE name = 'samples'";
    if transaction.query_row(has_rows, [], |row| row.get::<_, i64>(0))? > 0 {
        samples::pack_rows(transaction)?;
        transaction.execute_batch("DROP TABLE samples")?;
    }
    Ok(())
}
