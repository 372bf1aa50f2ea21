//! Loads of memory: `memory` looks for words that change, `bandwidth-…` and `latency…` measure.

mod address;
mod bandwidth;
mod latency;
mod memory;
mod pattern;

pub use bandwidth::{Bandwidth, COPY, READ, WRITE};
pub use latency::{IN_HUGE_PAGES, IN_SMALL_PAGES, Latency};
pub use memory::Memory;
