//! What views and commands ask of a ledger.

use periculum_core::model::moment::{Moment, Span};
use rusqlite::{Connection, OptionalExtension, Row};

use super::checksum::check_row;
use crate::error::LedgerError;
use crate::rows::{ClimbId, ClimbRow, IncidentRow, TrialRow};

const CLIMBS: &str = "
SELECT c.climb, c.plan, c.rig, c.specimen, c.use_name, c.seed, c.wall, c.id, c.checksum, e.how,
    (SELECT count(*) FROM trials t WHERE t.climb = c.climb),
    (SELECT count(*) FROM trials t WHERE t.climb = c.climb AND t.verdict = 'fell'),
    (SELECT coalesce(sum(t.tested), 0) FROM trials t WHERE t.climb = c.climb),
    (SELECT m.rung FROM marks m WHERE m.climb = c.climb AND m.withdrawn_in IS NULL ORDER BY m.stage DESC LIMIT 1)
FROM climbs c LEFT JOIN ends e ON e.climb = c.climb";

pub(crate) fn climbs(connection: &Connection) -> Result<Vec<ClimbRow>, LedgerError> {
    all(connection, &format!("{CLIMBS} ORDER BY c.climb"))
}

fn all(connection: &Connection, sql: &str) -> Result<Vec<ClimbRow>, LedgerError> {
    let mut statement = connection.prepare(sql)?;
    let mut rows = statement.query([])?;
    let mut climbs = Vec::new();
    while let Some(row) = rows.next()? {
        climbs.push(climb_row(row)?);
    }
    Ok(climbs)
}

/// The numbers of all climbs.
pub(crate) fn numbers(connection: &Connection) -> Result<Vec<i64>, LedgerError> {
    let mut select = connection.prepare("SELECT climb FROM climbs ORDER BY climb")?;
    Ok(select.query_map([], |row| row.get(0))?.collect::<Result<_, _>>()?)
}

fn first(connection: &Connection, sql: &str, values: impl rusqlite::Params) -> Result<Option<ClimbRow>, LedgerError> {
    let mut statement = connection.prepare(sql)?;
    let mut rows = statement.query(values)?;
    rows.next()?.map(climb_row).transpose()
}

pub(crate) fn climb(connection: &Connection, climb: i64) -> Result<ClimbRow, LedgerError> {
    first(connection, &format!("{CLIMBS} WHERE c.climb = ?"), [climb])?.ok_or(LedgerError::NoSuchClimb { climb })
}

/// The number of the climb of this identifier.
pub(crate) fn number(connection: &Connection, id: &ClimbId) -> Result<i64, LedgerError> {
    let mut select = connection.prepare_cached("SELECT climb FROM climbs WHERE id = ?")?;
    let found = select.query_row([id.as_str()], |row| row.get(0)).optional()?;
    found.ok_or_else(|| LedgerError::UnknownClimb { id: id.clone() })
}

/// The climbs that have not ended, the newest first.
pub(crate) fn unfinished(connection: &Connection) -> Result<Vec<ClimbRow>, LedgerError> {
    all(connection, &format!("{CLIMBS} WHERE e.climb IS NULL ORDER BY c.climb DESC"))
}

/// The texts of the rig and the plan of a climb.
pub(crate) fn texts(connection: &Connection, climb: i64) -> Result<(String, String), LedgerError> {
    let sql = "SELECT climb, rig_text, plan_text, texts_checksum FROM climbs WHERE climb = ?";
    let mut statement = connection.prepare(sql)?;
    let mut rows = statement.query([climb])?;
    let row = rows.next()?.ok_or(LedgerError::NoSuchClimb { climb })?;
    check_row(row, 3, || format!("the rig and the plan of climb {climb}"))?;
    Ok((row.get(1)?, row.get(2)?))
}

pub(crate) fn trials(connection: &Connection, climb: i64) -> Result<Vec<TrialRow>, LedgerError> {
    let sql =
        "SELECT trial, rung, proof, verdict, incident, coalesce(tested, 0) FROM trials WHERE climb = ? ORDER BY trial";
    let mut statement = connection.prepare(sql)?;
    let mut rows = statement.query([climb])?;
    let mut trials = Vec::new();
    while let Some(row) = rows.next()? {
        trials.push(TrialRow {
            trial: row.get(0)?,
            rung: serde_json::from_str(&row.get::<_, String>(1)?)?,
            proof: row.get(2)?,
            verdict: row.get(3)?,
            incident: row.get(4)?,
            tested: span(row, 5)?,
        });
    }
    Ok(trials)
}

pub(crate) fn incidents(connection: &Connection, climb: i64) -> Result<Vec<IncidentRow>, LedgerError> {
    let sql = "SELECT at, trial, kind, place, into_pass, evidence FROM incidents WHERE climb = ? ORDER BY line, entry";
    let mut statement = connection.prepare(sql)?;
    let rows = statement.query_map([climb], |row| {
        Ok(IncidentRow {
            at: Moment::from_millis(row.get(0)?),
            trial: row.get(1)?,
            kind: row.get(2)?,
            place: row.get(3)?,
            into_pass: row.get::<_, Option<u64>>(4)?.map(Span::from_millis),
            evidence: row.get(5)?,
        })
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
}

fn climb_row(row: &Row) -> Result<ClimbRow, LedgerError> {
    check_row(row, 8, || format!("the head of climb {}", row.get(0).unwrap_or(0)))?;
    Ok(ClimbRow {
        climb: row.get(0)?,
        plan: row.get(1)?,
        rig: row.get(2)?,
        specimen: row.get(3)?,
        use_name: row.get(4)?,
        seed: row.get(5)?,
        wall: Moment::from_millis(row.get(6)?),
        id: ClimbId::written(row.get::<_, String>(7)?),
        end: row.get::<_, Option<String>>(9)?.map(|end| serde_json::from_str(&end)).transpose()?,
        trials: row.get(10)?,
        falls: row.get(11)?,
        tested: span(row, 12)?,
        mark: row.get::<_, Option<String>>(13)?.and_then(|rung| serde_json::from_str(&rung).ok()),
    })
}

fn span(row: &Row, column: usize) -> rusqlite::Result<Span> {
    Ok(Span::from_millis(row.get(column)?))
}
