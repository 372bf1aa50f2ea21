//! `periculum attach`: what an instrument wrote into a file of its own, beside the readings of a climb.

use std::collections::BTreeSet;
use std::path::Path;
use std::process::ExitCode;

use anyhow::Result;
use jiff::tz::TimeZone;
use periculum_core::model::moment::Moment;
use periculum_ledger::{Attached, ClimbRow, Ledger};
use periculum_rigs::readings::{self, Column};

use crate::briefing::SourceFile;
use crate::cli::{Attach, Common};
use crate::climbing::open_ledger;
use crate::complaint::BadInput;
use crate::output::say;
use crate::places;
use crate::recalling::{recall, tell_past};
use crate::telling::attaching;

pub(super) fn run(attach: &Attach, common: &Common) -> Result<ExitCode> {
    let mut ledger = open_ledger(&places::ledger_to_read(common)?)?;
    let row = ledger.climb(attach.climb)?;
    match (&attach.file, &attach.take_off) {
        (Some(path), _) => put_on(&mut ledger, &row, path, attach.ahead)?,
        (None, Some(name)) => take_off(&mut ledger, row.climb, name)?,
        (None, None) => list(&ledger, row.climb)?,
    }
    Ok(ExitCode::SUCCESS)
}

fn put_on(ledger: &mut Ledger, row: &ClimbRow, path: &Path, ahead: f64) -> Result<()> {
    let story = tell_past(&ledger.lines(row.climb)?);
    let Some(began) = story.began.filter(|_| story.ended.is_some()) else {
        return Err(BadInput(attaching::not_over(row.climb)).into());
    };
    let file = SourceFile::read(path)?;
    let bad = |why: String| BadInput(format!("{}: {why}", path.display()));
    let columns = readings::read(&file.text, began, &TimeZone::system()).map_err(|why| bad(why.to_string()))?;
    let moved = |at: Moment| Moment::from_millis(at.millis() - (ahead * 1000.0).round() as i64);
    let is_within = |at: Moment| (began..=story.latest).contains(&at);
    let source = path.file_name().unwrap_or_default().to_string_lossy();
    let mut taken: BTreeSet<String> =
        recall(ledger, row)?.rig.sensors.iter().map(|sensor| sensor.name.clone()).collect();
    taken.extend(ledger.attached(row.climb)?.into_iter().map(|attached| attached.sensor));
    let mut all = Vec::new();
    for column in columns {
        let readings: Vec<(Moment, f64)> = column.readings.iter().map(|(at, reading)| (moved(*at), *reading)).collect();
        let within: Vec<(Moment, f64)> = readings.iter().copied().filter(|(at, _)| is_within(*at)).collect();
        if within.is_empty() {
            return Err(bad(outside(&column, readings.first(), row.climb, [began, story.latest])).into());
        }
        let of = described(column, &source);
        if !taken.insert(of.sensor.clone()) {
            return Err(bad(attaching::has_those_already(row.climb, &of.sensor)).into());
        }
        all.push((of, within));
    }
    ledger.attach(row.climb, &all)?;
    for (of, readings) in &all {
        say(attaching::attached(readings.len(), &of.sensor, row.climb));
    }
    Ok(())
}

fn described(column: Column, source: &str) -> Attached {
    let sensor = column.name();
    let Column { label, unit, decimals, .. } = column;
    Attached { sensor, label, unit, decimals, source: source.to_owned() }
}

/// Why nothing of a column can be attached.
fn outside(column: &Column, first: Option<&(Moment, f64)>, climb: i64, [began, ended]: [Moment; 2]) -> String {
    let Some((first, _)) = first else { return attaching::no_reading(&column.label) };
    attaching::none_within(&column.label, climb, instant(began), instant(ended), instant(*first))
}

fn instant(moment: Moment) -> String {
    let instant = jiff::Timestamp::from_millisecond(moment.millis());
    instant.map_or_else(|_| attaching::NO_TIME.to_owned(), |instant| instant.strftime("%Y-%m-%dT%H:%M:%SZ").to_string())
}

fn take_off(ledger: &mut Ledger, climb: i64, name: &str) -> Result<()> {
    if !ledger.detach(climb, name)? {
        let what = attaching::none_by_that_name(climb, name);
        return Err(BadInput(what).into());
    }
    say(attaching::taken_off(name, climb));
    Ok(())
}

fn list(ledger: &Ledger, climb: i64) -> Result<()> {
    let attached = ledger.attached(climb)?;
    if attached.is_empty() {
        say(attaching::nothing_attached(climb));
    }
    for Attached { sensor, label, unit, source, .. } in attached {
        let unit = if unit.is_empty() { String::new() } else { format!(", {unit}") };
        say(attaching::one_attached(&sensor, &label, &unit, &source));
    }
    Ok(())
}
