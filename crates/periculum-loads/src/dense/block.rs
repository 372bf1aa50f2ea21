//! The innermost loops: small blocks of the product of two panels, in the registers of one core.
//!
//! Every kernel adds `a·b` with fused multiply-adds in the same order over the depth for each element, so all of
//! them give the same bits.

use crate::kernel::{Kernel, prefetch};
use crate::lanes::{self, LANES, Lanes};

/// Rows and columns of the block that a kernel holds in its registers.
pub(super) fn block_of(kernel: Kernel) -> (usize, usize) {
    match kernel {
        Kernel::Avx512 => (3 * LANES, 8),
        Kernel::Avx2 => (LANES, 6),
        Kernel::Portable => (LANES, 4),
    }
}

/// Two panels to be multiplied, `rows × depth` and `depth × columns`.
#[derive(Clone, Copy)]
pub(super) struct Panels<'a> {
    pub(super) rows: usize,
    pub(super) columns: usize,
    pub(super) depth: usize,
    /// Groups of block rows, `a_group` numbers apart; in a group columns are `a_step` numbers apart.
    pub(super) a: &'a [f64],
    pub(super) a_step: usize,
    pub(super) a_group: usize,
    /// Groups of block columns, one after the other; in a group row after row. Missing columns are nothing.
    pub(super) b: &'a [f64],
}

/// Subtracts the product of two panels from the part of a column-major matrix that starts at `c`'s start.
///
/// A last group of rows must be whole in `a`: what is below the panel's rows is calculated and dropped.
pub(super) fn subtract_panels(kernel: Kernel, panels: Panels, c: &mut [f64], stride: usize) {
    let (block_rows, block_columns) = block_of(kernel);
    let row_groups = panels.rows.div_ceil(block_rows);
    let column_groups = panels.columns.div_ceil(block_columns);
    if row_groups == 0 || column_groups == 0 || panels.depth == 0 {
        return;
    }
    let last_of_a = (row_groups - 1) * panels.a_group + (panels.depth - 1) * panels.a_step + block_rows;
    assert!(panels.a.len() >= last_of_a, "the left panel is shorter than it is deep");
    assert!(panels.b.len() >= column_groups * block_columns * panels.depth, "the right panel is too short");
    assert!(c.len() >= (panels.columns - 1) * stride + panels.rows, "the block leaves its matrix");
    match kernel {
        #[cfg(target_arch = "x86_64")]
        Kernel::Avx512 if kernel.is_available() => {
            // SAFETY: the processor has the features, as was just asked, and the lengths are those asserted above.
            unsafe { avx512(panels, c, stride) }
        }
        #[cfg(target_arch = "x86_64")]
        Kernel::Avx2 if kernel.is_available() => {
            // SAFETY: as above.
            unsafe { avx2(panels, c, stride) }
        }
        Kernel::Portable => {
            // SAFETY: as above.
            unsafe { every_block::<lanes::Portable, 1, 4>(panels, c, stride) }
        }
        _ => panic!("this processor can't run the {} kernel", kernel.name()),
    }
}

#[cfg(target_arch = "x86_64")]
#[target_feature(enable = "avx512f,avx512bw,avx512dq,avx512vl,avx2,fma")]
unsafe fn avx512(panels: Panels, c: &mut [f64], stride: usize) {
    // SAFETY: the caller's promise.
    unsafe { every_block::<lanes::Avx512, 3, 8>(panels, c, stride) }
}

#[cfg(target_arch = "x86_64")]
#[target_feature(enable = "avx2,fma")]
unsafe fn avx2(panels: Panels, c: &mut [f64], stride: usize) {
    // SAFETY: the caller's promise.
    unsafe { every_block::<lanes::Avx2, 1, 6>(panels, c, stride) }
}

/// # Safety
/// The panels and `c` must be as long as [`subtract_panels`] asserts.
#[inline(always)]
unsafe fn every_block<L: Lanes, const ACROSS: usize, const COLUMNS: usize>(
    panels: Panels,
    c: &mut [f64],
    stride: usize,
) {
    let height = ACROSS * LANES;
    for (column_group, column) in (0..panels.columns).step_by(COLUMNS).enumerate() {
        let b = &panels.b[column_group * COLUMNS * panels.depth..][..COLUMNS * panels.depth];
        for (row_group, row) in (0..panels.rows).step_by(height).enumerate() {
            let a = &panels.a[row_group * panels.a_group..];
            let c = &mut c[column * stride + row..];
            let (rows, columns) = (height.min(panels.rows - row), COLUMNS.min(panels.columns - column));
            if (rows, columns) == (height, COLUMNS) {
                prefetch_block::<ACROSS, COLUMNS>(c, stride);
                // SAFETY: the caller's promise.
                let sums = unsafe { multiply::<L, ACROSS, COLUMNS>(panels.depth, a, panels.a_step, b) };
                for (column, sums) in sums.iter().enumerate() {
                    let (vectors, _) = c[column * stride..][..height].as_chunks_mut::<LANES>();
                    for (vector, sum) in vectors.iter_mut().zip(sums) {
                        L::load(vector).sub(*sum).store(vector);
                    }
                }
                continue;
            }
            // SAFETY: the caller's promise.
            let sums = unsafe { multiply::<L, ACROSS, COLUMNS>(panels.depth, a, panels.a_step, b) };
            for (column, sums) in sums.iter().enumerate().take(columns) {
                let mut block = [[0.0; LANES]; ACROSS];
                block.iter_mut().zip(sums).for_each(|(block, sum)| sum.store(block));
                let elements = c[column * stride..][..rows].iter_mut();
                elements.zip(block.as_flattened()).for_each(|(element, sum)| *element -= sum);
            }
        }
    }
}

/// The product of one group of rows and one of columns.
///
/// # Safety
/// `a` must hold `depth` columns of `ACROSS` vectors, `a_step` apart, and `b` `depth` rows of `COLUMNS` numbers.
#[inline(always)]
unsafe fn multiply<L: Lanes, const ACROSS: usize, const COLUMNS: usize>(
    depth: usize,
    a: &[f64],
    a_step: usize,
    b: &[f64],
) -> [[L; ACROSS]; COLUMNS] {
    let mut sums = [[L::splat(0.0); ACROSS]; COLUMNS];
    let (mut a, mut b) = (a.as_ptr(), b.as_ptr());
    for _ in 0..depth / TOGETHER {
        for _ in 0..TOGETHER {
            // SAFETY: both panels go on for this deep, as the caller promises.
            unsafe { multiply_step::<L, ACROSS, COLUMNS>(a, b, &mut sums) };
            a = a.wrapping_add(a_step);
            b = b.wrapping_add(COLUMNS);
        }
    }
    for _ in 0..depth % TOGETHER {
        // SAFETY: as above.
        unsafe { multiply_step::<L, ACROSS, COLUMNS>(a, b, &mut sums) };
        a = a.wrapping_add(a_step);
        b = b.wrapping_add(COLUMNS);
    }
    sums
}

/// Steps that are written out one after the other, so that the loop around them costs next to nothing.
const TOGETHER: usize = 4;

/// Adds one column of A times one row of B.
///
/// # Safety
/// `ACROSS` vectors must stand at `a` and `COLUMNS` numbers at `b`.
#[inline(always)]
unsafe fn multiply_step<L: Lanes, const ACROSS: usize, const COLUMNS: usize>(
    a: *const f64,
    b: *const f64,
    sums: &mut [[L; ACROSS]; COLUMNS],
) {
    let rows: [L; ACROSS] =
        // SAFETY: the caller's promise.
        std::array::from_fn(|part| L::load(unsafe { &*a.add(part * LANES).cast::<[f64; LANES]>() }));
    for (column, sums) in sums.iter_mut().enumerate() {
        // SAFETY: the caller's promise.
        let factor = L::splat(unsafe { *b.add(column) });
        for (sum, row) in sums.iter_mut().zip(rows) {
            *sum = row.mul_add(factor, *sum);
        }
    }
}

/// Asks for the block that a product will be subtracted from, while the product is calculated.
#[inline(always)]
fn prefetch_block<const ACROSS: usize, const COLUMNS: usize>(c: &[f64], stride: usize) {
    for column in 0..COLUMNS {
        for part in 0..ACROSS {
            prefetch(c.as_ptr().wrapping_add(column * stride + part * LANES));
        }
    }
}
