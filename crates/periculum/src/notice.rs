//! What a driver tells its listeners: screen, lines and log hear the same.

use std::collections::BTreeMap;

use periculum_core::engine::{Entry, Event, Outlook};
use periculum_core::model::budget::Rest;
use periculum_core::model::moment::Moment;
use periculum_core::model::pass::Progress;
use periculum_core::story::Story;
use periculum_rigs::bench::Shown;

/// Something a listener should know.
#[derive(Clone, Debug)]
pub(crate) enum Notice {
    /// The engine stated something, and it is on the disk.
    Told { at: Moment, entry: Entry },
    /// The rig's settings were read back.
    ReadBack(Event),
    /// The running pass came further.
    Progress { at: Moment, progress: Progress },
    /// Sensors were read.
    Sample { at: Moment, readings: BTreeMap<String, f64> },
    /// Something of the machine could not be put back as it was.
    LeftBehind { problem: String },
    /// This is what the rig shows to whoever makes the pass that was asked for.
    Shown(Shown),
    /// What the operator wrote down with an answer can't be; the question stands.
    Misheard { why: String },
    /// What comes next has changed, and what is left of the budget.
    Outlook(Option<Box<Outlook>>, Rest),
}

/// Lets a story take in a notice.
pub(crate) fn take(story: &mut Story, notice: &Notice) {
    match notice {
        Notice::Told { at, entry } => story.tell(*at, entry),
        Notice::ReadBack(event) => story.hear(event),
        Notice::Progress { at, progress } => story.progress(*at, progress.clone()),
        Notice::Sample { at, readings } => story.sample(*at, readings.clone()),
        Notice::Outlook(..) | Notice::LeftBehind { .. } | Notice::Misheard { .. } | Notice::Shown(_) => {}
    }
}
