//! Eight numbers worked on at once, in the same way and to the same bits by every kernel.
//!
//! A function that is generic over [`Lanes`] and compiled with a kernel's instructions (see
//! [`crate::kernel::for_each_kernel`]) has its speed; with [`Portable`] it runs anywhere.

#[cfg(target_arch = "x86_64")]
mod avx2;
#[cfg(target_arch = "x86_64")]
mod avx512;
mod portable;

#[cfg(target_arch = "x86_64")]
pub(crate) use avx2::Avx2;
#[cfg(target_arch = "x86_64")]
pub(crate) use avx512::Avx512;
pub(crate) use portable::Portable;

/// How many numbers there are.
pub(crate) const LANES: usize = 8;

/// A cache line of numbers.
#[derive(Clone, Copy, Debug, PartialEq, bytemuck::Pod, bytemuck::Zeroable)]
#[repr(C, align(64))]
pub(crate) struct Line(pub(crate) [f64; LANES]);

/// Waits until everything that was streamed is in memory.
pub(crate) fn fence() {
    // An interpreter of this code (Miri) has no caches to write past.
    #[cfg(all(target_arch = "x86_64", not(miri)))]
    // SAFETY: every x86-64 processor has the instruction, and it only waits.
    unsafe {
        std::arch::x86_64::_mm_sfence();
    }
}

/// Eight numbers of 64 bits: floating-point ones, rounded to nearest, or words.
///
/// # Safety
/// Every method but those of [`Portable`] needs the instructions of its kernel; the functions that
/// `for_each_kernel` defines call them only where the processor has these.
pub(crate) trait Lanes: Copy {
    fn load(from: &[f64; LANES]) -> Self;
    fn store(self, to: &mut [f64; LANES]);
    fn splat(value: f64) -> Self;
    fn add(self, other: Self) -> Self;
    fn sub(self, other: Self) -> Self;
    fn mul(self, other: Self) -> Self;
    /// `self × factor + addend`, rounded once.
    fn mul_add(self, factor: Self, addend: Self) -> Self;
    /// `addend − self × factor`, rounded once.
    fn neg_mul_add(self, factor: Self, addend: Self) -> Self;
    /// Rounded to the nearest whole number, ties to even.
    fn round(self) -> Self;
    fn abs(self) -> Self;
    /// The larger of each pair; the other's where this one's is not a number.
    fn max(self, other: Self) -> Self;
    /// The larger magnitude of each pair; the other's where this one's is not a number.
    #[inline(always)]
    fn larger_magnitude(self, other: Self) -> Self {
        self.abs().max(other.abs())
    }
    /// Bitwise exclusive or.
    fn xor(self, other: Self) -> Self;
    /// Bitwise or.
    fn or(self, other: Self) -> Self;
    /// Writes past the caches; [`fence`] must follow before others may read.
    fn stream(self, to: &mut Line);
    /// Sum of words, modulo 2⁶⁴.
    fn add_words(self, other: Self) -> Self;
    /// Words rotated left by 29 bits.
    fn rotate_29(self) -> Self;
    /// Lanes one up: the highest of `before` comes first, and the highest of `self` is lost.
    fn shifted_up(self, before: Self) -> Self;
    /// Eight vectors as the rows of a matrix, which become its columns.
    fn transpose(rows: [Self; LANES]) -> [Self; LANES];
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::kernel::{Kernel, for_each_kernel};
    use proptest::prelude::*;

    type Row = [f64; LANES];

    #[inline(always)]
    fn everything<L: Lanes>(a: &Row, b: &Row, c: &Row) -> Vec<u64> {
        let (x, y, z) = (L::load(a), L::load(b), L::load(c));
        let mut results = vec![
            x.add(y),
            x.sub(y),
            x.mul(y),
            x.mul_add(y, z),
            x.neg_mul_add(y, z),
            x.round(),
            x.abs(),
            x.max(y),
            x.larger_magnitude(y),
            x.xor(y),
            x.or(y),
            x.add_words(y),
            x.rotate_29(),
            x.shifted_up(y),
            L::splat(a[3]),
        ];
        results.extend(L::transpose([x, y, z, x.add(z), x.sub(z), y.add(z), y.sub(z), x.mul(z)]));
        let mut line = Line([0.0; LANES]);
        x.stream(&mut line);
        fence();
        results.push(L::load(&line.0));
        let mut row = [0.0; LANES];
        let mut words = Vec::new();
        for result in results {
            result.store(&mut row);
            words.extend(row.map(f64::to_bits));
        }
        words
    }

    for_each_kernel! {
        fn every_operation(a: &Row, b: &Row, c: &Row) -> Vec<u64> = everything;
    }

    fn row() -> impl Strategy<Value = Row> {
        prop::array::uniform8(prop_oneof![-1e9f64..1e9, prop::num::f64::NORMAL, Just(0.5), Just(-2.5), Just(0.0)])
    }

    proptest! {
        #[test]
        fn every_operation_has_the_same_bits_on_every_kernel(a in row(), b in row(), c in row()) {
            let expected = every_operation(Kernel::Portable, &a, &b, &c);
            for kernel in Kernel::ALL.into_iter().filter(|kernel| kernel.is_available()) {
                let found = every_operation(kernel, &a, &b, &c);
                for (index, (found, expected)) in found.iter().zip(&expected).enumerate() {
                    let are_both_nan = f64::from_bits(*found).is_nan() && f64::from_bits(*expected).is_nan();
                    prop_assert!(are_both_nan || found == expected, "{} word {}", kernel.name(), index);
                }
            }
        }
    }
}
