//! `periculum` alone: the start screen, and what is chosen there.

use std::path::{Path, PathBuf};
use std::process::ExitCode;

use anyhow::Result;
use clap::CommandFactory;

use super::{LEDGER, climb};
use crate::cli::{Arguments, Common};
use crate::climbing::{Prepared, Wanted, open_ledger, saved_in};
use crate::places;
use crate::starting::Page;
use crate::telling::climbing;
use crate::tui::{self, Chosen, Draft, Library};

/// Shows the start screen where somebody can see it, and the help otherwise.
pub(super) fn run(common: &Common) -> Result<ExitCode> {
    let path = places::ledger(common, LEDGER)?;
    let ledger = path.is_file().then(|| open_ledger(&path)).transpose()?;
    if super::needs_terminal("periculum", climbing::RESUME_WITHOUT).is_err() {
        if ledger.map_or(Ok(None), |ledger| ledger.unfinished())?.is_some() {
            super::needs_terminal("periculum", climbing::RESUME_WITHOUT)?;
        }
        Arguments::command().print_help()?;
        return Ok(ExitCode::SUCCESS);
    }
    let page = Page::read(ledger.as_ref(), &PathBuf::from("."), &common.sysroot)?;
    drop(ledger);
    match tui::start(page, PathBuf::from("."), common.sysroot.clone())? {
        None => Ok(ExitCode::SUCCESS),
        Some(chosen) => follow(chosen, &path, common),
    }
}

/// Does what was chosen.
fn follow(chosen: Chosen, ledger: &Path, common: &Common) -> Result<ExitCode> {
    let wanted = match chosen {
        Chosen::Resume(number) => {
            let waiting = Prepared::unfinished(open_ledger(ledger)?, &common.sysroot, Some(number), false)?;
            return waiting.map_or(Ok(ExitCode::SUCCESS), |waiting| climb::show(waiting, common, None));
        }
        Chosen::Climb(plan) => Some(Wanted::Plan(plan)),
        Chosen::Open(number) => tui::browse(Library::at(ledger.to_owned()), number)?,
        Chosen::Edit(plan) => {
            tui::write(Draft::of_file(&plan, None, &saved_in(ledger))?, Library::at(ledger.to_owned()))?
        }
    };
    match wanted {
        Some(wanted) => climb::show(Prepared::of(&wanted, ledger, &common.sysroot, None)?, common, None),
        None => Ok(ExitCode::SUCCESS),
    }
}
