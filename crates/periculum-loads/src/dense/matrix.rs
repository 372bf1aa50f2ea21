//! Column-major matrices.

/// A view of some columns of a column-major matrix: `rows` elements each, their starts `stride` elements apart.
///
/// The parts of a matrix that an algorithm works on at once overlap in memory (they interleave by columns), so
/// the view splits by columns only and hands rows out through ranges.
pub(super) struct Columns<'a> {
    pub(super) data: &'a mut [f64],
    pub(super) stride: usize,
    pub(super) rows: usize,
}

impl<'a> Columns<'a> {
    /// Splits into the columns before `at` and those from it.
    pub(super) fn split(self, at: usize) -> (Columns<'a>, Columns<'a>) {
        let Self { data, stride, rows } = self;
        let (left, right) = data.split_at_mut(at * stride);
        (Columns { data: left, stride, rows }, Columns { data: right, stride, rows })
    }

    pub(super) fn borrow(&mut self) -> Columns<'_> {
        Columns { data: self.data, stride: self.stride, rows: self.rows }
    }
}

/// How far apart columns of this many rows start: whole cache lines, and an odd number of them, so that the
/// columns of a row do not all fall into the same sets of a cache.
pub(super) fn stride_for(rows: usize) -> usize {
    const LINE: usize = 8;
    (rows.div_ceil(LINE) | 1) * LINE
}
