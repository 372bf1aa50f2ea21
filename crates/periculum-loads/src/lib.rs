//! Loads that make a machine work and know right from wrong, and the process they run in.
//!
//! A load runs in a child process, since an unstable processor kills the program that loads it. [`child`] is
//! what runs there, [`process`] is what starts, watches and kills it, and [`protocol`] is all they say to each
//! other. [`dense`] is a load. The crate knows no other crate of Periculum.

pub mod child;
pub mod cores;
pub mod dense;
pub mod process;
pub mod protocol;
