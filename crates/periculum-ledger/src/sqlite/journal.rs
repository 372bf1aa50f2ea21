//! The journal as a table.

use periculum_core::model::moment::Moment;
use rusqlite::{Connection, OptionalExtension, Row, Transaction, params};
use sha2::{Digest, Sha256};

use crate::error::LedgerError;
use crate::record::{Checked, Dropped, Flaw, Head, Inspection, Kept, Line};

/// The columns of a line, in the order in which [`kept`] reads them.
const COLUMNS: &str = "climb, line, at, wall, boot, body, checksum";

/// Appends a line to the journal of a climb, which is not sealed then, whatever it was.
pub(crate) fn append(transaction: &Transaction, climb: i64, number: i64, line: &Line) -> Result<(), LedgerError> {
    transaction.prepare_cached("DELETE FROM seals WHERE climb = ?")?.execute([climb])?;
    let kept = Kept::of(climb, number, line)?;
    transaction.prepare_cached("INSERT INTO journal VALUES (?, ?, ?, ?, ?, ?, ?)")?.execute(params![
        kept.climb,
        kept.number,
        kept.at,
        kept.wall,
        kept.boot,
        kept.body,
        kept.checksum
    ])?;
    let head = head(transaction, climb)?.unwrap_or_default().behind(&kept.checksum);
    write_head(transaction, climb, &head)
}

fn head(connection: &Connection, climb: i64) -> Result<Option<Head>, LedgerError> {
    let mut select = connection.prepare_cached("SELECT lines, digest FROM heads WHERE climb = ?")?;
    let head = select.query_row([climb], |row| Ok(Head { lines: row.get(0)?, digest: row.get(1)? }));
    Ok(head.optional()?)
}

fn write_head(connection: &Connection, climb: i64, head: &Head) -> Result<(), LedgerError> {
    let mut replace = connection.prepare_cached("INSERT OR REPLACE INTO heads VALUES (?, ?, ?)")?;
    replace.execute(params![climb, head.lines, head.digest])?;
    Ok(())
}

/// What the lines of a climb come to as they are.
fn found_head(connection: &Connection, climb: i64) -> Result<Head, LedgerError> {
    let mut select = connection.prepare_cached("SELECT checksum FROM journal WHERE climb = ? ORDER BY line")?;
    let mut rows = select.query([climb])?;
    let mut head = Head::default();
    while let Some(row) = rows.next()? {
        head = head.behind(row.get_ref(0)?.as_blob().map_err(rusqlite::Error::from)?);
    }
    Ok(head)
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
    write_head(transaction, climb, &found_head(transaction, climb)?)
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
        let line = kept(row).and_then(|kept| kept.read());
        lines.push(line.map_err(|flaw| match flaw {
            Flaw::Damaged(why) => LedgerError::Damaged { climb, why },
            Flaw::Newer(what) => LedgerError::NewerLine { climb, what },
        })?);
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
    let mut inspection = Inspection::of(climb);
    while let Some(row) = rows.next()? {
        if !inspection.look_at(row.get(1)?, kept(row)) {
            break;
        }
    }
    let Checked { dropped, newer } = inspection.end(&head(connection, climb)?.unwrap_or_default());
    checked.dropped.extend(dropped);
    checked.newer.extend(newer);
    Ok(())
}

/// A row of the journal as it is kept.
///
/// # Errors
/// Where a column holds what was never written into it.
fn kept(row: &Row) -> Result<Kept, Flaw> {
    let kept = || {
        Ok(Kept {
            climb: row.get(0)?,
            number: row.get(1)?,
            at: row.get(2)?,
            wall: row.get(3)?,
            boot: row.get(4)?,
            body: row.get(5)?,
            checksum: row.get(6)?,
        })
    };
    kept().map_err(|_: rusqlite::Error| Flaw::Damaged("a column is of the wrong kind".to_owned()))
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
