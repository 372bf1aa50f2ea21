//! `periculum check`: says what files are, or what is wrong with them and where.

use std::process::ExitCode;

use anyhow::Result;

use crate::briefing;
use crate::cli::Check;
use crate::complaint::{self, BAD_INPUT};
use crate::output::say;

pub(super) fn run(check: &Check) -> Result<ExitCode> {
    let mut is_good = true;
    for path in &check.files {
        match briefing::check(path) {
            Ok(what) => say!("{}: {what}", path.display()),
            Err(error) => {
                is_good = false;
                complaint::tell(&error);
            }
        }
    }
    Ok(if is_good { ExitCode::SUCCESS } else { ExitCode::from(BAD_INPUT) })
}
