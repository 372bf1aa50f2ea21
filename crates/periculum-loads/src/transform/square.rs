//! Squares of long numbers: a convolution of their digits with themselves, and a pass for the carries.

use std::io;

use super::carries::Carries;
use super::complex::Block;
use super::grid::Grid;
use super::residue::{Residue, STREAMS, Sums};
use crate::buffer::Buffer;
use crate::digest::IS_CHECKED;
use crate::kernel::{Kernel, for_each_kernel};
use crate::lanes::{LANES, Lanes};

/// A long number and what squaring it needs, in memory that is allocated once.
pub struct Squarer {
    kernel: Kernel,
    grid: Grid,
    points: Buffer<Block>,
    /// The number: as many digits as there are points.
    digits: Buffer<f64>,
    /// The number's residue.
    residue: Residue,
}

/// What a squaring found out about itself.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Squared {
    /// A digest of the number that was squared, as it was read.
    pub(super) digest: u64,
    /// The largest distance of any digit from a whole number.
    pub(super) rounding_error: f64,
    /// The square's residue, and what it must be.
    pub(super) residue: Residue,
    pub(super) expected: Residue,
}

impl Squarer {
    /// Room for numbers of this many digits, a power of two from 256 up.
    ///
    /// # Errors
    /// When the system has not so much memory.
    pub fn new(kernel: Kernel, length: usize) -> io::Result<Self> {
        assert!(length.is_power_of_two() && length >= 256, "no number of {length} digits");
        Ok(Self {
            kernel,
            grid: Grid::new(kernel, length)?,
            points: Buffer::zeroed(Grid::blocks(length))?,
            digits: Buffer::zeroed(length)?,
            residue: Residue::ZERO,
        })
    }

    /// A digest of the transform's tables.
    pub(super) fn tables(&self) -> u64 {
        self.grid.digest()
    }

    /// Makes the transform's tables anew.
    pub(super) fn renew(&mut self) {
        self.grid.renew();
    }

    /// Memory that numbers of this many digits need, bytes.
    pub fn bytes(length: u64) -> u64 {
        let blocks = Grid::blocks(length as usize) * size_of::<Block>();
        Grid::bytes(length) + blocks as u64 + 8 * length
    }

    /// Floating-point operations of one square, as transforms are counted: two of `2.5·N·log₂N` for a real transform
    /// of `N` points, twice as many as the number has digits.
    pub fn operations(length: u64) -> f64 {
        let points = 2.0 * length as f64;
        2.0 * 2.5 * points * points.log2()
    }

    /// The digits of the number, lowest first, and room for the transform.
    pub(super) fn digits_mut(&mut self) -> &mut [f64] {
        &mut self.digits
    }

    pub(super) fn digits(&self) -> &[f64] {
        &self.digits
    }

    /// Takes a number, whose residue is known.
    pub(super) fn take(&mut self, digits: &[f64], residue: Residue) {
        self.digits.copy_from_slice(digits);
        self.residue = residue;
    }

    /// Replaces the number by the middle half of its square's digits; `between` may look at the points in between.
    pub(super) fn square(&mut self, between: &mut dyn FnMut(&mut [Block])) -> Squared {
        let expected = self.residue.squared();
        let digest = self.grid.forward_digested(&self.digits, &mut self.points);
        between(&mut self.points);
        self.grid.square(&mut self.points);
        let rounding_error = self.grid.back(&mut self.points);
        let residues = release_carries(self.kernel, self);
        let quarter = self.digits.len() / 2;
        let residue = residues.iter().rev().fold(Residue::ZERO, |sum, residue| sum.shifted(quarter).plus(*residue));
        self.residue = residues[1].plus(residues[2].shifted(quarter));
        Squared { digest, rounding_error, residue, expected }
    }
}

for_each_kernel! {
    /// Takes the middle half of the digits as the new number, and lets its carries go until every digit is balanced; tells the residues of
    /// the four quarters.
    fn release_carries(squarer: &mut Squarer) -> [Residue; 4] = release_carries_in_lanes;
}

#[inline(always)]
fn release_carries_in_lanes<L: Lanes>(squarer: &mut Squarer) -> [Residue; 4] {
    let Squarer { grid, points, digits, .. } = squarer;
    // Real parts are the lower half of the digits, imaginary ones the upper half; both are at hand at once.
    let (low_rows, high_rows) = points.split_at(grid.row_count() / 2 * grid.row_length());
    let quarter = digits.len() / 2;
    let (second, third) = digits.split_at_mut(quarter);
    let (mut lower, mut upper) = (Carries::<L>::new(), Carries::<L>::new());

    let [lowest, low] = release_rows::<L, UPPER>(&mut upper, grid.rows(low_rows), third);
    if let Some(last) = grid.rows(low_rows).last().and_then(|row| row.last()) {
        lower.pass(L::load(&last.re));
    }
    let from_lowest = lower.carried();
    let [high, highest] = release_rows::<L, LOWER>(&mut lower, grid.rows(high_rows), second);
    // What the lower half carries to the upper one is known now, and reaches no further than its lowest digits.
    let (from_high, from_low) = (lower.carried(), upper.carried());
    if let (Some(lowest), Some(block)) = (third.first_chunk_mut(), low_rows.first()) {
        lower.pass(L::load(&block.im)).store(lowest);
    }
    if !IS_CHECKED {
        return [Residue::ZERO; 4];
    }
    let given_away = Residue::of(-from_lowest).shifted(quarter);
    [lowest.plus(given_away), high, low.plus(Residue::of(from_high)), highest.plus(Residue::of(from_low))]
}

/// Half of the digits: the real parts, or the imaginary ones.
const LOWER: usize = 0;
const UPPER: usize = 1;

/// Lets the carries of one half go, row by row, and keeps its digits; tells the residue of these, and of the other half as it is.
#[inline(always)]
fn release_rows<'a, L: Lanes, const KEPT: usize>(
    carries: &mut Carries<L>,
    rows: impl Iterator<Item = &'a [Block]>,
    kept: &mut [f64],
) -> [Residue; 2] {
    let mut sums = [Sums::new(), Sums::new()];
    let mut kept = kept.as_chunks_mut::<LANES>().0;
    for row in rows {
        let (places, later) = kept.split_at_mut(row.len());
        // As many at once as sums take turns, so that none has to be moved.
        let (turns, rest) = row.as_chunks::<STREAMS>();
        let (places_of_turns, places_of_rest) = places.as_chunks_mut::<STREAMS>();
        for (blocks, places) in turns.iter().zip(places_of_turns) {
            for (block, place) in blocks.iter().zip(places) {
                release::<L, KEPT>(carries, &mut sums, block, place);
            }
        }
        for (block, place) in rest.iter().zip(places_of_rest) {
            release::<L, KEPT>(carries, &mut sums, block, place);
        }
        sums[LOWER].row_ended();
        sums[UPPER].row_ended();
        kept = later;
    }
    sums.map(Sums::residue)
}

#[inline(always)]
fn release<L: Lanes, const KEPT: usize>(
    carries: &mut Carries<L>,
    sums: &mut [Sums<L>; 2],
    block: &Block,
    place: &mut [f64; LANES],
) {
    let halves = [L::load(&block.re), L::load(&block.im)];
    let balanced = carries.pass(halves[KEPT]);
    balanced.store(place);
    sums[KEPT].take(balanced);
    sums[1 - KEPT].take(halves[1 - KEPT]);
}

for_each_kernel! {
    /// The residue of digits, lowest first.
    pub(super) fn residue_of(digits: &[f64]) -> Residue = residue_in_lanes;
}

#[inline(always)]
fn residue_in_lanes<L: Lanes>(digits: &[f64]) -> Residue {
    let mut sums = Sums::<L>::new();
    for digits in digits.as_chunks::<LANES>().0 {
        sums.take(L::load(digits));
    }
    sums.residue()
}

#[cfg(test)]
mod tests {
    use super::super::digit::DIGIT;
    use super::*;
    use crate::random::Random;
    use proptest::prelude::*;

    fn squarer(kernel: Kernel, length: usize, seed: u64) -> Squarer {
        let mut squarer = Squarer::new(kernel, length).expect("memory");
        let mut random = Random::new(seed);
        squarer.digits_mut().fill_with(|| random.below(65_537) as f64 - 32_768.0);
        squarer.residue = residue_of(kernel, squarer.digits());
        squarer
    }

    /// The middle half of the square's digits by the definition, balanced all the way.
    fn slow(digits: &[f64]) -> Vec<i64> {
        let mut square = vec![0i64; 2 * digits.len() + 1];
        for (i, x) in digits.iter().enumerate() {
            for (j, y) in digits.iter().enumerate() {
                square[i + j] += *x as i64 * *y as i64;
            }
        }
        for index in 0..square.len() - 1 {
            let carry = (square[index] + 32_768) >> DIGIT;
            square[index] -= carry << DIGIT;
            square[index + 1] += carry;
        }
        square[digits.len() / 2..3 * digits.len() / 2].to_vec()
    }

    /// The digits balanced all the way, up to their last carry.
    fn balanced(digits: &[f64]) -> Vec<i64> {
        let mut carry = 0;
        let mut balance = |digit: &f64| {
            let digit = *digit as i64 + carry;
            carry = (digit + 32_768) >> DIGIT;
            digit - (carry << DIGIT)
        };
        digits.iter().map(&mut balance).collect()
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(12))]
        #[test]
        fn squares_are_those_of_the_definition_with_the_same_bits_by_every_kernel(exponent in 8u32..12, seed in any::<u64>()) {
            let mut portable = squarer(Kernel::Portable, 1 << exponent, seed);
            let expected = slow(portable.digits());
            let squared = portable.square(&mut |_| {});
            prop_assert!(squared.rounding_error < 0.01, "{}", squared.rounding_error);
            prop_assert_eq!(squared.residue, squared.expected);
            // What is carried into the middle from below may not have been carried all the way.
            let found = balanced(portable.digits());
            let first = found.iter().zip(&expected).position(|(found, expected)| found == expected).unwrap_or(9);
            prop_assert!(first <= 2, "digit {}", first);
            prop_assert_eq!(&found[first..], &expected[first..]);
            for kernel in Kernel::available_loudly() {
                let mut squarer = squarer(kernel, 1 << exponent, seed);
                prop_assert_eq!(squarer.square(&mut |_| {}), squared);
                prop_assert_eq!(squarer.digits(), portable.digits());
            }
        }
    }

    #[test]
    fn long_numbers_are_squared_again_and_again_with_right_residues() {
        for length in [1 << 15, 1 << 16, 1 << 17] {
            let mut squarer = squarer(Kernel::best(), length, 3);
            for _ in 0..5 {
                let squared = squarer.square(&mut |_| {});
                assert!(squared.rounding_error < 0.1, "{}", squared.rounding_error);
                assert_eq!(squared.residue, squared.expected, "length {length}");
                let kept = squarer.residue;
                assert_eq!(residue_of(Kernel::best(), squarer.digits()), kept, "length {length}");
            }
        }
    }

    #[test]
    fn a_wrong_point_shows_in_the_residue_or_the_rounding() {
        let mut squarer = squarer(Kernel::best(), 1 << 10, 3);
        let squared = squarer.square(&mut |points| points[77].im[3] += 1e9);
        assert!(squared.rounding_error >= 0.4 || squared.residue != squared.expected);
    }
}
