//! Right-angle convolutions: columns, rows and back, in three passes over memory (Bailey, FFTs in external or
//! hierarchical memory, 1990).
//!
//! The transform's points stand in rows and columns. Eight columns at a time are transformed beside each other; then
//! eight rows, which are also multiplied and transformed back while they are at hand; then the columns back.

use std::io;

use super::butterfly::Plan;
use super::complex::{Block, Complex, Eight};
use crate::buffer::Buffer;
use crate::digest::{IS_CHECKED, Stream, digest};
use crate::kernel::{Kernel, for_each_kernel, prefetch};
use crate::lanes::{LANES, Lanes};

/// How many frequencies of a column share one of the two factors that each of their twiddles is made of.
const FINE: usize = 32;

/// What convolutions of one length need, but for their points.
pub(crate) struct Grid {
    kernel: Kernel,
    rows: usize,
    columns: usize,
    by_column: Plan,
    by_row: Plan,
    /// `exp(iπr/2R)` for each row: what turns a cyclic convolution into the right-angle one.
    turns: Vec<Complex>,
    /// Twiddles of eight columns at a time: `FINE` fine ones and then the coarse ones.
    twiddles: Buffer<Block>,
    /// Eight columns or rows side by side, and room for as many rows of the other factor.
    work: Buffer<Block>,
}

/// The rows and columns that a convolution's points stand in.
fn shape(length: usize) -> (usize, usize) {
    let columns = 1 << length.ilog2().div_ceil(2).min(length.trailing_zeros());
    (length / columns, columns)
}

impl Grid {
    /// For this many points, from 256 up: a power of two, or three of them.
    ///
    /// # Errors
    /// When the system has not so much memory.
    pub(crate) fn new(kernel: Kernel, length: usize) -> io::Result<Self> {
        assert!(length >= 256, "no convolution of {length} points");
        let (rows, columns) = shape(length);
        let (by_column, by_row) = (Plan::new(rows), Plan::new(columns));
        let twiddles = Buffer::<Block>::zeroed(columns / LANES * (FINE + rows.div_ceil(FINE)))?;
        let work = Buffer::zeroed(rows.max(2 * columns))?;
        let mut grid = Self { kernel, rows, columns, by_column, by_row, turns: Vec::new(), twiddles, work };
        grid.fill_tables();
        Ok(grid)
    }

    /// Makes every table anew, as for somebody who no longer trusts them.
    pub(crate) fn renew(&mut self) {
        (self.by_column, self.by_row) = (Plan::new(self.rows), Plan::new(self.columns));
        self.fill_tables();
    }

    /// A digest of the tables.
    pub(crate) fn digest(&self) -> u64 {
        let turns = digest(self.kernel, bytemuck::cast_slice(&self.turns), 0);
        digest(self.kernel, bytemuck::cast_slice(&self.twiddles[..]), turns)
    }

    fn fill_tables(&mut self) {
        let (rows, columns) = (self.rows, self.columns);
        self.turns = (0..rows).map(|row| Complex::root(row as i64, 4 * rows as i64)).collect();
        let coarse = rows.div_ceil(FINE);
        // exp(−2πi·c·(k − ¼)/n) for frequency k of column c, the quarter from the right angle.
        let root =
            |column: usize, quarters: i64| Complex::root(-(column as i64) * quarters, 4 * (rows * columns) as i64);
        for (group, twiddles) in self.twiddles.chunks_exact_mut(FINE + coarse).enumerate() {
            let (fine, coarse) = twiddles.split_at_mut(FINE);
            for (lane, column) in (group * LANES..).take(LANES).enumerate() {
                for (step, block) in fine.iter_mut().enumerate() {
                    let root = root(column, 4 * step as i64 - 1);
                    (block.re[lane], block.im[lane]) = (root.re, root.im);
                }
                for (step, block) in coarse.iter_mut().enumerate() {
                    let root = root(column, (4 * FINE * step) as i64);
                    (block.re[lane], block.im[lane]) = (root.re, root.im);
                }
            }
        }
    }

    /// Memory for convolutions of this many points, bytes; the points themselves not counted.
    pub(crate) fn bytes(length: u64) -> u64 {
        let (rows, columns) = shape(length as usize);
        let blocks = columns / LANES * (FINE + rows.div_ceil(FINE)) + rows.max(2 * columns);
        let plans = Plan::bytes(rows) + Plan::bytes(columns);
        (size_of::<Block>() * blocks + plans + size_of::<Complex>() * rows) as u64
    }

    /// How many blocks the points of one factor take. A row is a block longer than its points, so that columns do not
    /// fall into the same sets of a cache.
    pub(crate) fn blocks(length: usize) -> usize {
        let (rows, columns) = shape(length);
        rows * (columns / LANES + 1)
    }

    /// The points in rows of blocks: real parts are the lower half of a product's digits, imaginary ones the upper.
    pub(crate) fn rows<'a>(&self, points: &'a [Block]) -> impl ExactSizeIterator<Item = &'a [Block]> {
        let groups = self.columns / LANES;
        points.chunks_exact(self.row_length()).map(move |row| &row[..groups])
    }

    /// How many blocks lie from one row to the next.
    pub(crate) fn row_length(&self) -> usize {
        self.columns / LANES + 1
    }

    /// How many rows there are.
    pub(crate) fn row_count(&self) -> usize {
        self.rows
    }

    /// Weights the digits, as many as there are points, and transforms all columns; `upper` are digits beyond those.
    pub(crate) fn forward(&mut self, digits: &[f64], upper: Option<&[f64]>, points: &mut [Block]) {
        columns_forward(self.kernel, self, digits, upper, points);
    }

    /// The same without digits beyond; digests the digits as they are read.
    pub(crate) fn forward_digested(&mut self, digits: &[f64], points: &mut [Block]) -> u64 {
        columns_forward_digested(self.kernel, self, digits, points)
    }

    /// Transforms rows, squares them and transforms them back.
    pub(crate) fn square(&mut self, points: &mut [Block]) {
        rows_squared(self.kernel, self, points);
    }

    /// Transforms the rows of both, multiplies them and transforms the product back in the place of the first.
    pub(crate) fn multiply(&mut self, points: &mut [Block], factor: &[Block]) {
        rows_multiplied(self.kernel, self, points, factor);
    }

    /// Transforms all columns back and rounds what comes out to whole numbers; tells the largest rounding error.
    pub(crate) fn back(&mut self, points: &mut [Block]) -> f64 {
        columns_back(self.kernel, self, points)
    }
}

for_each_kernel! {
    fn columns_forward(grid: &mut Grid, digits: &[f64], upper: Option<&[f64]>, points: &mut [Block]) = columns_forward_in_lanes;
}

#[inline(always)]
fn columns_forward_in_lanes<L: Lanes>(grid: &mut Grid, digits: &[f64], upper: Option<&[f64]>, points: &mut [Block]) {
    each_column_forward::<L, false>(grid, digits, upper, points);
}

for_each_kernel! {
    fn columns_forward_digested(grid: &mut Grid, digits: &[f64], points: &mut [Block]) -> u64 = columns_forward_digested_in_lanes;
}

#[inline(always)]
fn columns_forward_digested_in_lanes<L: Lanes>(grid: &mut Grid, digits: &[f64], points: &mut [Block]) -> u64 {
    each_column_forward::<L, IS_CHECKED>(grid, digits, None, points)
}

#[inline(always)]
fn each_column_forward<L: Lanes, const IS_DIGESTED: bool>(
    grid: &mut Grid,
    digits: &[f64],
    upper: Option<&[f64]>,
    points: &mut [Block],
) -> u64 {
    let (row_length, coarse) = (grid.row_length(), grid.rows.div_ceil(FINE));
    let mut stream = Stream::<L>::new(0);
    let Grid { rows, columns, by_column, turns, twiddles, work, .. } = grid;
    for (group, twiddles) in twiddles.chunks_exact(FINE + coarse).enumerate() {
        for (row, (block, turn)) in work[..*rows].iter_mut().zip(turns.iter()).enumerate() {
            let first = row * *columns + group * LANES;
            let turn = Eight::<L>::splat(turn);
            let digits = eight(&digits[first..]);
            if IS_DIGESTED {
                stream.take(digits);
            }
            let weighted = match upper {
                None => turn.scaled(digits),
                Some(upper) => Eight { re: digits, im: eight(&upper[first..]) }.times(turn),
            };
            weighted.store(block);
        }
        by_column.forward::<L>(work);
        let rows = points.chunks_exact_mut(row_length);
        for ((block, frequency), row) in work.iter().zip(by_column.frequencies()).zip(rows) {
            let point = Eight::<L>::load(block);
            point.times(twiddle(twiddles, *frequency as usize)).store(&mut row[group]);
        }
    }
    stream.joined(0)
}

/// The first eight of these digits; the next eight are on their way to the cache.
#[inline(always)]
fn eight<L: Lanes>(digits: &[f64]) -> L {
    prefetch(digits.as_ptr().wrapping_add(LANES));
    digits.first_chunk().map_or_else(|| L::splat(0.0), |digits| L::load(digits))
}

/// The twiddle of this frequency.
#[inline(always)]
fn twiddle<L: Lanes>(twiddles: &[Block], frequency: usize) -> Eight<L> {
    let fine = Eight::<L>::load(&twiddles[frequency % FINE]);
    fine.times(Eight::load(&twiddles[FINE + frequency / FINE]))
}

for_each_kernel! {
    fn rows_squared(grid: &mut Grid, points: &mut [Block]) = rows_squared_in_lanes;
}

#[inline(always)]
fn rows_squared_in_lanes<L: Lanes>(grid: &mut Grid, points: &mut [Block]) {
    let row_length = grid.row_length();
    let Grid { columns, by_row, work, .. } = grid;
    let work = &mut work[..*columns];
    for eight_rows in points.chunks_exact_mut(LANES * row_length) {
        take_rows::<L>(eight_rows, row_length, work);
        by_row.forward::<L>(work);
        for block in &mut *work {
            Eight::<L>::load(block).squared().store(block);
        }
        by_row.inverse::<L>(work);
        put_rows::<L>(work, eight_rows, row_length);
    }
}

for_each_kernel! {
    fn rows_multiplied(grid: &mut Grid, points: &mut [Block], factor: &[Block]) = rows_multiplied_in_lanes;
}

#[inline(always)]
fn rows_multiplied_in_lanes<L: Lanes>(grid: &mut Grid, points: &mut [Block], factor: &[Block]) {
    let row_length = grid.row_length();
    let Grid { columns, by_row, work, .. } = grid;
    let (work, other) = work[..2 * *columns].split_at_mut(*columns);
    let factor = factor.chunks_exact(LANES * row_length);
    for (eight_rows, other_rows) in points.chunks_exact_mut(LANES * row_length).zip(factor) {
        take_rows::<L>(eight_rows, row_length, work);
        take_rows::<L>(other_rows, row_length, other);
        by_row.forward::<L>(work);
        by_row.forward::<L>(other);
        for (block, other) in work.iter_mut().zip(&*other) {
            Eight::<L>::load(block).times(Eight::load(other)).store(block);
        }
        by_row.inverse::<L>(work);
        put_rows::<L>(work, eight_rows, row_length);
    }
}

/// Takes eight rows of points side by side.
#[inline(always)]
fn take_rows<L: Lanes>(eight_rows: &[Block], row_length: usize, work: &mut [Block]) {
    let nothing = Eight { re: L::splat(0.0), im: L::splat(0.0) };
    for (group, blocks) in work.chunks_exact_mut(LANES).enumerate() {
        let mut rows = [nothing; LANES];
        for (row, values) in rows.iter_mut().enumerate() {
            *values = Eight::load(&eight_rows[row * row_length + group]);
        }
        for (column, block) in turned(rows).into_iter().zip(blocks) {
            column.store(block);
        }
    }
}

/// Puts what is side by side back into eight rows.
#[inline(always)]
fn put_rows<L: Lanes>(work: &[Block], eight_rows: &mut [Block], row_length: usize) {
    let nothing = Eight { re: L::splat(0.0), im: L::splat(0.0) };
    for (group, blocks) in work.chunks_exact(LANES).enumerate() {
        let mut columns = [nothing; LANES];
        for (values, block) in columns.iter_mut().zip(blocks) {
            *values = Eight::load(block);
        }
        for (row, values) in turned(columns).into_iter().enumerate() {
            values.store(&mut eight_rows[row * row_length + group]);
        }
    }
}

/// Rows as columns.
#[inline(always)]
fn turned<L: Lanes>(rows: [Eight<L>; LANES]) -> [Eight<L>; LANES] {
    let (mut re, mut im) = ([L::splat(0.0); LANES], [L::splat(0.0); LANES]);
    for (row, values) in rows.iter().enumerate() {
        (re[row], im[row]) = (values.re, values.im);
    }
    let (re, im) = (L::transpose(re), L::transpose(im));
    let mut columns = rows;
    for (column, values) in columns.iter_mut().enumerate() {
        *values = Eight { re: re[column], im: im[column] };
    }
    columns
}

for_each_kernel! {
    fn columns_back(grid: &mut Grid, points: &mut [Block]) -> f64 = columns_back_in_lanes;
}

#[inline(always)]
fn columns_back_in_lanes<L: Lanes>(grid: &mut Grid, points: &mut [Block]) -> f64 {
    let (row_length, coarse) = (grid.row_length(), grid.rows.div_ceil(FINE));
    let scale = L::splat(1.0 / (grid.rows * grid.columns) as f64);
    let Grid { rows, by_column, turns, twiddles, work, .. } = grid;
    let work = &mut work[..*rows];
    let mut worst = L::splat(0.0);
    for (group, twiddles) in twiddles.chunks_exact(FINE + coarse).enumerate() {
        let rows = points.chunks_exact(row_length);
        for ((block, frequency), row) in work.iter_mut().zip(by_column.frequencies()).zip(rows) {
            prefetch((&raw const row[group]).wrapping_add(1));
            let point = Eight::<L>::load(&row[group]);
            point.over(twiddle(twiddles, *frequency as usize)).store(block);
        }
        by_column.inverse::<L>(work);
        let rows = points.chunks_exact_mut(row_length);
        for ((block, turn), row) in work.iter().zip(turns.iter()).zip(rows) {
            let exact = Eight::<L>::load(block).scaled(scale).over(Eight::splat(turn));
            let whole = Eight { re: exact.re.round(), im: exact.im.round() };
            if IS_CHECKED {
                let off = exact.minus(whole);
                worst = off.im.larger_magnitude(off.re.larger_magnitude(worst));
            }
            whole.store(&mut row[group]);
        }
    }
    let mut errors = [0.0; LANES];
    worst.store(&mut errors);
    errors.into_iter().fold(0.0, f64::max)
}
