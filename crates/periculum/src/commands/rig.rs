//! `periculum rig`: what this machine is and offers, as a rig file to edit.

use std::process::ExitCode;

use periculum_rigs::linux::rig_text;

use crate::cli::Common;

pub(super) fn run(common: &Common) -> ExitCode {
    print!("{}", rig_text(&common.sysroot));
    ExitCode::SUCCESS
}
