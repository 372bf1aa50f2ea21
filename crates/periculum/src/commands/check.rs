//! `periculum check`: says what files are, or what is wrong with them and where.

use std::process::ExitCode;

use anyhow::Result;
use periculum_core::model::quantity::harmless;

use super::LEDGER;
use crate::briefing;
use crate::cli::{Check, Common};
use crate::climbing::saved_in;
use crate::complaint::{self, BAD_INPUT};
use crate::output::lines;
use crate::places;

pub(super) fn run(check: &Check, common: &Common) -> Result<ExitCode> {
    let ledger = places::ledger(common, LEDGER).ok();
    let saved = ledger.as_deref().map(saved_in);
    let saved_of = |rig: &str| saved.as_ref().map(|saved| saved(rig)).unwrap_or_default();
    let mut is_good = true;
    for path in &check.files {
        match briefing::check(path, &saved_of) {
            Ok(what) => lines(std::io::stdout(), &format!("{}: {what}", harmless(&path.display().to_string()))),
            Err(error) => {
                is_good = false;
                complaint::tell(&error);
            }
        }
    }
    Ok(if is_good { ExitCode::SUCCESS } else { ExitCode::from(BAD_INPUT) })
}
