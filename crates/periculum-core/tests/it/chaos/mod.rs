//! A rig, an operator and a machine that do whatever luck has in store, and random plans to try on them.

#![allow(dead_code, reason = "each test file uses its own part")]

use std::collections::{BTreeMap, VecDeque};
use std::sync::Arc;

use periculum_core::Decimal;
use periculum_core::engine::{Climb, Command, Event, Noted, Question, RULES, Said, Step};
use periculum_core::model::budget::Budget;
use periculum_core::model::curve::{Curve, Point, Sits};
use periculum_core::model::ending::Ending;
use periculum_core::model::errand::Errand;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::ladder::{Direction, Ladder};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassReport, Progress, Score};
use periculum_core::model::plan::{ARM_AFTER, Ends, Pin, Plan, Proof, Stage, Start};
use periculum_core::model::rig::{Rig, Sensor};
use periculum_core::model::rung::InForce;
use periculum_core::model::setting::{Setting, TakesEffect};
use periculum_core::model::strategy::{Assurance, Each, Margin, Steps, Strategy as Way, Sweep};
use proptest::prelude::*;

/// A rig and a plan for it.
#[derive(Clone, Debug)]
pub(crate) struct Course {
    pub(crate) rig: Arc<Rig>,
    pub(crate) plan: Arc<Plan>,
}

fn setting(
    name: &str,
    values: (i64, i64, i64),
    harder: Direction,
    jump: Option<i64>,
    takes_effect: TakesEffect,
) -> Setting {
    let (from, stock, to) = values;
    let ladder = Ladder::steps(from.into(), 1.into(), to.into()).expect("a ladder");
    Setting {
        outlet: None,
        name: name.into(),
        label: name.into(),
        unit: String::new(),
        floor: Decimal::from(from + 1),
        floor_by: None,
        ceilings: [("daily".to_owned(), Decimal::from(to - 1))].into(),
        ladder,
        stock: stock.into(),
        largest_jump: jump.map(Decimal::from),
        tolerance: Decimal::ZERO,
        harder,
        takes_effect,
        lost_on: None,
        confirm: None,
        confirmed_by: None,
        adapter: String::new(),
        target: String::new(),
        boot_line: None,
        words: Vec::new(),
        paid: Vec::new(),
        drives: Vec::new(),
    }
}

fn course(clock: Setting, volts: Setting, stages: Vec<Stage>, passes: usize) -> Course {
    let pass = Pass::usual("dense", Span::from_seconds(60));
    let sensor = Sensor { unit: "°C".into(), decimals: 1, cut_off: Some(95.into()), ..Sensor::plain("core") };
    let rig = Rig {
        name: "rig".into(),
        place: periculum_core::model::rig::Place::Unsaid,
        summary: String::new(),
        cooling: String::new(),
        watchdog: String::new(),
        history: Vec::new(),
        parts: vec![],
        settings: vec![clock, volts],
        curves: Vec::new(),
        derived: vec![],
        sensors: vec![sensor],
    };
    let proof = Proof { name: "quick".into(), passes: vec![pass; passes] };
    let plan = Plan {
        name: "plan".into(),
        use_name: "daily".into(),
        proofs: vec![proof],
        stages,
        budget: Budget::default(),
        raised: vec![],
        unattended: false,
        restarts_itself: false,
        ends: Ends::AtStock,
        arm_after: ARM_AFTER,
    };
    Course { rig: Arc::new(rig), plan: Arc::new(plan) }
}

fn stage(strategy: Way) -> Stage {
    Stage { strategy, proof: 0, start: Start::Last, save: None, pin: None, wants: None }
}

fn steps(setting: &str, step: i64, back: u32) -> Steps {
    Steps::of(setting, Some(step.into())).back(back)
}

impl Course {
    /// Baseline, ascend by one, trim by one.
    pub(crate) fn plain() -> Self {
        let clock = setting("clock", (38, 42, 60), Direction::Up, Some(10), TakesEffect::AtOnce);
        let volts = setting("volts", (100, 125, 140), Direction::Down, None, TakesEffect::AtOnce);
        let stages = [
            Way::Baseline { repeats: 1, within: None, idle: None, starts: 1 },
            Way::Ascend(steps("clock", 1, 1)),
            Way::Trim(steps("volts", 1, 1)),
        ];
        course(clock, volts, stages.map(stage).to_vec(), 1)
    }
}

impl Course {
    /// One search along the clock for what holds a night, and a soak a step below.
    pub(crate) fn sought() -> Self {
        let plain = Self::plain();
        let mut plan = (*plain.plan).clone();
        plan.proofs[0].passes = [2, 6].map(|hours| Pass::usual("dense", Span::from_seconds(3600 * hours))).to_vec();
        let soak = Way::Soak { steps: vec![steps("clock", 1, 1)], margin: Margin::Steps(1) };
        plan.stages = [Way::Seek { steps: steps("clock", 1, 1), margin: Margin::Steps(0) }, soak].map(stage).to_vec();
        Self { plan: Arc::new(plan), ..plain }
    }

    /// A baseline of at most five trials, fewer when their scores are within 1 %.
    pub(crate) fn measured() -> Self {
        let within = Some(Decimal::new(1, 2));
        let plain = Self::plain();
        let mut plan = (*plain.plan).clone();
        plan.stages = vec![stage(Way::Baseline { repeats: 5, within, idle: None, starts: 1 })];
        Self { plan: Arc::new(plan), ..plain }
    }
}

fn sweep(setting: &str, values: &[i64]) -> Sweep {
    Sweep { setting: setting.into(), values: values.iter().map(|value| Decimal::from(*value)).collect() }
}

/// Random strategies for a rig with `clock`, `turbo` and `volts`.
fn strategies() -> impl Strategy<Value = Way> {
    let margin =
        prop_oneof![(0u32..4).prop_map(Margin::Steps), (1i64..9).prop_map(|part| Margin::Share(Decimal::new(part, 2)))];
    prop_oneof![
        (1u32..6, 1u32..4, proptest::option::of(1u32..50)).prop_map(|(repeats, starts, percent)| {
            let within = percent.map(|percent| Decimal::new(percent.into(), 2));
            Way::Baseline { repeats, within, idle: None, starts: starts.min(repeats) }
        }),
        Just(Way::Open { setting: "turbo".into() }),
        (1i64..4, 1u32..4).prop_map(|(step, back)| Way::Ascend(steps("clock", step, back))),
        (1i64..3, 3i64..6)
            .prop_map(|(fine, coarse)| Way::Ascend(steps("clock", fine, 1).after(vec![Decimal::from(coarse)]))),
        (1i64..4, 1i64..4)
            .prop_map(|(step, more)| Way::Feed { steps: steps("clock", step, 1), feed: steps("volts", more, 1) }),
        (1i64..4, 1u32..4).prop_map(|(step, back)| Way::Trim(steps("volts", step, back))),
        (1i64..4, any::<bool>(), 0u32..3).prop_map(|(step, clock, margin)| Way::Seek {
            steps: steps(if clock { "clock" } else { "volts" }, step, 1),
            margin: Margin::Steps(margin),
        }),
        (1i64..4).prop_map(|step| Way::Map { steps: steps("clock", step, 1), over: sweep("volts", &[129, 127, 125]) }),
        Just(Way::Grid {
            over: vec![sweep("clock", &[41, 42, 43]), sweep("volts", &[126, 125]), sweep("turbo", &[3])]
        }),
        (1i64..3, 0u32..3).prop_map(|(step, margin)| Way::Each(Each {
            steps: vec![steps("clock", step, 1), steps("turbo", step, 1)],
            park: vec![40.into(), 2.into()],
            margin: Margin::Steps(margin),
        })),
        (1i64..3, 0u32..3).prop_map(|(step, margin)| Way::Soak {
            steps: vec![steps("clock", step, 1), steps("turbo", step, 1)],
            margin: Margin::Steps(margin),
        }),
        Just(Way::Lead { setting: "clock".into() }),
        (1i64..4, 2u32..4).prop_map(|(step, repeats)| Way::Peak { steps: steps("clock", step, 1), repeats }),
        (1i64..4, margin, 1u32..3)
            .prop_map(|(step, margin, back)| Way::Soak { steps: vec![steps("clock", step, back)], margin }),
    ]
}

/// A curve that the second clock shifts, and that may be flat from any of its points on.
fn three_points() -> Curve {
    let point = |at: i64| Point { at: at.into(), factory: at.into(), setting: None };
    Curve {
        name: "curve".into(),
        label: "curve".into(),
        unit: String::new(),
        across: String::new(),
        points: [1, 2, 3].map(point).to_vec(),
        offset: Some("turbo".into()),
        flat: Some("pin".into()),
        ceilings: vec![("daily".into(), 8.into())],
        sits: Sits::default(),
    }
}

/// Random rigs and plans.
pub(crate) fn courses() -> impl Strategy<Value = Course> {
    let jump = || prop_oneof![Just(None), (1i64..9).prop_map(Some)];
    let start = prop_oneof![4 => Just(Start::Last), 1 => Just(Start::Stock)];
    let save = prop_oneof![3 => Just(None), 1 => Just(Some("kept".to_owned()))];
    let pin = prop_oneof![
        2 => Just(None),
        1 => (1i64..4).prop_map(|at| Some(Pin { setting: "pin".into(), at: at.into() })),
    ];
    let wants = prop_oneof![3 => Just(None), 1 => Just(Some(Assurance::default()))];
    let stage = (strategies(), start, save, pin, wants).prop_map(|(strategy, start, save, pin, wants)| Stage {
        strategy,
        proof: 0,
        start,
        save,
        pin,
        wants,
    });
    let stages = proptest::collection::vec(stage, 1..5);
    let budget = prop_oneof![
        6 => Just(Budget::default()),
        1 => (60u64..3000).prop_map(|seconds| Budget { hours: Some(Span::from_seconds(seconds)), ..Budget::default() }),
        1 => (1u32..4).prop_map(|restarts| Budget { restarts: Some(restarts), ..Budget::default() }),
        1 => (1u32..9).prop_map(|changes| Budget { changes: Some(changes), ..Budget::default() }),
    ];
    let extent = (2i64..14, 1usize..4, 0u64..3);
    let effects = || prop::sample::select(vec![TakesEffect::AtOnce, TakesEffect::ByHand, TakesEffect::AtNextStart]);
    (jump(), jump(), effects(), effects(), extent, stages, budget).prop_map(
        |(clock_jump, volts_jump, clock_effect, volts_effect, (room, passes, pause), stages, budget)| {
            let clock = setting("clock", (38, 42, 43 + room), Direction::Up, clock_jump, clock_effect);
            let volts = setting("volts", (124 - room, 125, 130), Direction::Down, volts_jump, volts_effect);
            let turbo = setting("turbo", (1, 3, 7), Direction::Up, None, TakesEffect::AtOnce);
            let mut course = course(clock, volts, stages, passes);
            let (mut rig, mut plan) = ((*course.rig).clone(), (*course.plan).clone());
            rig.settings.push(turbo);
            rig.settings.push(Setting {
                ceilings: BTreeMap::new(),
                ..setting("pin", (0, 3, 3), Direction::Up, None, TakesEffect::AtOnce)
            });
            rig.curves.push(three_points());
            plan.budget = budget;
            plan.proofs[0].passes.iter_mut().for_each(|pass| pass.pause = Span::from_seconds(pause));
            (course.rig, course.plan) = (Arc::new(rig), Arc::new(plan));
            course
        },
    )
}

type Border = fn(i64, i64) -> bool;

/// Drives a climb as a driver would, with a record that survives, and luck.
pub(crate) struct Chaos {
    course: Course,
    climb: Climb,
    /// What is really in force.
    in_force: InForce,
    now: i64,
    luck: u64,
    /// Where there is a border instead of luck: which clock and voltage hold.
    border: Option<Border>,
    waiting: VecDeque<Event>,
    /// The answer to a change that takes its time.
    late: Option<Event>,
    is_passing: bool,
    record: Vec<(Moment, Event, Step)>,
    last_event: Event,
    events: usize,
}

impl Chaos {
    pub(crate) fn new(course: &Course, luck: u64) -> Self {
        Self::with(course, luck, None)
    }

    /// A rig that holds what lies inside a border, and falls outside it.
    pub(crate) fn sharp(course: &Course, border: Border) -> Self {
        Self::with(course, 0, Some(border))
    }

    fn with(course: &Course, luck: u64, border: Option<Border>) -> Self {
        let in_force: InForce = course.rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
        let started = Event::Started { in_force: in_force.clone(), ahead: 0, rules: RULES, kinds: Vec::new() };
        Self {
            course: course.clone(),
            climb: Climb::new(course.rig.clone(), course.plan.clone()),
            in_force,
            now: 0,
            luck,
            border,
            waiting: [started.clone()].into(),
            late: None,
            is_passing: false,
            record: Vec::new(),
            last_event: started,
            events: 0,
        }
    }

    pub(crate) fn climb(&self) -> &Climb {
        &self.climb
    }

    pub(crate) fn events(&self) -> usize {
        self.events
    }

    pub(crate) fn last_event(&self) -> &Event {
        &self.last_event
    }

    /// The last commands and what led to them, for whoever reads a failure.
    pub(crate) fn trail(&self) -> String {
        let telling = self.record.iter().filter(|(_, _, step)| step.command.is_some());
        let lines = telling.map(|(_, event, step)| format!("{event:?}\n      {:?}", step.command));
        let lines: Vec<String> = lines.collect();
        lines[lines.len().saturating_sub(12)..].join("\n   ")
    }

    /// One event and what the engine makes of it, with what was in force before; none when the climb is over.
    pub(crate) fn step(&mut self) -> Option<(Step, InForce)> {
        if self.climb.is_ended() || self.events > 20_000 {
            return None;
        }
        let event = self.waiting.pop_front().unwrap_or_else(|| self.happening());
        self.now += 1 + i64::try_from(self.draw(400)).expect("small");
        let at = Moment::from_millis(self.now);
        let step = self.climb.next(at, &event);
        self.events += 1;
        if !event.is_telemetry() || !step.is_silent() {
            self.record.push((at, event.clone(), step.clone()));
        }
        self.last_event = event;
        let before = self.in_force.clone();
        if let Some(command) = step.command.clone() {
            self.carry_out(command);
        }
        Some((step, before))
    }

    /// A fresh climb after the recorded events, which must say again what was recorded.
    pub(crate) fn replay(&self) -> Climb {
        let mut climb = Climb::new(self.course.rig.clone(), self.course.plan.clone());
        for (at, event, step) in &self.record {
            assert_eq!(&climb.next(*at, event), step);
        }
        climb
    }

    fn draw(&mut self, below: u64) -> u64 {
        self.luck = self.luck.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (self.luck >> 33) % below
    }

    fn carry_out(&mut self, command: Command) {
        match command {
            Command::Apply(errand) => self.apply(&errand),
            Command::Ask(_) => {}
            Command::RunPass(_) => self.is_passing = true,
            Command::StopPass => {
                self.is_passing = false;
                let ran = Span::from_seconds(self.draw(60));
                self.waiting.push_back(Event::PassEnded {
                    report: PassReport { ran, stopped: true, ..PassReport::default() },
                    reported: None,
                });
            }
        }
    }

    fn apply(&mut self, errand: &Errand) {
        let luck = if self.border.is_some() { 99 } else { self.draw(100) };
        let event = match luck {
            0..4 => {
                self.machine_down();
                Event::ApplyFailed { incident: Incident::new(IncidentKind::Freeze, "luck") }
            }
            4..7 => {
                // Something else than what was asked for, but something that may be.
                let name = &errand.changes()[0].setting;
                let setting = self.course.rig.setting(name).expect("a setting").clone();
                self.in_force.insert(name.clone(), setting.stock);
                Event::Applied { reported: self.readable() }
            }
            7..9 => Event::ApplyFailed { incident: Incident::new(IncidentKind::NotTaken, "luck") },
            _ => {
                self.in_force.extend(errand.made());
                Event::Applied { reported: self.readable() }
            }
        };
        if self.border.is_none() && self.draw(4) == 0 {
            self.late = Some(event);
        } else {
            self.waiting.push_back(event);
        }
    }

    /// Whether a change is under way that has not been answered.
    pub(crate) fn is_unanswered(&self) -> bool {
        self.late.is_some() && self.climb.is_applying()
    }

    /// What happens while a change takes its time, which may be longer than anybody waits.
    fn happening_meanwhile(&mut self) -> Event {
        match self.draw(30) {
            0 => {
                self.now += 700_000;
                Event::TIME_PASSED
            }
            1..12 => Event::TIME_PASSED,
            12 => self.death(),
            13..18 => self.word(),
            18 => Event::Noticed { incidents: vec![Incident::new(IncidentKind::CorrectedError, "luck").at("Slot A2")] },
            _ => self.late.take().expect("an answer"),
        }
    }

    /// What happens when nothing is due: the operator, the pass, the power company.
    fn happening(&mut self) -> Event {
        if let Some(border) = self.border {
            if !self.is_passing {
                self.now += 1000;
                return Event::TIME_PASSED;
            }
            return self.pass_at_border(border);
        }
        if self.is_unanswered() {
            return self.happening_meanwhile();
        }
        // Whoever drives the engine drops an answer that nobody waits for.
        self.late = None;
        match self.draw(100) {
            0..6 => self.death(),
            6..14 => self.word(),
            _ if self.climb.question().is_some() => self.answer(),
            14..30 => Event::Sample {
                readings: BTreeMap::from([("core".to_owned(), 40.0 + self.draw(56) as f64)]),
                highest: BTreeMap::new(),
            },
            30..34 => Event::TIME_PASSED,
            34..41 => Event::PassProgress { progress: Progress::default() },
            41 => Event::Noticed { incidents: vec![Incident::new(IncidentKind::CorrectedError, "luck").at("Slot A2")] },
            _ if self.is_passing => self.pass_end(),
            _ if self.climb.needs_time() => {
                self.now += 1000;
                Event::TIME_PASSED
            }
            _ => Event::OperatorSaid { said: Said::Resume },
        }
    }

    fn word(&mut self) -> Event {
        let said = match self.draw(24) {
            0..8 => Said::Pause,
            8..14 => Said::Resume,
            14..17 => Said::Note { text: "n".into() },
            17 => Said::Saw { text: "stripes".into(), trial: None },
            18..20 => Said::Saw { text: "stripes".into(), trial: self.climb.trials().checked_sub(1) },
            20 => Said::Leave,
            21 => Said::Suspend,
            22 => Said::Stop,
            _ => Said::from(periculum_core::engine::Answer::Done),
        };
        if matches!(said, Said::Done { .. }) {
            return self.answer();
        }
        Event::OperatorSaid { said }
    }

    fn answer(&mut self) -> Event {
        let errand = match self.climb.question() {
            Some(Question::Change { errand }) => errand,
            Some(Question::WhatNext { .. }) => return self.lead(),
            Some(question) => return Event::OperatorSaid { said: question.usual_answer().into() },
            None => return Event::OperatorSaid { said: Said::from(periculum_core::engine::Answer::Done) },
        };
        let said = match self.draw(12) {
            0 => {
                self.machine_down();
                Said::NoStart
            }
            1 => {
                self.in_force = self.stock();
                Said::Defaults
            }
            _ => return self.errand_made(&errand),
        };
        Event::OperatorSaid { said }
    }

    /// An operator who leads says something, which may be nothing that can be.
    fn lead(&mut self) -> Event {
        let said = match self.draw(12) {
            0 => Said::Back,
            1 => Said::Mark,
            2 => Said::Save { name: "kept".into() },
            3 => Said::End,
            4..8 => Said::Take,
            _ => {
                let value = (36 + self.draw(24)).to_string();
                let setting = ["clock", "volts", "turbo"][self.draw(3) as usize];
                Said::Try { written: [(setting.to_owned(), value)].into() }
            }
        };
        Event::OperatorSaid { said }
    }

    /// The operator says that it is done: true of what is changed by hand, and not always of a start.
    fn errand_made(&mut self, errand: &Errand) -> Event {
        let started_anew = errand.needs_start(&self.course.rig) && self.draw(3) > 0;
        for change in errand.without_start(&self.course.rig).iter().flat_map(Errand::changes) {
            self.in_force.insert(change.setting.clone(), change.to);
        }
        if started_anew {
            self.take_what_was_written();
            self.machine_down();
        }
        Event::ChangeMade { reported: self.readable(), started_anew, noted: Noted::default() }
    }

    fn pass_end(&mut self) -> Event {
        self.is_passing = false;
        let kinds = [
            IncidentKind::WrongResult,
            IncidentKind::LoadDied,
            IncidentKind::Restart,
            IncidentKind::Throttled,
            IncidentKind::CorrectedError,
        ];
        let mut report = PassReport { ran: Span::from_seconds(60), ..PassReport::default() };
        let drawn = self.draw(20) as usize;
        report.score = self.draw(3).checked_sub(1).map(|_| Score::of(100.0 + self.draw(20) as f64, "GFLOP/s"));
        report.refused = (self.draw(150) == 0).then(|| "luck".into());
        if let Some(kind) = kinds.get(drawn) {
            if kind.takes_machine_down() {
                self.machine_down();
            }
            report.incidents.push(Incident::new(*kind, "luck"));
        }
        report.stopped = drawn == 19;
        report.unchecked = drawn == 18;
        if drawn == 17 {
            // Firmware that puts a value back by itself.
            self.in_force.insert("turbo".into(), 3.into());
        }
        Event::PassEnded { report, reported: Some(self.readable()) }
    }

    fn pass_at_border(&mut self, border: Border) -> Event {
        self.is_passing = false;
        let value = |name: &str| i64::try_from(self.in_force[name]).expect("a whole number");
        let mut report = PassReport { ran: Span::from_seconds(60), ..PassReport::default() };
        if !border(value("clock"), value("volts")) {
            report.incidents.push(Incident::new(IncidentKind::WrongResult, "beyond the border"));
        }
        Event::PassEnded { report, reported: None }
    }

    /// The program or the machine dies, and the climb is taken up again from the record.
    fn death(&mut self) -> Event {
        let ending = if self.draw(2) == 0 { Ending::ProgramDied } else { Ending::MachineRestarted };
        if ending == Ending::MachineRestarted {
            self.take_what_was_written();
            self.machine_down();
        }
        self.climb = self.replay();
        let lived = self.is_passing.then(|| Span::from_millis(self.draw(60_000)));
        self.is_passing = false;
        Event::Restarted {
            ending,
            lived,
            in_force: self.readable(),
            unattended: false,
            last_words: None,
            lived_at_most: None,
            rules: RULES,
        }
    }

    /// What was written down for the next start is in force after it, unless the start was not the one that was asked for.
    fn take_what_was_written(&mut self) {
        let Some(Question::Change { errand }) = self.climb.question() else { return };
        if self.draw(4) > 0 {
            let written = errand.with_start(&self.course.rig);
            self.in_force.extend(written.changes().iter().map(|change| (change.setting.clone(), change.to)));
        }
    }

    fn machine_down(&mut self) {
        self.is_passing = false;
        for setting in &self.course.rig.settings {
            if setting.takes_effect == TakesEffect::AtOnce {
                self.in_force.insert(setting.name.clone(), setting.stock);
            }
        }
    }

    fn stock(&self) -> InForce {
        self.course.rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect()
    }

    /// What the rig reports: nobody can read back what is set by hand.
    fn readable(&mut self) -> InForce {
        // Now and then an interface does not answer.
        let silent = if self.border.is_some() { 99 } else { self.draw(40) as usize };
        let read = self.course.rig.settings.iter().enumerate();
        let read = read.filter(|(at, setting)| setting.takes_effect != TakesEffect::ByHand && *at != silent);
        read.map(|(_, setting)| (setting.name.clone(), self.in_force[&setting.name])).collect()
    }
}
