//! A clock that is anchored once to the wall's and then goes by itself: firmware and time servers move the wall's by years.

use std::time::{Instant, SystemTime, UNIX_EPOCH};

use periculum_core::model::moment::{Moment, Span};

/// The steady clock of one life of the program.
#[derive(Clone, Copy, Debug)]
pub struct SteadyClock {
    anchor: Moment,
    since: Instant,
}

impl SteadyClock {
    /// A clock that shows what the wall's does, unless that is behind what was recorded last: then it goes on from there.
    pub fn behind(last: Option<Moment>) -> Self {
        Self::anchored(wall_clock(), last)
    }

    fn anchored(wall: Moment, last: Option<Moment>) -> Self {
        let anchor = last.map_or(wall, |last| wall.max(last + Span::from_millis(1)));
        Self { anchor, since: Instant::now() }
    }

    /// The time on it.
    pub fn now(&self) -> Moment {
        self.anchor + Span::from_millis(u64::try_from(self.since.elapsed().as_millis()).unwrap_or(u64::MAX))
    }
}

/// The wall clock.
pub fn wall_clock() -> Moment {
    let since = SystemTime::now().duration_since(UNIX_EPOCH).unwrap_or_default();
    Moment::from_millis(i64::try_from(since.as_millis()).unwrap_or(i64::MAX))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const TEN_YEARS: i64 = 10 * 366 * 86_400_000;

    proptest! {
        /// Wherever the wall clock stands at a start, time goes on from what was recorded last.
        #[test]
        fn time_never_goes_back(last in 0i64..4_000_000_000_000, step in -TEN_YEARS..TEN_YEARS) {
            let last = Moment::from_millis(last);
            let wall = Moment::from_millis(last.millis() + step);
            let clock = SteadyClock::anchored(wall, Some(last));
            let first = clock.now();
            prop_assert!(first > last && clock.now() >= first);
            prop_assert!(first.since(wall.max(last)) < Span::from_seconds(5), "and is the wall's where that is ahead");
        }
    }
}
