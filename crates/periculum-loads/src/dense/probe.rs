//! The innermost loop alone, as benchmarks compare it with what the registers could do.

use std::io;

use crate::buffer::Buffer;
use crate::kernel::Kernel;
use crate::panels::{Panels, block_of, subtract_panels};
use crate::random::fill;

/// Depth and rows of the panels, as a factorisation packs them.
const DEPTH: usize = 384;
const ROWS: usize = 144;

/// A product of two packed panels that stay in the caches.
pub struct Probe {
    kernel: Kernel,
    columns: usize,
    a: Buffer<f64>,
    b: Buffer<f64>,
    c: Buffer<f64>,
}

impl Probe {
    /// Panels of random numbers.
    ///
    /// # Errors
    /// When the system has not so much memory.
    pub fn new(kernel: Kernel) -> io::Result<Self> {
        let (_, block_columns) = block_of(kernel);
        let columns = 10 * block_columns;
        let (mut a, mut b) = (Buffer::zeroed(ROWS * DEPTH)?, Buffer::zeroed(columns * DEPTH)?);
        fill(&mut a, 1);
        fill(&mut b, 2);
        Ok(Self { kernel, columns, a, b, c: Buffer::zeroed(ROWS * columns)? })
    }

    /// Floating-point operations of one product.
    pub fn operations(&self) -> f64 {
        2.0 * (ROWS * DEPTH * self.columns) as f64
    }

    /// Subtracts the product once.
    pub fn run(&mut self) {
        let (rows, _) = block_of(self.kernel);
        let panels = Panels {
            rows: ROWS,
            columns: self.columns,
            depth: DEPTH,
            a: &self.a,
            a_step: rows,
            a_group: rows * DEPTH,
            b: &self.b,
        };
        subtract_panels(self.kernel, panels, &mut self.c, ROWS);
    }
}
