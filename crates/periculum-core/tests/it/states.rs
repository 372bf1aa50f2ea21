//! What each event does in each state, as a table: `INSTA_UPDATE=always` writes it anew.

use std::collections::BTreeMap;
use std::sync::Arc;

use periculum_core::engine::{Climb, Command, Entry, Event, Noted, RULES, Said};
use periculum_core::model::ending::Ending;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{PassReport, Progress};
use periculum_core::model::rung::InForce;
use periculum_core::model::setting::TakesEffect;

use crate::chaos::Course;
use crate::play::Play;

/// A rig whose clock somebody changes by hand, and which rests a minute before each pass.
fn course() -> Course {
    let plain = Course::plain();
    let (mut rig, mut plan) = ((*plain.rig).clone(), (*plain.plan).clone());
    rig.settings[0].takes_effect = TakesEffect::ByHand;
    plan.proofs[0].passes[0].pause = Span::from_seconds(60);
    Course { rig: Arc::new(rig), plan: Arc::new(plan) }
}

/// A climb in each of the states, by what can be seen of it from outside.
fn states() -> Vec<(&'static str, Climb, Moment, InForce)> {
    let course = course();
    let mut states = Vec::new();
    let fresh = Climb::new(course.rig.clone(), course.plan.clone());
    let stock: InForce = course.rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
    states.push(("ready", fresh, Moment::from_millis(0), stock.clone()));
    let mut play = Play::of(course);
    let keep = |name, play: &Play, states: &mut Vec<_>| {
        states.push((name, play.climb.clone(), Moment::from_millis(play.now), play.in_force.clone()));
    };
    keep("resting", &play, &mut states);
    rest(&mut play);
    keep("passing", &play, &mut states);
    play.pass_ends(&[]);
    keep("waiting for an errand", &play, &mut states);
    let mut paused = Play { climb: play.climb.clone(), ..Play::begun() };
    (paused.now, paused.in_force) = (play.now, play.in_force.clone());
    paused.say(Said::Leave);
    paused.make_changes();
    keep("paused at stock", &paused, &mut states);
    play.make_changes();
    rest(&mut play);
    play.say(Said::Stop);
    keep("stopping", &play, &mut states);
    play.pass_is_stopped();
    keep("going home", &play, &mut states);
    play.make_changes();
    keep("ended", &play, &mut states);
    let mut play = Play { is_slow: true, ..Play::begun() };
    play.pass_ends(&[]);
    keep("being set", &play, &mut states);
    let unanswered = play.command.clone();
    play.say(Said::Stop);
    keep("being set, told to stop", &play, &mut states);
    play.command = unanswered;
    play.change_is_answered();
    keep("being taken home", &play, &mut states);
    keep("asked what comes next", &Play::of(crate::leading::course()), &mut states);
    states
}

fn rest(play: &mut Play) {
    play.now += 60_000;
    play.event(&Event::TIME_PASSED);
    assert!(play.climb.is_passing(), "{}", play.log(3));
}

fn events(in_force: &InForce) -> Vec<(&'static str, Event)> {
    let incident = |kind| Incident::new(kind, "as it happens");
    let said = |said| Event::OperatorSaid { said };
    let restarted = |ending| Event::Restarted {
        ending,
        lived: Some(Span::from_seconds(1)),
        lived_at_most: None,
        in_force: in_force.clone(),
        unattended: false,
        last_words: None,
        rules: RULES,
    };
    let report = PassReport { ran: Span::from_seconds(60), ..PassReport::default() };
    let sample = BTreeMap::from([("core".to_owned(), 96.0)]);
    vec![
        ("started", Event::Started { in_force: in_force.clone(), ahead: 0, rules: RULES, kinds: Vec::new() }),
        ("applied", Event::Applied { reported: in_force.clone() }),
        ("change made", Event::ChangeMade { reported: in_force.clone(), started_anew: false, noted: Noted::default() }),
        ("apply failed", Event::ApplyFailed { incident: incident(IncidentKind::NotTaken) }),
        ("progress", Event::PassProgress { progress: Progress::default() }),
        ("pass ended", Event::PassEnded { report, reported: None }),
        ("over a cut-off", Event::Sample { readings: sample.clone(), highest: sample }),
        ("noticed", Event::Noticed { incidents: vec![incident(IncidentKind::CorrectedError)] }),
        ("said pause", said(Said::Pause)),
        ("said go on", said(Said::Resume)),
        ("said seen", said(Said::Saw { text: "stripes".into(), trial: None })),
        ("said stop", said(Said::Stop)),
        ("said stop at mark", said(Said::StopAtMark)),
        ("said leave", said(Said::Leave)),
        ("said suspend", said(Said::Suspend)),
        ("said done", said(Said::from(periculum_core::engine::Answer::Done))),
        ("said no start", said(Said::NoStart)),
        ("said take", said(Said::Take)),
        ("said try", said(Said::of_line("try").expect("a line"))),
        ("said mark", said(Said::Mark)),
        ("said end", said(Said::End)),
        ("program died", restarted(Ending::ProgramDied)),
        ("machine restarted", restarted(Ending::MachineRestarted)),
        ("two hours passed", Event::TIME_PASSED),
    ]
}

fn name_of(climb: &Climb) -> &'static str {
    match () {
        () if climb.is_ended() => "ended",
        () if climb.is_ready() => "ready",
        () if climb.is_paused() => "paused",
        () if climb.is_passing() => "passing",
        () if climb.question().is_some() => "asking",
        () if climb.is_applying() => "setting",
        () => "resting",
    }
}

fn command(command: Option<&Command>) -> &'static str {
    match command {
        None => "",
        Some(Command::Apply(_)) => ", applies",
        Some(Command::Ask(_)) => ", asks",
        Some(Command::RunPass(_)) => ", starts a pass",
        Some(Command::StopPass) => ", stops the pass",
    }
}

/// How many trials are over by it, and how many incidents it records.
fn cost(entries: &[Entry]) -> String {
    let count = |is: fn(&Entry) -> bool| entries.iter().filter(|entry| is(entry)).count();
    let trials = count(|entry| matches!(entry, Entry::TrialEnded { .. }));
    let incidents = count(|entry| matches!(entry, Entry::Incident { .. }));
    [(trials, "a trial is over"), (incidents, "an incident")]
        .into_iter()
        .filter(|(number, _)| *number > 0)
        .map(|(_, what)| format!("; {what}"))
        .collect()
}

#[test]
fn every_event_in_every_state() {
    let mut table = String::new();
    for (state, climb, now, in_force) in states() {
        table += &format!("{state}\n");
        for (name, event) in events(&in_force) {
            let mut climb = climb.clone();
            let at = if name == "two hours passed" { now + Span::from_seconds(7200) } else { now };
            let step = climb.next(at, &event);
            let nothing = step.is_silent().then(|| "—".to_owned());
            let done = || format!("{}{}{}", name_of(&climb), command(step.command.as_ref()), cost(&step.entries));
            table += &format!("    {name:<18} {}\n", nothing.unwrap_or_else(done));
        }
    }
    insta::assert_snapshot!(table);
}
