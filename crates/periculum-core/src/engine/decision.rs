//! What of an entry was decided, without the sentences that tell it: what a replay has to say again.

use super::{ClimbEnd, Entry};
use crate::model::evidence::{Bound, Evidence};
use crate::model::incident::Incident;
use crate::model::obstacle::Obstacle;
use crate::model::reason::StageEnd;

/// Whether two steps decided the same, however they tell it.
pub fn decide_alike(one: &[Entry], other: &[Entry]) -> bool {
    one.len() == other.len() && one.iter().zip(other).all(|(one, other)| is_alike(one.clone(), other.clone()))
}

/// Data is compared with data; where one side has only words, as records of earlier versions do, there is nothing to compare.
fn is_alike(mut one: Entry, mut other: Entry) -> bool {
    match (&mut one, &mut other) {
        (Entry::Incident { incident, .. }, Entry::Incident { incident: other, .. }) => silence(incident, other),
        (Entry::PassEnded { report, .. }, Entry::PassEnded { report: other, .. }) => {
            report.incidents.iter_mut().zip(&mut other.incidents).for_each(|(one, other)| silence(one, other));
        }
        (
            Entry::StageEnded { end: StageEnd::AtLimit { limit, .. }, .. },
            Entry::StageEnded { end: StageEnd::AtLimit { limit: other, .. }, .. },
        ) if matches!((&*limit, &*other), (Bound::Said(_), _) | (_, Bound::Said(_))) => *limit = other.clone(),
        (
            Entry::GoingHome { end: Some(end), .. } | Entry::Ended { end, .. },
            Entry::GoingHome { end: Some(other), .. } | Entry::Ended { end: other, .. },
        ) => silence_end(end, other),
        _ => {}
    }
    one == other
}

fn silence(one: &mut Incident, other: &Incident) {
    if matches!((&one.evidence, &other.evidence), (Evidence::Said(_), _) | (_, Evidence::Said(_))) {
        one.evidence = other.evidence.clone();
    }
}

fn silence_end(one: &mut ClimbEnd, other: &ClimbEnd) {
    use ClimbEnd::{Refused, Unsound};
    if let (Unsound { why }, Unsound { why: other }) | (Refused { why }, Refused { why: other }) = (one, other)
        && matches!((&*why, other), (Obstacle::Said(_), _) | (_, Obstacle::Said(_)))
    {
        *why = other.clone();
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::model::incident::IncidentKind;

    fn incident(kind: IncidentKind, evidence: &str) -> Vec<Entry> {
        vec![Entry::Incident { trial: Some(1), pass: None, incident: Incident::new(kind, evidence) }]
    }

    #[test]
    fn a_better_sentence_is_the_same_decision_and_another_kind_is_not() {
        let told = incident(IncidentKind::Freeze, "it stood still");
        assert!(decide_alike(&told, &incident(IncidentKind::Freeze, "it did not move")));
        assert!(!decide_alike(&told, &incident(IncidentKind::Restart, "it stood still")));
        assert!(!decide_alike(&told, &[]));
        let ended = |why: &str| {
            vec![Entry::GoingHome { end: Some(ClimbEnd::Unsound { why: Obstacle::Said(why.into()) }), to: None }]
        };
        assert!(decide_alike(&ended("hot"), &ended("too hot")));
        assert!(!decide_alike(&ended("hot"), &[Entry::GoingHome { end: Some(ClimbEnd::Stopped), to: None }]));
    }
}
