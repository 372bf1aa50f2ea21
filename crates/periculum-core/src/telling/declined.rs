//! What stands against what somebody wants, and what would do instead.

use rust_decimal::Decimal;

use crate::engine::Declined;
use crate::model::objection::Objection;
use crate::model::quantity::harmless;
use crate::model::rig::Rig;

/// Why what was said can't be so.
pub fn declined_words(because: &Declined, rig: &Rig) -> String {
    match because {
        Declined::NotStartedAnew => {
            "the machine has not been started anew since it was asked for, so the change is not in force".into()
        }
        Declined::NotAllowed { against } => {
            let each: Vec<String> = against.iter().map(|one| objection_words(one, rig)).collect();
            format!("that can't be tried: {}", each.join("; "))
        }
        Declined::NoProof { named } => format!("the plan has no proof called `{}`", harmless(named)),
        Declined::NothingHeld => {
            "nothing has held so far, so there is nothing to go back to, to mark or to save".into()
        }
        Declined::IsMark { trial } => format!("what held in trial {trial} is a mark already"),
    }
}

/// What stands against a rung, as `core clock: 5 200 MHz is above the ceiling of 5 100 MHz`.
pub fn objection_words(objection: &Objection, rig: &Rig) -> String {
    let label = |name: &str| rig.setting(name).map_or_else(|| name.to_owned(), |setting| setting.label.clone());
    let written = |name: &str, value: Decimal| match rig.setting(name) {
        Some(setting) => setting.written(value),
        None => value.to_string(),
    };
    match objection {
        Objection::OffLadder { setting, value, nearest } => {
            let near: Vec<String> = nearest.iter().map(|value| written(setting, *value)).collect();
            let (label, value) = (label(setting), written(setting, *value));
            format!("{label} has no {value}; the nearest is {}", near.join(" or "))
        }
        Objection::AboveCeiling { setting, value, ceiling } => {
            let (value, ceiling) = (written(setting, *value), written(setting, *ceiling));
            format!("{} {value} is above its ceiling of {ceiling}", label(setting))
        }
        Objection::Limitless { of } => {
            format!("a limit of {of} can't be calculated there, so that nothing would guard it")
        }
        Objection::BelowFloor { setting, value, floor } => {
            let (value, floor) = (written(setting, *value), written(setting, *floor));
            format!("{} {value} is below its floor of {floor}", label(setting))
        }
        Objection::OutsideWindow { derived, value, window } => {
            format!("{derived} would be {value}, outside its window {window}")
        }
        Objection::NoValue { setting } => format!("{} has no value", label(setting)),
    }
}
