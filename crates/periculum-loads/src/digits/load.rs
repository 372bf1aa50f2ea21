//! `digits` as the frame sees it.

use std::io;

use super::circle::Pi;
use super::decimal::GROUP;
use crate::digest::join;
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::Kernel;

/// Digits of π, all of them from nothing in every round.
pub struct Digits;

/// Parts of the digits whose digests are compared one by one.
const PARTS: usize = 16;

/// Digests of all digits at sizes for which benches/references/pi.c has worked out the same ones.
const KNOWN: [(u64, u64); 5] = [
    (1000, 0xecc9_b935_eefe_f1c8),
    (10_000, 0xef8c_2c45_cde2_89ae),
    (100_000, 0x33ce_09c1_0da0_6f93),
    (1_000_000, 0xc13d_dfcc_a3a1_d357),
    (10_000_000, 0x4bba_d36f_9c9b_6e65),
];

struct Circle {
    pi: Pi,
    digits: usize,
    digests: [u64; PARTS],
}

const ABOUT: About = About {
    name: "digits",
    stresses: "one core: long multiplications of every size",
    size_name: "digits",
    unit: "Mdigits/s",
    usual_size: 1_000_000,
    // Above the largest size rounding errors of the transforms would come near to 0.4.
    sizes: (1000, 100_000_000),
    adds_up: true,
};

impl Load for Digits {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn bytes(&self, size: u64) -> u64 {
        Pi::bytes(size as usize)
    }

    fn work(&self, size: u64) -> f64 {
        size as f64 / 1e6
    }

    /// Binary splitting takes `O(M(n)·log n)`, with `M(n) = O(n·log n)` for transforms.
    fn effort(&self, size: u64) -> f64 {
        size as f64 * (size as f64).log2().powi(2)
    }

    fn begin(&self, kernel: Kernel, size: u64, _: u64) -> io::Result<Box<dyn Work>> {
        Ok(Box::new(Circle { pi: Pi::new(kernel, size as usize)?, digits: size as usize, digests: [0; PARTS] }))
    }
}

impl Circle {
    /// The groups of a part, each digit in one of them.
    fn part_of_digits(&self, part: usize) -> std::ops::Range<usize> {
        let groups = self.digits.div_ceil(GROUP);
        groups * part / PARTS..groups * (part + 1) / PARTS
    }
}

impl Work for Circle {
    /// Every round begins from nothing but tables.
    fn restart(&mut self) {
        self.pi.renew();
    }

    fn inputs(&self) -> u64 {
        self.pi.tables()
    }

    fn size(&self) -> u64 {
        self.digits as u64
    }

    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        let fault = self.pi.work_out(touch);
        // Digits of the last group that nobody asked for may be wrong.
        let surplus = self.digits.next_multiple_of(GROUP) - self.digits;
        let last = self.digits / GROUP;
        for part in 0..PARTS {
            let groups = self.part_of_digits(part);
            self.digests[part] = groups.fold(0, |digest, group| {
                let digits = self.pi.groups()[group];
                join(digest, if group == last { digits / 10u64.pow(surplus as u32) } else { digits })
            });
        }
        fault
    }

    fn digests(&self) -> &[u64] {
        &self.digests
    }

    fn digests_mut(&mut self) -> &mut [u64] {
        &mut self.digests
    }

    fn part(&self, index: usize) -> String {
        let groups = self.part_of_digits(index);
        format!("digits {} to {}", groups.start * GROUP + 1, (groups.end * GROUP).min(self.digits))
    }

    fn inspect(&mut self) -> Option<Fault> {
        let (_, expected) = KNOWN.iter().find(|(digits, _)| *digits == self.digits as u64)?;
        let found = self.digests.iter().fold(0, |all, digest| join(all, *digest));
        let of = |digest| format!("digest {digest:016x} of all digits");
        (found != *expected).then(|| Fault::result(of(*expected), of(found)))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::frame::NoDisturbance;

    #[test]
    fn known_digits_are_found_and_others_are_noticed() {
        for (size, _) in &KNOWN[..3] {
            let mut work = Digits.begin(Kernel::best(), *size, 1).expect("memory");
            assert_eq!(work.round(&mut Touch::of(&NoDisturbance, 0, 1)), None);
            assert_eq!(work.inspect(), None, "{size} digits");
            struct Flip;
            impl crate::frame::Disturb for Flip {
                fn strike(&self, site: crate::frame::Site, bytes: &mut [u8]) {
                    bytes[100] ^= u8::from(site.what == "digits");
                }
            }
            work.round(&mut Touch::of(&Flip, 0, 2));
            assert!(work.inspect().is_some(), "{size} digits");
        }
    }

    #[test]
    fn parts_are_all_the_digits() {
        let work = Digits.begin(Kernel::Portable, 1000, 1).expect("memory");
        assert_eq!((work.part(0), work.part(15)), ("digits 1 to 54".into(), "digits 937 to 1000".into()));
    }
}
