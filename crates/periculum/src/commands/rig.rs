//! `periculum rig`: what this machine is and offers, as a rig file to edit.

use std::path::Path;
use std::process::ExitCode;

use periculum_rigs::linux::rig_text;

use anyhow::{Context, Result};

use crate::cli::Common;
use crate::climbing::patiently;
use crate::loading::graphics;
use crate::output::lines;
use crate::telling::running;

pub(super) fn run(common: &Common) -> Result<ExitCode> {
    let root = common.sysroot.clone();
    let mut text = patiently(move || rig_text(&root))?.trim_end().to_owned();
    // Another tree than the machine's own says nothing of its devices.
    if common.sysroot == Path::new("/") {
        let devices = graphics::lines(&std::env::current_exe().context(running::OWN_PROGRAM_NOT_FOUND)?);
        devices.iter().for_each(|line| text += &format!("\n{line}"));
    }
    lines(std::io::stdout(), &text);
    Ok(ExitCode::SUCCESS)
}
