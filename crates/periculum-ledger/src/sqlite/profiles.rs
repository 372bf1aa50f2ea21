//! Profiles that climbs saved, and the one of each rig that is applied when its machine starts.

use periculum_core::model::moment::Span;
use periculum_core::model::rung::Rung;
use rusqlite::{Connection, Row, params};

use super::checksum::{Sum, check_row};
use crate::error::LedgerError;

/// A saved profile.
#[derive(Clone, Debug, PartialEq)]
pub struct ProfileRow {
    /// The climb that saved it.
    pub climb: i64,
    /// The rig's name.
    pub rig: String,
    /// Its name.
    pub name: String,
    /// The rung.
    pub rung: Rung,
    /// The proof that its mark held; none where it has no mark, or the mark was withdrawn since.
    pub proof: Option<String>,
    /// Whether that mark held a soak, so that it may be applied at start.
    pub soaked: bool,
    /// How long the trial was that its mark rests on; none where it rests on none.
    pub soaked_for: Option<Span>,
}

/// A profile that is applied when the machine starts.
#[derive(Clone, Debug, PartialEq)]
pub struct Armed {
    /// The climb that saved it.
    pub climb: i64,
    /// Its name.
    pub name: String,
    /// Whether a start with it has begun and nobody has heard since that it went well.
    pub is_starting: bool,
}

const PROFILES: &str = "
SELECT p.climb, c.rig, p.name, p.rung, m.proof, p.soaked AND m.proof IS NOT NULL, t.tested
FROM profiles p JOIN climbs c ON c.climb = p.climb
LEFT JOIN trials t ON t.climb = p.climb AND t.trial = p.trial
LEFT JOIN marks m ON m.climb = p.climb AND m.trial = p.trial AND m.stage = p.stage AND m.withdrawn_in IS NULL";

/// Every profile, newest first.
pub(crate) fn all(connection: &Connection) -> Result<Vec<ProfileRow>, LedgerError> {
    let mut statement = connection.prepare(&format!("{PROFILES} ORDER BY p.climb DESC, p.name"))?;
    let mut rows = statement.query([])?;
    let mut profiles = Vec::new();
    while let Some(row) = rows.next()? {
        profiles.push(profile(row)?);
    }
    Ok(profiles)
}

fn profile(row: &Row) -> Result<ProfileRow, LedgerError> {
    Ok(ProfileRow {
        climb: row.get(0)?,
        rig: row.get(1)?,
        name: row.get(2)?,
        rung: serde_json::from_str(&row.get::<_, String>(3)?)?,
        proof: row.get(4)?,
        soaked: row.get(5)?,
        soaked_for: row.get::<_, Option<u64>>(6)?.map(Span::from_millis),
    })
}

/// Arms a profile of a rig, in place of any other.
pub(crate) fn arm(connection: &Connection, rig: &str, climb: i64, name: &str) -> Result<(), LedgerError> {
    write_armed(connection, rig, &Armed { climb, name: name.to_owned(), is_starting: false })
}

fn write_armed(connection: &Connection, rig: &str, armed: &Armed) -> Result<(), LedgerError> {
    let Armed { climb, name, is_starting } = armed;
    let sum = Sum::default().text(rig).int(*climb).text(name).int((*is_starting).into()).finish();
    let sql = "INSERT OR REPLACE INTO armed VALUES (?, ?, ?, ?, ?)";
    connection.execute(sql, params![rig, climb, name, is_starting, sum])?;
    Ok(())
}

/// Disarms whatever is armed for a rig, and tells whether anything was.
pub(crate) fn disarm(connection: &Connection, rig: &str) -> Result<bool, LedgerError> {
    Ok(connection.execute("DELETE FROM armed WHERE rig = ?", [rig])? > 0)
}

/// Every rig that has an armed profile, and which.
pub(crate) fn armed(connection: &Connection) -> Result<Vec<(String, Armed)>, LedgerError> {
    let mut statement = connection.prepare("SELECT rig, climb, name, starting, checksum FROM armed ORDER BY rig")?;
    let mut rows = statement.query([])?;
    let mut armed = Vec::new();
    while let Some(row) = rows.next()? {
        check_row(row, 4, || "what is armed to be applied at start".to_owned())?;
        armed.push((row.get(0)?, Armed { climb: row.get(1)?, name: row.get(2)?, is_starting: row.get(3)? }));
    }
    Ok(armed)
}

/// Notes that a start has begun, or that it went well.
pub(crate) fn note_start(connection: &Connection, rig: &str, is_starting: bool) -> Result<(), LedgerError> {
    match armed(connection)?.into_iter().find(|(known, _)| known == rig) {
        Some((_, known)) => write_armed(connection, rig, &Armed { is_starting, ..known }),
        None => Ok(()),
    }
}

/// The newest profile of this name, of one climb where that is given.
pub(crate) fn named(
    connection: &Connection,
    name: &str,
    climb: Option<i64>,
) -> Result<Option<ProfileRow>, LedgerError> {
    let sql = format!("{PROFILES} WHERE p.name = ?1 AND (?2 IS NULL OR p.climb = ?2) ORDER BY p.climb DESC LIMIT 1");
    let mut statement = connection.prepare(&sql)?;
    let mut rows = statement.query(params![name, climb])?;
    rows.next()?.map(profile).transpose()
}
