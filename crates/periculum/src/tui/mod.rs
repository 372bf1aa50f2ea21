//! x
use crate::cli::Pace;
use crate::climbing::Prepared;
use periculum_core::engine::Climb;
use std::process::ExitCode;
pub(crate) fn show(_p: Prepared, _pace: Option<Pace>, _until: impl Fn(&Climb) -> bool) -> anyhow::Result<ExitCode> {
    Ok(ExitCode::SUCCESS)
}
