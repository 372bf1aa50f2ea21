//! The state machine: what happens in which state, and what is recorded and done about it.

mod applying;
mod home;
mod judging;
mod operator;
mod restart;
mod sighting;
mod spending;
mod watching;

use std::collections::{BTreeMap, BTreeSet};
use std::mem;
use std::sync::Arc;

use crate::engine::course::{Course, Ground, Move, Outcome};
use crate::engine::entry::{ClimbEnd, Entry, Mark, Profile};
use crate::engine::event::{Event, Question};
use crate::engine::outlook::{Outlook, Prospect};
use crate::engine::route::route;
use crate::engine::state::{Aside, Doing, Judged, Next, Pressure, State, Stopping, Then, Trial};
use crate::engine::step::{Command, Step};
use crate::engine::watch::Sample;
use crate::model::evidence::{Finding, Value};
use crate::model::incident::{Incident, IncidentKind};
use crate::model::moment::{Moment, Span};
use crate::model::obstacle::Met;
use crate::model::pass::{Pass, PassOrder, PassReport, Threads};
use crate::model::plan::{Plan, Start};
use crate::model::reason::{Reason, StageEnd};
use crate::model::rig::Rig;
use crate::model::rung::{Change, InForce, Rung};
use crate::model::strategy::Aim;
use crate::model::verdict::Verdict;

/// So many times its length a pass gets that finished no round.
const MORE_TIME: u32 = 4;

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
    /// How often the machine went down since a pass ran to its end, with nobody there.
    downs_in_a_row: u32,
    restarts: u32,
    /// Changes made by hand.
    changes: u32,
    began: Moment,
    /// When the machine is wanted back.
    deadline: Option<Moment>,
    /// Each trial of the baseline that was not disturbed, with its scores pass by pass.
    baseline: Vec<(u32, Vec<f64>)>,
    /// The scores of the last trial, where they were too low to be believed at once.
    doubted: Option<Vec<f64>>,
    pause_wanted: bool,
    /// How the climb is to be put aside once the pass that is being stopped has ended.
    aside_wanted: Option<Aside>,
    /// Whether the program was told to end in good order, and has not been taken up again.
    is_suspended: bool,
    /// The rules that it decides by, see [`crate::engine::RULES`].
    rules: u32,
    /// The settings that were read back at least once.
    readable: BTreeSet<String>,
    /// Whether the last trial was broken off because a setting could not be read back any more.
    was_unread: bool,
    /// How often in a row the rig came back with its defaults on the way to something easier.
    setbacks: u32,
    /// How many times their length the passes of this stage get, since no round was finished in less.
    stretch: u32,
    /// How many trials have said something, about their rung or about the luck of their scores.
    spoken: u32,
    /// The rungs that held, by the trial they held in.
    held: BTreeMap<u32, Rung>,
    /// How each trial ended.
    verdicts: BTreeMap<u32, Verdict>,
    /// The last trial that was judged.
    judged: Option<Box<Judged>>,
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
            downs_in_a_row: 0,
            restarts: 0,
            changes: 0,
            began: Moment::from_millis(0),
            deadline: None,
            baseline: Vec::new(),
            doubted: None,
            pause_wanted: false,
            aside_wanted: None,
            is_suspended: false,
            rules: 0,
            readable: BTreeSet::new(),
            was_unread: false,
            setbacks: 0,
            stretch: 1,
            spoken: 0,
            held: BTreeMap::new(),
            verdicts: BTreeMap::new(),
            judged: None,
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
            Event::Started { in_force, ahead, rules } => {
                self.rules = *rules;
                self.on_started(in_force, *ahead, &mut step);
            }
            Event::Applied { reported } => self.on_applied(reported, &mut step),
            Event::ChangeMade { reported, started_anew } => self.on_change_made(reported, *started_anew, &mut step),
            Event::ApplyFailed { incident } => self.on_apply_failed(incident.clone(), &mut step),
            Event::PassEnded { report, reported } => self.on_pass_ended(report, reported.as_ref(), &mut step),
            Event::Sample { readings, highest } => self.watch_sensors(&Sample { readings, highest }, &mut step),
            Event::TimePassed => self.watch_time(&mut step),
            Event::OperatorSaid { said } => self.on_operator(said, &mut step),
            Event::Restarted { ending, lived, lived_at_most, in_force, unattended, last_words, rules } => {
                self.rules = self.rules.max(*rules);
                self.count_down(*ending, *unattended);
                let incident = Incident::new(
                    ending.incident(),
                    Finding::WentDown { ending: *ending, last_words: last_words.clone() },
                );
                let lived = lived.map(|lived| (lived, lived_at_most.unwrap_or(lived)));
                self.on_restarted(*ending, lived, in_force, incident, &mut step);
            }
            Event::Noticed { incidents } => self.on_noticed(incidents, &mut step),
            Event::OthersBusy { others } => {
                if let State::Trying(Trial { number, .. }, Doing::Passing { .. }) = &self.state {
                    step.entries.push(Entry::OthersBusy { trial: *number, others: others.clone() });
                }
            }
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

    /// Whether a trial is under way and waits for nobody, so that a machine that stands still now has frozen.
    pub fn is_on_trial(&self) -> bool {
        matches!(self.state, State::Trying(..)) && self.question().is_none()
    }

    /// Whether time has to go by before anything else happens: a pass runs, or the rig rests before one.
    pub fn needs_time(&self) -> bool {
        matches!(self.state, State::Trying(_, Doing::Passing { .. } | Doing::Resting { .. }))
    }

    /// Whether a pass could not be ended by any means, so that only the machine's watchdog can help.
    pub fn is_in_trouble(&self) -> bool {
        let State::Trying(_, Doing::Passing { stopping: Some(stop), .. }) = &self.state else { return false };
        stop.pressure == Pressure::GivenUp
    }

    /// Whether nothing has begun.
    pub fn is_ready(&self) -> bool {
        self.state == State::Ready
    }

    /// What the climb waits for the operator to answer.
    pub fn question(&self) -> Option<Question> {
        match &self.state {
            State::Trying(_, Doing::Setting { under_way, .. }) | State::GoingHome { under_way, .. }
                if self.needs_somebody(under_way) =>
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
            let tested = self.trial_length();
            let outcome = Outcome {
                trial: self.trials,
                verdict,
                incident: None,
                scores: Vec::new(),
                benchmarks: Vec::new(),
                tested,
                unheard: Span::ZERO,
            };
            match course.clone().after(&outcome, self.ground(self.began)) {
                Move::Try(rung, reason) => Prospect::Try(rung, reason),
                Move::Settle { rung, end, .. } => Prospect::StageDone(rung, end),
                Move::GiveUp(_) => Prospect::NothingLeft,
            }
        };
        Some(Outlook { if_held: prospect(Verdict::Held), if_fell: prospect(Verdict::Fell) })
    }

    fn ground(&self, now: Moment) -> Ground<'_> {
        Ground {
            rig: &self.rig,
            use_name: &self.plan.use_name,
            left: self.time_left(now),
            rules: self.rules,
            held: &self.held,
        }
    }

    fn on_started(&mut self, in_force: &InForce, ahead: i32, step: &mut Step) {
        if !self.is_ready() {
            return;
        }
        step.entries.push(Entry::Began { in_force: in_force.clone() });
        step.entries.extend(self.plan.raised.iter().map(|raised| Entry::CeilingRaised { raised: raised.clone() }));
        self.began = step.at;
        self.deadline = self.plan.budget.until.map(|until| until.after(step.at, ahead));
        self.in_force = in_force.clone();
        self.readable.extend(in_force.keys().cloned());
        if let Some(beyond) = self.beyond_limits(in_force) {
            return self.finish(ClimbEnd::Refused { why: beyond.into() }, step);
        }
        self.begin_stage(step);
    }

    /// A value that the rig has in force and which this climb may never apply.
    fn beyond_limits(&self, in_force: &InForce) -> Option<Met> {
        self.rig.settings.iter().find_map(|setting| {
            let value = *in_force.get(&setting.name)?;
            let (floor, ceiling) = (setting.floor, setting.ceiling(&self.plan.use_name));
            let beyond = || Met::BeyondLimits {
                setting: setting.label.clone(),
                value: Value::of(setting, value),
                floor: Value::of(setting, floor),
                ceiling: Value::of(setting, ceiling),
            };
            (value < floor || value > ceiling).then(beyond)
        })
    }

    fn begin_stage(&mut self, step: &mut Step) {
        let Some(stage) = self.plan.stages.get(self.stage) else {
            return self.go_home(ClimbEnd::Completed, step);
        };
        self.stretch = 1;
        step.entries.push(Entry::StageBegan { stage: self.stage, strategy: stage.strategy.name().into() });
        let start = match &stage.start {
            Start::Last => self.base.clone(),
            Start::Stock => self.rig.stock(),
            Start::Profile(rung) => rung.clone(),
        };
        let ground = self.ground(step.at);
        let mut course = Course::of(stage, &start, self.plan.proof_of(self.stage).length(), ground);
        let first = course.first(ground);
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
        let mark = proved_in.and_then(|trial| self.set_mark(&rung, trial, step));
        let stage = &self.plan.stages[self.stage];
        if let Some(name) = &stage.save {
            let soaked = mark.is_some() && stage.strategy.aim() == Aim::ProveDaily;
            let profile = Profile { name: name.clone(), rung: rung.clone(), mark, soaked };
            step.entries.push(Entry::ProfileSaved { profile });
        }
        step.entries.push(Entry::StageEnded { stage: self.stage, end });
        self.base = rung;
        self.stage += 1;
        self.begin_stage(step);
    }

    /// Sets a mark where the stage climbs something.
    fn set_mark(&mut self, rung: &Rung, trial: u32, step: &mut Step) -> Option<Mark> {
        let setting = self.plan.stages[self.stage].strategy.setting()?.to_owned();
        let proof = self.plan.proof_of(self.stage).name.clone();
        let mark = Mark { rung: rung.clone(), setting, proof, trial, stage: self.stage };
        step.entries.push(Entry::MarkSet { mark: mark.clone() });
        self.marks.push(mark.clone());
        Some(mark)
    }

    fn begin_trial(&mut self, rung: Rung, reason: Reason, step: &mut Step) {
        if let Some(aside) = self.aside_wanted.take() {
            return self.head_home(Then::Wait(Next::Trial(rung, reason), aside), step);
        }
        if self.pause_wanted {
            return self.pause(Next::Trial(rung, reason), step);
        }
        if let Err(illegal) = self.rig.permit(&rung, &self.plan.use_name) {
            let why = Met::NotAllowed { bound: illegal.into() }.into();
            return self.go_home(ClimbEnd::Refused { why }, step);
        }
        if let Some(limit) = self.over_budget(&rung, step.at) {
            return self.end_on_budget(limit, step);
        }
        self.trials += 1;
        step.entries.push(Entry::TrialBegan {
            trial: self.trials,
            stage: self.stage,
            rung: rung.clone(),
            proof: self.plan.proof_of(self.stage).name.clone(),
            reason,
        });
        let trial = Trial {
            number: self.trials,
            rung,
            incidents: Vec::new(),
            scores: Vec::new(),
            benchmarks: Vec::new(),
            tested: Span::ZERO,
            unheard: Span::ZERO,
        };
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
    fn order(&mut self, trial: Option<u32>, change: &Change, step: &mut Step) {
        step.entries.push(Entry::AboutToApply { trial, change: change.clone() });
        if self.needs_somebody(change) {
            self.changes += 1;
            let question = Question::Change { change: change.clone() };
            step.entries.push(Entry::Asked { trial, question: question.clone() });
            step.command = Some(Command::Ask(question));
        } else {
            step.command = Some(Command::Apply(change.clone()));
        }
    }

    /// Whether somebody has to change it, or to start the machine anew with it.
    fn needs_somebody(&self, change: &Change) -> bool {
        self.rig.setting(&change.setting).is_some_and(|setting| setting.takes_effect.needs_somebody())
    }

    fn begin_pass(&mut self, trial: Trial, index: usize, step: &mut Step) {
        if self.rules > 0 && !trial.incidents.is_empty() {
            return self.end_trial(trial, step);
        }
        if self.pause_wanted {
            return self.pause(Next::Pass(trial, index), step);
        }
        let pause = self.pass(index).pause;
        if pause.is_zero() {
            return self.start_pass(trial, index, step);
        }
        step.entries.push(Entry::Resting { trial: trial.number, pass: index, pause });
        self.state = State::Trying(trial, Doing::Resting { index, until: step.at + pause });
    }

    fn end_rest(&mut self, step: &mut Step) {
        match mem::replace(&mut self.state, State::Ended) {
            State::Trying(trial, Doing::Resting { .. }) if self.rules > 0 && !trial.incidents.is_empty() => {
                self.end_trial(trial, step);
            }
            State::Trying(trial, Doing::Resting { index, .. }) => self.start_pass(trial, index, step),
            other => self.state = other,
        }
    }

    fn start_pass(&mut self, trial: Trial, index: usize, step: &mut Step) {
        self.setbacks = 0;
        let pass = self.pass(index);
        let cores = self.cores_for(&pass);
        let (order, on) = (pass.clone(), cores.clone());
        step.entries.push(Entry::PassBegan { trial: trial.number, pass: index, order, on });
        step.command =
            Some(Command::RunPass(PassOrder { trial: trial.number, index, pass, nth: self.spoken + 1, cores }));
        self.state = State::Trying(trial, Doing::Passing { index, began: step.at, stopping: None });
    }

    /// The processors that a pass is about which does not load all of them together: those of the setting that climbs.
    fn cores_for(&self, pass: &Pass) -> Vec<u32> {
        let climbed = self.course.as_ref().and_then(Course::climbs).and_then(|name| self.rig.setting(name));
        climbed.filter(|_| pass.threads != Threads::All).map(|setting| setting.drives.clone()).unwrap_or_default()
    }

    /// A pass of the proof, as long as the trial wants it.
    fn pass(&self, index: usize) -> Pass {
        let proof = self.plan.proof_of(self.stage);
        let mut pass = proof.passes[index].clone();
        if let Some(length) = self.course.as_ref().and_then(Course::length) {
            let share = length.seconds() / proof.length().seconds();
            pass.length = Span::from_millis(((pass.length.millis() as f64 * share).round() as u64).max(1));
        }
        pass.length = Span::from_millis(pass.length.millis().saturating_mul(self.stretch.into()));
        pass
    }

    fn pause(&mut self, next: Next, step: &mut Step) {
        self.pause_wanted = false;
        step.entries.push(Entry::Paused);
        self.state = State::Paused(next);
    }

    fn on_pass_ended(&mut self, report: &PassReport, reported: Option<&InForce>, step: &mut Step) {
        let (mut trial, index, stopping) = match mem::replace(&mut self.state, State::Ended) {
            State::Trying(trial, Doing::Passing { index, stopping, .. }) => (trial, index, stopping),
            other => return self.state = other,
        };
        self.downs_in_a_row = 0;
        self.tested += report.ran;
        trial.tested += report.ran;
        if let Some(score) = &report.score {
            trial.scores.push(score.merit());
            trial.benchmarks.push(self.plan.proof_of(self.stage).passes[index].load.clone());
        }
        step.entries.push(Entry::PassEnded { trial: trial.number, pass: index, report: report.clone() });
        for incident in &report.incidents {
            self.after_machine_down(incident.kind);
            blame(&mut trial, Some(index), incident.clone(), step);
        }
        let was_told_to_stop = stopping.is_some();
        match stopping.map(|stop| stop.why) {
            Some(Stopping::ByOperator) => {
                self.close_void(&trial, Some(IncidentKind::Stopped), step);
                return self.go_home(ClimbEnd::Stopped, step);
            }
            Some(Stopping::ToWait(aside)) => return self.wait_aside(&trial, aside, step),
            Some(Stopping::Instead(wanted)) => {
                self.close_void(&trial, None, step);
                return self.make(*wanted, step);
            }
            Some(Stopping::Unsound { why }) => {
                self.close(&trial, None, step);
                return self.go_home(ClimbEnd::Unsound { why }, step);
            }
            Some(Stopping::ForCause) | None => {}
        }
        if let Some(told) = &report.refused {
            self.close_void(&trial, None, step);
            let why = Met::NotStarted { told: told.clone() }.into();
            return self.go_home(ClimbEnd::Unsound { why }, step);
        }
        if report.stopped && !was_told_to_stop && report.incidents.is_empty() {
            let incident = Incident::new(IncidentKind::Stalled, Finding::EndedEarly);
            blame(&mut trial, Some(index), incident.into_pass(report.ran), step);
        }
        if report.unchecked && trial.incidents.is_empty() {
            return self.after_nothing_was_checked(&trial, index, step);
        }
        if let Some(reported) = reported {
            for incident in self.strayed(reported) {
                blame(&mut trial, Some(index), incident, step);
            }
            if let Some(trial) = self.doubt_unread(trial, reported, step) {
                return self.go_on_after_pass(trial, index, step);
            }
            return;
        }
        self.go_on_after_pass(trial, index, step);
    }

    fn go_on_after_pass(&mut self, trial: Trial, index: usize, step: &mut Step) {
        let over = !trial.incidents.is_empty() || index + 1 == self.plan.proof_of(self.stage).passes.len();
        if over { self.end_trial(trial, step) } else { self.begin_pass(trial, index + 1, step) }
    }
}

impl Climb {
    /// Gives the passes of the stage more time where they did not check everything; says what to change where they had more.
    fn after_nothing_was_checked(&mut self, trial: &Trial, index: usize, step: &mut Step) {
        self.close_void(trial, None, step);
        if self.stretch > 1 {
            let Pass { load, length, .. } = self.pass(index);
            let why = Met::NothingChecked { load, length }.into();
            return self.go_home(ClimbEnd::Unsound { why }, step);
        }
        self.stretch = MORE_TIME;
        self.begin_trial(trial.rung.clone(), Reason::MoreTime { trial: trial.number }, step);
    }
}

/// Records an incident and holds it against the trial.
fn blame(trial: &mut Trial, pass: Option<usize>, incident: Incident, step: &mut Step) {
    trial.incidents.push(incident.kind);
    step.entries.push(Entry::Incident { trial: Some(trial.number), pass, incident });
}
