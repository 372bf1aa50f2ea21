//! `render`: a picture of a made-up scene by tracing paths of light, tile by tile, for a mix of everything.
//!
//! Every pixel's random numbers follow from its place, and only operations that are rounded as IEEE 754 says are
//! used, so every tile must have the same bits in every round on every core.

mod load;
mod scene;
mod vector;

pub use load::Render;
