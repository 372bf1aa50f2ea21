//! What the ledger's earlier climbs say of rigs of the same kind, for the next one.

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
    let rows = ledger.climbs().unwrap_or_default();
    let ended = rows.into_iter().filter(|row| row.end.is_some() && row.falls > 0 && row.wall <= wall);
    let mut newest: Vec<ClimbRow> = ended.collect();
    newest.sort_by_key(|row| std::cmp::Reverse(row.wall));
    let told: Vec<(ClimbRow, Briefing, Story)> =
        newest.into_iter().filter_map(|row| told(ledger, briefing, row)).take(MOST).collect();
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

fn told(ledger: &Ledger, briefing: &Briefing, row: ClimbRow) -> Option<(ClimbRow, Briefing, Story)> {
    let of = recall(ledger, &row).ok().filter(|of| are_alike(&of.rig, &briefing.rig))?;
    let story = tell_past(&ledger.lines(row.climb).ok()?);
    Some((row, of, story))
}
