//! What the engine answers: what to record, and what to do then.

use crate::engine::entry::Entry;
use crate::engine::question::Question;
use crate::model::errand::Errand;
use crate::model::moment::Moment;
use crate::model::pass::PassOrder;

/// What is to be done to the rig.
#[derive(Clone, Debug, PartialEq)]
pub enum Command {
    /// Apply the changes of an errand that needs nobody, all at once, and tell what the rig then reports.
    Apply(Errand),
    /// Ask the operator.
    Ask(Question),
    /// Start a pass.
    RunPass(PassOrder),
    /// Break the running pass off at once; its end is told as usual.
    StopPass,
}

/// The engine's answer: entries to commit, then at most one command to carry out.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Step {
    /// When it happened.
    pub at: Moment,
    /// What has to be on disk before the command is carried out.
    pub entries: Vec<Entry>,
    /// What to do then.
    pub command: Option<Command>,
}

impl Step {
    /// Whether the engine had nothing to say.
    pub fn is_silent(&self) -> bool {
        self.entries.is_empty() && self.command.is_none()
    }
}
