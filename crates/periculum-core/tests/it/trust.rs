//! What the engine believes, and what it does not: no word, no start and no silence of an interface makes a rung hold.

use std::collections::BTreeMap;
use std::sync::Arc;

use periculum_core::Decimal;
use periculum_core::engine::{ClimbEnd, Command, Event, Noted, Question, RULES, Said};
use periculum_core::model::ending::Ending;
use periculum_core::model::errand::Errand;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::Span;
use periculum_core::model::pass::PassReport;
use periculum_core::model::rung::InForce;
use periculum_core::model::setting::TakesEffect;
use periculum_core::model::verdict::Verdict;

use crate::chaos::Course;
use crate::play::Play;

/// The plain course with a clock that takes effect like this, at its first harder rung.
fn waiting(takes_effect: TakesEffect) -> Play {
    let mut course = Course::plain();
    let mut rig = (*course.rig).clone();
    rig.settings[0].takes_effect = takes_effect;
    course.rig = Arc::new(rig);
    let mut play = Play::of(course);
    play.pass_ends(&[]);
    assert!(matches!(play.command, Some(Command::Ask(_))), "{:?}", play.command);
    play
}

fn with_clock(play: &Play, clock: i64) -> InForce {
    let mut in_force = play.in_force.clone();
    in_force.insert("clock".into(), Decimal::from(clock));
    in_force
}

fn restarted(play: &mut Play, in_force: InForce, unattended: bool) {
    let (ending, lived) = (Ending::MachineRestarted, None);
    let (last_words, lived_at_most, rules) = (None, None, RULES);
    play.event(&Event::Restarted { ending, lived, lived_at_most, in_force, unattended, last_words, rules });
}

fn asked(play: &Play) -> Errand {
    let Some(Question::Change { errand }) = play.climb.question() else { panic!("nothing is asked") };
    errand
}

fn last_verdict(play: &Play) -> Option<Verdict> {
    play.story.trials.iter().rev().find_map(|trial| trial.verdict)
}

#[test]
fn an_orderly_end_leaves_what_waits_for_a_start_in_place() {
    let mut play = waiting(TakesEffect::AtNextStart);
    let change = asked(&play);
    play.say(Said::Suspend);
    assert_eq!((play.command.clone(), asked(&play)), (None, change.clone()), "nothing is taken back");
    let in_force = with_clock(&play, 43);
    restarted(&mut play, in_force, true);
    assert!(play.runs_a_pass(), "the start brought it into force: {}", play.log(4));
    assert_eq!(play.story.incidents.len(), 0, "{}", play.log(4));
}

#[test]
fn an_orderly_end_in_a_pass_takes_home_only_what_takes_effect_at_once() {
    let mut play = waiting(TakesEffect::AtNextStart);
    let in_force = with_clock(&play, 43);
    restarted(&mut play, in_force, false);
    play.say(Said::Suspend);
    play.pass_is_stopped();
    assert!(play.climb.is_paused() && play.climb.question().is_none(), "{}", play.log(6));
    let again = with_clock(&play, 43);
    restarted(&mut play, again, true);
    assert!(play.runs_a_pass(), "{}", play.log(6));
    let verdicts: Vec<_> = play.story.trials.iter().filter_map(|trial| trial.verdict).collect();
    assert_eq!(verdicts, [Verdict::Held, Verdict::Void]);
    assert_eq!(play.story.incidents.len(), 0, "nothing died: {}", play.log(6));
}

#[test]
fn a_wish_to_leave_while_a_pass_is_being_stopped_is_kept() {
    let mut play = Play::begun();
    play.event(&Event::Noticed { incidents: vec![Incident::new(IncidentKind::CorrectedError, "counted")] });
    play.command = Some(Command::StopPass);
    play.say(Said::Leave);
    play.command = Some(Command::StopPass);
    play.pass_is_stopped();
    assert!(play.climb.is_paused() || play.climb.is_ended(), "{}", play.log(6));
}

#[test]
fn done_without_a_start_is_declined_and_asked_again() {
    let mut play = waiting(TakesEffect::AtNextStart);
    let (errand, reported) = (asked(&play), play.in_force.clone());
    play.event(&Event::ChangeMade { reported, started_anew: false, noted: Noted::default() });
    assert_eq!(asked(&play), errand);
    assert_eq!(play.story.question, Some(Question::Change { errand }), "and shown as asked");
    assert!(play.log(2).contains("has not been started anew"), "{}", play.log(2));
}

#[test]
fn a_start_that_brought_another_value_is_not_taken_and_never_held() {
    for by_word in [true, false] {
        let mut play = waiting(TakesEffect::AtNextStart);
        let reported = play.in_force.clone();
        if by_word {
            play.event(&Event::ChangeMade { reported, started_anew: true, noted: Noted::default() });
        } else {
            restarted(&mut play, reported, true);
        }
        assert_eq!(last_verdict(&play), Some(Verdict::Slipped), "{}", play.log(5));
        assert_eq!(play.story.incidents[0].incident.kind, IncidentKind::NotTaken);
    }
}

#[test]
fn what_a_person_changed_is_held_against_what_can_be_read_back() {
    let mut play = waiting(TakesEffect::ByHand);
    let mut reported = play.in_force.clone();
    reported.insert("volts".into(), Decimal::from(120));
    reported.remove("clock");
    play.event(&Event::ChangeMade { reported, started_anew: false, noted: Noted::default() });
    // The clock was read back at the start, so it is silent now; the voltage has changed by itself.
    assert!(play.log(6).contains("left at 125, reported 120"), "{}", play.log(6));
    assert_eq!(last_verdict(&play), Some(Verdict::Slipped));
}

#[test]
fn what_can_not_be_read_back_any_more_is_tried_again_and_then_slips() {
    let mut play = Play::begun();
    let silent = InForce::from([("volts".to_owned(), play.in_force["volts"])]);
    let mut climb = play.climb.clone();
    let mut event = Event::PassEnded { report: PassReport::default(), reported: None };
    let why = BTreeMap::from([("clock".to_owned(), "no such device".to_owned())]);
    let unreadable = climb.next(play.story.latest, &Event::Unreadable { settings: why, sensors: BTreeMap::new() });
    assert!(unreadable.is_silent());
    // Whatever is applied from now on, the clock says nothing.
    for _ in 0..3 {
        let step = climb.next(play.story.latest, &event);
        step.entries.iter().for_each(|entry| play.story.tell(step.at, entry));
        assert!(matches!(step.command, Some(Command::Apply(_))), "no pass runs on it: {step:?}");
        event = Event::Applied { reported: silent.clone() };
    }
    let verdicts: Vec<_> = play.story.trials.iter().filter_map(|trial| trial.verdict).collect();
    assert_eq!(verdicts, [Verdict::Held, Verdict::Void, Verdict::Slipped]);
    assert!(play.log(9).contains("it could be read back before, and now it can't (no such device)"), "{}", play.log(9));
}

#[test]
fn a_value_that_firmware_put_back_during_a_pass_is_not_taken() {
    let mut play = Play::begun();
    play.pass_ends(&[]);
    assert!(play.runs_a_pass());
    let reported = with_clock(&play, 42);
    play.event(&Event::PassEnded { report: PassReport::default(), reported: Some(reported) });
    assert_eq!(last_verdict(&play), Some(Verdict::Slipped), "{}", play.log(4));
}

#[test]
fn a_remark_or_a_sighting_leaves_the_question_standing() {
    let mut play = waiting(TakesEffect::ByHand);
    let question = play.climb.question();
    play.say(Said::Note { text: "cold today".into() });
    play.say(Said::Saw { text: "stripes".into(), trial: None });
    play.say(Said::Saw { text: "  ".into(), trial: None });
    assert_eq!((play.climb.question(), play.story.question.clone()), (question.clone(), question));
    assert_eq!(play.story.incidents.len(), 1, "an empty sighting is none");
}

#[test]
fn a_sighting_belongs_to_the_trial_that_ran_when_it_was_seen() {
    let mut play = Play::begun();
    play.pass_ends(&[]);
    play.pass_ends(&[]);
    assert_eq!(play.story.open_trial().map(|trial| trial.number), Some(3));
    play.say(Said::Saw { text: "stripes".into(), trial: Some(2) });
    play.pass_is_stopped();
    let verdicts: Vec<_> = play.story.trials.iter().map(|trial| trial.verdict).collect();
    assert_eq!(verdicts, [Some(Verdict::Held), Some(Verdict::Slipped), Some(Verdict::Void), None], "{}", play.log(9));
    assert!(play.log(9).contains("trial 4: clock 42"), "it goes back from what was seen: {}", play.log(9));
}

#[test]
fn a_sighting_that_comes_late_takes_the_mark_away() {
    let mut play = Play::begun();
    for held in [true, true, false, true] {
        play.pass_ends(if held { &[] } else { &[IncidentKind::WrongResult] });
    }
    let mark = play.story.marks.last().expect("a mark").clone();
    play.say(Said::Saw { text: "stripes".into(), trial: Some(mark.trial) });
    assert!(!play.story.marks.contains(&mark), "{}", play.log(4));
    assert_eq!(play.story.trials[mark.trial as usize - 1].verdict, Some(Verdict::Slipped));
}

#[test]
fn defaults_on_the_way_back_condemn_only_the_change() {
    let mut play = waiting(TakesEffect::ByHand);
    play.event(&Event::ChangeMade { reported: InForce::new(), started_anew: false, noted: Noted::default() });
    while !play.runs_a_pass() {
        let reported = play.in_force.clone();
        play.event(&Event::ChangeMade { reported, started_anew: false, noted: Noted::default() });
    }
    play.pass_ends(&[IncidentKind::WrongResult]);
    let errand = asked(&play);
    assert!(errand.changes().iter().all(|change| change.from > Some(change.to)), "back: {errand:?}");
    let trials = play.story.trials.len();
    play.say(Said::Defaults);
    assert_eq!(play.story.trials.len(), trials, "the trial goes on: {}", play.log(4));
    assert_eq!(play.story.open_trial().map(|trial| trial.number as usize), Some(trials));
}

#[test]
fn a_pass_without_a_round_gets_more_time_once_and_then_says_what_to_change() {
    let mut play = Play::begun();
    let unchecked = |seconds| Event::PassEnded {
        report: PassReport { ran: Span::from_seconds(seconds), unchecked: true, ..PassReport::default() },
        reported: None,
    };
    play.event(&unchecked(60));
    let Some(Command::RunPass(order)) = play.command.clone() else { panic!("{:?}", play.command) };
    assert_eq!(order.pass.length, Span::from_seconds(240));
    play.event(&unchecked(240));
    let verdicts: Vec<_> = play.story.trials.iter().map(|trial| trial.verdict).collect();
    assert_eq!(verdicts, [Some(Verdict::Void); 2]);
    let end = play.story.ended.as_ref().map(|ended| ended.end.sentence()).unwrap_or_default();
    assert!(end.contains("not every core finished a round") && end.contains("give the pass more time"), "{end}");
}

#[test]
fn a_pass_that_does_not_stop_is_pressed_and_then_told() {
    let mut play = Play::begun();
    play.event(&Event::Sample { readings: BTreeMap::from([("core".to_owned(), 99.0)]), highest: BTreeMap::new() });
    assert_eq!(play.command, Some(Command::StopPass));
    let mut again = 0;
    for _ in 0..30 {
        play.event(&Event::TIME_PASSED);
        again += u32::from(play.command == Some(Command::StopPass));
    }
    assert_eq!(again, 1, "told again once, harder");
    assert!(play.climb.is_in_trouble(), "{}", play.log(3));
    assert!(play.log(1).contains("the machine is in trouble"), "{}", play.log(1));
}

#[test]
fn a_sudden_death_is_told_as_the_time_between_two_signs_of_life() {
    let mut play = Play::begun();
    let (ending, last_words, rules) = (Ending::MachineRestarted, None, RULES);
    let [lived, lived_at_most] = [3, 4].map(|seconds| Some(Span::from_seconds(seconds)));
    let in_force = play.in_force.clone();
    play.event(&Event::Restarted { ending, lived, lived_at_most, in_force, unattended: false, last_words, rules });
    assert!(play.log(9).contains("restart after 3 s to 4 s"), "{}", play.log(9));
}

#[test]
fn starts_that_were_asked_for_are_not_counted_as_going_down() {
    let mut play = waiting(TakesEffect::AtNextStart);
    for clock in [43, 44] {
        let in_force = with_clock(&play, clock);
        restarted(&mut play, in_force, true);
        assert!(play.runs_a_pass(), "{}", play.log(5));
        play.pass_ends(&[]);
    }
    let stock = with_clock(&play, 42);
    for _ in 0..2 {
        restarted(&mut play, stock.clone(), true);
    }
    assert!(!play.climb.is_ended(), "{}", play.log(5));
}

#[test]
fn a_one_thread_pass_runs_on_the_core_whose_setting_climbs() {
    let mut course = Course::plain();
    let mut rig = (*course.rig).clone();
    rig.settings[0].drives = vec![3];
    let mut plan = (*course.plan).clone();
    plan.proofs[0].passes[0].threads = periculum_core::model::pass::Threads::Count(1);
    (course.rig, course.plan) = (Arc::new(rig), Arc::new(plan));
    let mut play = Play::of(course);
    let cores = |play: &Play| match &play.command {
        Some(Command::RunPass(order)) => order.cores.clone(),
        other => panic!("{other:?}"),
    };
    assert_eq!(cores(&play), [0; 0], "the baseline is about no core");
    play.pass_ends(&[]);
    assert_eq!(cores(&play), [3]);
}

#[test]
fn who_was_told_to_stop_stops_even_where_something_dies_of_it() {
    for ending in [Ending::ProgramDied, Ending::MachineRestarted] {
        let mut play = Play::begun();
        play.say(Said::Stop);
        play.restarted(ending, Some(Span::from_seconds(3)));
        assert!(play.climb.is_ended(), "{}", play.log(6));
        let ended = play.story.ended.as_ref().map(|ended| ended.end.clone());
        assert_eq!(ended, Some(ClimbEnd::Stopped), "{}", play.log(6));
        assert_eq!(last_verdict(&play), Some(Verdict::Void));
        assert_eq!(play.story.tested(), Span::from_seconds(3), "what it ran counts");
    }
}
