//! LU factorisation with partial pivoting: panels of columns from left to right, each of them by recursion (Toledo, Locality of
//! reference in LU decomposition with partial pivoting, 1997), so that nearly all work is products of blocks.

use std::io;

use super::exchange::Exchange;
use super::matrix::{Columns, Part, WIDTH};
use super::multiply::{DEPTH, Workspace, subtract_product};
use super::narrow::{factor_narrow, solve_narrow};
use crate::kernel::Kernel;

/// What a factorisation needs besides its matrix, made once.
pub(super) struct Room {
    products: Workspace,
    exchange: Exchange,
}

impl Room {
    /// Room for systems of this order.
    pub(super) fn new(order: usize) -> io::Result<Self> {
        Ok(Self { products: Workspace::new(order, order)?, exchange: Exchange::new(order) })
    }

    /// Bytes of room for systems of this order.
    pub(super) fn bytes(order: u64) -> u64 {
        Workspace::bytes(order, order) + Exchange::bytes(order)
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
    let (rows, columns) = (matrix.rows, pivots.len());
    if columns <= WIDTH {
        if let Some(original) = original {
            matrix.data.copy_from_slice(&original[..matrix.data.len()]);
        }
        return matrix.panels().for_each(|panel| factor_narrow(kernel, panel, row, pivots));
    }
    let half = first_of(columns);
    let (mut left, mut right) = matrix.split(half);
    let (left_pivots, right_pivots) = pivots.split_at_mut(half);

    factor(kernel, room, left.borrow(), original, row, left_pivots);
    room.exchange.take(row, left_pivots);
    match original {
        Some(original) => room.exchange.take_over(kernel, &mut right, &original[half * rows..]),
        None => room.exchange.apply(&mut right),
    }
    let triangle = Part { data: left.data, rows, row };
    solve_lower(kernel, &mut room.products, (triangle, half), &mut right, row);
    let below = Part { row: row + half, ..triangle };
    let product = (below, rows - row - half, half);
    subtract_product(kernel, &mut room.products, product, &mut right, (row, row + half));
    factor(kernel, room, right, None, row + half, right_pivots);
    room.exchange.take(row + half, right_pivots);
    room.exchange.apply(&mut left);
}

/// How many of so many columns come first, in whole panels: as many as are packed at once, so that all that is right of them and below
/// is brought up to date with rows that are packed only once; of fewer about a half, so that nearly all work on these is products too.
fn first_of(columns: usize) -> usize {
    if columns > DEPTH { DEPTH } else { (columns / 2).next_multiple_of(WIDTH) }
}

/// Solves `L·X = B` in place, with L the unit lower triangle of this order, whole panels, at the part's row and B the rows of
/// `right` from `row`.
fn solve_lower(kernel: Kernel, work: &mut Workspace, (lower, order): (Part, usize), right: &mut Columns, row: usize) {
    if order <= WIDTH {
        return solve_narrow(kernel, lower, right, row);
    }
    let half = first_of(order);
    solve_lower(kernel, work, (lower, half), right, row);
    let below = Part { row: lower.row + half, ..lower };
    subtract_product(kernel, work, (below, order - half, half), right, (row, row + half));
    let rest = Part { data: &lower.data[half * lower.rows..], ..below };
    solve_lower(kernel, work, (rest, order - half), right, row + half);
}
