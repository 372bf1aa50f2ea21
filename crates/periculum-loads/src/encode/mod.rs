//! `encode`: a made-up moving picture coded and decoded, for a mix of everything: searches, transforms, branches.

mod coder;
mod load;
mod movie;
mod square;

pub use load::Encode;
