//! Matrices in panels of [`WIDTH`] columns, as the innermost loops take them.

pub(super) use crate::panels::{WIDTH, height_for};

/// A row of a panel.
pub(super) type Row = [f64; WIDTH];

/// A view of whole panels of a matrix with so many rows. Panels may be higher; what they have too much is nothing.
pub(super) struct Columns<'a> {
    pub(super) data: &'a mut [f64],
    pub(super) rows: usize,
    pub(super) height: usize,
}

impl<'a> Columns<'a> {
    /// Splits into the columns before `at`, where a panel begins, and those from it.
    pub(super) fn split(self, at: usize) -> (Columns<'a>, Columns<'a>) {
        let (left, right) = self.data.split_at_mut(at * self.height);
        (Columns { data: left, ..self }, Columns { data: right, ..self })
    }

    pub(super) fn borrow(&mut self) -> Columns<'_> {
        Columns { data: self.data, ..*self }
    }

    /// Each panel, row after row, without what it has too much.
    pub(super) fn panels(&mut self) -> impl Iterator<Item = &mut [Row]> {
        let rows = self.rows;
        self.data.chunks_exact_mut(self.height * WIDTH).map(move |panel| &mut panel.as_chunks_mut().0[..rows])
    }
}

/// The panels of a matrix that is only read, from a row of it down: row `i` of panel `p` starts at
/// `(p * height + row + i) * WIDTH`.
#[derive(Clone, Copy)]
pub(super) struct Part<'a> {
    pub(super) data: &'a [f64],
    pub(super) height: usize,
    pub(super) row: usize,
}

impl<'a> Part<'a> {
    /// All numbers from its first row on.
    pub(super) fn numbers(self) -> &'a [f64] {
        &self.data[self.row * WIDTH..]
    }
}

/// Where an element stands in a matrix whose panels are so high.
#[cfg(test)]
pub(super) fn place(height: usize, row: usize, column: usize) -> usize {
    (column / WIDTH * height + row) * WIDTH + column % WIDTH
}
