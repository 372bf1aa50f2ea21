//! Carries let go until every digit is balanced.

use super::digit::{BESIDE, DIGIT, whole};
use crate::lanes::{LANES, Lanes};

/// Digits on their way to balance, eight at a time, lowest first: each of three steps moves what is beyond a digit to the next one.
///
/// Before the first step a digit is below 2⁵⁰, after it below 2³⁵, after the second below 2²⁰, and after the third
/// it is balanced, give or take one. All of it is exact.
#[derive(Clone, Copy)]
pub(super) struct Carries<L> {
    before: [L; 3],
}

impl<L: Lanes> Carries<L> {
    #[inline(always)]
    pub(super) fn new() -> Self {
        Self { before: [L::splat(0.0); 3] }
    }

    #[inline(always)]
    pub(super) fn pass(&mut self, raw: L) -> L {
        let [first, second, third] = &mut self.before;
        step(step(step(raw, first), second), third)
    }

    /// What the next digit gets. Three steps come no further than three digits, so that it only depends on the last ones that passed.
    pub(super) fn carried(&self) -> i64 {
        self.before.map(highest).iter().sum()
    }
}

const BASE: f64 = (1u64 << DIGIT) as f64;

/// Moves what is beyond each digit to the next one.
#[inline(always)]
fn step<L: Lanes>(digits: L, before: &mut L) -> L {
    // The nearest number of whole bases, as a number is rounded beside one whose last place is one.
    let carry = digits.mul_add(L::splat(1.0 / BASE), L::splat(BESIDE)).sub(L::splat(BESIDE));
    let balanced = carry.neg_mul_add(L::splat(BASE), digits).add(carry.shifted_up(*before));
    *before = carry;
    balanced
}

fn highest<L: Lanes>(carry: L) -> i64 {
    let mut carries = [0.0; LANES];
    carry.store(&mut carries);
    whole(carries[LANES - 1])
}
