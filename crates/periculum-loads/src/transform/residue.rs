//! Residues of long numbers modulo 2³⁸⁴ − 1, in which digits that stand 384 bits apart weigh the same: so they need only be added up.

use super::digit::DIGIT;
use crate::digest::IS_CHECKED;
use crate::lanes::{LANES, Lanes};

/// Vectors of digits that weigh differently. With three of them, a number whose vectors a power of two apart change places has another
/// residue.
pub(super) const STREAMS: usize = 3;

/// Words of a residue.
const WORDS: usize = DIGIT as usize * LANES * STREAMS / 64;

/// Digits in a word.
const DIGITS: usize = 64 / DIGIT as usize;

/// A residue, its lowest word first.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) struct Residue([u64; WORDS]);

impl Residue {
    /// Nothing.
    pub(super) const ZERO: Self = Self([0; WORDS]);

    pub(super) fn of(number: i64) -> Self {
        Self::closed([0; WORDS], i128::from(number))
    }

    /// Of digits whose sums these are, each below 2⁵³.
    fn of_sums(sums: &[[f64; LANES]; STREAMS]) -> Self {
        let (mut words, mut carry) = ([0; WORDS], 0);
        for (word, digits) in words.iter_mut().zip(sums.as_flattened().chunks_exact(DIGITS)) {
            let weighed =
                digits.iter().enumerate().map(|(place, digit)| i128::from(*digit as i64) << (DIGIT * place as u64));
            let here = carry + weighed.sum::<i128>();
            *word = here as u64;
            carry = here >> 64;
        }
        Self::closed(words, carry)
    }

    /// What is carried beyond the highest word comes in again at the lowest, since 2³⁸⁴ is one.
    fn closed(mut words: [u64; WORDS], mut carry: i128) -> Self {
        while carry != 0 {
            for word in &mut words {
                let here = i128::from(*word) + carry;
                *word = here as u64;
                carry = here >> 64;
            }
        }
        if words == [u64::MAX; WORDS] { Self::ZERO } else { Self(words) }
    }

    pub(super) fn plus(self, other: Self) -> Self {
        let (mut words, mut carry) = ([0; WORDS], 0);
        for (word, (one, other)) in words.iter_mut().zip(self.0.into_iter().zip(other.0)) {
            let here = carry + i128::from(one) + i128::from(other);
            *word = here as u64;
            carry = here >> 64;
        }
        Self::closed(words, carry)
    }

    pub(super) fn squared(self) -> Self {
        self.0.iter().enumerate().fold(Self::ZERO, |sum, (place, word)| sum.plus(self.times(*word).up(place)))
    }

    fn times(self, factor: u64) -> Self {
        let (mut words, mut carry) = ([0; WORDS], 0u128);
        for (word, own) in words.iter_mut().zip(self.0) {
            let here = carry + u128::from(own) * u128::from(factor);
            *word = here as u64;
            carry = here >> 64;
        }
        Self::closed(words, carry as i128)
    }

    /// Of a number that stands so many digits higher, whole words of them.
    pub(super) fn shifted(self, digits: usize) -> Self {
        self.up(digits / DIGITS)
    }

    fn up(mut self, words: usize) -> Self {
        self.0.rotate_right(words % WORDS);
        self
    }

    /// The first word that another residue has differently, as both have it, and how many words stand below it.
    pub(super) fn difference(self, other: Self) -> Option<(usize, [u64; 2])> {
        let pairs = self.0.into_iter().zip(other.0).map(|(one, other)| [one, other]);
        pairs.enumerate().find(|(_, [one, other])| one != other)
    }
}

/// The residue of a run of digits, eight at a time, lowest first. Digits may be as long as before their carries are released: some 2⁴³ where
/// there are most of them.
pub(super) struct Sums<L> {
    /// The next digits belong to the first of them.
    sums: [L; STREAMS],
    /// Vectors in the sums.
    taken: usize,
    /// What was in them before, and how many digits that were.
    settled: Residue,
    below: usize,
}

/// Of so many vectors sums are still exact.
const EXACT: usize = 4096;

impl<L: Lanes> Sums<L> {
    #[inline(always)]
    pub(super) fn new() -> Self {
        Self { sums: [L::splat(0.0); STREAMS], taken: 0, settled: Residue::ZERO, below: 0 }
    }

    #[inline(always)]
    pub(super) fn take(&mut self, digits: L) {
        if IS_CHECKED {
            let [next, second, third] = self.sums;
            self.sums = [second, third, next.add(digits)];
            self.taken += 1;
        }
    }

    /// To be called every few digits.
    #[inline(always)]
    pub(super) fn row_ended(&mut self) {
        if self.taken >= EXACT {
            self.settle();
        }
    }

    #[inline(always)]
    fn settle(&mut self) {
        let mut sums = [[0.0; LANES]; STREAMS];
        for (later, sum) in self.sums.iter().enumerate() {
            sum.store(&mut sums[(self.taken + later) % STREAMS]);
        }
        self.settled = self.settled.plus(Residue::of_sums(&sums).shifted(self.below));
        self.below += self.taken * LANES;
        (self.sums, self.taken) = ([L::splat(0.0); STREAMS], 0);
    }

    pub(super) fn residue(mut self) -> Residue {
        self.settle();
        self.settled
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::lanes::Portable;
    use proptest::prelude::*;

    fn of(number: i128) -> Residue {
        Residue::closed([0; WORDS], number)
    }

    proptest! {
        #[test]
        fn residues_follow_the_numbers(a in any::<i64>(), b in any::<i64>(), words in 0usize..20) {
            let (a, b) = (i128::from(a), i128::from(b));
            prop_assert_eq!(of(a).plus(of(b)), of(a + b));
            prop_assert_eq!(of(a).squared(), of(a * a));
            let doubled = (0..64 * words).fold(of(a), |a, _| a.plus(a));
            prop_assert_eq!(of(a).shifted(4 * words), doubled);
            prop_assert_eq!(of(a).squared().shifted(8 * words), of(a).shifted(4 * words).squared());
        }

        #[test]
        fn digits_have_the_residue_of_the_number_that_they_are(digits in prop::collection::vec(prop::array::uniform8(-32_769i32..32_770), 0..20), settled_after in 0usize..9) {
            let mut sums = Sums::<Portable>::new();
            for (nth, digits) in digits.iter().enumerate() {
                sums.take(Portable::load(&digits.map(f64::from)));
                if nth % 7 == settled_after {
                    sums.settle();
                }
            }
            let number = digits.as_flattened().iter().rev().fold(Residue::ZERO, |number, digit| {
                let shifted = (0..DIGIT).fold(number, |number, _| number.plus(number));
                shifted.plus(of(i128::from(*digit)))
            });
            prop_assert_eq!(sums.residue(), number);
        }

        #[test]
        fn vectors_that_change_places_a_power_of_two_apart_are_told(power in 0u32..20, one in 0i64..60_000, other in 0i64..60_000) {
            let apart = |word: i64, other: i64| of(i128::from(word)).plus(of(i128::from(other)).shifted(LANES << power));
            prop_assert_eq!(apart(one, other) == apart(other, one), one == other);
        }
    }

    #[test]
    fn nothing_has_one_residue_only() {
        assert_eq!(of(-1).plus(of(1)), Residue::ZERO);
        assert_eq!(of(-1).difference(of(-1)), None);
        assert_eq!(of(5).difference(of(7)), Some((0, [5, 7])));
    }
}
