//! What earlier climbs say of their kind: where the next limit is expected, how surely, and what that saves.

use std::sync::Arc;

use crate::chaos::Course;
use crate::seek::{Rig, climbed_by, climbed_expecting, trials};
use periculum_core::analysis::claim::Claim;
use periculum_core::analysis::kinds::{Earlier, kinds};
use periculum_core::engine::{Entry, Event, RULES};
use periculum_core::model::history::History;
use periculum_core::model::kind::Kind;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::rig::Part;
use periculum_core::model::rung::InForce;
use periculum_core::story::Story;

/// A rig whose processor has a model.
fn course(model: &str) -> Course {
    let course = Course::sought();
    let mut rig = periculum_core::model::rig::Rig::clone(&course.rig);
    rig.parts = vec![Part {
        kind: "processor".into(),
        model: model.into(),
        specimen: "1".into(),
        firmware: String::new(),
        slot: String::new(),
        since: String::new(),
        paid: None,
    }];
    Course { rig: Arc::new(rig), ..course }
}

fn told(entries: &[Entry], kinds: Vec<Kind>) -> Story {
    let mut story = Story::default();
    story.hear(&Event::Started { in_force: InForce::new(), ahead: 0, rules: RULES, kinds });
    entries.iter().for_each(|entry| story.tell(Moment::from_millis(0), entry));
    story
}

/// What climbs of five specimens with limits around 51 say of the next one of this model.
fn known(course: &Course, next: &periculum_core::model::rig::Rig, is_own: bool) -> Vec<Kind> {
    known_of(&[50.8, 51.1, 51.4, 51.0, 51.2], course, next, is_own)
}

/// The same of specimens with these limits.
fn known_of(limits: &[f64], course: &Course, next: &periculum_core::model::rig::Rig, is_own: bool) -> Vec<Kind> {
    let stories: Vec<Story> = limits
        .iter()
        .zip(1..)
        .map(|(limit, dice)| told(&climbed_expecting(course, Rig::new(*limit, 1.1, dice), Vec::new()), Vec::new()))
        .collect();
    let earlier: Vec<Earlier> = stories
        .iter()
        .map(|story| Earlier { story, rig: &course.rig, plan: &course.plan, age: Span::from_seconds(86_400), is_own })
        .collect();
    kinds(&earlier, next, &course.plan)
}

#[test]
fn a_known_kind_takes_fewer_trials_and_its_marks_say_so() {
    let course = course("one");
    let kinds = known(&course, &course.rig, false);
    let [kind] = &kinds[..] else { panic!("one setting is sought: {kinds:?}") };
    assert_eq!((kind.setting.as_str(), kind.climbs), ("clock", 5));
    // A night's limit lies some steps below that of ten minutes.
    assert!((51.0..62.0).contains(&kind.limit.mean) && kind.limit.spread < 4.0, "{kind:?}");
    let trials = |entries: &[Entry]| entries.iter().filter(|entry| matches!(entry, Entry::TrialBegan { .. })).count();
    let (mut before, mut after) = (0, 0);
    for dice in 20..26 {
        let stranger = climbed_expecting(&course, Rig::new(51.3, 1.1, dice), Vec::new());
        let entries = climbed_expecting(&course, Rig::new(51.3, 1.1, dice), kinds.clone());
        (before, after) = (before + trials(&stranger), after + trials(&entries));
        let story = told(&entries, kinds.clone());
        let claim = Claim::of_mark(&story, &course.rig, &course.plan, &story.marks[0]).expect("a claim");
        assert_eq!(claim.earlier, 5);
    }
    assert!(3 * after < 2 * before, "{after} instead of {before} trials");
}

/// One or two specimens say where the next limit lies; how fast failures grow is as unknown as before, and so is not believed either.
#[test]
fn one_known_specimen_costs_no_steps() {
    let course = course("one");
    let one = known_of(&[50.8], &course, &course.rig, false);
    let mark = |kinds: &[Kind], dice: u64| {
        let entries = climbed_expecting(&course, Rig::new(51.3, 1.1, dice), kinds.to_vec());
        let mark = told(&entries, kinds.to_vec()).marks[0].rung.get("clock").expect("a clock");
        f64::try_from(mark).expect("a number")
    };
    let of = |kinds: &[Kind]| (20..28).map(|dice| mark(kinds, dice)).sum::<f64>() / 8.0;
    let (none, one) = (of(&[]), of(&one));
    assert!(one > none - 0.5, "{one} {none}");
}

/// What was begun by the rules of 9 goes on by them.
#[test]
fn a_search_of_before_that_knew_one_specimen_decides_as_it_did() {
    let course = course("one");
    let one = known_of(&[50.8], &course, &course.rig, false);
    let entries = climbed_by(9, &course, Rig::new(51.3, 1.1, 21), one);
    assert_eq!(
        trials(&entries),
        "50 for 2 min, 51 for 2 min, 52 for 2 min, 53 for 2 min, 54 for 2 min, 55 for 2 min, 52 for 5 min, 52 for 5 min, 52 for 15 min, 52 for 5 min, 52 for 15 min, 42, 42"
    );
}

/// What others did before their climbs says something of the kind; what the very rig did is in its own file, and counts once.
#[test]
fn what_was_told_of_earlier_rigs_counts_where_they_are_others() {
    let course = course("one");
    let story = told(&climbed_expecting(&course, Rig::new(51.0, 1.1, 1), Vec::new()), Vec::new());
    let told = History { rung: course.rig.stock(), loaded: Span::from_seconds(360_000), failures: 40 };
    let failing = periculum_core::model::rig::Rig { history: vec![told], ..(*course.rig).clone() };
    let said = |rig, is_own| {
        let earlier = Earlier { story: &story, rig, plan: &course.plan, age: Span::from_seconds(86_400), is_own };
        kinds(&[earlier], &course.rig, &course.plan)
    };
    assert_eq!(said(&failing, true), said(&course.rig, true));
    assert_ne!(said(&failing, false), said(&course.rig, false));
}

#[test]
fn a_rig_of_another_kind_and_a_climb_without_a_fall_say_nothing() {
    let (one, other) = (course("one"), course("other"));
    assert_eq!(known(&one, &other.rig, false), []);
    assert_eq!(known(&Course::sought(), &Course::sought().rig, false), [], "without parts nobody knows the kind");
    let held = told(&climbed_expecting(&one, Rig::new(200.0, 1.0, 1), Vec::new()), Vec::new());
    let earlier = Earlier { story: &held, rig: &one.rig, plan: &one.plan, age: Span::ZERO, is_own: true };
    assert_eq!(kinds(&[earlier], &one.rig, &one.plan), []);
}

#[test]
fn what_the_very_specimen_did_counts_more() {
    let course = course("one");
    let [own, others] = [true, false].map(|is_own| known(&course, &course.rig, is_own)[0].limit.spread);
    assert!(own < others, "{own} {others}");
}

#[test]
fn what_was_expected_is_in_the_record_to_the_last_bit() {
    let course = course("one");
    let kinds = known(&course, &course.rig, false);
    let event = Event::Started { in_force: InForce::new(), ahead: 0, rules: RULES, kinds };
    let text = serde_json::to_string(&event).expect("JSON");
    assert_eq!(serde_json::from_str::<Event>(&text).expect("an event"), event);
}
