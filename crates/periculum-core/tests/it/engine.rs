//! What must stay true of the engine, whatever the plan, the specimen and the luck.

use std::collections::BTreeMap;

use crate::chaos::{Chaos, Course, courses};
use periculum_core::Decimal;
use periculum_core::engine::{Climb, Command, Entry, Event, Question, RULES};
use periculum_core::model::incident::IncidentKind;
use periculum_core::model::moment::Moment;
use periculum_core::model::verdict::Verdict;
use proptest::prelude::*;

/// However unlucky it is, a climb of the plans below is over after so many events.
const LIVELOCK: usize = 20_000;

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]

    #[test]
    fn nothing_is_applied_beyond_a_limit_or_before_it_is_recorded(course in courses(), luck in any::<u64>()) {
        let mut chaos = Chaos::new(&course, luck);
        while let Some((step, before)) = chaos.step() {
            let announced = step.entries.iter().filter_map(|entry| match entry {
                Entry::AboutToApply { errand, .. } => Some(errand.clone()),
                _ => None,
            });
            let errand = match &step.command {
                Some(Command::Apply(errand)) => errand.clone(),
                Some(Command::Ask(Question::Change { errand })) => errand.clone(),
                Some(Command::RunPass(_) | Command::StopPass | Command::Ask(_)) | None => {
                    prop_assert_eq!(announced.count(), 0, "announced and not done: {:?}", step);
                    continue;
                }
            };
            let is_asked_again = step.entries.iter().any(|entry| matches!(entry, Entry::Asked { .. }))
                && matches!(chaos.last_event(), Event::Restarted { .. } | Event::ChangeMade { .. });
            prop_assert!(is_asked_again || announced.into_iter().next_back() == Some(errand.clone()), "done and not announced: {:?}", step);
            for change in errand.changes() {
            let setting = course.rig.setting(&change.setting).expect("a setting of the rig");
            prop_assert!(setting.ladder.contains(change.to), "off the ladder: {:?}", change);
            prop_assert!(change.to >= setting.floor && change.to <= setting.ceiling("daily"), "beyond a limit: {:?}", change);
            match (change.from, setting.largest_jump) {
                (Some(_), Some(jump)) => prop_assert!((change.to - before[&change.setting]).abs() <= jump, "too far: {:?} after\n   {}", change, chaos.trail()),
                (Some(_), None) => {}
                (None, None) if setting.takes_effect.needs_somebody() => {}
                (None, _) => prop_assert_eq!(change.to, setting.stock, "from nobody knows where to a hard place"),
            }
            }
        }
        prop_assert!(chaos.events() < LIVELOCK, "it never ends");
    }

    #[test]
    fn nothing_else_is_ordered_while_a_change_is_unanswered(course in courses(), luck in any::<u64>()) {
        let mut chaos = Chaos::new(&course, luck);
        loop {
            let waited = chaos.is_unanswered();
            let Some((step, _)) = chaos.step() else { break };
            let is_over = matches!(chaos.last_event(), Event::Applied { .. } | Event::ApplyFailed { .. } | Event::Restarted { .. })
                || step.entries.iter().any(|entry| matches!(entry, Entry::Incident { incident, .. } if incident.kind == IncidentKind::NotTaken));
            prop_assert!(!waited || is_over || step.command.is_none(), "{:?} after\n   {}", step, chaos.trail());
        }
        prop_assert!(chaos.events() < LIVELOCK, "it never ends");
    }

    #[test]
    fn a_pass_runs_only_when_its_rung_is_really_in_force(course in courses(), luck in any::<u64>()) {
        let mut chaos = Chaos::new(&course, luck);
        let mut on_trial = None;
        while let Some((step, in_force)) = chaos.step() {
            for entry in step.entries {
                if let Entry::TrialBegan { rung, .. } = entry {
                    on_trial = Some(rung);
                }
            }
            if let Some(Command::RunPass(_)) = step.command {
                prop_assert_eq!(Some(in_force.into_iter().collect()), on_trial.clone(), "after\n   {}", chaos.trail());
            }
        }
    }

    #[test]
    fn no_trial_is_lost_or_counted_twice(course in courses(), luck in any::<u64>()) {
        let mut chaos = Chaos::new(&course, luck);
        let (mut open, mut begun, mut ended, mut fell) = (None, 0, 0, 0);
        let mut told = None;
        while let Some((step, _)) = chaos.step() {
            for entry in &step.entries {
                prop_assert!(told.is_none(), "something follows the end: {:?}", entry);
                match entry {
                    Entry::TrialBegan { trial, rung, .. } => {
                        prop_assert_eq!(open, None);
                        prop_assert_eq!(*trial, begun + 1);
                        prop_assert!(course.rig.permit(rung, "daily").is_ok());
                        (open, begun) = (Some(*trial), *trial);
                    }
                    Entry::TrialEnded { trial, verdict, .. } => {
                        prop_assert_eq!(open.take(), Some(*trial));
                        ended += 1;
                        fell += u32::from(*verdict == Verdict::Fell);
                    }
                    Entry::MarkSet { mark } => prop_assert!(mark.trial <= begun && open.is_none()),
                    Entry::Ended { trials, falls, .. } => told = Some((*trials, *falls)),
                    _ => {}
                }
            }
        }
        prop_assert_eq!(told, Some((begun, fell)));
        prop_assert_eq!(begun, ended);
    }

    #[test]
    fn the_same_events_give_the_same_steps_and_silent_telemetry_none(course in courses(), luck in any::<u64>()) {
        let mut chaos = Chaos::new(&course, luck);
        while chaos.step().is_some() {}
        let replayed = chaos.replay();
        prop_assert_eq!(&replayed, chaos.climb());
    }

    #[test]
    fn a_mark_that_stands_held_and_its_rung_never_failed_after(course in courses(), luck in any::<u64>()) {
        let mut chaos = Chaos::new(&course, luck);
        let mut last_of_rung = BTreeMap::new();
        let mut rung_of = BTreeMap::new();
        while let Some((step, _)) = chaos.step() {
            for entry in &step.entries {
                match entry {
                    Entry::TrialBegan { trial, rung, .. } => drop(rung_of.insert(*trial, rung.clone())),
                    Entry::TrialEnded { trial, verdict, .. } if *verdict != Verdict::Void => {
                        last_of_rung.insert(rung_of[trial].clone(), *verdict);
                    }
                    Entry::Ended { marks, .. } => {
                        for mark in marks {
                            prop_assert_eq!(last_of_rung.get(&mark.rung), Some(&Verdict::Held));
                            prop_assert_eq!(&rung_of[&mark.trial], &mark.rung);
                        }
                    }
                    _ => {}
                }
            }
        }
    }
}

/// Without any bad luck the course of a plan is known beforehand.
#[test]
fn a_rig_with_a_sharp_border_is_climbed_to_it() {
    let course = Course::plain();
    // Clock units that the voltage of 1.250 V carries, and how many more each 0.010 V carries.
    let mut chaos = Chaos::sharp(&course, |clock, volts| {
        Decimal::from(clock) <= Decimal::from(46) + (Decimal::from(volts) - Decimal::from(125)) / Decimal::from(2)
    });
    let mut verdicts = Vec::new();
    let mut marks = Vec::new();
    while let Some((step, _)) = chaos.step() {
        for entry in step.entries {
            match entry {
                Entry::TrialEnded { verdict, .. } => verdicts.push(verdict.sign()),
                Entry::Ended { marks: standing, .. } => marks = standing,
                _ => {}
            }
        }
    }
    // Baseline at 42; 43 … 46 hold, 47 falls, 46 again; 1.24 falls, back to 1.25.
    assert_eq!(verdicts.into_iter().collect::<String>(), "●●●●●✕●✕●");
    let rungs: Vec<_> = marks.iter().map(|mark| (mark.rung.get("clock"), mark.rung.get("volts"), mark.trial)).collect();
    let value = |number: i64| Some(Decimal::from(number));
    assert_eq!(rungs, [(value(46), value(125), 7), (value(46), value(125), 9)]);
}

#[test]
fn a_climb_refuses_to_begin_beyond_its_ceiling() {
    let course = Course::plain();
    let mut climb = Climb::new(course.rig.clone(), course.plan.clone());
    let in_force = [("clock".to_owned(), Decimal::from(90)), ("volts".to_owned(), Decimal::from(125))].into();
    let step =
        climb.next(Moment::from_millis(0), &Event::Started { in_force, ahead: 0, rules: RULES, kinds: Vec::new() });
    assert!(climb.is_ended() && step.command.is_none());
    let Some(Entry::Ended { end, .. }) = step.entries.last() else { panic!("{step:?}") };
    assert_eq!(end.sentence(), "a rung was refused: the rig has clock at 90, outside 39 … 59; put it back first");
}
