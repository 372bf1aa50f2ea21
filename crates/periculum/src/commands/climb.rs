//! `periculum climb`: climbs a plan, with the interface or without.

use std::process::ExitCode;

use anyhow::Result;

use super::LEDGER;
use crate::briefing::Briefing;
use crate::cli::{Climb, Common};
use crate::climbing::{Prepared, open_ledger};
use crate::{headless, places, tui};

pub(super) fn run(climb: &Climb, common: &Common) -> Result<ExitCode> {
    let briefing = Briefing::read(&climb.plan)?;
    let ledger = open_ledger(&places::ledger(common, LEDGER)?)?;
    if let Some(waiting) = ledger.unfinished()? {
        eprintln!(
            "periculum: climb {} of {} is not finished; `periculum resume` goes on with it",
            waiting.climb, waiting.rig
        );
    }
    let prepared = Prepared::new(briefing, ledger, &common.sysroot, climb.simulation.seed)?;
    if climb.output.headless {
        return headless::drive(prepared, &climb.output, climb.simulation.pace.or(Some(crate::cli::Pace::Max)));
    }
    tui::show(prepared, climb.simulation.pace, |_| true)
}
