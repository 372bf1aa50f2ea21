//! The adapters through which Periculum reaches rigs.
//!
//! A [`bench::Bench`] is all that a driver sees of a rig: it takes orders, tells what happens, and keeps
//! the time. [`simulated::Simulator`] is a whole rig in software on a virtual clock; [`machine::ThisMachine`] is
//! the computer this runs on, with settings of its kernel or changed by hand; [`elsewhere`] is another machine, with people at it;
//! [`scpi`] reaches bench instruments, and
//! [`readings`] reads what they wrote down themselves; [`adapters`] is asked what serves a rig. Start reading at
//! [`bench::Bench`], then `simulated/rig`, which is the whole of it in one place. The crate knows the core and nothing else, and nothing here decides
//! anything.

pub mod adapters;
pub mod bench;
pub mod display;
pub mod elsewhere;
pub mod granted;
pub mod hold;
pub mod latest;
pub mod linux;
pub mod machine;
pub(crate) mod outlet;
pub mod readings;
pub mod sampling;
pub mod scpi;
pub mod simulated;
pub mod steady;
mod worker;

pub use worker::within;
