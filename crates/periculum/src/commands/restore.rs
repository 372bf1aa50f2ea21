//! `periculum restore`: puts back what an earlier climb on this machine changed and left.

use std::process::ExitCode;

use anyhow::{Context, Result};
use periculum_rigs::{granted, linux};

use crate::cli::Common;
use crate::climbing::this_machine;
use crate::complaint::FAILED;
use crate::output::{complain, say};
use crate::permits::Permits;
use crate::places;
use crate::telling::{climbing, headless as said};

pub(super) fn run(common: &Common) -> Result<ExitCode> {
    let _machine = this_machine(&common.sysroot)?;
    let (kept, permits) = (places::kept()?, Permits::read(places::permits()?)?);
    let tell = || climbing::unreadable_kept(kept.display());
    let (done, problems) =
        linux::restore(&common.sysroot, &kept, |terms| permits.allow_written(&granted::digest(terms)))
            .with_context(tell)?;
    if done.is_empty() && problems.is_empty() {
        say(climbing::NOTHING_TO_PUT_BACK);
    }
    done.iter().for_each(|target| say(climbing::as_before(target)));
    problems.iter().for_each(|problem| complain(said::problem(problem)));
    Ok(if problems.is_empty() { ExitCode::SUCCESS } else { ExitCode::from(FAILED) })
}
