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
use crate::telling::results;

pub(super) fn run(enter: &Enter, common: &Common) -> Result<ExitCode> {
    let ledger = open_ledger(&places::ledger(common, LEDGER)?)?;
    if let Some(number) = enter.take_back {
        if !ledger.take_back(number)? {
            return Err(BadInput(results::no_such_result(number)).into());
        }
        say(results::taken_back(number));
        return Ok(ExitCode::SUCCESS);
    }
    match result(enter)? {
        Some(result) => say(results::written_down(ledger.enter(&result, wall_clock())?)),
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
        return Err(BadInput(results::cannot_be_one(value)).into());
    }
    if source.trim().is_empty() {
        return Err(BadInput(results::NEEDS_SOURCE.into()).into());
    }
    let (what, unit, specimen, source) = (what.clone(), unit.clone(), enter.specimen.clone(), source.clone());
    Ok(Some(Entered { what, value, unit, specimen, source }))
}

fn list(ledger: &Ledger) -> Result<()> {
    let entered = ledger.entered()?;
    if entered.is_empty() {
        say(results::NONE_SO_FAR);
    }
    for EnteredRow { entered, result, wall } in entered {
        let Entered { what, value, unit, specimen, source } = result;
        let of = if specimen.is_empty() { String::new() } else { format!(" of {specimen}") };
        say(results::entered_one(entered, date(wall), &what, value, &unit, &of, &source));
    }
    Ok(())
}
