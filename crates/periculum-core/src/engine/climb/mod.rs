//! The state machine: what happens in which state, and what is recorded and done about it.

mod home;
mod operator;
mod restart;

use std::mem;
use std::sync::Arc;

use crate::engine::course::{Course, Ground, Move, Outcome};
use crate::engine::entry::{ClimbEnd, Entry, Mark};
use crate::engine::event::{Command, Event, Question, Step};
use crate::engine::outlook::{Outlook, Prospect};
use crate::engine::state::{Doing, Next, State, Stopping, Trial};
use crate::incident::{Incident, IncidentKind};
use crate::moment::{Moment, Span};
use crate::pass::{Pass, PassOrder, PassReport};
use crate::plan::Plan;
use crate::reason::{Reason, StageEnd};
use crate::rig::Rig;
use crate::route::route;
use crate::rung::{Change, InForce, Rung};
use crate::setting::TakesEffect;
use crate::verdict::{Verdict, judge};

/// A pass that has not ended this long after its time is stalled.
const GRACE: Span = Span::from_seconds(60);

/// One execution of a plan on a rig.
#[derive(Clone, Debug, PartialEq)]
pub struct Climb {
    rig: Arc<Rig>,
    plan: Arc<Plan>,
    /// What the rig is believed to have in force; a setting that is missing is unknown.
    in_force: InForce,
    /// The rung that the stage stands on: the last one a stage settled at.
    base: Rung,
    stage: usize,
    course: Option<Course>,
    marks: Vec<Mark>,
    trials: u32,
    falls: u32,
    tested: Span,
    deaths_in_a_row: u32,
    pause_wanted: bool,
    state: State,
}

impl Climb {
    /// A climb that has not begun, of a plan that was checked against this rig.
    pub fn new(rig: Arc<Rig>, plan: Arc<Plan>) -> Self {
        Self {
            base: rig.stock(),
            rig,
            plan,
            in_force: InForce::new(),
            stage: 0,
            course: None,
            marks: Vec::new(),
            trials: 0,
            falls: 0,
            tested: Span::ZERO,
            deaths_in_a_row: 0,
            pause_wanted: false,
            state: State::Ready,
        }
    }

    /// Takes one event and answers with what to record and then do.
    ///
    /// Call it again when the command has led to an event, when the operator says something, and with telemetry
    /// whenever there is any. An event that does not fit the state is answered with silence.
    pub fn next(&mut self, at: Moment, event: &Event) -> Step {
        let mut step = Step { at, ..Step::default() };
        match event {
            Event::Started { in_force } => self.on_started(in_force, &mut step),
            Event::Applied { reported } => self.on_applied(reported, &mut step),
            Event::ApplyFailed { incident } => self.on_apply_failed(incident.clone(), &mut step),
            Event::PassEnded { report } => self.on_pass_ended(report, &mut step),
            Event::Sample { readings } => self.watch_cut_offs(readings, &mut step),
            Event::TimePassed => self.watch_overrun(&mut step),
            Event::OperatorSaid { said } => self.on_operator(said, &mut step),
            Event::Restarted { ending, lived, in_force } => self.on_restarted(*ending, *lived, in_force, &mut step),
            Event::PassProgress { .. } => {}
        }
        step
    }

    /// Whether the climb is over.
    pub fn is_ended(&self) -> bool {
        self.state == State::Ended
    }

    /// How many trials have begun.
    pub fn trials(&self) -> u32 {
        self.trials
    }

    /// Whether the climb waits for the operator to go on.
    pub fn is_paused(&self) -> bool {
        matches!(self.state, State::Paused(_))
    }

    /// Whether a pass runs.
    pub fn is_passing(&self) -> bool {
        matches!(self.state, State::Trying(_, Doing::Passing { .. }))
    }

    /// Whether nothing has begun.
    pub fn is_ready(&self) -> bool {
        self.state == State::Ready
    }

    /// What the climb waits for the operator to answer.
    pub fn question(&self) -> Option<Question> {
        match &self.state {
            State::Trying(_, Doing::Setting { under_way, .. }) | State::GoingHome { under_way, .. }
                if self.is_by_hand(under_way) =>
            {
                Some(Question::Change { change: under_way.clone() })
            }
            _ => None,
        }
    }

    /// What comes next, for either end of the open trial; none where no trial is open.
    pub fn outlook(&self) -> Option<Outlook> {
        let open = matches!(&self.state, State::Trying(..) | State::Paused(Next::Pass(..)));
        let course = self.course.as_ref().filter(|_| open)?;
        let prospect = |verdict| {
            let tested = course.length().unwrap_or(self.plan.proof_of(self.stage).length());
            let outcome = Outcome { trial: self.trials, verdict, incident: None, scores: Vec::new(), tested };
            match course.clone().after(outcome, self.ground()) {
                Move::Try(rung, reason) => Prospect::Try(rung, reason),
                Move::Settle { rung, end, .. } => Prospect::StageDone(rung, end),
                Move::GiveUp(_) => Prospect::NothingLeft,
            }
        };
        Some(Outlook { if_held: prospect(Verdict::Held), if_fell: prospect(Verdict::Fell) })
    }

    fn ground(&self) -> Ground<'_> {
        Ground { rig: &self.rig, use_name: &self.plan.use_name }
    }

    fn on_started(&mut self, in_force: &InForce, step: &mut Step) {
        if !self.is_ready() {
            return;
        }
        step.entries.push(Entry::Began { in_force: in_force.clone() });
        self.in_force = in_force.clone();
        if let Some(why) = self.beyond_limits(in_force) {
            return self.finish(ClimbEnd::Refused { why }, step);
        }
        self.begin_stage(step);
    }

    /// What is said of a rig that has a value in force which this climb may never apply.
    fn beyond_limits(&self, in_force: &InForce) -> Option<String> {
        self.rig.settings.iter().find_map(|setting| {
            let value = *in_force.get(&setting.name)?;
            let ceiling = setting.ceiling(&self.plan.use_name);
            (value < setting.floor || value > ceiling).then(|| {
                format!(
                    "the rig has {} at {}, outside {} … {}; put it back first",
                    setting.label,
                    setting.written(value),
                    setting.written(setting.floor),
                    setting.written(ceiling)
                )
            })
        })
    }

    fn begin_stage(&mut self, step: &mut Step) {
        let Some(stage) = self.plan.stages.get(self.stage) else {
            return self.go_home(ClimbEnd::Completed, step);
        };
        step.entries.push(Entry::StageBegan { stage: self.stage, strategy: stage.strategy.name().into() });
        let mut course = Course::of(stage, &self.base, self.plan.proof_of(self.stage).length(), self.ground());
        let first = course.first(self.ground());
        self.course = Some(course);
        self.make(first, step);
    }

    fn make(&mut self, wanted: Move, step: &mut Step) {
        match wanted {
            Move::Try(rung, reason) => self.begin_trial(rung, reason, step),
            Move::Settle { rung, proved_in, end } => self.settle(rung, proved_in, end, step),
            Move::GiveUp(end) => {
                step.entries.push(Entry::StageEnded { stage: self.stage, end });
                self.go_home(ClimbEnd::NothingHeld { stage: self.stage }, step);
            }
        }
    }

    fn settle(&mut self, rung: Rung, proved_in: Option<u32>, end: StageEnd, step: &mut Step) {
        let setting = self.plan.stages[self.stage].strategy.setting();
        if let (Some(trial), Some(setting)) = (proved_in, setting) {
            let mark = Mark {
                rung: rung.clone(),
                setting: setting.to_owned(),
                proof: self.plan.proof_of(self.stage).name.clone(),
                trial,
                stage: self.stage,
            };
            step.entries.push(Entry::MarkSet { mark: mark.clone() });
            self.marks.push(mark);
        }
        step.entries.push(Entry::StageEnded { stage: self.stage, end });
        self.base = rung;
        self.stage += 1;
        self.begin_stage(step);
    }

    fn begin_trial(&mut self, rung: Rung, reason: Reason, step: &mut Step) {
        if self.pause_wanted {
            return self.pause(Next::Trial(rung, reason), step);
        }
        if let Err(illegal) = self.rig.permit(&rung, &self.plan.use_name) {
            return self.go_home(ClimbEnd::Refused { why: illegal.to_string() }, step);
        }
        self.trials += 1;
        step.entries.push(Entry::TrialBegan {
            trial: self.trials,
            stage: self.stage,
            rung: rung.clone(),
            proof: self.plan.proof_of(self.stage).name.clone(),
            reason,
        });
        let trial = Trial { number: self.trials, rung, incidents: Vec::new(), scores: Vec::new(), tested: Span::ZERO };
        self.set_for(trial, step);
    }

    /// Applies the next change on the way to a trial's rung, or begins its first pass when it is there.
    ///
    /// The way is found anew each time: a machine that restarted while its operator changed something by hand
    /// has lost what was set before.
    fn set_for(&mut self, trial: Trial, step: &mut Step) {
        match route(&self.rig, &self.in_force, &trial.rung).pop_front() {
            None => self.begin_pass(trial, 0, step),
            Some(under_way) => {
                self.order(Some(trial.number), &under_way, step);
                self.state = State::Trying(trial, Doing::Setting { under_way });
            }
        }
    }

    /// Says that a change is about to be applied, then applies it or asks the operator to.
    fn order(&self, trial: Option<u32>, change: &Change, step: &mut Step) {
        step.entries.push(Entry::AboutToApply { trial, change: change.clone() });
        if self.is_by_hand(change) {
            let question = Question::Change { change: change.clone() };
            step.entries.push(Entry::Asked { trial, question: question.clone() });
            step.command = Some(Command::Ask(question));
        } else {
            step.command = Some(Command::Apply(change.clone()));
        }
    }

    fn is_by_hand(&self, change: &Change) -> bool {
        self.rig.setting(&change.setting).is_some_and(|setting| setting.takes_effect == TakesEffect::ByHand)
    }

    fn begin_pass(&mut self, trial: Trial, index: usize, step: &mut Step) {
        if self.pause_wanted {
            return self.pause(Next::Pass(trial, index), step);
        }
        let pass = self.pass(index);
        step.entries.push(Entry::PassBegan { trial: trial.number, pass: index, order: pass.clone() });
        step.command = Some(Command::RunPass(PassOrder { trial: trial.number, index, pass }));
        self.state = State::Trying(trial, Doing::Passing { index, began: step.at, stopping: None });
    }

    /// A pass of the proof, as long as the trial wants it.
    fn pass(&self, index: usize) -> Pass {
        let proof = self.plan.proof_of(self.stage);
        let mut pass = proof.passes[index].clone();
        if let Some(length) = self.course.as_ref().and_then(Course::length) {
            let share = length.seconds() / proof.length().seconds();
            pass.length = Span::from_millis(((pass.length.millis() as f64 * share).round() as u64).max(1));
        }
        pass
    }

    fn pause(&mut self, next: Next, step: &mut Step) {
        self.pause_wanted = false;
        step.entries.push(Entry::Paused);
        self.state = State::Paused(next);
    }

    fn on_applied(&mut self, reported: &InForce, step: &mut Step) {
        match mem::replace(&mut self.state, State::Ended) {
            State::Trying(mut trial, Doing::Setting { under_way }) => {
                let incidents = self.compare(&under_way, reported);
                if incidents.is_empty() {
                    return self.set_for(trial, step);
                }
                for incident in incidents {
                    blame(&mut trial, None, incident, step);
                }
                self.end_trial(&trial, step);
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
    fn compare(&mut self, applied: &Change, reported: &InForce) -> Vec<Incident> {
        self.in_force.insert(applied.setting.clone(), applied.to);
        let mut incidents = Vec::new();
        for setting in &self.rig.settings {
            let Some(found) = reported.get(&setting.name).copied() else { continue };
            let Some(wanted) = self.in_force.get(&setting.name).copied() else {
                self.in_force.insert(setting.name.clone(), found);
                continue;
            };
            if (found - wanted).abs() <= setting.tolerance {
                continue;
            }
            self.in_force.insert(setting.name.clone(), found);
            let verb = if setting.name == applied.setting { "asked for" } else { "left at" };
            let evidence = format!("{verb} {}, reported {}", setting.written(wanted), setting.written(found));
            incidents.push(Incident::new(IncidentKind::NotTaken, evidence).at(&setting.label));
        }
        incidents
    }

    fn on_apply_failed(&mut self, incident: Incident, step: &mut Step) {
        match mem::replace(&mut self.state, State::Ended) {
            State::Trying(mut trial, Doing::Setting { under_way, .. }) => {
                self.in_force.remove(&under_way.setting);
                self.after_machine_down(incident.kind);
                blame(&mut trial, None, incident, step);
                self.end_trial(&trial, step);
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
    fn after_machine_down(&mut self, kind: IncidentKind) {
        if !kind.takes_machine_down() {
            return;
        }
        for setting in &self.rig.settings {
            if setting.takes_effect == TakesEffect::AtOnce || kind == IncidentKind::SafeDefaults {
                self.in_force.insert(setting.name.clone(), setting.stock);
            }
        }
    }

    fn on_pass_ended(&mut self, report: &PassReport, step: &mut Step) {
        let (mut trial, index, stopping) = match mem::replace(&mut self.state, State::Ended) {
            State::Trying(trial, Doing::Passing { index, stopping, .. }) => (trial, index, stopping),
            other => return self.state = other,
        };
        self.tested += report.ran;
        trial.tested += report.ran;
        trial.scores.extend(report.score.as_ref().map(|score| score.value));
        step.entries.push(Entry::PassEnded { trial: trial.number, pass: index, report: report.clone() });
        for incident in &report.incidents {
            self.after_machine_down(incident.kind);
            blame(&mut trial, Some(index), incident.clone(), step);
        }
        match stopping {
            Some(Stopping::ByOperator) => {
                self.close_void(&trial, Some(IncidentKind::Stopped), step);
                return self.go_home(ClimbEnd::Stopped, step);
            }
            Some(Stopping::ToLeave) => return self.wait_at_home(&trial, step),
            Some(Stopping::ForCause) | None => {}
        }
        if report.stopped && stopping.is_none() && report.incidents.is_empty() {
            let incident =
                Incident::new(IncidentKind::Stalled, "the pass ended before its time, and nobody stopped it");
            blame(&mut trial, Some(index), incident.into_pass(report.ran), step);
        }
        let over = !trial.incidents.is_empty() || index + 1 == self.plan.proof_of(self.stage).passes.len();
        if over { self.end_trial(&trial, step) } else { self.begin_pass(trial, index + 1, step) }
    }

    fn end_trial(&mut self, trial: &Trial, step: &mut Step) {
        let verdict = judge(trial.incidents.iter().copied());
        let incident = trial.incidents.iter().copied().max_by_key(|kind| kind.verdict());
        step.entries.push(Entry::TrialEnded { trial: trial.number, verdict, incident, tested: trial.tested });
        self.deaths_in_a_row = 0;
        if verdict == Verdict::Fell {
            self.falls += 1;
        }
        if verdict != Verdict::Held {
            self.withdraw_marks(trial, step);
        }
        let Some(mut course) = self.course.take() else { return };
        let scores = trial.scores.clone();
        let wanted = course
            .after(Outcome { trial: trial.number, verdict, incident, scores, tested: trial.tested }, self.ground());
        self.course = Some(course);
        self.make(wanted, step);
    }

    /// A mark whose very rung did not hold is no mark.
    fn withdraw_marks(&mut self, trial: &Trial, step: &mut Step) {
        let (withdrawn, standing) = mem::take(&mut self.marks).into_iter().partition(|mark| mark.rung == trial.rung);
        self.marks = standing;
        for mark in withdrawn {
            step.entries.push(Entry::MarkWithdrawn { mark, trial: trial.number });
        }
    }

    fn close_void(&self, trial: &Trial, incident: Option<IncidentKind>, step: &mut Step) {
        let verdict = Verdict::Void;
        step.entries.push(Entry::TrialEnded { trial: trial.number, verdict, incident, tested: trial.tested });
    }

    fn watch_cut_offs(&mut self, readings: &std::collections::BTreeMap<String, f64>, step: &mut Step) {
        let State::Trying(trial, Doing::Passing { index, began, stopping: stopping @ None }) = &mut self.state else {
            return;
        };
        for sensor in &self.rig.sensors {
            let (Some(cut_off), Some(reading)) = (sensor.cut_off, readings.get(&sensor.name)) else { continue };
            if *reading <= f64::try_from(cut_off).unwrap_or(f64::INFINITY) {
                continue;
            }
            let evidence =
                format!("{reading:.*} {unit}, cut-off {cut_off} {unit}", sensor.decimals, unit = sensor.unit);
            let incident =
                Incident::new(IncidentKind::TooHot, evidence).at(&sensor.label).into_pass(step.at.since(*began));
            blame(trial, Some(*index), incident, step);
            *stopping = Some(Stopping::ForCause);
            step.command = Some(Command::StopPass);
        }
    }

    fn watch_overrun(&mut self, step: &mut Step) {
        let State::Trying(_, Doing::Passing { index, .. }) = &self.state else { return };
        let length = self.pass(*index).length;
        let State::Trying(trial, Doing::Passing { index, began, stopping: stopping @ None }) = &mut self.state else {
            return;
        };
        let ran = step.at.since(*began);
        if ran <= length + GRACE {
            return;
        }
        let incident = Incident::new(IncidentKind::Stalled, format!("a pass of {length} has not ended")).into_pass(ran);
        blame(trial, Some(*index), incident, step);
        *stopping = Some(Stopping::ForCause);
        step.command = Some(Command::StopPass);
    }
}

/// Records an incident and holds it against the trial.
fn blame(trial: &mut Trial, pass: Option<usize>, incident: Incident, step: &mut Step) {
    trial.incidents.push(incident.kind);
    step.entries.push(Entry::Incident { trial: Some(trial.number), pass, incident });
}
