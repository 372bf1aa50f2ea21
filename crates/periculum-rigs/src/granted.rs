//! What a permission is given for: everything that decides what is written or sent where, as it is shown and as it is digested.

use std::path::{Path, PathBuf};

use periculum_core::model::ladder::Ladder;
use periculum_core::model::program::hex;
use periculum_core::model::rig::Rig;
use periculum_core::model::setting::Setting;
use sha2::{Digest, Sha256};

use crate::outlet;

/// One thing that a rig writes to this machine, or sends to an instrument.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Written {
    /// What people call it.
    pub label: String,
    /// The name that it is kept under: a target, a file and a key, a device or a host.
    pub target: String,
    /// The files behind it; none where this machine has no such target, or where it is none of files.
    pub files: Vec<PathBuf>,
    /// Whether it is there.
    pub is_there: bool,
    /// What decides what is written: names and values, all of which are shown to whoever is asked.
    pub terms: Terms,
}

/// Names and values that decide what is written, in order.
pub type Terms = Vec<(String, String)>;

impl Written {
    /// SHA-256 of all terms: the same only where the same would be written to the same place.
    pub fn digest(&self) -> String {
        digest(&self.terms)
    }
}

/// SHA-256 of terms, each with its length before it.
pub fn digest(terms: &Terms) -> String {
    let mut digest = Sha256::new();
    for text in terms.iter().flat_map(|(name, value)| [name, value]) {
        digest.update((text.len() as u64).to_le_bytes());
        digest.update(text);
    }
    hex(&digest.finalize())
}

/// What decides which values a setting may get, whatever the plan.
pub(crate) fn of_setting(setting: &Setting) -> Terms {
    let Setting { unit, ladder, stock, floor, ceilings, largest_jump, tolerance, words, .. } = setting;
    let term = |name: &str, value: String| (name.to_owned(), value);
    let values = match ladder {
        Ladder::Steps { from, step, to } => format!("{from} to {to} in steps of {step}"),
        Ladder::Values(values) => values.iter().map(ToString::to_string).collect::<Vec<_>>().join(", "),
    };
    let mut terms = vec![
        term("values", format!("{values} {unit}").trim_end().to_owned()),
        term("stock", stock.to_string()),
        term("never below", floor.to_string()),
        term("tolerance", tolerance.to_string()),
    ];
    terms.extend(
        ceilings.iter().map(|(use_name, ceiling)| term(&format!("ceiling for {use_name}"), ceiling.to_string())),
    );
    terms.extend(largest_jump.map(|jump| term("largest jump", jump.to_string())));
    terms.extend((!words.is_empty()).then(|| term("words", words.join(", "))));
    terms
}

/// What a rig sends to instruments beside plain measurements, and which programs it runs.
pub fn sent_by(rig: &Rig) -> Vec<Written> {
    let run = rig.sensors.iter().filter_map(|sensor| {
        let inquiry = sensor.inquiry.as_ref()?;
        let target = inquiry.run.join(" ");
        let is_there = Path::new(&inquiry.run[0]).exists();
        let terms = outlet::of_inquiry(inquiry);
        Some(Written { label: sensor.label.clone(), target, files: Vec::new(), is_there, terms })
    });
    let questions = rig.sensors.iter().filter(|sensor| sensor.adapter == crate::scpi::ADAPTER);
    let sent = questions.filter_map(|sensor| {
        let source = crate::scpi::Source::parse(&sensor.source).filter(|source| !source.is_plain())?;
        let terms = vec![
            ("instrument".to_owned(), source.address.to_owned()),
            ("is sent".to_owned(), source.question.to_owned()),
        ];
        let target = format!("{} {}", source.address, source.question);
        Some(Written { label: sensor.label.clone(), target, files: Vec::new(), is_there: true, terms })
    });
    sent.chain(run).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn texts_that_are_cut_elsewhere_have_another_digest() {
        let terms = |pairs: &[(&str, &str)]| -> Terms {
            pairs.iter().map(|(name, value)| ((*name).to_owned(), (*value).to_owned())).collect()
        };
        let one = digest(&terms(&[("key", "a"), ("between", "=")]));
        assert_eq!(one, digest(&terms(&[("key", "a"), ("between", "=")])));
        assert_ne!(one, digest(&terms(&[("key", "ab"), ("etween", "=")])));
        assert_ne!(one, digest(&terms(&[("key", "a")])));
    }
}
