//! Passes on this machine: what is ordered becomes a load in its child process, watched and, when it must be, killed.

mod asked;
mod foresight;
#[cfg_attr(not(feature = "graphics"), path = "no_graphics.rs")]
pub(crate) mod graphics;
mod lateness;
mod on_device;
mod order;
mod program;
mod runner;
mod running;
mod span;
mod wrongs;

pub(crate) use foresight::too_short;
pub(crate) use on_device::OnDevice;
pub(crate) use program::run_program;
pub(crate) use runner::LoadRunner;
