//! The ends of the recursion: a few columns factored, and a few rows solved for, without any product of blocks.
//!
//! Products are subtracted one by one, each rounded, in the order of the columns; all kernels give the same bits.

use super::multiply::Part;
use crate::kernel::for_each_kernel;
use crate::lanes::{LANES, Lanes};

/// Up to this many columns are factored, and this many rows are solved for, here: the rows of the largest block.
pub(super) const NARROW: usize = 24;

for_each_kernel! {
    /// Factors the first columns of a column-major matrix of this stride and so many rows from this row down; `pivots` gets, for each of them, the
    /// row that was swapped in.
    pub(super) fn factor_narrow(
        matrix: &mut [f64], shape: (usize, usize), row: usize, pivots: &mut [usize],
    ) = factor_in_lanes;
}

/// Each column is brought up to date from those before it when its turn comes, so that it is written only once.
#[inline(always)]
fn factor_in_lanes<L: Lanes>(matrix: &mut [f64], (stride, rows): (usize, usize), row: usize, pivots: &mut [usize]) {
    let columns = pivots.len();
    for index in 0..columns {
        let diagonal = row + index;
        let (done, rest) = matrix.split_at_mut(index * stride);
        let column = &mut rest[..rows];
        let mut factors = [0.0; NARROW];
        for before in 0..index {
            let factor = column[row + before];
            factors[before] = factor;
            let lower = &done[before * stride..][row + before + 1..diagonal];
            for (element, lower) in column[row + before + 1..diagonal].iter_mut().zip(lower) {
                *element -= lower * factor;
            }
        }
        let largest = subtract_columns::<L>(&mut column[diagonal..], done, (stride, diagonal), &factors[..index]);
        let is_largest = |element: &f64| element.abs() == largest;
        // Nothing is equal to what is not a number, and any pivot is as bad as another then.
        let pivot = diagonal + column[diagonal..].iter().position(is_largest).unwrap_or(0);
        pivots[index] = pivot;
        for column in 0..columns {
            matrix.swap(column * stride + diagonal, column * stride + pivot);
        }
        let column = &mut matrix[index * stride..][..rows];
        let divisor = column[diagonal];
        divide::<L>(&mut column[diagonal + 1..], divisor);
    }
}

/// Subtracts earlier columns, from this row down, times their factors; tells the largest magnitude that is left.
#[inline(always)]
fn subtract_columns<L: Lanes>(column: &mut [f64], done: &[f64], (stride, row): (usize, usize), factors: &[f64]) -> f64 {
    let mut largest = L::splat(0.0);
    let (vectors, rest) = column.as_chunks_mut::<LANES>();
    let whole = vectors.len() * LANES;
    for (group, vector) in vectors.iter_mut().enumerate() {
        let mut left = L::load(vector);
        for (before, factor) in factors.iter().enumerate() {
            let lower = &done[before * stride + row + group * LANES..];
            let Some(lower) = lower.first_chunk::<LANES>() else { break };
            left = left.sub(L::load(lower).mul(L::splat(*factor)));
        }
        left.store(vector);
        largest = left.abs().max(largest);
    }
    let mut lanes = [0.0; LANES];
    largest.store(&mut lanes);
    for (index, element) in rest.iter_mut().enumerate() {
        for (before, factor) in factors.iter().enumerate() {
            *element -= done[before * stride + row + whole + index] * factor;
        }
    }
    lanes.iter().chain(rest.iter()).fold(0.0, |largest: f64, element| largest.max(element.abs()))
}

#[inline(always)]
fn divide<L: Lanes>(column: &mut [f64], divisor: f64) {
    let (vectors, rest) = column.as_chunks_mut::<LANES>();
    for vector in vectors {
        L::load(vector).div(L::splat(divisor)).store(vector);
    }
    rest.iter_mut().for_each(|element| *element /= divisor);
}

for_each_kernel! {
    /// Solves `L·X = B` in place, with L the unit lower triangle of at most `NARROW` rows at the part's row, and B
    /// the rows of a column-major matrix from `row`.
    pub(super) fn solve_narrow(
        lower: Part, order: usize, right: &mut [f64], stride: usize, columns: usize, row: usize,
    ) = solve_in_lanes;
}

#[inline(always)]
fn solve_in_lanes<L: Lanes>(lower: Part, order: usize, right: &mut [f64], stride: usize, columns: usize, row: usize) {
    let mut triangle = [[0.0; NARROW]; NARROW];
    for (index, of_row) in triangle.iter_mut().enumerate().take(order) {
        for (before, element) in of_row.iter_mut().enumerate().take(index) {
            *element = lower.data[before * lower.stride + lower.row + index];
        }
    }
    let side_by_side = if order == NARROW { columns / LANES * LANES } else { 0 };
    for column in (0..side_by_side).step_by(LANES) {
        solve_eight::<L>(&triangle, &mut right[column * stride + row..], stride);
    }
    for column in side_by_side..columns {
        let column = &mut right[column * stride + row..][..order];
        for index in 0..order {
            let factor = column[index];
            for below in index + 1..order {
                column[below] -= triangle[below][index] * factor;
            }
        }
    }
}

/// Solves for eight columns at once, each in its lane.
#[inline(always)]
fn solve_eight<L: Lanes>(triangle: &[[f64; NARROW]; NARROW], right: &mut [f64], stride: usize) {
    let mut rows = [L::splat(0.0); NARROW];
    for (group, rows) in rows.chunks_exact_mut(LANES).enumerate() {
        let columns: [L; LANES] = std::array::from_fn(|column| load(&right[column * stride + group * LANES..]));
        rows.copy_from_slice(&L::transpose(columns));
    }
    for index in 1..NARROW {
        let mut left = rows[index];
        for before in 0..index {
            left = left.sub(rows[before].mul(L::splat(triangle[index][before])));
        }
        rows[index] = left;
    }
    for (group, rows) in rows.as_chunks::<LANES>().0.iter().enumerate() {
        for (column, vector) in L::transpose(*rows).into_iter().enumerate() {
            if let Some(place) = right[column * stride + group * LANES..].first_chunk_mut::<LANES>() {
                vector.store(place);
            }
        }
    }
}

#[inline(always)]
fn load<L: Lanes>(from: &[f64]) -> L {
    from.first_chunk::<LANES>().map_or(L::splat(0.0), L::load)
}
