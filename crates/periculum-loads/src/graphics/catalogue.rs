//! Every load on the graphics processor.

use super::compute::Compute;
use super::load::GraphicsLoad;
use super::memory::GraphicsMemory;
use super::render::GraphicsRender;
use super::swing::GraphicsSwing;

/// Every load, in the order they are listed in.
pub static LOADS: [&dyn GraphicsLoad; 4] = [&GraphicsRender, &Compute, &GraphicsMemory, &GraphicsSwing];

/// The load of this name.
pub fn find(name: &str) -> Option<&'static dyn GraphicsLoad> {
    LOADS.into_iter().find(|load| load.about().name == name)
}
