//! Loads whose strength is in their pauses: `swing` for power delivery, `idle` for the low-voltage end.

mod idle;
mod swing;

pub use idle::Idle;
pub use swing::Swing;
