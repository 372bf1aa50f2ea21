//! `periculum ledger`: lists climbs, or the trials and incidents of one.

use std::process::ExitCode;
use std::time::Instant;

use anyhow::Result;
use periculum_core::model::amount::written;
use periculum_core::model::pass::{Pass, PassReport, Workload};
use periculum_core::model::quantity::{counted, grouped, scored};
use periculum_core::story::TrialStory;
use periculum_ledger::{ClimbRow, IncidentRow, TrialRow};
use serde_json::json;

use super::date;
use crate::cli::{Common, Ledger};
use crate::climbing::{open_ledger, tell_dropped};
use crate::complaint::FAILED;
use crate::output::{complain, hand_out, say};
use crate::places;
use crate::recalling::{recall, tell_past};
use crate::remaining::Remaining;
use crate::telling::ledger;

pub(super) fn run(arguments: &Ledger, common: &Common) -> Result<ExitCode> {
    let mut ledger = open_ledger(&places::ledger_to_read(common)?)?;
    let mut code = ExitCode::SUCCESS;
    if arguments.check {
        let mut remaining = Remaining::from(Instant::now());
        let is_for_people = !arguments.listing.json;
        ledger.check_telling(|read, climbs| {
            // Once all tables were compared with their lines, lines are read once more for themselves.
            if let Some(seconds) = remaining.at(Instant::now(), read, 2 * climbs).filter(|_| is_for_people) {
                say(ledger::reads_again(read, climbs, seconds));
            }
        })?;
        tell_dropped(&ledger);
        let said = ledger::read_again(counted(ledger.dropped().len(), "problem"));
        if arguments.listing.json {
            complain(said);
        } else {
            say(said);
        }
        if !ledger.dropped().is_empty() {
            code = ExitCode::from(FAILED);
        }
    }
    match arguments.climb {
        Some(climb) if arguments.listing.json => climb_as_json(&ledger, climb)?,
        None if arguments.listing.json => climbs_as_json(&ledger)?,
        Some(climb) => list_climb(&ledger, climb)?,
        None => list_climbs(&ledger)?,
    }
    Ok(code)
}

fn list_climbs(ledger: &periculum_ledger::Ledger) -> Result<()> {
    let climbs = ledger.climbs()?;
    if climbs.is_empty() {
        say(ledger::NO_CLIMB_SO_FAR);
    }
    for row in &climbs {
        let end = match &row.end {
            Some(end) => end.sentence(),
            None if ledger.is_driven(row) => ledger::IS_BEING_CLIMBED.to_owned(),
            None => {
                let resume = places::typed(&format!("resume {}", row.climb), ledger.path());
                ledger::is_unfinished(&resume)
            }
        };
        let trials = if row.trials == 1 { "trial" } else { "trials" };
        let tested = row.tested.to_string();
        say(ledger::one_climb(
            row.climb,
            date(row.wall),
            &row.rig,
            &row.plan,
            row.trials,
            trials,
            row.falls,
            tested,
            end,
        ));
    }
    Ok(())
}

fn climbs_as_json(ledger: &periculum_ledger::Ledger) -> Result<()> {
    for row in ledger.climbs()? {
        let is_driven = row.end.is_none() && ledger.is_driven(&row);
        let ClimbRow { climb, id, plan, rig, specimen, use_name, seed, wall, end, trials, falls, tested, mark } = row;
        let told = json!({
            "kind": "climb", "climb": climb, "id": id.as_str(), "plan": plan, "rig": rig, "specimen": specimen, "use": use_name,
            "seed": seed, "begun": wall, "end": end, "is_driven": is_driven, "trials": trials, "falls": falls,
            "tested": tested, "mark": mark,
        });
        hand_out(told.to_string());
    }
    Ok(())
}

fn climb_as_json(ledger: &periculum_ledger::Ledger, climb: i64) -> Result<()> {
    ledger.climb(climb)?;
    for TrialRow { trial, rung, proof, verdict, incident, tested } in ledger.trials(climb)? {
        let told = json!({
            "kind": "trial", "trial": trial, "rung": rung, "proof": proof, "verdict": verdict, "incident": incident,
            "tested": tested,
        });
        hand_out(told.to_string());
    }
    for IncidentRow { at, trial, kind, place, into_pass, evidence, .. } in ledger.incidents(climb)? {
        let told = json!({
            "kind": "incident", "at": at, "trial": trial, "incident": kind, "place": place, "into_pass": into_pass,
            "evidence": evidence,
        });
        hand_out(told.to_string());
    }
    Ok(())
}

fn list_climb(ledger: &periculum_ledger::Ledger, climb: i64) -> Result<()> {
    let row = ledger.climb(climb)?;
    let rig = recall(ledger, &row)?.rig;
    say(ledger::climb_of(climb, &row.plan, &row.rig, &row.use_name, date(row.wall)));
    say(ledger::known_as(&row.id));
    let story = tell_past(&ledger.lines(climb)?);
    for trial in ledger.trials(climb)? {
        let verdict = trial.verdict.as_deref().unwrap_or(ledger::OPEN);
        let incident = trial.incident.as_deref().unwrap_or_default();
        say(ledger::one_trial(trial.trial, verdict, rig.written(&trial.rung), &trial.proof, trial.tested, incident));
        let told = story.trials.iter().find(|told| told.number == trial.trial);
        told.into_iter().flat_map(TrialStory::finished).for_each(|pass| say(ledger::of_a_trial(pass_line(pass))));
    }
    let incidents = ledger.incidents(climb)?;
    if !incidents.is_empty() {
        say(ledger::INCIDENTS);
    }
    for incident in &incidents {
        say(ledger::an_incident(incident_line(incident)));
    }
    Ok(())
}

/// A pass: its load, what it worked on, how long it ran, and its score, beside all its work over all its time.
fn pass_line((order, report): (&Pass, &PassReport)) -> String {
    let size = |work: &Workload| {
        let size = grouped(work.size.into());
        format!("  {size} {}, {}", work.size_name, written(work.bytes))
    };
    let size = report.workload.as_ref().map(size).unwrap_or_default();
    let over_time = report.over_time.map(|over_time| ledger::over_all_its_time(scored(over_time, over_time)));
    let score = report
        .score
        .as_ref()
        .map(|score| format!("  {} {}{}", scored(score.value, score.value), score.unit, over_time.unwrap_or_default()));
    let rounds = counted(report.rounds, "round");
    format!("{}{size}  {}, {rounds}{}", order.load, report.ran, score.unwrap_or_default())
}

fn incident_line(incident: &IncidentRow) -> String {
    let trial = incident.trial.map_or(ledger::NO_TRIAL.to_owned(), |trial| format!("trial {trial}"));
    let place = incident.place.as_ref().map(|place| format!(" on {place}")).unwrap_or_default();
    let into = incident.into_pass.map(|span| format!(" after {span}")).unwrap_or_default();
    format!("{trial}: {}{place}{into}: {}", incident.kind, incident.evidence)
}
