//! Words that are written and looked for again: every word follows from its place.

use crate::kernel::for_each_kernel;
use crate::lanes::{LANES, Lanes, Line, fence};

/// What stands in memory: word `i` is `start + i·step`, mixed where the pattern is mixed, and turned over where it
/// is inverted.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Pattern {
    pub(super) start: u64,
    pub(super) step: u64,
    pub(super) is_mixed: bool,
    pub(super) is_inverted: bool,
}

impl Pattern {
    /// The same word everywhere.
    pub(super) fn constant(word: u64) -> Self {
        Self { start: word, step: 0, is_mixed: false, is_inverted: false }
    }

    /// Words as random as a Weyl sequence with its bits mixed (Weyl, Über die Gleichverteilung von Zahlen mod. Eins,
    /// 1916).
    pub(super) fn random(seed: u64) -> Self {
        Self { start: seed, step: 0x9e37_79b9_7f4a_7c15, is_mixed: true, is_inverted: false }
    }

    /// Words that are the addresses of bytes from here on.
    pub(super) fn addresses(first: u64) -> Self {
        Self { start: first, step: 8, is_mixed: false, is_inverted: false }
    }

    /// Every bit turned over.
    #[must_use]
    pub(super) fn inverted(self) -> Self {
        Self { is_inverted: !self.is_inverted, ..self }
    }

    /// The same pattern from a later word on.
    #[must_use]
    pub(super) fn from(self, index: usize) -> Self {
        Self { start: self.start.wrapping_add((index as u64).wrapping_mul(self.step)), ..self }
    }

    /// The word at this place.
    pub(super) fn word(self, index: usize) -> u64 {
        let raw = self.from(index).start;
        let mixed = if self.is_mixed { raw ^ raw.rotate_left(29) } else { raw };
        if self.is_inverted { !mixed } else { mixed }
    }

    /// The first line, and what is added to get from line to line.
    #[inline(always)]
    fn lanes<L: Lanes>(self) -> (L, L) {
        let first = std::array::from_fn(|lane| f64::from_bits(self.from(lane).start));
        (L::load(&first), L::splat(f64::from_bits(self.step.wrapping_mul(LANES as u64))))
    }

    #[inline(always)]
    fn finish<L: Lanes>(self, raw: L) -> L {
        let mixed = if self.is_mixed { raw.xor(raw.rotate_29()) } else { raw };
        if self.is_inverted { mixed.xor(L::splat(f64::from_bits(u64::MAX))) } else { mixed }
    }
}

for_each_kernel! {
    /// Writes a pattern past the caches.
    pub(super) fn write(lines: &mut [Line], pattern: Pattern) = write_in_lanes;
}

#[inline(always)]
fn write_in_lanes<L: Lanes>(lines: &mut [Line], pattern: Pattern) {
    let (mut raw, step) = pattern.lanes::<L>();
    for line in lines {
        pattern.finish(raw).stream(line);
        raw = raw.add_words(step);
    }
    fence();
}

for_each_kernel! {
    /// Writes a pattern past the caches, every so many lines and then those between.
    pub(super) fn write_in_strides(lines: &mut [Line], pattern: Pattern, stride: usize) = write_strides_in_lanes;
}

#[inline(always)]
fn write_strides_in_lanes<L: Lanes>(lines: &mut [Line], pattern: Pattern, stride: usize) {
    for first in 0..stride {
        let (mut raw, _) = pattern.from(first * LANES).lanes::<L>();
        let step = L::splat(f64::from_bits(pattern.step.wrapping_mul((stride * LANES) as u64)));
        for line in lines.iter_mut().skip(first).step_by(stride) {
            pattern.finish(raw).stream(line);
            raw = raw.add_words(step);
        }
    }
    fence();
}

for_each_kernel! {
    /// Whether every word is as the pattern has it.
    pub(super) fn holds(lines: &[Line], pattern: Pattern) -> bool = holds_in_lanes;
}

#[inline(always)]
fn holds_in_lanes<L: Lanes>(lines: &[Line], pattern: Pattern) -> bool {
    let (mut raw, step) = pattern.lanes::<L>();
    let mut difference = L::splat(0.0);
    for line in lines {
        difference = difference.or(L::load(&line.0).xor(pattern.finish(raw)));
        raw = raw.add_words(step);
    }
    is_nothing(difference)
}

for_each_kernel! {
    /// Whether every word was as the pattern has it; turns every word over as it is found, so that a wrong one stays
    /// wrong.
    pub(super) fn held_and_inverted(lines: &mut [Line], pattern: Pattern) -> bool = invert_in_lanes;
}

#[inline(always)]
fn invert_in_lanes<L: Lanes>(lines: &mut [Line], pattern: Pattern) -> bool {
    let (mut raw, step) = pattern.lanes::<L>();
    let mut difference = L::splat(0.0);
    let ones = L::splat(f64::from_bits(u64::MAX));
    for line in lines {
        let found = L::load(&line.0);
        difference = difference.or(found.xor(pattern.finish(raw)));
        found.xor(ones).store(&mut line.0);
        raw = raw.add_words(step);
    }
    is_nothing(difference)
}

#[inline(always)]
fn is_nothing<L: Lanes>(difference: L) -> bool {
    let mut words = [0.0f64; LANES];
    difference.store(&mut words);
    words.iter().all(|word| word.to_bits() == 0)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::kernel::Kernel;
    use proptest::prelude::*;

    fn pattern() -> impl Strategy<Value = Pattern> {
        let words = (any::<u64>(), any::<u64>(), any::<bool>(), any::<bool>());
        words.prop_map(|(start, step, is_mixed, is_inverted)| Pattern { start, step, is_mixed, is_inverted })
    }

    proptest! {
        #[test]
        fn what_is_written_holds_until_any_bit_changes(pattern in pattern(), length in prop_oneof![1usize..200, 200usize..3000], from in 0usize..99, bit in any::<prop::sample::Index>()) {
            for kernel in Kernel::ALL {
                let mut lines = vec![Line([0.0; LANES]); length];
                write(kernel, &mut lines, pattern.from(from));
                prop_assert!(holds(kernel, &lines, pattern.from(from)));
                for (index, word) in bytemuck::cast_slice::<Line, u64>(&lines).iter().enumerate() {
                    prop_assert_eq!(*word, pattern.word(from + index));
                }
                let mut strided = lines.clone();
                write_in_strides(kernel, &mut strided, pattern.from(from), 7);
                prop_assert_eq!(bytemuck::cast_slice::<Line, u64>(&strided), bytemuck::cast_slice::<Line, u64>(&lines));
                prop_assert!(held_and_inverted(kernel, &mut lines, pattern.from(from)));
                prop_assert!(holds(kernel, &lines, pattern.from(from).inverted()));
                let bit = bit.index(length * 512);
                bytemuck::cast_slice_mut::<Line, u8>(&mut lines)[bit / 8] ^= 1 << (bit % 8);
                prop_assert!(!holds(kernel, &lines, pattern.from(from).inverted()));
                prop_assert!(!held_and_inverted(kernel, &mut lines, pattern.from(from).inverted()));
            }
        }
    }
}
