//! Numbers as bits whose chances are learnt.

use super::range::{Chance, Decoder, Encoder};

/// A byte, bit by bit from the top, each bit with a chance of its own after the bits before.
#[derive(Clone)]
pub(crate) struct Byte([Chance; 256]);

impl Byte {
    pub(crate) fn new() -> Self {
        Self([Chance::EVEN; 256])
    }

    pub(crate) fn write(&mut self, encoder: &mut Encoder, byte: u8) {
        let mut node = 1;
        for bit in (0..8).rev() {
            let bit = byte >> bit & 1 == 1;
            encoder.bit(&mut self.0[node], bit);
            node = node << 1 | usize::from(bit);
        }
    }

    pub(crate) fn read(&mut self, decoder: &mut Decoder) -> u8 {
        let mut node = 1;
        while node < 256 {
            node = node << 1 | usize::from(decoder.bit(&mut self.0[node]));
        }
        (node - 256) as u8
    }
}

/// A count: its number of bits as a byte, then the bits below the highest, the first few with learnt chances
/// (Elias, Universal codeword sets and representations of the integers, 1975).
#[derive(Clone)]
pub(crate) struct Count {
    length: Byte,
    bits: [[Chance; 4]; 33],
}

impl Count {
    pub(crate) fn new() -> Self {
        Self { length: Byte::new(), bits: [[Chance::EVEN; 4]; 33] }
    }

    pub(crate) fn write(&mut self, encoder: &mut Encoder, count: u32) {
        let number = u64::from(count) + 1;
        let length = number.ilog2();
        self.length.write(encoder, length as u8);
        for (step, bit) in (0..length).rev().enumerate() {
            let bit = number >> bit & 1 == 1;
            match self.bits[length as usize].get_mut(step) {
                Some(chance) => encoder.bit(chance, bit),
                None => encoder.bit(&mut Chance::EVEN.clone(), bit),
            }
        }
    }

    /// The count; none where the bytes can't come from [`Count::write`].
    pub(crate) fn read(&mut self, decoder: &mut Decoder) -> Option<u32> {
        let length = self.length.read(decoder);
        let chances = self.bits.get_mut(usize::from(length))?;
        let mut number = 1u64;
        for step in 0..usize::from(length) {
            let bit = match chances.get_mut(step) {
                Some(chance) => decoder.bit(chance),
                None => decoder.bit(&mut Chance::EVEN.clone()),
            };
            number = number << 1 | u64::from(bit);
        }
        u32::try_from(number - 1).ok()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn bytes_and_counts_come_back(numbers in prop::collection::vec((any::<u8>(), prop_oneof![0u32..9, any::<u32>()]), 0..200)) {
            let (mut byte, mut count) = (Byte::new(), Count::new());
            let mut encoder = Encoder::new(Vec::new());
            for (small, large) in &numbers {
                byte.write(&mut encoder, *small);
                count.write(&mut encoder, *large);
            }
            let bytes = encoder.finish();
            let (mut byte, mut count) = (Byte::new(), Count::new());
            let mut decoder = Decoder::new(&bytes);
            for (small, large) in numbers {
                prop_assert_eq!(byte.read(&mut decoder), small);
                prop_assert_eq!(count.read(&mut decoder), Some(large));
            }
        }
    }
}
