//! What is watched while a pass runs: sensors against their limits, and the clock.

use std::collections::BTreeMap;

use super::{Climb, blame};
use crate::engine::entry::Entry;
use crate::engine::state::{Doing, Next, Pressure, State, Stop, Stopping};
use crate::engine::step::{Command, Step};
use crate::engine::watch::{Sample, is_over_cut_off, lost, uneven_cores, watch};
use crate::model::evidence::Finding;
use crate::model::incident::{Incident, IncidentKind};
use crate::model::moment::Span;
use crate::model::obstacle::Met;
use crate::model::pass::Threads;
use crate::model::strategy::Aim;

/// A pass that has not ended this long after its time is stalled.
const GRACE: Span = Span::from_seconds(60);

/// A pass that was told to stop is told again, harder, where it has not ended this long after.
const STOPPING: Span = Span::from_seconds(5);

/// A pass that has not ended this long after it was told to stop can't be ended.
const UNSTOPPABLE: Span = Span::from_seconds(20);

impl Climb {
    pub(super) fn watch_sensors(&mut self, sample: &Sample, step: &mut Step) {
        let all_work_alike = self.all_work_alike();
        let State::Trying(trial, Doing::Passing { index, began, stopping: stopping @ None }) = &mut self.state else {
            return;
        };
        let into_pass = step.at.since(*began);
        let asked = |setting: &str| trial.rung.get(setting);
        let found = watch(&self.rig.sensors, sample, asked, into_pass);
        let uneven = uneven_cores(&self.rig.sensors, sample.readings, into_pass).filter(|_| all_work_alike);
        let lost = lost(&self.rig.sensors, sample, into_pass);
        let uneven = uneven.map(|finding| (IncidentKind::TooHot, finding));
        let unsound = uneven.or(lost.map(|finding| (IncidentKind::SensorLost, finding)));
        let why = match (&unsound, found.is_empty()) {
            (Some((_, finding)), _) => Stopping::Unsound { why: Met::Unsound { finding: finding.clone() }.into() },
            (None, false) => Stopping::ForCause,
            (None, true) => return,
        };
        *stopping = Some(Stop::new(why, step.at));
        let unsound = unsound.map(|(kind, finding)| Incident::new(kind, finding));
        for incident in found.into_iter().chain(unsound) {
            blame(trial, Some(*index), incident.into_pass(into_pass), step);
        }
        step.command = Some(Command::StopPass);
    }

    /// What the hardware counts or the kernel logs is held against the trial that runs, and ends its pass.
    pub(super) fn on_noticed(&mut self, incidents: &[Incident], step: &mut Step) {
        for incident in incidents.iter().cloned() {
            match &mut self.state {
                State::Trying(trial, Doing::Passing { index, began, stopping }) => {
                    blame(trial, Some(*index), incident.into_pass(step.at.since(*began)), step);
                    if stopping.is_none() {
                        *stopping = Some(Stop::new(Stopping::ForCause, step.at));
                        step.command = Some(Command::StopPass);
                    }
                }
                State::Trying(trial, Doing::Setting { .. } | Doing::Resting { .. })
                | State::Paused(Next::Pass(trial, _)) => blame(trial, None, incident, step),
                _ => step.entries.push(Entry::Incident { trial: None, pass: None, incident }),
            }
        }
    }

    /// Whether a reading is above its sensor's cut-off, so that it is to be told at once.
    pub fn is_over_cut_off(&self, readings: &BTreeMap<String, f64>) -> bool {
        is_over_cut_off(&self.rig.sensors, readings)
    }

    /// Whether every core has the same clock and the same work, so that they may be compared.
    fn all_work_alike(&self) -> bool {
        let are_alike = self.aim().is_some_and(Aim::keeps_cores_alike);
        match &self.state {
            State::Trying(_, Doing::Passing { index, .. }) => are_alike && self.pass(*index).threads == Threads::All,
            _ => false,
        }
    }

    pub(super) fn watch_time(&mut self, step: &mut Step) {
        if let State::Trying(_, Doing::Resting { until, .. }) = &self.state {
            if step.at >= *until {
                self.end_rest(step);
            }
            return;
        }
        self.press(step);
        let State::Trying(_, Doing::Passing { index, .. }) = &self.state else { return };
        let length = self.pass(*index).length;
        let State::Trying(trial, Doing::Passing { index, began, stopping: stopping @ None }) = &mut self.state else {
            return;
        };
        let ran = step.at.since(*began);
        if ran <= length + GRACE {
            return;
        }
        let incident = Incident::new(IncidentKind::Stalled, Finding::NotEnded { length }).into_pass(ran);
        blame(trial, Some(*index), incident, step);
        *stopping = Some(Stop::new(Stopping::ForCause, step.at));
        step.command = Some(Command::StopPass);
    }

    /// Tells a pass again that it is to stop, and says so where it can't be stopped.
    fn press(&mut self, step: &mut Step) {
        let State::Trying(trial, Doing::Passing { index, stopping: Some(stop), .. }) = &mut self.state else { return };
        let waited = step.at.since(stop.since);
        match stop.pressure {
            Pressure::Told if waited > STOPPING => {
                stop.pressure = Pressure::Harder;
                step.command = Some(Command::StopPass);
            }
            Pressure::Harder if waited > UNSTOPPABLE => {
                stop.pressure = Pressure::GivenUp;
                let evidence = Finding::Unstoppable { waited };
                blame(trial, Some(*index), Incident::new(IncidentKind::Stalled, evidence), step);
            }
            Pressure::Told | Pressure::Harder | Pressure::GivenUp => {}
        }
    }
}
