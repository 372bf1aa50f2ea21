//! The tables that queries read, made from the entries of the journal.

use periculum_core::engine::{Mark, Profile};
use periculum_core::model::pass::PassReport;
use rusqlite::{Connection, OptionalExtension, Transaction, params};

use super::checksum::Sum;
use super::journal;
use crate::error::LedgerError;
use crate::record::{Change, Line, changes};

/// The tables that are made from the journal; each has a column `climb`.
const PROJECTED: [&str; 8] = ["ends", "trials", "passes", "scores", "incidents", "marks", "profiles", "notes"];

/// Brings the tables up to a line of the journal.
pub(crate) fn project(transaction: &Transaction, climb: i64, number: i64, line: &Line) -> Result<(), LedgerError> {
    let place = Place { transaction, climb, number };
    changes(line).into_iter().try_for_each(|change| make(&place, change))
}

/// A digest of everything that the tables say of a climb.
pub(crate) fn digest(connection: &Connection, climb: i64) -> Result<[u8; 16], LedgerError> {
    let mut sum = Sum::default();
    for table in PROJECTED {
        let mut select = connection.prepare_cached(&format!("SELECT * FROM {table} WHERE climb = ?"))?;
        let columns = select.column_count();
        let mut rows = select.query([climb])?;
        while let Some(row) = rows.next()? {
            sum = sum.columns(row, columns)?;
        }
    }
    Ok(sum.finish())
}

/// Checks the tables of a climb that is sealed.
///
/// # Errors
/// Where they are not those of then.
pub(crate) fn check(connection: &Connection, climb: i64) -> Result<(), LedgerError> {
    let mut select = connection.prepare_cached("SELECT tables FROM seals WHERE climb = ?")?;
    let sealed: Option<Option<Vec<u8>>> = select.query_row([climb], |row| row.get(0)).optional()?;
    match sealed.flatten() {
        Some(sealed) if sealed != digest(connection, climb)? => {
            Err(LedgerError::Altered { what: format!("the list of trials of climb {climb}") })
        }
        _ => Ok(()),
    }
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

/// Makes the tables of all climbs anew, as where earlier formats had others.
pub(crate) fn rebuild_all(transaction: &Transaction) -> Result<(), LedgerError> {
    let climbs: Vec<i64> =
        transaction.prepare("SELECT climb FROM climbs")?.query_map([], |row| row.get(0))?.collect::<Result<_, _>>()?;
    for climb in climbs {
        match rebuild(transaction, climb) {
            // What is damaged is dropped, and the rest is projected again, when all lines are checked.
            Ok(()) | Err(LedgerError::Damaged { .. }) => {}
            Err(other) => return Err(other),
        }
    }
    Ok(())
}

/// Where a change stands.
struct Place<'a> {
    transaction: &'a Transaction<'a>,
    climb: i64,
    /// The number of its line.
    number: i64,
}

impl Place<'_> {
    fn run(&self, sql: &str, values: impl rusqlite::Params) -> Result<(), LedgerError> {
        self.transaction.prepare_cached(sql)?.execute(values)?;
        Ok(())
    }
}

fn make(place: &Place, change: Change) -> Result<(), LedgerError> {
    let climb = place.climb;
    match change {
        Change::TrialBegan { trial, stage, rung, proof, at } => place.run(
            "INSERT INTO trials (climb, trial, stage, rung, proof, began) VALUES (?, ?, ?, ?, ?, ?)",
            params![climb, trial, stage, serde_json::to_string(rung)?, proof, at.millis()],
        ),
        Change::TrialEnded { trial, verdict, incident, tested } => place.run(
            "UPDATE trials SET verdict = ?, incident = ?, tested = ? WHERE climb = ? AND trial = ?",
            params![verdict.name(), incident.map(|kind| kind.name()), tested.millis(), climb, trial],
        ),
        Change::Rejudged { trial, verdict, incident } => place.run(
            "UPDATE trials SET verdict = ?, incident = ? WHERE climb = ? AND trial = ?",
            params![verdict.name(), incident.map(|kind| kind.name()), climb, trial],
        ),
        Change::PassBegan { trial, pass, order, at } => place.run(
            "INSERT INTO passes (climb, trial, pass, load, threads, began) VALUES (?, ?, ?, ?, ?, ?)",
            params![climb, trial, pass, order.load, order.threads.to_string(), at.millis()],
        ),
        Change::PassEnded { trial, pass, report } => end_pass(place, trial, pass, report),
        Change::Incident { entry, at, trial, pass, incident } => place.run(
            "INSERT INTO incidents VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
            params![
                climb,
                place.number,
                entry,
                at.millis(),
                trial,
                pass,
                incident.kind.name(),
                incident.place,
                incident.into_pass.map(|span| span.millis()),
                incident.evidence.to_string()
            ],
        ),
        Change::MarkSet(Mark { rung, setting, proof, trial, stage }) => place.run(
            "INSERT INTO marks (climb, trial, stage, setting, rung, proof) VALUES (?, ?, ?, ?, ?, ?)",
            params![climb, trial, stage, setting, serde_json::to_string(rung)?, proof],
        ),
        Change::MarkWithdrawn { mark, trial } => place.run(
            "UPDATE marks SET withdrawn_in = ? WHERE climb = ? AND trial = ? AND stage = ?",
            params![trial, climb, mark.trial, mark.stage],
        ),
        Change::ProfileSaved(Profile { name, rung, mark, soaked }) => place.run(
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
        Change::Ended { at, end, trials, falls, tested } => place.run(
            "INSERT INTO ends VALUES (?, ?, ?, ?, ?, ?)",
            params![climb, at.millis(), serde_json::to_string(end)?, trials, falls, tested.millis()],
        ),
        Change::Note { entry, text } => place.run(
            "INSERT INTO notes VALUES (?, ?, ?, (SELECT max(trial) FROM trials WHERE climb = ?), ?)",
            params![climb, place.number, entry, climb, text],
        ),
    }
}

fn end_pass(place: &Place, trial: u32, pass: usize, report: &PassReport) -> Result<(), LedgerError> {
    place.run(
        "UPDATE passes SET ran = ?, rounds = ? WHERE climb = ? AND trial = ? AND pass = ?",
        params![report.ran.millis(), report.rounds, place.climb, trial, pass],
    )?;
    // The name of a score begins with the load's, which the row of the pass has.
    for (behind, score) in report.scores("") {
        place.run(
            "INSERT INTO scores SELECT climb, trial, pass, load || ?, threads, ?, ?, ? FROM passes
            WHERE climb = ? AND trial = ? AND pass = ?",
            params![behind, score.value, score.unit, score.merit(), place.climb, trial, pass],
        )?;
    }
    Ok(())
}
