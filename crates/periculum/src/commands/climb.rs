//! `periculum climb`: climbs a plan, with the interface or without.

use std::path::Path;
use std::process::ExitCode;

use anyhow::Result;
use periculum_core::engine;
use periculum_ledger::Ledger;
use periculum_rigs::steady::wall_clock;

use super::LEDGER;
use crate::cli::{Climb, Common, Pace};
use crate::climbing::{Prepared, Wanted};
use crate::complaint::BadInput;
use crate::driving::Hands;
use crate::earlier::expected;
use crate::starting::Review;
use crate::telling::climbing;
use crate::{headless, places, tui};

pub(super) fn run(climb: &Climb, common: &Common) -> Result<ExitCode> {
    let wanted = match (&climb.plan, climb.again) {
        (Some(plan), _) => Wanted::Plan(plan.clone()),
        (None, Some(number)) => Wanted::Again(number),
        (None, None) => return Err(BadInput(climbing::NAME_A_PLAN.into()).into()),
    };
    let is_headless = climb.output.is_headless();
    if !is_headless {
        super::needs_terminal("climb", climbing::CLIMB_WITHOUT)?;
    }
    let ledger = places::ledger(common, LEDGER)?;
    if !is_headless && !climb.yes && !is_wanted(&wanted, &ledger, common)? {
        return Ok(ExitCode::SUCCESS);
    }
    let prepared = Prepared::of(&wanted, &ledger, &common.sysroot, climb.simulation.seed)?;
    if is_headless {
        return headless::drive(prepared, &climb.output, climb.simulation.pace.or(Some(Pace::Max)));
    }
    show(prepared, common, climb.simulation.pace)
}

/// Whether somebody who has seen what it would do begins it.
fn is_wanted(wanted: &Wanted, ledger: &Path, common: &Common) -> Result<bool> {
    let (briefing, seed) = wanted.briefing(ledger)?;
    let known = ledger.is_file().then(|| Ledger::open(ledger).ok()).flatten();
    let kinds = known.map(|ledger| expected(&ledger, &briefing, seed, wall_clock())).unwrap_or_default();
    tui::ask_to_begin(&Review::of(briefing, &common.sysroot, kinds)?)
}

/// Shows a climb while it is driven, and then those that are begun from there.
pub(super) fn show(prepared: Prepared, common: &Common, pace: Option<Pace>) -> Result<ExitCode> {
    show_from(prepared, common, pace, Hands::Somebodys, |_| true)
}

/// The same with whoever's hands; up to where `curtain` holds the first climb goes as fast as it can.
pub(super) fn show_from(
    prepared: Prepared,
    common: &Common,
    pace: Option<Pace>,
    hands: Hands,
    curtain: impl Fn(&engine::Climb) -> bool + Send + 'static,
) -> Result<ExitCode> {
    let ledger = prepared.ledger_path();
    let (mut code, mut wanted) = tui::show(prepared, pace, hands, curtain)?;
    while let Some(next) = wanted {
        let prepared = Prepared::of(&next, &ledger, &common.sysroot, None)?;
        (code, wanted) = tui::show(prepared, pace, Hands::Somebodys, |_| true)?;
    }
    Ok(code)
}
