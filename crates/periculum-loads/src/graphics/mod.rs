//! Loads on the graphics processor, through Vulkan, with kernels of our own.
//!
//! A [`GraphicsLoad`] says what it is and makes a [`Work`] on a device; [`run()`] lets it work round after round and tells what
//! it finds. The device is reached through [`Gpu`] alone. All of it runs in the load's own process, which may lose its device,
//! or die with its driver, without hurting anything else.

mod album;
mod catalogue;
mod compute;
mod device;
mod digests;
mod gpu;
mod load;
mod memory;
mod order;
mod picture;
mod render;
mod run;
mod stands;
mod strike;
mod swing;

pub use catalogue::{LOADS, find};
pub use device::{Choice, DeviceKind, GraphicsDevice, list};
pub use gpu::{Gpu, Lost};
pub use load::{Found, GraphicsLoad, Picture, Round, Work};
pub use order::{Extent, GraphicsOrder};
pub use run::{run, run_on_device};
pub use strike::{NoStrike, Strike};
