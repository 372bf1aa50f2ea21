//! One thing that went wrong: its kind, its place and its evidence.

use std::fmt;

use serde::{Deserialize, Serialize};

use crate::model::evidence::Evidence;
pub use crate::model::incident_kind::IncidentKind;
use crate::model::moment::Span;

/// What the place of an incident on a core begins with.
const CORE: &str = "core ";

/// One thing that went wrong.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Incident {
    /// What kind of thing.
    #[serde(rename = "incident")]
    pub kind: IncidentKind,
    /// Where: a core, an address, a sensor or a setting, in words; none where it has no place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub place: Option<String>,
    /// How long into the pass; none where no pass was running.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub into_pass: Option<Span>,
    /// How long into the pass at most, where nobody heard of it at once; none where `into_pass` is the time itself.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub at_most: Option<Span>,
    /// What was expected and found, or how it is known.
    pub evidence: Evidence,
    /// The file in which a wrong picture was kept; none where it is about none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub picture: Option<String>,
}

impl Incident {
    /// An incident without a place and outside any pass.
    pub fn new(kind: IncidentKind, evidence: impl Into<Evidence>) -> Self {
        Self { kind, place: None, into_pass: None, at_most: None, evidence: evidence.into(), picture: None }
    }

    /// The place of what went wrong on a core, by the number that the operating system gives it.
    pub fn on_core(core: usize) -> String {
        format!("{CORE}{core}")
    }

    /// The core that it went wrong on; none where its place is none.
    pub fn core(&self) -> Option<u32> {
        self.place.as_ref()?.strip_prefix(CORE)?.parse().ok()
    }

    /// The same incident at a place.
    #[must_use]
    pub fn at(mut self, place: impl Into<String>) -> Self {
        self.place = Some(place.into());
        self
    }

    /// The same incident at most this long into a pass.
    #[must_use]
    pub fn at_most(mut self, span: Span) -> Self {
        self.at_most = Some(span).filter(|span| self.into_pass.is_some_and(|least| *span > least));
        self
    }

    /// The same incident this long into a pass.
    #[must_use]
    pub fn into_pass(mut self, span: Span) -> Self {
        self.into_pass = Some(span);
        self
    }
}

impl fmt::Display for Incident {
    /// One sentence: `wrong-result on core 5 after 41 s: …`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}", self.kind)?;
        if let Some(place) = &self.place {
            write!(f, " on {place}")?;
        }
        match (self.into_pass, self.at_most) {
            (Some(least), Some(most)) => write!(f, " after {least} to {most}")?,
            (Some(span), None) => write!(f, " after {span}")?,
            (None, _) => {}
        }
        write!(f, ": {}", self.evidence)?;
        self.picture.iter().try_for_each(|picture| write!(f, "; kept as {picture}"))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn an_incident_is_told_in_one_sentence() {
        let incident = Incident::new(IncidentKind::WrongResult, "residual 41.2, allowed 16")
            .at("core 5")
            .into_pass(Span::from_seconds(41));
        assert_eq!(incident.to_string(), "wrong-result on core 5 after 41 s: residual 41.2, allowed 16");
    }

    #[test]
    fn the_core_of_an_incident_is_known_by_its_place() {
        let at = |place: &str| Incident::new(IncidentKind::WrongResult, "as played").at(place).core();
        assert_eq!(at(&Incident::on_core(12)), Some(12));
        assert_eq!(at("core clock"), None);
        assert_eq!(at("hottest core"), None);
        assert_eq!(Incident::new(IncidentKind::Freeze, "as played").core(), None);
    }
}
