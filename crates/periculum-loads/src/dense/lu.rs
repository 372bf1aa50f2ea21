//! LU factorisation with partial pivoting: panels of columns from left to right, each of them by recursion (Toledo, Locality of
//! reference in LU decomposition with partial pivoting, 1997), so that nearly all work is products of blocks.

use super::exchange::Exchange;
use super::matrix::{Columns, Part, WIDTH};
use super::multiply::{DEPTH, subtract_product};
use super::narrow::{Upright, factor_narrow, solve_narrow};
use crate::kernel::Kernel;
use crate::panels::{GROUP, Origin};

/// What a factorisation needs besides its matrix, made once.
pub(super) struct Room {
    exchange: Exchange,
    upright: Upright,
}

impl Room {
    /// Room for matrices whose panels are so high.
    pub(super) fn new(height: usize) -> Self {
        Self { exchange: Exchange::new(height, DEPTH.min(height)), upright: Upright::new(height) }
    }

    /// Bytes of such room.
    pub(super) fn bytes(height: u64) -> u64 {
        Exchange::bytes(height, height.min(DEPTH as u64)) + Upright::bytes(height)
    }
}

/// Factors the columns from this row down; `pivots` gets, for each column, the row that was swapped in.
///
/// The matrix becomes L below its diagonal (which is all ones) and U from it upwards. A column without any
/// pivot but nothing leaves what is no number, which the residual then shows. Where there is an original, the columns
/// are taken from it, each when it is first needed.
pub(super) fn factor(
    kernel: Kernel,
    room: &mut Room,
    mut matrix: Columns,
    original: Option<&[f64]>,
    row: usize,
    pivots: &mut [usize],
) {
    let (rows, height, columns) = (matrix.rows, matrix.height, pivots.len());
    if columns <= WIDTH {
        if let Some(original) = original {
            matrix.data.copy_from_slice(&original[..matrix.data.len()]);
        }
        return matrix.panels().for_each(|panel| factor_narrow(kernel, panel, &mut room.upright, row, pivots));
    }
    let first = first_of(columns);
    let (mut left, mut right) = matrix.split(first);
    let (left_pivots, right_pivots) = pivots.split_at_mut(first);

    factor(kernel, room, left.borrow(), original, row, left_pivots);
    let exchange = &mut room.exchange;
    exchange.take(row, left_pivots);
    let original = original.map(|original| &original[first * height..]);
    match original {
        Some(original) => exchange.take_over(kernel, &mut right, original),
        None => exchange.apply(kernel, &mut right),
    }
    let triangle = Part { data: left.data, height, row };
    solve_lower(kernel, (triangle, first), &mut right, row);
    let lower = row + first;
    let count = rows - lower;
    let origin =
        original.map(|numbers| Origin { numbers, sources: exchange.order(lower, count.next_multiple_of(GROUP)) });
    let below = Part { row: lower, ..triangle };
    subtract_product(kernel, (below, count, first), &mut right, (row, lower), origin);
    factor(kernel, room, right, None, lower, right_pivots);
    if columns <= DEPTH {
        room.exchange.take(lower, right_pivots);
        room.exchange.apply(kernel, &mut left);
    }
}

/// How many of so many columns come first, in whole panels: as many as a product is deep at most, so that all that is right of them and below
/// is brought up to date once for so many; of fewer about a half, so that nearly all work on these is products too.
fn first_of(columns: usize) -> usize {
    if columns > DEPTH { DEPTH } else { (columns / 2).next_multiple_of(WIDTH) }
}

/// Solves `L·X = B` in place, with L the unit lower triangle of this order, whole panels, at the part's row and B the rows of
/// `right` from `row`.
fn solve_lower(kernel: Kernel, (lower, order): (Part, usize), right: &mut Columns, row: usize) {
    if order <= WIDTH {
        return solve_narrow(kernel, lower, right, row);
    }
    let half = first_of(order);
    solve_lower(kernel, (lower, half), right, row);
    let below = Part { row: lower.row + half, ..lower };
    subtract_product(kernel, (below, order - half, half), right, (row, row + half), None);
    let rest = Part { data: &lower.data[half * lower.height..], ..below };
    solve_lower(kernel, (rest, order - half), right, row + half);
}
