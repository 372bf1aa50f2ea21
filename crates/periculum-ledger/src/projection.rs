//! The tables that queries read, made from the entries of the journal.

use periculum_core::engine::{Entry, Mark, Profile};
use periculum_core::incident::Incident;
use periculum_core::moment::Moment;
use periculum_core::pass::PassReport;
use rusqlite::{Transaction, params};

use crate::error::LedgerError;
use crate::journal::{self, Line};
use crate::schema::PROJECTED;

/// Brings the tables up to a line of the journal.
pub(crate) fn project(transaction: &Transaction, climb: i64, number: i64, line: &Line) -> Result<(), LedgerError> {
    for (index, entry) in line.entries.iter().enumerate() {
        project_entry(&Place { transaction, climb, number, index, at: line.at }, entry)?;
    }
    Ok(())
}

/// Makes the tables of a climb anew from its journal.
pub(crate) fn rebuild(transaction: &Transaction, climb: i64) -> Result<(), LedgerError> {
    for table in PROJECTED {
        transaction.execute(&format!("DELETE FROM {table} WHERE climb = ?"), [climb])?;
    }
    for (number, line) in (0..).zip(journal::lines(transaction, climb)?) {
        project(transaction, climb, number, &line)?;
    }
    Ok(())
}

/// Where an entry stands.
struct Place<'a> {
    transaction: &'a Transaction<'a>,
    climb: i64,
    number: i64,
    index: usize,
    at: Moment,
}

impl Place<'_> {
    fn run(&self, sql: &str, values: impl rusqlite::Params) -> Result<(), LedgerError> {
        self.transaction.prepare_cached(sql)?.execute(values)?;
        Ok(())
    }
}

fn project_entry(place: &Place, entry: &Entry) -> Result<(), LedgerError> {
    let (climb, at) = (place.climb, place.at.millis());
    match entry {
        Entry::TrialBegan { trial, stage, rung, proof, .. } => place.run(
            "INSERT INTO trials (climb, trial, stage, rung, proof, began) VALUES (?, ?, ?, ?, ?, ?)",
            params![climb, trial, stage, serde_json::to_string(rung)?, proof, at],
        ),
        Entry::TrialEnded { trial, verdict, incident, tested, .. } => place.run(
            "UPDATE trials SET verdict = ?, incident = ?, tested = ? WHERE climb = ? AND trial = ?",
            params![verdict.name(), incident.map(|kind| kind.name()), tested.millis(), climb, trial],
        ),
        Entry::PassBegan { trial, pass, order } => place.run(
            "INSERT INTO passes (climb, trial, pass, load, began) VALUES (?, ?, ?, ?, ?)",
            params![climb, trial, pass, order.load, at],
        ),
        Entry::PassEnded { trial, pass, report } => end_pass(place, *trial, *pass, report),
        Entry::Incident { trial, pass, incident } => add_incident(place, *trial, *pass, incident),
        Entry::MarkSet { mark: Mark { rung, setting, proof, trial, stage } } => place.run(
            "INSERT INTO marks (climb, trial, stage, setting, rung, proof) VALUES (?, ?, ?, ?, ?, ?)",
            params![climb, trial, stage, setting, serde_json::to_string(rung)?, proof],
        ),
        Entry::MarkWithdrawn { mark, trial } => place.run(
            "UPDATE marks SET withdrawn_in = ? WHERE climb = ? AND trial = ? AND stage = ?",
            params![trial, climb, mark.trial, mark.stage],
        ),
        Entry::ProfileSaved { profile: Profile { name, rung, mark, soaked } } => place.run(
            "INSERT OR REPLACE INTO profiles VALUES (?, ?, ?, ?, ?, ?)",
            params![
                climb,
                name,
                serde_json::to_string(rung)?,
                mark.as_ref().map(|mark| mark.trial),
                mark.as_ref().map(|mark| mark.stage),
                soaked
            ],
        ),
        Entry::Ended { end, trials, falls, tested, .. } => place.run(
            "INSERT INTO ends VALUES (?, ?, ?, ?, ?, ?)",
            params![climb, at, end.sentence(), trials, falls, tested.millis()],
        ),
        Entry::Began { .. }
        | Entry::StageBegan { .. }
        | Entry::AboutToApply { .. }
        | Entry::Asked { .. }
        | Entry::CeilingRaised { .. }
        | Entry::OthersBusy { .. }
        | Entry::Resting { .. }
        | Entry::StageEnded { .. }
        | Entry::Operator { .. }
        | Entry::Paused
        | Entry::Resumed
        | Entry::GoingHome { .. } => Ok(()),
    }
}

fn end_pass(place: &Place, trial: u32, pass: usize, report: &PassReport) -> Result<(), LedgerError> {
    place.run(
        "UPDATE passes SET ran = ?, rounds = ? WHERE climb = ? AND trial = ? AND pass = ?",
        params![report.ran.millis(), report.rounds, place.climb, trial, pass],
    )?;
    let Some(score) = &report.score else { return Ok(()) };
    place.run(
        "INSERT INTO scores SELECT climb, trial, pass, load, ?, ? FROM passes WHERE climb = ? AND trial = ? AND pass = ?",
        params![score.value, score.unit, place.climb, trial, pass],
    )
}

fn add_incident(
    place: &Place,
    trial: Option<u32>,
    pass: Option<usize>,
    incident: &Incident,
) -> Result<(), LedgerError> {
    place.run(
        "INSERT INTO incidents VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
        params![
            place.climb,
            place.number,
            place.index,
            place.at.millis(),
            trial,
            pass,
            incident.kind.name(),
            incident.place,
            incident.into_pass.map(|span| span.millis()),
            incident.evidence
        ],
    )
}
