//! Rows of many columns exchanged as the pivots of a panel say.

use super::matrix::{Columns, Row, WIDTH};
use crate::kernel::{Kernel, for_each_kernel, prefetch};
use crate::lanes::{LANES, Lanes};

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
    /// Room for so many exchanges at once, in panels that are so high.
    pub(super) fn new(height: usize, most: usize) -> Self {
        Self {
            first: 0,
            sources: Vec::with_capacity(most),
            displaced: Vec::with_capacity(most),
            order: vec![0; height],
            kept: vec![[0.0; WIDTH]; most],
        }
    }

    /// Bytes of such room.
    pub(super) fn bytes(height: u64, most: u64) -> u64 {
        height * size_of::<usize>() as u64 + most * (3 * size_of::<usize>() + size_of::<Row>()) as u64
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
    pub(super) fn apply(&mut self, kernel: Kernel, matrix: &mut Columns) {
        let Self { first, sources, displaced, kept, .. } = self;
        for panel in matrix.panels() {
            gather(kernel, kept, panel, sources);
            for (row, source) in displaced.iter() {
                panel[*row] = panel[*source];
            }
            panel[*first..][..sources.len()].copy_from_slice(&kept[..sources.len()]);
        }
    }

    /// Takes the upper rows of a matrix over from where they stand in an original, with these exchanges and none before them.
    pub(super) fn take_over(&self, kernel: Kernel, matrix: &mut Columns, original: &[f64]) {
        let originals = original.as_chunks().0.chunks_exact(matrix.height);
        matrix
            .panels()
            .zip(originals)
            .for_each(|(panel, original)| gather(kernel, &mut panel[self.first..], original, &self.sources));
    }

    /// Which row stands at each of so many rows from this one when all of them are done.
    pub(super) fn order(&self, from: usize, count: usize) -> &[usize] {
        &self.order[from..][..count]
    }
}

for_each_kernel! {
    /// Copies rows of a panel, each from where it is to come from.
    fn gather(rows: &mut [Row], panel: &[Row], sources: &[usize]) = gather_in_lanes;
}

#[inline(always)]
fn gather_in_lanes<L: Lanes>(rows: &mut [Row], panel: &[Row], sources: &[usize]) {
    for (nth, (row, source)) in rows.iter_mut().zip(sources).enumerate() {
        ask_for(panel, sources.get(nth + AHEAD));
        let parts = row.as_chunks_mut().0.iter_mut().zip(panel[*source].as_chunks().0);
        parts.for_each(|(part, source)| L::load(source).store(part));
    }
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
    use proptest::prelude::*;

    const ROWS: usize = 30;

    fn pivots() -> impl Strategy<Value = (usize, Vec<usize>)> {
        (0..ROWS, prop::collection::vec(any::<prop::sample::Index>(), 0..ROWS)).prop_map(|(first, picks)| {
            let rows = (first..ROWS).zip(picks);
            (first, rows.map(|(row, pick)| row + pick.index(ROWS - row)).collect())
        })
    }

    fn columns(data: &mut [f64]) -> Columns<'_> {
        Columns { data, rows: ROWS, height: ROWS + 2 }
    }

    fn numbers() -> Vec<f64> {
        (0..2 * (ROWS + 2) * WIDTH).map(|number| number as f64).collect()
    }

    fn one_by_one(data: &mut [f64], first: usize, pivots: &[usize]) {
        for panel in columns(data).panels() {
            pivots.iter().enumerate().for_each(|(index, pivot)| panel.swap(first + index, *pivot));
        }
    }

    proptest! {
        #[test]
        fn taken_together_they_are_what_they_are_one_by_one(runs in prop::collection::vec(pivots(), 1..4)) {
            let mut exchange = Exchange::new(ROWS + 2, ROWS);
            let (mut data, mut expected) = (numbers(), numbers());
            for (first, pivots) in runs {
                one_by_one(&mut expected, first, &pivots);
                exchange.take(first, &pivots);
                exchange.apply(Kernel::best(), &mut columns(&mut data));
                prop_assert_eq!(&data, &expected);
            }
        }

        #[test]
        fn rows_are_taken_over_as_if_they_had_been_exchanged_there((first, pivots) in pivots()) {
            let mut exchange = Exchange::new(ROWS + 2, ROWS);
            let (original, mut data, mut expected) = (numbers(), numbers(), numbers());
            one_by_one(&mut expected, first, &pivots);
            exchange.take(first, &pivots);
            exchange.take_over(Kernel::best(), &mut columns(&mut data), &original);
            let lower = first + pivots.len();
            for (panel, original) in columns(&mut data).panels().zip(original.as_chunks().0.chunks_exact(ROWS + 2)) {
                let sources = exchange.order(lower, ROWS - lower);
                panel[lower..].iter_mut().zip(sources).for_each(|(row, source)| *row = original[*source]);
            }
            prop_assert_eq!(data, expected);
        }
    }
}
