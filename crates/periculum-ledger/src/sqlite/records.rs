//! Own records, and results of others that were entered by hand.

use periculum_core::model::moment::Moment;
use rusqlite::{Connection, params};

use super::checksum::{Sum, check_row};
use crate::error::LedgerError;

/// The best score of a load in a climb.
#[derive(Clone, Debug, PartialEq)]
pub struct RecordRow {
    /// The climb.
    pub climb: i64,
    /// The trial.
    pub trial: u32,
    /// The load.
    pub load: String,
    /// On how many threads, in the words of a plan.
    pub threads: String,
    /// The score.
    pub value: f64,
    /// Its unit.
    pub unit: String,
    /// A number of which more is better.
    pub merit: f64,
}

/// A result that was entered by hand.
#[derive(Clone, Debug, PartialEq)]
pub struct EnteredRow {
    /// Its number.
    pub entered: i64,
    /// What it says.
    pub result: Entered,
    /// When it was entered, by this machine's clock.
    pub wall: Moment,
}

/// What somebody read, heard or measured elsewhere.
#[derive(Clone, Debug, PartialEq)]
pub struct Entered {
    /// A load, for its score, or a setting, for its mark.
    pub what: String,
    /// The number.
    pub value: f64,
    /// Its unit.
    pub unit: String,
    /// Which specimen reached it; empty where nobody knows.
    pub specimen: String,
    /// Where it is from.
    pub source: String,
}

/// The best score of each load, thread count and unit in each climb, at rungs that fell in none of its trials.
pub(crate) fn records(connection: &Connection) -> Result<Vec<RecordRow>, LedgerError> {
    let sql = "
WITH fallen AS (SELECT DISTINCT climb, rung FROM trials WHERE verdict = 'fell')
SELECT s.climb, s.trial, s.load, s.threads, s.value, s.unit, max(s.merit) FROM scores s
JOIN trials t ON t.climb = s.climb AND t.trial = s.trial AND t.verdict IN ('held', 'slipped')
LEFT JOIN fallen f ON f.climb = t.climb AND f.rung = t.rung
WHERE f.climb IS NULL
GROUP BY s.climb, s.load, s.threads, s.unit";
    let mut statement = connection.prepare(sql)?;
    let rows = statement.query_map([], |row| {
        Ok(RecordRow {
            climb: row.get(0)?,
            trial: row.get(1)?,
            load: row.get(2)?,
            threads: row.get(3)?,
            value: row.get(4)?,
            unit: row.get(5)?,
            merit: row.get(6)?,
        })
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
}

pub(crate) fn enter(connection: &Connection, result: &Entered, wall: Moment) -> Result<i64, LedgerError> {
    let Entered { what, value, unit, specimen, source } = result;
    // Whoever dies in between has entered nothing.
    let transaction = connection.unchecked_transaction()?;
    transaction.execute(
        "INSERT INTO entered (what, value, unit, specimen, source, wall) VALUES (?, ?, ?, ?, ?, ?)",
        params![what, value, unit, specimen, source, wall.millis()],
    )?;
    let number = transaction.last_insert_rowid();
    let sum = Sum::default().int(number).text(what).real(*value).text(unit).text(specimen).text(source);
    let sum = sum.int(wall.millis()).finish();
    transaction.execute("UPDATE entered SET checksum = ? WHERE entered = ?", params![sum, number])?;
    transaction.commit()?;
    Ok(number)
}

/// Every result that was entered, oldest first.
pub(crate) fn entered(connection: &Connection) -> Result<Vec<EnteredRow>, LedgerError> {
    let sql = "SELECT entered, what, value, unit, specimen, source, wall, checksum FROM entered ORDER BY entered";
    let mut statement = connection.prepare(sql)?;
    let mut rows = statement.query([])?;
    let mut entered = Vec::new();
    while let Some(row) = rows.next()? {
        let number: i64 = row.get(0)?;
        check_row(row, 7, || format!("result {number}, which was entered,"))?;
        let result = Entered {
            what: row.get(1)?,
            value: row.get(2)?,
            unit: row.get(3)?,
            specimen: row.get(4)?,
            source: row.get(5)?,
        };
        entered.push(EnteredRow { entered: number, result, wall: Moment::from_millis(row.get(6)?) });
    }
    Ok(entered)
}

/// Takes a result back; tells whether there was one of this number.
pub(crate) fn take_back(connection: &Connection, entered: i64) -> Result<bool, LedgerError> {
    Ok(connection.execute("DELETE FROM entered WHERE entered = ?", [entered])? > 0)
}
