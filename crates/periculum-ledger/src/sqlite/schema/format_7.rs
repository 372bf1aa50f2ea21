//! Format 7: a pass may have several scores, each by its own name.

use rusqlite::Transaction;

use crate::error::LedgerError;

const TABLES: &str = "
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
    PRIMARY KEY (climb, trial, pass, load)
) WITHOUT ROWID;
";

pub(super) fn bring_up(transaction: &Transaction) -> Result<(), LedgerError> {
    Ok(transaction.execute_batch(TABLES)?)
}
