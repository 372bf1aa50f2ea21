//! What a climb has cost, and the end that its budget makes.

use super::climber::Climber;
use crate::engine::course::Course;
use crate::engine::entry::{ClimbEnd, Entry};
use crate::engine::state::State;
use crate::engine::step::Step;
use crate::model::budget::Limit;
use crate::model::moment::{Moment, Span};
use crate::model::reason::StageEnd;
use crate::model::rung::Rung;

impl Climber {
    /// The limit of the budget that a trial of this rung would go beyond.
    pub(super) fn over_budget(&self, rung: &Rung, now: Moment) -> Option<Limit> {
        let length = self.trial_length();
        let errands = self.way_to(rung).iter().filter(|errand| errand.needs_somebody(&self.rig)).count() as u32;
        self.plan.budget.forbids(&self.tally.spent(now), now, self.tally.deadline, length, errands)
    }

    /// For how long passes may still run.
    pub(super) fn time_left(&self, now: Moment) -> Option<Span> {
        self.plan.budget.left(&self.tally.spent(now), now, self.tally.deadline)
    }

    /// How long the passes of the next trial take, together.
    pub(super) fn trial_length(&self) -> Span {
        let short = self.course.as_ref().and_then(Course::length);
        short.unwrap_or_else(|| self.proof().length())
    }

    /// Keeps the best that the stage has found so far, and goes home.
    pub(super) fn end_on_budget(&mut self, limit: Limit, step: &mut Step) -> State {
        let best = self.course.as_ref().and_then(|course| course.best().map(|(rung, trial)| (rung.clone(), trial)));
        if let Some((rung, trial)) = best {
            self.set_mark(&rung, trial, step);
        }
        step.entries.push(Entry::StageEnded { stage: self.stage, end: StageEnd::BudgetSpent { limit } });
        let left = (self.stage..self.plan.stages.len()).collect();
        self.go_home(ClimbEnd::BudgetSpent { limit, left }, step)
    }
}
