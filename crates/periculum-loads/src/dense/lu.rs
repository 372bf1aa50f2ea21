//! LU factorisation with partial pivoting, recursive by columns so that nearly all work is products of blocks
//! (Toledo, Locality of reference in LU decomposition with partial pivoting, 1997).

use std::io;

use super::exchange::Exchange;
use super::matrix::Columns;
use super::multiply::{DEPTH, Part, Shape, Workspace, subtract_product};
use super::narrow::{NARROW, factor_narrow, solve_narrow};
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
/// are taken from it, each when it is first needed, so that it is still in the caches.
pub(super) fn factor(
    kernel: Kernel,
    room: &mut Room,
    matrix: Columns,
    original: Option<&[f64]>,
    row: usize,
    pivots: &mut [usize],
) {
    let columns = pivots.len();
    let (rows, stride) = (matrix.rows, matrix.stride);
    if columns <= NARROW {
        if let Some(original) = original {
            matrix.data[..columns * stride].copy_from_slice(&original[..columns * stride]);
        }
        return factor_narrow(kernel, matrix.data, (stride, rows), row, pivots);
    }
    let half = half_of(columns);
    let (mut left, mut right) = matrix.split(half);
    let (left_pivots, right_pivots) = pivots.split_at_mut(half);

    factor(kernel, room, left.borrow(), original, row, left_pivots);
    room.exchange.take(row, left_pivots);
    room.exchange.apply(&mut right, columns - half, original.map(|original| &original[half * stride..]));
    let triangle = Part { data: left.data, stride, row };
    solve_lower(kernel, &mut room.products, triangle, half, (&mut right, columns - half), row);
    let shape = Shape { rows: rows - row - half, columns: columns - half, depth: half };
    let below = Part { data: left.data, stride, row: row + half };
    subtract_product(kernel, &mut room.products, shape, below, right.data, (stride, row, row + half));
    factor(kernel, room, right.borrow(), None, row + half, right_pivots);
    room.exchange.take(row + half, right_pivots);
    room.exchange.apply(&mut left, half, None);
}

/// About a half of so many columns: as many as whole panels are deep where there are more, so that no product is shallow.
fn half_of(columns: usize) -> usize {
    (columns / 2).next_multiple_of(if columns > 2 * DEPTH { DEPTH } else { NARROW })
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
    let half = half_of(order);
    solve_lower(kernel, work, lower, half, (right, columns), row);
    let shape = Shape { rows: order - half, columns, depth: half };
    let below = Part { row: lower.row + half, ..lower };
    subtract_product(kernel, work, shape, below, right.data, (right.stride, row, row + half));
    let rest = Part { data: &lower.data[half * lower.stride..], row: lower.row + half, ..lower };
    solve_lower(kernel, work, rest, order - half, (right, columns), row + half);
}
