//! One process at a time climbs on a rig with a ledger; any number may read it.

use std::os::linux::net::SocketAddrExt;
use std::os::unix::fs::MetadataExt;
use std::os::unix::net::{SocketAddr, UnixListener};
use std::path::{Path, PathBuf};
use std::{fs, io};

use sha2::{Digest, Sha256};

use crate::error::LedgerError;
use crate::rows::ClimbId;

/// The right to climb on a rig with a ledger; it ends with the process, however that dies.
///
/// It is a name in the kernel's abstract socket namespace (unix(7)) made of the file's device and inode and the rig's name: the
/// same by whatever path or link the file is reached, and nothing beside it that could be removed. A lock of the file itself would not do, since
/// closing it would take away the locks that SQLite has on it (fcntl(2)).
#[derive(Debug)]
pub struct Claim {
    _name: UnixListener,
}

impl Claim {
    /// Takes the right for the rig of this name with the ledger at this path.
    ///
    /// # Errors
    /// [`LedgerError::Claimed`] where another process has it.
    pub(crate) fn take(ledger: &Path, rig: &str) -> Result<Self, LedgerError> {
        let failed = |source: io::Error| LedgerError::File { path: ledger.to_owned(), source };
        let file = fs::metadata(ledger).map_err(failed)?;
        // A name of a socket is short, and one of a rig may be long.
        let of_rig = ClimbId::of_bytes(&Sha256::digest(rig));
        let name = format!("periculum ledger {} {} {of_rig}", file.dev(), file.ino());
        let address = SocketAddr::from_abstract_name(name.as_bytes()).map_err(failed)?;
        match UnixListener::bind_addr(&address) {
            Ok(name) => Ok(Self { _name: name }),
            Err(error) if error.kind() == io::ErrorKind::AddrInUse => {
                Err(LedgerError::Claimed { path: ledger.to_owned(), rig: rig.to_owned() })
            }
            Err(error) => Err(failed(error)),
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
