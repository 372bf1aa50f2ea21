//! `periculum demo`: a climb on a simulated rig, shown from its middle on, beside earlier ones.

use std::fs;
use std::path::{Path, PathBuf};
use std::process::ExitCode;

use anyhow::Result;
use periculum_core::model::moment::Moment;
use periculum_rigs::steady::wall_clock;

use super::{DEMO_LEDGER, climb};
use crate::briefing::{Briefing, SourceFile};
use crate::cli::{Common, Demo, Pace};
use crate::climbing::{Prepared, open_ledger};
use crate::driving::Operator;
use crate::output::{complain, say};
use crate::places;
use crate::practice;
use crate::telling::climbing;

/// A rig file and a plan file.
type Files = [&'static str; 2];

const LIGHT: Files = [practice::DOME, include_str!("../../../../demo/dome.plan.toml")];
const VAULT: Files = [practice::VAULT, include_str!("../../../../demo/vault.plan.toml")];
const QUIET: Files = [practice::DOME, include_str!("../../../../demo/quiet.plan.toml")];
const PAYS: Files = [practice::DOME, include_str!("../../../../demo/pays.plan.toml")];

/// An earlier climb of the demo.
struct Earlier {
    files: Files,
    specimen: u64,
    days_ago: i64,
    /// What the specimen needs more than when it was new, mV.
    aged: u32,
}

const fn earlier(files: Files, specimen: u64, days_ago: i64, aged: u32) -> Earlier {
    Earlier { files, specimen, days_ago, aged }
}

/// What a ledger without any climb is filled with: specimens to compare, one of them again when it had aged, a processor
/// with less voltage at the same clock, scores that stop paying, and a rig of another kind.
const EARLIER: [Earlier; 7] = [
    earlier(LIGHT, 3, 402, 0),
    earlier(LIGHT, 8, 401, 0),
    earlier(LIGHT, 5, 401, 0),
    earlier(VAULT, 4, 93, 0),
    earlier(PAYS, 11, 62, 0),
    earlier(QUIET, 11, 48, 0),
    earlier(LIGHT, 3, 21, 14),
];

/// Milliseconds of a day.
const DAY: i64 = 86_400_000;

/// So many trials have ended when the curtain goes up: the baseline, and the first steps of the ascent.
const BEFORE_CURTAIN: u32 = 6;

pub(super) fn run(demo: &Demo, common: &Common) -> Result<ExitCode> {
    let instead = climbing::DEMO_WITHOUT;
    super::needs_terminal("demo", instead)?;
    let path = places::ledger(common, DEMO_LEDGER)?;
    if open_ledger(&path)?.climbs()?.is_empty() {
        say(climbing::first_start(EARLIER.len()));
        fill_aside(&path, common)?;
    }
    let ledger = open_ledger(&path)?;
    let unfinished = Prepared::unfinished(ledger, &common.sysroot, None, false).unwrap_or_else(|why| {
        complain(climbing::new_demo(&why));
        None
    });
    let prepared = match unfinished {
        Some(unfinished) => unfinished,
        None => Prepared::new(read(LIGHT[0], LIGHT[1])?, open_ledger(&path)?, &common.sysroot, demo.simulation.seed)?,
    };
    climb::show(prepared, common, demo.simulation.pace, |climb| climb.trials() > BEFORE_CURTAIN)
}

/// What is claimed while the ledger itself is made.
const ALL_RIGS: &str = climbing::DEMO_RIGS;

/// Fills a ledger aside, which takes the place of the empty one when all is in it: a first start that is ended on its way
/// leaves nothing half made.
fn fill_aside(path: &Path, common: &Common) -> Result<()> {
    let _alone = open_ledger(path)?.claim(ALL_RIGS)?;
    let mut folder = path.as_os_str().to_owned();
    folder.push(".first-start");
    let folder = PathBuf::from(folder);
    if folder.exists() {
        fs::remove_dir_all(&folder)?;
    }
    let aside = folder.join("ledger");
    fill(&aside, common)?;
    fs::rename(aside, path)?;
    Ok(fs::remove_dir_all(folder)?)
}

/// Climbs that are over, so that there is something to look at and to compare.
fn fill(path: &Path, common: &Common) -> Result<()> {
    for Earlier { files: [rig, plan], specimen, days_ago, aged } in EARLIER {
        let began = Moment::from_millis(wall_clock().millis() - DAY * days_ago);
        let aged = format!("\n[adapter.simulated.silicon]\naged = {:.3}\n", f64::from(aged) / 1000.0);
        let rig = if rig.contains("[adapter.simulated.silicon]") { rig.to_owned() } else { format!("{rig}{aged}") };
        let briefing = read(&rig, plan)?;
        let prepared = Prepared::begun(briefing, open_ledger(path)?, &common.sysroot, Some(specimen), began)?;
        let (_words, operator) = Operator::new();
        let (mut driver, first, _claim) = prepared.driver(operator, Some(Pace::Max), |_| ());
        driver.drive(first, |_| false)?;
    }
    Ok(())
}

fn read(rig: &str, plan: &str) -> Result<Briefing> {
    let file = |name: &str, text: &str| SourceFile { path: PathBuf::from(name), text: text.to_owned() };
    Briefing::of(file(climbing::DEMO_RIG, rig), file(climbing::DEMO_PLAN, plan))
}
