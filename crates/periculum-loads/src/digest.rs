//! Digests of results, made to be compared with each other: fast, and blind to nothing.

use crate::kernel::for_each_kernel;
use crate::lanes::{LANES, Lanes};

/// Whether anything is looked at: only the benchmark that tells what looking costs builds loads that don't.
pub(crate) const IS_CHECKED: bool = !cfg!(unchecked);

/// Vectors that are digested side by side, so that the processor has something to do while one waits.
const STREAMS: usize = 2;

/// Numbers in one step of all streams.
const STEP: usize = STREAMS * LANES;

for_each_kernel! {
    /// A digest of every bit of the numbers, the same from every kernel: a change of any one number changes it for
    /// certain, any other change with a probability of 1 − 2⁻⁶⁴ or so.
    pub(crate) fn digest(numbers: &[f64], start: u64) -> u64 = digest_in_lanes;
}

#[inline(always)]
fn digest_in_lanes<L: Lanes>(numbers: &[f64], start: u64) -> u64 {
    if !IS_CHECKED {
        return start;
    }
    let mut streams = [Stream::<L>::new(start); STREAMS];
    let (steps, rest) = numbers.as_chunks::<STEP>();
    for step in steps {
        let (vectors, _) = step.as_chunks::<LANES>();
        for (stream, vector) in streams.iter_mut().zip(vectors) {
            stream.take(L::load(vector));
        }
    }
    let state = streams.into_iter().fold(start, |state, stream| stream.joined(state));
    rest.iter().fold(state, |state, number| join(state, number.to_bits()))
}

/// Digests of words on their way, lane by lane.
///
/// One change of a word changes the lane's sum and every sum after it. Two that take each other back in the sum have changed all sums
/// between them, which are added up too, turned a little each time, so that no change of a high bit is lost beyond the highest.
#[derive(Clone, Copy)]
pub(crate) struct Stream<L> {
    sum: L,
    sums: L,
}

impl<L: Lanes> Stream<L> {
    #[inline(always)]
    pub(crate) fn new(start: u64) -> Self {
        let start = L::splat(f64::from_bits(start));
        Self { sum: start, sums: start }
    }

    #[inline(always)]
    pub(crate) fn take(&mut self, words: L) {
        if IS_CHECKED {
            self.sum = self.sum.add_words(words);
            self.sums = self.sums.rotate_29().add_words(self.sum);
        }
    }

    /// All that was taken, taken into a digest.
    #[inline(always)]
    pub(crate) fn joined(self, state: u64) -> u64 {
        let mut words = [[0.0; LANES]; 2];
        self.sum.store(&mut words[0]);
        self.sums.store(&mut words[1]);
        words.as_flattened().iter().fold(state, |state, word| join(state, word.to_bits()))
    }
}

/// Takes one word into a digest. The shift gives the highest bits, which the product leaves alone, a second place.
pub(crate) fn join(state: u64, word: u64) -> u64 {
    let product = (state ^ word).wrapping_mul(0x9e37_79b9_7f4a_7c15);
    (product ^ (product >> 32)).rotate_left(29)
}

/// A digest of digests, how many there are included: what stands in memory for hours may change there.
pub(crate) fn seal(digests: &[u64]) -> u64 {
    digests.iter().fold(digests.len() as u64, |state, digest| join(state, *digest))
}

/// A digest of bytes, as sure as that of numbers.
pub(crate) fn digest_bytes(bytes: &[u8], start: u64) -> u64 {
    if !IS_CHECKED {
        return start;
    }
    let (steps, rest) = bytes.as_chunks::<{ WORDS * 8 }>();
    let mut states = [start; WORDS];
    for step in steps {
        for (state, word) in states.iter_mut().zip(step.as_chunks::<8>().0) {
            *state = join(*state, u64::from_le_bytes(*word));
        }
    }
    let state = states.into_iter().fold(join(start, bytes.len() as u64), join);
    rest.iter().fold(state, |state, byte| join(state, u64::from(*byte)))
}

/// Words of bytes that are digested side by side: a multiplication takes longer than to begin some.
const WORDS: usize = 4;

#[cfg(test)]
mod tests {
    use super::*;
    use crate::kernel::Kernel;
    use crate::random::fill;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn any_flipped_bit_changes_the_digest_and_every_kernel_has_the_same(
            length in prop_oneof![1usize..200, 200usize..3000], at in any::<prop::sample::Index>(), bit in 0u32..64,
        ) {
            let mut values = vec![0.0; length];
            fill(&mut values, 5);
            let before = digest(Kernel::Portable, &values, 1);
            let at = at.index(length);
            values[at] = f64::from_bits(values[at].to_bits() ^ (1 << bit));
            let after = digest(Kernel::Portable, &values, 1);
            prop_assert_ne!(after, before);
            for kernel in Kernel::ALL.into_iter().filter(|kernel| kernel.is_available()) {
                prop_assert_eq!(digest(kernel, &values, 1), after);
            }
        }

        #[test]
        fn no_flipped_bit_takes_another_back(seed in any::<u64>(), places in prop::sample::select(vec![(0, STEP), (5, 6), (3, 67)])) {
            let (first, second) = places;
            let mut values = vec![0.0; 6 * STEP];
            fill(&mut values, seed);
            let flip = |values: &mut [f64], at: usize, bit: u32| values[at] = f64::from_bits(values[at].to_bits() ^ (1 << bit));
            let words = |values: &[f64]| values.iter().fold(0, |state, value| join(state, value.to_bits()));
            let before = (digest(Kernel::best(), &values, 1), words(&values));
            for (bit, other) in (0..64).flat_map(|bit| (0..64).map(move |other| (bit, other))) {
                flip(&mut values, first, bit);
                flip(&mut values, second, other);
                let after = (digest(Kernel::best(), &values, 1), words(&values));
                prop_assert!(after.0 != before.0 && after.1 != before.1, "bits {} and {}", bit, other);
                flip(&mut values, first, bit);
                flip(&mut values, second, other);
            }
        }

        #[test]
        fn any_changed_byte_changes_the_digest_of_bytes(mut bytes in prop::collection::vec(any::<u8>(), 1..150), at in any::<prop::sample::Index>()) {
            let before = digest_bytes(&bytes, 0);
            let at = at.index(bytes.len());
            bytes[at] ^= 0x10;
            prop_assert_ne!(digest_bytes(&bytes, 0), before);
            bytes[at] ^= 0x10;
            bytes.push(0);
            prop_assert_ne!(digest_bytes(&bytes, 0), before);
        }
    }
}
