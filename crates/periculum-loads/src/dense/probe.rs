//! The innermost loop alone, as benchmarks compare it with what the registers could do.

use std::io;

use crate::buffer::Buffer;
use crate::kernel::Kernel;
use crate::panels::{Rows, subtract_product};
use crate::random::fill;

/// Depth and columns of the matrices, as a factorisation packs them, and some rows: whole blocks of every kernel.
const DEPTH: usize = 384;
const COLUMNS: usize = 144;
const ROWS: usize = 72;

/// A product of two packed panels that stay in the caches.
pub struct Probe {
    kernel: Kernel,
    left: Buffer<f64>,
    right: Buffer<f64>,
    c: Buffer<f64>,
}

impl Probe {
    /// Panels of random numbers.
    ///
    /// # Errors
    /// When the system has not so much memory.
    pub fn new(kernel: Kernel) -> io::Result<Self> {
        let (mut left, mut right) = (Buffer::zeroed(ROWS * DEPTH)?, Buffer::zeroed(COLUMNS * DEPTH)?);
        fill(&mut left, 1);
        fill(&mut right, 2);
        Ok(Self { kernel, left, right, c: Buffer::zeroed(ROWS * COLUMNS)? })
    }

    /// Floating-point operations of one product.
    pub fn operations(&self) -> f64 {
        2.0 * (ROWS * DEPTH * COLUMNS) as f64
    }

    /// Subtracts the product once.
    pub fn run(&mut self) {
        let rows = Rows { numbers: &self.left, height: ROWS, count: ROWS, depth: DEPTH };
        subtract_product(self.kernel, rows, &self.right, &mut self.c);
    }
}
