//! One climb in a file of its own, with its number, everything that is known of it, and the checksums that it has.

use std::path::Path;

use rusqlite::{Connection, params};

use crate::error::LedgerError;

/// Writes a ledger that holds this climb alone into a new file.
pub(super) fn extract(record: &Connection, climb: i64, path: &Path) -> Result<(), LedgerError> {
    record.backup("main", path, None::<fn(_)>)?;
    let copy = Connection::open(path)?;
    // Whole climbs are taken out, table by table.
    copy.pragma_update(None, "foreign_keys", false)?;
    let mut tables =
        copy.prepare("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'")?;
    let tables = tables.query_map([], |row| row.get(0))?.collect::<Result<Vec<String>, _>>()?;
    for table in tables {
        let mut column = copy.prepare("SELECT 1 FROM pragma_table_info(?) WHERE name = 'climb'")?;
        // What is armed is armed on one machine, and what belongs to no climb is nobody else's.
        if column.exists([&table])? && table != "armed" {
            copy.execute(&format!("DELETE FROM \"{table}\" WHERE climb <> ?"), params![climb])?;
        } else {
            copy.execute(&format!("DELETE FROM \"{table}\""), [])?;
        }
    }
    // Nothing of other climbs is left in free pages, and nothing stands in a file beside it.
    copy.execute_batch("VACUUM; PRAGMA journal_mode = DELETE;")?;
    Ok(())
}
