//! How long something goes on that consists of many parts.

use std::time::{Duration, Instant};

/// Seconds that the rest takes, if each part takes as long as those that are done; none before the first is.
pub(crate) fn seconds_left(taken: Duration, done: usize, count: usize) -> Option<u64> {
    let each = taken.checked_div(u32::try_from(done).ok()?)?;
    Some((each.as_secs_f64() * count.saturating_sub(done) as f64).ceil() as u64)
}

/// Work that nobody is told of before it has taken a second, and then once a second.
pub(crate) struct Remaining {
    began: Instant,
    told: Instant,
}

impl Remaining {
    /// Work that begins at this moment.
    pub(crate) fn from(now: Instant) -> Self {
        Self { began: now, told: now }
    }

    /// Seconds that are left after so many parts of all, where it is time to tell them.
    pub(crate) fn at(&mut self, now: Instant, done: usize, count: usize) -> Option<u64> {
        if now.duration_since(self.told) < Duration::from_secs(1) {
            return None;
        }
        self.told = now;
        seconds_left(now.duration_since(self.began), done, count)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_left_takes_as_long_as_what_is_done() {
        assert_eq!(seconds_left(Duration::from_secs(4), 2, 5), Some(6));
        assert_eq!(seconds_left(Duration::from_millis(100), 1, 2), Some(1));
        assert_eq!(seconds_left(Duration::from_secs(4), 0, 5), None, "nobody knows yet");
        assert_eq!(seconds_left(Duration::from_secs(4), 5, 5), Some(0));
    }

    #[test]
    fn it_is_told_once_a_second_and_never_of_what_is_short() {
        let began = Instant::now();
        let mut remaining = Remaining::from(began);
        let after = |millis: u64| began + Duration::from_millis(millis);
        assert_eq!(remaining.at(after(900), 9, 10), None);
        assert_eq!(remaining.at(after(2000), 10, 40), Some(6));
        assert_eq!(remaining.at(after(2900), 14, 40), None);
        assert_eq!(remaining.at(after(3000), 15, 40), Some(5));
    }
}
