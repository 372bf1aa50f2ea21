//! What comes next, and why: for either way the trial that is open can end.

use crate::engine::question::Suggestion;
use crate::model::reason::{Reason, StageEnd};
use crate::model::rung::Rung;

/// What the engine will do when the open trial is over.
#[derive(Clone, Debug, PartialEq)]
pub struct Outlook {
    /// If it holds.
    pub if_held: Prospect,
    /// If it falls.
    pub if_fell: Prospect,
}

/// What the engine will do in one case.
#[derive(Clone, Debug, PartialEq)]
pub enum Prospect {
    /// It will try this rung.
    Try(Rung, Reason),
    /// The stage is over and the climb stands on this rung.
    StageDone(Rung, StageEnd),
    /// The climb is over, because nothing held.
    NothingLeft,
    /// The operator says what comes next; this is what it will suggest.
    Asks(Option<Suggestion>),
}
