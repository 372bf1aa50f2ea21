//! Squares of long numbers: a convolution of their digits with themselves, and a pass for the carries.

use std::io;

use super::complex::Block;
use super::grid::Grid;
use super::residue::Residue;
use crate::buffer::Buffer;
use crate::digest::IS_CHECKED;
use crate::kernel::{Kernel, for_each_kernel};
use crate::lanes::{LANES, Lanes};

/// Bits of a digit. Digits are balanced: from −2¹⁵ to 2¹⁵, give or take one.
pub(crate) const DIGIT: u64 = 16;

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

    /// Takes the residue of digits that were written from outside.
    pub(super) fn take_residue(&mut self) {
        self.residue = residue_of(self.kernel, &self.digits);
    }

    /// Replaces the number by the middle half of its square's digits; `between` may look at the points in between.
    pub(super) fn square(&mut self, between: &mut dyn FnMut(&mut [Block])) -> Squared {
        let expected = self.residue.squared();
        self.grid.forward(&self.digits, None, &mut self.points);
        between(&mut self.points);
        self.grid.square(&mut self.points);
        let rounding_error = self.grid.back(&mut self.points);
        let residues = release_carries(self.kernel, self);
        let quarter = DIGIT * (self.digits.len() / 2) as u64;
        let residue = residues.iter().rev().fold(Residue::ZERO, |sum, residue| sum.shifted(quarter).plus(*residue));
        self.residue = residues[1].plus(residues[2].shifted(quarter));
        Squared { rounding_error, residue, expected }
    }
}

for_each_kernel! {
    /// Lets carries go until every digit is balanced; takes the middle half of the digits as the new number, and tells
    /// the residues of the four quarters.
    fn release_carries(squarer: &mut Squarer) -> [Residue; 4] = release_carries_in_lanes;
}

#[inline(always)]
fn release_carries_in_lanes<L: Lanes>(squarer: &mut Squarer) -> [Residue; 4] {
    let Squarer { grid, points, digits, .. } = squarer;
    let half = grid.row_count() / 2 * grid.row_length();
    let length = digits.len();
    let mut carries = Carries::<L>::new();
    let mut residues = [Residue::ZERO; 4];
    // Real parts are the lower half of the digits, imaginary ones the upper half. The number is the middle half: the
    // second and the third quarter.
    let (low_rows, high_rows) = points.split_at(half);
    let (second, third) = digits.split_at_mut(length / 2);
    let mut outer: [f64; 0] = [];
    for (quarter, residue) in residues.iter_mut().enumerate() {
        let rows = if quarter % 2 == 0 { low_rows } else { high_rows };
        let kept = match quarter {
            1 => &mut *second,
            2 => &mut *third,
            _ => &mut outer[..],
        };
        *residue = release_quarter(&mut carries, grid.rows(rows), quarter < 2, kept);
    }
    residues
}

/// Lets the carries of a quarter of the digits go and keeps them where there is room; tells their residue.
#[inline(always)]
fn release_quarter<'a, L: Lanes>(
    carries: &mut Carries<L>,
    rows: impl Iterator<Item = &'a [Block]>,
    is_real: bool,
    kept: &mut [f64],
) -> Residue {
    let mut sums = LaneSums::<L>::new();
    let mut places = kept.as_chunks_mut::<LANES>().0.iter_mut();
    for row in rows {
        for block in row {
            let balanced = carries.pass(L::load(if is_real { &block.re } else { &block.im }));
            sums.take(balanced);
            if let Some(place) = places.next() {
                balanced.store(place);
            }
        }
    }
    sums.residue()
}

for_each_kernel! {
    /// The residue of digits, lowest first.
    fn residue_of(digits: &[f64]) -> Residue = residue_in_lanes;
}

#[inline(always)]
fn residue_in_lanes<L: Lanes>(digits: &[f64]) -> Residue {
    let mut sums = LaneSums::<L>::new();
    for digits in digits.as_chunks::<LANES>().0 {
        sums.take(L::load(digits));
    }
    sums.residue()
}

/// Digits on their way to balance: each of three steps moves what is beyond a digit to the next one.
///
/// Before the first step a digit is below 2⁵⁰, after it below 2³⁵, after the second below 2²⁰, and after the third
/// it is balanced, give or take one. All of it is exact.
struct Carries<L> {
    before: [L; 3],
}

impl<L: Lanes> Carries<L> {
    #[inline(always)]
    fn new() -> Self {
        Self { before: [L::splat(0.0); 3] }
    }

    #[inline(always)]
    fn pass(&mut self, raw: L) -> L {
        let base = (1u64 << DIGIT) as f64;
        let mut digits = raw;
        for before in &mut self.before {
            let carry = digits.mul(L::splat(1.0 / base)).round();
            digits = carry.neg_mul_add(L::splat(base), digits).add(carry.shifted_up(*before));
            *before = carry;
        }
        digits
    }
}

/// How many vectors of digits are added up before their sum is taken: 2⁶ per vector, and sums stay exact.
const VECTORS: usize = 6;

/// The residue of a run of digits, eight at a time.
///
/// Eight digits are 128 bits, and 2¹²⁸ is 2⁶ modulo the prime, so each lane adds up digits times powers of 2⁶.
struct LaneSums<L> {
    sum: L,
    vectors: usize,
    /// Sums so far, each lane's own.
    totals: [u64; LANES],
    /// The power of two of the next sum.
    power: u64,
}

impl<L: Lanes> LaneSums<L> {
    #[inline(always)]
    fn new() -> Self {
        Self { sum: L::splat(0.0), vectors: 0, totals: [0; LANES], power: 0 }
    }

    #[inline(always)]
    fn take(&mut self, digits: L) {
        if !IS_CHECKED {
            return;
        }
        const POWERS: [f64; VECTORS] = [1.0, 64.0, 4096.0, 262_144.0, 16_777_216.0, 1_073_741_824.0];
        self.sum = digits.mul_add(L::splat(POWERS[self.vectors]), self.sum);
        self.vectors += 1;
        if self.vectors == VECTORS {
            self.flush();
        }
    }

    #[inline(always)]
    fn flush(&mut self) {
        let mut sums = [0.0; LANES];
        self.sum.store(&mut sums);
        for (total, sum) in self.totals.iter_mut().zip(sums) {
            *total = add_rotated(*total, whole(sum), self.power);
        }
        self.power = (self.power + 6 * self.vectors as u64) % 61;
        (self.sum, self.vectors) = (L::splat(0.0), 0);
    }

    fn residue(mut self) -> Residue {
        self.flush();
        let lanes = self.totals.iter().rev();
        lanes.fold(Residue::ZERO, |sum, total| sum.shifted(DIGIT).plus(Residue::of(i128::from(*total))))
    }
}

/// A whole number below 2⁵¹ as an integer: beside 1½ times 2⁵² its bits stand in the lowest places. Unlike a
/// conversion it takes eight at a time everywhere.
#[inline(always)]
pub(crate) fn whole(number: f64) -> i64 {
    const BESIDE: f64 = 6_755_399_441_055_744.0;
    (number + BESIDE).to_bits().wrapping_sub(BESIDE.to_bits()) as i64
}

/// Adds a number of less than 60 bits times a power of two, below the 61st, to a total of less than 62 bits.
#[inline(always)]
fn add_rotated(total: u64, number: i64, power: u64) -> u64 {
    const PRIME: u64 = (1 << 61) - 1;
    let residue = (number + (number >> 63 & PRIME as i64)) as u64;
    let rotated = (residue << power & PRIME) + (residue >> (61 - power));
    let sum = total + rotated;
    (sum & PRIME) + (sum >> 61)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::random::Random;
    use proptest::prelude::*;

    fn squarer(kernel: Kernel, length: usize, seed: u64) -> Squarer {
        let mut squarer = Squarer::new(kernel, length).expect("memory");
        let mut random = Random::new(seed);
        squarer.digits_mut().fill_with(|| random.below(65_537) as f64 - 32_768.0);
        squarer.take_residue();
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
                squarer.take_residue();
                assert_eq!(squarer.residue, kept, "length {length}");
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
