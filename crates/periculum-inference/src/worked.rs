//! What a rig did at stock before anybody pushed it: nobody saw it, but its owner can say.

/// What is told counts for no more than so many seconds: it is remembered and not recorded, and the work was not that of the proof. More
/// of it is weighed down to this (a power prior, Ibrahim and Chen, Power prior distributions for regression models, 2000).
const MOST: f64 = 100.0 * 3600.0;

/// Work at stock, and how often it failed.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Worked {
    /// For so many seconds.
    pub seconds: f64,
    /// So often, or less where what is told is weighed down.
    pub failures: f64,
}

impl Worked {
    /// Never.
    pub const NEVER: Self = Self { seconds: 0.0, failures: 0.0 };

    /// Rigs are used as they are sold before anybody pushes them: as much as two nights without a failure, where nobody says more.
    pub const USUALLY: Self = Self { seconds: 16.0 * 3600.0, failures: 0.0 };

    /// As its owner says: for so many seconds under full load, in which it failed so often.
    pub fn told(seconds: f64, failures: u32) -> Self {
        let weight = if seconds > MOST { MOST / seconds } else { 1.0 };
        Self { seconds: weight * seconds, failures: weight * f64::from(failures) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_long_story_counts_for_a_shorter_one_that_failed_as_often_an_hour() {
        let hours = |hours: f64| hours * 3600.0;
        assert_eq!(Worked::told(hours(50.0), 2), Worked { seconds: hours(50.0), failures: 2.0 });
        assert_eq!(Worked::told(hours(2000.0), 5), Worked { seconds: hours(100.0), failures: 0.25 });
    }
}
