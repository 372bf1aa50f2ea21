//! The rounds that a rate is taken from.

use std::time::Duration;

/// All plain rounds, or the first, which is worked twice, until there are any.
///
/// Mean and spread of their times are kept by Welford's method (Note on a method for calculating corrected sums of
/// squares and products, 1962).
#[derive(Default)]
pub(super) struct Counted {
    /// Rounds that were worked at all, those of them twice that were worked twice.
    worked: f64,
    rounds: f64,
    /// Mean time of a round, seconds.
    mean: f64,
    /// Sum of squared distances from the mean.
    squares: f64,
    is_plain: bool,
}

impl Counted {
    pub(super) fn take(&mut self, is_plain: bool, time: Duration) {
        let worked = self.worked + if is_plain { 1.0 } else { 2.0 };
        if is_plain && !self.is_plain {
            *self = Self { is_plain, ..Self::default() };
        }
        self.worked = worked;
        if is_plain == self.is_plain {
            let seconds = if is_plain { time.as_secs_f64() } else { time.as_secs_f64() / 2.0 };
            self.rounds += 1.0;
            let off = seconds - self.mean;
            self.mean += off / self.rounds;
            self.squares += off * (seconds - self.mean);
        }
    }

    /// How many rounds were worked, whatever became of them.
    pub(super) fn worked(&self) -> f64 {
        self.worked
    }

    /// Rounds a second.
    pub(super) fn a_second(&self) -> f64 {
        1.0 / self.mean.max(1e-9)
    }

    /// Standard error of the mean, as a share of it; nothing where one round says nothing about it.
    pub(super) fn noise(&self) -> f64 {
        if self.rounds < 2.0 {
            return 0.0;
        }
        (self.squares / (self.rounds - 1.0) / self.rounds).sqrt() / self.mean.max(1e-9)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_rate_is_taken_from_plain_rounds_once_there_are_any() {
        let mut counted = Counted::default();
        counted.take(false, Duration::from_secs(8));
        assert_eq!(counted.a_second(), 0.25);
        for seconds in [1, 2, 3, 2] {
            counted.take(true, Duration::from_secs(seconds));
        }
        counted.take(false, Duration::from_secs(90));
        assert_eq!(counted.a_second(), 0.5);
        // The deviation of 1, 2, 3, 2 is √(2/3); that of their mean half of it.
        assert!((counted.noise() - (2.0f64 / 3.0).sqrt() / 2.0 / 2.0).abs() < 1e-12);
        assert_eq!(counted.worked(), 8.0, "two rounds were worked twice");
    }
}
