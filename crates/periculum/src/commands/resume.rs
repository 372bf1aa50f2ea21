//! `periculum resume`: goes on with the climb that was not finished.

use std::process::ExitCode;

use anyhow::Result;
use clap::CommandFactory;

use super::{LEDGER, climb};
use crate::cli::{Arguments, Common, Pace, Resume};
use crate::climbing::{Prepared, open_ledger};
use crate::output::say;
use crate::{headless, places};

pub(super) fn run(resume: &Resume, common: &Common) -> Result<ExitCode> {
    let is_headless = resume.output.is_headless() || resume.unattended;
    if !is_headless {
        super::needs_terminal("resume", "say --headless to go on without")?;
    }
    let Some(prepared) = unfinished(common, resume.climb, resume.unattended)? else {
        say!("every climb in this ledger is finished");
        return Ok(ExitCode::SUCCESS);
    };
    if is_headless {
        return headless::drive(prepared, &resume.output, resume.pace.or(Some(Pace::Max)));
    }
    climb::show(prepared, common, resume.pace, |_| true)
}

/// Without a command: an unfinished climb is taken up again, and where there is none the help is shown.
pub(super) fn unfinished_or_help(common: &Common) -> Result<ExitCode> {
    let path = places::ledger(common, LEDGER)?;
    let waits = path.is_file() && open_ledger(&path)?.unfinished()?.is_some();
    if waits {
        super::needs_terminal("periculum", "`periculum resume --headless` goes on without")?;
    }
    match waits.then(|| unfinished(common, None, false)).transpose()?.flatten() {
        Some(prepared) => climb::show(prepared, common, None, |_| true),
        None => {
            Arguments::command().print_help()?;
            Ok(ExitCode::SUCCESS)
        }
    }
}

fn unfinished(common: &Common, climb: Option<i64>, unattended: bool) -> Result<Option<Prepared>> {
    Prepared::unfinished(open_ledger(&places::ledger_to_read(common)?)?, &common.sysroot, climb, unattended)
}
