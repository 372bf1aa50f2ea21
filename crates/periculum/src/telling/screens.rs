//! What a rig in software shows to whoever makes a pass on it.

use periculum_rigs::bench::Shown;

use super::sentences;

sentences! {
    says(lines) = "its screen says {lines}";
    went_wrong(what) = "before your eyes: {what}";
}

pub(crate) const SHOWS_NOTHING: &str = "nothing simulates what its screen would say";

/// What is to be seen, in a sentence.
pub(crate) fn shown(shown: &Shown) -> String {
    let lines: Vec<String> = shown.says.iter().map(|(name, value)| format!("{name} {value}")).collect();
    match &shown.wrong {
        Some(wrong) if lines.is_empty() => went_wrong(&wrong.evidence),
        _ if lines.is_empty() => SHOWS_NOTHING.to_owned(),
        _ => says(lines.join(", ")),
    }
}
