//! `periculum resume`: goes on with the climb that was not finished.

use std::process::ExitCode;

use anyhow::Result;

use super::climb;
use crate::cli::{Common, Pace, Resume};
use crate::climbing::{Prepared, open_ledger};
use crate::output::say;
use crate::telling::climbing;
use crate::{headless, places};

pub(super) fn run(resume: &Resume, common: &Common) -> Result<ExitCode> {
    let is_headless = resume.output.is_headless() || resume.unattended;
    if !is_headless {
        super::needs_terminal("resume", climbing::GO_ON_WITHOUT)?;
    }
    let Some(prepared) = unfinished(common, resume.climb, resume.unattended)? else {
        say(climbing::ALL_FINISHED);
        return Ok(ExitCode::SUCCESS);
    };
    if is_headless {
        return headless::drive(prepared, &resume.output, resume.pace.or(Some(Pace::Max)));
    }
    climb::show(prepared, common, resume.pace)
}

fn unfinished(common: &Common, climb: Option<i64>, unattended: bool) -> Result<Option<Prepared>> {
    Prepared::unfinished(open_ledger(&places::ledger_to_read(common)?)?, &common.sysroot, climb, unattended)
}
