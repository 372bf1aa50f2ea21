//! The allowed values of a setting.

use rust_decimal::Decimal;

/// Which way along a ladder.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Direction {
    /// Towards larger values.
    Up,
    /// Towards smaller values.
    Down,
}

impl Direction {
    /// The other way.
    pub fn reversed(self) -> Self {
        match self {
            Self::Up => Self::Down,
            Self::Down => Self::Up,
        }
    }
}

/// No setting of any device has more values than this.
const MOST_RUNGS: usize = 100_000;

/// No value of any setting is larger than this, nor written with more decimals: so that sums stay exact.
const LARGEST: i64 = 1_000_000_000_000;
const MOST_DECIMALS: u32 = 9;

fn check_size(values: impl IntoIterator<Item = Decimal>) -> Result<(), BadLadder> {
    let is_odd = |value: &Decimal| value.abs() > Decimal::from(LARGEST) || value.normalize().scale() > MOST_DECIMALS;
    match values.into_iter().find(is_odd) {
        Some(value) => Err(BadLadder::OutOfReach { value }),
        None => Ok(()),
    }
}

/// Why values are no ladder.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub enum BadLadder {
    /// Its step leads nowhere.
    #[error("a ladder's step must be above 0, and this one is {step}")]
    NoStep {
        /// The step.
        step: Decimal,
    },
    /// It ends below where it begins.
    #[error("a ladder goes upwards, and {to} is below {from}")]
    Downwards {
        /// Where it begins.
        from: Decimal,
        /// Where it ends.
        to: Decimal,
    },
    /// It is too long.
    #[error("steps of {step} from {from} to {to} are {rungs} rungs, and there may be {MOST_RUNGS}")]
    TooManySteps {
        /// Where it begins.
        from: Decimal,
        /// Its step.
        step: Decimal,
        /// Where it ends.
        to: Decimal,
        /// How many rungs it would have.
        rungs: Decimal,
    },
    /// Its steps miss its end.
    #[error("steps of {step} lead from {from} past {to}, not to it")]
    Past {
        /// Where it begins.
        from: Decimal,
        /// Its step.
        step: Decimal,
        /// Where it was to end.
        to: Decimal,
    },
    /// Its list is too long.
    #[error("{values} values are listed, and there may be {MOST_RUNGS}")]
    TooManyValues {
        /// How many there are.
        values: usize,
    },
    /// Its list is empty.
    #[error("a ladder needs at least one value")]
    Empty,
    /// Its list has a value twice.
    #[error("{value} is on the ladder twice")]
    Twice {
        /// Which.
        value: Decimal,
    },
    /// A value can't be exact.
    #[error("{value} can't be on a ladder: values are at most {LARGEST} and have at most {MOST_DECIMALS} decimals")]
    OutOfReach {
        /// Which.
        value: Decimal,
    },
}

/// The allowed values of a setting, ascending and never empty.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Ladder {
    /// Evenly spaced values from the first to the last.
    Steps {
        /// The smallest value.
        from: Decimal,
        /// The distance between neighbours, above zero.
        step: Decimal,
        /// The largest value, a whole number of steps above the smallest.
        to: Decimal,
    },
    /// An explicit list, as for parts that can only be bought in a few values.
    Values(Vec<Decimal>),
}

impl Ladder {
    /// An even ladder.
    ///
    /// # Errors
    /// Says what is wrong when the step is not above zero or does not lead from the first value to the last.
    pub fn steps(from: Decimal, step: Decimal, to: Decimal) -> Result<Self, BadLadder> {
        if step <= Decimal::ZERO {
            return Err(BadLadder::NoStep { step });
        }
        if to < from {
            return Err(BadLadder::Downwards { from, to });
        }
        check_size([from, step, to])?;
        let rungs = ((to - from) / step).floor();
        if rungs >= Decimal::from(MOST_RUNGS) {
            return Err(BadLadder::TooManySteps { from, step, to, rungs });
        }
        if ((to - from) % step) != Decimal::ZERO {
            return Err(BadLadder::Past { from, step, to });
        }
        Ok(Self::Steps { from, step, to })
    }

    /// A ladder of listed values, in any order.
    ///
    /// # Errors
    /// Says so when the list is empty or names a value twice.
    pub fn values(mut values: Vec<Decimal>) -> Result<Self, BadLadder> {
        values.sort();
        check_size(values.iter().copied())?;
        if values.len() > MOST_RUNGS {
            return Err(BadLadder::TooManyValues { values: values.len() });
        }
        if values.is_empty() {
            return Err(BadLadder::Empty);
        }
        if let Some(pair) = values.windows(2).find(|pair| pair[0] == pair[1]) {
            return Err(BadLadder::Twice { value: pair[0] });
        }
        Ok(Self::Values(values))
    }

    /// The smallest value.
    pub fn lowest(&self) -> Decimal {
        match self {
            Self::Steps { from, .. } => *from,
            Self::Values(values) => values[0],
        }
    }

    /// The largest value.
    pub fn highest(&self) -> Decimal {
        match self {
            Self::Steps { to, .. } => *to,
            Self::Values(values) => values[values.len() - 1],
        }
    }

    /// How many decimals its values are written with.
    fn decimals(&self) -> u32 {
        match self {
            Self::Steps { from, step, to } => from.scale().max(step.scale()).max(to.scale()),
            Self::Values(values) => values.iter().map(Decimal::scale).max().unwrap_or(0),
        }
    }

    /// The same value with as many decimals as the others have; a value off the ladder keeps more of its own.
    pub fn rescaled(&self, value: Decimal) -> Decimal {
        let mut rescaled = value;
        rescaled.rescale(self.decimals().max(value.normalize().scale()));
        rescaled
    }

    /// Whether the value is allowed, exactly.
    pub fn contains(&self, value: Decimal) -> bool {
        self.nearest(value) == value
    }

    /// The allowed value nearest to this one; the lower of two that are equally near.
    pub fn nearest(&self, value: Decimal) -> Decimal {
        match self {
            Self::Steps { from, step, to } => {
                let inside = value.clamp(*from, *to);
                let below = *from + ((inside - *from) / *step).floor() * *step;
                let above = (below + *step).min(*to);
                if above - inside < inside - below { above } else { below }
            }
            Self::Values(values) => {
                let nearest = values.iter().min_by_key(|candidate| (**candidate - value).abs());
                nearest.copied().unwrap_or(value)
            }
        }
    }

    /// The next allowed value beyond this one, which need not be on the ladder itself; none at its end.
    pub fn next(&self, value: Decimal, direction: Direction) -> Option<Decimal> {
        let beyond = |candidate: &Decimal| match direction {
            Direction::Up => *candidate > value,
            Direction::Down => *candidate < value,
        };
        match self {
            Self::Steps { step, .. } => {
                let near = self.nearest(value);
                let one_on = match direction {
                    Direction::Up => near + *step,
                    Direction::Down => near - *step,
                };
                [near, one_on].into_iter().find(|candidate| beyond(candidate) && self.contains(*candidate))
            }
            Self::Values(values) => match direction {
                Direction::Up => values.iter().copied().find(beyond),
                Direction::Down => values.iter().rev().copied().find(beyond),
            },
        }
    }

    /// The largest distance between two neighbours; nothing on a ladder of one value.
    pub fn widest_gap(&self) -> Decimal {
        match self {
            Self::Steps { step, from, to } => {
                if from == to {
                    Decimal::ZERO
                } else {
                    *step
                }
            }
            Self::Values(values) => values.windows(2).map(|pair| pair[1] - pair[0]).max().unwrap_or_default(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn decimal(text: &str) -> Decimal {
        text.parse().expect("a number")
    }

    #[test]
    fn steps_must_lead_to_the_end() {
        assert!(Ladder::steps(decimal("1.0"), decimal("0.005"), decimal("1.2")).is_ok());
        assert!(Ladder::steps(decimal("1"), decimal("0.3"), decimal("2")).unwrap_err().to_string().contains("past 2"));
        assert!(Ladder::steps(decimal("1"), decimal("0"), decimal("2")).is_err());
        let huge = Ladder::steps(decimal("0"), decimal("1"), decimal("10000000000000000000000000000"));
        assert!(huge.unwrap_err().to_string().contains("can't be on a ladder"));
        assert!(
            Ladder::steps(decimal("0"), decimal("0.001"), decimal("900000")).unwrap_err().to_string().contains("rungs")
        );
        assert!(Ladder::steps(Decimal::MIN, decimal("1"), Decimal::MAX).is_err());
        assert!(Ladder::values(vec![]).is_err());
        assert!(Ladder::values(vec![decimal("3"), decimal("3.0")]).is_err());
    }

    fn ladders() -> impl Strategy<Value = Ladder> {
        let even = (-500i64..500, 1i64..40, 0i64..60).prop_map(|(from, step, count)| {
            Ladder::steps(Decimal::new(from, 3), Decimal::new(step, 3), Decimal::new(from + step * count, 3))
                .expect("even")
        });
        let listed = proptest::collection::btree_set(-500i64..500, 1..12).prop_map(|values| {
            Ladder::values(values.into_iter().map(|v| Decimal::new(v, 2)).collect()).expect("listed")
        });
        prop_oneof![even, listed]
    }

    proptest! {
        #[test]
        fn walking_up_visits_every_value_once_and_ends(ladder in ladders()) {
            let mut at = ladder.lowest();
            let mut widest = Decimal::ZERO;
            while let Some(next) = ladder.next(at, Direction::Up) {
                prop_assert!(next > at && ladder.contains(next));
                prop_assert_eq!(ladder.next(next, Direction::Down), Some(at));
                widest = widest.max(next - at);
                at = next;
            }
            prop_assert_eq!(at, ladder.highest());
            prop_assert_eq!(widest, ladder.widest_gap());
        }

        #[test]
        fn from_off_the_ladder_the_next_value_is_on_it(ladder in ladders(), thousandths in -60_000i64..60_000) {
            let value = Decimal::new(thousandths, 4);
            for direction in [Direction::Up, Direction::Down] {
                if let Some(next) = ladder.next(value, direction) {
                    prop_assert!(ladder.contains(next));
                    prop_assert_eq!(next > value, direction == Direction::Up);
                    prop_assert_ne!(next, value);
                }
            }
        }
    }
}
