//! What the operator says, and what comes of it.

use super::climber::{Climber, blame};
use crate::engine::entry::{ClimbEnd, Entry};
use crate::engine::event::Said;
use crate::engine::question::Question;
use crate::engine::state::{Aside, Doing, Next, State, Stop, Stopping, Then, Trial, UnderWay};
use crate::engine::step::{Command, Step};
use crate::model::evidence::Finding;
use crate::model::incident::{Incident, IncidentKind};
use crate::model::plan::Ends;
use crate::model::reason::Reason;
use crate::model::rig_change::RigChange;

impl Climber {
    pub(super) fn on_operator(&mut self, state: State, said: &Said, step: &mut Step) -> State {
        let question = state.question(&self.rig);
        let is_empty = self.rules > 0 && matches!(said, Said::Saw { text, .. } if text.trim().is_empty());
        let takes = |answer| question.as_ref().is_some_and(|question| question.answers().contains(&answer));
        let is_unasked = said.answer().is_some_and(|answer| !takes(answer));
        if state == State::Ended && !matches!(said, Said::Note { .. }) || is_unasked || is_empty {
            return state;
        }
        step.entries.push(Entry::Operator { said: said.clone() });
        match said {
            Said::Note { .. } => state,
            Said::Pause => {
                self.pause_wanted = matches!(state, State::Trying(..));
                state
            }
            Said::Resume => self.go_on(state, step),
            Said::Saw { text, trial } => self.on_seen(state, text, *trial, step),
            Said::Stop => self.on_stop(state, Ends::AtStock, step),
            Said::StopAtMark => self.on_stop(state, Ends::AtMark, step),
            Said::Leave => self.put_aside(state, Aside::AtStock, step),
            Said::Suspend => {
                self.is_suspended = true;
                self.put_aside(state, Aside::AsItStands, step)
            }
            Said::Done { written } => self.on_done(state, written, step),
            Said::Read { written } => self.on_read(state, written, step),
            Said::Changed { written } => {
                if let Ok(change) = RigChange::of(&self.rig, written) {
                    self.changes += 1;
                    self.seen.clear();
                    step.entries.push(Entry::RigChanged { state: self.changes + 1, change });
                }
                state
            }
            Said::NotToday => {
                self.is_suspended = true;
                self.put_aside(state, Aside::AsItStands, step)
            }
            Said::Hung => self.on_failed_by_hand(state, (IncidentKind::Freeze, Finding::SaidHung), step),
            Said::WrongPicture { what } => {
                let finding = Finding::SaidWrongPicture { what: what.clone() };
                self.on_failed_by_hand(state, (IncidentKind::Artefact, finding), step)
            }
            Said::NoStart if matches!(question, Some(Question::Make { .. })) => {
                self.on_failed_by_hand(state, (IncidentKind::NoStart, Finding::SaidNoStart), step)
            }
            Said::NoStart => {
                let incident = told(IncidentKind::NoStart, Finding::SaidNoStart, question.as_ref());
                self.on_apply_failed(state, incident, step)
            }
            Said::Take | Said::Try { .. } | Said::Back | Said::Mark | Said::Save { .. } | Said::End => {
                self.on_led(state, said, step)
            }
            Said::Defaults => {
                let incident = told(IncidentKind::SafeDefaults, Finding::SaidDefaults, question.as_ref());
                self.on_apply_failed(state, incident, step)
            }
        }
    }

    fn go_on(&mut self, state: State, step: &mut Step) -> State {
        self.pause_wanted = false;
        match state {
            State::Paused(next) => self.leave_pause(next, step),
            other => other,
        }
    }

    pub(super) fn leave_pause(&mut self, next: Next, step: &mut Step) -> State {
        step.entries.push(Entry::Resumed);
        match next {
            Next::Pass(trial, _) if !trial.incidents.is_empty() => self.end_trial(trial, step),
            Next::Pass(trial, index) => self.begin_pass(trial, index, step),
            Next::Trial(rung, reason) => self.begin_trial(rung, reason, step),
            Next::Answer(suggestion) => self.ask_next(suggestion, step),
        }
    }

    fn on_stop(&mut self, state: State, stays: Ends, step: &mut Step) -> State {
        let stopped = Incident::new(IncidentKind::Stopped, Finding::Stopped);
        match state {
            State::Trying(mut trial, Doing::Passing { index, began, .. }) => {
                blame(&mut trial, Some(index), stopped.into_pass(step.at.since(began)), step);
                step.command = Some(Command::StopPass);
                let stopping = Some(Stop::new(Stopping::ByOperator(stays), step.at));
                State::Trying(trial, Doing::Passing { index, began, stopping })
            }
            State::Trying(mut trial, Doing::Setting { under_way }) if !under_way.errand.needs_somebody(&self.rig) => {
                if !matches!(under_way.instead, Some(Stopping::ByOperator(_))) {
                    blame(&mut trial, None, stopped, step);
                }
                let instead = Some(Stopping::ByOperator(stays));
                State::Trying(trial, Doing::Setting { under_way: UnderWay { instead, ..under_way } })
            }
            State::Trying(mut trial, doing) => {
                self.forget(&doing);
                blame(&mut trial, None, stopped, step);
                self.close_void(&trial, Some(IncidentKind::Stopped), step);
                self.stop_at(stays, step)
            }
            State::Paused(next) => {
                if let Next::Pass(mut trial, _) = next {
                    blame(&mut trial, None, stopped, step);
                    self.close_void(&trial, Some(IncidentKind::Stopped), step);
                }
                self.stop_at(stays, step)
            }
            State::Asked(_) => self.stop_at(stays, step),
            State::GoingHome { then, under_way, given_up } if !under_way.errand.needs_somebody(&self.rig) => {
                let instead = Some(Stopping::ByOperator(stays));
                State::GoingHome { then, under_way: UnderWay { instead, ..under_way }, given_up }
            }
            State::GoingHome { then, .. } => self.end_on_the_way(then, Vec::new(), step),
            State::Ready | State::Ended => self.finish(ClimbEnd::Stopped, None, step),
        }
    }

    /// Puts the climb aside, to go on when somebody takes it up again.
    fn put_aside(&mut self, state: State, aside: Aside, step: &mut Step) -> State {
        match state {
            State::Trying(trial, Doing::Passing { index, began, stopping: None }) => {
                step.command = Some(Command::StopPass);
                let stopping = Some(Stop::new(Stopping::ToWait(aside), step.at));
                State::Trying(trial, Doing::Passing { index, began, stopping })
            }
            State::Trying(trial, doing @ Doing::Passing { .. }) => {
                self.aside_wanted = Some(aside).filter(|_| self.rules > 0);
                State::Trying(trial, doing)
            }
            // What was asked for stands, and may come true while nobody looks.
            State::Trying(trial, Doing::Setting { under_way })
                if aside == Aside::AsItStands && under_way.errand.needs_somebody(&self.rig) =>
            {
                State::Trying(trial, Doing::Setting { under_way })
            }
            State::Trying(trial, doing @ (Doing::Making { .. } | Doing::Reading { .. }))
                if aside == Aside::AsItStands =>
            {
                State::Trying(trial, doing)
            }
            State::Trying(trial, Doing::Setting { under_way }) if !under_way.errand.needs_somebody(&self.rig) => {
                let instead = under_way.instead.or(Some(Stopping::ToWait(aside)));
                State::Trying(trial, Doing::Setting { under_way: UnderWay { instead, ..under_way } })
            }
            State::Trying(trial, doing) => {
                self.forget(&doing);
                self.wait_aside(&trial, aside, step)
            }
            State::Paused(Next::Pass(trial, _)) => self.wait_aside(&trial, aside, step),
            State::Paused(next) => self.head_home(Then::Wait(next, aside), step),
            State::Asked(Question::WhatNext { turn }) => {
                self.head_home(Then::Wait(Next::Answer(turn.suggestion), aside), step)
            }
            other => other,
        }
    }

    /// Nobody knows any more what is in force of settings that are being changed.
    pub(super) fn forget(&mut self, doing: &Doing) {
        if let Doing::Setting { under_way } = doing {
            self.belief.forget(&under_way.errand);
        }
    }

    /// Breaks a trial off and waits to try its rung again.
    pub(super) fn wait_aside(&mut self, trial: &Trial, aside: Aside, step: &mut Step) -> State {
        self.close_void(trial, None, step);
        let again = Next::Trial(trial.rung.clone(), Reason::Again { trial: trial.number });
        self.head_home(Then::Wait(again, aside), step)
    }
}

/// What the operator says of an errand; where it is of one setting, that is named.
fn told(kind: IncidentKind, what: Finding, question: Option<&Question>) -> Incident {
    let incident = Incident::new(kind, what);
    match question {
        Some(Question::Change { errand }) => match errand.changes() {
            [change] => incident.at(&change.setting),
            _ => incident,
        },
        Some(Question::Make { .. } | Question::Read { .. } | Question::Confirm { .. } | Question::WhatNext { .. })
        | None => incident,
    }
}
