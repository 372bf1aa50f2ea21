//! `periculum enter`: results from elsewhere, with their source.

use std::process::ExitCode;

use anyhow::Result;
use periculum_ledger::{Entered, EnteredRow, Ledger};
use periculum_rigs::steady::wall_clock;

use super::{LEDGER, date};
use crate::cli::{Common, Enter};
use crate::climbing::open_ledger;
use crate::complaint::BadInput;
use crate::output::say;
use crate::places;

pub(super) fn run(enter: &Enter, common: &Common) -> Result<ExitCode> {
    let ledger = open_ledger(&places::ledger(common, LEDGER)?)?;
    if let Some(number) = enter.take_back {
        if !ledger.take_back(number)? {
            return Err(BadInput(format!("there is no result {number}; `periculum enter` lists what there is")).into());
        }
        say!("result {number} is taken back");
        return Ok(ExitCode::SUCCESS);
    }
    match result(enter)? {
        Some(result) => say!("result {} is written down", ledger.enter(&result, wall_clock())?),
        None => list(&ledger)?,
    }
    Ok(ExitCode::SUCCESS)
}

fn result(enter: &Enter) -> Result<Option<Entered>> {
    let (Some(what), Some(value), Some(unit), Some(source)) = (&enter.what, enter.value, &enter.unit, &enter.source)
    else {
        return Ok(None);
    };
    if !value.is_finite() || value <= 0.0 {
        return Err(BadInput(format!("{value} can't be a result; give a number above 0")).into());
    }
    if source.trim().is_empty() {
        return Err(BadInput("a result needs a source; say where it is from".into()).into());
    }
    let (what, unit, specimen, source) = (what.clone(), unit.clone(), enter.specimen.clone(), source.clone());
    Ok(Some(Entered { what, value, unit, specimen, source }))
}

fn list(ledger: &Ledger) -> Result<()> {
    let entered = ledger.entered()?;
    if entered.is_empty() {
        say!("no results entered yet; `periculum enter dense 512.4 GFLOP/s --source \"a friend\"` enters a score");
    }
    for EnteredRow { entered, result, wall } in entered {
        let Entered { what, value, unit, specimen, source } = result;
        let of = if specimen.is_empty() { String::new() } else { format!(" of {specimen}") };
        say!("{entered:>4}  {}  {what} {value} {unit}{of}, from {source}", date(wall));
    }
    Ok(())
}
