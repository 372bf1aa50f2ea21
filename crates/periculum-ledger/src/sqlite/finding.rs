//! What trials are found by, gathered from every climb.

use std::collections::HashMap;

use periculum_core::model::verdict::Verdict;
use periculum_core::story::finding::{Index, trial_facts};
use rusqlite::Connection;

use crate::error::LedgerError;
use crate::rows::ClimbRow;

/// Incidents and notes by climb and trial.
type Told = HashMap<(i64, u32), Vec<String>>;

/// Every trial of these climbs, in their order, each climb under the facts that it has.
pub(crate) fn index(
    connection: &Connection,
    climbs: &[ClimbRow],
    facts_of: impl Fn(&ClimbRow) -> String,
) -> Result<Index, LedgerError> {
    let told = told(connection)?;
    let sql = "SELECT trial, rung, proof, verdict FROM trials WHERE climb = ? ORDER BY trial";
    let mut statement = connection.prepare(sql)?;
    let mut index = Index::default();
    for row in climbs {
        index.add_climb(row.climb, &facts_of(row));
        let mut trials = statement.query([row.climb])?;
        while let Some(trial) = trials.next()? {
            let number = trial.get(0)?;
            let text = |column| trial.get_ref(column)?.as_str().map_err(rusqlite::Error::from);
            let verdict: Option<String> = trial.get(3)?;
            let verdict = verdict.as_deref().and_then(Verdict::named);
            let words = told.get(&(row.climb, number)).map(Vec::as_slice).unwrap_or_default();
            let words = words.iter().map(String::as_str);
            index.add_trial(number, &trial_facts(number, &serde_json::from_str(text(1)?)?, text(2)?, verdict, words));
        }
    }
    Ok(index)
}

fn told(connection: &Connection) -> Result<Told, LedgerError> {
    let sql = "
SELECT climb, trial, kind FROM incidents WHERE trial IS NOT NULL
UNION ALL SELECT climb, trial, text FROM notes WHERE trial IS NOT NULL";
    let mut statement = connection.prepare(sql)?;
    let mut rows = statement.query([])?;
    let mut told = Told::new();
    while let Some(row) = rows.next()? {
        told.entry((row.get(0)?, row.get(1)?)).or_default().push(row.get(2)?);
    }
    Ok(told)
}
