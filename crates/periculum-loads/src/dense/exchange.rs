//! Rows of many columns exchanged as the pivots of a panel say.

use super::matrix::{Columns, WIDTH};
use crate::kernel::prefetch;
use crate::lanes::LANES;

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
    /// Which row stands at each row, while exchanges are taken.
    order: Vec<usize>,
    /// The upper rows of a panel on their way.
    kept: Vec<[f64; WIDTH]>,
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
        rows * (4 * size_of::<usize>() + size_of::<[f64; WIDTH]>()) as u64
    }

    /// Takes exchanges of the rows from the first one with their pivots, in this order.
    pub(super) fn take(&mut self, first: usize, pivots: &[usize]) {
        let Self { sources, displaced, order, .. } = self;
        self.first = first;
        order.iter_mut().enumerate().skip(first).for_each(|(row, source)| *source = row);
        for (index, pivot) in pivots.iter().enumerate() {
            order.swap(first + index, *pivot);
        }
        let end = first + pivots.len();
        sources.clear();
        sources.extend_from_slice(&order[first..end]);
        displaced.clear();
        for pivot in pivots.iter().copied().filter(|pivot| *pivot >= end) {
            // A row may be a pivot more than once.
            let source = std::mem::replace(&mut order[pivot], pivot);
            if source != pivot {
                displaced.push((pivot, source));
            }
        }
    }

    /// Exchanges the rows of a matrix; where they were not taken over from the original so far they are now.
    pub(super) fn apply(&mut self, matrix: &mut Columns, original: Option<&[f64]>) {
        let Self { first, sources, displaced, kept, .. } = self;
        let length = matrix.rows * WIDTH;
        let upper = *first..*first + sources.len();
        for (nth, panel) in matrix.panels().enumerate() {
            if let Some(original) = original {
                panel.as_flattened_mut().copy_from_slice(&original[nth * length..][..length]);
            }
            // Rows are fetched before their turn: nobody could guess where they will be read.
            let soon = sources.iter().skip(AHEAD).map(Some).chain(std::iter::repeat(None));
            for ((kept, source), soon) in kept.iter_mut().zip(sources.iter()).zip(soon) {
                if let Some(soon) = soon {
                    panel[*soon].chunks(LANES).for_each(|line| prefetch(line.as_ptr()));
                }
                *kept = panel[*source];
            }
            for (row, source) in displaced.iter() {
                panel[*row] = panel[*source];
            }
            panel[upper.clone()].copy_from_slice(&kept[..sources.len()]);
        }
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

    proptest! {
        #[test]
        fn taken_together_they_are_what_they_are_one_by_one(runs in prop::collection::vec(pivots(), 1..4)) {
            let mut exchange = Exchange::new(ROWS);
            let original: Vec<f64> = (0..2 * ROWS * WIDTH).map(|number| number as f64).collect();
            let (mut expected, mut data) = (original.clone(), vec![0.0; 2 * ROWS * WIDTH]);
            for (run, (first, pivots)) in runs.iter().enumerate() {
                for panel in (Columns { data: &mut expected, rows: ROWS }).panels() {
                    pivots.iter().enumerate().for_each(|(index, pivot)| panel.swap(first + index, *pivot));
                }
                exchange.take(*first, pivots);
                let mut matrix = Columns { data: &mut data, rows: ROWS };
                exchange.apply(&mut matrix, (run == 0).then_some(&original[..]));
                prop_assert_eq!(&data, &expected);
            }
        }
    }
}
