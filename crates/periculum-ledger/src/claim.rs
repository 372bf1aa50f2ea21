//! One process at a time climbs on a rig with a ledger; any number may read it.

use std::os::linux::net::SocketAddrExt;
use std::os::unix::fs::MetadataExt;
use std::os::unix::net::{SocketAddr, UnixListener};
use std::path::{Path, PathBuf};
use std::time::Duration;
use std::{fs, io, thread};

use sha2::{Digest, Sha256};

use crate::error::LedgerError;

/// The right to climb on a rig with a ledger; it ends with the process, however that dies.
///
/// It is a name in the kernel's abstract socket namespace (unix(7)) made of the file's device and inode and the rig's name: the
/// same by whatever path or link the file is reached, and nothing beside it that could be removed. A lock of the file itself would
/// not do, since closing it would take away the locks that SQLite has on it (fcntl(2)).
#[derive(Debug)]
pub struct Claim {
    _name: UnixListener,
}

/// Whoever only looks whether a right is taken has it for a moment: it is tried so often, so long apart.
const TRIES: u32 = 5;
const APART: Duration = Duration::from_millis(20);

impl Claim {
    /// Whether a process has the right for the rig of this name with the ledger at this path.
    pub(crate) fn is_taken(ledger: &Path, rig: &str) -> bool {
        bound(ledger, rig).is_err_and(|error| error.kind() == io::ErrorKind::AddrInUse)
    }

    /// Takes the right for the rig of this name with the ledger at this path.
    ///
    /// # Errors
    /// [`LedgerError::Claimed`] where another process has it.
    pub(crate) fn take(ledger: &Path, rig: &str) -> Result<Self, LedgerError> {
        for _ in 0..TRIES {
            match bound(ledger, rig) {
                Ok(name) => return Ok(Self { _name: name }),
                Err(error) if error.kind() == io::ErrorKind::AddrInUse => thread::sleep(APART),
                Err(source) => return Err(LedgerError::File { path: ledger.to_owned(), source }),
            }
        }
        Err(LedgerError::Claimed { path: ledger.to_owned(), rig: rig.to_owned() })
    }
}

/// The name that nobody else can have.
fn bound(ledger: &Path, rig: &str) -> io::Result<UnixListener> {
    let file = fs::metadata(ledger)?;
    // A name of a socket is short, and one of a rig may be long.
    let of_rig: String = Sha256::digest(rig).iter().take(16).map(|byte| format!("{byte:02x}")).collect();
    let name = format!("periculum ledger {} {} {of_rig}", file.dev(), file.ino());
    UnixListener::bind_addr(&SocketAddr::from_abstract_name(name.as_bytes())?)
}

/// The file beside a ledger with this ending more.
pub(crate) fn beside(ledger: &Path, ending: &str) -> PathBuf {
    let mut name = ledger.as_os_str().to_owned();
    name.push(".");
    name.push(ending);
    name.into()
}
