//! `integer` as the frame sees it.

use std::io;

use super::pack::{Packer, unpack};
use super::sort::sort;
use super::text;
use crate::digest::{digest_bytes, join};
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::Kernel;

/// Text packed, unpacked and sorted.
pub struct Integer;

/// Blocks that are worked on one by one, each with a digest.
const BLOCK: usize = 64 << 10;

struct Blocks {
    seed: u64,
    text: Vec<u8>,
    packer: Packer,
    packed: Vec<u8>,
    unpacked: Vec<u8>,
    words: Vec<u64>,
    room: Vec<u64>,
    digests: Vec<u64>,
}

const ABOUT: About = About {
    name: "integer",
    stresses: "branches, integer units, loads and stores",
    size_name: "blocks of 64 KiB",
    unit: "MB/s",
    usual_size: 8,
    sizes: (1, 1 << 20),
    adds_up: true,
};

impl Load for Integer {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn bytes(&self, size: u64) -> u64 {
        let (block, tables) = (BLOCK as u64, 4 << 15);
        size * (block + 8) + 2 * block + 2 * block + 4 * block + tables
    }

    fn work(&self, size: u64) -> f64 {
        (size * BLOCK as u64) as f64 / 1e6
    }

    fn begin(&self, _: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>> {
        Ok(Box::new(Blocks {
            seed,
            text: vec![0; size as usize * BLOCK],
            packer: Packer::new(BLOCK),
            // Text that can't be packed at all grows by a little.
            packed: Vec::with_capacity(2 * BLOCK),
            unpacked: vec![0; BLOCK],
            words: vec![0; BLOCK / 8],
            room: vec![0; BLOCK / 8],
            digests: vec![0; size as usize],
        }))
    }
}

impl Work for Blocks {
    fn restart(&mut self) {
        text::write(&mut self.text, self.seed);
    }

    fn inputs(&self) -> u64 {
        digest_bytes(&self.text, 0)
    }

    fn size(&self) -> u64 {
        (self.text.len() / BLOCK) as u64
    }

    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        touch.at("text", &mut self.text);
        for index in 0..self.digests.len() {
            if let Some(fault) = self.block(index, touch) {
                return Some(fault.in_part(self.part(index)));
            }
        }
        None
    }

    fn digests(&self) -> &[u64] {
        &self.digests
    }

    fn digests_mut(&mut self) -> &mut [u64] {
        &mut self.digests
    }

    fn part(&self, index: usize) -> String {
        format!("block {}", index + 1)
    }
}

impl Blocks {
    fn block(&mut self, index: usize, touch: &mut Touch) -> Option<Fault> {
        let text = &self.text[index * BLOCK..][..BLOCK];
        self.packed = self.packer.pack(text, std::mem::take(&mut self.packed));
        touch.at("packed text", &mut self.packed);
        let is_readable = unpack(&self.packed, &mut self.unpacked);
        touch.at("unpacked text", &mut self.unpacked);
        let first = text.iter().zip(&self.unpacked).position(|(written, read)| written != read);
        if let Some(at) = first.or((!is_readable).then_some(0)) {
            let byte = |bytes: &[u8]| format!("{:02x} at byte {at}", bytes[at]);
            return Some(Fault::result(byte(text), byte(&self.unpacked)));
        }
        self.words.iter_mut().zip(text.as_chunks().0).for_each(|(word, bytes)| *word = u64::from_be_bytes(*bytes));
        let sum = |words: &[u64]| words.iter().fold(0u64, |sum, word| sum.wrapping_add(*word));
        let expected = sum(&self.words);
        touch.at("words", &mut self.words);
        sort(&mut self.words, &mut self.room);
        touch.at("sorted words", &mut self.words);
        if !self.words.is_sorted() || sum(&self.words) != expected {
            let found = format!("sum {:016x}, in order: {}", sum(&self.words), self.words.is_sorted());
            return Some(Fault::result(format!("sum {expected:016x}, in order: true"), found));
        }
        let sorted = self.words.iter().fold(digest_bytes(&self.packed, 0), |state, word| join(state, *word));
        self.digests[index] = sorted;
        None
    }
}
