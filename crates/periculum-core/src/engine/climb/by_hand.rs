//! Passes that somebody makes, and sensors that somebody reads: asked for, and what comes of the answer.

use std::collections::{BTreeMap, BTreeSet};
use std::ops::ControlFlow;

use rust_decimal::prelude::ToPrimitive;

use super::applying::ask_again;
use super::climber::{Climber, blame};
use crate::engine::entry::Entry;
use crate::engine::question::Question;
use crate::engine::state::{Doing, State, Trial};
use crate::engine::step::Step;
use crate::engine::watch::{Sample, watch};
use crate::model::evidence::Finding;
use crate::model::field::{Entered, Field, Written};
use crate::model::incident::{Incident, IncidentKind};
use crate::model::moment::{Moment, Span};
use crate::model::pass::PassReport;
use crate::model::reason::Reason;
use crate::model::rig::{Sensor, When};
use crate::model::task::Task;

impl Climber {
    /// Asks somebody to make a pass that has begun.
    pub(super) fn ask_to_make(&mut self, trial: Trial, index: usize, task: &Task, step: &mut Step) -> State {
        let pass = self.pass(index);
        let sensors = self.unread_sensors(&trial, &[When::Loaded]);
        let question = Question::Make { load: pass.load, length: pass.length, task: task.clone(), sensors };
        ask_again(Some(trial.number), question.clone(), step);
        State::Trying(trial, Doing::Making { index, began: step.at, question })
    }

    /// Asks for what is to be read at these times and was not read so far.
    ///
    /// Breaks with the state in which somebody is asked.
    pub(super) fn ask_to_read(
        &mut self,
        trial: Trial,
        (index, is_before): (usize, bool),
        at: &[When],
        step: &mut Step,
    ) -> ControlFlow<State, Trial> {
        let sensors = self.unread_sensors(&trial, at);
        let when = self.rig.read_by_hand().find(|sensor| sensors.contains(&sensor.name)).and_then(|first| first.asked);
        let Some(when) = when.filter(|_| trial.incidents.is_empty()) else { return ControlFlow::Continue(trial) };
        let question = Question::Read { sensors, when };
        ask_again(Some(trial.number), question.clone(), step);
        ControlFlow::Break(State::Trying(trial, Doing::Reading { index, is_before, question }))
    }

    fn unread_sensors(&self, trial: &Trial, at: &[When]) -> Vec<String> {
        let is_due = |sensor: &&Sensor| {
            let was_read = trial.read.contains(&sensor.name) || self.read_once.contains(&sensor.name);
            sensor.asked.is_some_and(|when| at.contains(&when)) && !was_read
        };
        self.rig.read_by_hand().filter(is_due).map(|sensor| sensor.name.clone()).collect()
    }

    /// Somebody says that they have done what they were asked for.
    pub(super) fn on_done(&mut self, state: State, written: &Written, step: &mut Step) -> State {
        match state {
            State::Trying(trial, doing @ (Doing::Making { .. } | Doing::Reading { .. })) => {
                self.on_written(trial, doing, written, step)
            }
            State::Trying(trial, Doing::Confirming { .. }) => self.set_for(trial, step),
            other => self.on_applied(other, &BTreeMap::new(), step),
        }
    }

    /// Takes what was written down; what is nothing for its field leaves the question as it is.
    fn on_written(&mut self, mut trial: Trial, doing: Doing, written: &Written, step: &mut Step) -> State {
        let (Doing::Making { question, .. } | Doing::Reading { question, .. }) = &doing else {
            return State::Trying(trial, doing);
        };
        let question = question.clone();
        if question.check(&self.rig, written).is_err() {
            ask_again(Some(trial.number), question, step);
            return State::Trying(trial, doing);
        }
        let (Question::Make { sensors, .. } | Question::Read { sensors, .. }) = &question else {
            return State::Trying(trial, doing);
        };
        let report = match &question {
            Question::Make { task, length, .. } => task.report(written, *length).ok(),
            _ => None,
        };
        let found = self.take_readings(Some(&mut trial), sensors, written, step);
        match (doing, report) {
            (Doing::Making { index, .. }, Some(mut report)) => {
                let ran = report.ran;
                report.incidents.extend(found.into_iter().map(|incident| incident.into_pass(ran)));
                self.on_made(trial, index, &report, step)
            }
            (Doing::Reading { index, is_before, .. }, _) => {
                for incident in found {
                    blame(&mut trial, None, incident, step);
                }
                if is_before { self.start_pass(trial, index, step) } else { self.go_on_after_pass(trial, index, step) }
            }
            (doing, _) => State::Trying(trial, doing),
        }
    }

    fn on_made(&mut self, trial: Trial, index: usize, report: &PassReport, step: &mut Step) -> State {
        let trial = self.take_report(trial, index, report, step);
        self.go_on_after_report(trial, index, (report, None), step)
    }

    /// Records what was read of these sensors, and tells what of it is out of order. What is asked for once is read for the whole
    /// climb.
    fn take_readings(
        &mut self,
        trial: Option<&mut Trial>,
        asked: &[String],
        written: &Written,
        step: &mut Step,
    ) -> Vec<Incident> {
        let once = |name: &String| {
            self.rig.read_by_hand().any(|sensor| sensor.name == *name && sensor.asked == Some(When::Once))
        };
        let for_all: BTreeSet<String> = asked.iter().filter(|name| once(name)).cloned().collect();
        let readings = self.readings_of(asked, written);
        let number = trial.as_ref().map(|trial| trial.number);
        let (of_climb, of_trial): (BTreeMap<_, _>, BTreeMap<_, _>) =
            readings.clone().into_iter().partition(|(name, _)| for_all.contains(name));
        for (trial, readings) in [(None, of_climb), (number, of_trial)] {
            if !readings.is_empty() {
                step.entries.push(Entry::Read { trial, readings });
            }
        }
        self.read_once.extend(for_all);
        let rung = trial.map(|trial| {
            trial.read.extend(asked.iter().cloned());
            trial.rung.clone()
        });
        let sample = Sample { readings: &readings, highest: &BTreeMap::new() };
        watch(&self.rig.sensors, &sample, |name| rung.as_ref()?.get(name), Span::ZERO)
    }

    /// The readings of these sensors in what was written down, in each sensor's unit.
    fn readings_of(&self, sensors: &[String], written: &Written) -> BTreeMap<String, f64> {
        let read = |sensor: &Sensor| match Field::of_sensor(sensor).read(written.get(&sensor.name)?) {
            Ok(Entered::Number(number)) => Some((sensor.name.clone(), number.to_f64()?)),
            _ => None,
        };
        self.rig.read_by_hand().filter(|sensor| sensors.contains(&sensor.name)).filter_map(read).collect()
    }

    /// Takes what somebody read unasked; what is out of order is held against the trial that is open.
    pub(super) fn on_read(&mut self, mut state: State, written: &Written, step: &mut Step) -> State {
        // What is no reading says nothing, and is asked for all the same.
        let typed: Vec<String> = written.keys().cloned().collect();
        let named: Vec<String> = self.readings_of(&typed, written).into_keys().collect();
        let trial = match &mut state {
            State::Trying(trial, _) => Some(trial),
            _ => None,
        };
        let is_open = trial.is_some();
        let found = self.take_readings(trial, &named, written, step);
        let state = if is_open && !found.is_empty() { self.on_noticed(state, &found, step) } else { state };
        match state {
            State::Trying(trial, Doing::Making { index, began, question }) => {
                let question = ask_for_rest(&trial, &question, &named, step);
                State::Trying(trial, Doing::Making { index, began, question })
            }
            State::Trying(trial, Doing::Reading { index, is_before, question }) => {
                let question = ask_for_rest(&trial, &question, &named, step);
                let is_answered = question.is_empty();
                let doing = Doing::Reading { index, is_before, question };
                if is_answered {
                    self.on_written(trial, doing, &Written::new(), step)
                } else {
                    State::Trying(trial, doing)
                }
            }
            other => other,
        }
    }

    /// What somebody says went wrong in the pass that they were to make.
    pub(super) fn on_failed_by_hand(
        &mut self,
        state: State,
        (kind, what): (IncidentKind, Finding),
        step: &mut Step,
    ) -> State {
        let (trial, index, began) = match state {
            State::Trying(trial, Doing::Making { index, began, .. }) => (trial, index, began),
            State::Trying(trial, Doing::Confirming { question }) => {
                return self.take_back(trial, &question, Incident::new(kind, what), step);
            }
            other => return other,
        };
        // Whoever tells of a machine that went down tells that at once; what they see they see by the end.
        let went_down = kind.takes_machine_down();
        let ran = if went_down { self.ran_by_hand(index, began, step) } else { self.pass(index).length };
        let incidents = vec![Incident::new(kind, what).into_pass(ran)];
        let report = PassReport { ran, incidents, ..PassReport::default() };
        self.on_made(trial, index, &report, step)
    }

    /// How long a pass ran that went wrong under somebody's hands: it takes as long as it should at most, however late that is told.
    fn ran_by_hand(&self, index: usize, began: Moment, step: &Step) -> Span {
        let (went_by, length) = (step.at.since(began), self.pass(index).length);
        if went_by.is_zero() { length } else { went_by.min(length) }
    }

    /// Asks again after the program went down, or was put aside for a day; what is in force may be something else by now.
    pub(super) fn ask_after_restart(
        &mut self,
        trial: Trial,
        doing: Doing,
        question: Question,
        step: &mut Step,
    ) -> State {
        if self.way_to(&trial.rung).is_empty() {
            ask_again(Some(trial.number), question, step);
            return State::Trying(trial, doing);
        }
        self.close_void(&trial, None, step);
        self.begin_trial(trial.rung, Reason::Again { trial: trial.number }, step)
    }
}

/// Asks for what is left of a question, where some of it was read unasked.
fn ask_for_rest(trial: &Trial, question: &Question, read: &[String], step: &mut Step) -> Question {
    let rest = question.clone().without_sensors(read);
    if rest != *question && !rest.is_empty() {
        ask_again(Some(trial.number), rest.clone(), step);
    }
    rest
}
