//! Keeps a virtual clock in step with the wall's.

use std::time::{Duration, Instant};

use periculum_core::model::moment::Moment;

use crate::cli::Pace;

/// How long the driver sits still at most before it looks around again.
pub(super) const LOOKING: Duration = Duration::from_millis(200);

/// Keeps a virtual clock in step with the wall's.
pub(crate) struct Pacer {
    pace: Option<Pace>,
    anchor: Option<(Instant, Moment)>,
}

impl Pacer {
    /// A pacer for a virtual clock; none is needed for the wall's.
    pub(crate) fn new(pace: Option<Pace>) -> Self {
        Self { pace, anchor: None }
    }

    /// Whether anything is waited for, so that somebody may see it.
    pub(super) fn waits(&self) -> bool {
        !matches!(self.pace, Some(Pace::Max))
    }

    /// How long to wait before the rig's time goes on.
    pub(super) fn due(&mut self, now: Moment, is_passing: bool) -> Duration {
        if !is_passing {
            self.anchor = None;
            return LOOKING;
        }
        let Some(Pace::Times(times)) = self.pace else { return Duration::ZERO };
        let (wall, virtual_time) = *self.anchor.get_or_insert_with(|| (Instant::now(), now));
        let ahead = now.since(virtual_time).seconds() / times - wall.elapsed().as_secs_f64();
        if ahead > LOOKING.as_secs_f64() {
            // A long stride, such as a restart, is shown shorter than it is.
            self.anchor = Some((Instant::now(), now));
        }
        Duration::from_secs_f64(ahead.clamp(0.0, LOOKING.as_secs_f64()))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_virtual_clock_is_kept_in_step_and_a_long_stride_is_shown_short() {
        let mut pacer = Pacer::new(Some(Pace::Times(10.0)));
        let at = Moment::from_millis;
        assert_eq!(pacer.due(at(0), true), Duration::ZERO);
        // Half a second of the rig's time is a twentieth of ours.
        let due = pacer.due(at(500), true);
        assert!(due <= Duration::from_millis(50) && due > Duration::from_millis(1), "{due:?}");
        assert_eq!(pacer.due(at(75_000), true), LOOKING);
        let after = pacer.due(at(75_500), true);
        assert!(after <= Duration::from_millis(50), "{after:?}");
    }

    #[test]
    fn without_a_pace_nothing_is_waited_for_while_a_pass_runs() {
        for pace in [None, Some(Pace::Max)] {
            let mut pacer = Pacer::new(pace);
            assert_eq!(pacer.due(Moment::from_millis(0), true), Duration::ZERO);
            assert_eq!(pacer.due(Moment::from_millis(9_000_000), true), Duration::ZERO);
            assert_eq!(pacer.due(Moment::from_millis(0), false), LOOKING);
        }
    }
}
