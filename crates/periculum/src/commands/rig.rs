//! `periculum rig`: what this machine is and offers, as a rig file to edit.

use std::process::ExitCode;

use periculum_rigs::linux::rig_text;

use anyhow::Result;

use crate::cli::Common;
use crate::climbing::patiently;
use crate::output::lines;

pub(super) fn run(common: &Common) -> Result<ExitCode> {
    let root = common.sysroot.clone();
    lines(std::io::stdout(), patiently(move || rig_text(&root))?.trim_end());
    Ok(ExitCode::SUCCESS)
}
