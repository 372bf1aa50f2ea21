//! Loads on the graphics processor, and the devices that they can run on.

use std::io;
use std::path::Path;
use std::process::{Command, Stdio};
use std::time::Duration;

use periculum_core::model::amount::written;
use periculum_core::model::pass::{Demand, Extent, Pass};
use periculum_core::model::quantity::harmless;
use periculum_loads::frame::Order;
use periculum_loads::frames;
use periculum_loads::graphics::{self, Choice, DeviceKind, GraphicsDevice, GraphicsOrder, find, list, run_on_device};
use periculum_rigs::display::outputs;
use periculum_rigs::within;

use super::on_device::OnDevice;
use crate::output::say;
use crate::telling::{devices, running};

/// What the process is asked for that looks for devices; no load is called so.
const DEVICES: &str = "graphics-devices";

/// A driver that takes longer than this to say what it has hangs.
const PATIENCE: Duration = Duration::from_secs(20);

/// Whether a load runs on a device or a display.
pub(super) fn is_one(load: &str) -> bool {
    load == frames::NAME || find(load).is_some()
}

/// Whether a load runs on one of several devices.
pub(super) fn has_device(load: &str) -> bool {
    find(load).is_some()
}

/// Why a load can't have what a pass asks for.
pub(super) fn refuse(load: &str, demand: &Demand) -> Result<(), String> {
    if demand.reserve.is_some() {
        return Err(devices::has_no_reserve(load));
    }
    let Some(load) = find(load) else {
        return if demand.extent == Extent::Usual { Ok(()) } else { Err(devices::fills_the_screen(load)) };
    };
    let about = load.about();
    let (smallest, largest) = about.sizes;
    let size = match demand.extent {
        Extent::Usual => return Ok(()),
        Extent::Size(size) => size,
        Extent::Memory(_) if load.bytes(smallest) == load.bytes(largest) => {
            return Err(devices::memory_is_fixed(about.name, about.size_name));
        }
        Extent::Memory(_) => return Ok(()),
    };
    let nearest = load.nearest(size);
    let refused = || running::no_such_size(about.name, size, about.size_name, smallest, largest, nearest);
    if nearest == size { Ok(()) } else { Err(refused()) }
}

/// The devices of this machine, told by a process of its own: drivers may hang or die in that.
fn devices(program: &Path) -> Result<Vec<GraphicsDevice>, String> {
    let mut command = Command::new(program);
    command.args(["load", DEVICES, "--size", "0", "--millis", "0", "--niceness", "0"]).stderr(Stdio::null());
    let output = within(PATIENCE, move || command.output()).ok_or(devices::DRIVER_HANGS)?;
    let told = output.map_err(|error| devices::not_asked(&error))?.stdout;
    serde_json::from_slice(&told).map_err(|_| devices::DRIVER_DIED.to_owned())
}

/// The devices of this machine, a line each, as a rig file may have them.
pub(crate) fn lines(program: &Path) -> Vec<String> {
    let line = |device: &GraphicsDevice| {
        let kind = if device.kind == DeviceKind::Software { devices::IN_SOFTWARE } else { "" };
        let [called, name, driver] = [&called(device), &device.name, &device.driver].map(|text| harmless(text));
        devices::line(called, name, written(device.memory), driver, kind)
    };
    match devices(program) {
        Ok(all) if all.is_empty() => vec![devices::none(devices::NONE_THERE)],
        Ok(all) => std::iter::once(devices::HEAD.to_owned()).chain(all.iter().map(line)).collect(),
        Err(why) => vec![devices::none(why)],
    }
}

/// Whether there is what these passes run on.
pub(super) fn look_for<'a>(passes: impl Iterator<Item = &'a Pass>, program: &Path) -> Result<(), String> {
    let passes: Vec<&Pass> = passes.filter(|pass| pass.program.is_none() && is_one(&pass.load)).collect();
    if passes.iter().any(|pass| pass.load == frames::NAME) {
        within(PATIENCE, outputs).ok_or(devices::SERVER_HANGS)??;
    }
    let on_devices = passes.into_iter().filter(|pass| has_device(&pass.load));
    let wanted: Vec<Option<&str>> = on_devices.map(|pass| pass.device.as_deref()).collect();
    if wanted.is_empty() {
        return Ok(());
    }
    let there = devices(program)?;
    wanted.iter().try_for_each(|wanted| is_there(*wanted, &there))
}

fn is_there(wanted: Option<&str>, there: &[GraphicsDevice]) -> Result<(), String> {
    let all = || {
        let named = there.iter().map(|device| devices::device(called(device), harmless(&device.name)));
        named.collect::<Vec<_>>().join(", ")
    };
    match (GraphicsDevice::choose(there, wanted), wanted) {
        (Choice::One(_), _) => Ok(()),
        (Choice::NoneThere, _) | (_, None) => Err(devices::NONE_THERE.into()),
        (Choice::Several, Some(wanted)) => Err(devices::several(wanted, all())),
        (Choice::Unknown, Some(wanted)) => Err(devices::unknown(wanted, all())),
    }
}

/// What a plan calls a device.
fn called(device: &GraphicsDevice) -> String {
    device.card.clone().unwrap_or_else(|| device.number.to_string())
}

/// Runs what was ordered, where it is for a device; says whether it was.
///
/// # Errors
/// When nobody listens any more.
pub(crate) fn run(load: &str, on: OnDevice, order: &Order, niceness: i32) -> io::Result<bool> {
    if load == DEVICES {
        say(serde_json::to_string(&list())?);
        return Ok(true);
    }
    if load == frames::NAME {
        frames::show_frames(order.length, order.times, niceness)?;
        return Ok(true);
    }
    let Some(kind) = find(load) else { return Ok(false) };
    run_on_device(kind, &ordered(on, order), niceness)?;
    Ok(true)
}

fn ordered(on: OnDevice, order: &Order) -> GraphicsOrder {
    let extent = match (on.share, on.bytes, on.size) {
        (Some(percent), _, _) => graphics::Extent::Share(percent),
        (None, Some(bytes), _) => graphics::Extent::Bytes(bytes),
        (None, None, 0) => graphics::Extent::Usual,
        (None, None, size) => graphics::Extent::Size(size),
    };
    GraphicsOrder {
        device: on.device,
        extent,
        length: order.length,
        times: order.times,
        warm_up: order.warm_up,
        seed: order.seed,
        stop: order.stop,
        pictures: on.pictures,
    }
}
