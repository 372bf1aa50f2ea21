//! What of an entry was decided, without the sentences that tell it: what a replay has to say again.

use super::{ClimbEnd, Entry};
use crate::evidence::{Bound, Evidence};
use crate::incident::Incident;
use crate::reason::StageEnd;

/// Whether two steps decided the same, however they tell it.
pub fn decide_alike(one: &[Entry], other: &[Entry]) -> bool {
    one.len() == other.len() && one.iter().zip(other).all(|(one, other)| decision(one) == decision(other))
}

fn decision(entry: &Entry) -> Entry {
    let mut entry = entry.clone();
    match &mut entry {
        Entry::Incident { incident, .. } => silence(incident),
        Entry::PassEnded { report, .. } => report.incidents.iter_mut().for_each(silence),
        Entry::StageEnded { end: StageEnd::AtLimit { limit, .. }, .. } => *limit = Bound::Said(String::new()),
        Entry::GoingHome { end: Some(ClimbEnd::Unsound { why } | ClimbEnd::Refused { why }) }
        | Entry::Ended { end: ClimbEnd::Unsound { why } | ClimbEnd::Refused { why }, .. } => why.clear(),
        _ => {}
    }
    entry
}

fn silence(incident: &mut Incident) {
    incident.evidence = Evidence::Said(String::new());
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::incident::IncidentKind;

    fn incident(kind: IncidentKind, evidence: &str) -> Vec<Entry> {
        vec![Entry::Incident { trial: Some(1), pass: None, incident: Incident::new(kind, evidence) }]
    }

    #[test]
    fn a_better_sentence_is_the_same_decision_and_another_kind_is_not() {
        let told = incident(IncidentKind::Freeze, "it stood still");
        assert!(decide_alike(&told, &incident(IncidentKind::Freeze, "it did not move")));
        assert!(!decide_alike(&told, &incident(IncidentKind::Restart, "it stood still")));
        assert!(!decide_alike(&told, &[]));
        let ended = |why: &str| vec![Entry::GoingHome { end: Some(ClimbEnd::Unsound { why: why.into() }) }];
        assert!(decide_alike(&ended("hot"), &ended("too hot")));
        assert!(!decide_alike(&ended("hot"), &[Entry::GoingHome { end: Some(ClimbEnd::Stopped) }]));
    }
}
