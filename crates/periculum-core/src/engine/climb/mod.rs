//! The state machine: what happens in which state, and what is recorded and done about it.
//!
//! [`Climber`] is everything that outlives a state; its methods take the state that was, and give back the one that is.

mod applying;
mod belief;
mod by_hand;
mod climber;
mod confirming;
mod deadline;
mod home;
mod judging;
mod leading;
mod operator;
mod passing;
mod restart;
mod sighting;
mod spending;
mod staging;
mod tally;
mod watching;

use std::collections::{BTreeMap, BTreeSet};
use std::mem;
use std::sync::Arc;

use climber::Climber;

use crate::engine::course::{Move, Outcome};
use crate::engine::event::Event;
use crate::engine::outlook::{Outlook, Prospect};
use crate::engine::question::Question;
use crate::engine::state::{Doing, Next, Pressure, State};
use crate::engine::step::Step;
use crate::engine::watch::is_over_cut_off;
use crate::model::budget::Rest;
use crate::model::moment::{Moment, Span};
use crate::model::plan::Plan;
use crate::model::rig::Rig;
use crate::model::rung::{InForce, Rung};
use crate::model::verdict::Verdict;

/// One execution of a plan on a rig.
#[derive(Clone, Debug, PartialEq)]
pub struct Climb {
    climber: Climber,
    state: State,
}

impl Climb {
    /// A climb that has not begun, of a plan that was checked against this rig.
    pub fn new(rig: Arc<Rig>, plan: Arc<Plan>) -> Self {
        Self { climber: Climber::new(rig, plan), state: State::Ready }
    }

    /// Takes one event and answers with what to record and then do.
    ///
    /// Call it again when the command has led to an event, when the operator says something, and with telemetry
    /// whenever there is any. An event that does not fit the state is answered with silence.
    pub fn next(&mut self, at: Moment, event: &Event) -> Step {
        let mut step = Step { at, ..Step::default() };
        let state = mem::replace(&mut self.state, State::Ended);
        self.state = self.climber.take(state, event, &mut step);
        step
    }

    /// The rig that is climbed on.
    pub fn rig(&self) -> &Rig {
        &self.climber.rig
    }

    /// What the rig is believed to have in force; a setting that is missing is unknown.
    pub fn in_force(&self) -> &InForce {
        self.climber.belief.in_force()
    }

    /// Whether the climb is over.
    pub fn is_ended(&self) -> bool {
        self.state == State::Ended
    }

    /// How many trials have begun.
    pub fn trials(&self) -> u32 {
        self.climber.tally.trials
    }

    /// Whether the climb waits for the operator to go on.
    pub fn is_paused(&self) -> bool {
        matches!(self.state, State::Paused(_))
    }

    /// Whether a pass runs.
    pub fn is_passing(&self) -> bool {
        matches!(self.state, State::Trying(_, Doing::Passing { .. }))
    }

    /// Whether somebody makes a pass.
    pub fn is_made_by_hand(&self) -> bool {
        matches!(self.state, State::Trying(_, Doing::Making { .. }))
    }

    /// Whether a trial is under way and waits for nobody, so that a machine that stands still now has frozen.
    pub fn is_on_trial(&self) -> bool {
        matches!(self.state, State::Trying(..)) && self.question().is_none()
    }

    /// Whether time has to go by before anything else happens: a pass runs, the rig rests before one, or it changes
    /// something by itself.
    pub fn needs_time(&self) -> bool {
        let is_timed = matches!(self.state, State::Trying(_, Doing::Passing { .. } | Doing::Resting { .. }));
        is_timed || self.is_applying() || self.is_confirming()
    }

    /// Whether somebody is to say that all is well, before what was changed goes back.
    pub fn is_confirming(&self) -> bool {
        matches!(self.state, State::Trying(_, Doing::Confirming { .. }))
    }

    /// Whether nothing goes on before somebody says something.
    pub fn needs_somebody(&self) -> bool {
        match self.question() {
            Some(Question::Confirm { errand, .. }) => self.climber.is_confirmed_by_somebody(&errand),
            asked => asked.is_some(),
        }
    }

    /// Whether the rig is changing something by itself.
    pub fn is_applying(&self) -> bool {
        self.state.applies_since(&self.climber.rig).is_some()
    }

    /// Whether a pass could not be ended by any means, so that only the machine's watchdog can help.
    pub fn is_in_trouble(&self) -> bool {
        let State::Trying(_, Doing::Passing { stopping: Some(stop), .. }) = &self.state else { return false };
        stop.pressure == Pressure::GivenUp
    }

    /// Whether nothing has begun.
    pub fn is_ready(&self) -> bool {
        self.state == State::Ready
    }

    /// What the climb waits for the operator to answer.
    pub fn question(&self) -> Option<Question> {
        self.state.question(&self.climber.rig)
    }

    /// The mark that the rig was left at, where it was not to go back to stock.
    pub fn left_at(&self) -> Option<&Rung> {
        self.climber.left_at.as_ref()
    }

    /// Whether a reading is above its sensor's cut-off, so that it is to be told at once.
    pub fn is_over_cut_off(&self, readings: &BTreeMap<String, f64>) -> bool {
        let rig = &self.climber.rig;
        let value = |name: &str| self.in_force().get(name).copied().or_else(|| Some(rig.setting(name)?.stock));
        is_over_cut_off(&rig.sensors, readings, value)
    }

    /// What is left of the budget at this moment.
    pub fn rest(&self, now: Moment) -> Rest {
        let tally = &self.climber.tally;
        self.climber.plan.budget.rest(&tally.spent(now), now, tally.deadline)
    }

    /// What comes next, for either end of the open trial; none where no trial is open.
    pub fn outlook(&self) -> Option<Outlook> {
        let open = matches!(&self.state, State::Trying(..) | State::Paused(Next::Pass(..)));
        let climber = &self.climber;
        let course = climber.course.as_ref().filter(|_| open)?;
        let prospect = |verdict| {
            let outcome = Outcome {
                trial: climber.tally.trials,
                verdict,
                incident: None,
                cores: BTreeSet::new(),
                scores: Vec::new(),
                benchmarks: Vec::new(),
                tested: climber.trial_length(),
                unheard: Span::ZERO,
            };
            match course.clone().after(&outcome, climber.ground(climber.tally.began)) {
                Move::Try(rung, reason) => Prospect::Try(rung, reason),
                Move::Settle { rung, end, .. } => Prospect::StageDone(rung, end),
                Move::GiveUp(_) => Prospect::NothingLeft,
                Move::Ask(suggestion) => Prospect::Asks(suggestion),
            }
        };
        Some(Outlook { if_held: prospect(Verdict::Held), if_fell: prospect(Verdict::Fell) })
    }
}
