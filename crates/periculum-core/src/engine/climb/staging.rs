//! From stage to stage, from trial to trial, and the errands on the way to each rung.

use std::collections::BTreeSet;

use super::climber::Climber;
use crate::engine::course::{Course, Move};
use crate::engine::entry::{ClimbEnd, Entry, Mark, Profile};
use crate::engine::question::Question;
use crate::engine::state::{Doing, Next, State, Then, Trial, UnderWay};
use crate::engine::step::{Command, Step};
use crate::model::errand::Errand;
use crate::model::evidence::Value;
use crate::model::moment::Span;
use crate::model::obstacle::Met;
use crate::model::plan::Start;
use crate::model::reason::{Reason, StageEnd};
use crate::model::rung::{InForce, Rung};
use crate::model::strategy::Aim;

impl Climber {
    pub(super) fn on_started(&mut self, state: State, in_force: &InForce, ahead: i32, step: &mut Step) -> State {
        if state != State::Ready {
            return state;
        }
        step.entries.push(Entry::Began { in_force: in_force.clone() });
        step.entries.extend(self.plan.raised.iter().map(|raised| Entry::CeilingRaised { raised: raised.clone() }));
        self.tally.began = step.at;
        self.tally.deadline = self.plan.budget.until.map(|until| until.after(step.at, ahead));
        self.belief.begin(in_force);
        if let Some(beyond) = self.beyond_limits(in_force) {
            return self.finish(ClimbEnd::Refused { why: beyond.into() }, None, step);
        }
        self.begin_stage(step)
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

    fn begin_stage(&mut self, step: &mut Step) -> State {
        let Some(stage) = self.plan.stages.get(self.stage) else {
            return self.go_home(ClimbEnd::Completed, step);
        };
        (self.stretch, self.chosen) = (1, None);
        step.entries.push(Entry::StageBegan { stage: self.stage, strategy: stage.strategy.name().into() });
        let start = match &stage.start {
            Start::Last => self.base.clone(),
            Start::Stock => self.rig.stock(),
            Start::Profile(rung) => rung.clone(),
            Start::Saved(name) => self.saved.get(name).unwrap_or(&self.base).clone(),
        };
        let start = stage.pin.iter().fold(start, |start, pin| start.with(&pin.setting, pin.at));
        let ground = self.ground(step.at);
        let proof = self.plan.proof_of(self.stage);
        let mut course = Course::of(stage, &start, proof, ground);
        let first = course.first(ground);
        self.course = Some(course);
        self.make(first, step)
    }

    pub(super) fn make(&mut self, wanted: Move, step: &mut Step) -> State {
        match wanted {
            Move::Try(rung, reason) => self.begin_trial(rung, reason, step),
            Move::Settle { rung, proved_in, end } => self.settle(rung, proved_in, end, step),
            Move::GiveUp(end) => {
                step.entries.push(Entry::StageEnded { stage: self.stage, end });
                self.go_home(ClimbEnd::NothingHeld { stage: self.stage }, step)
            }
            Move::Ask(suggestion) => self.ask_next(suggestion, step),
        }
    }

    fn settle(&mut self, rung: Rung, proved_in: Option<u32>, end: StageEnd, step: &mut Step) -> State {
        let mark = proved_in.and_then(|trial| self.set_mark(&rung, trial, step));
        let stage = &self.plan.stages[self.stage];
        if let Some(name) = &stage.save {
            let soaked = mark.is_some() && stage.strategy.aim() == Aim::ProveDaily;
            self.saved.insert(name.clone(), rung.clone());
            let profile = Profile { name: name.clone(), rung: rung.clone(), mark, soaked };
            step.entries.push(Entry::ProfileSaved { profile });
        }
        step.entries.push(Entry::StageEnded { stage: self.stage, end });
        self.base = rung;
        self.stage += 1;
        self.begin_stage(step)
    }

    /// Sets a mark where the stage climbs something; what is one already stays it.
    pub(super) fn set_mark(&mut self, rung: &Rung, trial: u32, step: &mut Step) -> Option<Mark> {
        if let Some(mark) = self.marks.iter().find(|mark| mark.trial == trial && mark.rung == *rung) {
            return Some(mark.clone());
        }
        let setting = self.plan.stages[self.stage].strategy.setting()?.to_owned();
        let proof = self.proofs.get(&trial).copied().unwrap_or_else(|| self.proof_at());
        let proof = self.plan.proofs[proof].name.clone();
        let mark = Mark { rung: rung.clone(), setting, proof, trial, stage: self.stage };
        step.entries.push(Entry::MarkSet { mark: mark.clone() });
        self.marks.push(mark.clone());
        Some(mark)
    }

    pub(super) fn begin_trial(&mut self, rung: Rung, reason: Reason, step: &mut Step) -> State {
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
        self.tally.trials += 1;
        let (number, wants_start) = (self.tally.trials, reason.wants_start());
        step.entries.push(Entry::TrialBegan {
            trial: number,
            stage: self.stage,
            rung: rung.clone(),
            proof: self.proof().name.clone(),
            reason,
        });
        self.proofs.insert(number, self.proof_at());
        let trial = Trial {
            number,
            rung,
            incidents: Vec::new(),
            cores: BTreeSet::new(),
            scores: Vec::new(),
            benchmarks: Vec::new(),
            tested: Span::ZERO,
            read: BTreeSet::new(),
            unheard: Span::ZERO,
        };
        if wants_start { self.start_for(trial, step) } else { self.set_for(trial, step) }
    }

    /// Has the machine started anew for a trial, where nothing on the way to its rung needs a start anyhow.
    fn start_for(&mut self, trial: Trial, step: &mut Step) -> State {
        self.starts += 1;
        let is_started_anyhow = self.way_to(&trial.rung).iter().any(|errand| errand.needs_start(&self.rig));
        let start = Errand::start_alone(&self.rig, self.belief.in_force());
        match start.filter(|_| !is_started_anyhow) {
            Some(start) => self.set_by(start, trial, step),
            None => self.set_for(trial, step),
        }
    }

    /// Begins the next errand on the way to a trial's rung, or its first pass when it is there.
    pub(super) fn set_for(&mut self, trial: Trial, step: &mut Step) -> State {
        match self.way_to(&trial.rung).pop_front() {
            None => self.begin_pass(trial, 0, step),
            Some(errand) => self.set_by(errand, trial, step),
        }
    }

    fn set_by(&mut self, errand: Errand, trial: Trial, step: &mut Step) -> State {
        self.order(Some(trial.number), &errand, step);
        State::Trying(trial, Doing::Setting { under_way: UnderWay::new(errand, step.at) })
    }

    /// Says that an errand is about to be made, then makes it or asks the operator to.
    pub(super) fn order(&mut self, trial: Option<u32>, errand: &Errand, step: &mut Step) {
        step.entries.push(Entry::AboutToApply { trial, errand: errand.clone() });
        if errand.needs_somebody(&self.rig) {
            self.tally.errands += 1;
            let question = Question::Change { errand: errand.clone() };
            step.entries.push(Entry::Asked { trial, question: question.clone() });
            step.command = Some(Command::Ask(question));
        } else {
            step.command = Some(Command::Apply(errand.clone()));
        }
    }
}
