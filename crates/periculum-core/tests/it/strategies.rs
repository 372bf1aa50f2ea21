//! Each strategy on a rig whose every rung behaves as the test says.

use std::collections::BTreeMap;
use std::sync::Arc;

use crate::chaos::Course;
use periculum_core::Decimal;
use periculum_core::engine::{Climb, ClimbEnd, Command, Entry, Event, Mark, Other, RULES};
use periculum_core::model::budget::{Budget, Limit};
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::ladder::{Direction, Ladder};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassReport, Score};
use periculum_core::model::plan::{Plan, Stage, Start};
use periculum_core::model::reason::{Alone, Reason, StageEnd};
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::{InForce, Rung};
use periculum_core::model::strategy::{Each, Margin, Steps, Strategy, Sweep};
use periculum_core::model::verdict::Verdict;
use periculum_core::telling::tell;

/// How a pass at a rung goes.
type Answer<'a> = &'a dyn Fn(&Rung, u32) -> PassReport;

fn held() -> PassReport {
    PassReport { ran: Span::from_seconds(60), ..PassReport::default() }
}

fn scored(value: f64) -> PassReport {
    PassReport { score: Some(Score::of(value, "GFLOP/s")), ..held() }
}

fn fell(kind: IncidentKind, seconds: u64) -> PassReport {
    let incidents = vec![Incident::new(kind, "as played")];
    PassReport { ran: Span::from_seconds(seconds), incidents, ..PassReport::default() }
}

fn wrong() -> PassReport {
    fell(IncidentKind::WrongResult, 40)
}

fn value(rung: &Rung, setting: &str) -> i64 {
    rung.get(setting).and_then(|value| i64::try_from(value).ok()).expect("a whole number")
}

fn stage(strategy: Strategy) -> Stage {
    Stage { strategy, proof: 0, start: Start::Last, save: None, pin: None, wants: None }
}

fn steps(setting: &str, step: i64) -> Steps {
    Steps::of(setting, Some(step.into()))
}

/// The rig of the plain course with a second clock, and a plan of these stages.
fn course(stages: Vec<Stage>) -> (Rig, Plan) {
    let plain = Course::plain();
    let (mut rig, mut plan) = ((*plain.rig).clone(), (*plain.plan).clone());
    let mut turbo = rig.settings[0].clone();
    turbo.name = "turbo".into();
    turbo.label = "turbo".into();
    turbo.largest_jump = None;
    rig.settings.push(turbo);
    plan.stages = stages;
    (rig, plan)
}

/// Everything that is recorded of a climb on which every change takes.
fn climb((rig, plan): (Rig, Plan), answer: Answer) -> Vec<Entry> {
    let rig = Arc::new(rig);
    let mut climb = Climb::new(rig.clone(), Arc::new(plan));
    let mut in_force: InForce = rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
    let mut event = Event::Started { in_force: in_force.clone(), ahead: 0, rules: RULES, kinds: Vec::new() };
    let (mut now, mut entries) = (0, Vec::new());
    while !climb.is_ended() {
        let step = climb.next(Moment::from_millis(now), &event);
        entries.extend(step.entries);
        event = match step.command {
            Some(Command::Apply(errand)) => {
                in_force.extend(errand.made());
                Event::Applied { reported: in_force.clone() }
            }
            Some(Command::RunPass(order)) => {
                let rung: Rung = in_force.clone().into_iter().collect();
                let report = within(answer(&rung, order.trial), order.pass.length);
                now += i64::try_from(report.ran.millis()).expect("small");
                if report.incidents.iter().any(|incident| incident.kind.takes_machine_down()) {
                    in_force = rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
                }
                Event::PassEnded { report, reported: None }
            }
            Some(Command::StopPass | Command::Ask(_)) => panic!("nobody stops or asks here"),
            None => {
                now += 1000;
                Event::TIME_PASSED
            }
        };
    }
    entries
}

/// What is seen of a report in a pass of this length: a fall that would come later does not come.
fn within(report: PassReport, length: Span) -> PassReport {
    if report.incidents.is_empty() || report.ran > length {
        return PassReport { ran: length, incidents: Vec::new(), ..report };
    }
    report
}

/// The rungs that were tried, in order, by the values of these settings.
fn tried(entries: &[Entry], settings: &[&str]) -> Vec<Vec<i64>> {
    let rung = |entry: &Entry| match entry {
        Entry::TrialBegan { rung, .. } => Some(settings.iter().map(|name| value(rung, name)).collect()),
        _ => None,
    };
    entries.iter().filter_map(rung).collect()
}

fn ends(entries: &[Entry]) -> Vec<StageEnd> {
    let end = |entry: &Entry| match entry {
        Entry::StageEnded { end, .. } => Some(end.clone()),
        _ => None,
    };
    entries.iter().filter_map(end).collect()
}

fn marks(entries: &[Entry]) -> (ClimbEnd, Vec<Mark>) {
    match entries.last() {
        Some(Entry::Ended { end, marks, .. }) => (end.clone(), marks.clone()),
        other => panic!("no end but {other:?}"),
    }
}

fn of(entries: &[Entry], setting: &str) -> Vec<i64> {
    tried(entries, &[setting]).into_iter().flatten().collect()
}

#[test]
fn coarse_steps_come_first_and_fine_ones_from_what_held() {
    let walk = Strategy::Ascend(steps("clock", 1).after(vec![4.into()]));
    let entries =
        climb(course(vec![stage(walk)]), &|rung, _| if value(rung, "clock") <= 48 { held() } else { wrong() });
    // 54 falls, so on from 50 … no: 46 and 50 are four apart, 50 falls; then 47, 48, 49 falls, back to 48.
    assert_eq!(of(&entries, "clock"), [42, 46, 50, 47, 48, 49, 48]);
    assert_eq!(value(&marks(&entries).1[0].rung, "clock"), 48);
}

#[test]
fn where_a_walk_starts_is_proved_first_and_given_up_where_it_does_not_hold() {
    let walk = || vec![stage(Strategy::Ascend(steps("clock", 1).after(vec![4.into()])))];
    let falls_above = |limit: i64| {
        climb(course(walk()), &move |rung, _| if value(rung, "clock") <= limit { held() } else { wrong() })
    };
    assert_eq!(of(&falls_above(41), "clock"), [42, 41], "stock falls: no coarse step is tried beyond it");
    assert_eq!(value(&marks(&falls_above(41)).1[0].rung, "clock"), 41);
    let baseline = stage(Strategy::Baseline { repeats: 1, within: None, idle: None, starts: 1 });
    let after_baseline = climb(course([vec![baseline], walk()].concat()), &|_, _| held());
    assert_eq!(of(&after_baseline, "clock")[..2], [42, 46], "what the baseline proved is not proved again");
}

#[test]
fn fine_steps_end_below_what_fell_before_without_trying_it_again() {
    let walk = Strategy::Ascend(steps("clock", 1).after(vec![4.into()]));
    let entries = climb(course(vec![stage(walk)]), &|rung, _| if value(rung, "clock") < 50 { held() } else { wrong() });
    assert_eq!(of(&entries, "clock"), [42, 46, 50, 47, 48, 49]);
    assert!(matches!(&ends(&entries)[..], [StageEnd::NextDidNotHold { value, .. }] if *value == Decimal::from(50)));
}

#[test]
fn a_fall_is_fed_until_the_ceiling_and_heat_is_not() {
    let feed = || Strategy::Feed { steps: steps("clock", 1), feed: steps("volts", 5) };
    let needs = |rung: &Rung| value(rung, "volts") >= 125 + 5 * (value(rung, "clock") - 44);
    let entries = climb(course(vec![stage(feed())]), &|rung, _| if needs(rung) { held() } else { wrong() });
    let pairs = [[42, 125], [43, 125], [44, 125], [45, 125], [45, 130], [46, 130], [46, 135], [47, 135], [46, 135]];
    assert_eq!(tried(&entries, &["clock", "volts"]), pairs, "the ceiling of the voltage is 139");
    let hot = |rung: &Rung, _| {
        if value(rung, "clock") <= 44 { held() } else { fell(IncidentKind::Throttled, 30) }
    };
    let entries = climb(course(vec![stage(feed())]), &hot);
    assert_eq!(tried(&entries, &["clock", "volts"]), [[42, 125], [43, 125], [44, 125], [45, 125], [44, 125]]);
    assert!(matches!(ends(&entries)[0], StageEnd::Limited { incident: IncidentKind::Throttled, .. }));
}

#[test]
fn a_deep_fall_sends_farther_back_than_a_shallow_one_but_not_below_the_start() {
    let after = |report: fn() -> PassReport| {
        let walk = Strategy::Ascend(steps("clock", 1));
        let entries =
            climb(course(vec![stage(walk)]), &|rung, _| if value(rung, "clock") < 48 { held() } else { report() });
        of(&entries, "clock")[7]
    };
    assert_eq!(after(|| fell(IncidentKind::WrongResult, 54)), 47);
    assert_eq!(after(|| fell(IncidentKind::WrongResult, 2)), 46);
    assert_eq!(after(|| fell(IncidentKind::Freeze, 54)), 45);
    let walk = Strategy::Ascend(steps("clock", 1));
    let first_freezes = |rung: &Rung, _| if value(rung, "clock") < 43 { held() } else { fell(IncidentKind::Freeze, 5) };
    assert_eq!(of(&climb(course(vec![stage(walk)]), &first_freezes), "clock"), [42, 43, 42]);
}

#[test]
fn a_limit_is_opened_in_one_trial_or_left_alone() {
    let stages = || vec![stage(Strategy::Open { setting: "turbo".into() }), stage(Strategy::Ascend(steps("clock", 8)))];
    let entries = climb(course(stages()), &|_, _| held());
    assert_eq!(tried(&entries, &["turbo", "clock"]), [[59, 42], [59, 50], [59, 58]]);
    let entries = climb(course(stages()), &|rung, _| if value(rung, "turbo") < 59 { held() } else { wrong() });
    assert_eq!(tried(&entries, &["turbo", "clock"]), [[59, 42], [42, 42], [42, 50], [42, 58]]);
    assert!(matches!(ends(&entries)[0], StageEnd::NextDidNotHold { .. }));
    assert_eq!(marks(&entries).1.len(), 1, "an open limit is no mark");
}

#[test]
fn a_grid_tries_easy_combinations_first_and_none_that_can_not_hold() {
    let sweep = |setting: &str, values: &[i64]| Sweep {
        setting: setting.into(),
        values: values.iter().map(|value| Decimal::from(*value)).collect(),
    };
    let over = vec![sweep("clock", &[42, 44, 46]), sweep("turbo", &[42, 44, 46])];
    let holds = |rung: &Rung| value(rung, "clock") + value(rung, "turbo") <= 88 && value(rung, "clock") < 46;
    let score = |rung: &Rung| 10.0 * value(rung, "turbo") as f64 + value(rung, "clock") as f64;
    let entries = climb(course(vec![stage(Strategy::Grid { over })]), &|rung, _| {
        if holds(rung) { scored(score(rung)) } else { wrong() }
    });
    let tried = tried(&entries, &["clock", "turbo"]);
    assert_eq!(tried, [[42, 42], [42, 44], [44, 42], [42, 46], [44, 44], [46, 42], [44, 46]]);
    let [StageEnd::GridDone { held: 5, fell: 2, skipped: 2, fastest: Some(fastest), spared: None }] =
        &ends(&entries)[..]
    else {
        panic!("{:?}", ends(&entries))
    };
    let both = |rung: &Rung| (value(rung, "clock"), value(rung, "turbo"));
    assert_eq!(both(&marks(&entries).1[0].rung), (44, 44), "the hardest that held");
    assert_eq!(both(&fastest.rung), (42, 46), "and the best score beside it");
}

#[test]
fn each_is_climbed_alone_with_the_others_parked_then_all_step_back_together() {
    let each = Each {
        steps: vec![steps("clock", 1), steps("turbo", 1)],
        park: vec![40.into(), 41.into()],
        margin: Margin::Steps(0),
    };
    let holds = |rung: &Rung| {
        let (clock, turbo) = (value(rung, "clock"), value(rung, "turbo"));
        clock <= 45 && turbo <= 48 && clock + turbo <= 91
    };
    let score = |rung: &Rung| (value(rung, "clock") + value(rung, "turbo")) as f64;
    let entries = climb(course(vec![stage(Strategy::Each(each))]), &|rung, _| {
        if holds(rung) { scored(score(rung)) } else { wrong() }
    });
    let tried = tried(&entries, &["clock", "turbo"]);
    assert_eq!(tried[..5], [[43, 41], [44, 41], [45, 41], [46, 41], [45, 41]]);
    assert_eq!(tried[5..13], [[40, 43], [40, 44], [40, 45], [40, 46], [40, 47], [40, 48], [40, 49], [40, 48]]);
    assert_eq!(tried[13..], [[45, 48], [44, 47], [44, 44]]);
    let [StageEnd::EachKnown { alone, back: 1, gain: Some(gain), .. }] = &ends(&entries)[..] else {
        panic!("{:?}", ends(&entries))
    };
    let known = |setting: &str, value: i64| Alone { setting: setting.into(), value: value.into() };
    assert_eq!(*alone, [known("clock", 45), known("turbo", 48)]);
    assert!((gain - (91.0 / 88.0 - 1.0)).abs() < 1e-12);
    let rung = &marks(&entries).1[0].rung;
    assert_eq!((value(rung, "clock"), value(rung, "turbo")), (44, 47));
    let told: Vec<String> = entries.iter().filter_map(|entry| tell(entry, &course(vec![]).0)).collect();
    let end = told.iter().find(|line| line.starts_with("stage 1 is over")).expect("an end");
    let wanted = "stage 1 is over: strongest: turbo (48), weakest: clock (45); \
                  together they hold one step back, +3.4 % over one common value";
    assert_eq!(end, wanted);
}

/// A clock for two cores each, and a rig whose cores fail beyond a limit of their own where both run fast.
fn with_two_groups(stages: Vec<Stage>) -> (Rig, Plan) {
    let (mut rig, plan) = course(stages);
    rig.settings[0].drives = vec![0, 1];
    let turbo = rig.settings.iter_mut().find(|setting| setting.name == "turbo").expect("a second clock");
    turbo.drives = vec![2, 3];
    (rig, plan)
}

fn wrong_on(core: usize) -> PassReport {
    let incident = Incident::new(IncidentKind::WrongResult, "as played").at(Incident::on_core(core));
    PassReport { ran: Span::from_seconds(40), incidents: vec![incident], ..PassReport::default() }
}

/// Alone to 45 and 48; together the second group can have no more than 45, since its neighbours warm it.
fn warmed(rung: &Rung, _: u32) -> PassReport {
    let (clock, turbo) = (value(rung, "clock"), value(rung, "turbo"));
    match (clock, turbo) {
        (46.., _) => wrong_on(1),
        (_, 49..) => wrong_on(3),
        (44.., 46..) => wrong_on(2),
        _ => held(),
    }
}

#[test]
fn whose_core_failed_gives_way_first() {
    let all = || vec![steps("clock", 1), steps("turbo", 1)];
    let each = |margin| {
        let each = Each { steps: all(), park: vec![40.into(), 41.into()], margin };
        climb(with_two_groups(vec![stage(Strategy::Each(each))]), &warmed)
    };
    let entries = each(Margin::Steps(0));
    let told: Vec<String> = entries.iter().filter_map(|entry| tell(entry, &with_two_groups(vec![]).0)).collect();
    assert_eq!(tried(&entries, &["clock", "turbo"])[13..], [[45, 48], [45, 47], [45, 46], [45, 45]]);
    assert!(
        told.iter().any(|line| line.contains("core 2 failed, and its setting gives way first: turbo")),
        "{told:#?}"
    );
    let [StageEnd::EachKnown { back: 3, apart, .. }] = &ends(&entries)[..] else { panic!("{:?}", ends(&entries)) };
    assert_eq!(apart, &[0, 3]);
    assert!(told.iter().any(|line| line.contains("together they hold steps back: clock 0, turbo 3")), "{told:#?}");
    // A margin is kept by all from the beginning.
    let with_margin = each(Margin::Steps(2));
    assert_eq!(tried(&with_margin, &["clock", "turbo"])[13..], [[43, 46]]);
    // More margin than there is room for ends where the stage stands, at once.
    let with_all = each(Margin::Steps(u32::MAX));
    assert_eq!(tried(&with_all, &["clock", "turbo"])[13..], [[42, 42]]);
    // Neither is to blame alone where both fail.
    let soak = Stage {
        start: Start::Profile(with_two_groups(vec![]).0.stock().with("clock", 45.into()).with("turbo", 48.into())),
        ..stage(Strategy::Soak { steps: all(), margin: Margin::Steps(0) })
    };
    let soaked = climb(with_two_groups(vec![soak]), &|rung, trial| match trial {
        1 => PassReport { incidents: [wrong_on(0).incidents, wrong_on(2).incidents].concat(), ..held() },
        _ => warmed(rung, trial),
    });
    let told: Vec<String> = soaked.iter().filter_map(|entry| tell(entry, &with_two_groups(vec![]).0)).collect();
    assert!(told.iter().any(|line| line.contains("so that all give way")), "{told:#?}");
    let tried = tried(&soaked, &["clock", "turbo"]);
    assert_eq!(tried[0], [45, 48]);
    assert!(tried[1][0] < 45 && tried[1][1] < 48, "{tried:?}");
    assert_eq!(tried[2][0], tried[1][0], "then only whose core it was");
    assert_eq!(marks(&soaked).1.len(), 1);
}

#[test]
fn a_peak_is_found_where_harder_values_clearly_score_less() {
    let peak = Strategy::Peak { steps: steps("clock", 1), repeats: 3 };
    let score = |rung: &Rung, trial: u32| {
        let beyond = (value(rung, "clock") - 46).abs() as f64;
        200.0 - 2.0 * beyond + 0.1 * f64::from(trial % 3)
    };
    let entries = climb(course(vec![stage(peak)]), &|rung, trial| scored(score(rung, trial)));
    assert_eq!(of(&entries, "clock").len(), 3 * (48 - 42 + 1), "two clearly worse values are enough");
    assert_eq!(ends(&entries), [StageEnd::PastPeak { setting: "clock".into(), benchmark: Some("dense".into()) }]);
    assert_eq!(value(&marks(&entries).1[0].rung, "clock"), 46);
    let silent = Strategy::Peak { steps: steps("clock", 1), repeats: 2 };
    assert_eq!(ends(&climb(course(vec![stage(silent)]), &|_, _| held())), [StageEnd::NoScore]);
}

/// As it was always decided, so that a record that was begun by an earlier version goes on alike.
#[test]
fn a_peak_of_one_benchmark_goes_by_the_mean() {
    let peak = Strategy::Peak { steps: steps("clock", 1), repeats: 3 };
    let entries = climb(course(vec![stage(peak)]), &|rung, trial| {
        let last = trial % 3 == 0;
        scored(match value(rung, "clock") {
            42 => 3.8 + 0.001 * f64::from(trial % 3),
            // The greatest mean, but not the greatest mean of the logarithms.
            43 => {
                if last {
                    11.0
                } else {
                    1.0
                }
            }
            44 => 4.0 + 0.001 * f64::from(trial % 3),
            _ => 0.5 + 0.001 * f64::from(trial % 3),
        })
    });
    assert_eq!(value(&marks(&entries).1[0].rung, "clock"), 42, "it is not clearly below the greatest mean");
}

#[test]
fn a_peak_looks_at_every_benchmark_of_its_proof() {
    let (rig, mut plan) = course(vec![stage(Strategy::Peak { steps: steps("clock", 1), repeats: 3 })]);
    let copy = plan.proofs[0].passes[0].clone();
    plan.proofs[0].passes.insert(0, Pass { load: "encode".into(), ..copy });
    // The first benchmark falls beyond 45, the last one goes on rising for ever.
    let passes = std::cell::Cell::new(0);
    let entries = climb((rig, plan), &|rung, trial| {
        let (clock, nth) = (value(rung, "clock") as f64, passes.replace(passes.get() + 1));
        let noise = 0.1 * f64::from(trial % 3);
        scored(if nth % 2 == 0 { 200.0 - 9.0 * (clock - 45.0).abs() + noise } else { 100.0 + 0.1 * clock + noise })
    });
    let decided = StageEnd::PastPeak { setting: "clock".into(), benchmark: Some("encode".into()) };
    assert_eq!(ends(&entries), [decided]);
    assert_eq!(value(&marks(&entries).1[0].rung, "clock"), 45);
}

#[test]
fn a_map_says_what_is_untested_and_never_leaves_the_ladder() {
    let over = Sweep { setting: "volts".into(), values: [130, 120, 110].map(Decimal::from).to_vec() };
    let (rig, mut plan) = course(vec![stage(Strategy::Map { steps: steps("clock", 1), over })]);
    plan.proofs[0].passes[0].length = Span::from_seconds(8 * 3600);
    // Everything holds: the first row runs up to the ceiling, and others may be settled without a trial.
    let entries = climb((rig.clone(), plan), &|_, _| held());
    let [end @ StageEnd::Mapped { border, .. }] = &ends(&entries)[..] else { panic!("{:?}", ends(&entries)) };
    let clock = rig.setting("clock").expect("a clock");
    for row in border {
        let [low, high] = row.between.expect("an interval");
        assert!(
            low >= clock.stock && high <= clock.ceiling("daily") && low <= row.limit && row.limit <= high,
            "{row:?}"
        );
        let tried = tried(&entries, &["volts"]).iter().filter(|at| Decimal::from(at[0]) == row.value).count();
        assert_eq!(row.trials, Some(tried as u32), "{row:?}");
    }
    let untested = border.iter().filter(|row| row.trials == Some(0)).count();
    assert_eq!(untested > 0, end.sentence(&rig).contains("untested"), "{}", end.sentence(&rig));
}

#[test]
fn a_map_follows_a_border() {
    let over = Sweep { setting: "volts".into(), values: [130, 120, 110].map(Decimal::from).to_vec() };
    let map = Strategy::Map { steps: steps("clock", 1), over };
    // A clock unit for each three of voltage.
    let limit = |rung: &Rung| 50.0 + (value(rung, "volts") - 130) as f64 / 3.0;
    let (rig, mut plan) = course(vec![stage(map)]);
    plan.proofs[0].passes[0].length = Span::from_seconds(8 * 3600);
    let mean = |rung: &Rung| 28_800.0 * 9.5 * (-1.2 * (value(rung, "clock") as f64 - limit(rung))).exp();
    let entries = climb((rig, plan), &|rung, trial| {
        // Every fifth of the survival times, in turn.
        let part = [0.2, 1.6, 0.5, 1.0, 0.35][trial as usize % 5];
        fell(IncidentKind::WrongResult, (mean(rung) * part) as u64 + 30)
    });
    let [StageEnd::Mapped { border, .. }] = &ends(&entries)[..] else { panic!("{:?}", ends(&entries)) };
    assert_eq!(border.len(), 3);
    for (point, truth) in border.iter().zip([50.0, 46.7, 43.3]) {
        let limit = f64::try_from(point.limit).expect("a number");
        assert!((limit - truth).abs() < 2.5 && point.deviation < 2.5, "{limit} of {truth} ± {}", point.deviation);
    }
}

#[test]
fn how_cold_a_rig_starts_is_mapped_over_its_voltage_like_any_border() {
    let (mut rig, mut plan) = course(vec![]);
    let pot = rig.settings.iter_mut().find(|setting| setting.name == "turbo").expect("a setting");
    (pot.name, pot.label, pot.unit) = ("pot".into(), "pot".into(), "°C".into());
    pot.harder = Direction::Down;
    pot.ladder = Ladder::steps((-190).into(), 5.into(), 20.into()).expect("a ladder");
    (pot.stock, pot.floor) = (20.into(), (-190).into());
    pot.ceilings.values_mut().for_each(|ceiling| *ceiling = 20.into());
    let over = Sweep { setting: "volts".into(), values: [130, 120, 110].map(Decimal::from).to_vec() };
    plan.stages = vec![stage(Strategy::Map { steps: steps("pot", 5), over })];
    plan.proofs[0].passes[0].length = Span::from_seconds(60);
    // More voltage holds out less cold.
    let limit = |rung: &Rung| -150 + 2 * (value(rung, "volts") - 110);
    let entries = climb((rig, plan), &|rung, _| if value(rung, "pot") >= limit(rung) { held() } else { wrong() });
    let [StageEnd::Mapped { border, .. }] = &ends(&entries)[..] else { panic!("{:?}", ends(&entries)) };
    let found: Vec<f64> = border.iter().map(|row| f64::try_from(row.limit).expect("a number")).collect();
    for (found, truth) in found.iter().zip([-110.0, -130.0, -150.0]) {
        assert!((found - truth).abs() <= 12.5, "{found} of {truth}");
    }
    assert!(entries.iter().all(|entry| !matches!(entry, Entry::TrialBegan { rung, .. } if value(rung, "pot") < -190)));
    // Rows behind the first begin next to where it says that their limit is, and none is told untouched.
    for (volts, at_least) in [(120, -50), (110, -90)] {
        let row: Vec<i64> =
            tried(&entries, &["volts", "pot"]).iter().filter(|it| it[0] == volts).map(|it| it[1]).collect();
        assert!(row.first().is_some_and(|first| *first <= at_least), "{volts}: {row:?}");
    }
}

#[test]
fn a_margin_is_kept_in_steps_or_in_percent_and_the_profile_saved() {
    let soak = |margin| Stage {
        save: Some("daily".into()),
        ..stage(Strategy::Soak { steps: vec![steps("clock", 1)], margin })
    };
    let walk = || stage(Strategy::Ascend(steps("clock", 1)));
    let climbed = |margin| {
        climb(course(vec![walk(), soak(margin)]), &|rung, _| if value(rung, "clock") <= 52 { held() } else { wrong() })
    };
    let profile = |entries: &[Entry]| {
        let saved = entries.iter().find_map(|entry| match entry {
            Entry::ProfileSaved { profile } => Some(profile.clone()),
            _ => None,
        });
        saved.expect("a profile")
    };
    let told = |entries: &[Entry]| {
        let margin = |entry: &Entry| match entry {
            Entry::TrialBegan { reason: Reason::Soak { margin, .. }, .. } => Some(*margin),
            _ => None,
        };
        entries.iter().find_map(margin).expect("a soak")
    };
    let more_than_there_is = climbed(Margin::Steps(30));
    assert_eq!((value(&profile(&more_than_there_is).rung, "clock"), told(&more_than_there_is)), (42, 10), "from 52");
    assert_eq!(told(&climbed(Margin::Steps(2))), 2);
    let by_steps = profile(&climbed(Margin::Steps(2)));
    assert_eq!((value(&by_steps.rung, "clock"), by_steps.soaked), (50, true));
    let by_share = profile(&climbed(Margin::Share(Decimal::new(3, 2))));
    assert_eq!(value(&by_share.rung, "clock"), 50, "3 % of 52 are more than one step");
    assert_eq!(by_share.mark.expect("a mark").rung, by_share.rung);
}

#[test]
fn a_stage_may_start_at_stock_or_at_a_profile() {
    let walk = |start| Stage { start, ..stage(Strategy::Ascend(steps("clock", 1))) };
    let profile = course(vec![]).0.stock().with("clock", 50.into()).with("volts", 130.into());
    let stages = vec![walk(Start::Last), walk(Start::Stock), walk(Start::Profile(profile))];
    let entries = climb(course(stages), &|rung, _| if value(rung, "clock") <= 44 { held() } else { wrong() });
    let tried = tried(&entries, &["clock", "volts"]);
    assert_eq!(tried[5..10], [[43, 125], [44, 125], [45, 125], [44, 125], [50, 130]], "a profile is proved first");
}

#[test]
fn a_budget_ends_the_climb_with_the_best_so_far_as_its_mark() {
    let (rig, mut plan) =
        course(vec![stage(Strategy::Ascend(steps("clock", 1))), stage(Strategy::Trim(steps("volts", 1)))]);
    plan.budget = Budget { hours: Some(Span::from_seconds(200)), ..Budget::default() };
    let entries = climb((rig, plan), &|_, _| held());
    assert_eq!(of(&entries, "clock"), [42, 43, 44]);
    let (end, marks) = marks(&entries);
    assert_eq!(end, ClimbEnd::BudgetSpent { limit: Limit::Hours, left: vec![0, 1] });
    assert_eq!(value(&marks[0].rung, "clock"), 44);
    assert_eq!(end.sentence(), "the hours are used up, and stages 1 to 2 were not finished");
}

#[test]
fn a_budget_of_restarts_is_spent_by_restarts_only() {
    let (rig, mut plan) = course(vec![stage(Strategy::Ascend(steps("clock", 1)))]);
    plan.budget = Budget { restarts: Some(1), ..Budget::default() };
    let entries = climb((rig, plan), &|rung, _| {
        if value(rung, "clock") < 45 { held() } else { fell(IncidentKind::Restart, 5) }
    });
    assert_eq!(marks(&entries).0, ClimbEnd::BudgetSpent { limit: Limit::Restarts, left: vec![0] });
}

#[test]
fn a_seek_keeps_the_time_for_its_proof() {
    let (rig, mut plan) = course(vec![stage(Strategy::Seek { steps: steps("clock", 1), margin: Margin::Steps(0) })]);
    plan.proofs[0].passes[0].length = Span::from_seconds(8 * 3600);
    plan.budget = Budget { hours: Some(Span::from_seconds(8 * 3600 + 2000)), ..Budget::default() };
    let entries = climb((rig, plan), &|_, _| held());
    assert!(matches!(marks(&entries).0, ClimbEnd::Completed), "{:?}", marks(&entries).0);
    assert_eq!(marks(&entries).1.len(), 1);
}

#[test]
fn a_score_that_is_too_low_is_measured_again_before_it_counts() {
    let stages = || {
        let baseline = Strategy::Baseline { repeats: 4, within: None, idle: None, starts: 1 };
        vec![stage(baseline), stage(Strategy::Ascend(steps("clock", 8)))]
    };
    let noisy = |trial: u32| 200.0 + f64::from(trial % 4);
    // Once disturbed: trial 5 scores low, and the same rung in trial 6 does not.
    let once = climb(course(stages()), &|_, trial| scored(if trial == 5 { 170.0 } else { noisy(trial) }));
    let verdicts: Vec<Verdict> = once
        .iter()
        .filter_map(|entry| match entry {
            Entry::TrialEnded { verdict, .. } => Some(*verdict),
            _ => None,
        })
        .collect();
    assert_eq!(verdicts[4..], [Verdict::Void, Verdict::Held, Verdict::Held]);
    assert_eq!(of(&once, "clock")[4..], [50, 50, 58]);
    // A real loss: it slipped, and the stage goes back.
    let loss =
        climb(course(stages()), &|rung, trial| scored(if value(rung, "clock") > 50 { 170.0 } else { noisy(trial) }));
    assert_eq!(of(&loss, "clock")[4..], [50, 58, 58, 50]);
    assert!(matches!(
        &ends(&loss)[1],
        StageEnd::NextDidNotHold { verdict: Verdict::Slipped, incident: Some(IncidentKind::ScoreLoss), .. }
    ));
}

#[test]
fn a_long_proof_at_stock_comes_after_a_short_one() {
    let (rig, mut plan) = course(vec![stage(Strategy::Baseline { repeats: 2, within: None, idle: None, starts: 1 })]);
    plan.proofs[0].passes = [600, 300].map(|seconds| Pass::usual("dense", Span::from_seconds(seconds))).to_vec();
    let entries = climb((rig, plan), &|_, _| scored(200.0));
    let lengths = entries.iter().filter_map(|entry| match entry {
        Entry::PassBegan { order, .. } => Some(order.length.millis() / 1000),
        _ => None,
    });
    assert_eq!(lengths.collect::<Vec<_>>(), [20, 10, 600, 300, 600, 300]);
}

#[test]
fn a_disturbed_run_of_the_baseline_is_repeated_and_not_averaged_in() {
    let baseline = Strategy::Baseline { repeats: 4, within: None, idle: None, starts: 1 };
    let entries = climb(course(vec![stage(baseline)]), &|_, trial| {
        scored(if trial == 3 { 180.0 } else { 200.0 + 0.1 * f64::from(trial) })
    });
    assert_eq!(of(&entries, "clock").len(), 5);
    let last = entries.iter().rev().find_map(|entry| match entry {
        Entry::TrialBegan { reason, .. } => Some(reason.clone()),
        _ => None,
    });
    assert_eq!(last, Some(periculum_core::model::reason::Reason::Disturbed { trial: 3 }));
}

#[test]
fn a_pass_that_could_not_be_started_says_nothing_about_its_rung() {
    let refused = |rung: &Rung, _| match value(rung, "clock") {
        42..=43 => held(),
        _ => PassReport { refused: Some("no memory".into()), ..PassReport::default() },
    };
    let entries = climb(course(vec![stage(Strategy::Ascend(steps("clock", 1)))]), &refused);
    let (end, _) = marks(&entries);
    assert_eq!(end.sentence(), "a pass could not be started: no memory");
    let voids = entries.iter().filter(|entry| matches!(entry, Entry::TrialEnded { verdict: Verdict::Void, .. }));
    assert_eq!(voids.count(), 1);
}

#[test]
fn a_rig_rests_before_a_pass_that_wants_it() {
    let (rig, mut plan) = course(vec![stage(Strategy::Baseline { repeats: 1, within: None, idle: None, starts: 1 })]);
    plan.proofs[0].passes[0].pause = Span::from_seconds(7);
    let mut climb = Climb::new(Arc::new(rig.clone()), Arc::new(plan));
    let in_force: InForce = rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
    let begun =
        climb.next(Moment::from_millis(0), &Event::Started { in_force, ahead: 0, rules: RULES, kinds: Vec::new() });
    assert!(begun.command.is_none() && climb.needs_time() && !climb.is_passing());
    assert!(climb.next(Moment::from_millis(6999), &Event::TIME_PASSED).is_silent());
    let others = vec![Other { name: "backup".into(), percent: 40.0 }];
    let busy = Event::OthersBusy { others: others.clone() };
    assert!(climb.next(Moment::from_millis(6999), &busy).is_silent(), "no pass runs that it could disturb");
    let step = climb.next(Moment::from_millis(7000), &Event::TIME_PASSED);
    assert!(matches!(step.command, Some(Command::RunPass(_))));
    let told = climb.next(Moment::from_millis(7001), &busy).entries;
    assert_eq!(told, [Entry::OthersBusy { trial: 1, others }]);
    let line = tell(&told[0], &rig).expect("a line");
    assert_eq!(line, "other programs use the processor: backup (40 %)");
}

#[test]
fn a_machine_that_keeps_going_down_with_nobody_there_ends_the_climb() {
    let high = Start::Profile(course(vec![]).0.stock().with("clock", 50.into()));
    let (rig, plan) = course(vec![Stage { start: high, ..stage(Strategy::Ascend(steps("clock", 1))) }]);
    let mut climb = Climb::new(Arc::new(rig.clone()), Arc::new(plan));
    let stock: InForce = rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
    let mut at = 0;
    let mut next = |climb: &mut Climb, event: &Event| {
        at += 1000;
        climb.next(Moment::from_millis(at), event)
    };
    next(&mut climb, &Event::Started { in_force: stock.clone(), ahead: 0, rules: RULES, kinds: Vec::new() });
    let mut last = None;
    for _ in 0..3 {
        assert!(!climb.is_ended());
        let ending = periculum_core::model::ending::Ending::MachineRestarted;
        let step = next(
            &mut climb,
            &Event::Restarted {
                ending,
                lived: None,
                in_force: stock.clone(),
                unattended: true,
                last_words: None,
                lived_at_most: None,
                rules: RULES,
            },
        );
        last = step.entries.last().cloned();
    }
    assert!(climb.is_ended(), "{last:?}");
    assert!(matches!(last, Some(Entry::Ended { end: ClimbEnd::KeepsFalling { times: 3 }, .. })));
}

#[test]
fn a_core_far_hotter_than_the_others_ends_the_climb_with_advice() {
    let (mut rig, plan) = course(vec![stage(Strategy::Baseline { repeats: 1, within: None, idle: None, starts: 1 })]);
    let sensor = |core: u32| periculum_core::model::rig::Sensor {
        core: Some(core),
        ..periculum_core::model::rig::Sensor::plain(&format!("core{core}"))
    };
    rig.sensors = (0..4).map(sensor).collect();
    let mut climb = Climb::new(Arc::new(rig.clone()), Arc::new(plan));
    let in_force: InForce = rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
    climb.next(Moment::from_millis(0), &Event::Started { in_force, ahead: 0, rules: RULES, kinds: Vec::new() });
    let readings: BTreeMap<String, f64> =
        [60.0, 61.0, 92.0, 60.5].iter().enumerate().map(|(core, value)| (format!("core{core}"), *value)).collect();
    let sample = Event::Sample { readings, highest: BTreeMap::new() };
    let step = climb.next(Moment::from_millis(30_000), &sample);
    assert_eq!(step.command, Some(Command::StopPass));
    let report = PassReport { ran: Span::from_seconds(30), stopped: true, ..PassReport::default() };
    let step = climb.next(Moment::from_millis(30_100), &Event::PassEnded { report, reported: None });
    assert!(climb.is_ended());
    let Some(Entry::Ended { end, .. }) = step.entries.last() else { panic!("{step:?}") };
    assert_eq!(end.sentence(), "core 2 is at 92 °C and the others at 60 °C: check how the cooler is mounted");
}

#[test]
fn a_lost_sensor_that_a_cut_off_rests_on_ends_the_climb() {
    let (rig, plan) = course(vec![stage(Strategy::Baseline { repeats: 1, within: None, idle: None, starts: 1 })]);
    let mut climb = Climb::new(Arc::new(rig.clone()), Arc::new(plan));
    let in_force: InForce = rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
    climb.next(Moment::from_millis(0), &Event::Started { in_force, ahead: 0, rules: RULES, kinds: Vec::new() });
    let silent = Event::Sample { readings: BTreeMap::new(), highest: BTreeMap::new() };
    assert!(climb.next(Moment::from_millis(10_000), &silent).is_silent());
    let step = climb.next(Moment::from_millis(16_000), &silent);
    assert_eq!(step.command, Some(Command::StopPass));
    let report = PassReport { ran: Span::from_seconds(16), stopped: true, ..PassReport::default() };
    let step = climb.next(Moment::from_millis(16_100), &Event::PassEnded { report, reported: None });
    let Some(Entry::Ended { end, .. }) = step.entries.last() else { panic!("{step:?}") };
    assert_eq!(end.sentence(), "core no longer tells anything, and a cut-off rests on it");
}
