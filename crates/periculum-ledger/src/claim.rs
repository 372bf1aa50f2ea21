//! One process at a time climbs with a ledger; any number may read it.

use std::fs::{File, TryLockError};
use std::path::{Path, PathBuf};

use crate::error::LedgerError;

/// The right to climb with a ledger; it ends with the process, however that dies.
#[derive(Debug)]
pub struct Claim {
    _lock: File,
}

impl Claim {
    /// Takes the right for the ledger at this path.
    ///
    /// # Errors
    /// [`LedgerError::Claimed`] where another process has it.
    pub fn take(ledger: &Path) -> Result<Self, LedgerError> {
        let path = beside(ledger, "lock");
        let failed = |source| LedgerError::File { path: path.clone(), source };
        let lock = File::options().create(true).append(true).open(&path).map_err(failed)?;
        match lock.try_lock() {
            Ok(()) => Ok(Self { _lock: lock }),
            Err(TryLockError::WouldBlock) => Err(LedgerError::Claimed { path: ledger.to_owned() }),
            Err(TryLockError::Error(source)) => Err(failed(source)),
        }
    }
}

/// The file beside a ledger with this ending more.
pub(crate) fn beside(ledger: &Path, ending: &str) -> PathBuf {
    let mut name = ledger.as_os_str().to_owned();
    name.push(".");
    name.push(ending);
    name.into()
}
