//! The wrong results of a pass: so many of each core one by one, so that a noisy core crowds out no other, and the rest by
//! their number.

use std::collections::BTreeMap;

use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::Span;
use periculum_core::model::quantity::harmless;
use periculum_loads::frame::FaultKind;
use periculum_loads::protocol::Wrong;

use super::span::span;
use crate::telling::running;

/// So many wrong results of one core are kept one by one.
const KEPT: u64 = 25;

/// Everything that was wrong.
#[derive(Default)]
pub(super) struct Wrongs {
    kept: Vec<Incident>,
    /// How many each core has told, and how many that are by its own count: one may be told for several.
    told: BTreeMap<Option<usize>, (u64, u64)>,
    /// How much of what it said could not be read.
    garbled: u64,
}

impl Wrongs {
    pub(super) fn is_empty(&self) -> bool {
        self.kept.is_empty()
    }

    pub(super) fn hear(&mut self, wrong: &Wrong) {
        let (told, of) = self.told.entry(wrong.core).or_default();
        *told += 1;
        *of = wrong.nth.max(*told);
        if *told <= KEPT {
            self.kept.push(incident(wrong));
        }
    }

    /// Something that can't be read: a load that says it has lost its own words.
    pub(super) fn garble(&mut self, text: &str, at: Span) {
        self.garbled += 1;
        if self.garbled == 1 {
            let evidence = running::said_unreadable(harmless(text));
            self.kept.push(Incident::new(IncidentKind::WrongResult, evidence).into_pass(at));
        }
    }

    /// All of it at the end of a pass that counted so many.
    pub(super) fn incidents(mut self, counted: u64, at: Span) -> Vec<Incident> {
        let more = |what: String| Incident::new(IncidentKind::WrongResult, what).into_pass(at);
        for (core, (told, _)) in self.told.iter().filter(|(_, (told, _))| *told > KEPT) {
            let incident = more(running::more_wrongs(told - KEPT));
            self.kept.push(core.map(Incident::on_core).into_iter().fold(incident, Incident::at));
        }
        let untold = counted.saturating_sub(self.told.values().map(|(_, of)| of).sum());
        if untold > 0 {
            self.kept.push(more(running::untold_wrongs(untold)));
        }
        self.kept
    }
}

fn incident(wrong: &Wrong) -> Incident {
    let kind = match wrong.kind {
        FaultKind::Result => IncidentKind::WrongResult,
        FaultKind::Memory => IncidentKind::MemoryFault,
        FaultKind::Artefact => IncidentKind::Artefact,
    };
    let mut incident = Incident::new(kind, harmless(&wrong.to_string())).into_pass(span(wrong.seconds));
    incident.picture = wrong.picture.as_deref().map(harmless);
    wrong.core.map(Incident::on_core).into_iter().fold(incident, Incident::at)
}

#[cfg(test)]
mod tests {
    use super::*;

    fn wrong(core: Option<usize>, nth: u64) -> Wrong {
        Wrong {
            core,
            round: nth,
            seconds: nth as f64,
            kind: FaultKind::Result,
            part: None,
            expected: "a".into(),
            found: "b".into(),
            nth,
            repeats: None,
            picture: None,
        }
    }

    fn told(wrongs: Wrongs, counted: u64) -> Vec<(Option<String>, String)> {
        let incidents = wrongs.incidents(counted, Span::from_seconds(60));
        incidents.into_iter().map(|incident| (incident.place, incident.evidence.to_string())).collect()
    }

    #[test]
    fn a_noisy_core_crowds_out_no_other() {
        let mut wrongs = Wrongs::default();
        (1..=500).for_each(|nth| wrongs.hear(&wrong(Some(1), nth)));
        wrongs.hear(&wrong(Some(2), 1));
        let told = told(wrongs, 501);
        assert_eq!(told.len(), KEPT as usize + 2);
        assert!(told.iter().any(|(place, _)| place.as_deref() == Some("core 2")), "{told:?}");
        let (place, more) = &told[told.len() - 1];
        assert_eq!((place.as_deref(), more.as_str()), (Some("core 1"), "475 more wrong results, not kept one by one"));
    }

    #[test]
    fn what_was_counted_and_not_told_is_wrong_too() {
        assert_eq!(told(Wrongs::default(), 0), []);
        let told = told(Wrongs::default(), 8);
        assert!(told[0].1.starts_with("8 wrong results were counted"), "{told:?}");
    }

    #[test]
    fn one_may_be_told_for_several() {
        let mut wrongs = Wrongs::default();
        wrongs.hear(&wrong(None, 1));
        wrongs.hear(&wrong(None, 9));
        assert_eq!(told(wrongs, 9).len(), 2, "nothing is untold");
        let mut wrongs = Wrongs::default();
        wrongs.hear(&wrong(None, 9));
        assert!(told(wrongs, 12)[1].1.starts_with("3 wrong results were counted"));
    }

    #[test]
    fn garbage_is_told_once() {
        let mut wrongs = Wrongs::default();
        assert!(wrongs.is_empty());
        (0..9).for_each(|_| wrongs.garble("{\u{1b}[2J", Span::ZERO));
        let told = told(wrongs, 0);
        assert_eq!(told.len(), 1);
        assert!(!told[0].1.contains('\u{1b}'), "{told:?}");
    }

    #[test]
    fn what_belongs_to_no_core_has_no_place() {
        let mut wrongs = Wrongs::default();
        wrongs.hear(&wrong(None, 1));
        assert_eq!(told(wrongs, 1)[0].0, None);
    }
}
