//! `periculum load`: what runs in a load's own process; not for people.

use std::process::ExitCode;
use std::time::Duration;

use anyhow::Result;
use periculum_loads::child::{Task, USUAL_ORDER, run_dense};
use periculum_loads::dense::Stop;

use crate::cli::Load;

pub(super) fn run(load: &Load) -> Result<ExitCode> {
    run_dense(&Task {
        length: Duration::from_millis(load.millis),
        threads: load.threads,
        order: USUAL_ORDER,
        stop: if load.go_on { Stop::Never } else { Stop::AtFirstError },
    })?;
    Ok(ExitCode::SUCCESS)
}
