//! What a record is, whatever it is kept in: lines with checksums, a chain of them, and the rows that follow from each.

mod chain;
mod line;
mod rows;

pub(crate) use chain::{Checked, Head, Inspection};
pub use chain::{Dropped, Newer};
pub use line::Line;
pub(crate) use line::{Flaw, Kept};
pub(crate) use rows::{Change, changes};
