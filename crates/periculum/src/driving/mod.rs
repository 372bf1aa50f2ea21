//! Where a climb meets a rig, a ledger, a clock and an operator.

mod driver;
mod operator;
mod orders;
mod pacer;

#[cfg(test)]
pub(crate) mod rehearsal;
#[cfg(test)]
mod tests;

pub(crate) use driver::{Driver, Parting, Unreadable};
pub(crate) use operator::{Hands, Operator};
pub(crate) use orders::Orders;
pub(crate) use pacer::Pacer;
