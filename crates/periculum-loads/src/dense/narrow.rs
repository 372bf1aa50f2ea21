//! The ends of the recursion: a panel factored, and as many rows solved for, without any product of blocks.
//!
//! Products are subtracted one by one with fused multiply-adds, in the order of the columns; all kernels give the same bits.

use super::matrix::{Columns, Part, Row, WIDTH};
use crate::kernel::for_each_kernel;
use crate::lanes::{LANES, Lanes};

/// Vectors of a row.
const PARTS: usize = WIDTH / LANES;

for_each_kernel! {
    /// Factors the first columns of a panel from this row down; `pivots` gets, for each of them, the row that was swapped in.
    pub(super) fn factor_narrow(panel: &mut [Row], row: usize, pivots: &mut [usize]) = factor_in_lanes;
}

/// As many columns as a vector is long become factors one after the other, then the columns behind them are brought up to date at once.
#[inline(always)]
fn factor_in_lanes<L: Lanes>(panel: &mut [Row], row: usize, pivots: &mut [usize]) {
    for first in (0..pivots.len()).step_by(LANES) {
        let part = first / LANES;
        let mut magnitudes = magnitudes::<L>(&panel[row + first..], part);
        let end = pivots.len().min(first + LANES);
        for index in first..end {
            let diagonal = row + index;
            let pivot = diagonal + place_of(magnitudes[index - first], &panel[diagonal..], index);
            pivots[index] = pivot;
            panel.swap(diagonal, pivot);
            magnitudes = eliminate::<L>(&mut panel[diagonal..], (part, index - first));
        }
        if let Some((upper, below)) = panel[row + first..].split_first_chunk_mut::<LANES>() {
            (part + 1..PARTS).for_each(|later| bring_up_to_date::<L>(upper, below, part, later));
        }
    }
}

/// The largest magnitude in each column of a part of the rows.
#[inline(always)]
fn magnitudes<L: Lanes>(rows: &[Row], part: usize) -> [f64; LANES] {
    let largest = rows.iter().fold(L::splat(0.0), |largest, row| load::<L>(row, part).abs().max(largest));
    stored(largest)
}

/// The first row that has this magnitude in a column; the first of all where none has, since nothing is equal to what is not a
/// number, and any pivot is as bad as another then.
#[inline(always)]
fn place_of(magnitude: f64, rows: &[Row], column: usize) -> usize {
    rows.iter().position(|row| row[column].abs() == magnitude).unwrap_or(0)
}

/// Makes factors of the column of this lane in a part of the rows below the first one, and takes what they stand for out of the lanes
/// behind it; tells the largest magnitude of each lane then.
#[inline(always)]
fn eliminate<L: Lanes>(rows: &mut [Row], (part, lane): (usize, usize)) -> [f64; LANES] {
    let column = part * LANES + lane;
    let Some((pivot, below)) = rows.split_first_mut() else { return [0.0; LANES] };
    let reciprocal = 1.0 / pivot[column];
    let mut behind = stored(load::<L>(pivot, part));
    behind[..=lane].fill(0.0);
    let behind = L::load(&behind);
    let mut largest = L::splat(0.0);
    for row in below {
        let factor = row[column] * reciprocal;
        let left = behind.neg_mul_add(L::splat(factor), load(row, part));
        left.store(part_of(row, part));
        row[column] = factor;
        largest = left.abs().max(largest);
    }
    stored(largest)
}

/// Takes the factors of a part out of a later part: out of the rows that they were made with, and then out of all below.
#[inline(always)]
fn bring_up_to_date<L: Lanes>(upper: &mut [Row; LANES], below: &mut [Row], part: usize, later: usize) {
    let mut known = [L::splat(0.0); LANES];
    for index in 0..LANES {
        let row = &mut upper[index];
        let left = subtracted::<L>(row, &known[..index], part, later);
        left.store(part_of(row, later));
        known[index] = left;
    }
    for row in below {
        subtracted::<L>(row, &known, part, later).store(part_of(row, later));
    }
}

/// What is left of a later part of a row.
#[inline(always)]
fn subtracted<L: Lanes>(row: &Row, known: &[L], part: usize, later: usize) -> L {
    let factors = &row[part * LANES..][..LANES];
    known.iter().zip(factors).fold(load(row, later), |left, (known, factor)| known.neg_mul_add(L::splat(*factor), left))
}

for_each_kernel! {
    /// Solves `L·X = B` in place, with L the unit lower triangle at the part's row, and B as many rows of a matrix from `row`.
    pub(super) fn solve_narrow(lower: Part, right: &mut Columns, row: usize) = solve_in_lanes;
}

/// Each row is taken out of all below it as soon as it is known.
#[inline(always)]
fn solve_in_lanes<L: Lanes>(lower: Part, right: &mut Columns, row: usize) {
    let triangle = lower.rows(0, 0, WIDTH).as_chunks::<WIDTH>().0;
    for panel in right.panels() {
        let rows = &mut panel[row..][..WIDTH];
        for index in 0..WIDTH {
            let (known, below) = rows.split_at_mut(index + 1);
            let known: [L; PARTS] = std::array::from_fn(|part| load(&known[index], part));
            for (row, factors) in below.iter_mut().zip(&triangle[index + 1..]) {
                let factor = L::splat(factors[index]);
                for (part, known) in known.iter().enumerate() {
                    known.neg_mul_add(factor, load(row, part)).store(part_of(row, part));
                }
            }
        }
    }
}

#[inline(always)]
fn load<L: Lanes>(row: &Row, part: usize) -> L {
    L::load(&row.as_chunks().0[part])
}

#[inline(always)]
fn part_of(row: &mut Row, part: usize) -> &mut [f64; LANES] {
    &mut row.as_chunks_mut().0[part]
}

#[inline(always)]
fn stored<L: Lanes>(vector: L) -> [f64; LANES] {
    let mut lanes = [0.0; LANES];
    vector.store(&mut lanes);
    lanes
}
