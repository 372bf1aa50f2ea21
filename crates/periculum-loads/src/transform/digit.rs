//! Digits of long numbers, as floating-point numbers hold them.

/// Bits of a digit. Digits are balanced: from −2¹⁵ to 2¹⁵, give or take one.
pub(crate) const DIGIT: u64 = 16;

/// 1½ times 2⁵²: beside it whole numbers below 2⁵¹ stand in the lowest bits, and what is no whole number is rounded to the nearest, ties
/// to even.
pub(super) const BESIDE: f64 = 6_755_399_441_055_744.0;

/// A whole number below 2⁵¹ as an integer. Unlike a conversion it takes eight at a time everywhere.
#[inline(always)]
pub(crate) fn whole(number: f64) -> i64 {
    (number + BESIDE).to_bits().wrapping_sub(BESIDE.to_bits()) as i64
}
