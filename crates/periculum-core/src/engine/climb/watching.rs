//! What is watched while a pass runs: sensors against their limits, and the clock.

use super::climber::{Climber, blame};
use super::deadline::{Due, due};
use crate::engine::entry::Entry;
use crate::engine::state::{Doing, Next, Pressure, State, Stop, Stopping, Trial};
use crate::engine::step::{Command, Step};
use crate::engine::watch::{Sample, lost, uneven_cores, watch};
use crate::model::evidence::Finding;
use crate::model::incident::{Incident, IncidentKind};
use crate::model::moment::{Moment, Span};
use crate::model::obstacle::Met;
use crate::model::pass::Threads;
use crate::model::strategy::Aim;

impl Climber {
    /// Over a cut-off while somebody makes a pass: nobody here can stop it, but it is told, and held against the trial, once.
    fn watch_hands(&self, trial: &mut Trial, (index, began): (usize, Moment), sample: &Sample, step: &mut Step) {
        let into_pass = step.at.since(began);
        let asked = |setting: &str| trial.rung.get(setting);
        let found = watch(&self.rig.sensors, sample, asked, into_pass);
        for incident in found.into_iter().filter(|found| !trial.incidents.contains(&found.kind)).collect::<Vec<_>>() {
            blame(trial, Some(index), incident.into_pass(into_pass), step);
        }
    }

    pub(super) fn watch_sensors(&mut self, state: State, sample: &Sample, step: &mut Step) -> State {
        if let State::Trying(mut trial, doing @ Doing::Making { .. }) = state {
            if let Doing::Making { index, began, .. } = &doing {
                self.watch_hands(&mut trial, (*index, *began), sample, step);
            }
            return State::Trying(trial, doing);
        }
        let state = match state {
            State::Trying(trial, Doing::Confirming { question }) => {
                return self.hear_checks(trial, question, sample, step);
            }
            other => other,
        };
        let State::Trying(mut trial, Doing::Passing { index, began, stopping: None }) = state else { return state };
        let into_pass = step.at.since(began);
        let asked = |setting: &str| trial.rung.get(setting);
        let found = watch(&self.rig.sensors, sample, asked, into_pass);
        let all_work_alike = self.all_work_alike(index);
        let uneven = uneven_cores(&self.rig.sensors, sample.readings, into_pass).filter(|_| all_work_alike);
        let lost = lost(&self.rig.sensors, sample, into_pass, &self.silent);
        let uneven = uneven.map(|finding| (IncidentKind::TooHot, finding));
        let unsound = uneven.or(lost.map(|finding| (IncidentKind::SensorLost, finding)));
        let why = match (&unsound, found.is_empty()) {
            (Some((_, finding)), _) => Stopping::Unsound { why: Met::Unsound { finding: finding.clone() }.into() },
            (None, false) => Stopping::ForCause,
            (None, true) => return State::Trying(trial, Doing::Passing { index, began, stopping: None }),
        };
        let unsound = unsound.map(|(kind, finding)| Incident::new(kind, finding));
        for incident in found.into_iter().chain(unsound) {
            blame(&mut trial, Some(index), incident.into_pass(into_pass), step);
        }
        step.command = Some(Command::StopPass);
        State::Trying(trial, Doing::Passing { index, began, stopping: Some(Stop::new(why, step.at)) })
    }

    /// What the hardware counts or the kernel logs is held against the trial that runs, and ends its pass.
    pub(super) fn on_noticed(&mut self, mut state: State, incidents: &[Incident], step: &mut Step) -> State {
        for incident in incidents.iter().cloned() {
            self.belief.lost_by(incident.kind);
            match &mut state {
                State::Trying(trial, Doing::Passing { index, began, stopping }) => {
                    blame(trial, Some(*index), incident.into_pass(step.at.since(*began)), step);
                    if stopping.is_none() {
                        *stopping = Some(Stop::new(Stopping::ForCause, step.at));
                        step.command = Some(Command::StopPass);
                    }
                }
                State::Trying(trial, Doing::Making { index, began, .. }) => {
                    blame(trial, Some(*index), incident.into_pass(step.at.since(*began)), step);
                }
                State::Trying(trial, _) | State::Paused(Next::Pass(trial, _)) => blame(trial, None, incident, step),
                _ => step.entries.push(Entry::Incident { trial: None, pass: None, incident }),
            }
        }
        state
    }

    /// Whether every core has the same clock and the same work in this pass, so that they may be compared.
    fn all_work_alike(&self, pass: usize) -> bool {
        self.aim().is_some_and(Aim::keeps_cores_alike) && self.pass(pass).threads == Threads::All
    }

    pub(super) fn watch_time(&mut self, state: State, late: Span, step: &mut Step) -> State {
        let length = match &state {
            State::Trying(_, Doing::Passing { index, .. }) => self.pass(*index).length,
            _ => Span::ZERO,
        };
        let Some(due) = due(&state, &self.rig, length + late, step.at) else { return state };
        if let Some(since) = state.applies_since(&self.rig) {
            let finding = Finding::Unanswered { waited: step.at.since(since) };
            return self.on_apply_failed(state, Incident::new(IncidentKind::NotTaken, finding), step);
        }
        let (mut trial, index, began, stopping) = match state {
            State::Trying(trial, Doing::Resting { index, .. }) => return self.start_pass(trial, index, step),
            State::Trying(trial, Doing::Confirming { question }) => {
                let incident = Incident::new(IncidentKind::NoPicture, Finding::Unconfirmed);
                return self.take_back(trial, &question, incident, step);
            }
            State::Trying(trial, Doing::Passing { index, began, stopping }) => (trial, index, began, stopping),
            other => return other,
        };
        let since = stopping.as_ref().map_or(step.at, |stop| stop.since);
        let (pressure, found) = match due {
            Due::Answer | Due::Pass | Due::Word | Due::SecondStop => (Pressure::Harder, None),
            Due::PassEnd => (Pressure::Told, Some(Finding::NotEnded { length })),
            Due::Despair => (Pressure::GivenUp, Some(Finding::Unstoppable { waited: step.at.since(since) })),
        };
        step.command = (due != Due::Despair).then_some(Command::StopPass);
        if let Some(finding) = found {
            let incident = Incident::new(IncidentKind::Stalled, finding);
            let ran = step.at.since(began);
            let incident = if due == Due::PassEnd { incident.into_pass(ran) } else { incident };
            blame(&mut trial, Some(index), incident, step);
        }
        let why = stopping.map_or(Stopping::ForCause, |stop| stop.why);
        State::Trying(trial, Doing::Passing { index, began, stopping: Some(Stop { why, since, pressure }) })
    }
}
