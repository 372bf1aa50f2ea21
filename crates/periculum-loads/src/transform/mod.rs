//! `transform`: big integers squared exactly by floating-point transforms, for vector units, caches and memory.
//!
//! A number of 16-bit digits is squared by a right-angle convolution (Crandall and Fagin, Discrete weighted
//! transforms and large-integer arithmetic, 1994): a complex transform as long as the number has digits. Every
//! rounding error must stay below 0.4, each square must have the right residue modulo 2³⁸⁴ − 1, and every
//! digit must be the same as in the reference in every round on every core.

mod butterfly;
mod carries;
mod complex;
mod digit;
mod grid;
mod load;
mod residue;
mod square;

pub(crate) use complex::Block;
pub(crate) use digit::{DIGIT, whole};
pub(crate) use grid::Grid;
pub use load::Transform;
pub(crate) use load::WORST_ROUNDING;
pub use square::Squarer;
