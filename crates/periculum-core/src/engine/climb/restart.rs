//! Going on after the program or the machine went down.

use std::mem;

use super::applying::ask_again;
use super::climber::{Climber, blame};
use crate::engine::entry::{ClimbEnd, Entry};
use crate::engine::question::Question;
use crate::engine::state::{Doing, Next, State, Stopping, Then, Trial, UnderWay};
use crate::engine::step::Step;
use crate::model::ending::Ending;
use crate::model::errand::Errand;
use crate::model::incident::{Incident, IncidentKind};
use crate::model::moment::Span;
use crate::model::plan::Ends;
use crate::model::reason::Reason;
use crate::model::rung::InForce;

/// After this many deaths of the program in a row at one rung the rung is to blame, not the operator.
const DEATHS_THAT_CONDEMN: u32 = 3;

/// With nobody there, after the machine went down so often in a row and no pass ran to its end between, it is enough.
const DOWNS_THAT_END: u32 = 3;

impl Climber {
    /// Counts how often in a row the machine went down with nobody there; a start that was asked for, or that followed an
    /// orderly end, is none.
    pub(super) fn count_down(&mut self, state: &State, ending: Ending, unattended: bool) {
        let is_expected = self.rules > 0 && (self.is_suspended || state.waits_for_start(&self.rig));
        if !unattended || ending == Ending::ProgramDied {
            self.tally.downs_in_a_row = 0;
        } else if !is_expected {
            self.tally.downs_in_a_row += 1;
        }
    }

    pub(super) fn on_restarted(
        &mut self,
        state: State,
        ending: Ending,
        lived: Option<(Span, Span)>,
        in_force: &InForce,
        mut incident: Incident,
        step: &mut Step,
    ) -> State {
        if state == State::Ready {
            return self.on_started(state, in_force, 0, step);
        }
        (self.pause_wanted, self.aside_wanted) = (false, None);
        let asked = state.question(&self.rig);
        let machine_died = ending != Ending::ProgramDied;
        let has_taken = || {
            let errand = state.under_way().filter(|_| asked.is_some());
            errand.is_some_and(|errand| self.belief.has_taken(errand, in_force))
        };
        let is_judged_now = self.rules > 0 && state.waits_for_start(&self.rig) || has_taken();
        if machine_died {
            // It was to be restarted, to have something changed, or was shut down in good order.
            let is_made = matches!(asked, Some(Question::Make { .. }));
            let was_expected = asked.is_some() && !is_made || self.is_suspended;
            self.tally.restarts += u32::from(!was_expected);
        }
        let rules = (self.plan.use_name.as_str(), self.rules);
        self.belief.restarted(ending, state.under_way(), in_force, rules);
        let was_suspended = mem::take(&mut self.is_suspended);
        if machine_died && is_judged_now {
            return self.after_wanted_start(state, in_force, step);
        }
        match state {
            State::Trying(trial, doing @ Doing::Setting { .. }) if asked.is_some() => {
                // A program that was told to end has not died.
                let died = Some(incident).filter(|_| !machine_died && !was_suspended);
                let number = Some(trial.number);
                step.entries.extend(died.map(|incident| Entry::Incident { trial: number, pass: None, incident }));
                asked.into_iter().for_each(|question| ask_again(number, question, step));
                State::Trying(trial, doing)
            }
            State::Trying(trial, doing @ (Doing::Making { .. } | Doing::Reading { .. }))
                if !machine_died || was_suspended =>
            {
                match asked {
                    Some(question) => self.ask_after_restart(trial, doing, question, step),
                    None => State::Trying(trial, doing),
                }
            }
            State::Trying(mut trial, doing) => {
                let (pass, stopping) = match doing {
                    Doing::Making { index, .. } => (Some(index), None),
                    Doing::Reading { .. } => (None, None),
                    Doing::Passing { index, stopping, .. } => (Some(index), stopping.map(|stop| stop.why)),
                    Doing::Setting { under_way } => (None, under_way.instead),
                    Doing::Resting { .. } | Doing::Confirming { .. } => (None, None),
                };
                if let Some((lived, at_most)) = lived.filter(|_| pass.is_some()) {
                    incident = incident.into_pass(lived).at_most(at_most);
                    trial.unheard = at_most - lived;
                    trial.tested += lived;
                    self.tally.tested += lived;
                }
                blame(&mut trial, pass, incident, step);
                match stopping {
                    // Who was told to stop stops, whatever died of it; a machine that went down goes to stock.
                    Some(Stopping::ByOperator(stays)) if self.rules > 2 => {
                        self.close_void(&trial, Some(IncidentKind::Stopped), step);
                        self.stop_at(if machine_died { Ends::AtStock } else { stays }, step)
                    }
                    _ => self.after_death(trial, ending, step),
                }
            }
            State::Paused(next) => {
                // A climb that waits may be left and taken up again; only the machine has no business to die.
                if machine_died && !was_suspended {
                    step.entries.push(Entry::Incident { trial: None, pass: None, incident });
                }
                match next {
                    Next::Pass(trial, index) => self.back_to_rung(trial, index, step),
                    next @ (Next::Trial(..) | Next::Answer(_)) => self.leave_pause(next, step),
                }
            }
            // Taken up again, there is nothing to wait for at home.
            State::GoingHome { then: Then::Wait(next, _), .. } => self.leave_pause(next, step),
            State::GoingHome { then, under_way, given_up } if asked.is_some() => {
                asked.into_iter().for_each(|question| ask_again(None, question, step));
                State::GoingHome { then, under_way, given_up }
            }
            State::GoingHome { then, given_up, .. } => {
                step.entries.push(Entry::Incident { trial: None, pass: None, incident });
                let then = if machine_died { self.instead_of_mark(then) } else { then };
                self.walk_home(then, given_up, step)
            }
            State::Asked(question) => {
                if machine_died && !was_suspended {
                    step.entries.push(Entry::Incident { trial: None, pass: None, incident });
                }
                match question {
                    // What is in force may be something else by now.
                    Question::WhatNext { turn } => self.ask_next(turn.suggestion, step),
                    question => {
                        ask_again(None, question.clone(), step);
                        State::Asked(question)
                    }
                }
            }
            State::Ended | State::Ready => State::Ended,
        }
    }

    /// Judges what a start was asked for. What of the errand is changed by hand, and can't be read back, may not have been made
    /// when the machine came to be started: it is asked for alone.
    fn after_wanted_start(&mut self, state: State, in_force: &InForce, step: &mut Step) -> State {
        let by_hand = state.under_way().filter(|errand| errand.needs_start(&self.rig));
        let by_hand = by_hand.and_then(|errand| errand.without_start(&self.rig));
        match by_hand.filter(|errand| !self.belief.has_taken(errand, in_force)) {
            Some(rest) => self.go_on_by_hand(state, rest, in_force, step),
            None => self.on_applied(state, in_force, step),
        }
    }

    fn go_on_by_hand(&mut self, state: State, rest: Errand, in_force: &InForce, step: &mut Step) -> State {
        let Some(started) = state.under_way().map(|errand| errand.with_start(&self.rig)) else { return state };
        let incidents = self.belief.compare(&started, in_force);
        self.belief.forget(&rest);
        let question = Question::Change { errand: rest.clone() };
        match state {
            State::Trying(mut trial, Doing::Setting { .. }) => {
                for incident in incidents {
                    blame(&mut trial, None, incident, step);
                }
                if !trial.incidents.is_empty() {
                    return self.end_trial(trial, step);
                }
                ask_again(Some(trial.number), question, step);
                State::Trying(trial, Doing::Setting { under_way: UnderWay::new(rest, step.at) })
            }
            State::GoingHome { then, given_up, .. } if incidents.is_empty() => {
                ask_again(None, question, step);
                State::GoingHome { then, under_way: UnderWay::new(rest, step.at), given_up }
            }
            State::GoingHome { then, mut given_up, .. } => {
                self.doubt(&started, &mut given_up);
                let told = incidents.into_iter().map(|incident| Entry::Incident { trial: None, pass: None, incident });
                step.entries.extend(told);
                self.walk_home(self.instead_of_mark(then), given_up, step)
            }
            other => other,
        }
    }

    /// Judges a trial that the program or the machine died in, or gives it another try.
    fn after_death(&mut self, trial: Trial, ending: Ending, step: &mut Step) -> State {
        let downs = self.tally.downs_in_a_row;
        if downs >= DOWNS_THAT_END {
            self.close(&trial, None, step);
            return self.go_home(ClimbEnd::KeepsFalling { times: downs }, step);
        }
        let deaths = self.tally.deaths_in_a_row + 1;
        if ending != Ending::ProgramDied || deaths >= DEATHS_THAT_CONDEMN {
            return self.end_trial(trial, step);
        }
        self.tally.deaths_in_a_row = deaths;
        self.close_void(&trial, Some(IncidentKind::LoadDied), step);
        self.begin_trial(trial.rung, Reason::Again { trial: trial.number }, step)
    }

    /// Takes up a trial that was paused between two passes: its rung has to be in force again.
    fn back_to_rung(&mut self, trial: Trial, index: usize, step: &mut Step) -> State {
        if self.way_to(&trial.rung).is_empty() {
            return self.leave_pause(Next::Pass(trial, index), step);
        }
        step.entries.push(Entry::Resumed);
        self.close_void(&trial, None, step);
        self.begin_trial(trial.rung, Reason::Again { trial: trial.number }, step)
    }
}
