//! `periculum demo`: a climb on a simulated rig, shown from its middle on.

use std::path::PathBuf;
use std::process::ExitCode;

use anyhow::Result;

use super::DEMO_LEDGER;
use crate::briefing::{Briefing, SourceFile};
use crate::cli::{Common, Demo};
use crate::climbing::{Prepared, open_ledger};
use crate::{places, tui};

const RIG: &str = include_str!("../../../../demo/dome.rig.toml");
const PLAN: &str = include_str!("../../../../demo/dome.plan.toml");

/// So many trials have ended when the curtain goes up: the baseline, and the first steps of the ascent.
const BEFORE_CURTAIN: u32 = 6;

pub(super) fn run(demo: &Demo, common: &Common) -> Result<ExitCode> {
    let path = places::ledger(common, DEMO_LEDGER)?;
    let unfinished = Prepared::unfinished(open_ledger(&path)?, &common.sysroot, false).unwrap_or_else(|why| {
        eprintln!("periculum: the last demo can't go on, so a new one begins: {why:#}");
        None
    });
    let prepared = match unfinished {
        Some(unfinished) => unfinished,
        None => {
            let file = |name: &str, text: &str| SourceFile { path: PathBuf::from(name), text: text.to_owned() };
            let briefing = Briefing::of(file("dome.rig.toml", RIG), file("dome.plan.toml", PLAN))?;
            Prepared::new(briefing, open_ledger(&path)?, &common.sysroot, demo.simulation.seed)?
        }
    };
    tui::show(prepared, demo.simulation.pace, |climb| climb.trials() > BEFORE_CURTAIN)
}
