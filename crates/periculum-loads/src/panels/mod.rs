//! Products of matrices in panels.
//!
//! A matrix stands in panels of so many columns as the widest block has, and in each of them row after row: so a block of it is one piece
//! of memory, a row of it a few cache lines, and the rows that a product takes of it need not be gathered.
//!
//! Every kernel adds `a·b` with fused multiply-adds in the same order over the depth for each element, so all of
//! them give the same bits.

mod block;
mod shape;

use crate::kernel::Kernel;
use crate::lanes;
use block::every_block;
use shape::Product;

pub(crate) use shape::{GROUP, Origin, Rows, WIDTH, height_for};

/// Subtracts from the rows of the panels of `c` the product of as many other rows, whole groups, and the panels of `right`, which are
/// just so deep.
pub(crate) fn subtract_product(kernel: Kernel, rows: Rows, right: &[f64], c: &mut [f64]) {
    let (apart, panels) = (rows.count * WIDTH, c.len() / (rows.count * WIDTH).max(1));
    assert!(rows.count.is_multiple_of(GROUP), "rows are whole groups");
    assert!(right.len() >= panels * rows.depth * WIDTH, "the right matrix is too short");
    let product = Product { right: right.as_ptr(), right_apart: rows.depth * WIDTH, c: c.as_mut_ptr(), apart, panels };
    // SAFETY: what is read and what is written are as long as was asserted, and apart.
    unsafe { subtract(kernel, rows, product, None) }
}

/// Subtracts from the rows of a matrix from `lower` on the product of as many other rows and its own rows from `upper` on, all of them
/// above; its panels are so many rows high. Where there is an origin, the rows are taken from it first.
///
/// What is missing to a whole group is subtracted too, from the rows below.
pub(crate) fn subtract_own(
    kernel: Kernel,
    rows: Rows,
    c: &mut [f64],
    height: usize,
    (upper, lower): (usize, usize),
    origin: Option<Origin>,
) {
    let count = rows.count.next_multiple_of(GROUP);
    assert!(upper + rows.depth <= lower && lower + count <= height, "rows that are read and written");
    if let Some(origin) = origin {
        assert!(origin.numbers.len() >= c.len() && origin.sources.len() == count, "rows that are taken over");
        assert!(origin.sources.iter().all(|source| *source < height), "sources outside of the panels");
    }
    let (apart, panels) = (height * WIDTH, c.len() / (height * WIDTH));
    let c = c.as_mut_ptr();
    let (right, c) = (c.wrapping_add(upper * WIDTH), c.wrapping_add(lower * WIDTH));
    let product = Product { right: right.cast_const(), right_apart: apart, c, apart, panels };
    // SAFETY: all rows are in their panels, and none that is read is written.
    unsafe { subtract(kernel, rows, product, origin) }
}

/// # Safety
/// All panels must be there, of the right matrix as many rows as the product is deep, and none of them may be written. So must all rows
/// of an origin.
unsafe fn subtract(kernel: Kernel, rows: Rows, product: Product, origin: Option<Origin>) {
    let Rows { numbers, height, count, depth } = rows;
    let last = (depth / WIDTH).saturating_sub(1) * height + count.next_multiple_of(GROUP);
    assert!(depth.is_multiple_of(WIDTH) && numbers.len() >= last * WIDTH, "the left matrix is shorter than it is deep");
    let rows = Rows { count: count.next_multiple_of(GROUP), ..rows };
    match kernel {
        #[cfg(target_arch = "x86_64")]
        Kernel::Avx512 if kernel.is_available() => {
            // SAFETY: the processor has the features, as was just asked, and the rest is the caller's promise.
            unsafe { avx512(rows, product, origin) }
        }
        #[cfg(target_arch = "x86_64")]
        Kernel::Avx2 if kernel.is_available() => {
            // SAFETY: as above.
            unsafe { avx2(rows, product, origin) }
        }
        Kernel::Portable => {
            // SAFETY: as above.
            unsafe { every_block::<lanes::Portable, 1, 4>(rows, product, origin) }
        }
        _ => panic!("this processor can't run the {} kernel", kernel.name()),
    }
}

#[cfg(target_arch = "x86_64")]
#[target_feature(enable = "avx512f,avx512bw,avx512dq,avx512vl,avx2,fma")]
unsafe fn avx512(rows: Rows, product: Product, origin: Option<Origin>) {
    // SAFETY: the caller's promise.
    unsafe { every_block::<lanes::Avx512, 3, 8>(rows, product, origin) }
}

#[cfg(target_arch = "x86_64")]
#[target_feature(enable = "avx2,fma")]
unsafe fn avx2(rows: Rows, product: Product, origin: Option<Origin>) {
    // SAFETY: the caller's promise.
    unsafe { every_block::<lanes::Avx2, 1, 6>(rows, product, origin) }
}
