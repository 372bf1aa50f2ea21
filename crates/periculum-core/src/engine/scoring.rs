//! How scores are compared, by the rules that a record was begun by.

use crate::inference::comparison::{Comparison, compare, compare_alike};
use crate::inference::disturbance::disturbed;
use crate::inference::former;

/// The comparisons of one set of rules.
#[derive(Clone, Copy, Debug)]
pub(in crate::engine) struct Scoring {
    /// Of measurements with a reference, each with its own noise where both were repeated.
    pub(in crate::engine) compare: fn(&[f64], &[f64]) -> Comparison,
    /// Of a few measurements with a reference whose noise they share.
    pub(in crate::engine) compare_alike: fn(&[f64], &[f64]) -> Comparison,
    /// The measurements that do not belong to the others, by their places.
    pub(in crate::engine) disturbed: fn(&[f64]) -> Vec<usize>,
}

impl Scoring {
    /// Those of these rules.
    pub(in crate::engine) fn of(rules: u32) -> Self {
        let one_disturbed = |measurements: &[f64]| former::disturbed(measurements).into_iter().collect();
        match rules {
            // Two scores say little of their noise by themselves; before rule 6 they were asked for it.
            0..=5 => Self { compare: former::compare, compare_alike: former::compare, disturbed: one_disturbed },
            6 | 7 => Self { compare: former::compare, compare_alike: former::compare_alike, disturbed: one_disturbed },
            _ => Self { compare, compare_alike, disturbed },
        }
    }
}
