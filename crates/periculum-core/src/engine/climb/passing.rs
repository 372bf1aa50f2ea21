//! The passes of a trial, one after the other, and what becomes of each.

use std::ops::ControlFlow;

use super::climber::{Climber, blame};
use crate::engine::course::Course;
use crate::engine::entry::{ClimbEnd, Entry};
use crate::engine::state::{Doing, Next, State, Stopping, Trial};
use crate::engine::step::{Command, Step};
use crate::model::evidence::Finding;
use crate::model::incident::{Incident, IncidentKind};
use crate::model::moment::Span;
use crate::model::obstacle::Met;
use crate::model::pass::{Pass, PassOrder, PassReport, Threads};
use crate::model::reason::Reason;
use crate::model::rig::When;
use crate::model::rung::InForce;
use crate::model::strategy::Strategy;

/// So many times its length a pass gets that finished no round.
const MORE_TIME: u32 = 4;

impl Climber {
    pub(super) fn begin_pass(&mut self, trial: Trial, index: usize, step: &mut Step) -> State {
        if self.rules > 0 && !trial.incidents.is_empty() {
            return self.end_trial(trial, step);
        }
        if self.pause_wanted {
            return self.pause(Next::Pass(trial, index), step);
        }
        let idle = self.idle_before(index);
        let pause = idle.unwrap_or_default() + self.pass(index).pause;
        if pause.is_zero() {
            return self.start_pass(trial, index, step);
        }
        step.entries.push(Entry::Resting { trial: trial.number, pass: index, pause, idle: idle.is_some() });
        State::Trying(trial, Doing::Resting { index, until: step.at + pause })
    }

    /// How long the rig is measured at rest before a pass: before the first one of its baseline, until it was.
    fn idle_before(&self, index: usize) -> Option<Span> {
        let Strategy::Baseline { idle, .. } = &self.plan.stages.get(self.stage)?.strategy else { return None };
        idle.filter(|_| index == 0 && !self.was_idle)
    }

    pub(super) fn start_pass(&mut self, trial: Trial, index: usize, step: &mut Step) -> State {
        self.tally.setbacks = 0;
        self.was_idle = true;
        if !trial.incidents.is_empty() && self.rules > 0 {
            return self.end_trial(trial, step);
        }
        let at_rest: &[When] = if index == 0 { &[When::Once, When::EachTrial, When::Idle] } else { &[] };
        let trial = match self.ask_to_read(trial, (index, true), at_rest, step) {
            ControlFlow::Break(asked) => return asked,
            ControlFlow::Continue(trial) => trial,
        };
        let pass = self.pass(index);
        let cores = self.cores_for(&pass);
        let (order, on) = (pass.clone(), cores.clone());
        step.entries.push(Entry::PassBegan { trial: trial.number, pass: index, order, on });
        if let Some(task) = &pass.by_hand {
            return self.ask_to_make(trial, index, task, step);
        }
        let nth = self.tally.spoken + 1;
        step.command = Some(Command::RunPass(PassOrder { trial: trial.number, index, pass, nth, cores }));
        State::Trying(trial, Doing::Passing { index, began: step.at, stopping: None })
    }

    /// The processors that a pass is about which does not load all of them together: those of the setting that climbs.
    fn cores_for(&self, pass: &Pass) -> Vec<u32> {
        let climbed = self.course.as_ref().and_then(Course::climbs).and_then(|name| self.rig.setting(name));
        climbed.filter(|_| pass.threads != Threads::All).map(|setting| setting.drives.clone()).unwrap_or_default()
    }

    /// A pass of the proof, as long as the trial wants it.
    pub(super) fn pass(&self, index: usize) -> Pass {
        let proof = self.proof();
        let mut pass = proof.passes[index].clone();
        if let Some(length) = self.course.as_ref().and_then(Course::length) {
            let share = length.seconds() / proof.length().seconds();
            pass.length = Span::from_millis(((pass.length.millis() as f64 * share).round() as u64).max(1));
        }
        pass.length = Span::from_millis(pass.length.millis().saturating_mul(self.stretch.into()));
        pass
    }

    pub(super) fn pause(&mut self, next: Next, step: &mut Step) -> State {
        self.pause_wanted = false;
        step.entries.push(Entry::Paused);
        State::Paused(next)
    }

    pub(super) fn on_pass_ended(
        &mut self,
        state: State,
        report: &PassReport,
        reported: Option<&InForce>,
        step: &mut Step,
    ) -> State {
        let State::Trying(trial, Doing::Passing { index, stopping, .. }) = state else { return state };
        let was_told_to_stop = stopping.is_some();
        let trial = self.take_report(trial, index, report, step);
        let mut trial = match self.do_instead(trial, stopping.map(|stop| stop.why), step) {
            ControlFlow::Continue(trial) => trial,
            ControlFlow::Break(state) => return state,
        };
        if report.stopped && !was_told_to_stop && report.incidents.is_empty() {
            let incident = Incident::new(IncidentKind::Stalled, Finding::EndedEarly);
            blame(&mut trial, Some(index), incident.into_pass(report.ran), step);
        }
        self.go_on_after_report(trial, index, (report, reported), step)
    }

    /// Records how a pass ended, and counts what it says for its trial.
    pub(super) fn take_report(
        &mut self,
        mut trial: Trial,
        index: usize,
        report: &PassReport,
        step: &mut Step,
    ) -> Trial {
        self.tally.downs_in_a_row = 0;
        self.tally.tested += report.ran;
        trial.tested += report.ran;
        // The first of a pass's scores is what stands for it, and the last of a trial what stands for that.
        let scores: Vec<_> = report.scores(&self.proof().passes[index].load).collect();
        for (name, score) in scores.into_iter().rev() {
            trial.scores.push(score.merit());
            trial.benchmarks.push(name);
        }
        step.entries.push(Entry::PassEnded { trial: trial.number, pass: index, report: report.clone() });
        for incident in &report.incidents {
            self.after_loss(incident.kind);
            blame(&mut trial, Some(index), incident.clone(), step);
        }
        trial
    }

    /// Goes on with what a pass that nobody wanted to end says about its trial.
    pub(super) fn go_on_after_report(
        &mut self,
        mut trial: Trial,
        index: usize,
        (report, reported): (&PassReport, Option<&InForce>),
        step: &mut Step,
    ) -> State {
        if let Some(told) = &report.refused {
            self.close_void(&trial, None, step);
            let why = Met::NotStarted { told: told.clone() }.into();
            return self.go_home(ClimbEnd::Unsound { why }, step);
        }
        if report.unchecked && trial.incidents.is_empty() {
            return self.after_nothing_was_checked(&trial, index, step);
        }
        let Some(reported) = reported else { return self.go_on_after_pass(trial, index, step) };
        for incident in self.belief.strayed(reported) {
            blame(&mut trial, Some(index), incident, step);
        }
        match self.doubt_unread(trial, reported, step) {
            ControlFlow::Continue(trial) => self.go_on_after_pass(trial, index, step),
            ControlFlow::Break(again) => again,
        }
    }

    /// Does what a pass was told to stop for, or what waited for a change; the trial is judged where that was its own fault.
    pub(super) fn do_instead(
        &mut self,
        trial: Trial,
        why: Option<Stopping>,
        step: &mut Step,
    ) -> ControlFlow<State, Trial> {
        ControlFlow::Break(match why {
            Some(Stopping::ByOperator(stay)) => {
                self.close_void(&trial, Some(IncidentKind::Stopped), step);
                self.stop_at(stay, step)
            }
            Some(Stopping::ToWait(aside)) => self.wait_aside(&trial, aside, step),
            Some(Stopping::Instead(wanted)) => {
                self.close_void(&trial, None, step);
                self.make(*wanted, step)
            }
            Some(Stopping::Unsound { why }) => {
                self.close(&trial, None, step);
                self.go_home(ClimbEnd::Unsound { why }, step)
            }
            Some(Stopping::ForCause) | None => return ControlFlow::Continue(trial),
        })
    }

    pub(super) fn go_on_after_pass(&mut self, trial: Trial, index: usize, step: &mut Step) -> State {
        let is_last = index + 1 == self.proof().passes.len();
        let now: &[When] = if is_last { &[When::Loaded, When::After] } else { &[When::Loaded] };
        let trial = match self.ask_to_read(trial, (index, false), now, step) {
            ControlFlow::Break(asked) => return asked,
            ControlFlow::Continue(trial) => trial,
        };
        let over = !trial.incidents.is_empty() || is_last;
        if over { self.end_trial(trial, step) } else { self.begin_pass(trial, index + 1, step) }
    }

    /// Gives the passes of the stage more time where they did not check everything; says what to change where they had more.
    fn after_nothing_was_checked(&mut self, trial: &Trial, index: usize, step: &mut Step) -> State {
        self.close_void(trial, None, step);
        if self.stretch > 1 {
            let Pass { load, length, .. } = self.pass(index);
            let why = Met::NothingChecked { load, length }.into();
            return self.go_home(ClimbEnd::Unsound { why }, step);
        }
        self.stretch = MORE_TIME;
        self.begin_trial(trial.rung.clone(), Reason::MoreTime { trial: trial.number }, step)
    }
}
