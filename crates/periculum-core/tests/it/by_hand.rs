//! Passes that people make and sensors that people read: what is asked when, what comes of what they write down, and that none of it
//! is lost.

use std::sync::Arc;

use periculum_core::engine::{Climb, Entry, Event, Mark, Question, Said, decide_alike};
use periculum_core::files::{Document, Problems, plan_file, rig_file};
use periculum_core::model::ending::Ending;
use periculum_core::model::incident::IncidentKind;
use periculum_core::model::moment::Moment;
use periculum_core::model::verdict::Verdict;
use periculum_core::telling::before_changes;
use proptest::prelude::*;

use crate::chaos::Course;
use crate::play::Play;

const RIG: &str = r#"
format = 1
[rig]
name = "bridge"
where = "elsewhere"
[setting.bus]
unit = "MHz"
values = [10, 12, 14]
stock = 10
ceiling = { daily = 14 }
tolerance = 0.1
harder = "up"
takes_effect = "by-hand"
[setting.waits]
ladder = { from = 0, step = 1, to = 2 }
stock = 1
floor = 0
ceiling = { daily = 2 }
harder = "down"
takes_effect = "by-hand"
[derived.word]
unit = "ns"
formula = "(2 + waits) * 1000 / bus"
[sensor.room]
unit = "°C"
adapter = "by-hand"
when = "once"
[sensor.package]
unit = "°C"
cut_off = 60
adapter = "by-hand"
when = "loaded"
[sensor.litres]
unit = "l"
adapter = "by-hand"
when = "after"
"#;

const PLAN: &str = r#"
format = 1
[plan]
name = "hands"
rig = "r"
use = "daily"
[[proof.disc.passes]]
load = "disc"
by = "hand"
for = "4min"
ask = "Run the disc test"
fields.ticks = { unit = "ticks", better = "less", from = 1 }
fields.rate = { unit = "KiB/s", formula = "90000 / ticks" }
fields.picture = { words = ["clean", "snow"], right = "clean" }
[[stage]]
strategy = "ascend"
setting = "bus"
proof = "disc"
"#;

fn course() -> Course {
    let (rig, plan) = (Document::parse(RIG).expect("rig"), Document::parse(PLAN).expect("plan"));
    let problems = Problems::default();
    let rig = rig_file::read(&rig.top(&problems)).expect("a rig");
    let plan = plan_file::read(&plan.top(&problems), &rig, &[]).expect("a plan");
    assert!(problems.is_empty(), "{:?}", problems.into_sorted());
    Course { rig: Arc::new(rig), plan: Arc::new(plan) }
}

/// The climb with its first errand made, so that the room is asked for.
fn play() -> Play {
    let mut play = Play::unread(course());
    make_changes(&mut play);
    play
}

/// Somebody goes on every errand that is asked for; nothing is read back.
fn make_changes(play: &mut Play) {
    while play.climb.question().is_some_and(|question| question.errand().is_some()) {
        let noted = Default::default();
        play.event(&Event::ChangeMade { reported: Default::default(), started_anew: false, noted });
    }
}

fn line(play: &mut Play, line: &str) {
    play.say(Said::of_line(line).unwrap_or_else(|| panic!("`{line}` says nothing")));
    make_changes(play);
}

fn asked(play: &Play) -> Vec<String> {
    let question = play.climb.question().unwrap_or_else(|| panic!("nothing is asked: {}", play.log(4)));
    question.fields(&play.course.rig).into_iter().map(|field| field.name).collect()
}

fn verdicts(play: &Play) -> Vec<Option<Verdict>> {
    play.story.trials.iter().map(|trial| trial.verdict).collect()
}

#[test]
fn what_is_written_down_becomes_scores_and_conditions_and_the_climb_goes_on() {
    let mut play = play();
    assert_eq!(asked(&play), ["room"], "once, before everything");
    line(&mut play, "done room=21,5");
    assert_eq!(asked(&play), ["ticks", "picture", "package"]);
    line(&mut play, "done ticks=1 800 picture=Clean package=41.5");
    assert_eq!(asked(&play), ["litres"], "when the passes are over");
    assert_eq!(verdicts(&play), [None]);
    line(&mut play, "done");
    assert_eq!(verdicts(&play), [Some(Verdict::Held), None], "{}", play.log(6));
    let first = &play.story.trials[0];
    let scores: Vec<(String, f64)> = first
        .finished()
        .flat_map(|(order, report)| report.scores(&order.load).map(|(name, score)| (name, score.value)))
        .collect();
    assert_eq!(scores, [("disc ticks".to_owned(), 1800.0), ("disc rate".to_owned(), 50.0)]);
    let read: Vec<(&str, f64)> = first.read.iter().map(|(name, value)| (name.as_str(), *value)).collect();
    assert_eq!(read, [("package", 41.5), ("room", 21.5)], "litres were not read");
    assert_eq!(asked(&play), ["ticks", "picture", "package"], "the room is known by now");
    assert_eq!(play.story.trials[1].read.keys().collect::<Vec<_>>(), ["room"]);
}

#[test]
fn what_is_nothing_leaves_the_question_as_it_is() {
    let mut play = play();
    line(&mut play, "done");
    for wrong in [
        "done",
        "done ticks=0 picture=clean package=41",
        "done ticks=18 picture=blue package=41",
        "done ticks=18 picture=clean",
    ] {
        line(&mut play, wrong);
        assert_eq!((asked(&play).len(), verdicts(&play)), (3, vec![None]), "{wrong}");
    }
}

#[test]
fn everything_that_can_go_wrong_by_hand_decides_the_trial() {
    for (said, kind, verdict) in [
        ("hung", IncidentKind::Freeze, Verdict::Fell),
        ("no-start", IncidentKind::NoStart, Verdict::Fell),
        ("wrong-picture snow on the left", IncidentKind::Artefact, Verdict::Fell),
        ("done ticks=18 picture=snow package=41", IncidentKind::WrongResult, Verdict::Fell),
        ("done ticks=18 picture=clean package=61", IncidentKind::TooHot, Verdict::Slipped),
    ] {
        let mut play = play();
        line(&mut play, "done");
        line(&mut play, said);
        let first = &play.story.trials[0];
        assert_eq!((first.incident, first.verdict), (Some(kind), Some(verdict)), "{said}: {}", play.log(5));
    }
}

#[test]
fn a_reading_that_comes_unasked_counts_and_is_not_asked_for_again() {
    let mut play = play();
    line(&mut play, "done");
    line(&mut play, "read litres=3");
    line(&mut play, "done ticks=18 picture=clean package=41");
    assert_eq!(verdicts(&play)[0], Some(Verdict::Held), "nothing is left to be asked");
    assert_eq!(play.story.trials[0].read.get("litres"), Some(&3.0));
    assert_eq!(asked(&play), ["ticks", "picture", "package"]);
    line(&mut play, "read package=warm litres=");
    assert_eq!(asked(&play), ["ticks", "picture", "package"], "that was no reading");
    line(&mut play, "read package=75");
    assert_eq!(asked(&play), ["ticks", "picture"]);
    assert_eq!(play.story.incidents.last().map(|told| told.incident.kind), Some(IncidentKind::TooHot));
    line(&mut play, "done ticks=18 picture=clean");
    assert_ne!(play.story.trials[1].verdict, Some(Verdict::Held), "too hot is too hot, whoever read it");
}

#[test]
fn another_day_the_same_is_asked() {
    let mut play = play();
    line(&mut play, "done room=20");
    let question = play.climb.question();
    line(&mut play, "not-today");
    assert_eq!((play.climb.question(), &play.story.question), (question.clone(), &question), "it stands");
    play.restarted(Ending::ProgramDied, None);
    assert_eq!((play.climb.question(), &play.story.question), (question.clone(), &question));
    play.restarted(Ending::ProgramDied, None);
    assert_eq!(play.climb.question(), question, "and a program that dies takes nothing with it");
    assert_eq!(verdicts(&play), [None]);
}

#[test]
fn what_a_meter_says_is_held_against_what_was_asked_as_far_as_a_tolerance_goes() {
    let mut play = play();
    line(&mut play, "done");
    line(&mut play, "read litres=3");
    play.say(Said::of_line("done ticks=18 picture=clean package=41").expect("a line"));
    let question = play.climb.question().expect("an errand");
    let fields: Vec<String> = question.fields(&play.course.rig).into_iter().map(|field| field.name).collect();
    assert_eq!(fields, ["bus", "measured.bus", "waits"]);
    let written = [("measured.bus".to_owned(), "11,5".to_owned()), ("waits".to_owned(), "2".to_owned())].into();
    let noted = periculum_core::engine::Noted {
        shown: question.values(&play.course.rig, &written),
        measured: question.measurements(&play.course.rig, &written),
    };
    play.event(&Event::ChangeMade { reported: Default::default(), started_anew: false, noted });
    let told: Vec<String> = play.story.incidents.iter().map(|told| told.incident.to_string()).collect();
    assert_eq!(
        told,
        ["not-taken on waits: left at 1, reported 2", "not-taken on bus: asked for 12 MHz, measured 11.5 MHz"]
    );
    let second = &play.story.trials[1];
    let word = &play.course.rig.derived[0];
    assert_eq!(
        (second.verdict, second.derived(word)),
        (Some(Verdict::Slipped), word.value(&second.in_force()).map(|it| (it, true)))
    );
}

/// A line of somebody who may type anything.
fn lines() -> impl Strategy<Value = String> {
    let number = prop_oneof![Just("18".to_owned()), Just("0".to_owned()), Just("1 800".to_owned()), "\\PC{0,5}"];
    let picture = prop_oneof![Just("clean"), Just("snow"), Just("blue"), Just("")];
    let package = prop_oneof![Just(" package=41"), Just(" package=75"), Just(" package=x"), Just("")];
    let made = (number, picture, package)
        .prop_map(|(ticks, picture, package)| format!("done ticks={ticks} picture={picture}{package}"));
    let words = prop_oneof![
        Just("done"),
        Just("hung"),
        Just("no-start"),
        Just("wrong-picture"),
        Just("not-today"),
        Just("read room=19"),
        Just("read package=75"),
        Just("read package=warm"),
        Just("leave"),
        Just("try bus=14"),
        Just("take"),
    ];
    prop_oneof![4 => made, 2 => words.prop_map(str::to_owned), 1 => Just("kill".to_owned()), 1 => Just("note it hums".to_owned())]
}

proptest! {
    #[test]
    fn whatever_is_typed_nothing_is_lost_and_nothing_holds_that_was_not_right(typed in prop::collection::vec(lines(), 1..60)) {
        let mut play = play();
        let mut events = Vec::new();
        for typed in &typed {
            let event = match typed.as_str() {
                "kill" => None,
                "note it hums" => Some(Said::Note { text: "it hums".into() }),
                other => match Said::of_line(other) {
                    Some(said) => Some(said),
                    None => continue,
                },
            };
            let before = play.story.log.len();
            let fits = event.as_ref().is_some_and(|said| match (said.answer(), play.climb.question()) {
                (Some(answer), Some(question)) => question.answers().contains(&answer),
                (answer, _) => answer.is_none(),
            }) && !play.climb.is_ended();
            match event.clone() {
                None => play.restarted(Ending::ProgramDied, None),
                Some(said) => play.say(said),
            }
            if let Some(said) = event.filter(|_| fits) {
                let told = Entry::Operator { said };
                prop_assert!(play.story.log[before..].iter().any(|(_, entry)| *entry == told), "`{}` is lost", typed);
            }
            make_changes(&mut play);
            events.push(play.climb.question());
        }
        for trial in &play.story.trials {
            prop_assert!(play.course.rig.permit(&trial.rung, "daily").is_ok());
            if trial.verdict == Some(Verdict::Held) {
                let made: Vec<_> = trial.finished().map(|(_, report)| &report.written).collect();
                prop_assert!(made.len() == 1 && made[0].get("picture").is_some_and(|it| it.trim().eq_ignore_ascii_case("clean")), "{:?}", trial);
                prop_assert!(trial.read.get("package").is_some_and(|package| *package <= 60.0), "{:?}", trial);
            }
        }
    }
}

/// The record of a climb by hand says the same again.
#[test]
fn a_record_of_hands_is_replayed() {
    let course = course();
    let mut climbs =
        [Climb::new(course.rig.clone(), course.plan.clone()), Climb::new(course.rig.clone(), course.plan.clone())];
    let mut at = 0;
    let mut said =
        ["done", "done room=20", "not-today", "done ticks=18 picture=clean package=30", "done litres=2"].into_iter();
    let begun = Event::Started {
        in_force: Default::default(),
        ahead: 0,
        rules: periculum_core::engine::RULES,
        kinds: Vec::new(),
    };
    let mut event = Some(begun);
    while let Some(next) = event.take() {
        at += 1000;
        let read: Event = serde_json::from_str(&serde_json::to_string(&next).expect("JSON")).expect("the event again");
        let steps = climbs.each_mut().map(|climb| climb.next(Moment::from_millis(at), &read).entries);
        assert!(decide_alike(&steps[0], &steps[1]) && climbs[0] == climbs[1]);
        let json = serde_json::to_string(&steps[0]).expect("JSON");
        assert_eq!(serde_json::from_str::<Vec<Entry>>(&json).expect("entries"), steps[0]);
        event = match climbs[0].question() {
            Some(Question::Change { .. }) => {
                Some(Event::ChangeMade { reported: Default::default(), started_anew: false, noted: Default::default() })
            }
            _ => said.next().map(|line| Event::OperatorSaid { said: Said::of_line(line).expect("a line") }),
        };
    }
    assert_eq!(climbs[0].trials(), 2);
}

#[test]
fn a_mark_says_what_was_changed_since() {
    let mut play = play();
    line(&mut play, "done");
    line(&mut play, "changed firmware=1.4");
    assert!(play.story.changes.is_empty(), "a rig without parts has no firmware");
    line(&mut play, "changed remark=paste renewed");
    line(&mut play, "done ticks=18 picture=clean package=41");
    line(&mut play, "done litres=2");
    assert_eq!(play.story.trials.iter().map(|trial| trial.state).collect::<Vec<_>>(), [1, 2]);
    let mark =
        |trial| Mark { rung: play.course.rig.stock(), setting: "bus".into(), proof: "disc".into(), trial, stage: 0 };
    let told = [1, 2].map(|trial| before_changes(&mark(trial), &play.story));
    assert_eq!(told, [", before: paste renewed", ""]);
}
