//! An operator who leads: what they say becomes trials, marks, profiles; what can't be is declined, and asked again.

use std::sync::Arc;

use periculum_core::engine::{Answer, Command, Declined, Entry, Question, Said, Turn};
use periculum_core::model::ending::Ending;
use periculum_core::model::incident::IncidentKind;
use periculum_core::model::moment::Span;
use periculum_core::model::plan::{Plan, Proof, Stage, Start};
use periculum_core::model::reason::Reason;
use periculum_core::model::setting::TakesEffect;
use periculum_core::model::strategy::{Steps, Strategy as Plans};
use periculum_core::model::verdict::Verdict;
use proptest::prelude::*;

use crate::chaos::Course;
use crate::play::Play;

/// The plain rig, led with one proof or another.
pub(crate) fn course() -> Course {
    let plain = Course::plain();
    let mut plan: Plan = (*plain.plan).clone();
    let long = Proof { name: "long".into(), passes: plan.proofs[0].passes.clone() };
    plan.proofs.push(long);
    let setting = plain.rig.settings[0].name.clone();
    plan.stages = vec![Stage {
        strategy: Plans::Lead { setting },
        proof: 0,
        start: Start::Stock,
        save: None,
        pin: None,
        wants: None,
    }];
    Course { rig: plain.rig, plan: Arc::new(plan) }
}

fn led() -> Play {
    Play::of(course())
}

fn turn(play: &Play) -> Turn {
    let Some(Question::WhatNext { turn }) = play.climb.question() else { panic!("no turn: {}", play.log(5)) };
    turn
}

fn line(play: &mut Play, line: &str) {
    play.say(Said::of_line(line).expect("a line"));
}

fn last_declined(play: &Play) -> Option<&Declined> {
    play.story.log.iter().rev().find_map(|(_, entry)| match entry {
        Entry::Declined { because } => Some(because),
        _ => None,
    })
}

fn marks(play: &Play) -> Vec<u32> {
    play.story.marks.iter().map(|mark| mark.trial).collect()
}

/// Tries a line, and ends its pass with this.
fn try_it(play: &mut Play, line_of: &str, fails: &[IncidentKind]) {
    line(play, line_of);
    play.pass_ends(fails);
}

#[test]
fn the_stage_asks_first_and_what_is_suggested_can_be_taken() {
    let mut play = led();
    let first = turn(&play);
    assert_eq!(first.at, play.climb.rig().stock());
    assert_eq!(first.suggestion.as_ref().map(|one| &one.reason), Some(&Reason::Start));
    assert_eq!(play.climb.question().map(|one| one.answers()), Some(vec![Answer::Take, Answer::Try, Answer::End]));
    try_it(&mut play, "take", &[]);
    let next = turn(&play).suggestion.expect("a suggestion");
    assert!(matches!(next.reason, Reason::Harder { .. }), "{:?}", next.reason);
    line(&mut play, "take");
    assert_eq!(play.story.open_trial().map(|trial| &trial.rung), Some(&next.rung));
}

#[test]
fn after_a_fall_the_way_between_is_suggested_and_back_goes_to_what_held() {
    let mut play = led();
    let setting = play.climb.rig().settings[0].clone();
    try_it(&mut play, "take", &[]);
    let far = setting.ceiling("daily");
    try_it(&mut play, &format!("try {}={far}", setting.name), &[IncidentKind::WrongResult]);
    let suggested = turn(&play).suggestion.expect("a suggestion");
    let value = suggested.rung.get(&setting.name).expect("a value");
    assert!(value > setting.stock && value < far, "{value}");
    assert!(matches!(suggested.reason, Reason::Between { .. }), "{:?}", suggested.reason);
    line(&mut play, "back");
    let trial = play.story.open_trial().expect("a trial");
    assert_eq!((&trial.rung, &trial.reason), (&play.climb.rig().stock(), &Reason::Back { trial: 1 }));
}

#[test]
fn what_can_not_be_is_declined_with_its_reason_and_asked_again() {
    let mut play = led();
    let (name, ceiling) = (play.climb.rig().settings[0].name.clone(), play.climb.rig().settings[0].ceiling("daily"));
    let asked = turn(&play);
    line(&mut play, &format!("try {name}={}", ceiling + ceiling));
    assert!(matches!(last_declined(&play), Some(Declined::NotAllowed { .. })));
    assert_eq!(turn(&play), asked, "the question stands");
    line(&mut play, "try proof=nightly");
    assert_eq!(last_declined(&play), Some(&Declined::NoProof { named: "nightly".into() }));
    // What is no answer to this question is not even heard.
    let silent = play.story.log.len();
    for word in ["mark", "save x", "back", "done"] {
        line(&mut play, word);
    }
    assert_eq!(play.story.log.len(), silent);
    assert!(play.story.trials.is_empty());
}

#[test]
fn what_held_is_marked_once_saved_by_name_and_kept_at_the_end() {
    let mut play = led();
    try_it(&mut play, "take", &[]);
    line(&mut play, "mark");
    line(&mut play, "mark");
    assert_eq!(last_declined(&play), Some(&Declined::IsMark { trial: 1 }));
    try_it(&mut play, "take", &[]);
    line(&mut play, "save for evenings");
    let saved = play.story.profiles.last().expect("a profile");
    assert_eq!((saved.name.as_str(), &saved.rung), ("for evenings", &play.story.trials[1].rung));
    assert!(!saved.soaked, "what was led was not soaked");
    line(&mut play, "end");
    assert_eq!(marks(&play), [1, 2], "what held last is a mark at the end, and none twice");
    play.make_changes();
    assert!(play.climb.is_ended());
}

#[test]
fn a_chosen_proof_stays_chosen_and_its_name_stands_with_the_mark() {
    let mut play = led();
    try_it(&mut play, "try proof=LONG", &[]);
    try_it(&mut play, "take", &[]);
    let proofs: Vec<&str> = play.story.trials.iter().map(|trial| trial.proof.as_str()).collect();
    assert_eq!(proofs, ["long", "long"]);
    line(&mut play, "mark");
    assert_eq!(play.story.marks[0].proof, "long");
}

#[test]
fn a_turn_outlives_the_program_and_the_machine() {
    for ending in [Ending::ProgramDied, Ending::MachineRestarted] {
        let mut play = led();
        try_it(&mut play, "take", &[]);
        try_it(&mut play, "take", &[]);
        let before = turn(&play);
        play.restarted(ending, None);
        assert_eq!(turn(&play).in_force, play.in_force, "what is in force now is told: {ending:?}");
        assert_eq!(turn(&play).suggestion, before.suggestion, "{ending:?}");
        assert!(matches!(play.command, Some(Command::Ask(_))), "{ending:?}");
        assert_eq!(play.story.trials.len(), 2);
    }
}

#[test]
fn who_leaves_in_a_turn_finds_it_again() {
    let mut play = led();
    try_it(&mut play, "take", &[]);
    let (name, value) = (play.climb.rig().settings[0].name.clone(), play.climb.rig().settings[0].ceiling("daily"));
    try_it(&mut play, &format!("try {name}={value}"), &[]);
    play.say(Said::Leave);
    play.make_changes();
    assert!(play.climb.is_paused());
    assert_eq!(play.in_force.get(&name), play.climb.rig().stock().get(&name).as_ref(), "and the rig waits at stock");
    play.say(Said::Resume);
    assert_eq!(turn(&play).at.get(&name), Some(value), "the turn is where it was");
    assert_eq!(turn(&play).held, Some(2));
}

#[test]
fn seen_late_what_held_is_no_longer_what_is_gone_back_to() {
    let mut play = led();
    try_it(&mut play, "take", &[]);
    try_it(&mut play, "take", &[]);
    assert_eq!(turn(&play).held, Some(2));
    play.say(Said::Saw { text: "stripes".into(), trial: Some(2) });
    assert_eq!(turn(&play).held, Some(1));
    assert_eq!(play.story.trials[1].verdict, Some(Verdict::Slipped));
}

#[test]
fn a_later_stage_starts_from_what_was_saved_by_name_and_proves_it_first() {
    let mut course = course();
    let mut plan = (*course.plan).clone();
    let steps = Steps::of(course.rig.settings[0].name.clone(), None);
    let start = Start::Saved("for evenings".into());
    plan.stages.push(Stage { strategy: Plans::Ascend(steps), proof: 1, start, save: None, pin: None, wants: None });
    course.plan = Arc::new(plan);
    let mut play = Play::of(course);
    try_it(&mut play, "take", &[]);
    try_it(&mut play, "take", &[]);
    line(&mut play, "save for evenings");
    try_it(&mut play, "take", &[IncidentKind::WrongResult]);
    line(&mut play, "end");
    let saved = play.story.profiles[0].rung.clone();
    let first = play.story.trials.iter().find(|trial| trial.stage == 1).expect("a trial of the stage");
    assert!(first.rung == saved || first.reason != Reason::Start, "{:?}", first.reason);
    let setting = &play.climb.rig().settings[0];
    assert!(first.rung.get(&setting.name) >= saved.get(&setting.name), "{}", play.log(9));
}

/// What an operator may say at any moment, sense or nonsense.
fn word() -> impl Strategy<Value = String> {
    let values = (0usize..3, -2i64..14);
    prop_oneof![
        Just("take".to_owned()),
        Just("back".to_owned()),
        Just("mark".to_owned()),
        Just("save it".to_owned()),
        Just("try".to_owned()),
        Just("try proof=long".to_owned()),
        Just("leave".to_owned()),
        values.prop_map(|(setting, tenth)| format!("{setting} {tenth}")),
    ]
}

/// The line that such a word stands for on this rig: a share of the way from stock to beyond the ceiling.
fn line_of(play: &Play, word: &str) -> String {
    let mut parts = word.split(' ').map(str::parse::<i64>);
    let (Some(Ok(setting)), Some(Ok(tenth))) = (parts.next(), parts.next()) else { return word.to_owned() };
    let settings = &play.climb.rig().settings;
    let setting = &settings[setting as usize % settings.len()];
    let way = setting.hardest("daily") - setting.stock;
    let value = setting.ladder.nearest(setting.stock + way * periculum_core::Decimal::new(tenth, 1));
    let beyond = if tenth > 11 { setting.ceiling("daily") + setting.ceiling("daily") } else { value };
    format!("try {}={beyond}", setting.name)
}

proptest! {
    #[test]
    fn whatever_is_said_nothing_beyond_a_limit_is_applied_and_every_turn_comes_back(
        words in prop::collection::vec((word(), any::<bool>()), 1..24), by_hand in any::<bool>(),
    ) {
        let mut course = course();
        if by_hand {
            let mut rig = (*course.rig).clone();
            rig.settings[0].takes_effect = TakesEffect::ByHand;
            course.rig = Arc::new(rig);
        }
        let mut play = Play::of(course);
        for (word, holds) in words {
            let said = line_of(&play, &word);
            line(&mut play, &said);
            play.make_changes();
            let fails: &[IncidentKind] = if holds { &[] } else { &[IncidentKind::WrongResult] };
            if play.climb.is_passing() {
                play.pass_ends(fails);
                play.make_changes();
            }
            if play.climb.is_paused() {
                play.say(Said::Resume);
            }
            let rig = Arc::new(play.climb.rig().clone());
            for setting in &rig.settings {
                let value = play.in_force[&setting.name];
                prop_assert!(setting.allows(value, "daily") || value == setting.stock, "{} {value}", setting.name);
            }
            prop_assert!(play.climb.question().is_some_and(|one| one.turn().is_some()), "{said}: {}", play.log(6));
        }
        line(&mut play, "end");
        play.make_changes();
        prop_assert!(play.climb.is_ended(), "{}", play.log(6));
        for mark in &play.story.marks {
            let trial = play.story.trial(mark.trial).expect("its trial");
            prop_assert_eq!((trial.verdict, &trial.rung), (Some(Verdict::Held), &mark.rung));
        }
        let length: Span = play.story.tested();
        prop_assert_eq!(play.story.trials.iter().map(|trial| trial.tested).sum::<Span>(), length);
    }
}
