//! Climbs that are over and were checked: what their lines and tables were then.

use rusqlite::{Connection, OptionalExtension, Transaction, params};

use super::{journal, tables};
use crate::error::LedgerError;

/// Seals the climbs that are over: their lines have been checked.
pub(crate) fn seal(transaction: &Transaction) -> Result<(), LedgerError> {
    let sql = "SELECT climb FROM ends WHERE climb NOT IN (SELECT climb FROM seals)";
    let over: Vec<i64> = transaction.prepare(sql)?.query_map([], |row| row.get(0))?.collect::<Result<_, _>>()?;
    for climb in over {
        let digest = journal::digest(transaction, climb)?;
        let tables = tables::digest(transaction, climb)?;
        let sealed = params![climb, digest.as_slice(), tables];
        transaction.execute("INSERT INTO seals VALUES (?, ?, ?)", sealed)?;
    }
    Ok(())
}

/// Whether a climb is sealed, and its lines are those of then.
///
/// # Errors
/// Where they are others.
pub(crate) fn check(connection: &Connection, climb: i64) -> Result<(), LedgerError> {
    let sql = "SELECT digest FROM seals WHERE climb = ?";
    let sealed: Option<Vec<u8>> = connection.query_row(sql, [climb], |row| row.get(0)).optional()?;
    match sealed {
        Some(sealed) if sealed != journal::digest(connection, climb)?.as_slice() => {
            Err(LedgerError::Damaged { climb, why: "lines of it are missing or others than they were".into() })
        }
        _ => Ok(()),
    }
}
