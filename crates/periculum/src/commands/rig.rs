//! `periculum rig`: what this machine is and offers, as a rig file to edit.

use std::process::ExitCode;

use periculum_rigs::linux::rig_text;

use crate::cli::Common;
use crate::output::lines;

pub(super) fn run(common: &Common) -> ExitCode {
    lines(std::io::stdout(), rig_text(&common.sysroot).trim_end());
    ExitCode::SUCCESS
}
