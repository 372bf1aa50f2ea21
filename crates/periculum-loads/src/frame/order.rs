//! What is to be run.

use std::time::Duration;

/// The problem that every run works on, so that runs can be compared bit for bit.
pub const SEED: u64 = 0x0b5e_77a7_0e1e;

/// What a load is to do.
#[derive(Clone, Debug)]
pub struct Order {
    /// The processors to load, one thread on each.
    pub cores: Vec<usize>,
    /// Whether they work together or in turn.
    pub turns: Turns,
    /// The problem's size on each core, in the load's own measure.
    pub size: u64,
    /// How long to work, warm-up included.
    pub length: Duration,
    /// How many rounds each core works at most; without a number as many as there is time for.
    pub times: Option<u64>,
    /// How long the first, light part is.
    pub warm_up: Duration,
    /// Which problem is worked on.
    pub seed: u64,
    /// When to end before the time is over.
    pub stop: Stop,
}

/// Which cores work at a time.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Turns {
    /// All of them.
    Together,
    /// One, each for the same part of the whole time.
    OneByOne,
}

/// When a load ends before its time is over.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Stop {
    /// At the first wrong result.
    AtFirstError,
    /// Never.
    Never,
}

impl Order {
    /// The usual warm-up of a pass this long: a tenth, at most ten seconds, and none where it would be over at once.
    pub fn usual_warm_up(length: Duration) -> Duration {
        const SHORTEST_PASS: Duration = Duration::from_secs(20);
        const LONGEST: Duration = Duration::from_secs(10);
        if length < SHORTEST_PASS { Duration::ZERO } else { (length / 10).min(LONGEST) }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn short_passes_have_no_warm_up_and_long_ones_a_bounded_one() {
        let seconds = |length| Order::usual_warm_up(Duration::from_secs(length)).as_secs();
        assert_eq!([5, 19, 20, 60, 100, 28_800].map(seconds), [0, 0, 2, 6, 10, 10]);
    }
}
