//! The lines of `--json`: each entry as the record has it, with what a program wants to know besides.

use std::collections::BTreeMap;

use periculum_core::Decimal;
use periculum_core::analysis::claim::{Claim, Granted, Suspect};
use periculum_core::analysis::harder::Harder;
use periculum_core::engine::{Entry as Told, Field, Mark, Said, Takes};
use periculum_core::model::moment::Moment;
use periculum_core::model::pass::Progress as Came;
use periculum_core::model::rig::Rig;
use periculum_rigs::bench::Shown;
use serde::Serialize;

use crate::output::styled;

/// A line for an entry of the record.
#[derive(Serialize)]
pub(super) struct Entry<'a> {
    at: Moment,
    /// What went wrong, in a sentence.
    #[serde(skip_serializing_if = "Option::is_none")]
    told: Option<String>,
    /// What a question takes for an answer.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    answers: Vec<&'static str>,
    /// What may be written down with its first answer.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    fields: Vec<Blank>,
    #[serde(flatten)]
    entry: &'a Told,
}

/// A line for how far a pass is.
#[derive(Serialize)]
pub(super) struct Progress<'a> {
    at: Moment,
    kind: &'static str,
    #[serde(flatten)]
    progress: &'a Came,
}

/// A line for what a mark is worth, behind the mark's own.
#[derive(Serialize)]
pub(super) struct Claimed<'a> {
    at: Moment,
    kind: &'static str,
    trial: u32,
    proof: &'a str,
    /// How often its rung survives the proof: in the mean, and from where to where nine tenths of what is known lie; none where the
    /// proof is too long for what was seen.
    #[serde(skip_serializing_if = "Option::is_none")]
    survival: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    at_least: Option<f64>,
    #[serde(skip_serializing_if = "Option::is_none")]
    at_most: Option<f64>,
    holds: u32,
    falls: u32,
    /// How many earlier climbs of rigs of its kind said before what is to be expected.
    earlier: u32,
    /// For how many seconds it is taken for granted that the rig worked at stock before, where the claim would not be sure otherwise.
    #[serde(skip_serializing_if = "Option::is_none")]
    granted: Option<f64>,
    /// How often it failed in them, where the rig's file says so.
    #[serde(skip_serializing_if = "Option::is_none")]
    granted_failures: Option<u32>,
    /// How far one may go who is content to be less sure.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    harder: Vec<LessSure>,
    /// Why the rig seems not to fail by its limit alone.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    suspects: Vec<&'static str>,
}

/// Up to which value of the setting that is climbed one can be so sure.
#[derive(Serialize)]
struct LessSure {
    sure: f64,
    up_to: Decimal,
}

/// A line for what a rig in software shows to whoever makes a pass on it.
#[derive(Serialize)]
pub(super) struct Seen<'a> {
    kind: &'static str,
    /// What its screen says, by name.
    says: BTreeMap<&'a str, &'a str>,
    /// What went wrong before their eyes.
    #[serde(skip_serializing_if = "Option::is_none")]
    wrong: Option<String>,
}

/// A field, with what it takes: a number with its bounds, or one of a few words; otherwise text.
#[derive(Serialize)]
struct Blank {
    name: String,
    label: String,
    #[serde(skip_serializing_if = "Option::is_none")]
    number: Option<Number>,
    #[serde(skip_serializing_if = "Vec::is_empty")]
    words: Vec<String>,
    /// Whether there is no answer without it.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    needed: bool,
}

#[derive(Serialize)]
struct Number {
    unit: String,
    #[serde(skip_serializing_if = "Option::is_none")]
    least: Option<Decimal>,
    #[serde(skip_serializing_if = "Option::is_none")]
    most: Option<Decimal>,
}

impl<'a> Entry<'a> {
    pub(super) fn of(at: Moment, entry: &'a Told, rig: &Rig) -> Self {
        let told = match entry {
            Told::Incident { incident, .. } => Some(incident.to_string()),
            _ => None,
        };
        let (answers, fields) = match entry {
            Told::Asked { question, .. } => {
                let fields = question.fields(rig).into_iter().map(Blank::from);
                (Said::words(&question.answers()).collect(), fields.collect())
            }
            _ => (Vec::new(), Vec::new()),
        };
        Self { at, told, answers, fields, entry }
    }
}

impl<'a> Progress<'a> {
    pub(super) fn of(at: Moment, progress: &'a Came) -> Self {
        Self { at, kind: "progress", progress }
    }
}

impl<'a> Claimed<'a> {
    pub(super) fn of(at: Moment, mark: &Mark, claim: &'a Claim, harder: Option<&Harder>) -> Self {
        let Claim { proof, survival, holds, falls, earlier, granted, suspects, .. } = claim;
        let named = |suspect: &Suspect| match suspect {
            Suspect::Background { .. } => "background",
            Suspect::Flatter => "flatter",
            Suspect::Drift { .. } => "drift",
            Suspect::Unlikely { .. } => "unlikely",
        };
        Self {
            at,
            kind: "claim",
            trial: mark.trial,
            proof,
            survival: survival.map(|survival| survival.mean),
            at_least: survival.map(|survival| survival.low),
            at_most: survival.map(|survival| survival.high),
            holds: *holds,
            falls: *falls,
            earlier: *earlier,
            harder: harder.map(less_sure).unwrap_or_default(),
            granted: granted.map(|(Granted::Usually(time) | Granted::Told(time, _))| time.seconds()),
            granted_failures: granted.and_then(told_failures),
            suspects: suspects.iter().map(named).collect(),
        }
    }
}

/// How often it failed, as its owner says.
fn told_failures(granted: Granted) -> Option<u32> {
    match granted {
        Granted::Usually(_) => None,
        Granted::Told(_, failures) => Some(failures),
    }
}

fn less_sure(harder: &Harder) -> Vec<LessSure> {
    harder.up_to.iter().map(|(sure, value)| LessSure { sure: *sure, up_to: *value }).collect()
}

impl<'a> Seen<'a> {
    pub(super) fn of(shown: &'a Shown) -> Self {
        let says = shown.says.iter().map(|(name, value)| (name.as_str(), value.as_str())).collect();
        Self { kind: "shown", says, wrong: shown.wrong.as_ref().map(ToString::to_string) }
    }
}

impl From<Field> for Blank {
    fn from(field: Field) -> Self {
        let (number, words) = match field.takes {
            Takes::Number { unit, least, most } => (Some(Number { unit, least, most }), Vec::new()),
            Takes::Words(words) => (None, words),
            Takes::YesOrNo => (None, vec!["yes".to_owned(), "no".to_owned()]),
            Takes::Text => (None, Vec::new()),
        };
        Self { name: field.name, label: field.label, number, words, needed: field.is_needed }
    }
}

/// Prints a line.
pub(super) fn print(line: &impl Serialize) {
    match serde_json::to_string(line) {
        Ok(text) => styled(std::io::stdout(), &(text + "\n")),
        Err(error) => tracing::error!(%error, "a line can't be written as JSON"),
    }
}
