//! Column-major matrices and their seeded contents.

/// A view of a part of a column-major matrix: `rows × columns` elements, columns `stride` elements apart.
///
/// The parts of a matrix that an algorithm works on at once overlap in memory (they interleave by columns), so
/// the view splits by columns only and hands rows out through ranges.
pub(super) struct Columns<'a> {
    pub(super) data: &'a mut [f64],
    pub(super) stride: usize,
}

impl<'a> Columns<'a> {
    /// Splits into the columns before `at` and those from it.
    pub(super) fn split(self, at: usize) -> (Columns<'a>, Columns<'a>) {
        let (left, right) = self.data.split_at_mut(at * self.stride);
        (Columns { data: left, stride: self.stride }, Columns { data: right, stride: self.stride })
    }

    pub(super) fn column(&self, index: usize) -> &[f64] {
        &self.data[index * self.stride..(index + 1) * self.stride]
    }

    pub(super) fn column_mut(&mut self, index: usize) -> &mut [f64] {
        &mut self.data[index * self.stride..(index + 1) * self.stride]
    }

    pub(super) fn borrow(&mut self) -> Columns<'_> {
        Columns { data: self.data, stride: self.stride }
    }
}

/// Fills with numbers spread evenly over [-½, ½), the same for the same seed.
///
/// The generator is SplitMix64 (Steele, Lea and Flood, Fast splittable pseudorandom number generators, 2014).
pub(super) fn fill(values: &mut [f64], seed: u64) {
    let mut state = seed;
    for value in values {
        state = state.wrapping_add(0x9e37_79b9_7f4a_7c15);
        let mut mixed = (state ^ (state >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
        mixed = (mixed ^ (mixed >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
        mixed ^= mixed >> 31;
        *value = (mixed >> 11) as f64 / (1u64 << 53) as f64 - 0.5;
    }
}

/// A digest of every bit of the values: a change of any one value changes it for certain.
///
/// Each word is mixed into one of eight lanes by an exclusive or and a multiplication by an odd number, both of
/// which can be undone, so lanes that differ at one word stay different to the end.
pub(super) fn digest(values: &[f64], state: u64) -> u64 {
    const ODD: u64 = 0x9e37_79b9_7f4a_7c15;
    let mut lanes = [state; 8];
    let (blocks, rest) = values.as_chunks::<8>();
    for block in blocks {
        for (lane, value) in lanes.iter_mut().zip(block) {
            *lane = (*lane ^ value.to_bits()).wrapping_mul(ODD).rotate_left(29);
        }
    }
    let mut digest = state;
    for word in rest.iter().map(|value| value.to_bits()).chain(lanes) {
        digest = (digest ^ word).wrapping_mul(ODD).rotate_left(29);
    }
    digest
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn contents_are_pinned_by_their_seed() {
        let mut values = [0.0; 3];
        fill(&mut values, 1);
        let again = values;
        fill(&mut values, 1);
        assert_eq!(values, again);
        fill(&mut values, 2);
        assert_ne!(values, again);
    }

    proptest! {
        #[test]
        fn any_flipped_bit_changes_the_digest(length in 1usize..100, at in any::<prop::sample::Index>(), bit in 0u32..64) {
            let mut values = vec![0.0; length];
            fill(&mut values, 5);
            let before = digest(&values, 1);
            let at = at.index(length);
            values[at] = f64::from_bits(values[at].to_bits() ^ (1 << bit));
            prop_assert_ne!(digest(&values, 1), before);
        }
    }
}
