//! The innermost loops: small blocks of the product of two panels, in the registers of one core.

use super::shape::{Origin, PARTS, Product, Rows, WIDTH};
use crate::kernel::prefetch;
use crate::lanes::{LANES, Lanes};

/// Subtracts a product block by block, each as many rows high and as many vectors wide as the registers hold; what is left of the rows
/// then two by two.
///
/// # Safety
/// All panels must be there, of the right matrix as many rows as the product is deep, and none of them may be written. So must all rows
/// of an origin.
#[inline(always)]
pub(super) unsafe fn every_block<L: Lanes, const ACROSS: usize, const ROWS: usize>(
    rows: Rows,
    product: Product,
    origin: Option<Origin>,
) {
    let left = rows.count % ROWS;
    for row in (0..rows.count - left).step_by(ROWS) {
        // SAFETY: the caller's promise.
        unsafe { blocks_of_rows::<L, ACROSS, ROWS>(row, rows, product, origin) };
    }
    for row in (rows.count - left..rows.count).step_by(2) {
        // SAFETY: the caller's promise.
        unsafe { blocks_of_rows::<L, ACROSS, 2>(row, rows, product, origin) };
    }
}

/// # Safety
/// As for [`every_block`].
#[inline(always)]
unsafe fn blocks_of_rows<L: Lanes, const ACROSS: usize, const ROWS: usize>(
    row: usize,
    rows: Rows,
    product: Product,
    origin: Option<Origin>,
) {
    let numbers = rows.numbers.as_ptr().wrapping_add(row * WIDTH);
    let blocks = product.panels * (WIDTH / (ACROSS * LANES));
    let lines = ROWS.div_ceil(blocks.max(1));
    for block in 0..blocks {
        let soon = ROWS * WIDTH + (block * PARTS * lines * LANES) % (ROWS * WIDTH);
        let left = Left { numbers, apart: rows.height * WIDTH, depth: rows.depth, soon, lines };
        let (panel, within) = (block * ACROSS * LANES / WIDTH, block * ACROSS * LANES % WIDTH);
        let right = product.right.wrapping_add(panel * product.right_apart + within);
        let from = panel * product.apart + within;
        let c = product.c.wrapping_add(from + row * WIDTH);
        let before: [*const f64; ROWS] = std::array::from_fn(|nth| match origin {
            None => c.wrapping_add(nth * WIDTH).cast_const(),
            Some(Origin { numbers, sources }) => numbers.as_ptr().wrapping_add(from + sources[row + nth] * WIDTH),
        });
        // SAFETY: the caller's promise.
        let sums = unsafe { multiply::<L, ACROSS, ROWS>(left, right, &before) };
        for (nth, sums) in sums.iter().enumerate() {
            // SAFETY: the caller's promise.
            unsafe { subtract_row(sums, before[nth], c.wrapping_add(nth * WIDTH)) };
        }
    }
}

/// Some rows as a block takes them.
#[derive(Clone, Copy)]
struct Left {
    numbers: *const f64,
    /// How far apart the panels are.
    apart: usize,
    depth: usize,
    /// How far on in a panel this block's share of the rows after these begins.
    soon: usize,
    /// Cache lines of that share to as many columns as a vector is long.
    lines: usize,
}

/// Writes a row of a block: what stood there before without the sums.
///
/// # Safety
/// So many vectors must be there.
#[inline(always)]
unsafe fn subtract_row<L: Lanes, const ACROSS: usize>(sums: &[L; ACROSS], before: *const f64, row: *mut f64) {
    for (part, sum) in sums.iter().enumerate() {
        let vector = |first: *const f64| first.wrapping_add(part * LANES).cast::<[f64; LANES]>();
        // SAFETY: the caller's promise.
        let left = L::load(unsafe { &*vector(before) }).sub(*sum);
        // SAFETY: as above.
        left.store(unsafe { &mut *vector(row).cast_mut() });
    }
}

/// The product of some rows and the columns of one block. What is asked for meanwhile, so that the multiply-adds never wait for it: what
/// the product will be subtracted from, and this block's share of the next rows.
///
/// # Safety
/// `right` must have `ACROSS` vectors, a panel's width apart, for each column of `ROWS` numbers that `left` holds.
#[inline(always)]
unsafe fn multiply<L: Lanes, const ACROSS: usize, const ROWS: usize>(
    left: Left,
    right: *const f64,
    before: &[*const f64; ROWS],
) -> [[L; ACROSS]; ROWS] {
    let mut sums = [[L::splat(0.0); ACROSS]; ROWS];
    let (mut column, mut right) = (left.numbers, right);
    for panel in 0..left.depth / WIDTH {
        for row in 2 * panel..2 * panel + 2 {
            if let Some(row) = before.get(row) {
                (0..ACROSS).for_each(|part| prefetch(row.wrapping_add(part * LANES)));
            }
        }
        let mut soon = column.wrapping_add(left.soon);
        for part in 0..PARTS {
            let next = if part + 1 < PARTS { LANES } else { left.apart - (WIDTH - LANES) };
            let ahead = column.wrapping_add(next);
            for step in 0..LANES {
                // SAFETY: both matrices go on for this deep, as the caller promises.
                unsafe { multiply_step::<L, ACROSS, ROWS>(column.wrapping_add(step), right, &mut sums) };
                right = right.wrapping_add(WIDTH);
                if step < ROWS {
                    prefetch(ahead.wrapping_add(step * WIDTH));
                }
            }
            for _ in 0..left.lines {
                prefetch(soon);
                soon = soon.wrapping_add(LANES);
            }
            column = ahead;
        }
    }
    sums
}

/// So many steps before its turn a row of the right matrix is asked for: it comes from the second-level cache.
const AHEAD: usize = 8;

/// Adds one column of the left matrix times one row of the right one.
///
/// # Safety
/// As for [`multiply`], for a step below the depth.
#[inline(always)]
unsafe fn multiply_step<L: Lanes, const ACROSS: usize, const ROWS: usize>(
    column: *const f64,
    right: *const f64,
    sums: &mut [[L; ACROSS]; ROWS],
) {
    for part in 0..ACROSS {
        prefetch(right.wrapping_add(AHEAD * WIDTH + part * LANES));
    }
    let vectors: [L; ACROSS] =
        // SAFETY: the caller's promise.
        std::array::from_fn(|part| L::load(unsafe { &*right.wrapping_add(part * LANES).cast::<[f64; LANES]>() }));
    for (row, sums) in sums.iter_mut().enumerate() {
        // SAFETY: the caller's promise.
        let factor = L::splat(unsafe { *column.wrapping_add(row * WIDTH) });
        for (sum, vector) in sums.iter_mut().zip(vectors) {
            *sum = vector.mul_add(factor, *sum);
        }
    }
}
