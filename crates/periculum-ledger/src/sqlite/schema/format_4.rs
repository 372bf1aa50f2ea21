//! Format 4: checksums of everything that is no line of the journal, and how long the journal of each climb is, so that the loss of
//! its end is seen.

use rusqlite::types::Value;
use rusqlite::{Transaction, params_from_iter};

use crate::error::LedgerError;
use crate::sqlite::checksum::Sum;
use crate::sqlite::journal;

const COLUMNS: &str = "
ALTER TABLE climbs ADD COLUMN checksum BLOB;
ALTER TABLE climbs ADD COLUMN texts_checksum BLOB;
ALTER TABLE tail ADD COLUMN checksum BLOB;
ALTER TABLE runs ADD COLUMN checksum BLOB;
ALTER TABLE attached ADD COLUMN checksum BLOB;
ALTER TABLE entered ADD COLUMN checksum BLOB;
ALTER TABLE armed ADD COLUMN checksum BLOB;
ALTER TABLE seals ADD COLUMN tables BLOB;
CREATE TABLE heads (
    climb INTEGER PRIMARY KEY,
    lines INTEGER NOT NULL,
    digest BLOB NOT NULL
);
";

pub(super) fn bring_up(transaction: &Transaction) -> Result<(), LedgerError> {
    transaction.execute_batch(COLUMNS)?;
    add_checksums(transaction)?;
    journal::add_heads(transaction)
}

/// The tables whose rows have a checksum, with the columns that it is over, in their order.
const CHECKED: [(&str, &str, &str); 7] = [
    ("climbs", "climb, plan, rig, specimen, use_name, seed, wall", "checksum"),
    ("climbs", "climb, rig_text, plan_text", "texts_checksum"),
    ("tail", "climb, at, sensor, value", "checksum"),
    ("runs", "climb, at, until, sensor, body", "checksum"),
    ("attached", "climb, sensor, label, unit, decimals, source", "checksum"),
    ("entered", "entered, what, value, unit, specimen, source, wall", "checksum"),
    ("armed", "rig, climb, name, starting", "checksum"),
];

/// Gives every row its checksum, as it stands.
fn add_checksums(transaction: &Transaction) -> Result<(), LedgerError> {
    for (table, columns, checksum) in CHECKED {
        let count = columns.split(", ").count();
        let key = match table {
            "tail" => "climb, at, sensor",
            "armed" => "rig",
            "attached" => "climb, sensor",
            _ => "rowid",
        };
        let place = key.split(", ").map(|column| format!("{column} = ?")).collect::<Vec<_>>().join(" AND ");
        let mut update = transaction.prepare(&format!("UPDATE {table} SET {checksum} = ? WHERE {place}"))?;
        let mut select = transaction.prepare(&format!("SELECT {columns}, {key} FROM {table}"))?;
        let keys = key.split(", ").count();
        let mut found: Vec<(Vec<u8>, Vec<Value>)> = Vec::new();
        let mut rows = select.query([])?;
        while let Some(row) = rows.next()? {
            let sum = Sum::default().columns(row, count)?.finish().to_vec();
            let key = (count..count + keys).map(|column| row.get(column)).collect::<Result<_, _>>()?;
            found.push((sum, key));
        }
        for (sum, key) in found {
            let values = std::iter::once(Value::Blob(sum)).chain(key);
            update.execute(params_from_iter(values))?;
        }
    }
    Ok(())
}
