//! Something that one process at a time may have: a name in the kernel's abstract socket namespace (unix(7)), which no file
//! stands for that could be removed, copied or linked, and which ends with the process, however that dies.

use std::io;
use std::os::linux::net::SocketAddrExt;
use std::os::unix::net::{SocketAddr, UnixListener};
use std::path::Path;

/// What is held, until this is dropped.
#[derive(Debug)]
pub struct Hold {
    _name: UnixListener,
}

impl Hold {
    /// Takes the machine whose file systems stand below this root: its settings, its loads, and what is to be put back. None
    /// where another process has it.
    ///
    /// # Errors
    /// When the kernel has no such names.
    pub fn of_machine(root: &Path) -> io::Result<Option<Self>> {
        Self::of(&format!("periculum machine {}", root.display()))
    }

    fn of(name: &str) -> io::Result<Option<Self>> {
        // A name has room for 107 bytes (unix(7)).
        let short: String = name.chars().rev().take(80).collect::<Vec<_>>().into_iter().rev().collect();
        let address = SocketAddr::from_abstract_name(short.as_bytes())?;
        match UnixListener::bind_addr(&address) {
            Ok(name) => Ok(Some(Self { _name: name })),
            Err(error) if error.kind() == io::ErrorKind::AddrInUse => Ok(None),
            Err(error) => Err(error),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_machine_is_held_by_one_and_free_when_it_lets_go() {
        let root = std::env::temp_dir().join(format!("periculum-hold-{}", std::process::id()));
        let first = Hold::of_machine(&root).expect("names");
        assert!(first.is_some());
        assert!(Hold::of_machine(&root).expect("names").is_none(), "somebody has it");
        drop(first);
        assert!(Hold::of_machine(&root).expect("names").is_some());
    }
}
