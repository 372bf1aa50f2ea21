//! `periculum display-guard`: holds the old mode of a display while nobody has said that the new one is well; not for people.

use std::process::ExitCode;
use std::time::Duration;

use anyhow::{Result, anyhow};
use periculum_rigs::display::stand;

use crate::cli::DisplayGuard;

pub(super) fn run(guard: &DisplayGuard) -> Result<ExitCode> {
    stand(&guard.output, Duration::from_millis(guard.millis)).map_err(|why| anyhow!(why))
}
