//! Readings of instruments that were attached to a climb when it was over.

use periculum_core::model::moment::Moment;
use rusqlite::{Connection, Transaction, params};

use super::checksum::{Sum, check_row};
use super::samples::Packer;
use crate::error::LedgerError;

/// Whose readings they are.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Attached {
    /// The name that the ledger keeps them under, which no other sensor of the climb has.
    pub sensor: String,
    /// The name that people read.
    pub label: String,
    /// The unit of the readings; empty where there is none.
    pub unit: String,
    /// How many decimals of a reading mean something.
    pub decimals: usize,
    /// Where they are from.
    pub source: String,
}

impl Attached {
    fn checksum(&self, climb: i64) -> [u8; 16] {
        let sum = Sum::default().int(climb).text(&self.sensor).text(&self.label).text(&self.unit);
        sum.int(self.decimals as i64).text(&self.source).finish()
    }
}

/// So many readings are packed together.
const RUN: usize = 1024;

/// Writes readings down, which are in the order of time.
pub(crate) fn attach(
    transaction: &Transaction,
    climb: i64,
    of: &Attached,
    readings: &[(Moment, f64)],
) -> Result<(), LedgerError> {
    transaction.execute(
        "INSERT INTO attached VALUES (?, ?, ?, ?, ?, ?, ?)",
        params![climb, of.sensor, of.label, of.unit, of.decimals as i64, of.source, of.checksum(climb)],
    )?;
    for run in readings.chunks(RUN) {
        let mut packer = Packer::default();
        run.iter().for_each(|(at, value)| packer.add(at.millis(), &of.sensor, *value));
        packer.write(transaction, climb)?;
    }
    Ok(())
}

/// Whose readings were attached to a climb.
pub(crate) fn of_climb(connection: &Connection, climb: i64) -> Result<Vec<Attached>, LedgerError> {
    let sql =
        "SELECT climb, sensor, label, unit, decimals, source, checksum FROM attached WHERE climb = ? ORDER BY sensor";
    let mut statement = connection.prepare(sql)?;
    let mut rows = statement.query([climb])?;
    let mut attached = Vec::new();
    while let Some(row) = rows.next()? {
        check_row(row, 6, || format!("what is attached to climb {climb}"))?;
        let decimals: i64 = row.get(4)?;
        attached.push(Attached {
            sensor: row.get(1)?,
            label: row.get(2)?,
            unit: row.get(3)?,
            decimals: usize::try_from(decimals).unwrap_or(0),
            source: row.get(5)?,
        });
    }
    Ok(attached)
}

/// Takes readings off again; tells whether there were any under this name.
pub(crate) fn detach(transaction: &Transaction, climb: i64, sensor: &str) -> Result<bool, LedgerError> {
    let found = transaction.execute("DELETE FROM attached WHERE climb = ? AND sensor = ?", params![climb, sensor])?;
    if found > 0 {
        transaction.execute("DELETE FROM runs WHERE climb = ? AND sensor = ?", params![climb, sensor])?;
    }
    Ok(found > 0)
}
