//! Checksums of what is no line of the journal: a flipped bit in any column is noticed when the row is read.

use rusqlite::Row;
use rusqlite::types::ValueRef;
use sha2::{Digest, Sha256};

use crate::error::LedgerError;

/// The columns of a row, one after the other.
#[derive(Default)]
pub(crate) struct Sum(Sha256);

impl Sum {
    pub(crate) fn int(self, value: i64) -> Self {
        self.part(1, &value.to_le_bytes())
    }

    pub(crate) fn real(self, value: f64) -> Self {
        // The database keeps no sign of a zero.
        self.part(2, &(value + 0.0).to_bits().to_le_bytes())
    }

    pub(crate) fn text(self, value: &str) -> Self {
        self.part(3, value.as_bytes())
    }

    pub(crate) fn bytes(self, value: &[u8]) -> Self {
        self.part(4, value)
    }

    /// A value as the database has it.
    pub(crate) fn value(self, value: ValueRef) -> Self {
        match value {
            ValueRef::Null => self.part(0, &[]),
            ValueRef::Integer(value) => self.int(value),
            ValueRef::Real(value) => self.real(value),
            ValueRef::Text(value) => self.part(3, value),
            ValueRef::Blob(value) => self.bytes(value),
        }
    }

    /// The first columns of a row.
    pub(crate) fn columns(self, row: &Row, count: usize) -> rusqlite::Result<Self> {
        (0..count).try_fold(self, |sum, column| Ok(sum.value(row.get_ref(column)?)))
    }

    fn part(mut self, kind: u8, bytes: &[u8]) -> Self {
        self.0.update([kind]);
        self.0.update((bytes.len() as u64).to_le_bytes());
        self.0.update(bytes);
        self
    }

    /// The first half of the SHA-256 of all columns, each with its kind and length.
    pub(crate) fn finish(self) -> [u8; 16] {
        let whole = self.0.finalize();
        let mut half = [0; 16];
        half.copy_from_slice(&whole[..16]);
        half
    }
}

/// Checks a row whose checksum stands behind its other columns.
///
/// # Errors
/// [`LedgerError::Altered`] with this name, where it is not what was written.
pub(crate) fn check_row(row: &Row, columns: usize, what: impl FnOnce() -> String) -> Result<(), LedgerError> {
    let expected = Sum::default().columns(row, columns)?.finish();
    match row.get_ref(columns)? {
        ValueRef::Blob(found) if found == expected => Ok(()),
        _ => Err(LedgerError::Altered { what: what() }),
    }
}
