//! `division`: the units that divide, and branches that nobody can foretell: the extended algorithm of Euclid.

use std::io;

use crate::digest::join;
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::Kernel;
use crate::random::Random;

/// Greatest common divisors of pairs of long numbers, by chains of divisions of which each waits for the one before.
pub struct Division;

/// Pairs that have one digest together.
const PART: usize = 1024;

const ABOUT: About = About {
    name: "division",
    stresses: "dividers and branches, one core's longest chains",
    size_name: "pairs",
    unit: "Mpairs/s",
    usual_size: 1 << 16,
    sizes: (1, 1 << 32),
    adds_up: true,
};

struct Pairs {
    seed: u64,
    pairs: Vec<[u64; 2]>,
    digests: Vec<u64>,
}

impl Load for Division {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn bytes(&self, size: u64) -> u64 {
        16 * size + 8 * size.div_ceil(PART as u64)
    }

    fn work(&self, size: u64) -> f64 {
        size as f64 / 1e6
    }

    fn begin(&self, _: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>> {
        let size = size as usize;
        Ok(Box::new(Pairs { seed, pairs: vec![[1, 1]; size], digests: vec![0; size.div_ceil(PART)] }))
    }
}

impl Work for Pairs {
    /// Numbers of 63 bits, so that what they are multiplied by fits into a word with its sign.
    fn restart(&mut self) {
        let mut random = Random::new(self.seed);
        self.pairs.as_flattened_mut().iter_mut().for_each(|number| *number = random.word() >> 1 | 1);
    }

    fn size(&self) -> u64 {
        self.pairs.len() as u64
    }

    fn inputs(&self) -> u64 {
        self.pairs.as_flattened().iter().fold(0, |state, number| join(state, *number))
    }

    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        touch.at("numbers", self.pairs.as_flattened_mut());
        for (index, part) in self.pairs.chunks(PART).enumerate() {
            let mut state = 0;
            for pair in part {
                let mut found = euclid(*pair);
                touch.at("what was found", std::slice::from_mut(&mut found));
                if let Some(fault) = found.check(*pair) {
                    return Some(fault.in_part(self.part(index)));
                }
                state = join(join(join(state, found.divisor), found.first as u64), found.second as u64);
            }
            self.digests[index] = state;
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
        format!("pairs from {}", index * PART + 1)
    }
}

/// The greatest common divisor of two numbers, and the multiples of them that add up to it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, bytemuck::Pod, bytemuck::Zeroable)]
#[repr(C)]
struct Bezout {
    divisor: u64,
    first: i64,
    second: i64,
}

/// The extended algorithm of Euclid (Knuth, The Art of Computer Programming, volume 2, 4.5.2, algorithm X): some 37
/// divisions for numbers of 63 bits, and nobody can foretell how many.
fn euclid([a, b]: [u64; 2]) -> Bezout {
    let (mut divisor, mut rest) = (a, b);
    let (mut first, mut next_first, mut second, mut next_second) = (1i64, 0i64, 0i64, 1i64);
    while rest != 0 {
        let times = divisor / rest;
        let signed = times as i64;
        (divisor, rest) = (rest, divisor - times.wrapping_mul(rest));
        (first, next_first) = (next_first, first.wrapping_sub(signed.wrapping_mul(next_first)));
        (second, next_second) = (next_second, second.wrapping_sub(signed.wrapping_mul(next_second)));
    }
    Bezout { divisor, first, second }
}

impl Bezout {
    /// What is wrong with it, without working it again: the multiples must add up to the divisor, and it must divide both
    /// numbers. Together that makes it the greatest one.
    fn check(&self, [a, b]: [u64; 2]) -> Option<Fault> {
        let sum = i128::from(self.first) * i128::from(a) + i128::from(self.second) * i128::from(b);
        let divides = |number: u64| self.divisor != 0 && number.is_multiple_of(self.divisor);
        if sum == i128::from(self.divisor) && divides(a) && divides(b) {
            return None;
        }
        let expected = format!("multiples of {a:016x} and {b:016x} that add up to a divisor of both");
        Some(Fault::result(expected, format!("{sum:x} and {:016x}", self.divisor)))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn slow(a: u64, b: u64) -> u64 {
        if b == 0 { a } else { slow(b, a % b) }
    }

    #[test]
    fn known_divisors_are_found() {
        assert_eq!(euclid([240, 46]), Bezout { divisor: 2, first: -9, second: 47 });
        assert_eq!(euclid([7, 0]).divisor, 7);
    }

    proptest! {
        #[test]
        fn what_is_found_checks_and_nothing_else_does(a in 1u64..=u64::MAX >> 1, b in 1u64..=u64::MAX >> 1, bit in 0u32..192) {
            let found = euclid([a, b]);
            prop_assert_eq!((found.divisor, found.check([a, b])), (slow(a, b), None));
            let mut wrong = found;
            let bytes = bytemuck::bytes_of_mut(&mut wrong);
            bytes[bit as usize / 8] ^= 1 << (bit % 8);
            prop_assert!(wrong.check([a, b]).is_some(), "{:?}", wrong);
        }
    }
}
