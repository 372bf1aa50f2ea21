//! What marks are worth, by what their climb has seen.

use std::sync::Arc;

use periculum_core::Decimal;
use periculum_core::analysis::claim::{Claim, Granted, Suspect};
use periculum_core::analysis::harder::Harder;
use periculum_core::engine::{Entry, Event, Mark, Said};
use periculum_core::model::history::History;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassReport};
use periculum_core::model::plan::Proof;
use periculum_core::model::reason::Reason;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::Story;
use periculum_core::telling::{claim_sentence, claim_words, harder_words};

use crate::chaos::Course;
use crate::play::Play;

/// The plain course with a second proof that is a night.
fn course() -> Course {
    let plain = Course::plain();
    let mut plan = (*plain.plan).clone();
    let night = vec![Pass::usual("dense", Span::from_seconds(8 * 3600))];
    plan.proofs.push(Proof { name: "night".into(), passes: night });
    plan.stages.truncate(2);
    Course { plan: Arc::new(plan), ..plain }
}

/// A climb in which the clock holds up to this, and falls after so many seconds a step beyond.
fn climbed(holds: i64, falls_after: u64) -> Play {
    let mut play = Play::of(course());
    while play.runs_a_pass() {
        let at = i64::try_from(play.in_force["clock"]).expect("whole");
        if at <= holds {
            play.pass_ends(&[]);
            continue;
        }
        let incidents = vec![Incident::new(IncidentKind::WrongResult, "as played")];
        let report = PassReport { ran: Span::from_seconds(falls_after), incidents, ..PassReport::default() };
        play.event(&Event::PassEnded { report, reported: None });
    }
    play
}

fn claim(play: &Play, proof: usize) -> Claim {
    let mark = play.story.marks.last().expect("a mark");
    let (rig, plan) = (&play.course.rig, &play.course.plan);
    Claim::of(&play.story, rig, plan, (&mark.rung, mark.stage), proof).expect("a claim")
}

#[test]
fn a_mark_at_the_border_is_worth_what_one_pass_is() {
    let play = climbed(50, 40);
    let quick = claim(&play, 0);
    let survival = quick.survival.expect("within reach");
    assert!(!quick.is_sure() && survival.low < 0.9 && survival.high > 0.9, "{survival:?}");
    assert_eq!((quick.falls, quick.longest), (1, Span::from_seconds(60)));
    let told = claim_sentence(&quick);
    assert!(told.starts_with("survives quick with ") && told.ends_with(" trials that held and 1 that fell"), "{told}");
    assert_eq!(Claim::of_mark(&play.story, &play.course.rig, &play.course.plan, &play.story.marks[0]), Some(quick));
}

/// That a rig was used before is assumed and not seen: whoever reads a claim that rests on it is told.
#[test]
fn what_is_taken_for_granted_is_said_where_a_claim_would_not_be_sure_otherwise() {
    let play = climbed(44, 40);
    let (rig, plan) = (&play.course.rig, &play.course.plan);
    let of = |clock: i64| {
        let rung = play.story.marks[0].rung.with("clock", Decimal::from(clock));
        Claim::of(&play.story, rig, plan, (&rung, 1), 0).expect("a claim")
    };
    let [beside_stock, beyond] = [43, 48].map(of);
    assert_eq!((beside_stock.granted, beyond.granted), (Some(Granted::Usually(Span::from_seconds(16 * 3600))), None));
    let told = claim_sentence(&beside_stock);
    assert!(told.ends_with("1 that fell, taking for granted 16 h at stock without a failure"), "{told}");
    assert!(!claim_sentence(&beyond).contains("granted"));
}

/// The same climb of a rig whose owner says what it did before at these clocks, for so many hours with so many failures.
fn of_one_told(play: &Play, clock: i64, told: &[(i64, u64, u32)]) -> Claim {
    let (rig, plan) = (&play.course.rig, &play.course.plan);
    let history = told.iter().map(|(clock, hours, failures)| {
        let rung = rig.stock().with("clock", Decimal::from(*clock));
        History { rung, loaded: Span::from_seconds(3600 * hours), failures: *failures }
    });
    let rig = Rig { history: history.collect(), ..(**rig).clone() };
    let rung = play.story.marks[0].rung.with("clock", Decimal::from(clock));
    Claim::of(&play.story, &rig, plan, (&rung, 1), 0).expect("a claim")
}

/// What its owner says of a rig counts as what it is, and a claim that rests on it says so.
#[test]
fn a_claim_may_rest_on_the_owners_word() {
    let play = climbed(44, 40);
    let of = |told: &[(i64, u64, u32)]| of_one_told(&play, 43, told);
    let [unsaid, unused] = [of(&[]), of(&[(42, 0, 0)])];
    assert!(unsaid.is_sure() && !unused.is_sure(), "a new rig is granted nothing: {unused:?}");
    let well = of(&[(42, 90, 0)]);
    assert_eq!(well.granted, Some(Granted::Told(Span::from_seconds(90 * 3600), 0)));
    let told = claim_sentence(&well);
    assert!(told.ends_with(", on the word of the rig's file that it worked 90 h before without a failure"), "{told}");
    let low = |claim: &Claim| claim.survival.expect("within reach").low;
    let often = of(&[(42, 90, 2000)]);
    assert!(low(&often) < low(&unused) && low(&unused) < low(&unsaid) && low(&unsaid) < low(&well));
    let beyond = of(&[(45, 90, 0)]);
    assert!(low(&beyond) > low(&well), "what worked beyond it says more than what worked at stock");
}

/// Who is content to be less sure may go farther than the mark, the farther the less sure, and never beyond what the plan allows.
#[test]
fn how_far_one_may_go_who_is_less_sure_is_said() {
    let play = climbed(50, 40);
    let (rig, plan) = (&play.course.rig, &play.course.plan);
    let mark = Mark { rung: play.story.marks[0].rung.with("clock", 44.into()), ..play.story.marks[0].clone() };
    let of = |play: &Play, mark: &Mark| {
        let claim = Claim::of_mark(&play.story, rig, plan, mark).expect("a claim");
        Harder::of_mark(&claim, (&play.story, rig, plan), mark)
    };
    let harder = of(&play, &mark).expect("something is harder");
    assert_eq!(harder.up_to, [(0.8, 49.into())], "what fell after 40 s is sure not to do");
    let less_sure = climbed(50, 59);
    let of_less_sure = of(&less_sure, &mark).expect("something is harder");
    assert_eq!(of_less_sure.up_to, [(0.8, 49.into()), (0.5, 50.into())]);
    let told = harder_words(&of_less_sure, rig);
    assert!(
        told.starts_with("survives quick with at least 90 %: 80 % sure up to 49") && told.contains(", 50 % up to 50"),
        "{told}"
    );
    let hardest = rig.setting("clock").expect("a clock").hardest(&plan.use_name);
    let at_ceiling = Mark { rung: mark.rung.with("clock", hardest), ..mark };
    assert_eq!(of(&play, &at_ceiling), None);
}

/// What throttles does not fall, and is not to be gone to either.
#[test]
fn who_is_less_sure_is_sent_nowhere_that_did_not_hold() {
    let mut play = Play::of(course());
    while play.runs_a_pass() {
        let throttles = play.in_force["clock"] >= Decimal::from(47);
        play.pass_ends(if throttles { &[IncidentKind::Throttled] } else { &[] });
    }
    let (rig, plan) = (&play.course.rig, &play.course.plan);
    let mark = Mark { rung: play.story.marks[0].rung.with("clock", 44.into()), ..play.story.marks[0].clone() };
    let claim = Claim::of_mark(&play.story, rig, plan, &mark).expect("a claim");
    let harder = Harder::of_mark(&claim, (&play.story, rig, plan), &mark).expect("something is harder");
    assert_eq!(harder.up_to, [(0.8, 46.into())]);
}

#[test]
fn nothing_is_said_of_a_night_from_passes_of_a_minute() {
    let night = claim(&climbed(50, 40), 1);
    assert_eq!(night.survival, None);
    assert_eq!(claim_words(&night), "nothing can be said of night from trials of 1 min at most");
}

#[test]
fn what_was_seen_before_the_rig_was_changed_says_nothing_of_it_now() {
    let mut play = Play::begun();
    while play.story.marks.is_empty() {
        let holds = play.in_force["clock"] <= 50.into();
        play.pass_ends(if holds { &[] } else { &[IncidentKind::WrongResult] });
    }
    let of = |play: &Play| Claim::of_mark(&play.story, &play.course.rig, &play.course.plan, &play.story.marks[0]);
    assert!(of(&play).is_some_and(|claim| claim.falls == 1), "{}", play.log(5));
    play.say(Said::Changed { written: [("remark".to_owned(), "window open".to_owned())].into() });
    assert_eq!((play.story.last_state(), of(&play)), (2, None), "{}", play.log(5));
}

/// What moved in its stage counts, in whichever way it is comparable; what else is easier says nothing.
#[test]
fn a_trial_that_was_easier_in_something_else_is_no_evidence() {
    let play = climbed(50, 40);
    let mut mark = play.story.marks.last().expect("a mark").clone();
    let before = Claim::of_mark(&play.story, &play.course.rig, &play.course.plan, &mark).expect("a claim");
    // With less voltage than in all trials nothing that held counts any more, and what fell still does.
    mark.rung = mark.rung.with("volts", 110.into());
    mark.stage = 1;
    let after = Claim::of_mark(&play.story, &play.course.rig, &play.course.plan, &mark);
    let [before, after] =
        [Some(before), after].map(|claim| claim.and_then(|claim| claim.survival).map_or(0.0, |it| it.mean));
    assert!(after < before, "{after} {before}");
}

/// A climb in which these clocks were tried for so many seconds, one an hour, and fell then or held.
fn told(trials: &[(i64, u64, bool)]) -> Story {
    let mut story = Story::default();
    for (number, (clock, seconds, fell)) in (1u32..).zip(trials) {
        let rung: Rung = [("clock", *clock), ("volts", 120)]
            .map(|(name, value)| (name.to_owned(), Decimal::from(value)))
            .into_iter()
            .collect();
        let ran = Span::from_seconds(*seconds);
        let order = Pass::usual("dense", ran);
        let verdict = if *fell { Verdict::Fell } else { Verdict::Held };
        let incident = fell.then_some(IncidentKind::WrongResult);
        for entry in [
            Entry::TrialBegan { trial: number, stage: 0, rung, proof: "quick".into(), reason: Reason::Start },
            Entry::PassBegan { trial: number, pass: 0, order, on: vec![] },
            Entry::PassEnded { trial: number, pass: 0, report: PassReport { ran, ..PassReport::default() } },
            Entry::TrialEnded { trial: number, verdict, incident, tested: ran, gain: None },
        ] {
            story.tell(Moment::from_millis(i64::from(number) * 3_600_000), &entry);
        }
    }
    story
}

fn claim_of(story: &Story, clock: i64) -> Claim {
    let course = Course::plain();
    let rung = story.trials[0].rung.with("clock", clock.into());
    Claim::of(story, &course.rig, &course.plan, (&rung, 0), 0).expect("a claim")
}

#[test]
fn a_limit_that_came_down_meanwhile_is_suspected_and_nothing_is_sure_then() {
    let held: Vec<_> = (0..8).map(|_| (50, 3_000, false)).collect();
    let sure = claim_of(&told(&held), 44);
    assert!(sure.is_sure() && sure.suspects.is_empty(), "{sure:?}");
    let fell: Vec<_> = held.iter().copied().chain((0..3).map(|_| (50, 15, true))).collect();
    let moved = claim_of(&told(&fell), 44);
    let steps = moved.suspects.iter().find_map(|suspect| match suspect {
        Suspect::Drift { steps } => Some(*steps),
        _ => None,
    });
    assert!(!moved.is_sure() && steps.is_some_and(|steps| steps > 0.5), "{moved:?}");
    assert!(claim_sentence(&moved).contains("its limit came down by about"), "{}", claim_sentence(&moved));
}

#[test]
fn a_trial_that_should_not_have_ended_so_is_named_and_nothing_is_sure_then() {
    let long: Vec<_> = [(44, 20_000, false), (46, 20_000, false), (48, 20_000, false), (50, 20_000, false)].into();
    let held: Vec<_> = long.iter().copied().chain([(54, 30, true), (53, 200, true), (50, 20_000, false)]).collect();
    assert!(claim_of(&told(&held), 44).is_sure());
    let odd: Vec<_> = held.iter().copied().take(4).chain([(43, 6, true)]).chain(held.iter().copied().skip(4)).collect();
    let claim = claim_of(&told(&odd), 44);
    assert!(claim.suspects.contains(&Suspect::Unlikely { trial: 5 }) && !claim.is_sure(), "{claim:?}");
    assert!(claim_sentence(&claim).contains("trial 5 ended as it should not have"));
}
