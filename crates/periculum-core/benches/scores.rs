//! How often what is said of scores is right, where the truth is known: `cargo bench -p periculum-core --bench scores`.
//!
//! Scores are drawn with normal noise; each row says how often something is said, and how often it should be at most or at least.

use std::collections::BTreeMap;

use periculum_core::Decimal;
use periculum_core::analysis::contrast::{contrast, facts_of_climb};
use periculum_core::analysis::scores::{Benchmark, benchmarks};
use periculum_core::engine::Entry;
use periculum_core::files::{Document, Problems, plan_file, rig_file};
use periculum_core::inference::comparison::{Says, compare, compare_alike};
use periculum_core::inference::disturbance::disturbed;
use periculum_core::inference::statistics::mean_interval;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassReport, Score};
use periculum_core::model::plan::Plan;
use periculum_core::model::reason::Reason;
use periculum_core::model::rig::Rig;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::Story;
use periculum_core::story::series::Series;

/// So many climbs, or comparisons, stand behind each row.
const TIMES: usize = 4000;

/// The noise of one score, as a share of it.
const NOISE: f64 = 0.003;

fn main() {
    println!("| what | said | should be |\n|---|---|---|");
    let mut dice = Dice(1);
    best_of_many(&mut dice);
    losses(&mut dice);
    intervals(&mut dice);
    worth_raising(&mut dice);
    equal_climbs(&mut dice);
    disturbances(&mut dice);
}

fn row(what: &str, should_be: &str, times: usize, mut is_said: impl FnMut() -> bool) {
    let said = (0..times).filter(|_| is_said()).count();
    println!("| {what} | {:.1} % | {should_be} |", 100.0 * said as f64 / times as f64);
}

/// Numbers that look drawn.
struct Dice(u64);

impl Dice {
    /// One of a normal distribution (Box and Muller, A note on the generation of random normal deviates, 1958).
    fn normal(&mut self) -> f64 {
        let [a, b] = [self.throw(), self.throw()];
        (-2.0 * a.ln()).sqrt() * (std::f64::consts::TAU * b).cos()
    }

    fn throw(&mut self) -> f64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        ((self.0 >> 11) as f64 + 1.0) / (1u64 << 53) as f64
    }

    fn scores(&mut self, count: usize, mean: f64) -> Vec<f64> {
        (0..count).map(|_| mean * (1.0 + NOISE * self.normal())).collect()
    }
}

fn best_of_many(dice: &mut Dice) {
    for count in [5, 13] {
        let flat = vec![100.0; count];
        row(&format!("the best of {count} levels gains, where none does"), "≤ 2.5 %", TIMES, || {
            let benchmark = climbed(dice, &flat, 3);
            best_gain(&benchmark) == Says::More
        });
    }
    let rising: Vec<f64> = (0..5).map(|at| 100.0 + 0.5 * f64::from(at)).collect();
    row("the best of 5 levels gains, where it does by 2 %", "≥ 95 %", TIMES, || {
        best_gain(&climbed(dice, &rising, 3)) == Says::More
    });
}

fn losses(dice: &mut Dice) {
    let lost = |dice: &mut Dice, count: usize, loss: f64| {
        let (base, both) = (dice.scores(count, 100.0), dice.scores(2, 100.0 - loss));
        compare_alike(&base, &both).says() == Says::Less
    };
    row("a loss, where nothing is lost: baseline of 4, measured twice", "≤ 2.5 %", TIMES, || lost(dice, 4, 0.0));
    for loss in [1.0, 2.0, 3.0] {
        row(&format!("a loss of {loss} %, baseline of 4"), "as often as it can be", TIMES, || lost(dice, 4, loss));
    }
    row("a loss of 1 %, baseline of 8", "more often than with 4", TIMES, || lost(dice, 8, 1.0));
}

fn intervals(dice: &mut Dice) {
    row("the interval of a mean of 5 covers it", "93–97 %", TIMES, || {
        let interval = mean_interval(&dice.scores(5, 100.0)).expect("five");
        (interval.mean - 100.0).abs() <= interval.half_width
    });
    for factor in [0.5, 1.0, 2.0] {
        let change = factor - 1.0;
        row(&format!("the interval of a single score covers {:+.0} %", 100.0 * change), "93–97 %", TIMES, || {
            let compared = compare(&dice.scores(4, 100.0), &dice.scores(1, 100.0 * factor));
            (compared.low..=compared.high).contains(&change)
        });
        row(&format!("the interval of a level among 5 covers {:+.0} %", 100.0 * change), "≥ 93 %", TIMES, || {
            let mut levels = vec![100.0; 4];
            levels.push(100.0 * factor);
            let benchmark = climbed(dice, &levels, 3);
            let compared = benchmark.levels.last().and_then(|level| level.over_baseline).expect("a baseline");
            (compared.low..=compared.high).contains(&change)
        });
    }
}

fn worth_raising(dice: &mut Dice) {
    let flat = [100.0; 6];
    row("worth raising to the last value, where nothing follows", "≤ 2.5 %", TIMES, || {
        climbed(dice, &flat, 3).is_shown_to_pay()
    });
    let follows: Vec<f64> = (0..6).map(|at| 100.0 + 2.0 * f64::from(at)).collect();
    row("worth raising to the last value, where the score follows to it", "≥ 95 %", TIMES, || {
        climbed(dice, &follows, 3).is_shown_to_pay()
    });
}

/// Two climbs that are alike stand beside each other: what is said to differ of their scores.
fn equal_climbs(dice: &mut Dice) {
    for repeats in [1, 3] {
        let told = if repeats == 1 { "0 %: the noise is not known" } else { "≤ 5 %" };
        row(&format!("the best scores of two equal climbs differ, {repeats} of each level"), told, TIMES / 4, || {
            let of = |dice: &mut Dice| {
                let story = story(dice, &[100.0, 101.0, 102.0, 102.0], repeats, 0);
                let (rig, plan) = files();
                facts_of_climb(&story, &rig, &plan, &BTreeMap::new())
            };
            let (one, other) = (of(dice), of(dice));
            contrast(&[&one, &other]).different.iter().any(|row| row.label.ends_with(", best"))
        });
    }
}

fn disturbances(dice: &mut Dice) {
    for count in [4, 5, 8] {
        row(&format!("a run of {count} that were not disturbed is left out"), "≤ 1 %", TIMES, || {
            !disturbed(&dice.scores(count, 100.0)).is_empty()
        });
        let too_low = move |dice: &mut Dice, low: usize| {
            let runs = [dice.scores(low, 93.0), dice.scores(count - low, 100.0)].concat();
            disturbed(&runs).len() == low
        };
        row(&format!("one of {count} that is 7 % too low is left out"), "as often as it can be", TIMES, || {
            too_low(dice, 1)
        });
        if count > 5 {
            row(&format!("both of two of {count} are left out"), "as often as it can be", TIMES, || too_low(dice, 2));
        }
    }
}

fn best_gain(benchmark: &Benchmark) -> Says {
    benchmark.levels[benchmark.best].over_baseline.map_or(Says::Same, |gain| gain.says())
}

/// The benchmark of a climb whose levels truly score this, each measured so often, with a baseline of four.
fn climbed(dice: &mut Dice, levels: &[f64], repeats: usize) -> Benchmark {
    let story = story(dice, levels, repeats, 4);
    let (rig, plan) = files();
    let no_traces: BTreeMap<String, Series> = BTreeMap::new();
    benchmarks(&story, &rig, &plan, &no_traces).into_iter().next().expect("a benchmark")
}

fn story(dice: &mut Dice, levels: &[f64], repeats: usize, baseline: usize) -> Story {
    let mut story = Story::default();
    let at = Moment::from_millis(0);
    story.tell(at, &Entry::StageBegan { stage: 0, strategy: "baseline".into() });
    let mut number = 0;
    let mut trial = |story: &mut Story, stage: usize, clock: usize, score: f64| {
        number += 1;
        let rung = [("clock".to_owned(), Decimal::from(40 + clock))].into_iter().collect();
        let report = PassReport { score: Some(Score::of(score, "1/s")), ..PassReport::default() };
        let order = Pass::usual("dense", Span::from_seconds(60));
        for entry in [
            Entry::TrialBegan { trial: number, stage, rung, proof: "quick".into(), reason: Reason::Start },
            Entry::PassBegan { trial: number, pass: 0, order, on: vec![] },
            Entry::PassEnded { trial: number, pass: 0, report },
            Entry::TrialEnded { trial: number, verdict: Verdict::Held, incident: None, tested: Span::ZERO, gain: None },
        ] {
            story.tell(at, &entry);
        }
    };
    dice.scores(baseline, 100.0).into_iter().for_each(|score| trial(&mut story, 0, 0, score));
    story.tell(at, &Entry::StageBegan { stage: 1, strategy: "peak".into() });
    for (clock, level) in (1..).zip(levels) {
        dice.scores(repeats, *level).into_iter().for_each(|score| trial(&mut story, 1, clock, score));
    }
    story
}

fn files() -> (Rig, Plan) {
    let rig = "format = 1\n[rig]\nname = \"r\"\n[setting.clock]\nladder = { from = 40, step = 1, to = 60 }\nstock = 40\n\
               ceiling = { daily = 60 }\nharder = \"up\"\ntakes_effect = \"by-hand\"\n";
    let plan = "format = 1\n[plan]\nname = \"p\"\nrig = \"r\"\nuse = \"daily\"\n[proof.quick]\n\
                passes = [{ load = \"dense\", for = \"60s\" }]\n[[stage]]\nstrategy = \"baseline\"\nproof = \"quick\"\n\
                [[stage]]\nstrategy = \"peak\"\nsetting = \"clock\"\nstep = 1\nproof = \"quick\"\n";
    let problems = Problems::default();
    let [rig, plan] = [rig, plan].map(|text| Document::parse(text).expect("a document"));
    let rig = rig_file::read(&rig.top(&problems)).expect("a rig");
    let plan = plan_file::read(&plan.top(&problems), &rig, &["dense"]);
    let plan = plan.unwrap_or_else(|| panic!("{:?}", problems.into_sorted()));
    (rig, plan)
}
