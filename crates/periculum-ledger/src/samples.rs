//! Sensor readings: many, cheap, and never in the way of a verdict.

use std::collections::BTreeMap;

use periculum_core::moment::Moment;
use periculum_core::series::Series;
use rusqlite::{Connection, OptionalExtension, params};

use crate::error::LedgerError;

/// Adds readings taken at these moments, in one transaction.
pub(crate) fn add(
    connection: &mut Connection,
    climb: i64,
    readings: &[(Moment, BTreeMap<String, f64>)],
) -> Result<(), LedgerError> {
    let transaction = connection.transaction()?;
    {
        let mut insert = transaction.prepare_cached("INSERT OR REPLACE INTO samples VALUES (?, ?, ?, ?)")?;
        for (at, readings) in readings {
            for (sensor, value) in readings.iter().filter(|(_, value)| value.is_finite()) {
                insert.execute(params![climb, sensor, at.millis(), value])?;
            }
        }
    }
    Ok(transaction.commit()?)
}

/// Every reading of a climb, sensor by sensor, each in the order of time.
pub(crate) fn of_climb(connection: &Connection, climb: i64) -> Result<BTreeMap<String, Series>, LedgerError> {
    let mut statement =
        connection.prepare("SELECT sensor, at, value FROM samples WHERE climb = ? ORDER BY sensor, at")?;
    let mut rows = statement.query([climb])?;
    let mut found: BTreeMap<String, Series> = BTreeMap::new();
    while let Some(row) = rows.next()? {
        let (sensor, at, value): (String, i64, f64) = (row.get(0)?, row.get(1)?, row.get(2)?);
        found.entry(sensor).or_default().push(Moment::from_millis(at), value);
    }
    Ok(found)
}

/// When a climb was last heard of through its sensors.
pub(crate) fn last(connection: &Connection, climb: i64) -> Result<Option<Moment>, LedgerError> {
    let found: Option<Option<i64>> =
        connection.query_row("SELECT max(at) FROM samples WHERE climb = ?", [climb], |row| row.get(0)).optional()?;
    Ok(found.flatten().map(Moment::from_millis))
}
