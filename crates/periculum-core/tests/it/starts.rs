//! A baseline over several starts of the machine, and what its scatter is worth.

use std::sync::Arc;

use periculum_core::analysis::at_stock::{between_starts, by_start};
use periculum_core::analysis::faster::{Faster, Pace};
use periculum_core::analysis::scores::Measure;
use periculum_core::engine::{Event, Noted, Question};
use periculum_core::files::{Document, Problems, plan_file, rig_file};
use periculum_core::model::moment::Span;
use periculum_core::model::pass::{Pass, PassReport, Score, Threads};
use periculum_core::model::setting::TakesEffect;
use periculum_core::model::strategy::Strategy;
use periculum_core::model::verdict::Verdict;
use periculum_core::telling::{ask, faster_words, scatter_words};

use crate::chaos::Course;
use crate::play::Play;

/// The plain course on a rig whose clock needs a start, with a baseline like this and a proof of bandwidth and latency.
fn course(repeats: u32, starts: u32) -> Course {
    let plain = Course::plain();
    let (mut rig, mut plan) = ((*plain.rig).clone(), (*plain.plan).clone());
    rig.settings[0].takes_effect = TakesEffect::AtNextStart;
    plan.stages[0].strategy = Strategy::Baseline { repeats, within: None, idle: None, starts };
    plan.proofs[0].passes = ["copy", "latency"].map(|load| Pass::usual(load, Span::from_seconds(60))).to_vec();
    Course { rig: Arc::new(rig), plan: Arc::new(plan) }
}

/// Somebody starts the machine as it is asked for, until nothing is asked; tells what was.
fn start(play: &mut Play) -> Vec<String> {
    let mut asked = Vec::new();
    while let Some(question @ Question::Change { .. }) = play.climb.question() {
        asked.push(ask(&question, &play.course.rig));
        let errand = question.errand().expect("an errand").clone();
        play.in_force.extend(errand.made());
        let reported = play.in_force.clone();
        play.event(&Event::ChangeMade { reported, started_anew: true, noted: Noted::default() });
    }
    asked
}

/// A trial with these scores: GB/s of a copy, and ns of an access.
fn scores(play: &mut Play, [copy, latency]: [f64; 2]) {
    let latency = Score { less_is_better: true, ..Score::of(latency, "ns") };
    for score in [Score::of(copy, "GB/s"), latency] {
        assert!(play.runs_a_pass(), "{}", play.log(4));
        let report = PassReport { ran: Span::from_seconds(60), score: Some(score), ..PassReport::default() };
        play.event(&Event::PassEnded { report, reported: None });
    }
}

fn copy() -> Measure {
    Measure { load: "copy".into(), threads: Threads::All, unit: "GB/s".into(), less_is_better: false }
}

#[test]
fn trials_are_spread_over_starts_and_each_but_the_first_is_asked_for() {
    let mut play = Play::of(course(5, 3));
    let mut asked = Vec::new();
    for copy in [100.0, 100.2, 102.0, 102.2, 98.0] {
        asked.push(start(&mut play));
        scores(&mut play, [copy, 70.0]);
    }
    let started = "start the machine anew, with everything as it is";
    assert_eq!(asked, [vec![], vec![], vec![started], vec![], vec![started]], "{}", play.log(20));
    assert!(play.log(40).contains("the rig at stock comes first (3 of 5), after start 2"), "{}", play.log(40));
    let found = by_start(&play.story, &copy());
    assert_eq!(found, [vec![100.0, 100.2], vec![102.0, 102.2], vec![98.0]]);
    let told = scatter_words(&between_starts(&play.story, &copy()).expect("two parts"));
    assert!(told.ends_with("0.14 % within one"), "{told}");
    assert_ne!(start(&mut play), [started], "the next errand is a change");
}

/// What a start leaves otherwise is no gain, and is taken for one where the baseline knows one start only.
#[test]
fn a_rung_is_faster_where_it_is_beyond_what_starts_make_of_it() {
    let pace = |starts: u32, levels: [f64; 3], rung: [f64; 2]| {
        let mut play = Play::of(course(3, starts));
        for level in levels {
            start(&mut play);
            scores(&mut play, [level, 7000.0 / level]);
        }
        start(&mut play);
        scores(&mut play, rung);
        if play.story.trial(4).and_then(|trial| trial.verdict) == Some(Verdict::Void) {
            // A score that is too low is measured again.
            scores(&mut play, rung);
        }
        let judged = play.story.trials.iter().rfind(|trial| trial.verdict.is_some());
        let trial = judged.expect("a trial");
        let faster = Faster::of(&play.story, trial).expect("both are known at stock");
        (faster.says, faster_words(&faster))
    };
    let one_start = [100.0, 100.1, 99.9];
    let several = [99.0, 101.0, 100.0];
    assert_eq!(pace(1, one_start, [101.5, 69.0]).0, Pace::Faster);
    let (says, told) = pace(3, several, [101.5, 69.0]);
    assert_eq!(says, Pace::Alike, "{told}");
    assert!(told.starts_with("neither faster nor slower than stock for sure: copy +1.5 ± "), "{told}");
    let (says, told) = pace(3, several, [112.0, 77.0]);
    assert_eq!(says, Pace::Mixed, "{told}");
    assert!(
        told.starts_with("faster than stock in copy +12.0 ± ") && told.contains("but slower in latency +10"),
        "{told}"
    );
    assert_eq!(pace(3, several, [112.0, 63.0]).0, Pace::Faster);
    assert_eq!(pace(3, several, [90.0, 70.0]).0, Pace::Slower);
}

#[test]
fn nothing_is_said_of_the_baseline_itself_or_where_its_noise_is_not_known() {
    let mut play = Play::of(course(1, 1));
    start(&mut play);
    scores(&mut play, [100.0, 70.0]);
    start(&mut play);
    scores(&mut play, [110.0, 60.0]);
    let of = |number| Faster::of(&play.story, play.story.trial(number).expect("a trial"));
    assert_eq!((of(1), of(2)), (None, None));
    assert_eq!(between_starts(&play.story, &copy()), None);
}

#[test]
fn starts_that_nobody_would_make_or_too_many_of_them_are_told() {
    let rig = |effect: &str| {
        format!(
            "format = 1\n[rig]\nname = \"r\"\n[setting.clock]\nladder = {{ from = 40, step = 1, to = 50 }}\nstock = 42\n\
            ceiling = {{ daily = 50 }}\nharder = \"up\"\ntakes_effect = \"{effect}\"\n"
        )
    };
    let told = |effect: &str, written: &str| {
        let plan = format!(
            "format = 1\n[plan]\nname = \"p\"\nrig = \"r\"\nuse = \"daily\"\n[proof.quick]\n\
            passes = [{{ load = \"dense\", for = \"60s\" }}]\n[[stage]]\nstrategy = \"baseline\"\nproof = \"quick\"\n{written}\n"
        );
        let texts = [rig(effect), plan];
        let documents = texts.each_ref().map(|text| Document::parse(text).expect("TOML"));
        let problems = Problems::default();
        let rig = rig_file::read(&documents[0].top(&problems)).expect("a rig");
        plan_file::read(&documents[1].top(&problems), &rig, &["dense"]);
        problems.into_sorted().into_iter().map(|problem| problem.what).collect::<Vec<_>>()
    };
    assert_eq!(told("next-start", "repeats = 3\nstarts = 3"), Vec::<String>::new());
    assert_eq!(told("next-start", "repeats = 2\nstarts = 3"), ["2 trials can't be spread over 3 starts"]);
    let nobody = "no setting of this rig needs a start, so that nobody would start it anew for a trial";
    assert_eq!(told("at-once", "repeats = 3\nstarts = 3"), [nobody]);
    assert_eq!(told("next-start", "repeats = 3\nstarts = 0").len(), 1);
}
