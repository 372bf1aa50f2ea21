//! The lines of the journal: written once, with a checksum, and checked when the file is opened.

use periculum_core::engine::{Entry, Event};
use periculum_core::moment::Moment;
use rusqlite::{Connection, Transaction, params};
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};

use crate::error::LedgerError;

/// One step of a climb: an event, and the entries that the engine made of it.
#[derive(Clone, Debug, PartialEq)]
pub struct Line {
    /// When, by the rig's clock.
    pub at: Moment,
    /// When, by this machine's clock.
    pub wall: Moment,
    /// The boot identifier of the operating system.
    pub boot: String,
    /// What happened.
    pub event: Event,
    /// What the engine stated.
    pub entries: Vec<Entry>,
}

/// A line that was not what had been written, or that stood behind such a line.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Dropped {
    /// The climb it belonged to.
    pub climb: i64,
    /// Its number in the climb, from 0.
    pub line: i64,
    /// What is wrong with it.
    pub why: String,
}

#[derive(Serialize, Deserialize)]
struct Body {
    event: Event,
    entries: Vec<Entry>,
}

/// Appends a line to the journal of a climb.
pub(crate) fn append(transaction: &Transaction, climb: i64, number: i64, line: &Line) -> Result<(), LedgerError> {
    let body = Body { event: line.event.clone(), entries: line.entries.clone() };
    let body = serde_json::to_string(&body)?;
    let stamp = Stamp { climb, number, at: line.at.millis(), wall: line.wall.millis(), boot: &line.boot };
    transaction.prepare_cached("INSERT INTO journal VALUES (?, ?, ?, ?, ?, ?, ?)")?.execute(params![
        climb,
        number,
        stamp.at,
        stamp.wall,
        line.boot,
        body,
        stamp.checksum(&body).as_slice()
    ])?;
    Ok(())
}

/// The lines of a climb, in order.
pub(crate) fn lines(connection: &Connection, climb: i64) -> Result<Vec<Line>, LedgerError> {
    let mut statement = connection.prepare("SELECT at, wall, boot, body FROM journal WHERE climb = ? ORDER BY line")?;
    let mut rows = statement.query([climb])?;
    let mut lines = Vec::new();
    while let Some(row) = rows.next()? {
        let body: Body = serde_json::from_str(row.get_ref(3)?.as_str().map_err(rusqlite::Error::from)?)?;
        lines.push(Line {
            at: Moment::from_millis(row.get(0)?),
            wall: Moment::from_millis(row.get(1)?),
            boot: row.get(2)?,
            event: body.event,
            entries: body.entries,
        });
    }
    Ok(lines)
}

/// Every line that is not what was written, and every line behind one in the same climb.
pub(crate) fn check(connection: &Connection) -> Result<Vec<Dropped>, LedgerError> {
    let mut statement =
        connection.prepare("SELECT climb, line, at, wall, boot, body, checksum FROM journal ORDER BY climb, line")?;
    let mut rows = statement.query([])?;
    let mut dropped: Vec<Dropped> = Vec::new();
    let mut expected = (0, 0);
    while let Some(row) = rows.next()? {
        let (climb, line) = (row.get(0)?, row.get(1)?);
        if climb != expected.0 {
            expected = (climb, 0);
        }
        let follows = dropped.last().is_some_and(|before| before.climb == climb);
        let why = if follows {
            Some("it follows a line that was dropped".to_owned())
        } else if line != expected.1 {
            Some(format!("line {} before it is missing", expected.1))
        } else {
            fault(row).err()
        };
        dropped.extend(why.map(|why| Dropped { climb, line, why }));
        expected.1 = line + 1;
    }
    Ok(dropped)
}

/// What is wrong with a row of the journal.
fn fault(row: &rusqlite::Row) -> Result<(), String> {
    let unreadable = |_: rusqlite::Error| "a column is of the wrong kind".to_owned();
    let boot: String = row.get(4).map_err(unreadable)?;
    let body: String = row.get(5).map_err(unreadable)?;
    let checksum: Vec<u8> = row.get(6).map_err(unreadable)?;
    let stamp = Stamp {
        climb: row.get(0).map_err(unreadable)?,
        number: row.get(1).map_err(unreadable)?,
        at: row.get(2).map_err(unreadable)?,
        wall: row.get(3).map_err(unreadable)?,
        boot: &boot,
    };
    if checksum != stamp.checksum(&body).as_slice() {
        return Err("its checksum does not fit its contents".into());
    }
    serde_json::from_str::<Body>(&body).map(drop).map_err(|error| format!("it can't be read: {error}"))
}

/// Moves dropped lines out of the journal, so that what stays is good.
pub(crate) fn set_aside(transaction: &Transaction, dropped: &[Dropped]) -> Result<(), LedgerError> {
    for Dropped { climb, line, why } in dropped {
        transaction.execute(
            "INSERT INTO dropped SELECT climb, line, ?, CAST(body AS TEXT) FROM journal WHERE climb = ? AND line = ?",
            params![why, climb, line],
        )?;
        transaction.execute("DELETE FROM journal WHERE climb = ? AND line = ?", params![climb, line])?;
    }
    Ok(())
}

/// Everything about a line but its body.
struct Stamp<'a> {
    climb: i64,
    number: i64,
    at: i64,
    wall: i64,
    boot: &'a str,
}

impl Stamp<'_> {
    /// SHA-256 over every column, with the length of the one text that has a neighbour.
    fn checksum(&self, body: &str) -> [u8; 32] {
        let mut digest = Sha256::new();
        for number in [self.climb, self.number, self.at, self.wall, self.boot.len() as i64] {
            digest.update(number.to_le_bytes());
        }
        digest.update(self.boot);
        digest.update(body);
        digest.finalize().into()
    }
}
