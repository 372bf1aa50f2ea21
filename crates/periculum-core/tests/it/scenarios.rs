//! What the engine does in the situations that an operator knows, told as its logbook tells them.

use std::collections::BTreeMap;
use std::sync::Arc;

use crate::chaos::Course;
use crate::play::Play;
use periculum_core::Decimal;
use periculum_core::engine::{Command, Entry, Event, Prospect, Question, RULES, Said};
use periculum_core::model::ending::Ending;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{PassReport, Progress, Score};
use periculum_core::model::rung::InForce;
use periculum_core::model::setting::TakesEffect;
use periculum_core::story::readback::of_trial;

#[test]
fn a_whole_climb_is_told() {
    let mut play = Play::begun();
    for held in [true, true, true, false, true, true, false, true] {
        play.pass_ends(if held { &[] } else { &[IncidentKind::WrongResult] });
    }
    assert!(play.climb.is_ended());
    insta::assert_snapshot!(play.log(100));
}

#[test]
fn a_pause_comes_after_the_pass_and_ends_when_the_operator_says_so() {
    let mut play = Play::begun();
    play.say(Said::Pause);
    assert!(!play.climb.is_paused());
    play.pass_ends(&[]);
    assert!(play.climb.is_paused() && play.command.is_none());
    play.say(Said::Resume);
    assert!(play.runs_a_pass());
    play.say(Said::Pause);
    play.say(Said::Resume);
    play.pass_ends(&[]);
    assert!(!play.climb.is_paused(), "a pause that was taken back does not come");
    insta::assert_snapshot!(play.log(12));
}

#[test]
fn a_sensor_over_its_cut_off_stops_the_pass_and_the_rung_slipped() {
    let mut play = Play::begun();
    let sample = |reading: f64| Event::Sample {
        readings: BTreeMap::from([("core".to_owned(), reading)]),
        highest: BTreeMap::new(),
    };
    play.event(&sample(95.0));
    assert_eq!(play.command, None, "at the cut-off is not over it");
    play.event(&sample(95.1));
    play.event(&sample(99.0));
    assert_eq!(play.command, None, "it is told to stop once");
    play.command = Some(Command::StopPass);
    play.pass_is_stopped();
    insta::assert_snapshot!(play.log(6));
}

#[test]
fn what_the_hardware_counts_ends_the_pass_and_the_rung_slipped() {
    let mut play = Play::begun();
    play.pass_ends(&[]);
    let counted = Incident::new(IncidentKind::CorrectedError, "2 more corrected memory errors").at("Slot A2");
    play.event(&Event::Noticed { incidents: vec![counted.clone()] });
    play.pass_is_stopped();
    insta::assert_snapshot!(play.log(4));
    play.say(Said::Stop);
    play.pass_is_stopped();
    play.event(&Event::Noticed { incidents: vec![counted] });
    assert!(play.climb.is_ended(), "what comes later is told and changes nothing");
}

/// A setting that is in force at the next start: the climb waits for it, and goes on by itself.
#[test]
fn a_machine_that_starts_with_what_was_written_for_it_goes_on() {
    let mut course = Course::plain();
    let mut rig = (*course.rig).clone();
    rig.settings[0].takes_effect = TakesEffect::AtNextStart;
    course.rig = Arc::new(rig);
    let mut play = Play::of(course);
    play.pass_ends(&[]);
    let Some(Command::Ask(Question::Change { errand })) = play.command.clone() else { panic!("{:?}", play.command) };
    let [change] = errand.changes() else { panic!("{errand:?}") };
    assert!(!play.climb.is_on_trial(), "nobody watches a machine that waits to be started");
    play.event(&Event::Restarted {
        ending: Ending::ProgramDied,
        lived: None,
        in_force: play.in_force.clone(),
        unattended: false,
        last_words: None,
        lived_at_most: None,
        rules: RULES,
    });
    assert!(matches!(play.command, Some(Command::Ask(_))), "it has not been started yet");
    play.in_force.insert(change.setting.clone(), change.to);
    play.event(&Event::Restarted {
        ending: Ending::MachineRestarted,
        lived: None,
        in_force: play.in_force.clone(),
        unattended: false,
        last_words: Some("nothing of note".into()),
        lived_at_most: None,
        rules: RULES,
    });
    assert!(play.runs_a_pass(), "{}", play.log(5));
    insta::assert_snapshot!(play.log(3));
}

#[test]
fn the_kernels_last_words_are_evidence_of_a_restart() {
    let mut play = Play::begun();
    play.pass_ends(&[]);
    play.event(&Event::Restarted {
        ending: Ending::MachineRestarted,
        lived: Some(Span::from_seconds(7)),
        in_force: play.in_force.clone(),
        unattended: false,
        last_words: Some("mce: fatal".into()),
        lived_at_most: None,
        rules: RULES,
    });
    assert!(play.log(10).contains("the kernel's last words: mce: fatal"), "{}", play.log(10));
}

#[test]
fn a_pass_that_does_not_end_is_stalled() {
    let mut play = Play::begun();
    play.now += 119_000;
    play.event(&Event::TIME_PASSED);
    assert_eq!(play.command, None);
    play.now += 60_000;
    play.event(&Event::TIME_PASSED);
    play.pass_is_stopped();
    insta::assert_snapshot!(play.log(5));
}

#[test]
fn what_the_operator_saw_ends_the_trial() {
    let mut play = Play::begun();
    play.pass_ends(&[]);
    play.say(Said::Saw { text: "stripes".into(), trial: None });
    play.pass_is_stopped();
    insta::assert_snapshot!(play.log(5));
}

#[test]
fn a_stop_takes_the_rig_home_and_keeps_what_was_found() {
    let mut play = Play::begun();
    for held in [true, true, false, true] {
        play.pass_ends(if held { &[] } else { &[IncidentKind::LoadDied] });
    }
    play.say(Said::Note { text: "the coolant is out".into() });
    play.say(Said::Stop);
    play.pass_is_stopped();
    assert!(play.climb.is_ended());
    assert_eq!(play.in_force["clock"], Decimal::from(42));
    assert_eq!(play.story.marks.len(), 1);
    insta::assert_snapshot!(play.log(8));
}

#[test]
fn a_climb_that_was_left_waits_at_stock_and_tries_the_rung_again() {
    let mut play = Play::begun();
    play.pass_ends(&[]);
    play.say(Said::Leave);
    play.pass_is_stopped();
    assert!(play.climb.is_paused());
    assert_eq!(play.in_force["clock"], Decimal::from(42));
    play.restarted(Ending::ProgramDied, None);
    assert!(play.runs_a_pass());
    assert_eq!(play.in_force["clock"], Decimal::from(43));
    assert!(play.story.incidents.is_empty(), "leaving is no incident");
    insta::assert_snapshot!(play.log(6));
}

#[test]
fn a_machine_that_dies_in_a_pass_condemns_the_rung_and_a_program_does_not() {
    let mut play = Play::begun();
    play.pass_ends(&[]);
    play.restarted(Ending::ProgramDied, Some(Span::from_seconds(20)));
    play.restarted(Ending::MachineFroze, Some(Span::from_seconds(41)));
    insta::assert_snapshot!(play.log(8));
}

#[test]
fn three_deaths_of_the_program_in_a_row_condemn_the_rung() {
    let mut play = Play::begun();
    play.pass_ends(&[]);
    for _ in 0..3 {
        play.restarted(Ending::ProgramDied, Some(Span::from_seconds(1)));
    }
    let verdicts: String =
        play.story.trials.iter().map(|trial| trial.verdict.map_or('○', |verdict| verdict.sign())).collect();
    assert_eq!(verdicts, "●––✕○");
}

#[test]
fn a_value_that_does_not_take_is_told_and_stepped_back_from() {
    let mut play = Play::begun();
    play.now += 1000;
    let ended = Event::PassEnded {
        report: PassReport { ran: Span::from_seconds(60), ..PassReport::default() },
        reported: None,
    };
    let step = play.climb.next(Moment::from_millis(play.now), &ended);
    for entry in &step.entries {
        play.story.tell(step.at, entry);
    }
    // The clock was asked for, and the firmware changed the voltage.
    let reported = [("clock".to_owned(), Decimal::from(43)), ("volts".to_owned(), Decimal::from(130))].into();
    play.in_force.insert("volts".into(), Decimal::from(130));
    play.event(&Event::Applied { reported });
    assert_eq!(play.in_force["volts"], Decimal::from(125), "it is put back for the next trial");
    let (asked, put_back) = (&play.story.trials[1], &play.story.trials[2]);
    let taken = |trial| of_trial(trial, &play.course.rig, &BTreeMap::new());
    let told = |trial| taken(trial).iter().map(|taken| (taken.reported, taken.was_taken())).collect::<Vec<_>>();
    assert_eq!(told(asked), [(Some(Decimal::from(43)), true), (Some(Decimal::from(130)), false)]);
    assert_eq!(told(put_back), [(Some(Decimal::from(42)), true), (Some(Decimal::from(125)), true)]);
    insta::assert_snapshot!(play.log(4));
}

/// What is read back belongs to the trial that it was applied for, and to none before or behind.
#[test]
fn what_is_read_back_is_told_of_its_own_trial() {
    let mut play = Play::begun();
    let stock: InForce = [("clock".to_owned(), Decimal::from(42)), ("volts".to_owned(), Decimal::from(125))].into();
    assert_eq!(play.story.trials[0].reported, stock, "nothing had to be applied");
    play.pass_ends(&[]);
    assert_eq!(play.story.trials[1].reported["clock"], Decimal::from(43));
    play.restarted(Ending::MachineRestarted, None);
    assert_eq!(
        play.story.trials[1].reported["clock"],
        Decimal::from(43),
        "the restart says nothing of what was on trial"
    );

    // The next change is not survived: nothing is known of its rung.
    let mut play = Play::begun();
    play.now += 1000;
    let ended = Event::PassEnded {
        report: PassReport { ran: Span::from_seconds(60), ..PassReport::default() },
        reported: None,
    };
    for event in [ended, Event::ApplyFailed { incident: Incident::new(IncidentKind::Freeze, "as played") }] {
        let step = play.climb.next(Moment::from_millis(play.now), &event);
        play.story.hear(&event);
        step.entries.iter().for_each(|entry| play.story.tell(step.at, entry));
    }
    assert!(play.story.trials[1].reported.is_empty());
}

#[test]
fn a_mark_whose_rung_falls_later_is_withdrawn() {
    let mut play = Play::begun();
    // Baseline, 43 holds, 44 falls, 43 again; trimmed to 124 it falls, and at 125, the mark, too; 126 holds.
    for held in [true, true, false, true, false, false, true] {
        play.pass_ends(if held { &[] } else { &[IncidentKind::WrongResult] });
    }
    let marks: Vec<_> = play.story.marks.iter().map(|mark| mark.rung.get("volts")).collect();
    assert_eq!(marks, [Some(Decimal::from(126))]);
    insta::assert_snapshot!(play.log(9));
}

#[test]
fn what_comes_next_is_known_beforehand_and_comes_true() {
    let mut play = Play::begun();
    play.pass_ends(&[]);
    for held in [true, false, true, true, false, true] {
        let outlook = play.climb.outlook().expect("a trial is open");
        let expected = if held { outlook.if_held } else { outlook.if_fell };
        play.pass_ends(if held { &[] } else { &[IncidentKind::WrongResult] });
        let last = play.story.trials.last().expect("a trial");
        match expected {
            Prospect::Try(rung, reason) => assert_eq!((&last.rung, &last.reason), (&rung, &reason)),
            Prospect::StageDone(rung, _) => {
                assert!(play.story.marks.iter().any(|mark| mark.rung == rung), "{rung:?}");
            }
            Prospect::NothingLeft | Prospect::Asks(_) => panic!("there is something left to do by itself"),
        }
    }
}

#[test]
fn nothing_is_said_to_events_that_do_not_fit() {
    let mut play = Play::begun();
    let before = play.climb.clone();
    let stray = [
        Event::Applied { reported: InForce::new() },
        Event::ApplyFailed { incident: Incident::new(IncidentKind::Freeze, "stray") },
        Event::Started { in_force: InForce::new(), ahead: 0, rules: RULES, kinds: Vec::new() },
        Event::PassProgress { progress: Progress::default() },
        Event::OperatorSaid { said: Said::from(periculum_core::engine::Answer::Done) },
        Event::OperatorSaid { said: Said::NoStart },
    ];
    for event in stray {
        let step = play.climb.next(Moment::from_millis(play.now), &event);
        assert!(step.is_silent(), "{event:?}: {step:?}");
    }
    assert_eq!(play.climb, before);
}

#[test]
fn entries_and_events_survive_the_journal() {
    let mut play = Play::begun();
    for held in [true, true, false, true, true, false, true] {
        play.pass_ends(if held { &[] } else { &[IncidentKind::Restart] });
    }
    for (_, entry) in &play.story.log {
        let text = serde_json::to_string(entry).expect("text");
        assert_eq!(&serde_json::from_str::<Entry>(&text).expect("an entry"), entry, "{text}");
    }
    let said = [
        Said::Saw { text: "é\n".into(), trial: Some(3) },
        Said::Leave,
        Said::Defaults,
        Said::Note { text: String::new() },
    ];
    for said in said {
        let event = Event::OperatorSaid { said };
        let text = serde_json::to_string(&event).expect("text");
        assert_eq!(serde_json::from_str::<Event>(&text).expect("an event"), event, "{text}");
    }
}

#[test]
fn a_gain_is_told_over_the_mean_of_the_baseline() {
    let mut play = Play::begun();
    assert_eq!(play.story.gain(), None);
    for value in [200.0, 210.0, 230.0] {
        let score = Some(Score::of(value, "GFLOP/s"));
        let report = PassReport { ran: Span::from_seconds(60), score, ..PassReport::default() };
        play.event(&Event::PassEnded { report, reported: None });
    }
    let (score, gain) = play.story.gain().expect("a gain");
    assert_eq!(score.value, 230.0);
    assert!((gain.change - 0.15).abs() < 1e-12, "{gain:?}");
    // What another load scores in the same unit says nothing of it.
    let mut story = play.story.clone();
    let last = story.trials.iter_mut().rev().find(|trial| trial.score().is_some()).expect("a trial");
    last.passes[0].order.load = "another".into();
    assert_eq!(story.gain().map(|(score, _)| score.value), Some(210.0), "the last of the same load");
}

#[test]
fn a_baseline_is_repeated_until_its_scores_are_known_well_enough() {
    let trials = |scores: &[f64]| {
        let mut play = Play::of(Course::measured());
        for value in scores {
            let score = Some(Score::of(*value, "GFLOP/s"));
            play.event(&Event::PassEnded { report: PassReport { score, ..PassReport::default() }, reported: None });
        }
        (play.story.trials.len(), play.climb.is_ended())
    };
    // Three are the fewest; 100, 101, 99 lie within 2.5 % and not within 1 %.
    assert_eq!(trials(&[100.0, 100.0]), (3, false));
    assert_eq!(trials(&[100.0, 100.0, 100.0]), (3, true));
    assert_eq!(trials(&[100.0, 101.0, 99.0]), (4, false));
    assert_eq!(trials(&[100.0, 150.0, 99.0, 120.0, 90.0]), (5, true));
}

#[test]
fn a_setting_that_would_not_go_home_is_named_at_the_end() {
    let mut play = Play::begun();
    play.pass_ends(&[]);
    play.say(Said::Stop);
    let report = PassReport { stopped: true, ..PassReport::default() };
    let mut event = Event::PassEnded { report, reported: None };
    // The way home is tried twice, from what is known and then straight, and is refused both times.
    for _ in 0..3 {
        play.now += 1000;
        let step = play.climb.next(Moment::from_millis(play.now), &event);
        for entry in &step.entries {
            play.story.tell(step.at, entry);
        }
        event = Event::ApplyFailed { incident: Incident::new(IncidentKind::NotTaken, "stuck") };
    }
    assert!(play.climb.is_ended());
    assert_eq!(play.log(1), "the climb is over: the operator stopped it; not known to be at stock: clock");
}
