//! Compression by matches with what stands before (Ziv and Lempel, A universal algorithm for sequential data
//! compression, 1977) and an adaptive range coder.

use crate::coding::{Byte, Count, Decoder, Encoder};

/// The shortest match that is worth writing.
const SHORTEST: usize = 4;

/// Places with the same first bytes that are tried for the longest match.
const TRIES: usize = 16;

/// Bits of the table of places.
const HASH_BITS: u32 = 15;

/// No place.
const NOWHERE: u32 = u32::MAX;

/// What packing needs, in memory that is allocated once.
pub(super) struct Packer {
    /// The last place with first bytes of each hash, and for each place the one before it.
    last: Vec<u32>,
    before: Vec<u32>,
}

/// What both sides learn on the way.
struct Models {
    literals: Count,
    bytes: [Byte; 4],
    length: Count,
    distance: Count,
}

impl Models {
    fn new() -> Self {
        Self {
            literals: Count::new(),
            bytes: std::array::from_fn(|_| Byte::new()),
            length: Count::new(),
            distance: Count::new(),
        }
    }

    /// A letter's model, after the letter before.
    fn byte(&mut self, before: u8) -> &mut Byte {
        let vowel = b"aeiou".contains(&before);
        &mut self.bytes[usize::from(vowel) + 2 * usize::from(before <= b' ')]
    }
}

impl Packer {
    /// Room for texts of at most this length, below 2³².
    pub(super) fn new(length: usize) -> Self {
        Self { last: vec![NOWHERE; 1 << HASH_BITS], before: vec![NOWHERE; length] }
    }

    /// Packs a text into this memory: runs of letters and matches in turn.
    pub(super) fn pack(&mut self, text: &[u8], packed: Vec<u8>) -> Vec<u8> {
        self.last.fill(NOWHERE);
        let mut models = Models::new();
        let mut encoder = Encoder::new(packed);
        let (mut at, mut run) = (0, 0);
        while at < text.len() {
            let found = self.longest(text, at);
            self.enter(text, at);
            if found.is_none() {
                at += 1;
                continue;
            }
            let (length, distance) = found.unwrap_or_default();
            write_run(&mut models, &mut encoder, text, run..at);
            models.length.write(&mut encoder, (length - SHORTEST) as u32);
            models.distance.write(&mut encoder, distance as u32 - 1);
            (at + 1..at + length).for_each(|place| self.enter(text, place));
            at += length;
            run = at;
        }
        write_run(&mut models, &mut encoder, text, run..at);
        encoder.finish()
    }

    fn enter(&mut self, text: &[u8], at: usize) {
        if let Some(hash) = hash(text, at) {
            self.before[at] = std::mem::replace(&mut self.last[hash], at as u32);
        }
    }

    /// Length and distance of the longest match.
    fn longest(&self, text: &[u8], at: usize) -> Option<(usize, usize)> {
        let mut place = self.last[hash(text, at)?];
        let mut best = None;
        let mut longest = SHORTEST - 1;
        for _ in 0..TRIES {
            if place == NOWHERE {
                break;
            }
            let start = place as usize;
            let length = text[at..].iter().zip(&text[start..]).take_while(|(a, b)| a == b).count();
            if length > longest {
                longest = length;
                best = Some((length, at - start));
            }
            place = self.before[start];
        }
        best
    }
}

fn hash(text: &[u8], at: usize) -> Option<usize> {
    let first = text.get(at..)?.first_chunk::<SHORTEST>()?;
    Some((u32::from_le_bytes(*first).wrapping_mul(0x9e37_79b1) >> (32 - HASH_BITS)) as usize)
}

fn write_run(models: &mut Models, encoder: &mut Encoder, text: &[u8], run: std::ops::Range<usize>) {
    models.literals.write(encoder, run.len() as u32);
    for at in run {
        let before = if at == 0 { 0 } else { text[at - 1] };
        models.byte(before).write(encoder, text[at]);
    }
}

/// Unpacks into a text of known length; stops early, and says so, where the bytes can't come from a packer.
pub(super) fn unpack(packed: &[u8], text: &mut [u8]) -> bool {
    let mut models = Models::new();
    let mut decoder = Decoder::new(packed);
    let mut at = 0;
    loop {
        let Some(run) = models.literals.read(&mut decoder) else { return false };
        for _ in 0..run {
            let before = if at == 0 { 0 } else { text[at - 1] };
            let Some(place) = text.get_mut(at) else { return false };
            *place = models.byte(before).read(&mut decoder);
            at += 1;
        }
        if at == text.len() {
            return true;
        }
        let (length, distance) = (models.length.read(&mut decoder), models.distance.read(&mut decoder));
        let (Some(length), Some(distance)) = (length, distance) else { return false };
        let (length, distance) = (length as usize + SHORTEST, distance as usize + 1);
        if distance > at || length > text.len() - at {
            return false;
        }
        for _ in 0..length {
            text[at] = text[at - distance];
            at += 1;
        }
    }
}

#[cfg(test)]
mod tests {
    use super::super::text;
    use super::*;
    use proptest::prelude::*;

    fn comes_back(text: &[u8]) -> usize {
        let packed = Packer::new(text.len()).pack(text, Vec::new());
        let mut unpacked = vec![0; text.len()];
        assert!(unpack(&packed, &mut unpacked));
        assert_eq!(unpacked, text);
        packed.len()
    }

    proptest! {
        #[test]
        fn any_bytes_come_back(bytes in prop::collection::vec(prop_oneof![Just(b'a'), Just(b'b'), any::<u8>()], 0..600)) {
            comes_back(&bytes);
        }

        #[test]
        fn no_bytes_make_unpacking_panic(packed in prop::collection::vec(any::<u8>(), 0..100), length in 0usize..300) {
            unpack(&packed, &mut vec![0; length]);
        }
    }

    #[test]
    fn text_and_repetition_are_packed_well() {
        let mut words = vec![0; 60_000];
        text::write(&mut words, 5);
        assert!(comes_back(&words) < 30_000);
        assert!(comes_back(&[7; 50_000]) < 100);
        assert!(comes_back(&[]) < 10);
    }
}
