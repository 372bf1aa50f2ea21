//! What comes of a change: it took, it did not, or the rig did not survive it.

use std::mem;

use rust_decimal::Decimal;

use super::{Climb, blame};
use crate::engine::entry::{Declined, Entry};
use crate::engine::event::{Question, Said};
use crate::engine::state::{Doing, State, Trial};
use crate::engine::step::Step;
use crate::model::evidence::{Finding, Value};
use crate::model::incident::{Incident, IncidentKind};
use crate::model::reason::Reason;
use crate::model::rung::{Change, InForce};
use crate::model::setting::{Setting, TakesEffect};

/// So often a rig may come back with its defaults on the way to something easier before that is held against a rung.
const SETBACKS: u32 = 3;

impl Climb {
    /// What the operator says is made is judged by what the rig reports, and where it needs a start by there having been one.
    pub(super) fn on_change_made(&mut self, reported: &InForce, started_anew: bool, step: &mut Step) {
        let Some(question) = self.question() else { return };
        step.entries.push(Entry::Operator { said: Said::Done });
        if self.waits_for_start() && !started_anew {
            let trial = match &self.state {
                State::Trying(trial, _) => Some(trial.number),
                _ => None,
            };
            step.entries.push(Entry::Declined { because: Declined::NotStartedAnew });
            return self.ask_again(trial, Some(question), None, step);
        }
        self.on_applied(reported, step);
    }

    /// Whether the machine has to be started anew before anything goes on.
    pub(super) fn waits_for_start(&self) -> bool {
        let Some(Question::Change { change }) = self.question() else { return false };
        self.rig.setting(&change.setting).is_some_and(Setting::needs_start)
    }

    pub(super) fn on_applied(&mut self, reported: &InForce, step: &mut Step) {
        match mem::replace(&mut self.state, State::Ended) {
            State::Trying(mut trial, Doing::Setting { under_way }) => {
                for incident in self.compare(&under_way, reported) {
                    blame(&mut trial, None, incident, step);
                }
                match self.doubt_unread(trial, reported, step) {
                    Some(trial) if trial.incidents.is_empty() => self.set_for(trial, step),
                    Some(trial) => self.end_trial(trial, step),
                    None => {}
                }
            }
            State::GoingHome { then, under_way, mut given_up } => {
                let mut incidents = self.compare(&under_way, reported);
                incidents.extend(self.unread(reported));
                if !incidents.is_empty() {
                    self.doubt(under_way, &mut given_up);
                }
                for incident in incidents {
                    step.entries.push(Entry::Incident { trial: None, pass: None, incident });
                }
                self.walk_home(then, given_up, step);
            }
            other => self.state = other,
        }
    }

    /// Takes what is reported as what is in force, and tells where it is not what was asked or left alone.
    pub(super) fn compare(&mut self, applied: &Change, reported: &InForce) -> Vec<Incident> {
        self.in_force.insert(applied.setting.clone(), applied.to);
        let mut incidents = Vec::new();
        for setting in &self.rig.settings {
            let Some(found) = reported.get(&setting.name).copied() else { continue };
            let Some(wanted) = self.in_force.get(&setting.name).copied() else {
                self.in_force.insert(setting.name.clone(), found);
                continue;
            };
            if setting.is_as_asked(wanted, found) {
                continue;
            }
            self.in_force.insert(setting.name.clone(), found);
            let evidence = differs(setting, wanted, found, setting.name == applied.setting);
            incidents.push(Incident::new(IncidentKind::NotTaken, evidence).at(&setting.label));
        }
        incidents
    }

    /// What becomes of a trial in which something can't be read back any more: the first time it is broken off and tried again,
    /// since it may be a moment's weakness of the interface, and then that is held against it.
    pub(super) fn doubt_unread(&mut self, mut trial: Trial, reported: &InForce, step: &mut Step) -> Option<Trial> {
        let unread = self.unread(reported);
        if unread.is_empty() {
            return Some(trial);
        }
        let was_unread = mem::replace(&mut self.was_unread, true);
        if was_unread || !trial.incidents.is_empty() {
            for incident in unread {
                blame(&mut trial, None, incident, step);
            }
            return Some(trial);
        }
        let number = Some(trial.number);
        let told = unread.into_iter().map(|incident| Entry::Incident { trial: number, pass: None, incident });
        step.entries.extend(told);
        self.close_void(&trial, Some(IncidentKind::NotTaken), step);
        self.begin_trial(trial.rung, Reason::Again { trial: trial.number }, step);
        None
    }

    /// Tells what could be read back before and now can't: nobody knows what is in force of it.
    fn unread(&mut self, reported: &InForce) -> Vec<Incident> {
        let silent: Vec<String> = self.fallen_silent(reported);
        self.readable.extend(reported.keys().cloned());
        let told = silent.into_iter().map(|name| {
            self.in_force.remove(&name);
            let label = self.rig.setting(&name).map_or(name.clone(), |setting| setting.label.clone());
            Incident::new(IncidentKind::NotTaken, Finding::Unread).at(label)
        });
        told.collect()
    }

    /// The settings that were reported before, and are not now.
    pub(super) fn fallen_silent(&self, reported: &InForce) -> Vec<String> {
        let is_silent = |name: &&String| self.rules > 0 && !reported.contains_key(*name);
        self.readable.iter().filter(is_silent).cloned().collect()
    }

    /// Tells which settings are not what was asked any more, though nobody changed them.
    pub(super) fn strayed(&mut self, reported: &InForce) -> Vec<Incident> {
        let strayed = self.rig.settings.iter().filter_map(|setting| {
            let (found, wanted) = (*reported.get(&setting.name)?, *self.in_force.get(&setting.name)?);
            let evidence = differs(setting, wanted, found, false);
            let incident = Incident::new(IncidentKind::NotTaken, evidence).at(&setting.label);
            (!setting.is_as_asked(wanted, found)).then(|| (setting.name.clone(), found, incident))
        });
        let strayed: Vec<_> = strayed.collect();
        strayed
            .into_iter()
            .map(|(name, found, incident)| {
                self.in_force.insert(name, found);
                incident
            })
            .collect()
    }

    pub(super) fn on_apply_failed(&mut self, incident: Incident, step: &mut Step) {
        match mem::replace(&mut self.state, State::Ended) {
            State::Trying(mut trial, Doing::Setting { under_way, .. }) => {
                self.in_force.remove(&under_way.setting);
                self.after_machine_down(incident.kind);
                if self.is_setback(&under_way, incident.kind) {
                    self.setbacks += 1;
                    step.entries.push(Entry::Incident { trial: Some(trial.number), pass: None, incident });
                    return self.set_for(trial, step);
                }
                blame(&mut trial, None, incident, step);
                self.end_trial(trial, step);
            }
            State::GoingHome { then, under_way, mut given_up } => {
                self.doubt(under_way, &mut given_up);
                self.after_machine_down(incident.kind);
                step.entries.push(Entry::Incident { trial: None, pass: None, incident });
                self.walk_home(then, given_up, step);
            }
            other => self.state = other,
        }
    }

    /// Whether the rig came back with its defaults when it was on its way to something easier: that says nothing about the
    /// rung that it was on its way to.
    fn is_setback(&self, change: &Change, kind: IncidentKind) -> bool {
        let is_harder = |from| self.rig.setting(&change.setting).is_some_and(|it| it.is_harder(from, change.to));
        let is_way_back = !change.from.is_some_and(is_harder);
        self.rules > 0 && kind == IncidentKind::SafeDefaults && is_way_back && self.setbacks < SETBACKS
    }

    /// What is in force after the machine went down, where the incident says that it did.
    pub(super) fn after_machine_down(&mut self, kind: IncidentKind) {
        if !kind.takes_machine_down() {
            return;
        }
        self.restarts += 1;
        for setting in &self.rig.settings {
            if setting.takes_effect == TakesEffect::AtOnce || kind == IncidentKind::SafeDefaults {
                self.in_force.insert(setting.name.clone(), setting.stock);
            }
        }
    }
}

fn differs(setting: &Setting, wanted: Decimal, reported: Decimal, was_set: bool) -> Finding {
    Finding::Differs { wanted: Value::of(setting, wanted), reported: Value::of(setting, reported), was_set }
}
