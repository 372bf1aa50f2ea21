//! How far one core is, as its worker writes and others read it.

use std::sync::atomic::{AtomicU8, AtomicU32, AtomicU64, Ordering};

use rustix::thread::gettid;

use crate::protocol::{CoreProgress, CoreState};

/// How far one core is.
#[derive(Default)]
pub(super) struct Tally {
    rounds: AtomicU64,
    errors: AtomicU64,
    thread: AtomicU32,
    state: AtomicU8,
    /// These are numbers' bits.
    rate: AtomicU64,
    noise: AtomicU64,
    over_time: AtomicU64,
    clock: AtomicU64,
    checked: AtomicU64,
}

fn write(bits: &AtomicU64, number: f64) {
    bits.store(number.to_bits(), Ordering::Relaxed);
}

impl Tally {
    /// The calling thread is the one that works on this core from now on.
    pub(super) fn begin(&self) {
        self.thread.store(gettid().as_raw_nonzero().get().unsigned_abs(), Ordering::Relaxed);
        self.set(CoreState::Prepares);
    }

    /// The thread that works on this core, as the operating system numbers it; 0 before there is one.
    pub(super) fn thread(&self) -> u32 {
        self.thread.load(Ordering::Relaxed)
    }

    pub(super) fn set(&self, state: CoreState) {
        self.state.store(state as u8, Ordering::Relaxed);
    }

    pub(super) fn state(&self) -> CoreState {
        let state = self.state.load(Ordering::Relaxed);
        CoreState::ALL.into_iter().find(|known| *known as u8 == state).unwrap_or_default()
    }

    /// Rounds of the warm-up are not those that a pass is for.
    pub(super) fn forget_rounds(&self) {
        self.rounds.store(0, Ordering::Relaxed);
    }

    pub(super) fn rounds(&self) -> u64 {
        self.rounds.load(Ordering::Relaxed)
    }

    pub(super) fn round_ended(&self, rate: f64, noise: f64, over_time: f64, checked: f64) {
        self.rounds.fetch_add(1, Ordering::Relaxed);
        write(&self.rate, rate);
        write(&self.noise, noise);
        write(&self.over_time, over_time);
        write(&self.checked, checked);
    }

    pub(super) fn set_clock(&self, clock: f64) {
        write(&self.clock, clock);
    }

    /// Counts a wrong result, and tells which one it is.
    pub(super) fn count_error(&self) -> u64 {
        self.errors.fetch_add(1, Ordering::Relaxed) + 1
    }

    pub(super) fn progress(&self, core: usize) -> CoreProgress {
        let number = |bits: &AtomicU64| f64::from_bits(bits.load(Ordering::Relaxed));
        CoreProgress {
            core,
            thread: self.thread(),
            state: self.state(),
            rounds: self.rounds(),
            errors: self.errors.load(Ordering::Relaxed),
            rate: number(&self.rate),
            noise: number(&self.noise),
            over_time: number(&self.over_time),
            clock: number(&self.clock),
            checked: number(&self.checked),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_state_is_read_as_it_was_written() {
        let tally = Tally::default();
        assert_eq!(tally.state(), CoreState::Absent);
        for state in CoreState::ALL {
            tally.set(state);
            assert_eq!(tally.state(), state);
        }
    }

    #[test]
    fn what_a_core_tells_is_what_its_worker_wrote() {
        let tally = Tally::default();
        tally.begin();
        tally.round_ended(5.0, 0.25, 4.5, 1.5);
        assert_eq!(tally.count_error(), 1);
        let told = tally.progress(3);
        assert_eq!((told.core, told.rounds, told.errors), (3, 1, 1));
        assert_eq!((told.rate, told.noise, told.over_time, told.checked), (5.0, 0.25, 4.5, 1.5));
        assert!(told.thread > 0 && told.state == CoreState::Prepares);
        tally.forget_rounds();
        assert_eq!(tally.progress(3).rounds, 0);
    }
}
