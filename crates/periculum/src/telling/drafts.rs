//! What is said of a plan that is being edited.

use super::sentences;

pub(crate) const ALWAYS_READABLE: &str = "the plan of a climb can always be read";
pub(crate) const THE_PLAN: &str = "the plan";

sentences! {
    and_its_rig(rig) = ", and its rig {rig}";
    is_there_already(path) = "{path} is there already, so nothing was written; give another name";
    lines_are_wrong(count) = "it is not written while {count} of its lines can't be; they are marked";
    other_rig(rig) = "; {rig} was there already, and is not the rig that this was climbed on";
    rig_not_written(rig) = "the plan is written, but not its rig {rig}";
    rig_of_climb(climb) = "rig of climb {climb}";
    rig_unreadable(rig) = "; its rig {rig} can't be read";
    was_changed_meanwhile(path) = "{path} was changed meanwhile, so nothing was written; give another name";
}
