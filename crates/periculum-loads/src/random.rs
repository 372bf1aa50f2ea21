//! Seeded numbers for what loads work on: SplitMix64 (Steele, Lea and Flood, Fast splittable pseudorandom number
//! generators, 2014).

/// A stream of words that its seed fixes.
#[derive(Clone, Debug)]
pub(crate) struct Random(u64);

impl Random {
    /// The stream of a seed.
    pub(crate) fn new(seed: u64) -> Self {
        Self(seed)
    }

    /// The next word, any of the 2⁶⁴ equally often.
    pub(crate) fn word(&mut self) -> u64 {
        self.0 = self.0.wrapping_add(0x9e37_79b9_7f4a_7c15);
        let mut mixed = (self.0 ^ (self.0 >> 30)).wrapping_mul(0xbf58_476d_1ce4_e5b9);
        mixed = (mixed ^ (mixed >> 27)).wrapping_mul(0x94d0_49bb_1331_11eb);
        mixed ^ (mixed >> 31)
    }

    /// A number spread evenly over [0, 1).
    pub(crate) fn unit(&mut self) -> f64 {
        (self.word() >> 11) as f64 / (1u64 << 53) as f64
    }

    /// A whole number below this one, by Lemire's multiplication (Fast random integer generation in an interval,
    /// 2019); the bias of at most `end / 2⁶⁴` is left in.
    pub(crate) fn below(&mut self, end: u64) -> u64 {
        ((u128::from(self.word()) * u128::from(end)) >> 64) as u64
    }
}

/// Fills with numbers spread evenly over [-½, ½), the same for the same seed.
pub(crate) fn fill(values: &mut [f64], seed: u64) {
    let mut random = Random::new(seed);
    values.iter_mut().for_each(|value| *value = random.unit() - 0.5);
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn streams_are_pinned_by_their_seed() {
        // The generator's published first words for the seed 1234567.
        let mut random = Random::new(1_234_567);
        let words = [random.word(), random.word(), random.word()];
        assert_eq!(words, [6_457_827_717_110_365_317, 3_203_168_211_198_807_973, 9_817_491_932_198_370_423]);
    }

    #[test]
    fn numbers_stay_in_their_range() {
        let mut random = Random::new(3);
        let seen: Vec<u64> = (0..10_000).map(|_| random.below(7)).collect();
        assert!((0..7).all(|value| seen.iter().filter(|seen| **seen == value).count() > 1300));
        assert!(seen.iter().all(|value| *value < 7));
        assert!((0..10_000).map(|_| random.unit()).all(|value| (0.0..1.0).contains(&value)));
    }
}
