//! Entropy coding that `integer` and `encode` share.

mod models;
mod range;

pub(crate) use models::{Byte, Count};
pub(crate) use range::{Decoder, Encoder};
