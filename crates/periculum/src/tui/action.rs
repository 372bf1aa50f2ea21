//! What the operator can do, and which view it is done in.

use periculum_core::engine::Answer;

/// Which view fills the screen.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum View {
    /// Where we are, and what comes next.
    Climb,
    /// Two settings against each other.
    Map,
    /// The trials, one by one.
    Trials,
    /// What the rig is and may be.
    Rig,
    /// What the sensors read.
    Traces,
    /// Every climb of the ledger.
    Climbs,
    /// What the benchmarks say.
    Scores,
    /// What was picked, beside each other.
    Compare,
    /// What is climbed, or is to be.
    Plan,
}

/// How the stretch of time that traces show changes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Look {
    Closer,
    Farther,
    Earlier,
    Later,
}

/// Something the operator can do with a key.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Action {
    PauseOrGoOn,
    SawSomething,
    AddNote,
    Stop,
    Leave,
    ShowCores,
    ShowClimb,
    Help,
    StopAtMark,
    /// Answers what is asked.
    Answer(Answer),
    Confirm,
    StopFromLeaving,
    Back,
    Show(View),
    Find,
    Zoom,
    /// To another stretch of time.
    Look(Look),
    LookAtIncident,
    /// To the sensors that there was no room for.
    MoreSensors,
    /// Shows picked trials over each other.
    LayOver,
    Open,
    CloseOther,
    Select(Travel),
    /// To another benchmark.
    Turn(Travel),
    ShowTrial,
    /// Writes what the view shows into a file.
    Save,
    /// Changes the selected line of the plan.
    Change,
    /// Adds something to the plan.
    Add,
    Copy,
    Remove,
    Earlier,
    Later,
    Undo,
    /// Climbs the plan.
    Begin,
    /// Climbs a climb of the ledger again.
    Repeat,
    /// To be compared.
    Pick,
    DropPick,
}

/// How the selection moves.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Travel {
    Back(usize),
    On(usize),
    First,
    Last,
}

impl Travel {
    /// Where it leads from a place among so many.
    pub(super) fn from(self, at: usize, count: usize) -> usize {
        let last = count.saturating_sub(1);
        match self {
            Self::Back(by) => at.saturating_sub(by),
            Self::On(by) => (at + by).min(last),
            Self::First => 0,
            Self::Last => last,
        }
    }
}
