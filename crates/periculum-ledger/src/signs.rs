//! Signs of life while a pass runs: a few bytes in place, on the disk twice a second, so that after a sudden death it is known
//! how long the rung lived.

use std::fs::{File, OpenOptions};
use std::io::{self, Read};
use std::os::unix::fs::FileExt;
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::sync::atomic::{AtomicI64, Ordering};
use std::sync::mpsc::{RecvTimeoutError, Sender, channel};
use std::thread;
use std::time::Duration;

use periculum_core::moment::{Moment, Span};
use sha2::{Digest, Sha256};

use crate::claim::beside;

/// How often a sign is written.
const PERIOD: Duration = Duration::from_millis(500);

/// How long after the last sign the next one is due at the latest: a period, and what the disk takes.
pub const NEXT_DUE: Span = Span::from_millis(1000);

/// Climb, moment, and the digest of both with the boot.
const LENGTH: usize = 8 + 8 + 16;

/// Whoever keeps giving signs; they end when it is dropped.
#[derive(Debug)]
pub struct SignsOfLife {
    at: Arc<AtomicI64>,
    _ends: Sender<()>,
}

impl SignsOfLife {
    /// Begins to give signs for a climb beside the ledger at this path, under this boot. Nothing is written before the first
    /// [`SignsOfLife::alive`].
    ///
    /// # Errors
    /// When the file beside the ledger can't be written.
    pub fn begin(ledger: &Path, climb: i64, boot: &str) -> io::Result<Self> {
        let file = OpenOptions::new().create(true).truncate(false).write(true).open(path(ledger))?;
        let at = Arc::new(AtomicI64::new(i64::MIN));
        let (ends, ended) = channel::<()>();
        let (shared, boot) = (Arc::clone(&at), boot.to_owned());
        thread::spawn(move || {
            let mut written = i64::MIN;
            while ended.recv_timeout(PERIOD) == Err(RecvTimeoutError::Timeout) {
                let at = shared.load(Ordering::Relaxed);
                // Who stands still gives no sign.
                if at != written && write(&file, climb, at, &boot).is_ok() {
                    written = at;
                }
            }
        });
        Ok(Self { at, _ends: ends })
    }

    /// Says that at this moment, by the rig's clock, all goes on.
    pub fn alive(&self, at: Moment) {
        self.at.store(at.millis(), Ordering::Relaxed);
    }
}

fn path(ledger: &Path) -> PathBuf {
    beside(ledger, "life")
}

fn write(file: &File, climb: i64, at: i64, boot: &str) -> io::Result<()> {
    file.write_all_at(&sign(climb, at, boot), 0)?;
    file.sync_data()
}

fn sign(climb: i64, at: i64, boot: &str) -> [u8; LENGTH] {
    let mut bytes = [0; LENGTH];
    bytes[..8].copy_from_slice(&climb.to_le_bytes());
    bytes[8..16].copy_from_slice(&at.to_le_bytes());
    let mut digest = Sha256::new();
    digest.update(&bytes[..16]);
    digest.update(boot);
    bytes[16..].copy_from_slice(&digest.finalize()[..16]);
    bytes
}

/// When a climb gave its last sign under this boot, by the rig's clock; none where there is none that is whole.
pub(crate) fn last(ledger: &Path, climb: i64, boot: &str) -> Option<Moment> {
    let mut bytes = [0; LENGTH];
    File::open(path(ledger)).ok()?.read_exact(&mut bytes).ok()?;
    let at = i64::from_le_bytes(bytes[8..16].try_into().ok()?);
    (bytes == sign(climb, at, boot)).then(|| Moment::from_millis(at))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_last_sign_is_on_the_disk_and_is_nobody_elses() {
        let folder = tempfile::tempdir().expect("a folder");
        let ledger = folder.path().join("l");
        let signs = SignsOfLife::begin(&ledger, 3, "boot-1").expect("begun");
        assert_eq!(last(&ledger, 3, "boot-1"), None);
        signs.alive(Moment::from_millis(1234));
        while last(&ledger, 3, "boot-1").is_none() {
            thread::sleep(Duration::from_millis(5));
        }
        assert_eq!(last(&ledger, 3, "boot-1"), Some(Moment::from_millis(1234)));
        assert_eq!((last(&ledger, 4, "boot-1"), last(&ledger, 3, "boot-2")), (None, None));
        let mut bytes = std::fs::read(path(&ledger)).expect("read");
        bytes[9] ^= 1;
        std::fs::write(path(&ledger), bytes).expect("written");
        assert_eq!(last(&ledger, 3, "boot-1"), None, "a flipped bit is no sign");
    }
}
