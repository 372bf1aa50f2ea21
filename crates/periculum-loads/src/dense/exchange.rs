//! Rows of many columns exchanged as the pivots of a panel say.

use super::matrix::Columns;
use crate::kernel::prefetch;

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
    /// The upper rows of a column on their way.
    kept: Vec<f64>,
}

impl Exchange {
    /// Room for matrices of so many rows.
    pub(super) fn new(rows: usize) -> Self {
        Self {
            first: 0,
            sources: Vec::with_capacity(rows),
            displaced: Vec::with_capacity(rows),
            order: vec![0; rows],
            kept: vec![0.0; rows],
        }
    }

    /// Bytes of room for matrices of so many rows.
    pub(super) fn bytes(rows: u64) -> u64 {
        rows * (5 * size_of::<usize>() as u64)
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

    /// Exchanges the rows of the first columns; columns that were not taken over from the original so far are now.
    pub(super) fn apply(&mut self, matrix: &mut Columns, columns: usize, original: Option<&[f64]>) {
        let Self { first, sources, displaced, kept, .. } = self;
        let stride = matrix.stride;
        let upper = *first..*first + sources.len();
        for column in 0..columns {
            let at = column * stride;
            if let Some(original) = original {
                matrix.data[at..at + stride].copy_from_slice(&original[at..at + stride]);
            }
            // The next column is fetched meanwhile: nobody could guess where it will be read.
            let (this, next) = matrix.data[at..].split_at_mut(stride);
            for (kept, source) in kept.iter_mut().zip(sources.iter()) {
                prefetch(next.as_ptr().wrapping_add(*source));
                *kept = this[*source];
            }
            for (row, source) in displaced.iter() {
                this[*row] = this[*source];
            }
            this[upper.clone()].copy_from_slice(&kept[..sources.len()]);
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
            let original: Vec<f64> = (0..2 * ROWS).map(|number| number as f64).collect();
            let (mut expected, mut data) = (original.clone(), vec![0.0; 2 * ROWS]);
            for (run, (first, pivots)) in runs.iter().enumerate() {
                for column in expected.chunks_exact_mut(ROWS) {
                    pivots.iter().enumerate().for_each(|(index, pivot)| column.swap(first + index, *pivot));
                }
                exchange.take(*first, pivots);
                let mut matrix = Columns { data: &mut data, stride: ROWS, rows: ROWS };
                exchange.apply(&mut matrix, 2, (run == 0).then_some(&original[..]));
                prop_assert_eq!(&data, &expected);
            }
        }
    }
}
