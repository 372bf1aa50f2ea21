//! The clock that a core reaches, glimpsed between two rounds.

use std::time::{Duration, Instant};

use crate::pulse;

/// How often a core's clock is measured while it works.
const EVERY: Duration = Duration::from_millis(250);

/// A core's clock, measured now and then.
pub(super) struct Clock {
    due: Instant,
}

impl Clock {
    pub(super) fn new() -> Self {
        Self { due: Instant::now() }
    }

    /// The clock in MHz, where it is time to measure it again; takes some 50 µs then.
    pub(super) fn glimpse(&mut self) -> Option<f64> {
        let now = Instant::now();
        if now < self.due {
            return None;
        }
        self.due = now + EVERY;
        Some(pulse::glimpse())
    }
}
