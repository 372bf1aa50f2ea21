//! `integer`: text packed, unpacked and sorted, for branches, integer units, loads and stores.

mod load;
mod pack;
mod sort;
mod text;

pub use load::Integer;
