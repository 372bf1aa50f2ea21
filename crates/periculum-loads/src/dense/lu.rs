//! LU factorisation with partial pivoting, recursive by columns so that nearly all work is products of blocks
//! (Toledo, Locality of reference in LU decomposition with partial pivoting, 1997).

use super::matrix::Columns;
use super::multiply::{Part, Shape, Workspace, subtract_product};
use super::narrow::{NARROW, factor_narrow, solve_narrow};
use crate::kernel::{Kernel, prefetch};

/// Factors the columns from this row down; `pivots` gets, for each column, the row that was swapped in.
///
/// The matrix becomes L below its diagonal (which is all ones) and U from it upwards. A column without any
/// pivot but nothing leaves infinities, which the residual then shows.
pub(super) fn factor(kernel: Kernel, work: &mut Workspace, matrix: Columns, row: usize, pivots: &mut [usize]) {
    let columns = pivots.len();
    if columns <= NARROW {
        return factor_narrow(kernel, matrix.data, (matrix.stride, matrix.rows), row, pivots);
    }
    let half = (columns / 2).next_multiple_of(NARROW);
    let (rows, stride) = (matrix.rows, matrix.stride);
    let (mut left, mut right) = matrix.split(half);
    let (left_pivots, right_pivots) = pivots.split_at_mut(half);

    factor(kernel, work, left.borrow(), row, left_pivots);
    swap_rows(&mut right, columns - half, row, left_pivots);
    let triangle = Part { data: left.data, stride, row };
    solve_lower(kernel, work, triangle, half, (&mut right, columns - half), row);
    let shape = Shape { rows: rows - row - half, columns: columns - half, depth: half };
    let below = Part { data: left.data, stride, row: row + half };
    subtract_product(kernel, work, shape, below, right.data, (stride, row, row + half));
    factor(kernel, work, right.borrow(), row + half, right_pivots);
    swap_rows(&mut left, half, row + half, right_pivots);
}

fn swap_rows(matrix: &mut Columns, columns: usize, row: usize, pivots: &[usize]) {
    for column in 0..columns {
        // The next column is fetched meanwhile: nobody could guess where it will be read.
        let (this, next) = matrix.data[column * matrix.stride..].split_at_mut(matrix.stride);
        for (index, pivot) in pivots.iter().enumerate() {
            prefetch(next.as_ptr().wrapping_add(*pivot));
            this.swap(row + index, *pivot);
        }
    }
}

/// Solves `L·X = B` in place, with L the unit lower triangle of this order at the part's row and B the rows of
/// `right` from `row`.
fn solve_lower(
    kernel: Kernel,
    work: &mut Workspace,
    lower: Part,
    order: usize,
    (right, columns): (&mut Columns, usize),
    row: usize,
) {
    if order <= NARROW {
        return solve_narrow(kernel, lower, order, right.data, right.stride, columns, row);
    }
    let half = (order / 2).next_multiple_of(NARROW);
    solve_lower(kernel, work, lower, half, (right, columns), row);
    let shape = Shape { rows: order - half, columns, depth: half };
    let below = Part { row: lower.row + half, ..lower };
    subtract_product(kernel, work, shape, below, right.data, (right.stride, row, row + half));
    let rest = Part { data: &lower.data[half * lower.stride..], row: lower.row + half, ..lower };
    solve_lower(kernel, work, rest, order - half, (right, columns), row + half);
}

/// Solves the factored system for `x`, which holds the right-hand side and becomes the solution.
pub(super) fn solve(matrix: &mut Columns, pivots: &[usize], x: &mut [f64]) {
    for (index, pivot) in pivots.iter().enumerate() {
        x.swap(index, *pivot);
    }
    for index in 0..pivots.len() {
        let factor = x[index];
        for (element, lower) in x[index + 1..].iter_mut().zip(&matrix.column(index)[index + 1..]) {
            *element -= lower * factor;
        }
    }
    for index in (0..pivots.len()).rev() {
        x[index] /= matrix.column(index)[index];
        let factor = x[index];
        for (element, upper) in x[..index].iter_mut().zip(matrix.column(index)) {
            *element -= upper * factor;
        }
    }
}
