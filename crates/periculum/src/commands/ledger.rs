//! `periculum ledger`: lists climbs, or the trials and incidents of one.

use std::process::ExitCode;

use anyhow::Result;
use periculum_ledger::{ClimbRow, IncidentRow};

use super::{LEDGER, date};
use crate::cli::{Common, Ledger};
use crate::climbing::{open_ledger, recall, tell_dropped};
use crate::places;

pub(super) fn run(arguments: &Ledger, common: &Common) -> Result<ExitCode> {
    let mut ledger = open_ledger(&places::ledger(common, LEDGER)?)?;
    if arguments.check {
        ledger.check()?;
        tell_dropped(&ledger);
        println!("every line was read again: {} dropped", ledger.dropped().len());
    }
    match arguments.climb {
        Some(climb) => list_climb(&ledger, climb)?,
        None => list_climbs(&ledger.climbs()?),
    }
    Ok(ExitCode::SUCCESS)
}

fn list_climbs(climbs: &[ClimbRow]) {
    if climbs.is_empty() {
        println!("no climb so far; `periculum demo` shows one");
        return;
    }
    for row in climbs {
        let end = row.end.as_deref().unwrap_or("not finished; `periculum resume` goes on with it");
        println!(
            "{:>4}  {}  {:<12} {:<16} {:>3} trials {:>3} fell  {:>12}  {end}",
            row.climb,
            date(row.wall),
            row.rig,
            row.plan,
            row.trials,
            row.falls,
            row.tested.to_string()
        );
    }
}

fn list_climb(ledger: &periculum_ledger::Ledger, climb: i64) -> Result<()> {
    let row = ledger.climb(climb)?;
    let rig = recall(ledger, &row)?.rig;
    println!("climb {climb}: {} on {}, for {}, begun {}", row.plan, row.rig, row.use_name, date(row.wall));
    for trial in ledger.trials(climb)? {
        println!(
            "{:>4}  {:<8} {}  {}  {}  {}",
            trial.trial,
            trial.verdict.as_deref().unwrap_or("open"),
            rig.written(&trial.rung),
            trial.proof,
            trial.tested,
            trial.incident.as_deref().unwrap_or_default()
        );
    }
    let incidents = ledger.incidents(climb)?;
    if !incidents.is_empty() {
        println!("incidents:");
    }
    for incident in &incidents {
        println!("  {}", incident_line(incident));
    }
    Ok(())
}

fn incident_line(incident: &IncidentRow) -> String {
    let trial = incident.trial.map_or("no trial".to_owned(), |trial| format!("trial {trial}"));
    let place = incident.place.as_ref().map(|place| format!(" on {place}")).unwrap_or_default();
    let into = incident.into_pass.map(|span| format!(" after {span}")).unwrap_or_default();
    format!("{trial}: {}{place}{into}: {}", incident.kind, incident.evidence)
}
