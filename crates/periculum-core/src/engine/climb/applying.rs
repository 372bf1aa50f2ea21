//! What comes of an errand: it took, it did not, or the rig did not survive it.

use std::mem;
use std::ops::ControlFlow;

use rust_decimal::Decimal;

use super::climber::{Climber, blame};
use crate::engine::entry::{ClimbEnd, Declined, Entry};
use crate::engine::event::{Noted, Said};
use crate::engine::question::Question;
use crate::engine::state::{Doing, State, Then, Trial};
use crate::engine::step::{Command, Step};
use crate::model::errand::Errand;
use crate::model::evidence::{Finding, Value};
use crate::model::incident::{Incident, IncidentKind};
use crate::model::reason::Reason;
use crate::model::rung::{InForce, Rung};

/// So often a rig may come back with its defaults on the way to something easier before that is held against a rung.
const SETBACKS: u32 = 3;

impl Climber {
    /// What the operator says is made is judged by what the rig reports, and where it needs a start by there having been one.
    pub(super) fn on_change_made(
        &mut self,
        state: State,
        (reported, noted): (&InForce, &Noted),
        started_anew: bool,
        step: &mut Step,
    ) -> State {
        let asked = state.question(&self.rig).filter(|question| question.errand().is_some());
        let Some(question) = asked else { return state };
        let written = |name: &str, value: Decimal| {
            self.rig.setting(name).map_or_else(|| value.to_string(), |setting| setting.written_short(value))
        };
        let shown = noted.shown.iter().map(|(name, value)| (name.clone(), written(name, *value)));
        let measured = noted.measured.iter().map(|(name, value)| (Question::measured(name), value.to_string()));
        step.entries.push(Entry::Operator { said: Said::Done { written: shown.chain(measured).collect() } });
        if state.waits_for_start(&self.rig) && !started_anew {
            step.entries.push(Entry::Declined { because: Declined::NotStartedAnew });
            ask_again(state.trial(), question, step);
            return state;
        }
        self.on_applied_and_noted(state, (reported, noted), step)
    }

    pub(super) fn on_applied(&mut self, state: State, reported: &InForce, step: &mut Step) -> State {
        self.on_applied_and_noted(state, (reported, &Noted::default()), step)
    }

    /// What came of a change, by what is read back and what somebody wrote down.
    fn on_applied_and_noted(&mut self, state: State, (reported, noted): (&InForce, &Noted), step: &mut Step) -> State {
        let told = reported.iter().chain(&noted.shown).map(|(name, value)| (name.clone(), *value)).collect();
        match state {
            State::Trying(mut trial, Doing::Setting { under_way }) => {
                let mut found = self.belief.compare(&under_way.errand, &told);
                found.extend(self.mismeasured(&trial.rung, &noted.measured));
                for incident in found {
                    blame(&mut trial, None, incident, step);
                }
                let trial = match self.do_instead(trial, under_way.instead, step) {
                    ControlFlow::Continue(trial) => trial,
                    ControlFlow::Break(state) => return state,
                };
                match self.doubt_unread(trial, reported, step) {
                    ControlFlow::Continue(trial) if trial.incidents.is_empty() => {
                        self.go_on_when_confirmed(trial, &under_way.errand, step)
                    }
                    ControlFlow::Continue(trial) => self.end_trial(trial, step),
                    ControlFlow::Break(again) => again,
                }
            }
            State::GoingHome { then, under_way, mut given_up } => {
                let mut incidents = self.belief.compare(&under_way.errand, &told);
                incidents.extend(self.belief.unread(reported, self.rules));
                if under_way.instead.is_some() {
                    return self.end_on_the_way(then, incidents, step);
                }
                if incidents.is_empty() {
                    return self.walk_home(then, given_up, step);
                }
                self.doubt(&under_way.errand, &mut given_up);
                for incident in incidents {
                    step.entries.push(Entry::Incident { trial: None, pass: None, incident });
                }
                self.walk_home(self.instead_of_mark(then), given_up, step)
            }
            other => other,
        }
    }

    /// What was measured and is not what a rung asks for, of settings that say how far off it may be.
    fn mismeasured(&self, rung: &Rung, measured: &InForce) -> Vec<Incident> {
        let of = |(name, measured): (&String, &Decimal)| {
            let setting = self.rig.setting(name).filter(|setting| setting.tolerance > Decimal::ZERO)?;
            let wanted = rung.get(name).filter(|wanted| !setting.is_as_asked(*wanted, *measured))?;
            let (wanted, measured) = (Value::of(setting, wanted), Value::of(setting, *measured));
            let evidence = Finding::Mismeasured { wanted, measured };
            Some(Incident::new(IncidentKind::NotTaken, evidence).at(&setting.label))
        };
        measured.iter().filter_map(of).collect()
    }

    /// What becomes of a trial in which something can't be read back any more: the first time it is broken off and tried again,
    /// since it may be a moment's weakness of the interface, and then that is held against it.
    ///
    /// Breaks with the state in which it is tried again.
    pub(super) fn doubt_unread(
        &mut self,
        mut trial: Trial,
        reported: &InForce,
        step: &mut Step,
    ) -> ControlFlow<State, Trial> {
        let unread = self.belief.unread(reported, self.rules);
        if unread.is_empty() {
            return ControlFlow::Continue(trial);
        }
        let was_unread = mem::replace(&mut self.was_unread, true);
        if was_unread || !trial.incidents.is_empty() {
            for incident in unread {
                blame(&mut trial, None, incident, step);
            }
            return ControlFlow::Continue(trial);
        }
        let number = Some(trial.number);
        let told = unread.into_iter().map(|incident| Entry::Incident { trial: number, pass: None, incident });
        step.entries.extend(told);
        self.close_void(&trial, Some(IncidentKind::NotTaken), step);
        ControlFlow::Break(self.begin_trial(trial.rung, Reason::Again { trial: trial.number }, step))
    }

    pub(super) fn on_apply_failed(&mut self, state: State, incident: Incident, step: &mut Step) -> State {
        match state {
            State::Trying(mut trial, Doing::Setting { under_way }) => {
                self.belief.forget(&under_way.errand);
                self.after_loss(incident.kind);
                if under_way.instead.is_none() && self.is_setback(&under_way.errand, incident.kind) {
                    self.tally.setbacks += 1;
                    step.entries.push(Entry::Incident { trial: Some(trial.number), pass: None, incident });
                    return self.set_for(trial, step);
                }
                blame(&mut trial, None, incident, step);
                match self.do_instead(trial, under_way.instead, step) {
                    ControlFlow::Continue(trial) => self.end_trial(trial, step),
                    ControlFlow::Break(state) => state,
                }
            }
            State::GoingHome { then, under_way, mut given_up } => {
                self.doubt(&under_way.errand, &mut given_up);
                self.after_loss(incident.kind);
                if under_way.instead.is_some() {
                    return self.end_on_the_way(then, vec![incident], step);
                }
                step.entries.push(Entry::Incident { trial: None, pass: None, incident });
                self.walk_home(self.instead_of_mark(then), given_up, step)
            }
            other => other,
        }
    }

    /// Told to stop on the way home, the rig is left as it is.
    pub(super) fn end_on_the_way(&mut self, then: Then, incidents: Vec<Incident>, step: &mut Step) -> State {
        step.entries.extend(incidents.into_iter().map(|incident| Entry::Incident {
            trial: None,
            pass: None,
            incident,
        }));
        let end = match then {
            Then::End(end, _) => end,
            Then::Wait(..) => ClimbEnd::Stopped,
        };
        self.finish(end, None, step)
    }

    /// Whether the rig came back with its defaults when it was on its way to something easier: that says nothing about the
    /// rung that it was on its way to.
    fn is_setback(&self, errand: &Errand, kind: IncidentKind) -> bool {
        let is_way_on = errand.changes().iter().any(|change| {
            let setting = self.rig.setting(&change.setting);
            setting.zip(change.from).is_some_and(|(setting, from)| setting.is_harder(from, change.to))
        });
        self.rules > 0 && kind == IncidentKind::SafeDefaults && !is_way_on && self.tally.setbacks < SETBACKS
    }
}

/// What was asked stands.
pub(super) fn ask_again(trial: Option<u32>, question: Question, step: &mut Step) {
    step.entries.push(Entry::Asked { trial, question: question.clone() });
    step.command = Some(Command::Ask(question));
}
