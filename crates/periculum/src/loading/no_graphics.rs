//! What stands for loads on the graphics processor in a program that was built without them.

use std::path::Path;

use periculum_core::model::pass::{Demand, Pass};
use periculum_loads::frame::Order;

use super::on_device::OnDevice;

pub(super) fn is_one(_load: &str) -> bool {
    false
}

pub(super) fn has_device(_load: &str) -> bool {
    false
}

pub(super) fn refuse(_load: &str, _demand: &Demand) -> Result<(), String> {
    Ok(())
}

pub(crate) fn lines(_program: &Path) -> Vec<String> {
    Vec::new()
}

pub(super) fn look_for<'a>(_passes: impl Iterator<Item = &'a Pass>, _program: &Path) -> Result<(), String> {
    Ok(())
}

pub(crate) fn run(_load: &str, _on: OnDevice, _order: &Order, _niceness: i32) -> std::io::Result<bool> {
    Ok(false)
}
