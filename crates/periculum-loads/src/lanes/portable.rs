//! Lanes of any processor, and the measure of the others.

use super::{LANES, Lanes, Line};

/// Eight numbers in an array.
#[derive(Clone, Copy)]
pub(crate) struct Portable([f64; LANES]);

impl Portable {
    #[inline(always)]
    fn map(self, change: impl Fn(f64) -> f64) -> Self {
        Self(self.0.map(change))
    }

    #[inline(always)]
    fn zip(self, other: Self, join: impl Fn(f64, f64) -> f64) -> Self {
        let mut joined = self.0;
        joined.iter_mut().zip(other.0).for_each(|(lane, other)| *lane = join(*lane, other));
        Self(joined)
    }

    #[inline(always)]
    fn words(self, other: Self, join: impl Fn(u64, u64) -> u64) -> Self {
        self.zip(other, |a, b| f64::from_bits(join(a.to_bits(), b.to_bits())))
    }
}

/// Where another kernel is the usual one, what a great deal of code is made of is called and not laid into it: a multiply-add is a
/// call there anyway, and all that is built of them would be ten times as long.
impl Lanes for Portable {
    #[inline(always)]
    fn load(from: &[f64; LANES]) -> Self {
        Self(*from)
    }

    #[inline(always)]
    fn store(self, to: &mut [f64; LANES]) {
        *to = self.0;
    }

    #[inline(always)]
    fn splat(value: f64) -> Self {
        Self([value; LANES])
    }

    #[cfg_attr(target_arch = "x86_64", inline(never))]
    #[cfg_attr(not(target_arch = "x86_64"), inline(always))]
    fn add(self, other: Self) -> Self {
        self.zip(other, |a, b| a + b)
    }

    #[cfg_attr(target_arch = "x86_64", inline(never))]
    #[cfg_attr(not(target_arch = "x86_64"), inline(always))]
    fn sub(self, other: Self) -> Self {
        self.zip(other, |a, b| a - b)
    }

    #[cfg_attr(target_arch = "x86_64", inline(never))]
    #[cfg_attr(not(target_arch = "x86_64"), inline(always))]
    fn mul(self, other: Self) -> Self {
        self.zip(other, |a, b| a * b)
    }

    #[cfg_attr(target_arch = "x86_64", inline(never))]
    #[cfg_attr(not(target_arch = "x86_64"), inline(always))]
    fn mul_add(self, factor: Self, addend: Self) -> Self {
        let mut sums = self.0;
        for ((sum, factor), addend) in sums.iter_mut().zip(factor.0).zip(addend.0) {
            *sum = sum.mul_add(factor, addend);
        }
        Self(sums)
    }

    #[cfg_attr(target_arch = "x86_64", inline(never))]
    #[cfg_attr(not(target_arch = "x86_64"), inline(always))]
    fn neg_mul_add(self, factor: Self, addend: Self) -> Self {
        self.map(|lane| -lane).mul_add(factor, addend)
    }

    #[inline(always)]
    fn round(self) -> Self {
        self.map(f64::round_ties_even)
    }

    #[inline(always)]
    fn abs(self) -> Self {
        self.map(f64::abs)
    }

    #[inline(always)]
    fn max(self, other: Self) -> Self {
        self.zip(other, |a, b| if a > b { a } else { b })
    }

    #[inline(always)]
    fn xor(self, other: Self) -> Self {
        self.words(other, |a, b| a ^ b)
    }

    #[inline(always)]
    fn or(self, other: Self) -> Self {
        self.words(other, |a, b| a | b)
    }

    #[inline(always)]
    fn stream(self, to: &mut Line) {
        to.0 = self.0;
    }

    #[inline(always)]
    fn add_words(self, other: Self) -> Self {
        self.words(other, u64::wrapping_add)
    }

    #[inline(always)]
    fn rotate_29(self) -> Self {
        self.map(|lane| f64::from_bits(lane.to_bits().rotate_left(29)))
    }

    #[inline(always)]
    fn shifted_up(self, before: Self) -> Self {
        let mut shifted = [before.0[LANES - 1]; LANES];
        shifted[1..].copy_from_slice(&self.0[..LANES - 1]);
        Self(shifted)
    }

    #[cfg_attr(target_arch = "x86_64", inline(never))]
    #[cfg_attr(not(target_arch = "x86_64"), inline(always))]
    fn transpose(rows: [Self; LANES]) -> [Self; LANES] {
        let mut columns = [Self([0.0; LANES]); LANES];
        for (row, values) in rows.iter().enumerate() {
            for (column, value) in values.0.iter().enumerate() {
                columns[column].0[row] = *value;
            }
        }
        columns
    }
}
