//! `periculum demo`: a climb on a simulated rig, shown from its middle on, beside earlier ones.

use std::cmp::Reverse;
use std::fs;
use std::path::{Path, PathBuf};
use std::process::ExitCode;
use std::time::Instant;

use anyhow::Result;
use periculum_core::model::moment::Moment;
use periculum_ledger::{ClimbRow, Ledger};
use periculum_rigs::steady::wall_clock;

use super::{DEMO_LEDGER, climb};
use crate::briefing::{Briefing, SourceFile};
use crate::cli::{Common, Demo, Pace};
use crate::climbing::{Prepared, open_ledger};
use crate::driving::{Hands, Operator};
use crate::output::{complain, say};
use crate::places;
use crate::practice::{self, Practice};
use crate::remaining::seconds_left;
use crate::telling::climbing;

/// A rig file and a plan file.
type Files = [&'static str; 2];

const LIGHT: Files = of_rig(practice::DOME);
const QUIET: Files = [practice::DOME.rig, include_str!("../../../../demo/quiet.plan.toml")];
const PAYS: Files = [practice::DOME.rig, include_str!("../../../../demo/pays.plan.toml")];

const fn of_rig(practice: Practice) -> Files {
    [practice.rig, practice.plan]
}

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

/// What there was before the first climb of a rig. Under the dome: specimens to compare, one of them again when it had aged, a
/// processor with less voltage at the same clock, and scores that stop paying; of others one specimen.
fn earlier_of(practice: Practice) -> Vec<Earlier> {
    if practice.name != practice::DOME.name {
        return vec![earlier(of_rig(practice), 12, practice.earlier, 0)];
    }
    vec![
        earlier(LIGHT, 3, practice.earlier, 0),
        earlier(LIGHT, 8, 401, 0),
        earlier(LIGHT, 5, 401, 0),
        earlier(PAYS, 11, 62, 0),
        earlier(QUIET, 11, 48, 0),
        earlier(LIGHT, 3, 21, 14),
    ]
}

/// Milliseconds of a day.
const DAY: i64 = 86_400_000;

pub(super) fn run(demo: &Demo, common: &Common) -> Result<ExitCode> {
    let instead = climbing::DEMO_WITHOUT;
    super::needs_terminal("demo", instead)?;
    let practice = demo.rig.as_deref().and_then(practice::named).unwrap_or(practice::DOME);
    let path = places::ledger(common, DEMO_LEDGER)?;
    let rows = open_ledger(&path)?.climbs()?;
    match rows.iter().find(|row| row.rig == practice.name) {
        _ if rows.is_empty() => fill_aside(&path, common)?,
        None => fill(|| open_ledger(&path), earlier_of(practice), common)?,
        // The first of each rig is an earlier one, which was left on its way.
        Some(earlier) if earlier.end.is_none() => finish(&path, earlier.climb, common)?,
        Some(_) => {}
    }
    let prepared = match unfinished(&path, practice, common)? {
        Some(unfinished) => unfinished,
        None => {
            let briefing = read(practice.rig, practice.plan)?;
            Prepared::new(briefing, open_ledger(&path)?, &common.sysroot, demo.simulation.seed)?
        }
    };
    let before_curtain = practice.before_curtain;
    climb::show_from(prepared, common, demo.simulation.pace, Hands::Simulated, move |climb| {
        climb.trials() > before_curtain
    })
}

/// The newest climb of the rig that was not finished.
fn unfinished(ledger: &Path, practice: Practice, common: &Common) -> Result<Option<Prepared>> {
    let is_wanted = |row: &ClimbRow| row.rig == practice.name;
    let ledger = open_ledger(ledger)?;
    let rows = ledger.climbs()?;
    let waits = rows.iter().rev().find(|row| row.end.is_none() && is_wanted(row)).map(|row| row.climb);
    let Some(number) = waits else { return Ok(None) };
    Ok(Prepared::unfinished(ledger, &common.sysroot, Some(number), false).unwrap_or_else(|why| {
        complain(climbing::new_demo(&why));
        None
    }))
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
    let draft = || Ok(Ledger::draft(&aside)?);
    let mut all: Vec<Earlier> = practice::RIGS.into_iter().flat_map(earlier_of).collect();
    all.sort_by_key(|earlier| Reverse(earlier.days_ago));
    fill(draft, all, common)?;
    draft()?.take_place_of(path)?;
    Ok(fs::remove_dir_all(folder)?)
}

/// Climbs that are over, so that there is something to look at and to compare.
fn fill(ledger: impl Fn() -> Result<Ledger>, all: Vec<Earlier>, common: &Common) -> Result<()> {
    let (count, started) = (all.len(), Instant::now());
    say(climbing::first_start(count));
    for (nth, Earlier { files: [rig, plan], specimen, days_ago, aged }) in (1..).zip(all) {
        let began = Moment::from_millis(wall_clock().millis() - DAY * days_ago);
        let aged = format!("\n[adapter.simulated.silicon]\naged = {:.3}\n", f64::from(aged) / 1000.0);
        let is_plain = rig == practice::DOME.rig;
        let rig = if is_plain { format!("{rig}{aged}") } else { rig.to_owned() };
        let briefing = read(&rig, plan)?;
        let left = seconds_left(started.elapsed(), nth - 1, count).map(climbing::seconds_left).unwrap_or_default();
        say(climbing::first_start_at(nth, count, &briefing.rig.name, &briefing.plan.name, left));
        let prepared = Prepared::begun(briefing, ledger()?, &common.sysroot, Some(specimen), began)?;
        drive_to_end(prepared)?;
    }
    Ok(())
}

/// Goes on with an earlier climb to its end.
fn finish(path: &Path, number: i64, common: &Common) -> Result<()> {
    match Prepared::unfinished(open_ledger(path)?, &common.sysroot, Some(number), false)? {
        Some(prepared) => drive_to_end(prepared),
        None => Ok(()),
    }
}

fn drive_to_end(prepared: Prepared) -> Result<()> {
    let (_words, operator) = Operator::new();
    let (mut driver, first, _claim) = prepared.driver(operator.with_hands(), Some(Pace::Max), |_| ());
    driver.drive(first, |_| false)?;
    Ok(())
}

fn read(rig: &str, plan: &str) -> Result<Briefing> {
    let file = |name: &str, text: &str| SourceFile { path: PathBuf::from(name), text: text.to_owned() };
    Briefing::of(file(climbing::DEMO_RIG, rig), file(climbing::DEMO_PLAN, plan))
}
