//! The ends of the recursion: a few columns factored, and a few rows solved for, without any product of blocks.
//!
//! Products are subtracted one by one with fused multiply-adds, in the order of the columns; all kernels give the same bits.

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
                *element = (-lower).mul_add(factor, *element);
            }
        }
        let largest = subtract_columns::<L>(&mut column[diagonal..], done, (stride, diagonal), &factors[..index]);
        let pivot = diagonal + place_of::<L>(largest, &column[diagonal..]);
        pivots[index] = pivot;
        for column in 0..columns {
            matrix.swap(column * stride + diagonal, column * stride + pivot);
        }
        let column = &mut matrix[index * stride..][..rows];
        let reciprocal = 1.0 / column[diagonal];
        scale::<L>(&mut column[diagonal + 1..], reciprocal);
    }
}

/// So many vectors of a column are worked on at once: one alone would wait for each of its multiply-adds.
const AT_ONCE: usize = 4;

/// Subtracts earlier columns, from this row down, times their factors; tells the largest magnitude that is left.
#[inline(always)]
fn subtract_columns<L: Lanes>(column: &mut [f64], done: &[f64], (stride, row): (usize, usize), factors: &[f64]) -> f64 {
    let mut largest = [L::splat(0.0); AT_ONCE];
    let (vectors, rest) = column.as_chunks_mut::<LANES>();
    let whole = vectors.len() * LANES;
    let (groups, singles) = vectors.as_chunks_mut::<AT_ONCE>();
    let grouped = groups.len() * AT_ONCE * LANES;
    for (group, vectors) in groups.iter_mut().enumerate() {
        let lower = done.get(row + group * AT_ONCE * LANES..).unwrap_or_default();
        subtract_from::<L, AT_ONCE>(vectors, (lower, stride), factors, &mut largest);
    }
    let [largest_single, ..] = &mut largest;
    for (single, vector) in singles.iter_mut().enumerate() {
        let lower = done.get(row + grouped + single * LANES..).unwrap_or_default();
        subtract_from::<L, 1>(
            std::array::from_mut(vector),
            (lower, stride),
            factors,
            std::array::from_mut(largest_single),
        );
    }
    for (index, element) in rest.iter_mut().enumerate() {
        for (before, factor) in factors.iter().enumerate() {
            *element = (-done[before * stride + row + whole + index]).mul_add(*factor, *element);
        }
    }
    let [first, second, third, fourth] = largest;
    let mut lanes = [0.0; LANES];
    first.max(second).max(third.max(fourth)).store(&mut lanes);
    lanes.iter().chain(rest.iter()).fold(0.0, |largest: f64, element| largest.max(element.abs()))
}

/// The same for some vectors of the column; `lower` starts at their rows of the first of the earlier columns.
#[inline(always)]
fn subtract_from<L: Lanes, const COUNT: usize>(
    vectors: &mut [[f64; LANES]; COUNT],
    (lower, stride): (&[f64], usize),
    factors: &[f64],
    largest: &mut [L; COUNT],
) {
    let mut left: [L; COUNT] = std::array::from_fn(|index| L::load(&vectors[index]));
    for (before, factor) in factors.iter().enumerate() {
        let Some(lower) = lower[before * stride..].as_chunks::<LANES>().0.first_chunk::<COUNT>() else { break };
        let factor = L::splat(*factor);
        for (left, lower) in left.iter_mut().zip(lower) {
            *left = L::load(lower).neg_mul_add(factor, *left);
        }
    }
    for ((left, vector), largest) in left.iter().zip(vectors).zip(largest) {
        left.store(vector);
        *largest = left.abs().max(*largest);
    }
}

/// The first place of this magnitude; the first of all where there is none, since nothing is equal to what is not a
/// number, and any pivot is as bad as another then.
#[inline(always)]
fn place_of<L: Lanes>(magnitude: f64, column: &[f64]) -> usize {
    const RUN: usize = 8;
    let holds = |run: &[[f64; LANES]; RUN]| {
        let largest = run.iter().fold(L::splat(0.0), |largest, vector| L::load(vector).abs().max(largest));
        let mut lanes = [0.0; LANES];
        largest.store(&mut lanes);
        lanes.contains(&magnitude)
    };
    let runs = column.as_chunks::<LANES>().0.as_chunks::<RUN>().0;
    let skipped = runs.iter().position(holds).unwrap_or(runs.len()) * RUN * LANES;
    let within = column[skipped..].iter().position(|element| element.abs() == magnitude);
    within.map_or(0, |within| skipped + within)
}

#[inline(always)]
fn scale<L: Lanes>(column: &mut [f64], factor: f64) {
    let (vectors, rest) = column.as_chunks_mut::<LANES>();
    for vector in vectors {
        L::load(vector).mul(L::splat(factor)).store(vector);
    }
    rest.iter_mut().for_each(|element| *element *= factor);
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
                column[below] = (-triangle[below][index]).mul_add(factor, column[below]);
            }
        }
    }
}

/// Solves for eight columns at once, each in its lane: eight rows after the other, of which each is subtracted from all
/// below it as soon as it is known.
#[inline(always)]
fn solve_eight<L: Lanes>(triangle: &[[f64; NARROW]; NARROW], right: &mut [f64], stride: usize) {
    let mut rows = [[L::splat(0.0); LANES]; NARROW / LANES];
    for (group, rows) in rows.iter_mut().enumerate() {
        *rows = L::transpose(std::array::from_fn(|column| load(&right[column * stride + group * LANES..])));
    }
    for group in 0..rows.len() {
        let mut known = rows[group];
        for index in 0..LANES {
            for below in index + 1..LANES {
                let factor = L::splat(triangle[group * LANES + below][group * LANES + index]);
                known[below] = known[index].neg_mul_add(factor, known[below]);
            }
        }
        rows[group] = known;
        for (later, left) in rows.iter_mut().enumerate().skip(group + 1) {
            for (index, known) in known.iter().enumerate() {
                for (below, left) in left.iter_mut().enumerate() {
                    let factor = L::splat(triangle[later * LANES + below][group * LANES + index]);
                    *left = known.neg_mul_add(factor, *left);
                }
            }
        }
    }
    for (group, rows) in rows.iter().enumerate() {
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
