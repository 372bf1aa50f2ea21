//! A stretch of a pass in which some cores work at once.

use std::sync::atomic::{AtomicBool, Ordering};
use std::thread;
use std::time::{Duration, Instant};

use super::gate::Gate;
use super::reference::Agreement;

/// The longest that a core rests at a time in the warm-up.
const LONGEST_REST: Duration = Duration::from_millis(500);

/// Some cores working on problems of one size for some time.
pub(super) struct Stint {
    pub(super) cores: Vec<usize>,
    pub(super) size: u64,
    pub(super) times: Option<u64>,
    /// The part of its time that a core works.
    pub(super) duty: f64,
    /// Where cores wait for each other until all have their memory; the time of the stint begins then.
    pub(super) gate: Gate,
    /// When the pass began.
    pub(super) began_all: Instant,
    pub(super) length: Duration,
    pub(super) over: AtomicBool,
    pub(super) agreement: Agreement,
}

impl Stint {
    pub(super) fn is_over(&self) -> bool {
        self.over.load(Ordering::Relaxed) || self.gate.open_for() >= self.length
    }

    /// Ends it for all cores.
    pub(super) fn end(&self) {
        self.over.store(true, Ordering::Relaxed);
    }

    /// Seconds since the pass began.
    pub(super) fn seconds(&self) -> f64 {
        self.began_all.elapsed().as_secs_f64()
    }

    /// Sleeps as long as a core must that has worked so much of its time, at most to the end, and never long: whoever sleeps
    /// does not look.
    pub(super) fn rest_after(&self, working: Duration, began: Instant) {
        if self.duty >= 1.0 {
            return;
        }
        let due = working.div_f64(self.duty).saturating_sub(began.elapsed());
        let left = self.length.saturating_sub(self.gate.open_for());
        thread::sleep(due.min(left).min(LONGEST_REST));
    }
}
