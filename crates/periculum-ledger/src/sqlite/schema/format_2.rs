//! Format 2: profiles, which are made from the journal, and those that are applied at start.

use rusqlite::Transaction;

use crate::error::LedgerError;

const TABLES: &str = "
CREATE TABLE profiles (
    climb INTEGER NOT NULL,
    name TEXT NOT NULL,
    rung TEXT NOT NULL,
    trial INTEGER,
    stage INTEGER,
    soaked INTEGER NOT NULL,
    PRIMARY KEY (climb, name)
) WITHOUT ROWID;
CREATE TABLE armed (
    rig TEXT PRIMARY KEY,
    climb INTEGER NOT NULL,
    name TEXT NOT NULL,
    starting INTEGER NOT NULL
) WITHOUT ROWID;
";

/// Before there were profiles, no journal had one.
pub(super) fn bring_up(transaction: &Transaction) -> Result<(), LedgerError> {
    Ok(transaction.execute_batch(TABLES)?)
}
