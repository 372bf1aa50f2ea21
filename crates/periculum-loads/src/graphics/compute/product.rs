//! A dense product of small whole numbers.

use wgpu::{BindGroup, Buffer, CommandEncoder, ComputePipeline};

use crate::digest::IS_CHECKED;
use crate::frame::Fault;
use crate::graphics::gpu::{Gpu, Lost, dispatch};
use crate::graphics::stands::changed;
use crate::random::Random;

const PRODUCT: &str = include_str!("product.wgsl");
const DIGEST: &str = concat!(include_str!("../mix.wgsl"), include_str!("digest.wgsl"));

/// Rows and columns that a group makes.
pub(super) const TILE: u64 = 64;

/// Numbers of the operands lie between minus this and this: 8192 products of two of them sum to far less than 2²⁴, up to which every
/// whole number is a float of its own.
const LARGEST: u64 = 4;

/// So many random combinations of columns are compared: one that is wrong stays unseen with a probability of 1 : 2^16 in each.
const PROOFS: usize = 4;

/// A product C = A·B.
pub(super) struct Product {
    rows: u64,
    product: (ComputePipeline, BindGroup),
    digest: (ComputePipeline, BindGroup),
    operands: [Buffer; 2],
    originals: [Vec<u32>; 2],
    result: Buffer,
}

/// Memory that it holds on the device, bytes.
pub(super) fn bytes(rows: u64) -> u64 {
    3 * rows * rows * 4
}

impl Product {
    pub(super) fn new(gpu: &Gpu, rows: u64, seed: u64, digests: &Buffer) -> Self {
        let mut random = Random::new(seed);
        let mut operand = || -> Vec<u32> {
            let mut number = || random.below(2 * LARGEST + 1) as f32 - LARGEST as f32;
            (0..rows * rows).map(|_| number().to_bits()).collect()
        };
        let originals = [operand(), operand()];
        let operands = [gpu.filled(&originals[0]), gpu.filled(&originals[1])];
        let result = gpu.words(rows * rows);
        let order = gpu.numbers(&[rows as u32, 0, 0, 0]);
        let product = gpu.kernel(&gpu.shader(PRODUCT), "product");
        let [a, b] = &operands;
        let seen = [a, b, &result, &order].map(Buffer::as_entire_binding);
        let product = (product.clone(), gpu.bind(&product, &seen));
        let digest = gpu.kernel(&gpu.shader(DIGEST), "digest");
        let seen = [&result, digests, &order].map(Buffer::as_entire_binding);
        let digest = (digest.clone(), gpu.bind(&digest, &seen));
        Self { rows, product, digest, operands, originals, result }
    }

    pub(super) fn operand(&self) -> &Buffer {
        &self.operands[0]
    }

    pub(super) fn encode(&self, encoder: &mut CommandEncoder) {
        let groups = (self.rows / TILE) as u32;
        // A result that is not made is none.
        encoder.clear_buffer(&self.result, 0, None);
        let looked = IS_CHECKED.then_some(&self.digest);
        for (kernel, seen) in std::iter::once(&self.product).chain(looked) {
            dispatch(encoder, kernel, seen, [groups, groups, 1]);
        }
    }

    /// Operations of a product: a fused multiply-add is two.
    pub(super) fn operations(&self) -> f64 {
        2.0 * (self.rows as f64).powi(3)
    }

    pub(super) fn restart(&self, gpu: &Gpu) {
        self.operands.iter().zip(&self.originals).for_each(|(operand, original)| gpu.write(operand, original));
    }

    pub(super) fn changed(&self, gpu: &Gpu) -> Result<Option<Fault>, Lost> {
        let [a, b] = &self.operands;
        let [left, right] = &self.originals;
        let first = changed(gpu, a, left, "the left operand of the product")?;
        Ok(first.or(changed(gpu, b, right, "the right operand of the product")?))
    }

    /// What the digest at this place is of.
    pub(super) fn part(&self, place: usize) -> String {
        let across = (self.rows / TILE) as usize;
        format!("tile {}, {} of the product", place / across + 1, place % across + 1)
    }

    /// Whether the result is the product, by whole numbers: C·r is A·(B·r) for vectors r that nobody knows beforehand
    /// (R. Freivalds, Probabilistic machines can use less running time, 1977).
    pub(super) fn proven(&self, gpu: &Gpu) -> Result<Option<Fault>, Lost> {
        let found = gpu.read(&self.result)?;
        let rows = self.rows as usize;
        let times = |matrix: &[u32], vector: &[i64]| -> Vec<i64> {
            let row =
                |row: &[u32]| row.iter().zip(vector).map(|(bits, number)| f32::from_bits(*bits) as i64 * number).sum();
            matrix.chunks_exact(rows).map(row).collect()
        };
        let mut random = Random::new(found.len() as u64);
        for _ in 0..PROOFS {
            let vector: Vec<i64> = (0..rows).map(|_| random.below(1 << 16) as i64).collect();
            let right = times(&self.originals[0], &times(&self.originals[1], &vector));
            let made = times(&found, &vector);
            let wrong = right.iter().zip(&made).position(|(right, made)| right != made);
            if let Some(row) = wrong {
                let fault = Fault::result(right[row].to_string(), made[row].to_string());
                return Ok(Some(fault.in_part(format!("row {} of the product", row + 1))));
            }
        }
        Ok(None)
    }
}
