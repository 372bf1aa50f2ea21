//! What the operator says, and what comes of it.

use std::mem;

use super::{Climb, blame};
use crate::engine::entry::{ClimbEnd, Entry};
use crate::engine::event::{Question, Said};
use crate::engine::step::{Command, Step};

use crate::engine::state::{Aside, Doing, Next, State, Stop, Stopping, Then, Trial};
use crate::model::evidence::Finding;
use crate::model::incident::{Incident, IncidentKind};
use crate::model::reason::Reason;
use crate::model::rung::InForce;

impl Climb {
    pub(super) fn on_operator(&mut self, said: &Said, step: &mut Step) {
        let answers = matches!(said, Said::Done | Said::NoStart | Said::Defaults);
        let is_empty = self.rules > 0 && matches!(said, Said::Saw { text, .. } if text.trim().is_empty());
        let says_nothing = answers && self.question().is_none() || is_empty;
        if self.is_ended() && !matches!(said, Said::Note { .. }) || says_nothing {
            return;
        }
        step.entries.push(Entry::Operator { said: said.clone() });
        match said {
            Said::Note { .. } => {}
            Said::Pause => self.pause_wanted = matches!(self.state, State::Trying(..)),
            Said::Resume => self.go_on(step),
            Said::Saw { text, trial } => self.on_seen(text, *trial, step),
            Said::Stop => self.on_stop(step),
            Said::Leave => self.put_aside(Aside::AtStock, step),
            Said::Suspend => {
                self.is_suspended = true;
                self.put_aside(Aside::AsItStands, step);
            }
            Said::Done => self.on_applied(&InForce::new(), step),
            Said::NoStart => self.on_apply_failed(self.told(IncidentKind::NoStart, Finding::SaidNoStart), step),
            Said::Defaults => {
                self.on_apply_failed(self.told(IncidentKind::SafeDefaults, Finding::SaidDefaults), step);
            }
        }
    }

    pub(super) fn told(&self, kind: IncidentKind, what: Finding) -> Incident {
        let incident = Incident::new(kind, what);
        match self.question() {
            Some(Question::Change { change }) => incident.at(change.setting),
            None => incident,
        }
    }

    pub(super) fn go_on(&mut self, step: &mut Step) {
        self.pause_wanted = false;
        match mem::replace(&mut self.state, State::Ended) {
            State::Paused(next) => self.leave_pause(next, step),
            other => self.state = other,
        }
    }

    pub(super) fn leave_pause(&mut self, next: Next, step: &mut Step) {
        step.entries.push(Entry::Resumed);
        match next {
            Next::Pass(trial, _) if !trial.incidents.is_empty() => self.end_trial(trial, step),
            Next::Pass(trial, index) => self.begin_pass(trial, index, step),
            Next::Trial(rung, reason) => self.begin_trial(rung, reason, step),
        }
    }

    pub(super) fn on_stop(&mut self, step: &mut Step) {
        let stopped = Incident::new(IncidentKind::Stopped, Finding::Stopped);
        match mem::replace(&mut self.state, State::Ended) {
            State::Trying(mut trial, Doing::Passing { index, began, .. }) => {
                blame(&mut trial, Some(index), stopped.into_pass(step.at.since(began)), step);
                step.command = Some(Command::StopPass);
                let stopping = Some(Stop::new(Stopping::ByOperator, step.at));
                self.state = State::Trying(trial, Doing::Passing { index, began, stopping });
            }
            State::Trying(mut trial, doing @ (Doing::Setting { .. } | Doing::Resting { .. })) => {
                self.forget(&doing);
                blame(&mut trial, None, stopped, step);
                self.close_void(&trial, Some(IncidentKind::Stopped), step);
                self.go_home(ClimbEnd::Stopped, step);
            }
            State::Paused(next) => {
                if let Next::Pass(mut trial, _) = next {
                    blame(&mut trial, None, stopped, step);
                    self.close_void(&trial, Some(IncidentKind::Stopped), step);
                }
                self.go_home(ClimbEnd::Stopped, step);
            }
            // Told to stop on the way home, the rig is left as it is.
            State::GoingHome { then: Then::End(end), .. } => self.finish(end, step),
            State::GoingHome { then: Then::Wait(..), .. } | State::Ready | State::Ended => {
                self.finish(ClimbEnd::Stopped, step);
            }
        }
    }

    /// Puts the climb aside, to go on when somebody takes it up again.
    fn put_aside(&mut self, aside: Aside, step: &mut Step) {
        match mem::replace(&mut self.state, State::Ended) {
            State::Trying(trial, Doing::Passing { index, began, stopping: None }) => {
                step.command = Some(Command::StopPass);
                let stopping = Some(Stop::new(Stopping::ToWait(aside), step.at));
                self.state = State::Trying(trial, Doing::Passing { index, began, stopping });
            }
            State::Trying(trial, doing @ Doing::Passing { .. }) => {
                self.aside_wanted = Some(aside).filter(|_| self.rules > 0);
                self.state = State::Trying(trial, doing);
            }
            // What was asked for stands, and may come true while nobody looks.
            State::Trying(trial, Doing::Setting { under_way })
                if aside == Aside::AsItStands && self.needs_somebody(&under_way) =>
            {
                self.state = State::Trying(trial, Doing::Setting { under_way });
            }
            State::Trying(trial, doing @ (Doing::Setting { .. } | Doing::Resting { .. })) => {
                self.forget(&doing);
                self.wait_aside(&trial, aside, step);
            }
            State::Paused(Next::Pass(trial, _)) => self.wait_aside(&trial, aside, step),
            State::Paused(next) => self.head_home(Then::Wait(next, aside), step),
            other => self.state = other,
        }
    }

    /// Nobody knows any more what is in force of a setting that is being changed.
    pub(super) fn forget(&mut self, doing: &Doing) {
        if let Doing::Setting { under_way } = doing {
            self.in_force.remove(&under_way.setting);
        }
    }

    /// Breaks a trial off and waits to try its rung again.
    pub(super) fn wait_aside(&mut self, trial: &Trial, aside: Aside, step: &mut Step) {
        self.close_void(trial, None, step);
        let again = Next::Trial(trial.rung.clone(), Reason::Again { trial: trial.number });
        self.head_home(Then::Wait(again, aside), step);
    }
}
