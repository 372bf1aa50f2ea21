//! Format 5: how a climb ended is kept as data, of which sentences are made when it is read.
//!
//! The table is made from the journal and is made anew; what was sealed has to be checked and sealed again with it.

use rusqlite::Transaction;

use crate::error::LedgerError;

pub(super) fn bring_up(transaction: &Transaction) -> Result<(), LedgerError> {
    transaction.execute("DELETE FROM seals", [])?;
    Ok(())
}
