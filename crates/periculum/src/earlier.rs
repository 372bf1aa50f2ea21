//! What the ledger's earlier climbs say of rigs of the same kind, for the next one.

use std::collections::BTreeMap;

use periculum_core::analysis::kinds::{Earlier, are_alike, kinds};
use periculum_core::model::kind::Kind;
use periculum_core::model::moment::Moment;
use periculum_core::story::Story;
use periculum_ledger::{ClimbRow, Ledger};

use crate::briefing::Briefing;
use crate::recalling::{recall, tell_past};

/// No more climbs than these are looked at, the newest ones: more would say little more.
const MOST: usize = 12;

/// What is expected of a climb that begins now, on this specimen of a simulated rig. A climb that can't be read says nothing.
pub(crate) fn expected(ledger: &Ledger, briefing: &Briefing, seed: Option<u64>, wall: Moment) -> Vec<Kind> {
    if briefing.plan.stages.iter().all(|stage| stage.strategy.climbed().is_empty()) {
        return Vec::new();
    }
    let rows = ledger.climbs().unwrap_or_default();
    let ended = rows.into_iter().filter(|row| row.end.is_some() && row.falls > 0 && row.wall <= wall);
    let mut newest: Vec<ClimbRow> = ended.collect();
    newest.sort_by_key(|row| std::cmp::Reverse(row.wall));
    let mut alike = BTreeMap::new();
    let told: Vec<(ClimbRow, Briefing, Story)> =
        newest.into_iter().filter_map(|row| told(ledger, briefing, row, &mut alike)).take(MOST).collect();
    let rig = &briefing.rig;
    let earlier = told.iter().map(|(row, of, story)| Earlier {
        story,
        rig: &of.rig,
        plan: &of.plan,
        age: wall.since(row.wall),
        is_own: row.rig == rig.name && row.specimen == rig.specimens() && row.seed == seed,
    });
    kinds(&earlier.collect::<Vec<_>>(), rig, &briefing.plan)
}

/// A climb of a rig that is alike, by the texts of rigs that are: a ledger has many climbs of few rigs.
fn told(
    ledger: &Ledger,
    briefing: &Briefing,
    row: ClimbRow,
    alike: &mut BTreeMap<String, bool>,
) -> Option<(ClimbRow, Briefing, Story)> {
    let (rig_text, _) = ledger.texts(row.climb).ok()?;
    if alike.get(&rig_text) == Some(&false) {
        return None;
    }
    let of = recall(ledger, &row).ok();
    let is_alike = of.as_ref().is_some_and(|of| are_alike(&of.rig, &briefing.rig));
    alike.insert(rig_text, is_alike);
    let of = of.filter(|_| is_alike)?;
    let story = tell_past(&ledger.lines(row.climb).ok()?);
    Some((row, of, story))
}
