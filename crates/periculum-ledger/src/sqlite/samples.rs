//! Sensor readings: many, cheap, and never in the way of a verdict.
//!
//! New readings are rows of `tail`, all at its end, so that a set of them touches few pages. When there are enough,
//! they are packed: a row of `runs` is what one sensor read in a stretch of time. What comes in large sets, as from a clock that runs
//! ahead of the wall's, is packed at once.

use std::collections::BTreeMap;

use periculum_core::model::moment::Moment;
use periculum_core::story::series::Series;
use rusqlite::{Connection, Transaction, TransactionBehavior, params};

use super::checksum::{Sum, check_row};
use crate::error::LedgerError;

/// So many readings in the tail are packed at once: few enough for that to take milliseconds.
const PACKED_AT: i64 = 2048;

/// A set of readings of so many moments is a run for each sensor by itself.
const PACKED_AT_ONCE: usize = 24;

/// Bytes of a reading in a run: milliseconds behind the run's first, and the value, little end first.
const READING: usize = 12;

/// Adds readings taken at these moments, in one transaction.
pub(crate) fn add(
    connection: &mut Connection,
    climb: i64,
    readings: &[(Moment, BTreeMap<String, f64>)],
) -> Result<(), LedgerError> {
    // What begins by reading can't wait for another writer any more when it wants to write.
    let transaction = connection.transaction_with_behavior(TransactionBehavior::Immediate)?;
    if readings.len() >= PACKED_AT_ONCE {
        pack(&transaction, climb, readings)?;
        return Ok(transaction.commit()?);
    }
    {
        let mut insert = transaction.prepare_cached("INSERT OR REPLACE INTO tail VALUES (?, ?, ?, ?, ?)")?;
        for (at, readings) in readings {
            for (sensor, value) in readings.iter().filter(|(_, value)| value.is_finite()) {
                let sum = Sum::default().int(climb).int(at.millis()).text(sensor).real(*value).finish();
                insert.execute(params![climb, at.millis(), sensor, value, sum])?;
            }
        }
    }
    let waiting: i64 = transaction
        .prepare_cached("SELECT count(*) FROM tail WHERE climb = ?")?
        .query_row([climb], |row| row.get(0))?;
    if waiting >= PACKED_AT {
        pack(&transaction, climb, &[])?;
    }
    Ok(transaction.commit()?)
}

/// Packs what is in the tail of a climb, and these readings behind it.
fn pack(
    transaction: &Transaction,
    climb: i64,
    readings: &[(Moment, BTreeMap<String, f64>)],
) -> Result<(), LedgerError> {
    let mut packer = Packer::default();
    each_of_tail(transaction, climb, |at, sensor, value| packer.add(at, sensor, value))?;
    for (at, readings) in readings {
        for (sensor, value) in readings.iter().filter(|(_, value)| value.is_finite()) {
            packer.add(at.millis(), sensor, *value);
        }
    }
    packer.write(transaction, climb)?;
    transaction.prepare_cached("DELETE FROM tail WHERE climb = ?")?.execute([climb])?;
    Ok(())
}

/// Readings that become a run for each sensor.
#[derive(Default)]
pub(crate) struct Packer {
    runs: BTreeMap<String, Run>,
}

struct Run {
    from: i64,
    until: i64,
    body: Vec<u8>,
}

impl Packer {
    /// Adds a reading that is not earlier than those before it.
    pub(crate) fn add(&mut self, at: i64, sensor: &str, value: f64) {
        if !self.runs.contains_key(sensor) {
            self.runs.insert(sensor.to_owned(), Run { from: at, until: at, body: Vec::new() });
        }
        let Some(run) = self.runs.get_mut(sensor) else { return };
        run.until = at;
        // A run is packed long before it has been filled for 49 days.
        run.body.extend(u32::try_from(at - run.from).unwrap_or(u32::MAX).to_le_bytes());
        run.body.extend(value.to_le_bytes());
    }

    /// Writes the runs, each with its checksum; files of earlier formats have no column for that before they are brought up.
    pub(crate) fn write(self, transaction: &Transaction, climb: i64) -> rusqlite::Result<()> {
        let sql = match transaction.column_exists(None, "runs", "checksum")? {
            true => "INSERT INTO runs (climb, at, until, sensor, body, checksum) VALUES (?1, ?2, ?3, ?4, ?5, ?6)",
            false => "INSERT INTO runs (climb, at, until, sensor, body) SELECT ?1, ?2, ?3, ?4, ?5 WHERE ?6 IS NOT NULL",
        };
        let mut insert = transaction.prepare_cached(sql)?;
        for (sensor, Run { from, until, body }) in self.runs {
            let sum = Sum::default().int(climb).int(from).int(until).text(&sensor).bytes(&body).finish();
            insert.execute(params![climb, from, until, sensor, body, sum])?;
        }
        Ok(())
    }
}

/// Every reading of a climb, sensor by sensor, each in the order of time.
pub(crate) fn of_climb(connection: &Connection, climb: i64) -> Result<BTreeMap<String, Series>, LedgerError> {
    let mut found: BTreeMap<String, Series> = BTreeMap::new();
    let mut take = |at: i64, sensor: &str, value: f64| {
        if !found.contains_key(sensor) {
            found.insert(sensor.to_owned(), Series::default());
        }
        if let Some(series) = found.get_mut(sensor) {
            series.push(Moment::from_millis(at), value);
        }
    };
    let sql = "SELECT climb, at, until, sensor, body, checksum FROM runs WHERE climb = ? ORDER BY at";
    let mut runs = connection.prepare(sql)?;
    let mut rows = runs.query([climb])?;
    while let Some(row) = rows.next()? {
        check_row(row, 5, || format!("what sensors read in climb {climb}"))?;
        let from: i64 = row.get(1)?;
        let sensor = row.get_ref(3)?.as_str().map_err(rusqlite::Error::from)?;
        let body = row.get_ref(4)?.as_blob().map_err(rusqlite::Error::from)?;
        for (after, value) in body.chunks_exact(READING).map(reading) {
            take(from + after, sensor, value);
        }
    }
    each_of_tail(connection, climb, take)?;
    Ok(found)
}

/// What the bytes of a reading say: milliseconds behind the first of its run, and the value.
fn reading(bytes: &[u8]) -> (i64, f64) {
    let (mut after, mut value) = ([0; 4], [0; 8]);
    after.copy_from_slice(&bytes[..4]);
    value.copy_from_slice(&bytes[4..READING]);
    (u32::from_le_bytes(after).into(), f64::from_le_bytes(value))
}

fn each_of_tail(connection: &Connection, climb: i64, mut take: impl FnMut(i64, &str, f64)) -> Result<(), LedgerError> {
    let sql = "SELECT climb, at, sensor, value, checksum FROM tail WHERE climb = ? ORDER BY at";
    let mut tail = connection.prepare_cached(sql)?;
    let mut rows = tail.query([climb])?;
    while let Some(row) = rows.next()? {
        check_row(row, 4, || format!("what sensors read in climb {climb}"))?;
        take(row.get(1)?, row.get_ref(2)?.as_str().map_err(rusqlite::Error::from)?, row.get(3)?);
    }
    Ok(())
}

/// When a climb was last heard of through its sensors.
pub(crate) fn last(connection: &Connection, climb: i64) -> Result<Option<Moment>, LedgerError> {
    let in_tail = connection.query_row("SELECT max(at) FROM tail WHERE climb = ?", [climb], |row| row.get(0))?;
    // All sensors are packed at the same time, so that the last runs begin within moments of each other.
    let sql = "SELECT max(until) FROM (SELECT until FROM runs WHERE climb = ? ORDER BY at DESC LIMIT 1000)";
    let in_runs: Option<i64> = connection.query_row(sql, [climb], |row| row.get(0))?;
    Ok(in_runs.max(in_tail).map(Moment::from_millis))
}

/// Brings readings of a format that had a row for each of them into runs.
pub(crate) fn pack_rows(transaction: &Transaction) -> rusqlite::Result<()> {
    let mut statement =
        transaction.prepare("SELECT climb, sensor, at, value FROM samples ORDER BY climb, sensor, at")?;
    let mut rows = statement.query([])?;
    let (mut packer, mut of, mut count) = (Packer::default(), 0, 0);
    while let Some(row) = rows.next()? {
        let climb = row.get(0)?;
        let sensor = row.get_ref(1)?.as_str()?;
        if climb != of || count == PACKED_AT {
            std::mem::take(&mut packer).write(transaction, of)?;
            (of, count) = (climb, 0);
        }
        packer.add(row.get(2)?, sensor, row.get(3)?);
        count += 1;
    }
    packer.write(transaction, of)
}
