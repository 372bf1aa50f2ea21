//! What the engine is in the middle of; each state holds just the data that is valid in it.

use std::collections::BTreeSet;

use crate::engine::entry::ClimbEnd;
use crate::incident::IncidentKind;
use crate::moment::{Moment, Span};
use crate::reason::Reason;
use crate::rung::{Change, Rung};

/// What the engine is in the middle of.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum State {
    /// Nothing has begun.
    Ready,
    /// A trial is open.
    Trying(Trial, Doing),
    /// The operator asked for a pause, and this comes next.
    Paused(Next),
    /// The rig goes back to stock: the change that is under way, and the settings that would not go.
    GoingHome { then: Then, under_way: Change, given_up: BTreeSet<String> },
    /// The climb is over.
    Ended,
}

/// What follows when the rig is back at stock.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Then {
    /// The climb is over.
    End(ClimbEnd),
    /// The climb waits, and goes on with this.
    Wait(Next),
}

/// One rung put to one proof.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Trial {
    pub(super) number: u32,
    pub(super) rung: Rung,
    pub(super) incidents: Vec<IncidentKind>,
    /// The scores of its passes that had one, as numbers of which more is better.
    pub(super) scores: Vec<f64>,
    pub(super) tested: Span,
}

/// What a trial is doing.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Doing {
    /// Waiting for the change that is under way.
    Setting { under_way: Change },
    /// Resting before a pass until this moment.
    Resting { index: usize, until: Moment },
    /// Waiting for a pass to end.
    Passing { index: usize, began: Moment, stopping: Option<Stopping> },
}

/// Why a pass was told to stop.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) enum Stopping {
    /// Something was wrong; the trial is judged by its incidents.
    ForCause,
    /// Something has to be put right before anything else.
    Unsound { why: String },
    /// The operator wants the whole climb stopped.
    ByOperator,
    /// The operator leaves, and the climb is to wait.
    ToLeave,
}

/// What a pause holds back.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Next {
    /// The next pass of an open trial.
    Pass(Trial, usize),
    /// The next trial.
    Trial(Rung, Reason),
}
