//! Where cores wait for each other until all that still live have their memory.

use std::sync::{Condvar, Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};

/// A gate that opens when the last of those who are expected has come, or is known not to come.
pub(super) struct Gate {
    state: Mutex<State>,
    opened: Condvar,
}

struct State {
    missing: usize,
    opened: Option<Instant>,
}

impl Gate {
    /// A gate for so many.
    pub(super) fn new(expected: usize) -> Self {
        let opened = (expected == 0).then(Instant::now);
        Self { state: Mutex::new(State { missing: expected, opened }), opened: Condvar::new() }
    }

    /// Somebody who is expected, and either comes or never will.
    pub(super) fn expect(&self) -> Expected<'_> {
        Expected { gate: self, has_come: false }
    }

    /// How long it has been open.
    pub(super) fn open_for(&self) -> Duration {
        self.state().opened.map_or(Duration::ZERO, |opened| opened.elapsed())
    }

    fn state(&self) -> MutexGuard<'_, State> {
        // Nobody who holds it can panic half-way.
        self.state.lock().unwrap_or_else(PoisonError::into_inner)
    }

    fn count_down(&self) {
        let mut state = self.state();
        state.missing = state.missing.saturating_sub(1);
        if state.missing == 0 {
            state.opened.get_or_insert_with(Instant::now);
            self.opened.notify_all();
        }
    }
}

/// One of those for whom the gate stays shut; who goes away without having come is waited for no longer.
pub(super) struct Expected<'a> {
    gate: &'a Gate,
    has_come: bool,
}

impl Expected<'_> {
    /// Waits until the gate is open; tells when it opened.
    pub(super) fn come(mut self) -> Instant {
        self.has_come = true;
        self.gate.count_down();
        let mut state = self.gate.state();
        loop {
            if let Some(opened) = state.opened {
                return opened;
            }
            state = self.gate.opened.wait(state).unwrap_or_else(PoisonError::into_inner);
        }
    }
}

impl Drop for Expected<'_> {
    fn drop(&mut self) {
        if !self.has_come {
            self.gate.count_down();
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::thread;

    #[test]
    fn all_go_on_from_the_same_moment() {
        let gate = Gate::new(3);
        let moments: Vec<Instant> = thread::scope(|scope| {
            let threads: Vec<_> = (0..3).map(|_| scope.spawn(|| gate.expect().come())).collect();
            threads.into_iter().map(|thread| thread.join().expect("no panic")).collect()
        });
        assert!(moments.windows(2).all(|pair| pair[0] == pair[1]), "{moments:?}");
    }

    #[test]
    fn who_is_gone_is_not_waited_for() {
        let gate = Gate::new(2);
        assert_eq!(gate.open_for(), Duration::ZERO);
        thread::scope(|scope| {
            let waits = scope.spawn(|| gate.expect().come());
            let lost = scope.spawn(|| {
                let _expected = gate.expect();
                panic!("before it came");
            });
            assert!(lost.join().is_err());
            waits.join().expect("it goes on");
        });
    }

    #[test]
    fn who_comes_late_goes_through() {
        let gate = Gate::new(1);
        let opened = gate.expect().come();
        assert_eq!(gate.expect().come(), opened);
        assert!(Gate::new(0).expect().come() >= opened, "where nobody is expected it is open");
    }
}
