//! Going on after the program or the machine went down.

use std::mem;

use super::{Climb, blame};

use crate::engine::entry::{ClimbEnd, Entry};
use crate::engine::event::Question;
use crate::engine::route::route;
use crate::engine::state::{Doing, Next, State, Then, Trial};
use crate::engine::step::{Command, Step};
use crate::model::ending::Ending;
use crate::model::incident::{Incident, IncidentKind};
use crate::model::moment::Span;
use crate::model::reason::Reason;
use crate::model::rung::InForce;

/// After this many deaths of the program in a row at one rung the rung is to blame, not the operator.
const DEATHS_THAT_CONDEMN: u32 = 3;

/// With nobody there, after the machine went down so often in a row and no pass ran to its end between, it is enough.
const DOWNS_THAT_END: u32 = 3;

impl Climb {
    /// Counts how often in a row the machine went down with nobody there; a start that was asked for, or that followed an
    /// orderly end, is none.
    pub(super) fn count_down(&mut self, ending: Ending, unattended: bool) {
        if !unattended || ending == Ending::ProgramDied {
            self.downs_in_a_row = 0;
        } else if !self.is_start_expected() {
            self.downs_in_a_row += 1;
        }
    }

    fn is_start_expected(&self) -> bool {
        self.rules > 0 && (self.is_suspended || self.waits_for_start())
    }

    pub(super) fn on_restarted(
        &mut self,
        ending: Ending,
        lived: Option<(Span, Span)>,
        in_force: &InForce,
        mut incident: Incident,
        step: &mut Step,
    ) {
        if self.is_ready() {
            return self.on_started(in_force, 0, step);
        }
        (self.pause_wanted, self.aside_wanted) = (false, None);
        let asked = self.question();
        let is_judged_now = self.rules > 0 && self.waits_for_start() || self.has_started_with_it(in_force);
        self.believe_after(ending, in_force);
        let was_suspended = mem::take(&mut self.is_suspended);
        if ending != Ending::ProgramDied && is_judged_now {
            return self.on_applied(in_force, step);
        }
        match mem::replace(&mut self.state, State::Ended) {
            State::Trying(trial, doing @ Doing::Setting { .. }) if asked.is_some() => {
                // A program that was told to end has not died.
                let died = Some(incident).filter(|_| ending == Ending::ProgramDied && !was_suspended);
                self.ask_again(Some(trial.number), asked, died, step);
                self.state = State::Trying(trial, doing);
            }
            State::Trying(mut trial, doing) => {
                let pass = match doing {
                    Doing::Passing { index, .. } => Some(index),
                    Doing::Setting { .. } | Doing::Resting { .. } => None,
                };
                if let Some((lived, at_most)) = lived.filter(|_| pass.is_some()) {
                    incident = incident.into_pass(lived).at_most(at_most);
                    trial.unheard = at_most - lived;
                    trial.tested += lived;
                    self.tested += lived;
                }
                blame(&mut trial, pass, incident, step);
                self.after_death(trial, ending, step);
            }
            State::Paused(next) => {
                // A climb that waits may be left and taken up again; only the machine has no business to die.
                if ending != Ending::ProgramDied && !was_suspended {
                    step.entries.push(Entry::Incident { trial: None, pass: None, incident });
                }
                let next = match next {
                    Next::Pass(trial, index) => return self.back_to_rung(trial, index, step),
                    next @ Next::Trial(..) => next,
                };
                self.leave_pause(next, step);
            }
            // Taken up again, there is nothing to wait for at home.
            State::GoingHome { then: Then::Wait(next, _), .. } => self.leave_pause(next, step),
            State::GoingHome { then, under_way, given_up } if asked.is_some() => {
                self.ask_again(None, asked, None, step);
                self.state = State::GoingHome { then, under_way, given_up };
            }
            State::GoingHome { then, given_up, .. } => {
                step.entries.push(Entry::Incident { trial: None, pass: None, incident });
                self.walk_home(then, given_up, step);
            }
            State::Ended | State::Ready => self.state = State::Ended,
        }
    }

    /// Whether the machine was to be started anew with a change, and reports it now.
    fn has_started_with_it(&self, reported: &InForce) -> bool {
        let Some(Question::Change { change }) = self.question() else { return false };
        let read_back = self.rig.setting(&change.setting).zip(reported.get(&change.setting));
        read_back.is_some_and(|(setting, reported)| setting.is_as_asked(change.to, *reported))
    }

    /// What is in force after a restart: what is reported, and otherwise stock where it does not outlive a machine.
    /// A value that may not be applied, or that was being changed, counts as unknown.
    pub(super) fn believe_after(&mut self, ending: Ending, reported: &InForce) {
        if ending != Ending::ProgramDied {
            self.after_machine_down(IncidentKind::Restart);
            // It was to be restarted, to have something changed, or was shut down in good order.
            self.restarts -= u32::from(self.question().is_some() || self.is_suspended);
        } else if let State::Trying(_, Doing::Setting { under_way, .. }) | State::GoingHome { under_way, .. } =
            &self.state
        {
            self.in_force.remove(&under_way.setting);
        }
        let silent = self.fallen_silent(reported);
        self.in_force.retain(|name, _| !silent.contains(name));
        self.readable.extend(reported.keys().cloned());
        self.in_force.extend(reported.iter().map(|(name, value)| (name.clone(), *value)));
        let (rig, use_name) = (&self.rig, &self.plan.use_name);
        self.in_force.retain(|name, value| {
            rig.setting(name).is_some_and(|setting| *value >= setting.floor && *value <= setting.ceiling(use_name))
        });
    }

    /// A machine that restarts while its operator changes something by hand does what it should, and a program
    /// that ends while it waits on the way home was left; told is only what died of itself.
    pub(super) fn ask_again(
        &self,
        trial: Option<u32>,
        asked: Option<Question>,
        died: Option<Incident>,
        step: &mut Step,
    ) {
        step.entries.extend(died.map(|incident| Entry::Incident { trial, pass: None, incident }));
        step.entries.extend(asked.clone().map(|question| Entry::Asked { trial, question }));
        step.command = asked.map(Command::Ask);
    }

    /// Judges a trial that the program or the machine died in, or gives it another try.
    pub(super) fn after_death(&mut self, trial: Trial, ending: Ending, step: &mut Step) {
        if self.downs_in_a_row >= DOWNS_THAT_END {
            self.close(&trial, None, step);
            return self.go_home(ClimbEnd::KeepsFalling { times: self.downs_in_a_row }, step);
        }
        let deaths = self.deaths_in_a_row + 1;
        if ending != Ending::ProgramDied || deaths >= DEATHS_THAT_CONDEMN {
            return self.end_trial(trial, step);
        }
        self.deaths_in_a_row = deaths;
        self.close_void(&trial, Some(IncidentKind::LoadDied), step);
        self.begin_trial(trial.rung, Reason::Again { trial: trial.number }, step);
    }

    /// Takes up a trial that was paused between two passes: its rung has to be in force again.
    pub(super) fn back_to_rung(&mut self, trial: Trial, index: usize, step: &mut Step) {
        let way = route(&self.rig, &self.in_force, &trial.rung);
        if way.is_empty() {
            return self.leave_pause(Next::Pass(trial, index), step);
        }
        step.entries.push(Entry::Resumed);
        self.close_void(&trial, None, step);
        self.begin_trial(trial.rung, Reason::Again { trial: trial.number }, step);
    }
}
