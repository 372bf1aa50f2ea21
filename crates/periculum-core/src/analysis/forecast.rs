//! What a climb would do before it begins: the plan is played by the engine itself on rigs that are made up.
//!
//! On one rig nothing harder than stock holds, on another one everything, on a third what lies half way to the limits;
//! what a real climb takes lies about between them.

use std::sync::Arc;

use rust_decimal::Decimal;

use crate::engine::{Answer, Climb, Command, Event, Noted, Question, RULES};
use crate::model::incident::{Incident, IncidentKind};
use crate::model::moment::{Moment, Span};
use crate::model::pass::{PassOrder, PassReport, Score};
use crate::model::plan::Plan;
use crate::model::reason::Reason;
use crate::model::rig::Rig;
use crate::model::rung::{InForce, Rung};
use crate::model::task::{Better, Figure, Task};
use crate::story::Story;

/// A climb that has more trials or steps than this is not played to its end.
const MOST_TRIALS: usize = 1000;
const MOST_STEPS: usize = 50_000;

/// So many of the first trials are told.
const FIRST: usize = 4;

/// What a climb would do.
#[derive(Clone, Debug, PartialEq)]
pub struct Forecast {
    /// The first rungs that it would try while all holds, and why.
    pub first: Vec<(Rung, Reason)>,
    /// The least and the most that it may take.
    pub whole: [Effort; 2],
    /// The same for each stage; nothing for a stage that it may not come to.
    pub stages: Vec<[Effort; 2]>,
    /// Whether even more trials are possible than were looked at.
    pub goes_on: bool,
}

/// What a climb takes.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Effort {
    /// How long passes run, and the rig rests, together.
    pub time: Span,
    /// How many trials there are.
    pub trials: u32,
    /// How often somebody has to change something by hand.
    pub by_hand: u32,
    /// How often the machine has to be started anew for a change.
    pub restarts: u32,
}

/// How far a made-up rig holds: so much of the way from stock to each setting's hardest value.
#[derive(Clone, Copy)]
struct Holds(Decimal);

/// What a climb of this plan on this rig would do first, and how long it would take.
pub fn forecast(rig: &Arc<Rig>, plan: &Arc<Plan>) -> Forecast {
    let shares = [Decimal::ZERO, Decimal::new(5, 1), Decimal::ONE];
    let (rig, plan) = (&unread(rig), &unwritten(plan));
    let played = shares.map(|share| Play::of(rig, plan, Holds(share)));
    let first = played[2].story.trials.iter().take(FIRST).map(|trial| (trial.rung.clone(), trial.reason.clone()));
    let range = |effort: &dyn Fn(&Play) -> Effort| {
        let [first, others @ ..] = played.each_ref().map(effort);
        let bound = |pick: fn(u64, u64) -> u64| others.iter().fold(first, |bound, one| bound.bound(one, pick));
        [bound(u64::min), bound(u64::max)]
    };
    Forecast {
        first: first.collect(),
        whole: range(&|play| play.efforts.iter().fold(Effort::default(), |sum, one| sum.with(one))),
        stages: (0..plan.stages.len()).map(|stage| range(&|play| play.efforts[stage])).collect(),
        goes_on: played.iter().any(|play| !play.climb.is_ended()),
    }
}

impl Forecast {
    /// The least and the longest that passes and rests may still take, of a climb that has come so far.
    pub fn ahead(&self, story: &Story) -> [Span; 2] {
        let spent = |stage: usize| -> Span {
            let of_stage = story.trials.iter().filter(|trial| trial.stage == stage);
            let running = story.progress.as_ref().map_or(Span::ZERO, |progress| progress.done);
            let is_running = story.open_trial().is_some_and(|trial| trial.stage == stage);
            of_stage.map(|trial| trial.tested).sum::<Span>() + if is_running { running } else { Span::ZERO }
        };
        let ahead = |stage: usize, [least, most]: &[Effort; 2]| match story.stages.get(stage) {
            Some(begun) if begun.end.is_some() => [Span::ZERO; 2],
            Some(_) => [least.time, most.time].map(|time| time - spent(stage)),
            None => [least.time, most.time],
        };
        let all = self.stages.iter().enumerate().map(|(stage, efforts)| ahead(stage, efforts));
        all.fold([Span::ZERO; 2], |[least, most], [one, other]| [least + one, most + other])
    }
}

impl Effort {
    fn with(self, other: &Self) -> Self {
        self.bound(other, |a, b| a + b)
    }

    /// Each part for itself: what takes least time need not take the fewest trials.
    fn bound(self, other: &Self, pick: fn(u64, u64) -> u64) -> Self {
        let count = |a: u32, b: u32| u32::try_from(pick(a.into(), b.into())).unwrap_or(u32::MAX);
        Self {
            time: Span::from_millis(pick(self.time.millis(), other.time.millis())),
            trials: count(self.trials, other.trials),
            by_hand: count(self.by_hand, other.by_hand),
            restarts: count(self.restarts, other.restarts),
        }
    }
}

/// The same rig without sensors that somebody reads: what they will read is not known.
fn unread(rig: &Arc<Rig>) -> Arc<Rig> {
    let mut rig = Rig::clone(rig);
    rig.sensors.retain(|sensor| sensor.asked.is_none());
    Arc::new(rig)
}

/// The same plan with passes by hand that ask for nothing and always score the same.
fn unwritten(plan: &Arc<Plan>) -> Arc<Plan> {
    let mut plan = Plan::clone(plan);
    let passes = plan.proofs.iter_mut().flat_map(|proof| &mut proof.passes);
    for task in passes.filter_map(|pass| pass.by_hand.as_mut()) {
        let figure = |name: &str| Figure {
            name: name.to_owned(),
            formula: "100".into(),
            unit: "1/s".into(),
            better: Better::More,
        };
        **task = Task { ask: String::new(), reads: Vec::new(), figures: task.scored().map(figure).collect() };
    }
    Arc::new(plan)
}

/// A climb on a made-up rig, where everything takes at once and time passes only in passes.
struct Play<'a> {
    rig: &'a Rig,
    holds: Holds,
    /// The hardest value of each setting that the plan may come to, in the order of the rig.
    hardest: Vec<Decimal>,
    climb: Climb,
    story: Story,
    now: Moment,
    in_force: InForce,
    efforts: Vec<Effort>,
}

impl<'a> Play<'a> {
    fn of(rig: &'a Arc<Rig>, plan: &Arc<Plan>, holds: Holds) -> Self {
        let in_force: InForce = rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
        let mut play = Self {
            rig,
            holds,
            hardest: rig.settings.iter().map(|setting| setting.hardest(&plan.use_name)).collect(),
            climb: Climb::new(Arc::clone(rig), Arc::clone(plan)),
            story: Story::default(),
            now: Moment::from_millis(0),
            in_force: in_force.clone(),
            efforts: vec![Effort::default(); plan.stages.len()],
        };
        let mut event = Event::Started { in_force, ahead: 0, rules: RULES, kinds: Vec::new() };
        for _ in 0..MOST_STEPS {
            if play.climb.is_ended() || play.story.trials.len() >= MOST_TRIALS {
                break;
            }
            event = play.next(&event);
        }
        for trial in &play.story.trials {
            play.efforts[trial.stage].trials += 1;
        }
        play
    }

    /// What follows this event on the made-up rig.
    fn next(&mut self, event: &Event) -> Event {
        let step = self.climb.next(self.now, event);
        for entry in &step.entries {
            self.story.tell(step.at, entry);
        }
        match step.command {
            Some(Command::Apply(errand)) => {
                self.in_force.extend(errand.made());
                Event::Applied { reported: self.in_force.clone() }
            }
            Some(Command::Ask(question)) => {
                if let Question::Make { length, .. } = question {
                    return self.make(length);
                }
                let Some(errand) = question.errand() else {
                    return Event::OperatorSaid { said: question.usual_answer().into() };
                };
                self.in_force.extend(errand.made());
                let (starts, by_hand) = (errand.needs_start(self.rig), errand.without_start(self.rig).is_some());
                if let Some(effort) = self.effort() {
                    effort.restarts += u32::from(starts);
                    effort.by_hand += u32::from(by_hand);
                }
                Event::ChangeMade { reported: self.in_force.clone(), started_anew: true, noted: Noted::default() }
            }
            Some(Command::RunPass(order)) => {
                let report = self.run(&order);
                self.pass_time(report.ran);
                Event::PassEnded { report, reported: None }
            }
            Some(Command::StopPass) | None => {
                let rest = self.story.rests_until.map_or(Span::ZERO, |until| until.since(self.now));
                self.pass_time(rest);
                Event::TIME_PASSED
            }
        }
    }

    /// Somebody makes a pass.
    fn make(&mut self, length: Span) -> Event {
        self.pass_time(length);
        let said = if self.holds() { Answer::Done } else { Answer::Hung };
        Event::OperatorSaid { said: said.into() }
    }

    /// Whether what is in force holds.
    fn holds(&self) -> bool {
        self.rig.settings.iter().zip(&self.hardest).all(|(setting, hardest)| {
            let value = self.in_force.get(&setting.name).copied().unwrap_or(setting.stock);
            let limit = setting.stock + (*hardest - setting.stock) * self.holds.0;
            !setting.is_harder(limit, value)
        })
    }

    fn run(&self, order: &PassOrder) -> PassReport {
        let length = order.pass.length;
        if self.holds() {
            let score = Score { value: 100.0, unit: "1/s".into(), less_is_better: false };
            return PassReport { ran: length, rounds: 1, score: Some(score), ..PassReport::default() };
        }
        let incidents = vec![Incident::new(IncidentKind::WrongResult, "made up")];
        PassReport { ran: Span::from_millis(length.millis() / 2), incidents, ..PassReport::default() }
    }

    fn pass_time(&mut self, span: Span) {
        self.now = self.now + span;
        if let Some(effort) = self.effort() {
            effort.time += span;
        }
    }

    /// The effort of the stage that is under way.
    fn effort(&mut self) -> Option<&mut Effort> {
        let stage = self.story.stages.len().checked_sub(1)?;
        self.efforts.get_mut(stage)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::engine::Entry;
    use crate::files::{Document, Problems, plan_file, rig_file};
    use crate::model::reason::StageEnd;

    const RIG: &str = r#"
        format = 1
        [rig]
        name = "r"
        [setting.clock]
        unit = "MHz"
        ladder = { from = 100, step = 10, to = 200 }
        stock = 100
        ceiling = { daily = 150 }
        harder = "up"
        takes_effect = "by-hand"
    "#;

    fn foreseen(stages: &str) -> Forecast {
        let plan = format!(
            "format = 1\n[plan]\nname = \"p\"\nrig = \"r\"\nuse = \"daily\"\n[proof.a]\n\
             passes = [{{ load = \"dense\", for = \"60s\" }}]\n{stages}"
        );
        let (rig, plan) = (Document::parse(RIG).expect("rig"), Document::parse(&plan).expect("plan"));
        let problems = Problems::default();
        let rig = Arc::new(rig_file::read(&rig.top(&problems)).expect("a rig"));
        let plan = plan_file::read(&plan.top(&problems), &rig, &["dense"]).expect("a plan");
        forecast(&rig, &Arc::new(plan))
    }

    #[test]
    fn a_plan_is_played_on_the_best_and_on_the_worst_of_rigs() {
        let foreseen = foreseen(
            "[[stage]]\nstrategy = \"baseline\"\nrepeats = 2\nproof = \"a\"\n\
             [[stage]]\nstrategy = \"ascend\"\nsetting = \"clock\"\nstep = 10\nproof = \"a\"\n",
        );
        let [least, most] = foreseen.stages[0];
        assert_eq!((least, most.trials), (Effort { time: Span::from_seconds(120), trials: 2, ..Effort::default() }, 2));
        // At worst it falls at once and goes back to stock, at best it comes to the ceiling and all the way home.
        let [least, most] = foreseen.stages[1];
        assert_eq!((least.trials, least.time, least.by_hand), (2, Span::from_seconds(90), 2));
        assert_eq!((most.trials, most.time, most.by_hand), (5, Span::from_seconds(300), 6));
        assert_eq!(foreseen.whole[1].trials, 7);
        assert!(!foreseen.goes_on);
        for [least, most] in foreseen.stages.iter().chain([&foreseen.whole]) {
            assert!(least.trials <= most.trials && least.time <= most.time && least.by_hand <= most.by_hand);
        }
        let mut story = Story::default();
        assert_eq!(foreseen.ahead(&story), foreseen.whole.map(|effort| effort.time));
        let at = Moment::from_millis(0);
        story.tell(at, &Entry::StageBegan { stage: 0, strategy: "baseline".into() });
        story.tell(at, &Entry::StageEnded { stage: 0, end: StageEnd::BaselineHeld });
        assert_eq!(foreseen.ahead(&story), foreseen.stages[1].map(|effort| effort.time), "what is over is over");
        let clocks: Vec<_> = foreseen.first.iter().filter_map(|(rung, _)| rung.get("clock")).collect();
        assert_eq!(clocks, [100, 100, 110, 120].map(Decimal::from));
    }
}
