//! `C -= A·B` through packed panels (Goto and van de Geijn, Anatomy of high-performance matrix multiplication, 2008).

use std::io;

use crate::buffer::Buffer;
use crate::kernel::{Kernel, for_each_kernel, prefetch};
use crate::lanes::{LANES, Lanes};
use crate::panels::{Panels, block_of, subtract_panels};

/// How deep a packed panel is; the same for every kernel, since sums are rounded once a panel.
pub(super) const DEPTH: usize = 384;

/// How many rows of A are packed at once, a multiple of every kernel's rows: with `DEPTH` they fill half of a
/// second-level cache of 1 MiB.
const ROWS: usize = 144;

/// Up to this depth A is used where it stands: packing it would cost more than it gains.
const SHALLOW: usize = 48;

/// Room for packed panels, made once.
pub(super) struct Workspace {
    a: Buffer<f64>,
    b: Buffer<f64>,
}

impl Workspace {
    /// Room for products with at most this many columns, and at most so deep.
    pub(super) fn new(columns: usize, depth: usize) -> io::Result<Self> {
        let depth = DEPTH.min(depth);
        Ok(Self { a: Buffer::zeroed(ROWS * depth)?, b: Buffer::zeroed((columns + 8) * depth)? })
    }

    /// Bytes of such room.
    pub(super) fn bytes(columns: u64, depth: u64) -> u64 {
        8 * (ROWS as u64 + columns + 8) * depth.min(DEPTH as u64)
    }
}

/// A part of a column-major matrix that is only read: element `(i, j)` is `data[j * stride + row + i]`.
#[derive(Clone, Copy)]
pub(super) struct Part<'a> {
    pub(super) data: &'a [f64],
    pub(super) stride: usize,
    pub(super) row: usize,
}

/// Rows, columns and depth of a product.
#[derive(Clone, Copy)]
pub(super) struct Shape {
    pub(super) rows: usize,
    pub(super) columns: usize,
    pub(super) depth: usize,
}

/// Subtracts the product of `a` and the rows from `b_row` of `c`'s own matrix from its rows from `c_row`.
///
/// In a factorisation `B` and `C` are the upper and the lower rows of the same columns; packing `B` first lets
/// both live in one slice.
pub(super) fn subtract_product(
    kernel: Kernel,
    work: &mut Workspace,
    shape: Shape,
    a: Part,
    c: &mut [f64],
    (stride, b_row, c_row): (usize, usize, usize),
) {
    let (block_rows, block_columns) = block_of(kernel);
    if shape.rows == 0 || shape.columns == 0 {
        return;
    }
    for depth_from in (0..shape.depth).step_by(DEPTH) {
        let depth = DEPTH.min(shape.depth - depth_from);
        pack_rows(kernel, &mut work.b, c, stride, b_row + depth_from, (depth, shape.columns), block_columns);
        let a = Part { data: &a.data[depth_from * a.stride..], ..a };
        let used_in_place = if depth <= SHALLOW { shape.rows / block_rows * block_rows } else { 0 };
        if used_in_place > 0 {
            let panels = Panels {
                rows: used_in_place,
                columns: shape.columns,
                depth,
                a: &a.data[a.row..],
                a_step: a.stride,
                a_group: block_rows,
                b: &work.b,
            };
            subtract_panels(kernel, panels, &mut c[c_row..], stride);
        }
        for row_from in (used_in_place..shape.rows).step_by(ROWS) {
            let rows = ROWS.min(shape.rows - row_from);
            pack_columns(kernel, &mut work.a, Part { row: a.row + row_from, ..a }, (rows, depth), block_rows);
            let panels = Panels {
                rows,
                columns: shape.columns,
                depth,
                a: &work.a,
                a_step: block_rows,
                a_group: block_rows * depth,
                b: &work.b,
            };
            subtract_panels(kernel, panels, &mut c[c_row + row_from..], stride);
        }
    }
}

for_each_kernel! {
    /// Packs rows of B: panels of `width` columns, each row after row; missing columns are nothing.
    fn pack_rows(
        packed: &mut [f64], b: &[f64], stride: usize, row: usize, shape: (usize, usize), width: usize,
    ) = pack_rows_in_lanes;
}

#[inline(always)]
fn pack_rows_in_lanes<L: Lanes>(
    packed: &mut [f64],
    b: &[f64],
    stride: usize,
    row: usize,
    (depth, columns): (usize, usize),
    width: usize,
) {
    for first in (0..columns).step_by(width) {
        let panel = &mut packed[first * depth..][..width * depth];
        let b = &b[first * stride + row..];
        let squares = if width == LANES && first + width <= columns { depth / LANES } else { 0 };
        let (rows, _) = panel.as_chunks_mut::<LANES>();
        for (square, rows) in rows.chunks_exact_mut(LANES).take(squares).enumerate() {
            let columns: [L; LANES] = std::array::from_fn(|column| {
                let at = column * stride + square * LANES;
                b[at..].first_chunk().map_or(L::splat(0.0), L::load)
            });
            L::transpose(columns).into_iter().zip(rows).for_each(|(row, place)| row.store(place));
        }
        let packed_already = squares * LANES;
        let there = width.min(columns - first);
        for (index, place) in panel.chunks_exact_mut(width).enumerate().skip(packed_already) {
            let (filled, missing) = place.split_at_mut(there);
            filled.iter_mut().enumerate().for_each(|(column, element)| *element = b[column * stride + index]);
            missing.fill(0.0);
        }
    }
}

for_each_kernel! {
    /// Packs columns of A: panels of `height` rows, each column after column; missing rows are nothing.
    ///
    /// Each column is read from its first row to its last one, as memory gives it best.
    fn pack_columns(packed: &mut [f64], a: Part, shape: (usize, usize), height: usize) = pack_columns_in_lanes;
}

#[inline(always)]
fn pack_columns_in_lanes<L: Lanes>(packed: &mut [f64], a: Part, (rows, depth): (usize, usize), height: usize) {
    /// So many columns before its turn one is asked for.
    const AHEAD: usize = 6;
    for index in 0..depth {
        let at = index * a.stride + a.row;
        let source = &a.data[at..][..rows];
        let soon = a.data.as_ptr().wrapping_add(at + AHEAD * a.stride);
        (0..rows).step_by(LANES).for_each(|line| prefetch(soon.wrapping_add(line)));
        for (panel, source) in packed.chunks_mut(height * depth).zip(source.chunks(height)) {
            let target = &mut panel[index * height..][..height];
            if source.len() == height {
                let (vectors, _) = target.as_chunks_mut::<LANES>();
                vectors.iter_mut().zip(source.as_chunks().0).for_each(|(to, from)| L::load(from).store(to));
                continue;
            }
            target[..source.len()].copy_from_slice(source);
            target[source.len()..].fill(0.0);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::random::fill;
    use proptest::prelude::*;

    fn product(kernel: Kernel, shape: Shape) -> Vec<f64> {
        let stride = shape.rows + shape.depth;
        let mut a = vec![0.0; shape.rows * shape.depth];
        let mut c = vec![0.0; stride * shape.columns];
        fill(&mut a, 1);
        fill(&mut c, 2);
        let part = Part { data: &a, stride: shape.rows, row: 0 };
        subtract_product(
            kernel,
            &mut Workspace::new(shape.columns, shape.depth).expect("memory"),
            shape,
            part,
            &mut c,
            (stride, 0, shape.depth),
        );
        c
    }

    fn expected(shape: Shape) -> Vec<f64> {
        let stride = shape.rows + shape.depth;
        let mut a = vec![0.0; shape.rows * shape.depth];
        let mut c = vec![0.0; stride * shape.columns];
        fill(&mut a, 1);
        fill(&mut c, 2);
        for column in 0..shape.columns {
            for row in 0..shape.rows {
                let terms = (0..shape.depth).map(|k| a[k * shape.rows + row] * c[column * stride + k]);
                c[column * stride + shape.depth + row] -= terms.sum::<f64>();
            }
        }
        c
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(40))]
        #[test]
        fn every_kernel_gives_the_same_bits_and_the_right_numbers(rows in 1usize..70, columns in 1usize..40, depth in 1usize..70) {
            let shape = Shape { rows, columns, depth };
            let portable = product(Kernel::Portable, shape);
            for (found, wanted) in portable.iter().zip(expected(shape)) {
                prop_assert!((found - wanted).abs() < 1e-13 * depth as f64);
            }
            for kernel in Kernel::ALL.into_iter().filter(|kernel| kernel.is_available()) {
                prop_assert_eq!(&product(kernel, shape), &portable, "{}", kernel.name());
            }
        }
    }

    #[test]
    fn products_larger_than_a_panel_are_right_too() {
        let shape = Shape { rows: ROWS + 13, columns: 9, depth: DEPTH + 5 };
        let wanted = expected(shape);
        for (found, wanted) in product(Kernel::best(), shape).iter().zip(&wanted) {
            assert!((found - wanted).abs() < 1e-11);
        }
    }
}
