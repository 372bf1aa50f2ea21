//! What comes of a change: it took, it did not, or the rig did not survive it.

use std::mem;

use super::{Climb, blame};
use crate::engine::entry::Entry;
use crate::engine::event::Step;
use crate::engine::state::{Doing, State};
use crate::incident::{Incident, IncidentKind};
use crate::rung::{Change, InForce};
use crate::setting::TakesEffect;

impl Climb {
    pub(super) fn on_applied(&mut self, reported: &InForce, step: &mut Step) {
        match mem::replace(&mut self.state, State::Ended) {
            State::Trying(mut trial, Doing::Setting { under_way }) => {
                let incidents = self.compare(&under_way, reported);
                if incidents.is_empty() {
                    return self.set_for(trial, step);
                }
                for incident in incidents {
                    blame(&mut trial, None, incident, step);
                }
                self.end_trial(trial, step);
            }
            State::GoingHome { then, under_way, mut given_up } => {
                let incidents = self.compare(&under_way, reported);
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
            let verb = if setting.name == applied.setting { "asked for" } else { "left at" };
            let evidence = format!("{verb} {}, reported {}", setting.written(wanted), setting.written(found));
            incidents.push(Incident::new(IncidentKind::NotTaken, evidence).at(&setting.label));
        }
        incidents
    }

    pub(super) fn on_apply_failed(&mut self, incident: Incident, step: &mut Step) {
        match mem::replace(&mut self.state, State::Ended) {
            State::Trying(mut trial, Doing::Setting { under_way, .. }) => {
                self.in_force.remove(&under_way.setting);
                self.after_machine_down(incident.kind);
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
