//! Changes that go back unless somebody says that all is well with them.

use std::collections::BTreeMap;
use std::sync::Arc;

use periculum_core::engine::{Answer, Event, Question, Said};
use periculum_core::model::check::Check;
use periculum_core::model::ending::Ending;
use periculum_core::model::incident::IncidentKind;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::rig::Sensor;
use periculum_core::model::verdict::Verdict;
use periculum_core::telling::ask;

use crate::chaos::Course;
use crate::play::Play;

/// A climb whose clock goes back after twenty seconds without a word, behind its baseline.
fn tethered() -> Play {
    let plain = Course::plain();
    let mut rig = (*plain.rig).clone();
    rig.settings[0].confirm = Some(Span::from_seconds(20));
    let mut play = Play::of(Course { rig: Arc::new(rig), ..plain });
    play.pass_ends(&[]);
    play
}

fn asked(play: &Play) -> (i64, Moment) {
    let Some(Question::Confirm { errand, until }) = play.climb.question() else { panic!("{}", play.log(4)) };
    (errand.changes()[0].to.try_into().expect("a whole number"), until)
}

#[test]
fn a_word_lets_it_go_on_and_stock_needs_none() {
    let mut play = tethered();
    let (value, until) = asked(&play);
    assert_eq!((value, until.since(Moment::from_millis(play.now))), (43, Span::from_seconds(20)), "{}", play.log(4));
    assert!(play.climb.needs_time() && play.climb.is_confirming() && !play.runs_a_pass());
    assert_eq!(play.climb.question().expect("asked").usual_answer(), Answer::Done);
    play.event(&Event::TIME_PASSED);
    assert!(play.climb.is_confirming(), "there is time left");
    play.say(Answer::Done.into());
    assert!(play.runs_a_pass(), "{}", play.log(4));
    // What falls goes home without a question.
    play.pass_ends(&[]);
    play.say(Answer::Done.into());
    play.pass_ends(&[IncidentKind::Restart]);
    play.in_force.insert("clock".into(), 42.into());
    play.say(Said::Stop);
    assert!(play.climb.question().is_none(), "{}", play.log(4));
}

#[test]
fn without_a_word_it_goes_back_and_the_trial_fell() {
    let mut play = tethered();
    for _ in 0..40 {
        if !play.climb.is_confirming() {
            break;
        }
        play.event(&Event::TIME_PASSED);
    }
    let trial = play.story.trial(2).expect("a trial");
    assert_eq!(
        (trial.verdict, trial.incident),
        (Some(Verdict::Fell), Some(IncidentKind::NoPicture)),
        "{}",
        play.log(5)
    );
    let told = play.log(8);
    assert!(told.contains("nobody said that all is well, and it goes back"), "{told}");
    // It was set back before anything else was tried, and nobody is asked any more.
    assert_eq!((play.in_force["clock"], play.climb.question()), (42.into(), None), "{told}");
    assert!(play.story.marks.is_empty());
}

#[test]
fn what_is_seen_to_be_wrong_goes_back_at_once() {
    let mut play = tethered();
    play.say(Said::WrongPicture { what: "stripes".into() });
    let trial = play.story.trial(2).expect("a trial");
    assert_eq!((trial.verdict, trial.incident), (Some(Verdict::Fell), Some(IncidentKind::Artefact)), "{}", play.log(5));
    assert_eq!(play.in_force["clock"], 42.into(), "{}", play.log(5));
}

/// A climb whose clock goes back unless its picture is seen by a sensor, behind its baseline.
fn checked() -> Play {
    let plain = Course::plain();
    let mut rig = (*plain.rig).clone();
    rig.settings[0].confirm = Some(Span::from_seconds(20));
    let frames = Check { sensor: "frames".into(), at_least: Some(24.into()), at_most: None };
    rig.settings[0].confirmed_by = Some(frames);
    rig.sensors.push(Sensor { label: "frames shown".into(), unit: "1/s".into(), ..Sensor::plain("frames") });
    let mut play = Play::of(Course { rig: Arc::new(rig), ..plain });
    play.pass_ends(&[]);
    play
}

fn reads(play: &mut Play, frames: f64) {
    let readings = [("frames".to_owned(), frames)].into();
    play.event(&Event::Sample { readings, highest: BTreeMap::new() });
}

#[test]
fn a_sensor_lets_it_go_on_once_it_has_settled_and_that_is_on_record() {
    let mut play = checked();
    assert!(!play.climb.needs_somebody() && play.climb.is_confirming(), "{}", play.log(4));
    let asked = ask(&play.climb.question().expect("asked"), &play.course.rig);
    assert!(asked.ends_with("unless frames shown reads 24 1/s at least"), "{asked}");
    reads(&mut play, 118.0);
    reads(&mut play, 118.0);
    assert!(play.climb.is_confirming(), "what it reads at once says nothing: {}", play.log(4));
    reads(&mut play, 12.0);
    assert!(play.climb.is_confirming(), "that is no picture: {}", play.log(4));
    reads(&mut play, 118.0);
    assert!(play.runs_a_pass(), "{}", play.log(4));
    assert!(play.log(3).contains("all is well, as frames shown reads 118 1/s"), "{}", play.log(3));
    assert!(!play.log(9).contains("operator says"), "nobody is said to have said it: {}", play.log(9));
    // Somebody may say so first, or that it is wrong.
    play.pass_ends(&[]);
    play.say(Answer::Done.into());
    assert!(play.runs_a_pass(), "{}", play.log(4));
}

#[test]
fn a_sensor_that_reads_something_else_or_nothing_lets_it_go_back() {
    for frames in [Some(0.0), Some(f64::NAN), None] {
        let mut play = checked();
        for _ in 0..40 {
            match frames.filter(|_| play.climb.is_confirming()) {
                Some(frames) => reads(&mut play, frames),
                None => play.event(&Event::Sample { readings: BTreeMap::new(), highest: BTreeMap::new() }),
            }
            if play.climb.is_confirming() {
                play.event(&Event::TIME_PASSED);
            }
        }
        let trial = play.story.trial(2).expect("a trial");
        assert_eq!(trial.incident, Some(IncidentKind::NoPicture), "{frames:?}: {}", play.log(6));
    }
}

#[test]
fn who_leaves_or_dies_while_it_waits_leaves_nothing_behind() {
    let mut play = tethered();
    play.say(Said::Leave);
    assert!(play.climb.is_paused() && play.climb.question().is_none(), "{}", play.log(4));
    assert_eq!(play.in_force["clock"], 42.into());
    let mut play = tethered();
    play.restarted(Ending::ProgramDied, None);
    assert!(play.climb.is_confirming() || play.runs_a_pass() || play.climb.is_paused(), "{}", play.log(4));
    let mut play = tethered();
    play.restarted(Ending::MachineRestarted, Some(Span::from_seconds(3)));
    assert!(!play.climb.is_ended(), "{}", play.log(4));
    assert_ne!(play.story.trial(2).and_then(|trial| trial.verdict), Some(Verdict::Held));
}
