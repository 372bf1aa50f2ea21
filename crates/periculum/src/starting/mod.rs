//! From what somebody wants to the files of a climb: which rigs there are, what may be wanted of each, and the plan for it.
//!
//! Nothing here shows or asks anything; the start screen does.

mod known;
mod plans;
#[cfg(test)]
mod tests;
mod wish;
mod written;

pub(crate) use known::{KnownRig, Origin, Page, Waiting};
pub(crate) use plans::Intent;
pub(crate) use wish::{Lack, Wish};
pub(crate) use written::{Proposal, Review};
