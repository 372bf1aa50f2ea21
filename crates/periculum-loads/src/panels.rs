//! The innermost loops: small blocks of the product of two panels, in the registers of one core.
//!
//! A matrix stands in panels of so many columns as the widest block has, and in each of them row after row: so a block of it is one piece
//! of memory, a row of it a few cache lines, and the rows that a product takes of it need not be gathered.
//!
//! Every kernel adds `a·b` with fused multiply-adds in the same order over the depth for each element, so all of
//! them give the same bits.

use crate::kernel::{Kernel, prefetch};
use crate::lanes::{self, LANES, Lanes};

/// Columns of a panel.
pub(crate) const WIDTH: usize = 3 * LANES;

/// Rows of the block that a kernel holds in its registers.
pub(crate) fn rows_of_block(kernel: Kernel) -> usize {
    match kernel {
        Kernel::Avx512 => 8,
        Kernel::Avx2 => 6,
        Kernel::Portable => 4,
    }
}

/// The rows of one matrix, to be multiplied with another one.
#[derive(Clone, Copy)]
pub(crate) struct Rows<'a> {
    pub(crate) count: usize,
    pub(crate) depth: usize,
    /// Groups of the rows of a block, one after the other; in a group column after column. Missing rows are nothing.
    pub(crate) packed: &'a [f64],
}

/// Subtracts from the rows of the panels of `c` the product of as many other rows and the panels of `right`, which are just so deep.
pub(crate) fn subtract_product(kernel: Kernel, rows: Rows, right: &[f64], c: &mut [f64]) {
    let (apart, panels) = (rows.count * WIDTH, c.len() / (rows.count * WIDTH).max(1));
    assert!(right.len() >= panels * rows.depth * WIDTH, "the right matrix is too short");
    let product = Product { right: right.as_ptr(), right_apart: rows.depth * WIDTH, c: c.as_mut_ptr(), apart, panels };
    // SAFETY: what is read and what is written are as long as was asserted, and apart.
    unsafe { subtract(kernel, rows, product) }
}

/// Subtracts from the rows of a matrix from `lower` on the product of as many other rows and its own rows from `upper` on, all of them
/// above; its panels are so many rows high.
pub(crate) fn subtract_own(kernel: Kernel, rows: Rows, c: &mut [f64], height: usize, (upper, lower): (usize, usize)) {
    assert!(upper + rows.depth <= lower && lower + rows.count <= height, "rows that are read and written");
    let (apart, panels) = (height * WIDTH, c.len() / (height * WIDTH));
    let c = c.as_mut_ptr();
    let (right, c) = (c.wrapping_add(upper * WIDTH), c.wrapping_add(lower * WIDTH));
    let product = Product { right: right.cast_const(), right_apart: apart, c, apart, panels };
    // SAFETY: all rows are in their panels, and none that is read is written.
    unsafe { subtract(kernel, rows, product) }
}

/// What a product is made with, and where it is subtracted.
#[derive(Clone, Copy)]
struct Product {
    /// The first row of the right matrix, and how far apart its panels are.
    right: *const f64,
    right_apart: usize,
    /// The first row that is written, and how far apart the panels are.
    c: *mut f64,
    apart: usize,
    panels: usize,
}

/// # Safety
/// All panels must be there, of the right matrix as many rows as the product is deep, and none of them may be written.
unsafe fn subtract(kernel: Kernel, rows: Rows, product: Product) {
    let needed = rows.count.next_multiple_of(rows_of_block(kernel)) * rows.depth;
    assert!(rows.packed.len() >= needed, "the left matrix is shorter than it is deep");
    match kernel {
        #[cfg(target_arch = "x86_64")]
        Kernel::Avx512 if kernel.is_available() => {
            // SAFETY: the processor has the features, as was just asked, and the rest is the caller's promise.
            unsafe { avx512(rows, product) }
        }
        #[cfg(target_arch = "x86_64")]
        Kernel::Avx2 if kernel.is_available() => {
            // SAFETY: as above.
            unsafe { avx2(rows, product) }
        }
        Kernel::Portable => {
            // SAFETY: as above.
            unsafe { every_block::<lanes::Portable, 1, 4>(rows, product) }
        }
        _ => panic!("this processor can't run the {} kernel", kernel.name()),
    }
}

#[cfg(target_arch = "x86_64")]
#[target_feature(enable = "avx512f,avx512bw,avx512dq,avx512vl,avx2,fma")]
unsafe fn avx512(rows: Rows, product: Product) {
    // SAFETY: the caller's promise.
    unsafe { every_block::<lanes::Avx512, 3, 8>(rows, product) }
}

#[cfg(target_arch = "x86_64")]
#[target_feature(enable = "avx2,fma")]
unsafe fn avx2(rows: Rows, product: Product) {
    // SAFETY: the caller's promise.
    unsafe { every_block::<lanes::Avx2, 1, 6>(rows, product) }
}

/// # Safety
/// As for [`subtract`].
#[inline(always)]
unsafe fn every_block<L: Lanes, const ACROSS: usize, const ROWS: usize>(rows: Rows, product: Product) {
    let Rows { count, depth, packed } = rows;
    let blocks = WIDTH / (ACROSS * LANES);
    let group = ROWS * depth;
    let share = group.div_ceil(product.panels * blocks).next_multiple_of(LANES);
    for (nth, row) in (0..count).step_by(ROWS).enumerate() {
        let left = &packed[nth * group..][..group];
        for block in 0..product.panels * blocks {
            let (panel, within) = (block / blocks, block % blocks * ACROSS * LANES);
            let right = product.right.wrapping_add(panel * product.right_apart + within);
            let c = product.c.wrapping_add(panel * product.apart + row * WIDTH + within);
            let soon = Soon { c, left: left.as_ptr().wrapping_add(group + block * share) };
            // SAFETY: the caller's promise.
            let sums = unsafe { multiply::<L, ACROSS, ROWS>(left, right, soon) };
            let there = ROWS.min(count - row);
            if there == ROWS {
                for (row, sums) in sums.iter().enumerate() {
                    // SAFETY: the caller's promise.
                    unsafe { subtract_row(sums, c.wrapping_add(row * WIDTH)) };
                }
                continue;
            }
            for (row, sums) in sums.iter().enumerate().take(there) {
                // SAFETY: the caller's promise.
                unsafe { subtract_row(sums, c.wrapping_add(row * WIDTH)) };
            }
        }
    }
}

/// Subtracts a row of a block.
///
/// # Safety
/// So many vectors must be there.
#[inline(always)]
unsafe fn subtract_row<L: Lanes, const ACROSS: usize>(sums: &[L; ACROSS], row: *mut f64) {
    for (part, sum) in sums.iter().enumerate() {
        // SAFETY: the caller's promise.
        let vector = unsafe { &mut *row.add(part * LANES).cast::<[f64; LANES]>() };
        L::load(vector).sub(*sum).store(vector);
    }
}

/// What is asked for while a product is calculated, a cache line a step, so that the multiply-adds never wait for it.
#[derive(Clone, Copy)]
struct Soon {
    /// The block that the product will be subtracted from.
    c: *const f64,
    /// This block's share of the next group of rows.
    left: *const f64,
}

/// The product of one group of rows and the columns of one block.
///
/// # Safety
/// `right` must have `ACROSS` vectors, a panel's width apart, for each column of `ROWS` numbers that `left` holds.
#[inline(always)]
unsafe fn multiply<L: Lanes, const ACROSS: usize, const ROWS: usize>(
    left: &[f64],
    right: *const f64,
    soon: Soon,
) -> [[L; ACROSS]; ROWS] {
    let depth = left.len() / ROWS;
    let mut sums = [[L::splat(0.0); ACROSS]; ROWS];
    let mut step = 0;
    for row in 0..ROWS {
        for part in 0..ACROSS {
            if step < depth {
                // SAFETY: both matrices go on for this deep, as the caller promises.
                unsafe { multiply_step::<L, ACROSS, ROWS>(left, right, step, &mut sums) };
                prefetch(soon.c.wrapping_add(row * WIDTH + part * LANES));
                step += 1;
            }
        }
    }
    let mut next = soon.left;
    while step + TOGETHER <= depth {
        for _ in 0..TOGETHER {
            // SAFETY: as above.
            unsafe { multiply_step::<L, ACROSS, ROWS>(left, right, step, &mut sums) };
            step += 1;
        }
        prefetch(next);
        next = next.wrapping_add(LANES);
    }
    for step in step..depth {
        // SAFETY: as above.
        unsafe { multiply_step::<L, ACROSS, ROWS>(left, right, step, &mut sums) };
    }
    sums
}

/// Steps that are written out one after the other, so that the loop around them costs next to nothing.
const TOGETHER: usize = 4;

/// So many steps before its turn a row of the right matrix is asked for: it comes from the second-level cache.
const AHEAD: usize = 8;

/// Adds one column of the left matrix times one row of the right one.
///
/// # Safety
/// As for [`multiply`], for a step below the depth.
#[inline(always)]
unsafe fn multiply_step<L: Lanes, const ACROSS: usize, const ROWS: usize>(
    left: &[f64],
    right: *const f64,
    step: usize,
    sums: &mut [[L; ACROSS]; ROWS],
) {
    let right = right.wrapping_add(step * WIDTH);
    for part in 0..ACROSS {
        prefetch(right.wrapping_add(AHEAD * WIDTH + part * LANES));
    }
    let vectors: [L; ACROSS] =
        // SAFETY: the caller's promise.
        std::array::from_fn(|part| L::load(unsafe { &*right.add(part * LANES).cast::<[f64; LANES]>() }));
    for (row, sums) in sums.iter_mut().enumerate() {
        // SAFETY: the caller's promise.
        let factor = L::splat(unsafe { *left.as_ptr().add(step * ROWS + row) });
        for (sum, vector) in sums.iter_mut().zip(vectors) {
            *sum = vector.mul_add(factor, *sum);
        }
    }
}
