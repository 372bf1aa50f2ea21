//! An adaptive binary range coder (Rissanen and Langdon, Arithmetic coding, 1979; Martin, Range encoding, 1979).

/// Bits of a probability.
const PRECISION: u32 = 12;

/// How fast a probability follows what it sees: by a 32nd of the way.
const RATE: u32 = 5;

/// The range is widened by a byte when it is below this.
const NARROW: u32 = 1 << 24;

/// The probability that a bit is 0, learnt from the bits before.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct Chance(u16);

impl Chance {
    /// Even odds.
    pub(crate) const EVEN: Self = Self(1 << (PRECISION - 1));

    fn split(self, range: u32) -> u32 {
        (range >> PRECISION) * u32::from(self.0)
    }

    fn learn(&mut self, bit: bool) {
        if bit {
            self.0 -= self.0 >> RATE;
        } else {
            self.0 += ((1 << PRECISION) - self.0) >> RATE;
        }
    }
}

/// Writes bits.
#[derive(Default)]
pub(crate) struct Encoder {
    /// The low end of the range; its 33rd bit is a carry.
    low: u64,
    range: u32,
    /// The last byte that a carry could still change, and how many bytes of 255 follow it.
    held: Option<u8>,
    waiting: usize,
    bytes: Vec<u8>,
}

impl Encoder {
    /// A coder that writes into this memory, from its start.
    pub(crate) fn new(mut bytes: Vec<u8>) -> Self {
        bytes.clear();
        Self { low: 0, range: u32::MAX, held: None, waiting: 0, bytes }
    }

    /// Writes a bit.
    #[inline]
    pub(crate) fn bit(&mut self, chance: &mut Chance, bit: bool) {
        let split = chance.split(self.range);
        if bit {
            self.low += u64::from(split);
            self.range -= split;
        } else {
            self.range = split;
        }
        chance.learn(bit);
        while self.range < NARROW {
            self.range <<= 8;
            self.shift();
        }
    }

    fn shift(&mut self) {
        let carry = (self.low >> 32) as u8;
        let top = (self.low >> 24) as u8;
        if carry == 0 && top == 0xff {
            // A later carry would go through it.
            self.waiting += 1;
        } else {
            self.bytes.extend(self.held.map(|held| held.wrapping_add(carry)));
            self.bytes.extend(std::iter::repeat_n(0xffu8.wrapping_add(carry), self.waiting));
            (self.held, self.waiting) = (Some(top), 0);
        }
        self.low = (self.low & 0x00ff_ffff) << 8;
    }

    /// Everything that was written.
    pub(crate) fn finish(mut self) -> Vec<u8> {
        (0..5).for_each(|_| self.shift());
        self.bytes
    }
}

/// Reads bits; past the end of the bytes it reads nothing but zeros.
pub(crate) struct Decoder<'a> {
    code: u32,
    range: u32,
    bytes: std::slice::Iter<'a, u8>,
}

impl<'a> Decoder<'a> {
    /// Reads what an encoder wrote.
    pub(crate) fn new(bytes: &'a [u8]) -> Self {
        let mut decoder = Self { code: 0, range: u32::MAX, bytes: bytes.iter() };
        (0..4).for_each(|_| decoder.take_byte());
        decoder
    }

    fn take_byte(&mut self) {
        self.code = self.code << 8 | u32::from(self.bytes.next().copied().unwrap_or(0));
    }

    /// Reads a bit.
    #[inline]
    pub(crate) fn bit(&mut self, chance: &mut Chance) -> bool {
        let split = chance.split(self.range);
        let bit = self.code >= split;
        if bit {
            self.code -= split;
            self.range -= split;
        } else {
            self.range = split;
        }
        chance.learn(bit);
        while self.range < NARROW {
            self.range <<= 8;
            self.take_byte();
        }
        bit
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn bits_come_back(bits in prop::collection::vec(prop::bool::weighted(0.93), 0..4000), others in prop::collection::vec(any::<bool>(), 0..300)) {
            let bits: Vec<bool> = bits.into_iter().chain(others).collect();
            let mut encoder = Encoder::new(Vec::new());
            let mut chance = Chance::EVEN;
            bits.iter().for_each(|bit| encoder.bit(&mut chance, *bit));
            let bytes = encoder.finish();
            let mut decoder = Decoder::new(&bytes);
            let mut chance = Chance::EVEN;
            let read: Vec<bool> = bits.iter().map(|_| decoder.bit(&mut chance)).collect();
            prop_assert_eq!(read, bits);
        }

        #[test]
        fn any_bytes_can_be_read(bytes in prop::collection::vec(any::<u8>(), 0..40)) {
            let mut decoder = Decoder::new(&bytes);
            let mut chance = Chance::EVEN;
            let ones = (0..1000).filter(|_| decoder.bit(&mut chance)).count();
            prop_assert!(ones <= 1000);
        }
    }

    #[test]
    fn what_is_likely_takes_little_room() {
        let mut encoder = Encoder::new(Vec::new());
        let mut chance = Chance::EVEN;
        (0..10_000).for_each(|index| encoder.bit(&mut chance, index % 100 == 0));
        // The entropy of one in a hundred is 0.081 bit.
        assert!(encoder.finish().len() < 10_000 / 8 / 8);
    }
}
