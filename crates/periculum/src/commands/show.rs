//! `periculum show`: a climb of the ledger in every view, as it was or as it stands.

use std::io::IsTerminal;
use std::process::ExitCode;

use anyhow::Result;

use super::climb;
use crate::cli::{Common, Show};
use crate::climbing::{Prepared, open_ledger};
use crate::complaint::BadInput;
use crate::places;
use crate::telling::ledger;
use crate::tui::{self, Library};

pub(super) fn run(show: &Show, common: &Common) -> Result<ExitCode> {
    let ledger = open_ledger(&places::ledger_to_read(common)?)?;
    let newest = || ledger.climbs().map(|climbs| climbs.last().map(|row| row.climb));
    let Some(number) = show.climb.map_or_else(newest, |climb| Ok(Some(climb)))? else {
        return Err(BadInput(ledger::NO_CLIMB_TO_SHOW.into()).into());
    };
    ledger.climb(number)?;
    if !std::io::stdout().is_terminal() {
        let what = ledger::shows_in_terminal(number);
        return Err(BadInput(what).into());
    }
    let path = ledger.path().to_owned();
    drop(ledger);
    match tui::browse(Library::at(path.clone()), number)? {
        Some(wanted) => climb::show(Prepared::of(&wanted, &path, &common.sysroot, None)?, common, None),
        None => Ok(ExitCode::SUCCESS),
    }
}
