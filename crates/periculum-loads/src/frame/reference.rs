//! What every round's result must be, bit for bit.

use std::sync::{Arc, Mutex, MutexGuard, PoisonError};

use crate::digest::seal;

/// The digests of a right result, and the processor that found them.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Reference {
    pub(super) digests: Vec<u64>,
    pub(super) finder: usize,
    /// A digest of the digests: what stands in memory for hours may change there.
    seal: u64,
}

impl Reference {
    fn new(digests: &[u64], finder: usize) -> Self {
        Self { digests: digests.to_vec(), finder, seal: seal(digests) }
    }

    /// Whether it is what it was.
    pub(super) fn is_whole(&self) -> bool {
        seal(&self.digests) == self.seal
    }
}

/// What comes of a result that a processor found twice from scratch.
#[derive(Debug, PartialEq)]
pub(super) enum Opinion {
    /// It is the reference now, or is the same as it.
    Agrees(Arc<Reference>),
    /// The reference was no longer what it was, and this one takes its place.
    Replaces(Arc<Reference>),
    /// The reference is another one.
    Differs {
        /// The reference.
        reference: Arc<Reference>,
        /// Whether nobody but its finder stands for it, so that either may be wrong.
        is_alone: bool,
    },
    /// The same was found by others too, and only its finder stands for the reference: it was wrong, and this one takes its place.
    Outvotes {
        /// The new reference.
        reference: Arc<Reference>,
        /// The one that it was.
        wrong: Arc<Reference>,
    },
}

/// The reference that all cores agree on, once there is one.
#[derive(Default)]
pub(super) struct Agreement(Mutex<Votes>);

#[derive(Default)]
struct Votes {
    reference: Option<Arc<Reference>>,
    /// Who found the same as the reference says.
    supporters: Vec<usize>,
    /// Who found something else, and what.
    others: Vec<Reference>,
}

impl Agreement {
    /// Takes a result that this processor found twice.
    pub(super) fn on(&self, digests: &[u64], finder: usize) -> Opinion {
        let mut votes = self.votes();
        let known = votes.reference.clone();
        let Some(reference) = known.clone().filter(|reference| reference.is_whole()) else {
            let reference = Arc::new(Reference::new(digests, finder));
            *votes = Votes { reference: Some(Arc::clone(&reference)), supporters: vec![finder], others: Vec::new() };
            return if known.is_none() { Opinion::Agrees(reference) } else { Opinion::Replaces(reference) };
        };
        if reference.digests == digests {
            votes.others.retain(|other| other.finder != finder);
            if !votes.supporters.contains(&finder) {
                votes.supporters.push(finder);
            }
            return Opinion::Agrees(reference);
        }
        votes.supporters.retain(|supporter| *supporter != finder);
        votes.others.retain(|other| other.finder != finder);
        votes.others.push(Reference::new(digests, finder));
        let alike: Vec<usize> =
            votes.others.iter().filter(|other| other.digests == digests).map(|other| other.finder).collect();
        if alike.len() > votes.supporters.len().max(1) {
            let new = Arc::new(Reference::new(digests, finder));
            let wrong = votes.reference.replace(Arc::clone(&new)).unwrap_or(reference);
            (votes.supporters, votes.others) = (alike, Vec::new());
            return Opinion::Outvotes { reference: new, wrong };
        }
        Opinion::Differs { is_alone: votes.supporters.len() <= 1, reference }
    }

    /// Whether this is still what all compare with.
    pub(super) fn stands(&self, reference: &Arc<Reference>) -> bool {
        self.votes().reference.as_ref().is_some_and(|known| Arc::ptr_eq(known, reference))
    }

    /// Forgets a reference that is no longer what it was; says whether nobody had done so before.
    pub(super) fn forget(&self, broken: &Arc<Reference>) -> bool {
        let mut votes = self.votes();
        let is_first = votes.reference.as_ref().is_some_and(|known| Arc::ptr_eq(known, broken));
        if is_first {
            *votes = Votes::default();
        }
        is_first
    }

    fn votes(&self) -> MutexGuard<'_, Votes> {
        // A thread that panicked can't have left half a reference behind.
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }
}

/// Where two results differ: the first part, and how many parts. A result with fewer parts differs in those that it has not.
pub(super) fn difference(found: &[u64], expected: &[u64]) -> Option<(usize, usize)> {
    let differs = |part: &usize| found.get(*part) != expected.get(*part);
    let mut differing = (0..found.len().max(expected.len())).filter(differs);
    let first = differing.next()?;
    Some((first, 1 + differing.count()))
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn digests(opinion: &Opinion) -> &[u64] {
        match opinion {
            Opinion::Agrees(reference)
            | Opinion::Replaces(reference)
            | Opinion::Differs { reference, .. }
            | Opinion::Outvotes { reference, .. } => &reference.digests,
        }
    }

    #[test]
    fn the_first_to_find_a_reference_sets_it() {
        let agreement = Agreement::default();
        assert!(matches!(agreement.on(&[1, 2], 5), Opinion::Agrees(reference) if reference.finder == 5));
        let other = agreement.on(&[1, 3], 6);
        assert!(matches!(other, Opinion::Differs { is_alone: true, .. }), "{other:?}");
        assert_eq!(digests(&other), [1, 2]);
    }

    #[test]
    fn where_most_agree_the_one_that_differs_is_wrong() {
        let agreement = Agreement::default();
        [5, 6].into_iter().for_each(|core| drop(agreement.on(&[1, 2], core)));
        assert!(matches!(agreement.on(&[1, 3], 7), Opinion::Differs { is_alone: false, .. }));
        assert!(matches!(agreement.on(&[1, 2], 8), Opinion::Agrees(_)));
    }

    #[test]
    fn where_all_others_disagree_with_it_the_reference_is_wrong() {
        let agreement = Agreement::default();
        [5, 6].into_iter().for_each(|core| drop(agreement.on(&[1, if core == 5 { 9 } else { 2 }], core)));
        let third = agreement.on(&[1, 2], 7);
        let Opinion::Outvotes { wrong, reference } = &third else { panic!("{third:?}") };
        assert_eq!(wrong.finder, 5);
        assert!(agreement.stands(reference) && !agreement.stands(wrong), "who held on to it finds out");
        assert!(matches!(agreement.on(&[1, 2], 6), Opinion::Agrees(_)));
        assert!(matches!(agreement.on(&[1, 9], 5), Opinion::Differs { is_alone: false, .. }));
    }

    #[test]
    fn a_core_has_one_vote() {
        let agreement = Agreement::default();
        agreement.on(&[1], 5);
        for _ in 0..5 {
            assert!(matches!(agreement.on(&[2], 6), Opinion::Differs { is_alone: true, .. }));
        }
    }

    #[test]
    fn a_reference_that_changed_in_memory_is_seen_and_forgotten_once() {
        let agreement = Agreement::default();
        let Opinion::Agrees(reference) = agreement.on(&[1, 2], 5) else { panic!("the first") };
        assert!(reference.is_whole());
        let flipped = Reference { digests: vec![1, 3], ..(*reference).clone() };
        assert!(!flipped.is_whole());
        assert!(!Reference { digests: Vec::new(), ..flipped }.is_whole());
        assert!(agreement.forget(&reference) && !agreement.forget(&reference));
        assert!(matches!(agreement.on(&[4], 6), Opinion::Agrees(reference) if reference.finder == 6));
    }

    #[test]
    fn who_finds_a_reference_that_changed_puts_another_in_its_place_and_knows() {
        let broken = Arc::new(Reference { digests: vec![1, 3], ..Reference::new(&[1, 2], 5) });
        let votes = Votes { reference: Some(Arc::clone(&broken)), supporters: vec![5], others: Vec::new() };
        let agreement = Agreement(Mutex::new(votes));
        assert!(matches!(agreement.on(&[1, 2], 6), Opinion::Replaces(reference) if reference.finder == 6));
        assert!(!agreement.forget(&broken), "it is told already");
    }

    #[test]
    fn differences_are_counted_and_the_first_is_named() {
        assert_eq!(difference(&[1, 2, 3], &[1, 2, 3]), None);
        assert_eq!(difference(&[1, 5, 3, 9], &[1, 2, 3, 4]), Some((1, 2)));
        assert_eq!(difference(&[], &[1, 2]), Some((0, 2)), "nothing is not the same");
        assert_eq!(difference(&[1, 2], &[1]), Some((1, 1)));
    }

    proptest! {
        #[test]
        fn only_the_same_is_no_difference(found in prop::collection::vec(0u64..3, 0..6), expected in prop::collection::vec(0u64..3, 0..6)) {
            prop_assert_eq!(difference(&found, &expected).is_none(), found == expected);
        }
    }
}
