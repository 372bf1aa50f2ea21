//! Format 6: a climb has an identifier of its own, by which it is known wherever its record is kept.
//!
//! That of an earlier climb follows from its head and its texts, so that two copies of a ledger give it the same.

use rusqlite::{Row, Transaction, params};
use sha2::{Digest, Sha256};

use crate::error::LedgerError;
use crate::rows::ClimbId;
use crate::sqlite::checksum::{Sum, check_row};

/// The columns of a head before, and how many stand before its checksum.
const HEADS: &str = "SELECT climb, plan, rig, specimen, use_name, seed, wall, checksum, texts_checksum FROM climbs";
const OF_HEAD: usize = 7;

pub(super) fn bring_up(transaction: &Transaction) -> Result<(), LedgerError> {
    transaction
        .execute_batch("ALTER TABLE climbs ADD COLUMN id TEXT; CREATE UNIQUE INDEX climbs_by_id ON climbs (id);")?;
    let mut select = transaction.prepare(HEADS)?;
    let mut rows = select.query([])?;
    let mut found = Vec::new();
    while let Some(row) = rows.next()? {
        found.push((row.get::<_, i64>(0)?, id(row)?, checksum(row)?));
    }
    for (climb, id, checksum) in found {
        transaction.execute("UPDATE climbs SET id = ? WHERE climb = ?", params![id.as_str(), climb])?;
        if let Some(sum) = checksum {
            let sum = sum.text(id.as_str()).finish();
            transaction.execute("UPDATE climbs SET checksum = ? WHERE climb = ?", params![sum, climb])?;
        }
    }
    Ok(())
}

fn id(row: &Row) -> Result<ClimbId, LedgerError> {
    let sum = Sum::default().columns(row, OF_HEAD + 2)?.finish();
    Ok(ClimbId::of_bytes(&Sha256::digest(sum)))
}

/// What the checksum of a head goes on from; none where the head is not what was written, which its old checksum still tells.
fn checksum(row: &Row) -> Result<Option<Sum>, LedgerError> {
    match check_row(row, OF_HEAD, String::new) {
        Ok(()) => Ok(Some(Sum::default().columns(row, OF_HEAD)?)),
        Err(LedgerError::Altered { .. }) => Ok(None),
        Err(other) => Err(other),
    }
}
