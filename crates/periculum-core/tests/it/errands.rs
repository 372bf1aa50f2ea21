//! What somebody does in one visit, and where a climb ends.

use std::sync::Arc;

use periculum_core::Decimal;
use periculum_core::engine::{ClimbEnd, Command, Event, Noted, Question, RULES, Said};
use periculum_core::model::ending::Ending;
use periculum_core::model::errand::Errand;
use periculum_core::model::incident::IncidentKind;
use periculum_core::model::plan::{Ends, Start};
use periculum_core::model::rung::InForce;
use periculum_core::model::setting::TakesEffect;
use periculum_core::model::strategy::Strategy;
use periculum_core::model::verdict::Verdict;

use crate::chaos::Course;
use crate::play::Play;

/// The plain course with other stages, on a rig whose settings take effect like this.
fn course(effects: [TakesEffect; 2], ends: Ends, stages: &[usize]) -> Course {
    let plain = Course::plain();
    let (mut rig, mut plan) = ((*plain.rig).clone(), (*plain.plan).clone());
    for (setting, takes_effect) in rig.settings.iter_mut().zip(effects) {
        setting.takes_effect = takes_effect;
    }
    plan.stages = stages.iter().map(|stage| plain.plan.stages[*stage].clone()).collect();
    // A baseline that comes later is measured at stock too, away from the mark.
    let later = stages.iter().zip(&mut plan.stages).filter(|(stage, _)| **stage == BASELINE);
    later.for_each(|(_, stage)| stage.start = Start::Stock);
    plan.ends = ends;
    Course { rig: Arc::new(rig), plan: Arc::new(plan) }
}

const AT_ONCE: [TakesEffect; 2] = [TakesEffect::AtOnce, TakesEffect::AtOnce];
const BY_HAND: [TakesEffect; 2] = [TakesEffect::ByHand, TakesEffect::ByHand];

/// The stages of the plain course.
const BASELINE: usize = 0;
const ASCENT: usize = 1;
const TRIM: usize = 2;

fn asked(play: &Play) -> Errand {
    let Some(Question::Change { errand }) = play.climb.question() else { panic!("nothing is asked: {}", play.log(4)) };
    errand
}

/// Somebody makes what is asked, and says so.
fn make(play: &mut Play) {
    let errand = asked(play);
    play.in_force.extend(errand.changes().iter().map(|change| (change.setting.clone(), change.to)));
    let started_anew = errand.needs_start(&play.course.rig);
    play.event(&Event::ChangeMade { reported: play.in_force.clone(), started_anew, noted: Noted::default() });
}

/// What the firmware shows is held against what was asked, and known to the trial; what nobody wrote down is nobody's fault.
#[test]
fn what_somebody_read_is_held_against_what_was_asked() {
    let mut play = Play::unread(course(BY_HAND, Ends::AtStock, &[BASELINE, ASCENT]));
    let made = |clock: Decimal| {
        let shown = InForce::from([("clock".to_owned(), clock)]);
        Event::ChangeMade { reported: InForce::new(), started_anew: false, noted: Noted { shown, ..Noted::default() } }
    };
    let question = play.climb.question().expect("a question");
    let names: Vec<String> = question.fields(&play.course.rig).into_iter().map(|field| field.name).collect();
    assert_eq!(names, ["clock", "measured.clock", "volts", "measured.volts"]);
    play.event(&made(asked(&play).changes()[0].to));
    play.pass_ends(&[]);
    let asked_for = asked(&play).changes()[0].to;
    play.event(&made(asked_for));
    assert!(play.runs_a_pass(), "{}", play.log(4));
    assert_eq!(play.story.reported.get("clock"), Some(&asked_for));
    play.pass_ends(&[]);
    play.event(&made(asked_for));
    assert!(play.log(6).contains("trial 3 slipped") && play.log(6).contains("not-taken"), "{}", play.log(6));
    assert!(play.runs_a_pass(), "what is in force is known: {}", play.log(6));
    play.pass_ends(&[]);
    play.event(&Event::ChangeMade { reported: InForce::new(), started_anew: false, noted: Noted::default() });
    assert!(!play.log(2).contains("not-taken"), "nobody has to read it: {}", play.log(6));
}

/// Goes on until so many passes have ended, of which those above this clock fall, and another one runs.
fn after_passes(play: &mut Play, passes: usize, holds_to: i64) {
    let mut ended = 0;
    while !play.climb.is_ended() && (ended < passes || !play.runs_a_pass()) {
        if play.climb.question().is_some() {
            make(play);
            continue;
        }
        let falls = clock(play) > holds_to;
        play.pass_ends(if falls { &[IncidentKind::WrongResult] } else { &[] });
        ended += 1;
    }
}

/// Goes on until there is a mark at 44, and another pass runs.
fn until_marked(play: &mut Play) {
    while play.story.marks.is_empty() {
        after_passes(play, 1, 44);
    }
    assert_eq!((play.story.marks.len(), play.runs_a_pass()), (1, true), "{}", play.log(6));
}

fn clock(play: &Play) -> i64 {
    i64::try_from(play.in_force["clock"]).expect("whole")
}

fn stop(play: &mut Play, said: Said) {
    play.say(said);
    if play.command == Some(Command::StopPass) {
        play.pass_is_stopped();
    }
}

fn restart(play: &mut Play, in_force: InForce) {
    play.event(&Event::Restarted {
        ending: Ending::MachineRestarted,
        lived: None,
        in_force,
        unattended: false,
        last_words: None,
        lived_at_most: None,
        rules: RULES,
    });
}

/// The way home with its visits.
fn visits_home(play: &mut Play) -> Vec<usize> {
    let mut visits = Vec::new();
    while !play.climb.is_ended() {
        visits.push(asked(play).changes().len());
        make(play);
    }
    visits
}

fn not_at_stock(play: &Play) -> Vec<String> {
    play.story.ended.as_ref().map(|ended| ended.not_at_stock.clone()).expect("over")
}

#[test]
fn the_way_home_is_one_visit() {
    use TakesEffect::{AtNextStart, ByHand};
    for effects in [[ByHand, ByHand], [AtNextStart, AtNextStart], [AtNextStart, ByHand]] {
        let mut play = Play::of(course(effects, Ends::AtStock, &[BASELINE, ASCENT, TRIM]));
        after_passes(&mut play, 6, 44);
        let away = play.in_force.clone();
        assert!(away["clock"] == Decimal::from(44) && away["volts"] < Decimal::from(125), "{away:?}");
        stop(&mut play, Said::Stop);
        assert_eq!(visits_home(&mut play), [2], "{effects:?}");
        assert_eq!(not_at_stock(&play), [""; 0]);
    }
}

/// What a start brings is judged by it; what is done by hand, and can't be read back, may not have been.
#[test]
fn a_start_in_the_middle_of_an_errand_leaves_what_is_by_hand() {
    let effects = [TakesEffect::AtNextStart, TakesEffect::ByHand];
    let mut play = Play::of(course(effects, Ends::AtStock, &[BASELINE, ASCENT, TRIM]));
    after_passes(&mut play, 6, 44);
    stop(&mut play, Said::Stop);
    assert_eq!(asked(&play).changes().len(), 2);
    play.in_force.insert("clock".into(), Decimal::from(42));
    let in_force: InForce = [("clock".to_owned(), Decimal::from(42))].into();
    restart(&mut play, in_force);
    let left = asked(&play);
    let [change] = left.changes() else { panic!("{left:?}") };
    assert_eq!((change.setting.as_str(), change.to), ("volts", Decimal::from(125)));
    assert_eq!(play.story.question, Some(Question::Change { errand: left }), "and shown as asked");
    make(&mut play);
    assert!(play.climb.is_ended(), "{}", play.log(4));
    assert_eq!(not_at_stock(&play), [""; 0]);
}

#[test]
fn a_budget_counts_visits() {
    let plain = course(BY_HAND, Ends::AtStock, &[BASELINE, ASCENT]);
    let mut plan = (*plain.plan).clone();
    plan.budget.changes = Some(2);
    let Strategy::Ascend(clock_steps) = plan.stages[1].strategy.clone() else { panic!("an ascent") };
    let Strategy::Trim(volts) = Course::plain().plan.stages[TRIM].strategy.clone() else { panic!("a trim") };
    // A profile that differs from stock in both settings is one visit away.
    let both = plain.rig.stock().with("clock", 44.into()).with("volts", 127.into());
    plan.stages[1].strategy = Strategy::Feed { steps: clock_steps, feed: volts };
    plan.stages[1].start = Start::Profile(both);
    let mut play = Play::of(Course { plan: Arc::new(plan), ..plain });
    after_passes(&mut play, 1, 60);
    assert_eq!(play.in_force["volts"], Decimal::from(127));
    let trials = play.story.trials.len();
    after_passes(&mut play, 9, 60);
    assert_eq!(play.story.trials.len(), trials + 1, "one more visit, and the budget is spent: {}", play.log(6));
}

#[test]
fn a_climb_ends_where_its_plan_says() {
    for (ends, at) in [(Ends::AtStock, 42), (Ends::AtMark, 44)] {
        let mut play = Play::of(course(AT_ONCE, ends, &[BASELINE, ASCENT]));
        after_passes(&mut play, usize::MAX, 44);
        assert_eq!(clock(&play), at, "{ends:?}: {}", play.log(6));
        assert_eq!(play.climb.left_at().is_some(), ends == Ends::AtMark);
        assert_eq!(not_at_stock(&play).is_empty(), ends == Ends::AtStock, "what is off stock is told all the same");
        let stays = play.log(1).contains("the rig stays at its mark");
        assert_eq!(stays, ends == Ends::AtMark, "{}", play.log(1));
    }
}

#[test]
fn what_is_stopped_goes_to_stock_unless_it_is_told_to_stay() {
    for (said, at) in [(Said::Stop, 42), (Said::StopAtMark, 44)] {
        let mut play = Play::of(course(AT_ONCE, Ends::AtStock, &[BASELINE, ASCENT, BASELINE]));
        until_marked(&mut play);
        stop(&mut play, said.clone());
        assert!(play.climb.is_ended(), "{}", play.log(6));
        assert_eq!(clock(&play), at, "{said:?}: {}", play.log(6));
    }
}

#[test]
fn without_a_mark_there_is_nowhere_to_stay() {
    let mut play = Play::begun();
    stop(&mut play, Said::StopAtMark);
    assert!(play.climb.is_ended() && play.climb.left_at().is_none());
    assert_eq!(clock(&play), 42);
}

#[test]
fn where_the_way_to_the_mark_fails_the_rig_goes_to_stock() {
    let mut play = Play::of(course(BY_HAND, Ends::AtStock, &[BASELINE, ASCENT, BASELINE]));
    until_marked(&mut play);
    stop(&mut play, Said::StopAtMark);
    let to_mark = asked(&play);
    assert!(to_mark.changes().iter().any(|change| change.to == Decimal::from(44)), "{to_mark:?}");
    play.say(Said::NoStart);
    visits_home(&mut play);
    assert_eq!(clock(&play), 42, "{}", play.log(8));
    let ended = play.story.ended.as_ref().expect("over");
    assert_eq!((ended.end.clone(), ended.left_at.clone()), (ClimbEnd::Stopped, None));
}

#[test]
fn a_start_that_brings_another_value_is_held_against_the_trial_before_the_rest_is_asked_for() {
    let effects = [TakesEffect::AtNextStart, TakesEffect::ByHand];
    let plain = course(effects, Ends::AtStock, &[BASELINE, ASCENT]);
    let mut plan = (*plain.plan).clone();
    plan.stages[1].start = Start::Profile(plain.rig.stock().with("clock", 43.into()).with("volts", 127.into()));
    let mut play = Play::of(Course { plan: Arc::new(plan), ..plain });
    play.pass_ends(&[]);
    assert_eq!(asked(&play).changes().len(), 2, "{}", play.log(3));
    let trials = play.story.trials.len();
    let in_force: InForce = [("clock".to_owned(), Decimal::from(42))].into();
    restart(&mut play, in_force);
    assert_eq!(
        play.story.trial(trials as u32).and_then(|trial| trial.verdict),
        Some(Verdict::Slipped),
        "{}",
        play.log(4)
    );
}
