//! Rig and plan files: what is read, what is refused and where, whatever the text.

use periculum_core::Decimal;
use periculum_core::files::{Document, Problem, Problems, plan_file, rig_file};
use periculum_core::model::amount::Amount;
use periculum_core::model::history::History;
use periculum_core::model::ladder::Direction;
use periculum_core::model::moment::Span;
use periculum_core::model::objection::Objection;
use periculum_core::model::pass::{Demand, Extent, StopOn, Threads};
use periculum_core::model::plan::{Plan, Start};
use periculum_core::model::rig::{Illegal, Paid, Rig};
use periculum_core::model::rung::Rung;
use periculum_core::model::setting::TakesEffect;
use periculum_core::model::strategy::{Margin, Strategy as Way};
use proptest::prelude::*;

const RIG: &str = r#"
format = 1
[rig]
name = "relic"
[[part]]
kind = "board"
model = "Kestrel 486"
[setting.bus_clock]
unit = "MHz"
values = [33.3, 25, 40, 50]
stock = 33.3
ceiling = { daily = 40, bench = 50 }
harder = "up"
takes_effect = "by-hand"
[setting.wait_states]
ladder = { from = 0, step = 1, to = 3 }
stock = 2
floor = 0
ceiling = { daily = 3 }
harder = "down"
takes_effect = "by-hand"
[derived.card_clock]
unit = "MHz"
formula = "bus_clock / 4"
window = { from = 6, to = 10.5 }
"#;

const PLAN: &str = r#"
format = 1
[plan]
name = "old iron"
rig = "relic.rig.toml"
use = "daily"
[proof.short]
passes = [{ load = "dense", for = "1min 30s" }, { load = "dense", for = "5min", threads = 1 }]
[[stage]]
strategy = "baseline"
proof = "short"
[[stage]]
strategy = "ascend"
setting = "bus_clock"
proof = "short"
[[stage]]
strategy = "trim"
setting = "wait_states"
step = 1
back = 2
proof = "short"
"#;

fn rig(text: &str) -> Result<Rig, Vec<Problem>> {
    let document = Document::parse(text).map_err(|problem| vec![problem])?;
    let problems = Problems::default();
    let top = document.top(&problems);
    let rig = rig_file::read(&top);
    top.finish();
    if problems.is_empty() { Ok(rig.expect("no problem, so a rig")) } else { Err(problems.into_sorted()) }
}

fn plan(text: &str, rig: &Rig) -> Result<Plan, Vec<Problem>> {
    let document = Document::parse(text).map_err(|problem| vec![problem])?;
    let problems = Problems::default();
    let top = document.top(&problems);
    let plan = plan_file::read(&top, rig, &["dense"]);
    top.finish();
    if problems.is_empty() { Ok(plan.expect("no problem, so a plan")) } else { Err(problems.into_sorted()) }
}

fn decimal(text: &str) -> Decimal {
    text.parse().expect("a number")
}

/// What is wrong with the rig after a change of its text, and the text that it is wrong at.
fn wrong_rig(from: &str, to: &str) -> Vec<(String, String)> {
    assert!(RIG.contains(from), "{from}");
    let text = RIG.replacen(from, to, 1);
    told(rig(&text).expect_err("something is wrong"), &text)
}

fn wrong_plan(from: &str, to: &str) -> Vec<(String, String)> {
    assert!(PLAN.contains(from), "{from}");
    let text = PLAN.replacen(from, to, 1);
    told(plan(&text, &rig(RIG).expect("a rig")).expect_err("something is wrong"), &text)
}

fn told(problems: Vec<Problem>, text: &str) -> Vec<(String, String)> {
    problems.into_iter().map(|problem| (text[problem.at].to_owned(), problem.what)).collect()
}

fn at(problems: &[(String, String)]) -> Vec<&str> {
    problems.iter().map(|(at, _)| at.as_str()).collect()
}

#[test]
fn a_rig_is_read_exactly() {
    let rig = rig(RIG).expect("a rig");
    let bus = rig.setting("bus_clock").expect("a setting");
    assert_eq!((bus.label.as_str(), bus.floor, bus.ceiling("daily")), ("bus clock", decimal("25"), decimal("40")));
    assert_eq!((bus.harder, bus.takes_effect), (Direction::Up, TakesEffect::ByHand));
    assert_eq!(bus.ceiling("nothing known"), decimal("33.3"), "without a ceiling, stock is all there is");
    assert_eq!(
        rig.settings.iter().map(|setting| setting.name.as_str()).collect::<Vec<_>>(),
        ["bus_clock", "wait_states"]
    );
    assert_eq!(rig.written(&rig.stock()), "33.3 MHz, wait states 2");
    assert_eq!(rig.derived[0].value(&rig.stock()), Some(decimal("8.325")));
    assert_eq!(rig.paid(), None);
}

#[test]
fn what_was_paid_for_the_parts_is_added_up() {
    let card =
        "model = \"Kestrel 486\"\npaid = \"35.50 EUR\"\n[[part]]\nkind = \"card\"\nmodel = \"K\"\npaid = \"7 EUR\"\n";
    let rig = rig(&RIG.replace("model = \"Kestrel 486\"\n", card)).expect("a rig");
    assert_eq!(rig.paid(), Some(Paid { amount: decimal("42.50"), currency: "EUR".into() }));
}

#[test]
fn what_a_rig_did_before_is_read_with_its_failures() {
    let told = "[[history]]\nloaded = \"300h\"\nfailures = 2\n[[history]]\nloaded = \"20h\"\nfailures = 1\n[[history]]\nat = { bus_clock = 37.5 }\nloaded = \"90min\"\nfailures = 0\n";
    let rig = rig(&format!("{RIG}{told}")).expect("a rig");
    let told = |rung: Rung, hours: f64, failures| History {
        rung,
        loaded: Span::from_seconds((3600.0 * hours) as u64),
        failures,
    };
    let faster = rig.stock().with("bus_clock", decimal("37.5"));
    assert_eq!(
        rig.history,
        [told(rig.stock(), 320.0, 3), told(faster, 1.5, 0)],
        "what is told of one rung counts as one"
    );
}

#[test]
fn what_a_rig_did_before_says_how_long_and_how_often_it_failed() {
    let wrong = |told: &str| -> Vec<String> {
        let problems = rig(&format!("{RIG}{told}\n")).expect_err("wrong");
        problems.into_iter().map(|problem| problem.what).collect()
    };
    assert_eq!(wrong("[[history]]\nloaded = \"300h\""), ["[history 1] needs `failures`"]);
    assert_eq!(wrong("[[history]]\nloaded = \"0h\"\nfailures = 1"), ["it can't have failed in no time"]);
    assert_eq!(wrong("[[history]]\nloaded = \"9h\"\nfailures = -1"), ["`failures` must be a whole number from 0 up"]);
    assert_eq!(
        wrong("[history]\nloaded = \"9h\"\nfailures = 0"),
        ["`history` must be a list of tables, like [[history]]"]
    );
    let beyond =
        wrong("[[history]]\nat = { bus_clock = 79228162514264337593543950335 }\nloaded = \"9h\"\nfailures = 0");
    assert_eq!(beyond, ["79228162514264337593543950335 is beyond the ladder, which goes from 25 to 50"]);
    let many = wrong(&"[[history]]\nloaded = \"9h\"\nfailures = 4294967295\n".repeat(101));
    assert_eq!(many, ["there are 101 tables [[history]], and a rig has at most 100"]);
    let unknown = wrong("[[history]]\nat = { bus_clok = 40 }\nloaded = \"9h\"\nfailures = 0");
    assert_eq!(unknown, ["there is no setting `bus_clok`"]);
}

#[test]
fn a_rung_is_permitted_only_within_every_limit() {
    let rig = rig(RIG).expect("a rig");
    let with = |clock: &str| rig.stock().with("bus_clock", decimal(clock));
    assert_eq!(rig.permit(&with("40"), "daily"), Ok(()));
    assert!(matches!(rig.permit(&with("50"), "daily"), Err(Illegal::OutOfReach { .. })));
    assert!(matches!(rig.permit(&with("34"), "daily"), Err(Illegal::OutOfReach { .. })));
    let refused = rig.permit(&with("40").with("wait_states", decimal("3")), "bench").expect_err("beyond stock");
    assert_eq!(refused.to_string(), "wait_states = 3 is off its ladder or outside 0 … 2");
}

#[test]
fn a_derived_value_outside_its_window_is_never_tried() {
    let text = RIG.replace("ceiling = { daily = 3 }", "ceiling = { daily = 3, bench = 3 }");
    let rig = rig(&text).expect("a rig");
    let refused = rig.permit(&rig.stock().with("bus_clock", decimal("50")), "bench").expect_err("too fast");
    assert_eq!(refused.to_string(), "card_clock would be 12.5, outside its window 6 … 10.5");
}

#[test]
fn a_plan_is_read_against_its_rig() {
    let plan = plan(PLAN, &rig(RIG).expect("a rig")).expect("a plan");
    assert_eq!(plan.proofs[0].length(), Span::from_seconds(390));
    assert_eq!(plan.proofs[0].passes[1].threads, Threads::Count(1));
    assert_eq!(plan.climbed_setting(), Some("bus_clock"));
    let Way::Ascend(ascend) = &plan.stages[1].strategy else { panic!("an ascent") };
    assert_eq!((ascend.step, ascend.back), (None, 1));
    let Way::Trim(trim) = &plan.stages[2].strategy else { panic!("a trim") };
    assert_eq!((trim.step, trim.back), (Some(decimal("1")), 2));
}

#[test]
fn a_pass_may_ask_for_more_than_a_load_and_a_time() {
    let more =
        "threads = \"each\", times = 3, memory = \"75%\", reserve = \"2GiB\", priority = -5, stop_on = \"never\"";
    let plan = plan(&PLAN.replace("threads = 1", more), &rig(RIG).expect("a rig")).expect("a plan");
    let pass = &plan.proofs[0].passes[1];
    assert_eq!(pass.threads, Threads::Each);
    let wanted = Demand {
        times: Some(3),
        extent: Extent::Memory(Amount::Percent(75)),
        reserve: Some(2 << 30),
        priority: Some(-5),
        stop_on: StopOn::Never,
    };
    assert_eq!(pass.demand, wanted);
}

#[test]
fn problems_of_a_rig_point_at_their_place() {
    assert_eq!(at(&wrong_rig("stock = 33.3", "stock = 33.4")), ["33.4"]);
    assert_eq!(at(&wrong_rig("daily = 40", "daily = 25")), ["25"]);
    assert_eq!(at(&wrong_rig("harder = \"up\"", "harder = \"faster\"")), ["\"faster\""]);
    assert_eq!(at(&wrong_rig("step = 1", "step = 0")), ["{ from = 0, step = 0, to = 3 }"]);
    assert_eq!(at(&wrong_rig("step = 1", "step = 2")), ["{ from = 0, step = 2, to = 3 }"]);
    assert_eq!(at(&wrong_rig("values = [33.3, 25", "values = [33.3, 33.3")), ["[33.3, 33.3, 40, 50]"]);
    assert_eq!(at(&wrong_rig("bus_clock / 4", "bus_clock / / 4")), ["/"]);
    assert_eq!(at(&wrong_rig("bus_clock / 4", "buss_clock / 4")), ["buss_clock"]);
    assert_eq!(at(&wrong_rig("from = 6, to = 10.5", "from = 9, to = 10.5")), ["card_clock"]);
    assert_eq!(at(&wrong_rig("format = 1", "format = 7")), ["7"]);
    assert_eq!(at(&wrong_rig("floor = 0", "flor = 0")), ["flor"]);
    let model = "model = \"Kestrel 486\"";
    assert_eq!(at(&wrong_rig(model, &format!("{model}\npaid = \"a lot\""))), ["\"a lot\""]);
    assert_eq!(at(&wrong_rig(model, &format!("{model}\npaid = \"0 EUR\""))), ["\"0 EUR\""]);
    let mixed = format!("{model}\npaid = \"5 EUR\"\n[[part]]\nkind = \"card\"\nmodel = \"K\"\npaid = \"7 SEK\"");
    assert_eq!(at(&wrong_rig(model, &mixed)), ["\"7 SEK\""]);
    let missing = wrong_rig("harder = \"up\"\n", "");
    assert_eq!((at(&missing), missing[0].1.as_str()), (vec!["bus_clock"], "[setting] › bus_clock needs `harder`"));
    let both = wrong_rig("stock = 33.3", "stock = 33.3\nladder = { from = 25, step = 5, to = 50 }");
    assert!(both[0].1.contains("either `ladder` or `values`"));
}

#[test]
fn problems_of_a_plan_point_at_their_place() {
    assert_eq!(at(&wrong_plan("use = \"daily\"", "use = \"nightly\"")), ["\"nightly\"", "\"nightly\""]);
    assert_eq!(at(&wrong_plan("\"1min 30s\"", "\"-1s\"")), ["\"-1s\""]);
    assert_eq!(at(&wrong_plan("\"1min 30s\"", "\"0s\"")), ["\"0s\""]);
    assert_eq!(at(&wrong_plan("load = \"dense\"", "load = \"dens\"")), ["\"dens\""]);
    assert_eq!(at(&wrong_plan("threads = 1", "threads = \"some\"")), ["\"some\""]);
    assert_eq!(at(&wrong_plan("threads = 1", "threads = 0.5")), ["0.5"]);
    let pass = |more: &str| {
        let problems = wrong_plan("threads = 1", &format!("threads = 1, {more}"));
        at(&problems).into_iter().map(str::to_owned).collect::<Vec<_>>()
    };
    assert_eq!(pass("memory = \"some\""), ["\"some\""]);
    assert_eq!(pass("memory = \"8GiB\", size = 100"), ["\"8GiB\""]);
    assert_eq!(pass("reserve = \"75%\""), ["\"75%\""]);
    assert_eq!(pass("priority = 20"), ["20"]);
    assert_eq!(pass("priority = 1.5"), ["1.5"]);
    assert_eq!(pass("stop_on = \"last\""), ["\"last\""]);
    assert_eq!(pass("times = 0"), ["0"]);
    assert_eq!(at(&wrong_plan("setting = \"bus_clock\"", "setting = \"wait_states\"")), ["\"ascend\""]);
    assert_eq!(at(&wrong_plan("step = 1", "step = -1")), ["-1"]);
    assert_eq!(at(&wrong_plan("back = 2", "back = 0")), ["0"]);
    let baseline =
        |more: &str| at(&wrong_plan("strategy = \"baseline\"", &format!("strategy = \"baseline\"\n{more}"))).concat();
    assert_eq!([baseline("within = \"1\""), baseline("within = \"0%\"")], ["\"1\"", "\"0%\""]);
    assert_eq!(at(&wrong_plan("strategy = \"trim\"", "strategy = \"trimm\"")), ["\"trimm\""]);
    let listed = wrong_plan("setting = \"bus_clock\"", "setting = \"bus_clock\"\nstep = 5");
    assert!(listed[0].1.contains("is a list, which has no even step"));
}

#[test]
fn what_is_wanted_of_marks_is_said_for_all_stages_or_for_one() {
    let rig = rig(RIG).expect("a rig");
    let wants = |text: &str| {
        let plan = plan(text, &rig).expect("a plan");
        plan.stages
            .iter()
            .map(|stage| stage.wants.map(|it| [it.survives, it.sure].map(|share| share.normalize().to_string())))
            .collect::<Vec<_>>()
    };
    let said = |survives: &str, sure: &str| Some([survives.to_owned(), sure.to_owned()]);
    assert_eq!(wants(PLAN), vec![None; 3]);
    let all = PLAN.replace("use = \"daily\"", "use = \"daily\"\nsurvives = \"80%\"");
    let one = all.replace("strategy = \"ascend\"", "strategy = \"ascend\"\nsure = \"99%\"");
    assert_eq!(wants(&one), [said("0.8", "0.95"), said("0.8", "0.99"), said("0.8", "0.95")]);
    assert_eq!(at(&wrong_plan("use = \"daily\"", "use = \"daily\"\nsure = \"100%\"")), ["\"100%\""]);
    assert_eq!(at(&wrong_plan("strategy = \"ascend\"", "strategy = \"ascend\"\nsurvives = \"0.9\"")), ["\"0.9\""]);
}

#[test]
fn a_plan_without_stages_or_passes_is_refused() {
    let rig = rig(RIG).expect("a rig");
    let head = PLAN.split("[[stage]]").next().expect("a head");
    assert!(plan(head, &rig).expect_err("no stage")[0].what.contains("at least one stage"));
    let empty = PLAN.replacen("passes = [{", "passes = []\nunused = [{", 1);
    let problems = plan(&empty, &rig).expect_err("no pass");
    assert!(problems.iter().any(|problem| problem.what == "proof `short` has no pass"), "{problems:?}");
}

/// A plan of every strategy, for the rig above.
const EVERYTHING: &str = r#"
format = 1
[plan]
name = "everything"
rig = "relic.rig.toml"
use = "daily"
[budget]
hours = 6.5
restarts = 4
changes = 40
until = "07:30"
coolant = { litres = 3, per_hour = 1.5, per_restart = 0.25 }
[raise.bus_clock]
ceiling = 50
because = "only for an evening, with a fan beside it"
[profile.fast]
set = { bus_clock = 40 }
[profile.fastest]
from = "fast"
set = { wait_states = 1 }
[proof.short]
passes = [{ load = "dense", for = "1min 30s" }, { load = "dense", for = "5min", pause = "30s" }]
[[stage]]
strategy = "open"
setting = "bus_clock"
proof = "short"
[[stage]]
strategy = "feed"
setting = "bus_clock"
feed = { setting = "wait_states", step = 1 }
start = "fastest"
save = "found"
proof = "short"
[[stage]]
strategy = "trim"
setting = "wait_states"
step = [2, 1]
proof = "short"
[[stage]]
strategy = "map"
setting = "bus_clock"
over = { setting = "wait_states", from = 1, to = 3 }
proof = "short"
[[stage]]
strategy = "grid"
over = [{ setting = "bus_clock", to = 40 }, { setting = "wait_states" }]
start = "stock"
proof = "short"
[[stage]]
strategy = "each"
settings = ["bus_clock", "wait_states"]
park = 2
margin = 1
proof = "short"
[[stage]]
strategy = "peak"
setting = "bus_clock"
repeats = 4
proof = "short"
[[stage]]
strategy = "soak"
setting = "bus_clock"
margin = "2.5%"
proof = "short"
"#;

/// The one rig on which both settings may be parked at 2.
fn rig_for_everything() -> Rig {
    rig(&RIG
        .replace("values = [33.3, 25, 40, 50]", "values = [2, 33.3, 25, 40, 50]")
        .replace("window = { from = 6, to = 10.5 }\n", ""))
    .expect("a rig")
}

#[test]
fn every_strategy_and_all_that_goes_with_them_is_read() {
    let plan = plan(EVERYTHING, &rig_for_everything()).unwrap_or_else(|problems| panic!("{problems:?}"));
    let names: Vec<&str> = plan.stages.iter().map(|stage| stage.strategy.name()).collect();
    assert_eq!(names, ["open", "feed", "trim", "map", "grid", "each", "peak", "soak"]);
    assert_eq!(plan.budget.hours, Some(Span::from_seconds(23_400)));
    assert_eq!((plan.budget.restarts, plan.budget.changes), (Some(4), Some(40)));
    assert_eq!(plan.raised[0].because, "only for an evening, with a fan beside it");
    assert_eq!(plan.proofs[0].passes[1].pause, Span::from_seconds(30));
    let Start::Profile(rung) = &plan.stages[1].start else { panic!("a profile") };
    assert_eq!((rung.get("bus_clock"), rung.get("wait_states")), (Some(decimal("40")), Some(decimal("1"))));
    assert_eq!(plan.stages[1].save.as_deref(), Some("found"));
    let Way::Trim(trim) = &plan.stages[2].strategy else { panic!("a trim") };
    assert_eq!((&trim.coarse[..], trim.step), (&[decimal("2")][..], Some(decimal("1"))));
    let Way::Map { over, .. } = &plan.stages[3].strategy else { panic!("a map") };
    assert_eq!(over.values, ["3", "2", "1"].map(decimal), "less waiting is harder");
    let Way::Grid { over } = &plan.stages[4].strategy else { panic!("a grid") };
    assert_eq!(over[0].values, ["2", "25", "33.3", "40"].map(decimal));
    assert!(
        matches!(&plan.stages[7].strategy, Way::Soak { margin: Margin::Share(share), .. } if *share == decimal("0.025"))
    );
}

#[test]
fn several_settings_may_give_way_together() {
    let both = EVERYTHING.replace(
        "strategy = \"soak\"\nsetting = \"bus_clock\"",
        "strategy = \"soak\"\nsettings = [\"bus_clock\", \"wait_states\"]",
    );
    let plan = plan(&both, &rig_for_everything()).unwrap_or_else(|problems| panic!("{problems:?}"));
    let Way::Each(each) = &plan.stages[5].strategy else { panic!("an each") };
    assert_eq!(each.margin, Margin::Steps(1));
    assert_eq!(plan.stages[7].strategy.settings(), ["bus_clock", "wait_states"]);
}

#[test]
fn limits_may_depend_on_settings() {
    let with = |sensor: &str, floor: &str| {
        let text = RIG.replace("[setting.bus_clock]\n", &format!("[setting.bus_clock]\nfloor = {floor}\n"));
        format!("{text}\n[sensor.pot]\nadapter = \"file\"\nsource = \"/run/pot\"\n{sensor}\n")
    };
    let good = with("cut_off_below = \"4 * wait_states - 90\"\ncut_off = 60", "\"20 + 5 * wait_states\"");
    let read = rig(&good).expect("a rig");
    let pot = read.sensors.iter().find(|sensor| sensor.name == "pot").expect("a pot");
    let stock = read.stock();
    let below = |rung: &Rung| pot.cut_off_below.as_ref()?.at(|name| rung.get(name));
    assert_eq!(below(&stock), Some(decimal("-82")));
    assert_eq!(below(&stock.with("wait_states", decimal("1"))), Some(decimal("-86")));
    assert_eq!(pot.cut_offs(|_| None).as_deref(), Some("4 * wait_states - 90 to 60"));
    let floor = read.permit(&stock.with("bus_clock", decimal("25")), "daily");
    assert!(matches!(floor, Err(Illegal::BelowFloor { floor, .. }) if floor == decimal("30")));
    let objections = Objection::all(&read, &stock.with("bus_clock", decimal("25")), "daily");
    assert!(matches!(&objections[..], [Objection::BelowFloor { floor, .. }] if *floor == decimal("30")));
    let problem = |sensor: &str, floor: &str| {
        let text = with(sensor, floor);
        told(rig(&text).expect_err("refused"), &text).into_iter().next().expect("a problem")
    };
    let plain = "\"25\"";
    assert_eq!(problem("cut_off = \"90 - nothing\"", plain).0, "nothing");
    assert!(
        problem("cut_off = \"1 / (wait_states - 2)\"", plain).1.contains("has no value with every setting at stock")
    );
    assert!(problem("cut_off = 20\ncut_off_below = \"wait_states * 10\"", plain).1.contains("nothing lies between"));
    assert!(problem("cut_off = 20", "\"50 * wait_states\"").1.contains("100 as its floor"));
    assert!(problem("cut_off = []", plain).1.contains("number"));
}

#[test]
fn what_can_not_be_carried_out_is_refused_where_it_stands() {
    let rig = rig_for_everything();
    let wrong = |from: &str, to: &str| {
        assert!(EVERYTHING.contains(from), "{from}");
        let text = EVERYTHING.replacen(from, to, 1);
        let problems = plan(&text, &rig).expect_err("something is wrong");
        let help: Vec<String> = problems.iter().filter_map(|problem| problem.help.clone()).collect();
        let told = told(problems, &text);
        (told[0].0.clone(), told[0].1.clone(), help.join("; "))
    };
    let (at, what, help) = wrong("hours = 6.5", "hours = 0");
    assert_eq!((at.as_str(), what.as_str()), ("0", "a budget of nothing leaves nothing to do"));
    assert!(help.contains("or leave `hours` out"));
    assert!(wrong("hours = 6.5", "hours = 0.1").1.contains("takes 6 min 30 s already"));
    assert_eq!(wrong("restarts = 4", "restarts = 0").0, "0");
    assert_eq!(wrong("litres = 3", "litres = 0").0, "0");
    assert_eq!(wrong("07:30", "half past").0, "\"half past\"");
    let (at, what, _) = wrong("set = { bus_clock = 40 }", "from = \"fastest\"\nset = { bus_clock = 40 }");
    assert_eq!((at.as_str(), what.as_str()), ("\"fastest\"", "this goes round in a circle: fastest → fast → fastest"));
    assert!(wrong("set = { bus_clock = 40 }", "set = { bus_clock = 45 }").1.contains("not on the ladder"));
    assert!(wrong("ceiling = 50\n", "ceiling = 40\n").1.contains("is 40.0 MHz already"));
    assert_eq!(wrong("only for an evening, with a fan beside it", " ").0, "\" \"");
    let above = EVERYTHING
        .replace("set = { bus_clock = 40 }", "set = { bus_clock = 50 }")
        .replace("[raise.bus_clock]\nceiling = 50\nbecause = \"only for an evening, with a fan beside it\"\n", "");
    let problems = plan(&above, &rig).expect_err("above the ceiling");
    assert!(problems[0].what.contains("50.0 MHz is outside"), "{problems:?}");
    assert_eq!(wrong("start = \"fastest\"", "start = \"fastets\"").2, "did you mean `fastest`?");
    assert!(
        wrong("feed = { setting = \"wait_states\", step = 1 }", "feed = { setting = \"bus_clock\" }")
            .1
            .contains("fed with itself")
    );
    assert!(wrong("step = [2, 1]", "step = [1, 2]").1.contains("finer, not coarser"));
    assert!(wrong("from = 1, to = 3", "from = 7, to = 3").1.contains("off the ladder or beyond"));
    assert!(wrong(", { setting = \"wait_states\" }]", "]").1.contains("two settings or more"));
    assert!(wrong("[\"bus_clock\", \"wait_states\"]", "[\"bus_clock\"]").1.contains("two `settings` or more"));
    assert!(wrong("park = 2", "park = 7").1.contains("can't be parked"));
    assert_eq!(wrong("repeats = 4", "repeats = 1").0, "1");
    assert_eq!(wrong("\"2.5%\"", "\"250%\"").0, "\"250%\"");
    assert_eq!(
        wrong("setting = \"wait_states\"\nstep", "setting = \"wait_state\"\nstep").2,
        "did you mean `wait_states`?"
    );
}

#[test]
fn a_profile_outside_a_window_is_refused() {
    let text = EVERYTHING.replace("set = { bus_clock = 40 }", "set = { bus_clock = 50 }");
    let rig = rig(&RIG.replace("[33.3, 25", "[2, 33.3, 25")).expect("a rig");
    let problems = plan(&text, &rig).expect_err("outside its window");
    assert!(problems[0].what.contains("card_clock would be 12.5, outside its window 6 … 10.5"), "{problems:?}");
}

#[test]
fn a_ceiling_may_depend_on_the_cooling() {
    let cooled = |cooling: &str| {
        RIG.replace("name = \"relic\"", &format!("name = \"relic\"\n{cooling}"))
            .replace("daily = 40,", "daily = { still = 33.3, fan = 40 },")
    };
    let of =
        |cooling: &str| rig(&cooled(cooling)).map(|rig| rig.setting("bus_clock").expect("a setting").ceiling("daily"));
    assert_eq!(of("cooling = \"fan\"").expect("a rig"), decimal("40"));
    assert_eq!(of("cooling = \"still\"").expect("a rig"), decimal("33.3"));
    let problems = of("cooling = \"ice\"").expect_err("nothing for ice");
    assert_eq!(problems[0].what, "this has nothing for the cooling `ice`");
    assert!(of("").expect_err("no cooling")[0].help.as_ref().is_some_and(|help| help.contains("cooling = \"fan\"")));
}

proptest! {
    #[test]
    fn no_change_of_a_byte_makes_reading_panic(place in any::<prop::sample::Index>(), with in "[\\[\\]{}=\"'.a-z0-9é\n#-]{0,3}") {
        for text in [RIG, PLAN, EVERYTHING] {
            let at = place.index(text.len());
            let changed = format!("{}{with}{}", &text[..at], text.get(at + 1..).unwrap_or_default());
            for problem in rig(&changed).err().into_iter().flatten() {
                prop_assert!(changed.get(problem.at.clone()).is_some(), "{:?}", problem);
            }
            for problem in plan(&changed, &rig(RIG).expect("a rig")).err().into_iter().flatten() {
                prop_assert!(changed.get(problem.at.clone()).is_some(), "{:?}", problem);
            }
        }
    }
}

#[test]
fn a_check_names_a_sensor_that_reads_by_itself_and_what_it_reads_where_all_is_well() {
    let with = |confirmed: &str| {
        let setting = format!(
            "format = 1\n[rig]\nname = \"r\"\n[setting.rate]\nladder = {{ from = 40, step = 1, to = 50 }}\nstock = 42\n\
            harder = \"up\"\ntakes_effect = \"at-once\"\nadapter = \"simulated\"\n{confirmed}\n\
            [sensor.frames]\nadapter = \"simulated\"\nsource = \"panel/shown\"\n[sensor.seen]\nadapter = \"by-hand\"\nwhen = \"each-trial\"\n"
        );
        rig(&setting)
            .map_err(|problems| problems.into_iter().map(|problem| problem.what).collect::<Vec<_>>().join("; "))
    };
    let read = with("confirm = \"20s\"\nconfirmed_by = { sensor = \"frames\", at_least = 24 }").expect("a rig");
    let check = read.settings[0].confirmed_by.clone().expect("a check");
    assert_eq!((check.sensor.as_str(), check.at_least, check.at_most), ("frames", Some(decimal("24")), None));
    for (confirmed, told) in [
        ("confirmed_by = { sensor = \"frames\", at_least = 24 }", "nothing has to be confirmed"),
        ("confirm = \"20s\"\nconfirmed_by = { sensor = \"frames\" }", "any reading would say that all is well"),
        (
            "confirm = \"20s\"\nconfirmed_by = { sensor = \"frames\", at_least = 2, at_most = 1 }",
            "no reading is at least",
        ),
        ("confirm = \"20s\"\nconfirmed_by = { sensor = \"frame\", at_least = 2 }", "there is no sensor `frame`"),
        ("confirm = \"20s\"\nconfirmed_by = { sensor = \"seen\", at_least = 2 }", "somebody reads `seen`"),
        ("confirm = \"20s\"\nconfirmed_by = { sensor = \"frames\", at_least = \"two\" }", "must be a number"),
    ] {
        let wrong = with(confirmed).expect_err(confirmed);
        assert!(wrong.contains(told), "{wrong}");
        assert!(!wrong.contains("; "), "told once: {wrong}");
    }
}
