//! The tables of a ledger file, format by format: each file here brings one of the format before up to its own.

mod format_1;
mod format_2;
mod format_3;
mod format_4;
mod format_5;
mod format_6;
mod format_7;

use rusqlite::{Connection, Transaction, TransactionBehavior};

use crate::error::LedgerError;
use crate::sqlite::tables;

/// Brings a file of the format before up to another.
type BringUp = fn(&Transaction) -> Result<(), LedgerError>;

/// What brings a file up to each format, from the first.
const FORMATS: [BringUp; 7] = [
    format_1::bring_up,
    format_2::bring_up,
    format_3::bring_up,
    format_4::bring_up,
    format_5::bring_up,
    format_6::bring_up,
    format_7::bring_up,
];

/// The newest format that this version knows, kept in the file's `user_version`.
pub(crate) const FORMAT: i64 = FORMATS.len() as i64;

/// Makes the tables in a new file, brings an older one up, and leaves a newer one alone; tells the format that it has
/// then.
pub(crate) fn prepare(connection: &mut Connection) -> Result<i64, LedgerError> {
    let transaction = connection.transaction_with_behavior(TransactionBehavior::Immediate)?;
    let found: i64 = transaction.query_row("PRAGMA user_version", [], |row| row.get(0))?;
    if found >= FORMAT {
        return Ok(found);
    }
    let known = usize::try_from(found).unwrap_or_default();
    FORMATS.iter().skip(known).try_for_each(|bring_up| bring_up(&transaction))?;
    if known > 0 {
        tables::rebuild_all(&transaction)?;
    }
    transaction.pragma_update(None, "user_version", FORMAT)?;
    transaction.commit()?;
    Ok(FORMAT)
}
