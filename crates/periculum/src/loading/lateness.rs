//! How long a load gets ready before the time of its pass begins.

use std::time::{Duration, Instant};

use periculum_loads::protocol::{CoreState, Progress};

/// What a load has told of its getting ready.
#[derive(Debug)]
pub(super) struct Lateness {
    before: Duration,
    /// Since when it gets ready, by what it told last.
    since: Option<Instant>,
}

impl Lateness {
    /// A load that was started now.
    pub(super) fn new(now: Instant) -> Self {
        Self { before: Duration::ZERO, since: Some(now) }
    }

    /// Takes in what it tells: its time goes on in the warm-up, and while any core works.
    pub(super) fn hear(&mut self, progress: &Progress, now: Instant) {
        let works = progress.cores.iter().any(|core| core.state == CoreState::Works);
        let is_done = progress.cores.iter().all(|core| core.state == CoreState::Done);
        if progress.warms_up || works || is_done {
            self.before = self.so_far(now);
            self.since = None;
        } else {
            self.since.get_or_insert(now);
        }
    }

    /// How long it has been getting ready, together.
    pub(super) fn so_far(&self, now: Instant) -> Duration {
        self.before + self.since.map_or(Duration::ZERO, |since| now.saturating_duration_since(since))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use periculum_loads::protocol::CoreProgress;

    fn told(states: &[CoreState], warms_up: bool) -> Progress {
        let core = |state: &CoreState| CoreProgress { state: *state, ..CoreProgress::default() };
        Progress { warms_up, cores: states.iter().map(core).collect(), ..Progress::default() }
    }

    #[test]
    fn only_the_time_before_the_cores_work_is_late() {
        let start = Instant::now();
        let at = |seconds| start + Duration::from_secs(seconds);
        let mut lateness = Lateness::new(start);
        lateness.hear(&told(&[CoreState::Works, CoreState::Works], true), at(2));
        assert_eq!(lateness.so_far(at(9)), Duration::from_secs(2), "the warm-up is part of the pass");
        lateness.hear(&told(&[CoreState::Prepares, CoreState::Ready], false), at(10));
        assert_eq!(lateness.so_far(at(70)), Duration::from_secs(62), "and what it says nothing of counts too");
        lateness.hear(&told(&[CoreState::Works, CoreState::Works], false), at(100));
        assert_eq!(lateness.so_far(at(500)), Duration::from_secs(92));
    }

    #[test]
    fn cores_that_work_one_after_the_other_get_ready_each_in_its_turn() {
        let start = Instant::now();
        let at = |seconds| start + Duration::from_secs(seconds);
        let mut lateness = Lateness::new(start);
        lateness.hear(&told(&[CoreState::Works, CoreState::Absent], false), at(1));
        lateness.hear(&told(&[CoreState::Done, CoreState::Prepares], false), at(50));
        assert_eq!(lateness.so_far(at(60)), Duration::from_secs(11));
    }
}
