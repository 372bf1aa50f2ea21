//! Changes that go back unless somebody says that all is well with them.

use std::sync::Arc;

use periculum_core::engine::{Answer, Event, Question, Said};
use periculum_core::model::ending::Ending;
use periculum_core::model::incident::IncidentKind;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::verdict::Verdict;

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
