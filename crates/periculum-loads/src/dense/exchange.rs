//! Rows of many columns exchanged as the pivots of a panel say.

use super::matrix::{Columns, Row, WIDTH};
use crate::kernel::{Kernel, for_each_kernel, prefetch};
use crate::lanes::{LANES, Lanes, Line, fence};

/// So many rows before its turn one is asked for.
const AHEAD: usize = 8;

/// A run of exchanges, one after the other, taken together: where each row comes from in the end, so that no exchange has
/// to wait for the one before it.
pub(super) struct Exchange {
    first: usize,
    /// Which row each row from the first one comes from.
    sources: Vec<usize>,
    /// Rows further down that get another one, and which: always one of the upper rows.
    displaced: Vec<(usize, usize)>,
    /// Which row stands at each row when all of them are done.
    order: Vec<usize>,
    /// The upper rows of a panel on their way.
    kept: Vec<Row>,
}

impl Exchange {
    /// Room for matrices of so many rows.
    pub(super) fn new(rows: usize) -> Self {
        Self {
            first: 0,
            sources: Vec::with_capacity(rows),
            displaced: Vec::with_capacity(rows),
            order: vec![0; rows],
            kept: vec![[0.0; WIDTH]; rows],
        }
    }

    /// Bytes of room for matrices of so many rows.
    pub(super) fn bytes(rows: u64) -> u64 {
        rows * (4 * size_of::<usize>() + size_of::<Row>()) as u64
    }

    /// Takes exchanges of the rows from the first one with their pivots, in this order.
    pub(super) fn take(&mut self, first: usize, pivots: &[usize]) {
        let Self { sources, displaced, order, .. } = self;
        self.first = first;
        order.iter_mut().enumerate().for_each(|(row, source)| *source = row);
        for (index, pivot) in pivots.iter().enumerate() {
            order.swap(first + index, *pivot);
        }
        let end = first + pivots.len();
        sources.clear();
        sources.extend_from_slice(&order[first..end]);
        displaced.clear();
        let lower = pivots.iter().copied().filter(|pivot| *pivot >= end && order[*pivot] != *pivot);
        displaced.extend(lower.map(|pivot| (pivot, order[pivot])));
        // A row may be a pivot more than once.
        displaced.sort_unstable();
        displaced.dedup();
    }

    /// Exchanges the rows of a matrix.
    pub(super) fn apply(&mut self, matrix: &mut Columns) {
        let Self { first, sources, displaced, kept, .. } = self;
        let upper = *first..*first + sources.len();
        for panel in matrix.panels() {
            for (nth, (kept, source)) in kept.iter_mut().zip(sources.iter()).enumerate() {
                ask_for(panel, sources.get(nth + AHEAD));
                *kept = panel[*source];
            }
            for (row, source) in displaced.iter() {
                panel[*row] = panel[*source];
            }
            panel[upper.clone()].copy_from_slice(&kept[..sources.len()]);
        }
    }

    /// Takes all rows of a matrix over from where they stand in an original, with these exchanges and none before them.
    pub(super) fn take_over(&self, kernel: Kernel, matrix: &mut Columns, original: &[f64]) {
        let originals = original.as_chunks().0.chunks_exact(matrix.rows);
        matrix.panels().zip(originals).for_each(|(panel, original)| copy(kernel, panel, original, &self.order));
    }
}

for_each_kernel! {
    /// Copies rows of a panel, each from where it is to come from, past the caches: it is long before the first of them is used.
    fn copy(panel: &mut [Row], original: &[Row], sources: &[usize]) = copy_in_lanes;
}

#[inline(always)]
fn copy_in_lanes<L: Lanes>(panel: &mut [Row], original: &[Row], sources: &[usize]) {
    let lines: &mut [Line] = bytemuck::cast_slice_mut(panel);
    for (nth, (lines, source)) in lines.chunks_exact_mut(WIDTH / LANES).zip(sources).enumerate() {
        ask_for(original, sources.get(nth + AHEAD));
        for (line, original) in lines.iter_mut().zip(original[*source].as_chunks().0) {
            L::load(original).stream(line);
        }
    }
    fence();
}

/// Rows are fetched before their turn: nobody could guess where they will be read.
#[inline(always)]
fn ask_for(panel: &[Row], row: Option<&usize>) {
    if let Some(row) = row {
        panel[*row].chunks(LANES).for_each(|line| prefetch(line.as_ptr()));
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::buffer::Buffer;
    use proptest::prelude::*;

    const ROWS: usize = 30;

    fn pivots() -> impl Strategy<Value = (usize, Vec<usize>)> {
        (0..ROWS, prop::collection::vec(any::<prop::sample::Index>(), 0..ROWS)).prop_map(|(first, picks)| {
            let rows = (first..ROWS).zip(picks);
            (first, rows.map(|(row, pick)| row + pick.index(ROWS - row)).collect())
        })
    }

    proptest! {
        #[test]
        fn taken_together_they_are_what_they_are_one_by_one(runs in prop::collection::vec(pivots(), 1..4)) {
            let mut exchange = Exchange::new(ROWS);
            let original: Vec<f64> = (0..2 * ROWS * WIDTH).map(|number| number as f64).collect();
            let mut data = Buffer::zeroed(original.len()).expect("memory");
            let mut expected = original.clone();
            for (run, (first, pivots)) in runs.iter().enumerate() {
                for panel in (Columns { data: &mut expected, rows: ROWS }).panels() {
                    pivots.iter().enumerate().for_each(|(index, pivot)| panel.swap(first + index, *pivot));
                }
                exchange.take(*first, pivots);
                let mut matrix = Columns { data: &mut data, rows: ROWS };
                match run {
                    0 => exchange.take_over(Kernel::best(), &mut matrix, &original),
                    _ => exchange.apply(&mut matrix),
                }
                prop_assert_eq!(&*data, &*expected);
            }
        }
    }
}
