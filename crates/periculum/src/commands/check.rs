//! `periculum check`: says what files are, or what is wrong with them and where.

use std::process::ExitCode;

use anyhow::Result;
use periculum_core::model::quantity::harmless;

use crate::briefing;
use crate::cli::Check;
use crate::complaint::{self, BAD_INPUT};
use crate::output::lines;

pub(super) fn run(check: &Check) -> Result<ExitCode> {
    let mut is_good = true;
    for path in &check.files {
        match briefing::check(path) {
            Ok(what) => lines(std::io::stdout(), &format!("{}: {what}", harmless(&path.display().to_string()))),
            Err(error) => {
                is_good = false;
                complaint::tell(&error);
            }
        }
    }
    Ok(if is_good { ExitCode::SUCCESS } else { ExitCode::from(BAD_INPUT) })
}
