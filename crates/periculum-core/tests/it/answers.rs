//! Changes that the rig makes by itself and that are answered late, or never.

use periculum_core::engine::{Command, Event, Said};
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::Span;

use crate::play::Play;

/// A climb whose first step up is being applied.
fn applying() -> Play {
    let mut play = Play { is_slow: true, ..Play::begun() };
    play.pass_ends(&[]);
    assert!(play.climb.is_applying() && play.climb.needs_time(), "{}", play.log(3));
    play
}

/// Says something while a change is unanswered: nothing else is ordered, and the change is answered then.
fn says_and_is_answered(play: &mut Play, said: Said) {
    let change = play.command.take();
    play.say(said);
    assert_eq!(play.command, None, "nothing else is ordered before the answer");
    play.command = change;
    play.change_is_answered();
}

#[test]
fn who_stops_while_something_changes_is_heard_when_it_has() {
    let mut play = applying();
    says_and_is_answered(&mut play, Said::Stop);
    assert!(play.log(4).contains("going back to stock: the operator stopped it"), "{}", play.log(6));
    // Told again on the way, the rig stays where the change that is under way brings it.
    says_and_is_answered(&mut play, Said::Stop);
    assert!(play.climb.is_ended(), "{}", play.log(6));
    assert!(play.log(2).contains("the climb is over: the operator stopped it"), "{}", play.log(6));
}

#[test]
fn who_leaves_while_something_changes_finds_the_climb_waiting_at_stock() {
    for said in [Said::Leave, Said::Suspend] {
        let mut play = applying();
        says_and_is_answered(&mut play, said);
        while !play.climb.is_paused() {
            play.change_is_answered();
        }
        assert_eq!(
            play.in_force,
            play.course.rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect()
        );
        play.say(Said::Resume);
        play.change_is_answered();
        assert!(play.runs_a_pass() || play.climb.is_applying(), "{}", play.log(6));
    }
}

#[test]
fn what_was_seen_while_something_changes_ends_its_trial_without_a_pass() {
    let mut play = applying();
    says_and_is_answered(&mut play, Said::Saw { text: "stripes".into(), trial: None });
    assert!(play.log(6).contains("trial 2 slipped"), "{}", play.log(6));
}

#[test]
fn a_change_that_is_never_answered_has_not_been_taken() {
    let mut play = applying();
    let trial = play.climb.trials();
    play.now += 300_000;
    play.event(&Event::TIME_PASSED);
    assert!(play.climb.is_applying(), "it may take minutes");
    play.now += 301_000;
    play.event(&Event::TIME_PASSED);
    assert!(play.log(6).contains("has not answered for 10 min"), "{}", play.log(6));
    assert!(play.log(6).contains(&format!("trial {trial} slipped")), "{}", play.log(6));
    assert!(
        matches!(&play.command, Some(Command::Apply(errand)) if errand.changes()[0].from.is_none()),
        "{:?}",
        play.command
    );
}

#[test]
fn a_change_that_fails_after_a_word_fails_and_the_word_counts() {
    let mut play = applying();
    play.say(Said::Stop);
    play.is_slow = false;
    play.event(&Event::ApplyFailed { incident: Incident::new(IncidentKind::Freeze, "as played") });
    assert!(play.climb.is_ended(), "{}", play.log(6));
    assert!(play.log(3).contains("the rig is back at stock"), "{}", play.log(6));
}

#[test]
fn a_program_that_dies_while_something_changes_does_what_it_was_told() {
    let mut play = applying();
    play.say(Said::Stop);
    play.is_slow = false;
    play.restarted(periculum_core::model::ending::Ending::ProgramDied, None::<Span>);
    assert!(play.climb.is_ended(), "{}", play.log(6));
}
