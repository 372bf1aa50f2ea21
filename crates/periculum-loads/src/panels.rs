//! The innermost loops: small blocks of the product of two panels, in the registers of one core.
//!
//! Every kernel adds `a·b` with fused multiply-adds in the same order over the depth for each element, so all of
//! them give the same bits.

use crate::kernel::{Kernel, prefetch};
use crate::lanes::{self, LANES, Lanes};

/// Rows and columns of the block that a kernel holds in its registers.
pub(crate) fn block_of(kernel: Kernel) -> (usize, usize) {
    match kernel {
        Kernel::Avx512 => (3 * LANES, 8),
        Kernel::Avx2 => (LANES, 6),
        Kernel::Portable => (LANES, 4),
    }
}

/// Two panels to be multiplied, `rows × depth` and `depth × columns`.
#[derive(Clone, Copy)]
pub(crate) struct Panels<'a> {
    pub(crate) rows: usize,
    pub(crate) columns: usize,
    pub(crate) depth: usize,
    /// Groups of block rows, `a_group` numbers apart; in a group columns are `a_step` numbers apart.
    pub(crate) a: &'a [f64],
    pub(crate) a_step: usize,
    pub(crate) a_group: usize,
    /// Groups of block columns, one after the other; in a group row after row. Missing columns are nothing.
    pub(crate) b: &'a [f64],
}

/// Subtracts the product of two panels from the part of a column-major matrix that starts at `c`'s start.
///
/// A last group of rows must be whole in `a`: what is below the panel's rows is calculated and dropped.
pub(crate) fn subtract_panels(kernel: Kernel, panels: Panels, c: &mut [f64], stride: usize) {
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
    let group = COLUMNS * panels.depth;
    let share = group.div_ceil(panels.rows.div_ceil(height)).next_multiple_of(LANES);
    for (column_group, column) in (0..panels.columns).step_by(COLUMNS).enumerate() {
        let b = &panels.b[column_group * group..][..group];
        for (row_group, row) in (0..panels.rows).step_by(height).enumerate() {
            let a = &panels.a[row_group * panels.a_group..];
            let c = &mut c[column * stride + row..];
            let (rows, columns) = (height.min(panels.rows - row), COLUMNS.min(panels.columns - column));
            let soon = Soon { c: c.as_ptr(), stride, b: b.as_ptr().wrapping_add(group + row_group * share) };
            // SAFETY: the caller's promise.
            let sums = unsafe { multiply::<L, ACROSS, COLUMNS>(panels.depth, a, panels.a_step, b, soon) };
            if (rows, columns) == (height, COLUMNS) {
                for (column, sums) in sums.iter().enumerate() {
                    let (vectors, _) = c[column * stride..][..height].as_chunks_mut::<LANES>();
                    for (vector, sum) in vectors.iter_mut().zip(sums) {
                        L::load(vector).sub(*sum).store(vector);
                    }
                }
                continue;
            }
            for (column, sums) in sums.iter().enumerate().take(columns) {
                let mut block = [[0.0; LANES]; ACROSS];
                block.iter_mut().zip(sums).for_each(|(block, sum)| sum.store(block));
                let elements = c[column * stride..][..rows].iter_mut();
                elements.zip(block.as_flattened()).for_each(|(element, sum)| *element -= sum);
            }
        }
    }
}

/// What is asked for while a product is calculated, a cache line a step, so that the multiply-adds never wait for it.
#[derive(Clone, Copy)]
struct Soon {
    /// The block that the product will be subtracted from, of columns so far apart.
    c: *const f64,
    stride: usize,
    /// This block's share of the next group of columns of B.
    b: *const f64,
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
    soon: Soon,
) -> [[L; ACROSS]; COLUMNS] {
    let mut sums = [[L::splat(0.0); ACROSS]; COLUMNS];
    let mut step = 0;
    for column in 0..COLUMNS {
        for part in 0..ACROSS {
            if step < depth {
                // SAFETY: both panels go on for this deep, as the caller promises.
                unsafe { multiply_step::<L, ACROSS, COLUMNS>(a, a_step, b, step, &mut sums) };
                prefetch(soon.c.wrapping_add(column * soon.stride + part * LANES));
                step += 1;
            }
        }
    }
    let mut next = soon.b;
    while step + TOGETHER <= depth {
        for _ in 0..TOGETHER {
            // SAFETY: as above.
            unsafe { multiply_step::<L, ACROSS, COLUMNS>(a, a_step, b, step, &mut sums) };
            step += 1;
        }
        prefetch(next);
        next = next.wrapping_add(LANES);
    }
    for step in step..depth {
        // SAFETY: as above.
        unsafe { multiply_step::<L, ACROSS, COLUMNS>(a, a_step, b, step, &mut sums) };
    }
    sums
}

/// Steps that are written out one after the other, so that the loop around them costs next to nothing.
const TOGETHER: usize = 4;

/// So many steps before its turn a column of A is asked for: it comes from the second-level cache.
const AHEAD: usize = 8;

/// Adds one column of A times one row of B.
///
/// # Safety
/// As for [`multiply`], for a step below the depth.
#[inline(always)]
unsafe fn multiply_step<L: Lanes, const ACROSS: usize, const COLUMNS: usize>(
    a: &[f64],
    a_step: usize,
    b: &[f64],
    step: usize,
    sums: &mut [[L; ACROSS]; COLUMNS],
) {
    let a = a.as_ptr().wrapping_add(step * a_step);
    for part in 0..ACROSS {
        prefetch(a.wrapping_add(AHEAD * a_step + part * LANES));
    }
    let rows: [L; ACROSS] =
        // SAFETY: the caller's promise.
        std::array::from_fn(|part| L::load(unsafe { &*a.add(part * LANES).cast::<[f64; LANES]>() }));
    for (column, sums) in sums.iter_mut().enumerate() {
        // SAFETY: the caller's promise.
        let factor = L::splat(unsafe { *b.as_ptr().add(step * COLUMNS + column) });
        for (sum, row) in sums.iter_mut().zip(rows) {
            *sum = row.mul_add(factor, *sum);
        }
    }
}
