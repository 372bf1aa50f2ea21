//! Residues of long numbers modulo the prime 2⁶¹ − 1, in which multiplying by a power of two is a rotation.

/// The modulus.
const PRIME: i128 = (1 << 61) - 1;

/// A residue.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) struct Residue(u64);

impl Residue {
    /// Nothing.
    pub(super) const ZERO: Self = Self(0);

    /// The residue of a number.
    pub(super) fn of(number: i128) -> Self {
        Self(number.rem_euclid(PRIME) as u64)
    }

    pub(super) fn plus(self, other: Self) -> Self {
        Self::of(i128::from(self.0) + i128::from(other.0))
    }

    pub(super) fn squared(self) -> Self {
        Self::of(i128::from(self.0) * i128::from(self.0))
    }

    /// Times this power of two.
    pub(super) fn shifted(self, bits: u64) -> Self {
        Self::of(i128::from(self.0) << (bits % 61))
    }
}

impl std::fmt::LowerHex for Residue {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        std::fmt::LowerHex::fmt(&self.0, f)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn residues_follow_the_numbers(a in any::<i64>(), b in any::<i64>(), bits in 0u64..200) {
            let (x, y) = (Residue::of(a.into()), Residue::of(b.into()));
            prop_assert_eq!(x.plus(y), Residue::of(i128::from(a) + i128::from(b)));
            prop_assert_eq!(x.squared(), Residue::of(i128::from(a) * i128::from(a)));
            let doubled = (0..bits).fold(x, |x, _| x.plus(x));
            prop_assert_eq!(x.shifted(bits), doubled);
        }
    }
}
