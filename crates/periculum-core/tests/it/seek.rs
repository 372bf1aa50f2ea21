//! The search for a limit: it finds it, comes from below, and tells why it does what it does.

use std::sync::Arc;

use crate::chaos::Course;
use periculum_core::Decimal;
use periculum_core::analysis::claim::Claim;
use periculum_core::engine::{Climb, Command, Entry, Event, Mark, RULES};
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::kind::Kind;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassOrder, PassReport};
use periculum_core::model::plan::{Proof, Stage};
use periculum_core::model::reason::{Border, Reason, StageEnd};
use periculum_core::model::rung::InForce;
use periculum_core::model::strategy::{Assurance, Strategy, Sweep};
use periculum_core::model::verdict::Verdict;
use periculum_core::story::Story;

/// The hazard in a second at the limit of a night of eight hours.
const AT_LIMIT: f64 = 0.105_36 / 28_800.0;

/// A rig whose hazard grows by this factor of e a MHz beyond its limit; falls come as a dice has it.
pub(crate) struct Rig {
    limit: f64,
    slope: f64,
    dice: u64,
    /// Above this it throttles.
    throttles: f64,
}

impl Rig {
    pub(crate) fn new(limit: f64, slope: f64, dice: u64) -> Self {
        Self { limit, slope, dice, throttles: f64::INFINITY }
    }

    fn run(&mut self, clock: f64, order: &PassOrder) -> PassReport {
        self.dice = self.dice.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        let unit = ((self.dice >> 11) as f64 + 1.0) / (1u64 << 53) as f64;
        let hazard = AT_LIMIT * (self.slope * (clock - self.limit)).exp();
        let until = Span::from_millis((-unit.ln() / hazard * 1000.0).clamp(250.0, 1e12) as u64);
        let ended =
            |ran, kind| PassReport { ran, incidents: vec![Incident::new(kind, "as played")], ..PassReport::default() };
        match () {
            () if clock > self.throttles => ended(Span::from_seconds(30), IncidentKind::Throttled),
            () if until < order.pass.length => ended(until, IncidentKind::WrongResult),
            () => PassReport { ran: order.pass.length, ..PassReport::default() },
        }
    }
}

/// Everything that was stated, from the beginning to the end.
fn climbed(course: &Course, rig: Rig) -> Vec<Entry> {
    climbed_expecting(course, rig, Vec::new())
}

/// The same where earlier climbs say something of the kind.
pub(crate) fn climbed_expecting(course: &Course, rig: Rig, kinds: Vec<Kind>) -> Vec<Entry> {
    climbed_by(RULES, course, rig, kinds)
}

/// The same by rules of before.
pub(crate) fn climbed_by(rules: u32, course: &Course, mut rig: Rig, kinds: Vec<Kind>) -> Vec<Entry> {
    let mut in_force: InForce = course.rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
    let mut climb = Climb::new(course.rig.clone(), course.plan.clone());
    let mut event = Event::Started { in_force: in_force.clone(), ahead: 0, rules, kinds };
    let mut entries = Vec::new();
    for second in 0.. {
        let step = climb.next(Moment::from_millis(second * 1000), &event);
        entries.extend(step.entries);
        event = match step.command {
            Some(Command::Apply(errand)) => {
                in_force.extend(errand.made());
                Event::Applied { reported: in_force.clone() }
            }
            Some(Command::RunPass(order)) => {
                let clock = f64::try_from(in_force["clock"]).expect("a number");
                Event::PassEnded { report: rig.run(clock, &order), reported: None }
            }
            Some(other) => panic!("nobody is there for {other:?}"),
            None => break,
        };
    }
    assert!(climb.is_ended());
    entries
}

fn mark_of(entries: &[Entry], stage: usize) -> &Mark {
    let mark = entries.iter().find_map(|entry| match entry {
        Entry::MarkSet { mark } if mark.stage == stage => Some(mark),
        _ => None,
    });
    mark.unwrap_or_else(|| panic!("stage {stage} has no mark"))
}

fn clock(mark: &Mark) -> Decimal {
    mark.rung.get("clock").expect("a clock")
}

/// What is proved can be claimed then, and is true: that costs some steps where nothing is known of the kind.
#[test]
fn marks_are_true_and_found_in_a_fraction_of_the_nights() {
    let (mut off, mut tested, mut are_true) = (0.0, 0.0, 0);
    for seed in 0..12 {
        let entries = climbed(&Course::sought(), Rig::new(51.4, 1.1, seed));
        let found = clock(mark_of(&entries, 0));
        are_true += u32::from(found <= Decimal::from(51));
        off += f64::try_from(found).expect("a number") - 51.0;
        let Some(Entry::Ended { test_hours, .. }) = entries.last() else { panic!("no end") };
        tested += test_hours;
    }
    assert!(are_true >= 11, "{are_true} of 12");
    assert!(off / 12.0 >= -7.0, "{} steps from the truth on average", off / 12.0);
    // Two nights of eight hours hold at the end of each.
    assert!(tested / 12.0 - 16.0 < 4.0, "{} hours on average", tested / 12.0);
}

/// Where it went, and for how long.
pub(crate) fn trials(entries: &[Entry]) -> String {
    let trial = |entry: &Entry| match entry {
        Entry::TrialBegan { rung, reason: Reason::Learn { length, .. }, .. } => {
            Some(format!("{} for {length}", rung.get("clock")?))
        }
        Entry::TrialBegan { rung, .. } => Some(format!("{}", rung.get("clock")?)),
        _ => None,
    };
    entries.iter().filter_map(trial).collect::<Vec<_>>().join(", ")
}

/// What was begun by the rules of before goes on by them.
#[test]
fn a_search_of_before_decides_as_it_did() {
    let trials = |rules: u32| trials(&climbed_by(rules, &Course::sought(), Rig::new(51.4, 1.1, 3), Vec::new()));
    assert_eq!(
        trials(7),
        "43 for 2 min, 44 for 2 min, 45 for 2 min, 46 for 2 min, 47 for 2 min, 48 for 2 min, 49 for 2 min, 50 for 2 min, 51 for 2 min, 52 for 2 min, 53 for 2 min, 54 for 2 min, 55 for 2 min, 56 for 2 min, 57 for 2 min, 58 for 2 min, 53 for 5 min, 53 for 5 min, 53 for 5 min, 58 for 2 min, 54 for 5 min, 53 for 5 min, 54 for 5 min, 54 for 15 min, 58 for 2 min, 55 for 5 min, 46, 45"
    );
    assert_eq!(
        trials(8),
        "43 for 2 min, 44 for 2 min, 45 for 2 min, 46 for 2 min, 47 for 2 min, 48 for 2 min, 49 for 2 min, 50 for 2 min, 51 for 2 min, 52 for 2 min, 53 for 2 min, 54 for 2 min, 55 for 2 min, 56 for 2 min, 57 for 2 min, 58 for 2 min, 54 for 5 min, 54 for 5 min, 53 for 5 min, 58 for 2 min, 55 for 5 min, 55 for 5 min, 54 for 5 min, 58 for 2 min, 55 for 5 min, 56 for 5 min, 46, 45"
    );
}

/// Stepping by minutes and then proving one night, as most people do: where the plan says what it wants, the soak goes back as far as
/// that asks by what the steps have seen, and can be claimed.
#[test]
fn a_soak_goes_back_as_far_as_what_is_wanted_asks() {
    let soaked = |wants: Option<Assurance>, seed: u64| {
        let mut course = Course::sought();
        let mut plan = (*course.plan).clone();
        let quick = Proof { name: "quick".into(), passes: vec![Pass::usual("dense", Span::from_seconds(600))] };
        plan.proofs.push(quick);
        let Strategy::Seek { steps, .. } = plan.stages[0].strategy.clone() else { panic!("a search") };
        plan.stages[0] = Stage { strategy: Strategy::Ascend(steps), proof: 1, ..plan.stages[0].clone() };
        plan.stages[1].wants = wants;
        // A soak has no step as a rule, and goes by the ladder then.
        let Strategy::Soak { steps, .. } = &mut plan.stages[1].strategy else { panic!("a soak") };
        steps[0].step = None;
        course.plan = Arc::new(plan);
        let entries = climbed(&course, Rig::new(55.4, 1.6, seed));
        let mark = mark_of(&entries, 1).clone();
        let mut story = Story::default();
        story.hear(&Event::Started { in_force: InForce::new(), ahead: 0, rules: RULES, kinds: Vec::new() });
        entries.iter().for_each(|entry| story.tell(Moment::from_millis(0), entry));
        let claim = Claim::of_mark(&story, &course.rig, &course.plan, &mark).expect("a claim");
        (clock(&mark), claim.is_sure())
    };
    let sure = (0..4).filter(|seed| {
        let ((plain, _), (wanted, is_sure)) = (soaked(None, *seed), soaked(Some(Assurance::default()), *seed));
        assert!(wanted < plain && wanted <= Decimal::from(55), "{seed}: {wanted} {plain}");
        is_sure
    });
    assert!(sure.count() >= 3);
    assert!((0..4).all(|seed| !soaked(None, seed).1), "what is not wanted is not claimed");
}

#[test]
fn a_rig_that_holds_everything_is_proved_where_the_ladder_is_not_allowed_to_go_on() {
    let entries = climbed(&Course::sought(), Rig::new(200.0, 1.0, 1));
    assert_eq!(clock(mark_of(&entries, 0)), Decimal::from(59));
    let end = entries.iter().find_map(|entry| match entry {
        Entry::StageEnded { stage: 0, end } => Some(end),
        _ => None,
    });
    assert!(matches!(end, Some(StageEnd::AtLimit { .. })), "{end:?}");
    // The soak keeps its margin.
    assert_eq!(clock(mark_of(&entries, 1)), Decimal::from(58));
}

#[test]
fn heat_is_a_limit_of_its_own_and_no_hazard() {
    let entries = climbed(&Course::sought(), Rig { throttles: 47.0, ..Rig::new(200.0, 1.0, 1) });
    assert_eq!(clock(mark_of(&entries, 0)), Decimal::from(47));
    let told = entries.iter().any(|entry| {
        matches!(
            entry,
            Entry::StageEnded { end: StageEnd::NextDidNotHold { incident: Some(IncidentKind::Throttled), .. }, .. }
        )
    });
    assert!(told);
}

#[test]
fn a_rig_that_does_not_hold_stock_is_given_up() {
    let entries = climbed(&Course::sought(), Rig::new(30.0, 1.0, 1));
    assert!(matches!(entries.last(), Some(Entry::Ended { marks, .. }) if marks.is_empty()));
}

#[test]
fn it_comes_from_below_and_never_leaps_further_than_the_largest_jump() {
    for seed in 0..6 {
        let entries = climbed(&Course::sought(), Rig::new(55.0, 0.9, seed));
        let (mut held, mut at) = (42, 42);
        for entry in &entries {
            match entry {
                Entry::TrialBegan { rung, stage: 0, .. } => {
                    at = i64::try_from(rung.get("clock").expect("a clock")).expect("whole");
                    assert!(at - held <= 10, "from {held} to {at}");
                }
                Entry::PassEnded { report, .. } if report.incidents.is_empty() => held = held.max(at),
                _ => {}
            }
        }
    }
}

#[test]
fn a_short_trial_is_not_told_as_if_the_proof_had_been_held() {
    let mut story = Story::default();
    for entry in climbed(&Course::sought(), Rig::new(51.4, 1.1, 3)) {
        story.tell(Moment::from_millis(0), &entry);
    }
    let first = &story.trials[0];
    assert_eq!((first.verdict, first.held_the_proof()), (Some(Verdict::Held), false));
    assert_eq!(first.put_to(), "quick for 2 min");
    let last = story.trials.last().expect("trials");
    assert!(last.held_the_proof() && last.put_to() == "quick");
    // Broken off and made again, it is as short as before.
    let again = Entry::TrialBegan {
        trial: last.number + 1,
        stage: 0,
        rung: story.trials[0].rung.clone(),
        proof: "quick".into(),
        reason: Reason::Again { trial: 1 },
    };
    story.tell(Moment::from_millis(0), &again);
    assert_eq!(story.trials.last().expect("a trial").put_to(), "quick for 2 min");
}

#[test]
fn trials_are_as_long_as_they_are_told_to_be_with_every_pass_in_its_share() {
    let entries = climbed(&Course::sought(), Rig::new(50.0, 1.0, 1));
    let (mut told, mut has_foretold) = (None, false);
    for entry in &entries {
        match entry {
            Entry::TrialBegan { reason: Reason::Learn { length, foresight, .. }, .. } => {
                told = Some(*length);
                assert!(foresight.is_none_or(|told| 0.0 <= told.low && told.low <= told.high && told.high <= 1.0));
                has_foretold |= foresight.is_some();
            }
            Entry::TrialBegan { .. } => told = None,
            Entry::PassBegan { pass, order, .. } => {
                let share = [0.25, 0.75][*pass];
                let whole = told.map_or(8.0 * 3600.0, Span::seconds);
                assert!((order.length.seconds() - share * whole).abs() < 0.01);
            }
            _ => {}
        }
    }
    assert!(has_foretold, "something fell, so that there was something to tell from");
}

/// A map of which the plan wants something has its border where that can be claimed, and what one row teaches serves the next.
#[test]
fn a_map_of_what_is_wanted_goes_by_what_can_be_claimed() {
    let mut course = Course::sought();
    let mut plan = (*course.plan).clone();
    let Strategy::Seek { steps, .. } = plan.stages[0].strategy.clone() else { panic!("a search") };
    let values = [120, 121, 122, 123].map(Decimal::from).to_vec();
    let over = Sweep { setting: "volts".into(), values };
    let map = Stage { strategy: Strategy::Map { steps, over }, ..plan.stages[0].clone() };
    plan.stages = vec![map.clone(), Stage { wants: Some(Assurance::default()), ..map }];
    course.plan = Arc::new(plan);
    let (mut first, mut later, mut apart) = (0, 0, 0.0);
    for seed in 0..6 {
        let entries = climbed(&course, Rig::new(55.4, 1.6, seed));
        let borders: Vec<&Vec<Border>> = entries
            .iter()
            .filter_map(|entry| match entry {
                Entry::StageEnded { end: StageEnd::Mapped { border, .. }, .. } => Some(border),
                _ => None,
            })
            .collect();
        let [plain, wanted] = borders[..] else { panic!("two maps: {borders:?}") };
        for (plain, wanted) in plain.iter().zip(wanted) {
            assert!(wanted.limit <= Decimal::from(55), "{wanted:?}");
            apart += f64::try_from(plain.limit - wanted.limit).expect("a number");
        }
        let trials: Vec<u32> = wanted.iter().filter_map(|row| row.trials).collect();
        first += trials[0];
        later += trials[1..].iter().sum::<u32>();
    }
    assert!(apart / 24.0 > 4.0, "what can be claimed is {} steps below what holds as likely as not", apart / 24.0);
    assert!(later < 3 * first, "{later} trials of three rows, {first} of the first");
}

/// From what a search has proved, and can be claimed, a soak goes back as far as its margin asks, and no farther.
#[test]
fn a_soak_of_what_was_sought_keeps_its_margin_and_no_more() {
    for seed in 0..4 {
        let mut course = Course::sought();
        let mut plan = (*course.plan).clone();
        plan.stages[1].wants = Some(Assurance::default());
        let Strategy::Soak { steps, .. } = &mut plan.stages[1].strategy else { panic!("a soak") };
        steps[0].step = None;
        course.plan = Arc::new(plan);
        let entries = climbed(&course, Rig::new(55.4, 1.6, seed));
        let [sought, soaked] = [0, 1].map(|stage| clock(mark_of(&entries, stage)));
        // Its own night may say enough of the next harder one.
        assert!((Decimal::ZERO..=Decimal::ONE).contains(&(sought - soaked)), "{seed}: {sought} {soaked}");
    }
}
