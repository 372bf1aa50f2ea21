//! Curves: what is read of them, what is refused, and how they are climbed.

use std::sync::Arc;

use periculum_core::Decimal;
use periculum_core::engine::{Climb, Command, Entry, Event, RULES};
use periculum_core::files::{Document, Problem, Problems, plan_file, rig_file};
use periculum_core::model::errand::Errand;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::Moment;
use periculum_core::model::pass::PassReport;
use periculum_core::model::plan::Plan;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::{InForce, Rung};

const RIG: &str = r#"
format = 1
[rig]
name = "card"
[setting.power]
unit = "%"
ladder = { from = 50, step = 1, to = 120 }
stock = 100
ceiling = { daily = 110 }
harder = "up"
takes_effect = "at-once"
[curve.core]
unit = "MHz"
across = "mV"
points = [[700, 1200], [800, 1500], [900, 1695], [1000, 1800]]
ladder = { from = 300, step = 15, to = 2700 }
offset = { from = -300, step = 15, to = 450 }
ceiling = { daily = 2100 }
takes_effect = "at-once"
sits = { across = "volts" }
[sensor.volts]
unit = "V"
adapter = "any"
source = "any"
"#;

const PLAN: &str = r#"
format = 1
[plan]
name = "p"
rig = "card"
use = "daily"
[proof.look]
passes = [{ load = "scene", for = "60s" }]
[[stage]]
strategy = "baseline"
proof = "look"
[[stage]]
strategy = "ascend"
setting = "core"
pin = 800
step = 30
proof = "look"
"#;

fn rig(text: &str) -> Result<Rig, Vec<Problem>> {
    let document = Document::parse(text).map_err(|problem| vec![problem])?;
    let problems = Problems::default();
    let top = document.top(&problems);
    let rig = rig_file::read(&top);
    top.finish();
    if problems.is_empty() { Ok(rig.expect("no problem, so a rig")) } else { Err(problems.into_sorted()) }
}

fn plan(text: &str) -> Result<Plan, Vec<Problem>> {
    let document = Document::parse(text).map_err(|problem| vec![problem])?;
    let problems = Problems::default();
    let top = document.top(&problems);
    let plan = plan_file::read(&top, &rig(RIG).expect("a rig"), &["scene"]);
    top.finish();
    if problems.is_empty() { Ok(plan.expect("no problem, so a plan")) } else { Err(problems.into_sorted()) }
}

/// What is wrong after a change of the text, and what to do instead.
fn wrong<T: std::fmt::Debug>(
    read: impl Fn(&str) -> Result<T, Vec<Problem>>,
    text: &str,
    [from, to]: [&str; 2],
) -> Vec<String> {
    assert!(text.contains(from), "{from}");
    let problems = read(&text.replacen(from, to, 1)).expect_err(to);
    problems.into_iter().map(|problem| format!("{}; {}", problem.what, problem.help.unwrap_or_default())).collect()
}

#[test]
fn a_curve_has_levers_which_are_settings() {
    let rig = rig(RIG).expect("a rig");
    let named: Vec<&str> = rig.settings.iter().map(|setting| setting.name.as_str()).collect();
    assert_eq!(named, ["power", "core_offset", "core_flat", "core_700", "core_800", "core_900", "core_1000"]);
    let setting = |name: &str| rig.setting(name).expect("a lever");
    assert_eq!(setting("core_flat").written(setting("core_flat").stock), "1 000 mV");
    assert_eq!(setting("core_800").label, "core at 800 mV");
    assert_eq!(setting("core_offset").ceiling("daily"), 450.into());
    assert_eq!(setting("core_offset").ceiling("never"), 0.into(), "a use without a ceiling raises nothing");
    assert_eq!(rig.written(&rig.stock()), "100 %", "what is as it comes goes without saying");
    let moved = rig.stock().with("core_flat", 800.into()).with("core_800", 1530.into());
    assert_eq!(rig.written(&moved), "100 %, core flat from 800 mV, core at 800 mV 1 530 MHz");
    let told: Vec<&str> = rig.settings_told([&rig.stock(), &moved]).iter().map(|it| it.name.as_str()).collect();
    assert_eq!(told, ["power", "core_flat", "core_800"]);
}

#[test]
fn a_curve_that_can_not_be_is_refused_with_what_to_write_instead() {
    let wrong = |from: &str, to: &str| wrong(rig, RIG, [from, to]).join("\n");
    for (from, to, told) in [
        ("[800, 1500]", "[800, 1500, 3]", "each of `points` must be two numbers in square brackets; write `points ="),
        ("[800, 1500]", "[700, 1500]", "the points of a curve rise; write them from the lowest"),
        ("[800, 1500]", "[800, 1185]", "the points of a curve rise"),
        ("[800, 1500]", "[800, 1510]", "1510 is not on the ladder; the nearest value is 1515"),
        ("points = [[700, 1200], [800, 1500], [900, 1695], [1000, 1800]]", "points = [[700, 1200]]", "2 to 200 points"),
        ("daily = 2100", "daily = 1500", "the ceiling for daily is below 1800"),
        ("from = -300", "from = 15", "an offset of 0 is not among these"),
        ("offset = {", "levers = [\"ofset\"]\noffset = {", "there is no lever `ofset`; did you mean `offset`?"),
        ("offset = {", "levers = [\"flat\"]\noffset = {", "its `levers` leave `offset` out"),
        ("offset = { from = -300, step = 15, to = 450 }", "levers = []", "nothing moves this curve"),
        ("offset = { from = -300, step = 15, to = 450 }", "", "needs `offset`"),
        ("takes_effect = \"at-once\"\nsits", "takes_effect = \"next-start\"\nsits", "has no line of its own"),
        ("across = \"volts\"", "across = \"vlots\"", "there is no sensor `vlots`"),
        ("unit = \"V\"", "unit = \"W\"", "volts reads W, which points like 700 mV can't be found by"),
        ("[setting.power]", "[setting.core_flat]", "a curve has a setting called `core_flat` by itself"),
        ("[setting.power]", "[setting.core]", "a setting is called `core` as well"),
    ] {
        let found = wrong(from, to);
        assert!(found.contains(told), "{to}: {found}");
    }
}

#[test]
fn how_far_a_curve_may_be_shifted_is_mapped_over_where_it_is_flat() {
    let map = "[[stage]]\nstrategy = \"map\"\nsetting = \"core\"\nstep = 30\nproof = \"look\"\n\
               over = { setting = \"core_flat\", from = 700, to = 900 }\n";
    let plan = plan(&format!("{PLAN}{map}")).expect("a plan");
    assert_eq!(plan.stages[2].strategy.settings(), ["core_offset", "core_flat"]);
}

#[test]
fn a_pin_that_can_not_be_is_refused_with_what_to_write_instead() {
    let wrong = |from: &str, to: &str| wrong(plan, PLAN, [from, to]).join("\n");
    assert!(wrong("pin = 800", "pin = 810").contains("core has no point at 810; its points are 700, 800, 900, 1000"));
    let found = wrong("setting = \"core\"", "setting = \"power\"");
    assert!(found.contains("only a curve is pinned at one of its points; write `setting = \"core\"`"), "{found}");
    let found = wrong("setting = \"core\"", "setting = \"cor\"");
    assert!(found.contains("cor"), "{found}");
    assert!(plan(&PLAN.replacen("pin = 800\n", "", 1)).is_ok_and(|plan| plan.stages[1].pin.is_none()));
}

/// What is applied and tried until the climb has ended, on a card that holds as long as its highest point is not above this.
fn climbed(holds_to: i64) -> (Vec<Errand>, Vec<Rung>, Vec<Entry>) {
    let (rig, plan) = (Arc::new(rig(RIG).expect("a rig")), Arc::new(plan(PLAN).expect("a plan")));
    let mut climb = Climb::new(rig.clone(), plan);
    let mut in_force: InForce = rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
    let mut event = Event::Started { in_force: in_force.clone(), ahead: 0, rules: RULES, kinds: Vec::new() };
    let (mut applied, mut tried, mut entries) = (Vec::new(), Vec::new(), Vec::new());
    let mut seconds = 0..;
    while !climb.is_ended() {
        let now = Moment::from_millis(1000 * seconds.next().expect("endless"));
        let step = climb.next(now, &event);
        entries.extend(step.entries);
        event = match step.command {
            Some(Command::Apply(errand)) => {
                in_force.extend(errand.made());
                applied.push(errand);
                Event::Applied { reported: in_force.clone() }
            }
            Some(Command::RunPass(order)) => {
                tried.push(in_force.clone().into_iter().collect());
                let asked = rig.curves[0].asked(|name| in_force.get(name).copied());
                let falls = asked[3] > Decimal::from(holds_to) && order.trial > 1;
                let wrong = falls.then(|| Incident::new(IncidentKind::Artefact, "beyond"));
                let report = PassReport {
                    ran: order.pass.length,
                    incidents: wrong.into_iter().collect(),
                    ..PassReport::default()
                };
                Event::PassEnded { report, reported: None }
            }
            None => Event::TIME_PASSED,
            Some(Command::Ask(_) | Command::StopPass) => panic!("nobody is asked: {:?}", step.command),
        };
    }
    (applied, tried, entries)
}

#[test]
fn a_pinned_point_climbs_with_all_that_lies_above_it() {
    let (applied, tried, entries) = climbed(1600);
    let curve = rig(RIG).expect("a rig").curves.remove(0);
    let asked = |rung: &Rung| curve.asked(|name| rung.get(name));
    assert_eq!(asked(&tried[0]), [1200, 1500, 1695, 1800].map(Decimal::from), "stock first");
    let highest: Vec<Decimal> = tried[1..].iter().map(|rung| asked(rung)[3]).collect();
    assert_eq!(highest, [1500, 1530, 1560, 1590, 1620, 1590].map(Decimal::from));
    assert!(tried[1..].iter().all(|rung| asked(rung)[0] == Decimal::from(1200)), "what lies below stays");
    let mark = entries.iter().rev().find_map(|entry| match entry {
        Entry::MarkSet { mark } => Some(mark.clone()),
        _ => None,
    });
    let mark = mark.expect("a mark");
    assert_eq!((mark.setting.as_str(), asked(&mark.rung)[1]), ("core_800", 1590.into()));
    let home = applied.last().expect("it goes home");
    assert_eq!(home.changes().len(), 2, "the flat end and the point at once: {home:?}");
}
