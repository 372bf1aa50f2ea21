//! Loads that make a machine work and know right from wrong, and the process they run in.
//!
//! A load runs in a child process, since an unstable processor kills the program that loads it. [`child`] is
//! what runs there, [`process`] is what starts, watches and kills it, and [`protocol`] is all they say to each
//! other. [`frame`] is what all loads have in common, [`catalogue`] lists them. Start reading at [`frame`], then the load
//! `integer`, which is the smallest. The crate knows no other crate of
//! Periculum.

pub mod buffer;
pub mod catalogue;
pub mod child;
mod coding;
pub mod cores;
pub mod dense;
mod descendants;
mod digest;
pub mod digits;
pub mod division;
pub mod encode;
pub mod frame;
#[cfg(feature = "graphics")]
pub mod frames;
#[cfg(feature = "graphics")]
pub mod graphics;
pub mod integer;
mod kernel;
mod lanes;
mod panels;
pub mod pauses;
pub mod process;
pub mod product;
pub mod protocol;
pub mod pulse;
pub mod ram;
mod random;
pub mod render;
mod struck;
pub mod thread;
pub mod transform;
pub mod witness;

pub use kernel::Kernel;
