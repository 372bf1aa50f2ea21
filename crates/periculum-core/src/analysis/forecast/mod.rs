//! What a climb would do before it begins: the plan is played by the engine itself on rigs that are made up.
//!
//! Their limits are drawn from what earlier climbs say of their kind, and where nobody knows anything from all between stock and what the
//! plan may come to; near them they fail as chance has it. Nine tenths of climbs lie between the least and the most that these took.

mod effort;
mod play;
mod specimen;

use std::sync::Arc;

pub use effort::Effort;
use play::Play;
use specimen::Specimen;

use crate::model::kind::Kind;
use crate::model::moment::Span;
use crate::model::plan::Plan;
use crate::model::reason::Reason;
use crate::model::rig::Rig;
use crate::model::rung::Rung;
use crate::model::strategy::Strategy;
use crate::model::task::{Better, Figure, Task};
use crate::story::Story;

/// A climb that has more trials than this is not played to its end.
const MOST_TRIALS: usize = 1000;

/// So many of the first trials are told.
const FIRST: usize = 4;

/// So many rigs are made up: one more lies between the least and the most of them nine times of ten.
const RIGS: usize = 19;

/// And where each of them takes long, since a search weighs many laws; what so few say is stretched.
const FEW_RIGS: usize = 5;

/// What a climb would do.
#[derive(Clone, Debug, PartialEq)]
pub struct Forecast {
    /// The first rungs that it would try while all holds, and why.
    pub first: Vec<(Rung, Reason)>,
    /// What it takes in the middle: half of all climbs take less.
    pub middle: Effort,
    /// The least and the most that nine tenths of all climbs take.
    pub whole: [Effort; 2],
    /// The same for each stage; nothing for a stage that it may not come to.
    pub stages: Vec<[Effort; 2]>,
    /// The same for everything behind each stage.
    behind: Vec<[Effort; 2]>,
    /// Whether even more trials are possible than were looked at.
    pub goes_on: bool,
}

/// What a climb of this plan on this rig would do first, and how long it would take, where earlier climbs say this of its kind.
pub fn forecast(rig: &Arc<Rig>, plan: &Arc<Plan>, kinds: &[Kind]) -> Forecast {
    let (rig, plan) = (&unread(rig), &unwritten(plan));
    let first = Play::of(rig, plan, Specimen::unbreakable(), kinds, FIRST);
    let first = first.story.trials.into_iter().take(FIRST).map(|trial| (trial.rung, trial.reason));
    let rigs = if plan.stages.iter().any(|stage| weighs_laws(&stage.strategy, stage.wants.is_some())) {
        FEW_RIGS
    } else {
        RIGS
    };
    let drawn = (0..rigs).map(|nth| Specimen::drawn(nth, rigs, (rig, plan), kinds));
    let played: Vec<Play> = drawn.map(|specimen| Play::of(rig, plan, specimen, kinds, MOST_TRIALS)).collect();
    let of = |stages: std::ops::Range<usize>| -> Vec<Effort> {
        let sum = |play: &Play| play.efforts[stages.clone()].iter().fold(Effort::default(), |sum, one| sum.with(one));
        played.iter().map(sum).collect()
    };
    let count = plan.stages.len();
    let whole = of(0..count);
    Forecast {
        first: first.collect(),
        middle: Effort::middle(&whole),
        whole: Effort::range(&whole),
        stages: (0..count).map(|stage| Effort::range(&of(stage..stage + 1))).collect(),
        behind: (0..count).map(|stage| Effort::range(&of(stage + 1..count))).collect(),
        goes_on: played.iter().any(|play| !play.climb.is_ended()),
    }
}

/// Whether a stage looks for its next trial by weighing laws.
fn weighs_laws(strategy: &Strategy, wants: bool) -> bool {
    matches!(strategy, Strategy::Seek { .. }) || wants && matches!(strategy, Strategy::Soak { .. })
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
        let under_way = story.stages.len().saturating_sub(1);
        let of_stage = match story.stages.get(under_way) {
            Some(begun) if begun.end.is_some() => [Span::ZERO; 2],
            _ => self.stages[under_way].map(|effort| effort.time - spent(under_way)),
        };
        let [least, most] = self.behind[under_way].map(|effort| effort.time);
        [of_stage[0] + least, of_stage[1] + most]
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

#[cfg(test)]
mod tests {
    use super::*;
    use rust_decimal::Decimal;

    use crate::engine::Entry;
    use crate::files::{Document, Problems, plan_file, rig_file};
    use crate::model::kind::Expected;
    use crate::model::moment::Moment;
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

    fn rig() -> Arc<Rig> {
        let document = Document::parse(RIG).expect("a document");
        Arc::new(rig_file::read(&document.top(&Problems::default())).expect("a rig"))
    }

    fn plan(stages: &str, rig: &Rig) -> Arc<Plan> {
        let text = format!(
            "format = 1\n[plan]\nname = \"p\"\nrig = \"r\"\nuse = \"daily\"\n[proof.a]\n\
             passes = [{{ load = \"dense\", for = \"60s\" }}]\n{stages}"
        );
        let document = Document::parse(&text).expect("a document");
        Arc::new(plan_file::read(&document.top(&Problems::default()), rig, &["dense"]).expect("a plan"))
    }

    fn foreseen(stages: &str, kinds: &[Kind]) -> Forecast {
        let rig = rig();
        forecast(&rig, &plan(stages, &rig), kinds)
    }

    const ASCEND: &str = "[[stage]]\nstrategy = \"baseline\"\nrepeats = 2\nproof = \"a\"\n\
        [[stage]]\nstrategy = \"ascend\"\nsetting = \"clock\"\nstep = 10\nproof = \"a\"\n";

    #[test]
    fn a_plan_is_played_on_rigs_whose_limits_lie_anywhere() {
        let foreseen = foreseen(ASCEND, &[]);
        let [least, most] = foreseen.stages[0];
        assert_eq!((least, most.trials), (Effort { time: Span::from_seconds(120), trials: 2, ..Effort::default() }, 2));
        // Some fall soon, and some come to the ceiling and all the way home, or go back from there.
        let [least, most] = foreseen.stages[1];
        assert!((2..5).contains(&least.trials) && least.time < Span::from_seconds(280), "{least:?}");
        assert!((5..10).contains(&most.trials) && (6..10).contains(&most.by_hand), "{most:?}");
        assert!(!foreseen.goes_on);
        for [least, most] in foreseen.stages.iter().chain([&foreseen.whole]) {
            assert!(least.trials <= most.trials && least.time <= most.time && least.by_hand <= most.by_hand);
        }
        let Forecast { middle, whole: [least, most], .. } = foreseen;
        assert!(least.trials <= middle.trials && middle.trials <= most.trials && middle.time <= most.time);
        let clocks: Vec<_> = foreseen.first.iter().filter_map(|(rung, _)| rung.get("clock")).collect();
        assert_eq!(clocks, [100, 100, 110, 120].map(Decimal::from));
    }

    #[test]
    fn what_is_over_is_over_and_the_rest_is_ahead() {
        let foreseen = foreseen(ASCEND, &[]);
        let mut story = Story::default();
        assert_eq!(foreseen.ahead(&story)[0], Span::from_seconds(120) + foreseen.stages[1][0].time);
        let at = Moment::from_millis(0);
        story.tell(at, &Entry::StageBegan { stage: 0, strategy: "baseline".into() });
        story.tell(at, &Entry::StageEnded { stage: 0, end: StageEnd::BaselineHeld });
        assert_eq!(foreseen.ahead(&story), foreseen.stages[1].map(|effort| effort.time));
    }

    #[test]
    fn what_is_known_of_the_kind_narrows_it() {
        let known = |mean: f64| {
            let expected = |mean, spread| Expected { mean, spread };
            let kind = Kind {
                setting: "clock".into(),
                loads: ["dense".to_owned()].into(),
                beside: Rung::default(),
                limit: expected(mean, 2.0),
                slope: expected(-1.0, 0.1),
                mechanisms: Vec::new(),
                climbs: 3,
            };
            foreseen(ASCEND, &[kind]).whole
        };
        let ([soon, _], [never, always]) = (known(105.0), known(290.0));
        assert!(soon.time < never.time, "{soon:?} {never:?}");
        assert_eq!((never, never.trials), (always, 7), "where everything is expected to hold, nothing is open");
    }

    /// Of other rigs that are drawn alike nine of ten lie between what is foretold, give or take what chance does to so few.
    #[test]
    fn nine_tenths_of_climbs_lie_within() {
        let rig = rig();
        let plan = plan(ASCEND, &rig);
        let [least, most] = forecast(&rig, &plan, &[]).whole;
        let within = (0..60).filter(|nth| {
            let specimen = Specimen::drawn(*nth, 60, (&rig, &plan), &[]);
            let play = Play::of(&rig, &plan, specimen, &[], MOST_TRIALS);
            let all = play.efforts.iter().fold(Effort::default(), |sum, one| sum.with(one));
            (least.time..=most.time).contains(&all.time)
        });
        let within = within.count();
        assert!(within >= 48, "{within} of 60");
    }
}
