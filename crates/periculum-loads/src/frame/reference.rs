//! What every round's result must be, bit for bit.

use std::sync::{Arc, Mutex, PoisonError};

/// The digests of a right result, and the processor that found them.
#[derive(Debug, PartialEq)]
pub(super) struct Reference {
    pub(super) digests: Vec<u64>,
    pub(super) finder: usize,
}

/// The reference that all cores agree on, once there is one.
#[derive(Default)]
pub(super) struct Agreement(Mutex<Option<Arc<Reference>>>);

impl Agreement {
    /// The reference, which is this one where there was none.
    pub(super) fn on(&self, digests: &[u64], finder: usize) -> Arc<Reference> {
        // A thread that panicked can't have left half a reference behind.
        let mut reference = self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let mine = || Arc::new(Reference { digests: digests.to_vec(), finder });
        Arc::clone(reference.get_or_insert_with(mine))
    }
}

/// Where two results differ: the first part, and how many parts.
pub(super) fn difference(found: &[u64], expected: &[u64]) -> Option<(usize, usize)> {
    let differing = |(found, expected): (&u64, &u64)| found != expected;
    let first = found.iter().zip(expected).position(differing)?;
    Some((first, found.iter().zip(expected).filter(|pair| differing(*pair)).count()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_first_to_find_a_reference_sets_it() {
        let agreement = Agreement::default();
        assert_eq!(agreement.on(&[1, 2], 5).finder, 5);
        assert_eq!(agreement.on(&[1, 3], 6).digests, [1, 2]);
    }

    #[test]
    fn differences_are_counted_and_the_first_is_named() {
        assert_eq!(difference(&[1, 2, 3], &[1, 2, 3]), None);
        assert_eq!(difference(&[1, 5, 3, 9], &[1, 2, 3, 4]), Some((1, 2)));
    }
}
