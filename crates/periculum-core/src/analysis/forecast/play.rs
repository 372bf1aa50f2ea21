//! A plan, played by the engine itself on a made-up rig, where everything takes at once and time passes only in passes.

use std::sync::Arc;

use super::effort::Effort;
use super::specimen::Specimen;
use crate::engine::{Answer, Climb, Command, Event, Noted, Question, RULES};
use crate::model::incident::{Incident, IncidentKind};
use crate::model::kind::Kind;
use crate::model::moment::{Moment, Span};
use crate::model::pass::{PassOrder, PassReport, Score};
use crate::model::plan::Plan;
use crate::model::rig::Rig;
use crate::model::rung::InForce;
use crate::story::Story;

/// A climb that has more steps than this is not played to its end.
const MOST_STEPS: usize = 50_000;

/// A climb on a made-up rig.
pub(super) struct Play<'a> {
    rig: &'a Rig,
    specimen: Specimen,
    pub(super) climb: Climb,
    pub(super) story: Story,
    now: Moment,
    in_force: InForce,
    /// What each stage took.
    pub(super) efforts: Vec<Effort>,
}

impl<'a> Play<'a> {
    /// Plays the plan on this rig until it ends, or up to so many trials.
    pub(super) fn of(rig: &'a Arc<Rig>, plan: &Arc<Plan>, specimen: Specimen, kinds: &[Kind], trials: usize) -> Self {
        let in_force: InForce = rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
        let mut play = Self {
            rig,
            specimen,
            climb: Climb::new(Arc::clone(rig), Arc::clone(plan)),
            story: Story::default(),
            now: Moment::from_millis(0),
            in_force: in_force.clone(),
            efforts: vec![Effort::default(); plan.stages.len()],
        };
        let mut event = Event::Started { in_force, ahead: 0, rules: RULES, kinds: kinds.to_vec() };
        for _ in 0..MOST_STEPS {
            if play.climb.is_ended() || play.story.trials.len() >= trials {
                break;
            }
            event = play.next(&event);
        }
        for trial in &play.story.trials {
            play.efforts[trial.stage].trials += 1;
        }
        play
    }

    /// What follows this event on the made-up rig.
    fn next(&mut self, event: &Event) -> Event {
        let step = self.climb.next(self.now, event);
        for entry in &step.entries {
            self.story.tell(step.at, entry);
        }
        match step.command {
            Some(Command::Apply(errand)) => {
                self.in_force.extend(errand.made());
                Event::Applied { reported: self.in_force.clone() }
            }
            Some(Command::Ask(question)) => {
                if let Question::Make { length, .. } = question {
                    return self.make(length);
                }
                let Some(errand) = question.errand() else {
                    return Event::OperatorSaid { said: question.usual_answer().into() };
                };
                self.in_force.extend(errand.made());
                let (starts, by_hand) = (errand.needs_start(self.rig), errand.without_start(self.rig).is_some());
                if let Some(effort) = self.effort() {
                    effort.restarts += u32::from(starts);
                    effort.by_hand += u32::from(by_hand);
                }
                Event::ChangeMade { reported: self.in_force.clone(), started_anew: true, noted: Noted::default() }
            }
            Some(Command::RunPass(order)) => {
                let report = self.run(&order);
                self.pass_time(report.ran);
                Event::PassEnded { report, reported: None }
            }
            Some(Command::StopPass) | None => {
                let rest = self.story.rests_until.map_or(Span::ZERO, |until| until.since(self.now));
                self.pass_time(rest);
                Event::TIME_PASSED
            }
        }
    }

    /// Somebody makes a pass.
    fn make(&mut self, length: Span) -> Event {
        let lives = self.specimen.fails_after(&self.in_force);
        self.pass_time(length.min(Span::from_millis((1000.0 * lives) as u64)));
        let said = if lives > length.seconds() { Answer::Done } else { Answer::Hung };
        Event::OperatorSaid { said: said.into() }
    }

    fn run(&mut self, order: &PassOrder) -> PassReport {
        let (length, lives) = (order.pass.length, self.specimen.fails_after(&self.in_force));
        if lives > length.seconds() {
            let value = self.specimen.score(&self.in_force);
            let score = Score { value, unit: "1/s".into(), less_is_better: false };
            return PassReport { ran: length, rounds: 1, score: Some(score), ..PassReport::default() };
        }
        let incidents = vec![Incident::new(IncidentKind::WrongResult, "made up")];
        PassReport { ran: Span::from_millis((1000.0 * lives) as u64), incidents, ..PassReport::default() }
    }

    fn pass_time(&mut self, span: Span) {
        self.now = self.now + span;
        if let Some(effort) = self.effort() {
            effort.time += span;
        }
    }

    /// The effort of the stage that is under way.
    fn effort(&mut self) -> Option<&mut Effort> {
        let stage = self.story.stages.len().checked_sub(1)?;
        self.efforts.get_mut(stage)
    }
}
