//! `periculum resume`: goes on with the climb that was not finished.

use std::process::ExitCode;

use anyhow::Result;
use clap::CommandFactory;

use super::{LEDGER, climb};
use crate::cli::{Arguments, Common, Pace, Resume};
use crate::climbing::{Prepared, open_ledger};
use crate::{headless, places};

pub(super) fn run(resume: &Resume, common: &Common) -> Result<ExitCode> {
    let Some(prepared) = unfinished(common, resume.unattended)? else {
        println!("every climb in this ledger is finished");
        return Ok(ExitCode::SUCCESS);
    };
    if resume.output.headless || resume.unattended {
        return headless::drive(prepared, &resume.output, resume.pace.or(Some(Pace::Max)));
    }
    climb::show(prepared, common, resume.pace, |_| true)
}

/// Without a command: an unfinished climb is taken up again, and where there is none the help is shown.
pub(super) fn unfinished_or_help(common: &Common) -> Result<ExitCode> {
    match unfinished(common, false)? {
        Some(prepared) => climb::show(prepared, common, None, |_| true),
        None => {
            Arguments::command().print_help()?;
            Ok(ExitCode::SUCCESS)
        }
    }
}

fn unfinished(common: &Common, unattended: bool) -> Result<Option<Prepared>> {
    Prepared::unfinished(open_ledger(&places::ledger(common, LEDGER)?)?, &common.sysroot, unattended)
}
