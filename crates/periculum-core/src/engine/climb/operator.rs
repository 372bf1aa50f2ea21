//! What the operator says, and what comes of it.

use std::mem;

use super::{Climb, blame};
use crate::engine::entry::{ClimbEnd, Entry};
use crate::engine::event::{Command, Question, Said, Step};
use crate::engine::state::{Doing, Next, State, Stopping, Then, Trial};
use crate::incident::{Incident, IncidentKind};
use crate::reason::Reason;
use crate::rung::InForce;

impl Climb {
    pub(super) fn on_operator(&mut self, said: &Said, step: &mut Step) {
        let answers = matches!(said, Said::Done | Said::NoStart | Said::Defaults);
        if self.is_ended() && !matches!(said, Said::Note { .. }) || answers && self.question().is_none() {
            return;
        }
        step.entries.push(Entry::Operator { said: said.clone() });
        match said {
            Said::Note { .. } => {}
            Said::Pause => self.pause_wanted = matches!(self.state, State::Trying(..)),
            Said::Resume => self.go_on(step),
            Said::Saw { text } => self.on_seen(text, step),
            Said::Stop => self.on_stop(step),
            Said::Leave => self.on_leave(step),
            Said::Done => self.on_applied(&InForce::new(), step),
            Said::NoStart => self.on_apply_failed(self.told(IncidentKind::NoStart, "the rig did not start"), step),
            Said::Defaults => {
                self.on_apply_failed(
                    self.told(IncidentKind::SafeDefaults, "the rig came back with its defaults"),
                    step,
                );
            }
        }
    }

    pub(super) fn told(&self, kind: IncidentKind, what: &str) -> Incident {
        let incident = Incident::new(kind, format!("the operator says: {what}"));
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

    pub(super) fn on_seen(&mut self, text: &str, step: &mut Step) {
        let incident =
            Incident::new(IncidentKind::Seen, if text.is_empty() { "the operator saw something" } else { text });
        self.on_noticed(&[incident], step);
    }

    pub(super) fn on_stop(&mut self, step: &mut Step) {
        let stopped = Incident::new(IncidentKind::Stopped, "the operator stopped the climb");
        match mem::replace(&mut self.state, State::Ended) {
            State::Trying(mut trial, Doing::Passing { index, began, .. }) => {
                blame(&mut trial, Some(index), stopped.into_pass(step.at.since(began)), step);
                step.command = Some(Command::StopPass);
                let stopping = Some(Stopping::ByOperator);
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
            State::GoingHome { then: Then::Wait(_), .. } | State::Ready | State::Ended => {
                self.finish(ClimbEnd::Stopped, step);
            }
        }
    }

    pub(super) fn on_leave(&mut self, step: &mut Step) {
        match mem::replace(&mut self.state, State::Ended) {
            State::Trying(trial, Doing::Passing { index, began, stopping: None }) => {
                step.command = Some(Command::StopPass);
                let stopping = Some(Stopping::ToLeave);
                self.state = State::Trying(trial, Doing::Passing { index, began, stopping });
            }
            State::Trying(trial, doing @ (Doing::Setting { .. } | Doing::Resting { .. })) => {
                self.forget(&doing);
                self.wait_at_home(&trial, step);
            }
            State::Paused(Next::Pass(trial, _)) => self.wait_at_home(&trial, step),
            State::Paused(next) => self.head_home(Then::Wait(next), step),
            other => self.state = other,
        }
    }

    /// Nobody knows any more what is in force of a setting that is being changed.
    fn forget(&mut self, doing: &Doing) {
        if let Doing::Setting { under_way } = doing {
            self.in_force.remove(&under_way.setting);
        }
    }

    /// Breaks a trial off and waits at stock to try its rung again.
    pub(super) fn wait_at_home(&mut self, trial: &Trial, step: &mut Step) {
        self.close_void(trial, None, step);
        let again = Next::Trial(trial.rung.clone(), Reason::Again { trial: trial.number });
        self.head_home(Then::Wait(again), step);
    }
}
