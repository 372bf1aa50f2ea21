//! `pulse`: the clock that a core really reaches, from how long a chain of dependent operations takes.
//!
//! Nothing but a slower clock or an interruption makes such a chain slower. Interruptions make single chains much
//! slower, so medians and shortest times show the clock itself.

mod chain;
mod load;

pub(crate) use chain::glimpse;
pub use load::Pulse;
