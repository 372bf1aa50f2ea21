//! What is said of profiles, and of putting one in force.

use super::sentences;

pub(crate) const APPLIED_AT_START: &str = ", applied at start";
pub(crate) const NONE_SO_FAR: &str = "there is none so far";
pub(crate) const NOTHING_ARMED: &str = "nothing is armed; `periculum profile arm NAME` does that";
pub(crate) const NO_MARK: &str = "no mark that stands";
pub(crate) const NO_PROFILE: &str = "no profile so far; a stage of a plan saves one with `save = \"daily\"`";
pub(crate) const SAY_DONE: &str = "  say done once it is changed, or stop: ";
pub(crate) const SOAKED: &str = ", soaked";

sentences! {
    applied_at_start(name, rig) = "{name} is applied when {rig} starts, by `periculum profile start`";
    change_by_hand(label, from, to) = "\n  change by hand\n  {label}: {from}to {to}\n\n  done or stop? ";
    found_on_another(name, changed) = "             but the rig was another when {name} was found: {changed}";
    in_force(name, rig, rung) = "{name} is in force on {rig}: {rung}";
    mark_withdrawn(name, rig) = "{name}'s mark was withdrawn, so it is no longer applied when {rig} starts";
    no_answer(setting, applying) = "what sets {setting} has not answered for {applying}";
    no_longer_applied(name, rig) = "{name} is no longer applied when {rig} starts";
    no_such_profile(name, known) = "there is no profile `{name}`; {known}";
    nobody_said(label) = "nobody said that {label} is changed";
    one_profile(name, rig, rung, rests_on, climb, at_start) = "{name:<12} {rig}  {rung}: {rests_on} in climb {climb}{at_start}";
    reports_other(setting, to, reported) = "{setting} was asked for {to} and reports {reported}";
    set_by_hand(name, values) = "{name} has to be set by hand: {values}";
    soaked_too_short(name, soaked, least) =
        "{name} held a soak of {soaked}, and what is applied at each start must have held {least}; soak it longer, or say \
        `--soak {soaked}` if that is enough for you";
    start_went_wrong(name, rig) = "the last start with {name} did not go well, so it is no longer applied when {rig} starts";
    stopped_before(label) = "stopped before {label} was changed; what was done before stands";
}
