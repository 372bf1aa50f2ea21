//! What is believed of what the rig has in force.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::Arc;

use rust_decimal::Decimal;

use crate::model::ending::Ending;
use crate::model::errand::Errand;
use crate::model::evidence::{Finding, Value};
use crate::model::incident::{Incident, IncidentKind};
use crate::model::rig::Rig;
use crate::model::rung::{InForce, Rung};
use crate::model::setting::Setting;

/// What the rig is believed to have in force, and what of it can be read back.
#[derive(Clone, Debug, PartialEq)]
pub(super) struct Belief {
    rig: Arc<Rig>,
    /// A setting that is missing is unknown.
    in_force: InForce,
    /// The settings that were read back at least once.
    readable: BTreeSet<String>,
    /// Why settings can't be read back, as far as anybody knows.
    unreadable: BTreeMap<String, String>,
}

impl Belief {
    /// Nothing is known.
    pub(super) fn new(rig: Arc<Rig>) -> Self {
        Self { rig, in_force: InForce::new(), readable: BTreeSet::new(), unreadable: BTreeMap::new() }
    }

    pub(super) fn in_force(&self) -> &InForce {
        &self.in_force
    }

    /// Takes everything that is reported for what is in force, and nothing else.
    pub(super) fn begin(&mut self, reported: &InForce) {
        self.in_force = reported.clone();
        self.readable.extend(reported.keys().cloned());
    }

    /// Hears why settings can't be read back.
    pub(super) fn hear_why(&mut self, unreadable: &BTreeMap<String, String>) {
        self.unreadable.clone_from(unreadable);
    }

    /// Nobody knows any more what is in force of settings that are being changed.
    pub(super) fn forget(&mut self, errand: &Errand) {
        for change in errand.changes() {
            self.in_force.remove(&change.setting);
        }
    }

    /// The settings that are not known to be as in this rung.
    pub(super) fn astray_from(&self, rung: &Rung) -> Vec<String> {
        let is_there = |setting: &&Setting| self.in_force.get(&setting.name).copied() == rung.get(&setting.name);
        self.rig.settings.iter().filter(|setting| !is_there(setting)).map(|setting| setting.name.clone()).collect()
    }

    /// Takes what is reported as what is in force, and tells where it is not what was asked or left alone.
    pub(super) fn compare(&mut self, applied: &Errand, reported: &InForce) -> Vec<Incident> {
        self.in_force.extend(applied.made());
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
            let evidence = differs(setting, wanted, found, applied.change_of(&setting.name).is_some());
            incidents.push(Incident::new(IncidentKind::NotTaken, evidence).at(&setting.label));
        }
        incidents
    }

    /// Whether every change of an errand is reported as it was asked.
    pub(super) fn has_taken(&self, errand: &Errand, reported: &InForce) -> bool {
        errand.changes().iter().all(|change| {
            let read_back = self.rig.setting(&change.setting).zip(reported.get(&change.setting));
            read_back.is_some_and(|(setting, reported)| setting.is_as_asked(change.to, *reported))
        })
    }

    /// Tells what could be read back before and now can't: nobody knows what is in force of it.
    pub(super) fn unread(&mut self, reported: &InForce, rules: u32) -> Vec<Incident> {
        let silent: Vec<String> = self.fallen_silent(reported, rules);
        self.readable.extend(reported.keys().cloned());
        let told = silent.into_iter().map(|name| {
            self.in_force.remove(&name);
            let label = self.rig.setting(&name).map_or(name.clone(), |setting| setting.label.clone());
            let because = self.unreadable.get(&name).cloned();
            Incident::new(IncidentKind::NotTaken, Finding::Unread { because }).at(label)
        });
        told.collect()
    }

    /// The settings that were reported before, and are not now.
    fn fallen_silent(&self, reported: &InForce, rules: u32) -> Vec<String> {
        let is_silent = |name: &&String| rules > 0 && !reported.contains_key(*name);
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

    /// What is in force after something happened that settings do not outlive.
    pub(super) fn lost_by(&mut self, kind: IncidentKind) {
        for setting in self.rig.settings.iter().filter(|setting| setting.is_lost_by(kind)) {
            self.in_force.insert(setting.name.clone(), setting.stock);
        }
    }

    /// What is in force after a restart: what is reported, and otherwise stock where it does not outlive a machine.
    /// A value that may not be applied, or that was being changed, counts as unknown.
    pub(super) fn restarted(
        &mut self,
        ending: Ending,
        under_way: Option<&Errand>,
        reported: &InForce,
        (use_name, rules): (&str, u32),
    ) {
        if ending != Ending::ProgramDied {
            self.lost_by(IncidentKind::Restart);
        } else if let Some(errand) = under_way {
            self.forget(errand);
        }
        let silent = self.fallen_silent(reported, rules);
        self.in_force.retain(|name, _| !silent.contains(name));
        self.readable.extend(reported.keys().cloned());
        self.in_force.extend(reported.iter().map(|(name, value)| (name.clone(), *value)));
        let rig = &self.rig;
        self.in_force.retain(|name, value| {
            rig.setting(name).is_some_and(|setting| *value >= setting.floor && *value <= setting.ceiling(use_name))
        });
    }
}

fn differs(setting: &Setting, wanted: Decimal, reported: Decimal, was_set: bool) -> Finding {
    Finding::Differs { wanted: Value::of(setting, wanted), reported: Value::of(setting, reported), was_set }
}
