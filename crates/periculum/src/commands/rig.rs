//! `periculum rig`: what this machine is and offers, as a rig file to edit.

use std::path::Path;
use std::process::ExitCode;

use periculum_core::model::quantity::harmless;
use periculum_rigs::display::{Shown, outputs};
use periculum_rigs::linux::rig_text;

use anyhow::{Context, Result};

use crate::cli::Common;
use crate::climbing::patiently;
use crate::loading::graphics;
use crate::output::lines;
use crate::telling::{devices, running};

pub(super) fn run(common: &Common) -> Result<ExitCode> {
    let root = common.sysroot.clone();
    let mut text = patiently(move || rig_text(&root))?.trim_end().to_owned();
    // Another tree than the machine's own says nothing of its devices.
    if common.sysroot == Path::new("/") {
        let devices = graphics::lines(&std::env::current_exe().context(running::OWN_PROGRAM_NOT_FOUND)?);
        devices.iter().chain(&displays()).for_each(|line| text += &format!("\n{line}"));
    }
    lines(std::io::stdout(), &text);
    Ok(ExitCode::SUCCESS)
}

/// The displays of the X server, a line each, as a rig file may have them; nothing where there is none.
fn displays() -> Vec<String> {
    let Ok(Ok(shown)) = patiently(outputs) else { return Vec::new() };
    let line = |shown: &Shown| {
        let Shown { name, size: (width, height), rate, clock, highest } = shown;
        let highest = highest.map_or_else(String::new, devices::says_up_to);
        devices::display(harmless(name), width, height, rate, f64::from(*clock) / 1e6, highest)
    };
    std::iter::once(devices::DISPLAYS.to_owned()).chain(shown.iter().map(line)).collect()
}
