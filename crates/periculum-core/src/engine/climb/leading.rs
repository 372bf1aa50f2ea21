//! An operator who leads: what they say becomes a trial, a mark, a profile or the end of the stage.

use super::applying::ask_again;
use super::climber::Climber;
use crate::engine::course::{Course, Lead};
use crate::engine::entry::{Declined, Entry, Profile};
use crate::engine::event::Said;
use crate::engine::question::{Question, Suggestion, Turn};
use crate::engine::state::{Next, State, Then};
use crate::engine::step::Step;
use crate::model::field::Written;
use crate::model::objection::Objection;
use crate::model::quantity::harmless;
use crate::model::reason::Reason;
use crate::model::rung::Rung;

impl Climber {
    /// Asks what comes next.
    pub(super) fn ask_next(&mut self, suggestion: Option<Suggestion>, step: &mut Step) -> State {
        if let Some(aside) = self.aside_wanted.take() {
            return self.head_home(Then::Wait(Next::Answer(suggestion), aside), step);
        }
        // Nothing goes on by itself, which is all that a pause is.
        self.pause_wanted = false;
        let Some(course) = self.lead() else { return State::Ended };
        let turn = Turn {
            at: course.at().clone(),
            in_force: self.belief.in_force().clone(),
            proof: self.proof().name.clone(),
            proofs: self.plan.proofs.iter().map(|proof| proof.name.clone()).collect(),
            held: course.held().map(|(_, trial)| trial),
            suggestion,
        };
        let question = Question::WhatNext { turn };
        ask_again(None, question.clone(), step);
        State::Asked(question)
    }

    /// Does what an operator says who was asked what comes next.
    pub(super) fn on_led(&mut self, state: State, said: &Said, step: &mut Step) -> State {
        let State::Asked(Question::WhatNext { turn }) = state else { return state };
        let done = match said {
            Said::Take => turn.suggestion.clone().ok_or(Declined::NothingHeld),
            Said::Try { written } => self.wanted(&turn, written),
            Said::Back => self.back(),
            Said::Mark => return self.on_marked(turn, step),
            Said::Save { name } => return self.on_saved(turn, name, step),
            _ => return self.on_enough(step),
        };
        match done {
            Ok(Suggestion { rung, reason }) => {
                let rig = self.rig.clone();
                if let Some(course) = self.lead_mut() {
                    course.go_to(&rung, &rig);
                }
                self.begin_trial(rung, reason, step)
            }
            Err(because) => decline(turn, because, step),
        }
    }

    /// The rung that was written down, and the proof it is put to from now on.
    fn wanted(&mut self, turn: &Turn, written: &Written) -> Result<Suggestion, Declined> {
        let question = Question::WhatNext { turn: turn.clone() };
        let rung = turn.with(&question.values(&self.rig, written));
        let against = Objection::all(&self.rig, &rung, &self.plan.use_name);
        if !against.is_empty() {
            return Err(Declined::NotAllowed { against });
        }
        if let Some(name) = written.get(Question::PROOF) {
            let is_it = |known: &String| known.eq_ignore_ascii_case(name.trim());
            let place = turn.proofs.iter().position(is_it);
            self.chosen = Some(place.ok_or_else(|| Declined::NoProof { named: name.clone() })?);
        }
        Ok(Suggestion { rung, reason: Reason::Chosen })
    }

    fn back(&self) -> Result<Suggestion, Declined> {
        let (rung, trial) = self.held().ok_or(Declined::NothingHeld)?;
        Ok(Suggestion { rung, reason: Reason::Back { trial } })
    }

    fn on_marked(&mut self, turn: Turn, step: &mut Step) -> State {
        let Some((rung, trial)) = self.held() else { return decline(turn, Declined::NothingHeld, step) };
        if self.marks.iter().any(|mark| mark.trial == trial) {
            return decline(turn, Declined::IsMark { trial }, step);
        }
        self.set_mark(&rung, trial, step);
        self.ask_next(turn.suggestion, step)
    }

    fn on_saved(&mut self, turn: Turn, name: &str, step: &mut Step) -> State {
        let Some((rung, trial)) = self.held() else { return decline(turn, Declined::NothingHeld, step) };
        // What is to be used rests on a mark.
        let mark = self.set_mark(&rung, trial, step);
        let name = harmless(name.trim());
        self.saved.insert(name.clone(), rung.clone());
        let profile = Profile { name, rung, mark, soaked: false };
        step.entries.push(Entry::ProfileSaved { profile });
        self.ask_next(turn.suggestion, step)
    }

    fn on_enough(&mut self, step: &mut Step) -> State {
        match self.lead().map(Lead::end) {
            Some(end) => self.make(end, step),
            None => State::Ended,
        }
    }

    fn held(&self) -> Option<(Rung, u32)> {
        self.lead()?.held().map(|(rung, trial)| (rung.clone(), trial))
    }

    fn lead(&self) -> Option<&Lead> {
        match &self.course {
            Some(Course::Lead(course)) => Some(course),
            _ => None,
        }
    }

    fn lead_mut(&mut self) -> Option<&mut Lead> {
        match &mut self.course {
            Some(Course::Lead(course)) => Some(course),
            _ => None,
        }
    }
}

/// What was said can't be; the question stands.
fn decline(turn: Turn, because: Declined, step: &mut Step) -> State {
    step.entries.push(Entry::Declined { because });
    let question = Question::WhatNext { turn };
    ask_again(None, question.clone(), step);
    State::Asked(question)
}
