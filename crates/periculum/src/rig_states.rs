//! Whether what was found of a rig was found in the state that it is in now, as far as the ledger knows.

use anyhow::Result;
use periculum_core::model::rig::Rig;
use periculum_core::model::rig_change::RigChange;
use periculum_core::story::Story;
use periculum_core::telling::parts_changed;
use periculum_ledger::{ClimbRow, Ledger, ProfileRow};

use crate::recalling::{recall, tell_past};

/// What of the rig is another now than it was when a profile was found: its parts, and what was changed besides.
pub(crate) fn changed_since(ledger: &Ledger, profile: &ProfileRow) -> Result<Vec<String>> {
    let of_profile = ledger.climb(profile.climb)?;
    let (rig, story) = story_of(ledger, &of_profile)?;
    let found_in = story.profiles.iter().rev().find(|saved| saved.name == profile.name);
    let trial = found_in.and_then(|saved| story.trial(saved.mark.as_ref()?.trial));
    let then = trial.map_or(1, |trial| trial.state);
    let (rig_then, changes_then) = story.state(&rig, then);
    let mut changed = remarks(&story.changes[changes_then.len()..]);
    let newest = ledger.climbs()?.into_iter().filter(|row| row.rig == profile.rig).max_by_key(|row| row.climb);
    let (rig, story) = match newest.filter(|row| row.climb != profile.climb) {
        Some(row) => {
            let newest = story_of(ledger, &row)?;
            changed.extend(remarks(&newest.1.changes));
            newest
        }
        None => (rig, story),
    };
    changed.extend(parts_changed(&rig_then, &story.state(&rig, story.last_state()).0));
    Ok(changed)
}

/// What of these changes no part shows.
fn remarks(changes: &[RigChange]) -> Vec<String> {
    changes.iter().filter(|change| !change.remark.is_empty()).map(ToString::to_string).collect()
}

fn story_of(ledger: &Ledger, row: &ClimbRow) -> Result<(Rig, Story)> {
    let rig = Rig::clone(&recall(ledger, row)?.rig);
    Ok((rig, tell_past(&ledger.lines(row.climb)?)))
}
