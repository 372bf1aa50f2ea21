//! `C -= A·B` through packed panels (Goto and van de Geijn, Anatomy of high-performance matrix multiplication, 2008).

use super::kernel::{Kernel, LARGEST_BLOCK};

/// How deep a packed panel is; the same for every kernel, since sums are rounded once a panel.
const DEPTH: usize = 256;

/// How many rows of A are packed at once, a multiple of every kernel's rows: with `DEPTH` they fill half of a
/// second-level cache of 1 MiB.
const ROWS: usize = 240;

/// Room for packed panels, made once.
pub(super) struct Workspace {
    a: Vec<f64>,
    b: Vec<f64>,
    block: [f64; LARGEST_BLOCK],
}

impl Workspace {
    /// Room for products with at most this many columns.
    pub(super) fn new(columns: usize) -> Self {
        Self { a: vec![0.0; ROWS * DEPTH], b: vec![0.0; (columns + 8) * DEPTH], block: [0.0; LARGEST_BLOCK] }
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
    let (block_rows, block_columns) = kernel.block();
    for depth_from in (0..shape.depth).step_by(DEPTH) {
        let depth = DEPTH.min(shape.depth - depth_from);
        pack_rows(&mut work.b, c, stride, b_row + depth_from, (depth, shape.columns), block_columns);
        for row_from in (0..shape.rows).step_by(ROWS) {
            let rows = ROWS.min(shape.rows - row_from);
            let part = Part { row: a.row + row_from, data: &a.data[depth_from * a.stride..], ..a };
            pack_columns(&mut work.a, part, (rows, depth), block_rows);
            for column in (0..shape.columns).step_by(block_columns) {
                let b = &work.b[column * depth..][..block_columns * depth];
                for row in (0..rows).step_by(block_rows) {
                    let a = &work.a[row * depth..][..block_rows * depth];
                    let corner = column * stride + c_row + row_from + row;
                    let (height, width) = (block_rows.min(rows - row), block_columns.min(shape.columns - column));
                    if (height, width) == (block_rows, block_columns) {
                        kernel.subtract_product(depth, a, b, &mut c[corner..], stride);
                    } else {
                        edge(kernel, depth, (a, b), &mut work.block, (&mut c[corner..], stride, height, width));
                    }
                }
            }
        }
    }
}

/// A block that hangs over the edge is calculated beside the matrix, and what belongs to it is brought over.
fn edge(
    kernel: Kernel,
    depth: usize,
    (a, b): (&[f64], &[f64]),
    block: &mut [f64; LARGEST_BLOCK],
    (c, stride, height, width): (&mut [f64], usize, usize, usize),
) {
    let (block_rows, _) = kernel.block();
    block.fill(0.0);
    kernel.subtract_product(depth, a, b, block, block_rows);
    for column in 0..width {
        let sums = &block[column * block_rows..][..height];
        for (element, sum) in c[column * stride..][..height].iter_mut().zip(sums) {
            *element += sum;
        }
    }
}

/// Packs rows of B: panels of `width` columns, each row after row; missing columns are nothing.
fn pack_rows(packed: &mut [f64], b: &[f64], stride: usize, row: usize, (depth, columns): (usize, usize), width: usize) {
    for first in (0..columns).step_by(width) {
        let panel = &mut packed[first * depth..][..width * depth];
        for offset in 0..width {
            if first + offset >= columns {
                panel.iter_mut().skip(offset).step_by(width).for_each(|element| *element = 0.0);
                continue;
            }
            let column = &b[(first + offset) * stride + row..][..depth];
            for (element, value) in panel.iter_mut().skip(offset).step_by(width).zip(column) {
                *element = *value;
            }
        }
    }
}

/// Packs columns of A: panels of `height` rows, each column after column; missing rows are nothing.
fn pack_columns(packed: &mut [f64], a: Part, (rows, depth): (usize, usize), height: usize) {
    for first in (0..rows).step_by(height) {
        let panel = &mut packed[first * depth..][..height * depth];
        let there = height.min(rows - first);
        for (index, target) in panel.chunks_exact_mut(height).enumerate() {
            let source = &a.data[index * a.stride + a.row + first..][..there];
            target[..there].copy_from_slice(source);
            target[there..].fill(0.0);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::super::matrix::fill;
    use super::*;
    use proptest::prelude::*;

    fn product(kernel: Kernel, shape: Shape) -> Vec<f64> {
        let stride = shape.rows + shape.depth;
        let mut a = vec![0.0; shape.rows * shape.depth];
        let mut c = vec![0.0; stride * shape.columns];
        fill(&mut a, 1);
        fill(&mut c, 2);
        let part = Part { data: &a, stride: shape.rows, row: 0 };
        subtract_product(kernel, &mut Workspace::new(shape.columns), shape, part, &mut c, (stride, 0, shape.depth));
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
        fn every_kernel_gives_the_same_bits_and_the_right_numbers(rows in 1usize..70, columns in 1usize..40, depth in 1usize..50) {
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
