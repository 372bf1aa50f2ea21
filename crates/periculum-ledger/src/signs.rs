//! Signs of life while a pass runs: a few bytes in place, on the disk twice a second, so that after a sudden death it is known
//! how long the rung lived.

use std::fs::{File, OpenOptions};
use std::io::{self, Read};
use std::os::unix::fs::FileExt;
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::sync::atomic::{AtomicI64, Ordering};
use std::sync::mpsc::{Receiver, RecvTimeoutError, Sender, channel};
use std::thread;
use std::time::{Duration, Instant};

use periculum_core::model::moment::{Moment, Span};
use sha2::{Digest, Sha256};

use crate::claim::beside;

/// How often a sign is written.
const PERIOD: Duration = Duration::from_millis(500);

/// How long after a sign the next one is due at the latest, where nothing keeps the disk busy.
const LEAST_DUE: Duration = Duration::from_millis(1000);

/// How much longer than the longest that one sign took to follow another the next one may take.
const SLACK: f64 = 1.5;

/// Climb, moment, when the next one is due, and the digest of these with the boot.
const LENGTH: usize = 8 + 8 + 8 + 16;

/// A sign of life.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Sign {
    /// When it was given, by the rig's clock.
    pub at: Moment,
    /// How long after it the next one is due at the latest, as far as this disk has shown until then.
    pub next_due: Span,
}

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
        thread::spawn(move || give(&file, climb, &boot, &shared, &ended));
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

/// Gives signs until told otherwise, and learns how far apart the disk lets them be.
fn give(file: &File, climb: i64, boot: &str, shared: &AtomicI64, ended: &Receiver<()>) {
    let (mut written, mut longest, mut looked) = (i64::MIN, PERIOD, Instant::now());
    while ended.recv_timeout(PERIOD) == Err(RecvTimeoutError::Timeout) {
        let (at, looks) = (shared.load(Ordering::Relaxed), Instant::now());
        let sign = Sign { at: Moment::from_millis(at), next_due: due_after(longest) };
        // Who stands still gives no sign.
        if at != written && write(file, climb, sign, boot).is_ok() {
            written = at;
        }
        longest = longest.max(looked.elapsed());
        looked = looks;
    }
}

fn due_after(longest: Duration) -> Span {
    Span::from_millis(LEAST_DUE.max(longest.mul_f64(SLACK)).as_millis() as u64)
}

fn write(file: &File, climb: i64, sign: Sign, boot: &str) -> io::Result<()> {
    file.write_all_at(&encoded(climb, sign, boot), 0)?;
    file.sync_data()
}

fn encoded(climb: i64, sign: Sign, boot: &str) -> [u8; LENGTH] {
    let mut bytes = [0; LENGTH];
    bytes[..8].copy_from_slice(&climb.to_le_bytes());
    bytes[8..16].copy_from_slice(&sign.at.millis().to_le_bytes());
    bytes[16..24].copy_from_slice(&sign.next_due.millis().to_le_bytes());
    let mut digest = Sha256::new();
    digest.update(&bytes[..24]);
    digest.update(boot);
    bytes[24..].copy_from_slice(&digest.finalize()[..16]);
    bytes
}

/// How long after it was heard of last the next sign of this climb was due: the first one where it has given none so far. None
/// where nobody was to give any.
pub(crate) fn next_due(ledger: &Path, last: Option<Sign>) -> Option<Span> {
    path(ledger).exists().then(|| last.map_or(due_after(PERIOD), |sign| sign.next_due))
}

/// The last sign that a climb gave under this boot; none where there is none that is whole.
pub(crate) fn last(ledger: &Path, climb: i64, boot: &str) -> Option<Sign> {
    let mut bytes = [0; LENGTH];
    File::open(path(ledger)).ok()?.read_exact(&mut bytes).ok()?;
    let number = |at: usize| bytes[at..at + 8].try_into().ok();
    let at = Moment::from_millis(i64::from_le_bytes(number(8)?));
    let sign = Sign { at, next_due: Span::from_millis(u64::from_le_bytes(number(16)?)) };
    (bytes == encoded(climb, sign, boot)).then_some(sign)
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
        assert_eq!(super::next_due(&ledger, None), Some(Span::from_millis(1000)), "the first one is due");
        assert_eq!(super::next_due(&folder.path().join("other"), None), None, "nobody was to give any there");
        signs.alive(Moment::from_millis(1234));
        while last(&ledger, 3, "boot-1").is_none() {
            thread::sleep(Duration::from_millis(5));
        }
        let sign = last(&ledger, 3, "boot-1").expect("given");
        assert_eq!(sign.at, Moment::from_millis(1234));
        assert!(sign.next_due >= Span::from_millis(1000), "{}", sign.next_due);
        assert_eq!((last(&ledger, 4, "boot-1"), last(&ledger, 3, "boot-2")), (None, None));
        let mut bytes = std::fs::read(path(&ledger)).expect("read");
        bytes[9] ^= 1;
        std::fs::write(path(&ledger), bytes).expect("written");
        assert_eq!(last(&ledger, 3, "boot-1"), None, "a flipped bit is no sign");
    }

    #[test]
    fn a_slow_disk_lets_the_next_sign_be_due_later() {
        assert_eq!(due_after(PERIOD), Span::from_millis(1000));
        assert_eq!(due_after(Duration::from_millis(1400)), Span::from_millis(2100));
    }
}
