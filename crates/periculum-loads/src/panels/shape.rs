//! How matrices stand in panels, and what a product of some is made with.

use crate::lanes::LANES;

/// Columns of a panel.
pub(crate) const WIDTH: usize = PARTS * LANES;

/// Vectors of a row of a panel.
pub(super) const PARTS: usize = 3;

/// Rows come in groups of the largest block's.
pub(crate) const GROUP: usize = 8;

/// How high panels of at least so many rows are: whole groups, and of many an odd number, so that the parts of a group that stand in
/// different panels spread evenly over a cache of the first level.
pub(crate) fn height_for(rows: usize) -> usize {
    let groups = rows.div_ceil(GROUP);
    if groups > 24 { (groups | 1) * GROUP } else { groups * GROUP }
}

/// Some rows of a matrix in panels, to be multiplied with another one.
#[derive(Clone, Copy)]
pub(crate) struct Rows<'a> {
    /// From the first of them on.
    pub(crate) numbers: &'a [f64],
    /// How high its panels are.
    pub(crate) height: usize,
    pub(crate) count: usize,
    /// How many columns of it are multiplied: whole panels.
    pub(crate) depth: usize,
}

/// Where rows that a product is subtracted from come from.
#[derive(Clone, Copy)]
pub(crate) struct Origin<'a> {
    /// Panels just as high.
    pub(crate) numbers: &'a [f64],
    /// Which of their rows each of those that are written comes from.
    pub(crate) sources: &'a [usize],
}

/// What a product is made with, and where it is subtracted.
#[derive(Clone, Copy)]
pub(super) struct Product {
    /// The first row of the right matrix, and how far apart its panels are.
    pub(super) right: *const f64,
    pub(super) right_apart: usize,
    /// The first row that is written, and how far apart the panels are.
    pub(super) c: *mut f64,
    pub(super) apart: usize,
    pub(super) panels: usize,
}
