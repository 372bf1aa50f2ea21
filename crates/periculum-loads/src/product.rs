//! `product`: what the multiply-adds of a core can do, and the heat of that: small matrices multiplied where they stand in its caches.
//!
//! A factorisation waits for memory between its products for a third of its time; this load does nothing else. Products are subtracted
//! from the same sums, which are digested after every few of them and made smaller then: so they stay about as large as one product, and
//! next to nothing of it is lost in rounding.

use std::io;

use crate::buffer::Buffer;
use crate::digest::digest;
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::Kernel;
use crate::panels::{Rows, WIDTH, subtract_product};
use crate::random::{Random, fill};

/// Products of small matrices.
pub struct Product;

/// Rows and columns of a product, and how far from its matrices the next ones begin: whole blocks of every kernel.
const SIDE: usize = 48;
const SHIFT: usize = WIDTH;

/// How deep a product is. Both matrices, with what they are shifted by, take 297 KiB: half of a second-level cache of usual size.
const DEPTH: usize = 264;

/// Products between two digests of the sums.
const TOGETHER: usize = 8;

/// What the sums are multiplied by after that, which is exact.
const SHRINK: f64 = 0.25;

/// Digests of a round.
const PARTS: usize = 8;

const ABOUT: About = About {
    name: "product",
    stresses: "multiply-adds without a pause, the most heat",
    size_name: "products",
    unit: "GFLOP/s",
    usual_size: 1 << 11,
    sizes: ((TOGETHER * PARTS) as u64, 1 << 32),
    adds_up: true,
};

/// The products of one core.
struct Products {
    kernel: Kernel,
    seed: u64,
    left: Buffer<f64>,
    right: Buffer<f64>,
    sums: Buffer<f64>,
    size: usize,
    digests: Vec<u64>,
}

impl Load for Product {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn nearest(&self, size: u64) -> u64 {
        let (smallest, largest) = ABOUT.sizes;
        size.clamp(smallest, largest) / smallest * smallest
    }

    fn bytes(&self, _: u64) -> u64 {
        8 * (2 * DEPTH * (SIDE + SHIFT) + SIDE * SIDE + PARTS) as u64
    }

    fn work(&self, size: u64) -> f64 {
        (2 * SIDE * SIDE * DEPTH) as f64 * size as f64 / 1e9
    }

    fn begin(&self, kernel: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>> {
        let panel = || Buffer::zeroed(DEPTH * (SIDE + SHIFT));
        let (left, right, sums) = (panel()?, panel()?, Buffer::zeroed(SIDE * SIDE)?);
        let size = self.nearest(size) as usize;
        Ok(Box::new(Products { kernel, seed, left, right, sums, size, digests: vec![0; PARTS] }))
    }
}

impl Work for Products {
    fn restart(&mut self) {
        for step in 0..DEPTH {
            let (left, right) = (line(self.seed, step), line(self.seed ^ 0x5ee1, step));
            let (panel, column) = (step / WIDTH, step % WIDTH);
            let rows = self.left[panel * (SIDE + SHIFT) * WIDTH..].chunks_exact_mut(WIDTH);
            rows.zip(left).for_each(|(row, number)| row[column] = number);
            for (nth, numbers) in right.chunks_exact(WIDTH).enumerate() {
                self.right[(nth * DEPTH + step) * WIDTH..][..WIDTH].copy_from_slice(numbers);
            }
        }
    }

    fn size(&self) -> u64 {
        self.size as u64
    }

    fn inputs(&self) -> u64 {
        digest(self.kernel, &self.right, digest(self.kernel, &self.left, 0))
    }

    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        touch.at("left matrix", &mut self.left);
        touch.at("right matrix", &mut self.right);
        self.sums.fill(0.0);
        // Which matrices are multiplied changes, so that the sums never come to rest.
        let mut random = Random::new(self.seed);
        for part in 0..PARTS {
            let mut state = 0;
            for _ in 0..self.size / PARTS / TOGETHER {
                let pairs = random.word();
                (0..TOGETHER).for_each(|nth| self.subtract((pairs >> (2 * nth)) as usize % 4));
                touch.at("sums", &mut self.sums);
                state = digest(self.kernel, &self.sums, state);
                self.sums.iter_mut().for_each(|sum| *sum *= SHRINK);
            }
            self.digests[part] = state;
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
        let each = self.size / PARTS;
        format!("products {}–{}", index * each + 1, (index + 1) * each)
    }
}

impl Products {
    /// Subtracts one of four products from the sums: of matrices that begin at the first row and column, or farther on.
    fn subtract(&mut self, pair: usize) {
        let (left, right) = (&self.left[pair % 2 * SHIFT * WIDTH..], &self.right[pair / 2 * SHIFT * DEPTH..]);
        let rows = Rows { numbers: left, height: SIDE + SHIFT, count: SIDE, depth: DEPTH };
        subtract_product(self.kernel, rows, right, &mut self.sums);
    }
}

/// The numbers of one column of the left matrix, or one row of the right one.
fn line(seed: u64, step: usize) -> [f64; SIDE + SHIFT] {
    let mut line = [0.0; SIDE + SHIFT];
    fill(&mut line, seed ^ (step as u64) << 20);
    line
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::frame::NoDisturbance;

    fn worked(kernel: Kernel, size: u64) -> Vec<u64> {
        let mut work = Product.begin(kernel, size, 3).expect("memory");
        work.restart();
        assert_eq!(work.round(&mut Touch::of(&NoDisturbance, 0, 1)), None);
        work.digests().to_vec()
    }

    #[test]
    fn every_kernel_gives_the_same_bits() {
        let expected = worked(Kernel::Portable, 128);
        assert!(expected.windows(2).all(|pair| pair[0] != pair[1]), "no part is like the one before");
        for kernel in Kernel::available_loudly() {
            assert_eq!(worked(kernel, 128), expected, "{}", kernel.name());
        }
    }

    #[test]
    fn sums_are_what_their_products_add_up_to() {
        let seed = 3;
        let product = |row: usize, column: usize| -> f64 {
            (0..DEPTH).map(|step| line(seed, step)[row] * line(seed ^ 0x5ee1, step)[column]).sum()
        };
        let mut work = Products {
            kernel: Kernel::best(),
            seed,
            left: Buffer::zeroed(DEPTH * (SIDE + SHIFT)).expect("memory"),
            right: Buffer::zeroed(DEPTH * (SIDE + SHIFT)).expect("memory"),
            sums: Buffer::zeroed(SIDE * SIDE).expect("memory"),
            size: 64,
            digests: Vec::new(),
        };
        work.restart();
        (0..4).for_each(|pair| work.subtract(pair));
        for (row, column) in [(0, 0), (5, 47), (47, 5), (30, 31)] {
            let pairs = [(0, 0), (SHIFT, 0), (0, SHIFT), (SHIFT, SHIFT)];
            let expected: f64 = pairs.iter().map(|(down, right)| -product(row + down, column + right)).sum();
            let found = work.sums[(column / WIDTH * SIDE + row) * WIDTH + column % WIDTH];
            assert!((found - expected).abs() < 1e-12, "{row}, {column}: {found} and {expected}");
        }
    }
}
