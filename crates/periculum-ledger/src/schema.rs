//! The tables of a ledger file.

use rusqlite::types::Value;
use rusqlite::{Connection, Transaction, params_from_iter};

use crate::checksum::Sum;
use crate::error::LedgerError;
use crate::{journal, projection, samples};

/// The newest format that this version knows, kept in the file's `user_version`.
pub(crate) const FORMAT: i64 = 4;

/// Times are milliseconds since the Unix epoch; `at` is by the rig's clock, `wall` by this machine's.
const TABLES: &str = "
CREATE TABLE climbs (
    climb INTEGER PRIMARY KEY,
    plan TEXT NOT NULL,
    rig TEXT NOT NULL,
    specimen TEXT NOT NULL,
    use_name TEXT NOT NULL,
    seed INTEGER,
    plan_text TEXT NOT NULL,
    rig_text TEXT NOT NULL,
    wall INTEGER NOT NULL
);
CREATE TABLE journal (
    climb INTEGER NOT NULL REFERENCES climbs,
    line INTEGER NOT NULL,
    at INTEGER NOT NULL,
    wall INTEGER NOT NULL,
    boot TEXT NOT NULL,
    body TEXT NOT NULL,
    checksum BLOB NOT NULL,
    PRIMARY KEY (climb, line)
) WITHOUT ROWID;
CREATE TABLE dropped (
    climb INTEGER NOT NULL,
    line INTEGER NOT NULL,
    why TEXT NOT NULL,
    body TEXT
);

CREATE TABLE ends (
    climb INTEGER PRIMARY KEY,
    at INTEGER NOT NULL,
    how TEXT NOT NULL,
    trials INTEGER NOT NULL,
    falls INTEGER NOT NULL,
    tested INTEGER NOT NULL
);
CREATE TABLE trials (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    stage INTEGER NOT NULL,
    rung TEXT NOT NULL,
    proof TEXT NOT NULL,
    began INTEGER NOT NULL,
    verdict TEXT,
    incident TEXT,
    tested INTEGER,
    PRIMARY KEY (climb, trial)
) WITHOUT ROWID;
CREATE TABLE passes (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    pass INTEGER NOT NULL,
    load TEXT NOT NULL,
    began INTEGER NOT NULL,
    ran INTEGER,
    rounds INTEGER,
    PRIMARY KEY (climb, trial, pass)
) WITHOUT ROWID;
CREATE TABLE scores (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    pass INTEGER NOT NULL,
    load TEXT NOT NULL,
    value REAL NOT NULL,
    unit TEXT NOT NULL,
    PRIMARY KEY (climb, trial, pass)
) WITHOUT ROWID;
CREATE TABLE incidents (
    climb INTEGER NOT NULL,
    line INTEGER NOT NULL,
    entry INTEGER NOT NULL,
    at INTEGER NOT NULL,
    trial INTEGER,
    pass INTEGER,
    kind TEXT NOT NULL,
    place TEXT,
    into_pass INTEGER,
    evidence TEXT NOT NULL,
    PRIMARY KEY (climb, line, entry)
) WITHOUT ROWID;
CREATE TABLE marks (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    stage INTEGER NOT NULL,
    setting TEXT NOT NULL,
    rung TEXT NOT NULL,
    proof TEXT NOT NULL,
    withdrawn_in INTEGER,
    PRIMARY KEY (climb, trial, stage)
) WITHOUT ROWID;
";

/// What format 2 has besides: profiles, which are made from the journal, and those that are applied at start.
const SINCE_2: &str = "
CREATE TABLE profiles (
    climb INTEGER NOT NULL,
    name TEXT NOT NULL,
    rung TEXT NOT NULL,
    trial INTEGER,
    stage INTEGER,
    soaked INTEGER NOT NULL,
    PRIMARY KEY (climb, name)
) WITHOUT ROWID;
CREATE TABLE armed (
    rig TEXT PRIMARY KEY,
    climb INTEGER NOT NULL,
    name TEXT NOT NULL,
    starting INTEGER NOT NULL
) WITHOUT ROWID;
";

/// What format 3 has besides: readings packed by sensor, climbs that were checked and are over, on how many threads
/// scores were made and how good they are, what operators wrote down, results that were entered by hand, and whose readings
/// were attached afterwards.
const SINCE_3: &str = "
CREATE TABLE tail (
    climb INTEGER NOT NULL,
    at INTEGER NOT NULL,
    sensor TEXT NOT NULL,
    value REAL NOT NULL,
    PRIMARY KEY (climb, at, sensor)
) WITHOUT ROWID;
CREATE TABLE runs (
    climb INTEGER NOT NULL,
    at INTEGER NOT NULL,
    until INTEGER NOT NULL,
    sensor TEXT NOT NULL,
    body BLOB NOT NULL
);
CREATE INDEX runs_of_climb ON runs (climb, at);
CREATE TABLE seals (
    climb INTEGER PRIMARY KEY,
    digest BLOB NOT NULL
);
ALTER TABLE passes ADD COLUMN threads TEXT;
DROP TABLE scores;
CREATE TABLE scores (
    climb INTEGER NOT NULL,
    trial INTEGER NOT NULL,
    pass INTEGER NOT NULL,
    load TEXT NOT NULL,
    threads TEXT NOT NULL,
    value REAL NOT NULL,
    unit TEXT NOT NULL,
    merit REAL NOT NULL,
    PRIMARY KEY (climb, trial, pass)
) WITHOUT ROWID;
CREATE TABLE notes (
    climb INTEGER NOT NULL,
    line INTEGER NOT NULL,
    entry INTEGER NOT NULL,
    trial INTEGER,
    text TEXT NOT NULL,
    PRIMARY KEY (climb, line, entry)
) WITHOUT ROWID;
CREATE TABLE entered (
    entered INTEGER PRIMARY KEY,
    what TEXT NOT NULL,
    value REAL NOT NULL,
    unit TEXT NOT NULL,
    specimen TEXT NOT NULL,
    source TEXT NOT NULL,
    wall INTEGER NOT NULL
);
CREATE TABLE attached (
    climb INTEGER NOT NULL REFERENCES climbs,
    sensor TEXT NOT NULL,
    label TEXT NOT NULL,
    unit TEXT NOT NULL,
    decimals INTEGER NOT NULL,
    source TEXT NOT NULL,
    PRIMARY KEY (climb, sensor)
) WITHOUT ROWID;
";

/// What format 4 has besides: checksums of everything that is no line of the journal, and how long the journal of each climb
/// is, so that the loss of its end is seen.
const SINCE_4: &str = "
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

/// Makes the tables in a new file, brings an older one up, and leaves a newer one alone; tells the format that it has
/// then.
pub(crate) fn prepare(connection: &mut Connection) -> Result<i64, LedgerError> {
    let transaction = connection.transaction_with_behavior(rusqlite::TransactionBehavior::Immediate)?;
    let found: i64 = transaction.query_row("PRAGMA user_version", [], |row| row.get(0))?;
    if found >= FORMAT {
        return Ok(found);
    }
    if found == 0 {
        transaction.execute_batch(TABLES)?;
    }
    if found < 2 {
        // Before there were profiles, no journal had one.
        transaction.execute_batch(SINCE_2)?;
    }
    if found < 3 {
        transaction.execute_batch(SINCE_3)?;
    }
    if found > 0 && found < 3 {
        samples::pack_rows(&transaction)?;
        transaction.execute_batch("DROP TABLE samples")?;
        projection::rebuild_all(&transaction)?;
    }
    transaction.execute_batch(SINCE_4)?;
    if found == 3 {
        projection::rebuild_all(&transaction)?;
    }
    add_checksums(&transaction)?;
    journal::add_heads(&transaction)?;
    transaction.pragma_update(None, "user_version", FORMAT)?;
    transaction.commit()?;
    Ok(FORMAT)
}
