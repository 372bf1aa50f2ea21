//! What a climb has come to so far, in numbers.

use crate::model::budget::Spent;
use crate::model::moment::{Moment, Span};

/// Everything that a climb counts.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Tally {
    pub(super) began: Moment,
    /// When the machine is wanted back.
    pub(super) deadline: Option<Moment>,
    pub(super) trials: u32,
    pub(super) falls: u32,
    /// How long passes ran, together.
    pub(super) tested: Span,
    pub(super) restarts: u32,
    /// How many of these were cold starts.
    pub(super) cold_starts: u32,
    /// Errands that needed somebody.
    pub(super) errands: u32,
    /// Deaths of the program in a row at one rung.
    pub(super) deaths_in_a_row: u32,
    /// How often the machine went down since a pass ran to its end, with nobody there.
    pub(super) downs_in_a_row: u32,
    /// How often in a row the rig came back with its defaults on the way to something easier.
    pub(super) setbacks: u32,
    /// How many trials have said something, about their rung or about the luck of their scores.
    pub(super) spoken: u32,
}

impl Tally {
    /// Nothing so far.
    pub(super) fn new() -> Self {
        Self {
            began: Moment::from_millis(0),
            deadline: None,
            trials: 0,
            falls: 0,
            tested: Span::ZERO,
            restarts: 0,
            cold_starts: 0,
            errands: 0,
            deaths_in_a_row: 0,
            downs_in_a_row: 0,
            setbacks: 0,
            spoken: 0,
        }
    }

    /// What of it a budget limits.
    pub(super) fn spent(&self, now: Moment) -> Spent {
        let elapsed = now.since(self.began);
        Spent {
            tested: self.tested,
            elapsed,
            restarts: self.restarts,
            cold_starts: self.cold_starts,
            changes: self.errands,
        }
    }
}
