//! Matrices in panels of [`WIDTH`] columns, as the innermost loops take them.

pub(super) use crate::panels::WIDTH;

/// A row of a panel.
pub(super) type Row = [f64; WIDTH];

/// A view of whole panels of a matrix, of `rows` rows each.
pub(super) struct Columns<'a> {
    pub(super) data: &'a mut [f64],
    pub(super) rows: usize,
}

impl<'a> Columns<'a> {
    /// Splits into the columns before `at`, where a panel begins, and those from it.
    pub(super) fn split(self, at: usize) -> (Columns<'a>, Columns<'a>) {
        let (left, right) = self.data.split_at_mut(at * self.rows);
        (Columns { data: left, rows: self.rows }, Columns { data: right, rows: self.rows })
    }

    pub(super) fn borrow(&mut self) -> Columns<'_> {
        Columns { data: self.data, rows: self.rows }
    }

    /// Each panel, row after row.
    pub(super) fn panels(&mut self) -> impl Iterator<Item = &mut [Row]> {
        self.data.chunks_exact_mut(self.rows * WIDTH).map(|panel| panel.as_chunks_mut().0)
    }
}

/// The panels of a matrix that is only read, from a row of it down: row `i` of panel `p` starts at
/// `(p * rows + row + i) * WIDTH`.
#[derive(Clone, Copy)]
pub(super) struct Part<'a> {
    pub(super) data: &'a [f64],
    pub(super) rows: usize,
    pub(super) row: usize,
}

impl<'a> Part<'a> {
    /// So many rows of a panel, from one of the part's on.
    pub(super) fn rows(self, panel: usize, from: usize, count: usize) -> &'a [f64] {
        &self.data[(panel * self.rows + self.row + from) * WIDTH..][..count * WIDTH]
    }
}

/// Where an element stands in a matrix of so many rows.
#[cfg(test)]
pub(super) fn place(rows: usize, row: usize, column: usize) -> usize {
    (column / WIDTH * rows + row) * WIDTH + column % WIDTH
}
