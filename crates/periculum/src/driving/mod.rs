//! Where a climb meets a rig, a ledger, a clock and an operator.

mod driver;
mod operator;
mod orders;
mod pacer;

pub(crate) use driver::{Driver, Parting};
pub(crate) use operator::Operator;
pub(crate) use orders::Orders;
pub(crate) use pacer::Pacer;
