//! `transform` as the frame sees it.

use std::io;

use super::residue::Residue;
use super::square::{Squared, Squarer, residue_of};
use crate::buffer::Buffer;
use crate::digest::digest;
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::Kernel;
use crate::random::Random;

/// Long numbers squared over and over.
pub struct Transform;

/// Squarings of a round, each of the number that the one before left.
const SQUARINGS: usize = 4;

/// A digit that is further from a whole number than this could be any of two.
pub(crate) const WORST_ROUNDING: f64 = 0.4;

struct Chain {
    squarer: Squarer,
    kernel: Kernel,
    seed: u64,
    first: Buffer<f64>,
    residue: Residue,
    /// Of the first number, and of each square.
    digests: [u64; SQUARINGS + 1],
}

const ABOUT: About = About {
    name: "transform",
    stresses: "vector units and caches, memory at large sizes",
    size_name: "digits",
    unit: "GFLOP/s",
    // Real transforms of 2¹⁷ points: all of it in the second-level cache or just beyond.
    usual_size: 1 << 16,
    // Above the largest size rounding errors would come near to 0.4.
    sizes: (1 << 8, 1 << 26),
    adds_up: true,
};

impl Load for Transform {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn nearest(&self, size: u64) -> u64 {
        let (smallest, largest) = self.about().sizes;
        1 << size.clamp(smallest, largest).ilog2()
    }

    fn bytes(&self, size: u64) -> u64 {
        Squarer::bytes(size) + 8 * size
    }

    fn work(&self, size: u64) -> f64 {
        SQUARINGS as f64 * Squarer::operations(size) / 1e9
    }

    fn begin(&self, kernel: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>> {
        let squarer = Squarer::new(kernel, size as usize)?;
        let first = Buffer::zeroed(size as usize)?;
        Ok(Box::new(Chain { squarer, kernel, seed, first, residue: Residue::ZERO, digests: [0; SQUARINGS + 1] }))
    }
}

impl Work for Chain {
    fn restart(&mut self) {
        self.squarer.renew();
        let mut random = Random::new(self.seed);
        self.first.fill_with(|| random.below(65_537) as f64 - 32_768.0);
        self.residue = residue_of(self.kernel, &self.first);
    }

    fn inputs(&self) -> u64 {
        digest(self.kernel, &self.first, self.squarer.tables())
    }

    fn size(&self) -> u64 {
        self.first.len() as u64
    }

    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        touch.at("number", &mut self.first);
        self.squarer.take(&self.first, self.residue);
        for squaring in 1..=SQUARINGS {
            let squared = self.squarer.square(&mut |points| touch.at("points", points));
            if let Some(fault) = fault(squared) {
                return Some(fault.in_part(self.part(squaring)));
            }
            self.digests[squaring - 1] = squared.digest;
            touch.at("square", self.squarer.digits_mut());
        }
        self.digests[SQUARINGS] = digest(self.kernel, self.squarer.digits(), 0);
        None
    }

    fn digests(&self) -> &[u64] {
        &self.digests
    }

    fn digests_mut(&mut self) -> &mut [u64] {
        &mut self.digests
    }

    fn part(&self, index: usize) -> String {
        if index == 0 { "the number".into() } else { format!("squaring {index}") }
    }
}

fn fault(squared: Squared) -> Option<Fault> {
    // What is not a number is no small error either.
    let is_near = squared.rounding_error < WORST_ROUNDING;
    if !is_near {
        let found = format!("one of {:.3}", squared.rounding_error);
        return Some(Fault::result(format!("rounding errors below {WORST_ROUNDING}"), found));
    }
    let (below, [expected, found]) = squared.expected.difference(squared.residue)?;
    let of = |word| format!("{word:016x} from bit {} of the residue modulo 2^384-1", 64 * below);
    Some(Fault::result(of(expected), of(found)))
}
