//! The ends of the recursion: a panel factored, and as many rows solved for, without any product of blocks.
//!
//! Products are subtracted one by one with fused multiply-adds, in the order of the columns; all kernels give the same bits.

use std::ops::Range;

use super::matrix::{Columns, Part, Row, WIDTH};
use crate::kernel::for_each_kernel;
use crate::lanes::{LANES, Lanes};

/// Vectors of a row.
const PARTS: usize = WIDTH / LANES;

/// Room for as many columns as a vector is long, each in one piece: so a column is searched and subtracted in whole vectors.
pub(super) struct Upright {
    numbers: Vec<f64>,
    /// Numbers of a column: whole vectors, and those that are too much are nothing.
    height: usize,
}

impl Upright {
    /// Room for columns of so many numbers.
    pub(super) fn new(rows: usize) -> Self {
        Self { numbers: vec![0.0; (rows + 2 * LANES) * LANES], height: LANES }
    }

    /// Bytes of such room.
    pub(super) fn bytes(rows: u64) -> u64 {
        8 * LANES as u64 * (rows + 2 * LANES as u64)
    }

    /// Takes a part of the rows.
    #[inline(always)]
    fn take<L: Lanes>(&mut self, rows: &[Row], part: usize) {
        // An odd number of cache lines, so that what stands beside each other in the columns does not share its place in a cache.
        let (groups, rest) = rows.as_chunks::<LANES>();
        self.height = ((groups.len() + 1) | 1) * LANES;
        for (nth, group) in groups.iter().enumerate() {
            self.take_group::<L>(nth, std::array::from_fn(|row| load(&group[row], part)));
        }
        for (nth, missing) in (groups.len()..self.height / LANES).zip([0, LANES]) {
            let row = |row: usize| rest.get(missing + row).map_or(L::splat(0.0), |row| load(row, part));
            self.take_group::<L>(nth, std::array::from_fn(row));
        }
    }

    #[inline(always)]
    fn take_group<L: Lanes>(&mut self, nth: usize, rows: [L; LANES]) {
        let columns = self.numbers.chunks_exact_mut(self.height).zip(L::transpose(rows));
        columns.for_each(|(column, vector)| vector.store(&mut column.as_chunks_mut().0[nth]));
    }

    /// Puts the part back into its rows.
    #[inline(always)]
    fn put<L: Lanes>(&self, rows: &mut [Row], part: usize) {
        for (nth, group) in rows.chunks_mut(LANES).enumerate() {
            let vectors = std::array::from_fn(|column| L::load(&self.column(column).as_chunks().0[nth]));
            for (row, vector) in group.iter_mut().zip(L::transpose(vectors)) {
                vector.store(part_of(row, part));
            }
        }
    }

    #[inline(always)]
    fn column(&self, column: usize) -> &[f64] {
        &self.numbers[column * self.height..][..self.height]
    }

    /// The columns before this one, and this one.
    #[inline(always)]
    fn split(&mut self, column: usize) -> (std::slice::ChunksExact<'_, f64>, &mut [f64]) {
        let (before, from) = self.numbers.split_at_mut(column * self.height);
        (before.chunks_exact(self.height), &mut from[..self.height])
    }

    #[inline(always)]
    fn swap(&mut self, row: usize, other: usize) {
        self.numbers.chunks_exact_mut(self.height).take(LANES).for_each(|column| column.swap(row, other));
    }
}

for_each_kernel! {
    /// Factors the first columns of a panel from this row down; `pivots` gets, for each of them, the row that was swapped in.
    pub(super) fn factor_narrow(panel: &mut [Row], upright: &mut Upright, row: usize, pivots: &mut [usize]) = factor_in_lanes;
}

/// As many columns as a vector is long become factors one after the other, then the columns behind them are brought up to date at once.
#[inline(always)]
fn factor_in_lanes<L: Lanes>(panel: &mut [Row], upright: &mut Upright, row: usize, pivots: &mut [usize]) {
    for (part, pivots) in pivots.chunks_mut(LANES).enumerate() {
        let first = row + part * LANES;
        let rows = &mut panel[first..];
        upright.take::<L>(rows, part);
        for (column, pivot) in pivots.iter_mut().enumerate() {
            let magnitude = match column {
                0 => subtract::<L, 0>(upright),
                1 => subtract::<L, 1>(upright),
                2 => subtract::<L, 2>(upright),
                3 => subtract::<L, 3>(upright),
                4 => subtract::<L, 4>(upright),
                5 => subtract::<L, 5>(upright),
                6 => subtract::<L, 6>(upright),
                _ => subtract::<L, 7>(upright),
            };
            let found = place_of(magnitude, upright.column(column), column..rows.len());
            upright.swap(column, found);
            rows.swap(column, found);
            *pivot = first + found;
            divide::<L>(upright.split(column).1, column);
        }
        upright.put::<L>(rows, part);
        if let Some((upper, below)) = rows.split_first_chunk_mut::<LANES>() {
            match part {
                0 => bring_up_to_date::<L, 2>(upper, below, part),
                1 => bring_up_to_date::<L, 1>(upper, below, part),
                _ => {}
            }
        }
    }
}

/// Takes the columns before this one, which are factors, out of it; tells the largest magnitude in it then, from the diagonal down.
#[inline(always)]
fn subtract<L: Lanes, const COLUMN: usize>(upright: &mut Upright) -> f64 {
    let (mut before, column) = upright.split(COLUMN);
    let before: [&[[f64; LANES]]; COLUMN] = std::array::from_fn(|_| before.next().unwrap_or(&[]).as_chunks().0);
    let Some((upper, below)) = column.as_chunks_mut::<LANES>().0.split_first_mut() else { return 0.0 };
    for row in 1..LANES {
        for known in 0..row.min(COLUMN) {
            upper[row] = (-before[known][0][row]).mul_add(upper[known], upper[row]);
        }
    }
    let negative: [L; COLUMN] = std::array::from_fn(|column| L::splat(-upper[column]));
    let mut largest = L::splat(0.0);
    for (nth, vector) in below.iter_mut().enumerate() {
        let mut left = L::load(vector);
        for (before, negative) in before.iter().zip(negative) {
            left = negative.mul_add(L::load(&before[nth + 1]), left);
        }
        left.store(vector);
        largest = left.larger_magnitude(largest);
    }
    let of_upper = upper[COLUMN..].iter().map(|number| number.abs());
    stored(largest).into_iter().chain(of_upper).fold(0.0, f64::max)
}

/// The first of the rows from the diagonal down that has this magnitude; the diagonal where none has, since nothing is equal to what is
/// not a number, and any pivot is as bad as another then.
#[inline(always)]
fn place_of(magnitude: f64, column: &[f64], rows: Range<usize>) -> usize {
    let is_it = |number: &f64| number.abs() == magnitude;
    if let Some(place) = (rows.start..LANES.min(rows.end)).find(|row| is_it(&column[*row])) {
        return place;
    }
    let vectors = column.as_chunks::<LANES>().0;
    // All of a vector are compared at once, which looking for the first of them would not be.
    let has_it = |vector: &[f64; LANES]| vector.iter().fold(false, |found, number| found | is_it(number));
    let place = (1..vectors.len()).find(|nth| has_it(&vectors[*nth]));
    let place = place.and_then(|nth| Some(nth * LANES + vectors[nth].iter().position(is_it)?));
    // What is below the rows is nothing, or no number either.
    place.filter(|place| *place < rows.end).unwrap_or(rows.start)
}

/// Makes factors of what stands below the diagonal of a column.
#[inline(always)]
fn divide<L: Lanes>(column: &mut [f64], diagonal: usize) {
    let reciprocal = 1.0 / column[diagonal];
    let Some((upper, below)) = column.as_chunks_mut::<LANES>().0.split_first_mut() else { return };
    upper[diagonal + 1..].iter_mut().for_each(|number| *number *= reciprocal);
    let reciprocal = L::splat(reciprocal);
    below.iter_mut().for_each(|vector| L::load(vector).mul(reciprocal).store(vector));
}
/// Takes the factors of a part out of the parts after it: out of the rows that they were made with, and then out of all below.
#[inline(always)]
fn bring_up_to_date<L: Lanes, const LATER: usize>(upper: &mut [Row; LANES], below: &mut [Row], part: usize) {
    let mut negative = [[L::splat(0.0); LATER]; LANES];
    for index in 0..LANES {
        let known = add_to_row(&mut upper[index], &negative[..index], part);
        negative[index] = known.map(|known| known.mul(L::splat(-1.0)));
    }
    for row in below {
        add_to_row(row, &negative, part);
    }
}

/// Adds other rows, as often as the factors in a part of a row say, to the parts after it; tells what these are then.
#[inline(always)]
fn add_to_row<L: Lanes, const LATER: usize>(row: &mut Row, others: &[[L; LATER]], part: usize) -> [L; LATER] {
    let mut sums: [L; LATER] = std::array::from_fn(|later| load(row, part + 1 + later));
    for (other, factor) in others.iter().zip(&row[part * LANES..]) {
        let factor = L::splat(*factor);
        sums.iter_mut().zip(other).for_each(|(sum, other)| *sum = other.mul_add(factor, *sum));
    }
    sums.iter().enumerate().for_each(|(later, sum)| sum.store(part_of(row, part + 1 + later)));
    sums
}

for_each_kernel! {
    /// Solves `L·X = B` in place, with L the unit lower triangle at the part's row, and B as many rows of a matrix from `row`.
    pub(super) fn solve_narrow(lower: Part, right: &mut Columns, row: usize) = solve_in_lanes;
}

/// As many rows as a vector is long are held in registers: those above are taken out of them, and then each out of those below it.
#[inline(always)]
fn solve_in_lanes<L: Lanes>(lower: Part, right: &mut Columns, row: usize) {
    let (triangle, _) = lower.numbers()[..WIDTH * WIDTH].as_chunks::<WIDTH>();
    for panel in right.panels() {
        let rows = &mut panel[row..][..WIDTH];
        for first in (0..WIDTH).step_by(LANES) {
            let (known, group) = rows.split_at_mut(first);
            let mut left: [[L; PARTS]; LANES] = std::array::from_fn(|row| vectors(&group[row]));
            for (column, known) in known.iter().enumerate() {
                take_out(&vectors(known), &mut left, &triangle[first..], column);
            }
            for above in 0..LANES {
                let (known, below) = left.split_at_mut(above + 1);
                take_out(&known[above], below, &triangle[first + above + 1..], first + above);
            }
            for (row, left) in group.iter_mut().zip(&left) {
                left.iter().enumerate().for_each(|(part, left)| left.store(part_of(row, part)));
            }
        }
    }
}

/// Takes a row out of others, each as often as this column of its factors says.
#[inline(always)]
fn take_out<L: Lanes>(known: &[L; PARTS], others: &mut [[L; PARTS]], factors: &[Row], column: usize) {
    for (other, factors) in others.iter_mut().zip(factors) {
        let factor = L::splat(factors[column]);
        other.iter_mut().zip(known).for_each(|(other, known)| *other = known.neg_mul_add(factor, *other));
    }
}

#[inline(always)]
fn vectors<L: Lanes>(row: &Row) -> [L; PARTS] {
    std::array::from_fn(|part| load(row, part))
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
