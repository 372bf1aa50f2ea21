//! What the form says in which the operator leads.

use std::collections::VecDeque;

use periculum_core::analysis::ahead::Kin;
use periculum_core::inference::hazard::Survival;
use periculum_core::model::errand::Errand;
use periculum_core::model::ladder::Direction;
use periculum_core::model::moment::Span;
use periculum_core::model::rig::{Derived, Rig};
use periculum_core::model::rung::Rung;
use periculum_core::model::setting::{Setting, TakesEffect};
use periculum_core::telling::errand_words;

pub(in crate::tui) const NOTHING_ON_ITS_LINE: &str =
    "nothing can be said: no trial differs from it in one setting only";
pub(in crate::tui) const NOTHING_SUGGESTED: &str = "nothing: what lies next to it is known or not allowed";

/// How far a setting may go, and what a change of it takes.
pub(in crate::tui) fn limits_of(setting: &Setting, use_name: &str) -> String {
    let limit = match setting.harder {
        Direction::Up => format!("up to {}", setting.written_short(setting.ceiling(use_name))),
        Direction::Down => {
            let (floor, ceiling) = (setting.floor, setting.ceiling(use_name));
            format!("{} … {}", setting.written_short(floor), setting.written_short(ceiling))
        }
    };
    let takes = match setting.takes_effect {
        TakesEffect::AtOnce => "",
        TakesEffect::AtNextStart => ", at the next start",
        TakesEffect::ByHand => ", by hand",
    };
    format!("{limit}{takes}")
}

/// How long a proof is, and whether there are others.
pub(in crate::tui) fn proof_of(length: Span, proofs: usize) -> String {
    if proofs > 1 { format!("{length}, one of {proofs}") } else { length.to_string() }
}

/// The errands on the way to a rung.
pub(in crate::tui) fn way_there(errands: &VecDeque<Errand>, rig: &Rig) -> String {
    if errands.is_empty() {
        return "it is in force".into();
    }
    let needed = errands.iter().filter(|errand| errand.needs_somebody(rig)).count();
    let each: Vec<String> = errands.iter().map(|errand| errand_words(errand, rig)).collect();
    let by = match (needed, errands.iter().any(|errand| errand.needs_start(rig))) {
        (0, _) => "",
        (_, true) => "   with a start of the machine",
        (_, false) => "   by your hand",
    };
    format!("{}{by}", each.join(", then "))
}

/// What the trials so far say of a rung.
pub(in crate::tui) fn kin_words(kin: Kin) -> String {
    match kin {
        Kin::Same { trial, verdict } => format!("it {verdict} in trial {trial}"),
        Kin::EasierThanHeld { trial } => format!("easier than trial {trial}, which held"),
        Kin::HarderThanFallen { trial, verdict } => format!("harder than trial {trial}, which {verdict}"),
        Kin::Between { held, fallen } => format!("between trial {held}, which held, and trial {fallen}, which did not"),
        Kin::BeyondHeld { trial } => format!("harder than trial {trial}, which held"),
        Kin::BelowFallen { trial, verdict } => format!("easier than trial {trial}, which {verdict}"),
        Kin::Stranger => "never tried, and nothing that is harder or easier in all settings".into(),
    }
}

/// How likely a rung survives.
pub(in crate::tui) fn survives(proof: &str, survival: &Survival) -> String {
    let (low, high) = survival.around();
    let [mean, low, high] = [survival.mean, low, high].map(|share| 100.0 * share);
    format!("survives {proof} with {mean:.0} % ({low:.0} to {high:.0} %)")
}

/// A derived value at a rung.
pub(in crate::tui) fn derived_at(derived: &Derived, rung: &Rung) -> String {
    match derived.value(rung) {
        Some(value) => format!("{} {}", derived.label(), derived.written(value)),
        None => format!("{} can't be calculated", derived.label()),
    }
}

/// What is asked after a trial, and what will be suggested then.
pub(in crate::tui) fn asks(suggested: Option<String>) -> String {
    match suggested {
        Some(rung) => format!("it is your turn; {rung} is suggested"),
        None => "it is your turn".into(),
    }
}
