//! What may not take longer than so long: one table for all of it.

use crate::engine::question::Question;
use crate::engine::state::{Doing, Pressure, State};
use crate::model::moment::{Moment, Span};
use crate::model::rig::Rig;

/// A change that the rig makes by itself, and that has not been answered after this, has not been taken: firmware may take
/// minutes for one.
const UNANSWERED: Span = Span::from_seconds(600);

/// A pass that has not ended this long after its time is stalled.
const OVERDUE: Span = Span::from_seconds(60);

/// A pass that was told to stop is told again, harder, where it has not ended this long after.
const STOPPING: Span = Span::from_seconds(5);

/// A pass that has not ended this long after it was told to stop can't be ended.
const UNSTOPPABLE: Span = Span::from_seconds(20);

/// What time has come for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Due {
    /// The change should have been answered.
    Answer,
    /// The rig has rested.
    Pass,
    /// Nobody said that all is well.
    Word,
    /// The pass should have ended.
    PassEnd,
    /// A pass that was told to stop is to be told again.
    SecondStop,
    /// A pass that was told twice can't be stopped.
    Despair,
}

/// What is due in a state, given how long the pass takes that runs in it, preparations and all; nothing where time may go by.
pub(super) fn due(state: &State, rig: &Rig, pass: Span, now: Moment) -> Option<Due> {
    if let Some(since) = state.applies_since(rig) {
        return (now.since(since) > UNANSWERED).then_some(Due::Answer);
    }
    let State::Trying(_, doing) = state else { return None };
    let (from, patience, due) = match doing {
        Doing::Setting { .. } | Doing::Reading { .. } | Doing::Making { .. } => return None,
        Doing::Confirming { question: Question::Confirm { until, .. } } => {
            return (now >= *until).then_some(Due::Word);
        }
        Doing::Confirming { .. } => return None,
        Doing::Resting { until, .. } => return (now >= *until).then_some(Due::Pass),
        Doing::Passing { began, stopping: None, .. } => (*began, pass + OVERDUE, Due::PassEnd),
        Doing::Passing { stopping: Some(stop), .. } => match stop.pressure {
            Pressure::Told => (stop.since, STOPPING, Due::SecondStop),
            Pressure::Harder => (stop.since, UNSTOPPABLE, Due::Despair),
            Pressure::GivenUp => return None,
        },
    };
    (now.since(from) > patience).then_some(due)
}
