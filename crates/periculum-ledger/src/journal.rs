//! The lines of the journal: written once, with a checksum, and checked when the file is opened.

use periculum_core::engine::{Entry, Event};
use periculum_core::model::moment::Moment;
use rusqlite::{Connection, OptionalExtension, Transaction, params};
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

/// A line that a newer version wrote: its checksum fits, and what it says is not known here.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Newer {
    /// The climb it belongs to.
    pub climb: i64,
    /// Its number in the climb, from 0.
    pub line: i64,
    /// What is not known.
    pub what: String,
}

/// Why a line can't be read.
enum Flaw {
    /// It is not what was written.
    Damaged(String),
    /// It is what was written, by a version that knows more.
    Newer(String),
}

/// What a check of the journal found.
#[derive(Debug, Default)]
pub(crate) struct Checked {
    pub(crate) dropped: Vec<Dropped>,
    pub(crate) newer: Vec<Newer>,
}

/// The columns that [`whole_body`] reads, in its order.
const COLUMNS: &str = "climb, line, at, wall, boot, body, checksum";

#[derive(Serialize, Deserialize)]
struct Body {
    event: Event,
    entries: Vec<Entry>,
}

/// Appends a line to the journal of a climb, which is not sealed then, whatever it was.
pub(crate) fn append(transaction: &Transaction, climb: i64, number: i64, line: &Line) -> Result<(), LedgerError> {
    transaction.prepare_cached("DELETE FROM seals WHERE climb = ?")?.execute([climb])?;
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
    let head = Head::of(transaction, climb)?.unwrap_or_default().behind(&stamp.checksum(&body));
    head.write(transaction, climb)
}

/// How many lines a climb has, and a digest of each line's checksum and the digest before.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
struct Head {
    lines: i64,
    digest: Vec<u8>,
}

impl Head {
    fn of(connection: &Connection, climb: i64) -> Result<Option<Self>, LedgerError> {
        let mut select = connection.prepare_cached("SELECT lines, digest FROM heads WHERE climb = ?")?;
        let head = select.query_row([climb], |row| Ok(Self { lines: row.get(0)?, digest: row.get(1)? }));
        Ok(head.optional()?)
    }

    fn behind(&self, checksum: &[u8]) -> Self {
        let digest = Sha256::new().chain_update(&self.digest).chain_update(checksum).finalize();
        Self { lines: self.lines + 1, digest: digest.to_vec() }
    }

    fn write(&self, connection: &Connection, climb: i64) -> Result<(), LedgerError> {
        let mut replace = connection.prepare_cached("INSERT OR REPLACE INTO heads VALUES (?, ?, ?)")?;
        replace.execute(params![climb, self.lines, self.digest])?;
        Ok(())
    }

    /// What the lines of a climb come to as they are.
    fn found(connection: &Connection, climb: i64) -> Result<Self, LedgerError> {
        let mut select = connection.prepare_cached("SELECT checksum FROM journal WHERE climb = ? ORDER BY line")?;
        let mut rows = select.query([climb])?;
        let mut head = Self::default();
        while let Some(row) = rows.next()? {
            head = head.behind(row.get_ref(0)?.as_blob().map_err(rusqlite::Error::from)?);
        }
        Ok(head)
    }
}

/// Notes for every climb how many lines it has, as it stands.
pub(crate) fn add_heads(transaction: &Transaction) -> Result<(), LedgerError> {
    let climbs: Vec<i64> = transaction
        .prepare("SELECT DISTINCT climb FROM journal")?
        .query_map([], |row| row.get(0))?
        .collect::<Result<_, _>>()?;
    climbs.into_iter().try_for_each(|climb| add_head(transaction, climb))
}

/// The same for one climb.
pub(crate) fn add_head(transaction: &Transaction, climb: i64) -> Result<(), LedgerError> {
    Head::found(transaction, climb)?.write(transaction, climb)
}

/// Climbs whose lines are others than when they were sealed, with their seals.
pub(crate) fn contradicted(connection: &Connection) -> Result<Vec<(i64, Vec<u8>)>, LedgerError> {
    let sql = "SELECT climb, digest FROM seals ORDER BY climb";
    let sealed: Vec<(i64, Vec<u8>)> =
        connection.prepare(sql)?.query_map([], |row| Ok((row.get(0)?, row.get(1)?)))?.collect::<Result<_, _>>()?;
    let mut others = Vec::new();
    for (climb, seal) in sealed {
        if digest(connection, climb)?.as_slice() != seal {
            others.push((climb, seal));
        }
    }
    Ok(others)
}

/// The lines of a climb, in order; each must be what was written.
pub(crate) fn lines(connection: &Connection, climb: i64) -> Result<Vec<Line>, LedgerError> {
    let mut statement = connection.prepare(&format!("SELECT {COLUMNS} FROM journal WHERE climb = ? ORDER BY line"))?;
    let mut rows = statement.query([climb])?;
    let mut lines = Vec::new();
    while let Some(row) = rows.next()? {
        let body = whole_body(row).map_err(|flaw| match flaw {
            Flaw::Damaged(why) => LedgerError::Damaged { climb, why },
            Flaw::Newer(what) => LedgerError::NewerLine { climb, what },
        })?;
        lines.push(Line {
            at: Moment::from_millis(row.get(2)?),
            wall: Moment::from_millis(row.get(3)?),
            boot: row.get(4)?,
            event: body.event,
            entries: body.entries,
        });
    }
    Ok(lines)
}

/// The boot and the moments, by the rig's clock and this machine's, of a climb's last line.
pub(crate) fn last(connection: &Connection, climb: i64) -> Result<Option<(String, Moment, Moment)>, LedgerError> {
    let sql = "SELECT boot, at, wall FROM journal WHERE climb = ? ORDER BY line DESC LIMIT 1";
    let found = connection.query_row(sql, [climb], |row| {
        Ok((row.get(0)?, Moment::from_millis(row.get(1)?), Moment::from_millis(row.get(2)?)))
    });
    Ok(found.optional()?)
}

/// SHA-256 over the checksums of a climb's lines, in order.
pub(crate) fn digest(connection: &Connection, climb: i64) -> Result<[u8; 32], LedgerError> {
    let mut digest = Sha256::new();
    let mut statement = connection.prepare("SELECT checksum FROM journal WHERE climb = ? ORDER BY line")?;
    let mut rows = statement.query([climb])?;
    while let Some(row) = rows.next()? {
        digest.update(row.get_ref(0)?.as_blob().map_err(rusqlite::Error::from)?);
    }
    Ok(digest.finalize().into())
}

/// Every line that is not what was written, and every line behind one in the same climb; sealed climbs were checked
/// before.
pub(crate) fn check(connection: &Connection) -> Result<Checked, LedgerError> {
    let sql = "SELECT climb FROM climbs WHERE climb NOT IN (SELECT climb FROM seals) ORDER BY climb";
    let unchecked: Vec<i64> = connection.prepare(sql)?.query_map([], |row| row.get(0))?.collect::<Result<_, _>>()?;
    let mut checked = Checked::default();
    for climb in unchecked {
        check_climb(connection, climb, &mut checked)?;
    }
    Ok(checked)
}

fn check_climb(connection: &Connection, climb: i64, checked: &mut Checked) -> Result<(), LedgerError> {
    let mut statement = connection.prepare(&format!("SELECT {COLUMNS} FROM journal WHERE climb = ? ORDER BY line"))?;
    let mut rows = statement.query([climb])?;
    let mut expected = 0;
    let mut is_behind_one = false;
    while let Some(row) = rows.next()? {
        let line = row.get(1)?;
        let why = if is_behind_one {
            Some("it follows a line that was dropped".to_owned())
        } else if line != expected {
            Some(format!("line {expected} before it is missing"))
        } else {
            match whole_body(row).err() {
                Some(Flaw::Newer(what)) => {
                    checked.newer.push(Newer { climb, line, what });
                    return Ok(());
                }
                Some(Flaw::Damaged(why)) => Some(why),
                None => None,
            }
        };
        is_behind_one |= why.is_some();
        checked.dropped.extend(why.map(|why| Dropped { climb, line, why }));
        expected = line + 1;
    }
    let known = Head::of(connection, climb)?.unwrap_or_default();
    if !is_behind_one && known != Head::found(connection, climb)? {
        let why = match known.lines - expected {
            1.. => format!("{} lines were written, and those from {expected} on are missing", known.lines),
            _ => "the journal is not as long as was noted, or others than was noted".to_owned(),
        };
        checked.dropped.push(Dropped { climb, line: expected, why });
    }
    Ok(())
}

/// What a row of the journal says.
///
/// # Errors
/// What is wrong with it, where it is not what was written.
fn whole_body(row: &rusqlite::Row) -> Result<Body, Flaw> {
    let unreadable = |_: rusqlite::Error| Flaw::Damaged("a column is of the wrong kind".to_owned());
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
        return Err(Flaw::Damaged("its checksum does not fit its contents".into()));
    }
    serde_json::from_str(&body).map_err(|error| Flaw::Newer(error.to_string()))
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
