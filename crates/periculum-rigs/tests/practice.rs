//! The rigs that ship to practise on: every specimen holds at stock, and what is told as the truth is what happens on average.

use std::fs;
use std::path::Path;

use periculum_core::Decimal;
use periculum_core::files::{Document, Problems, rig_file};
use periculum_core::model::errand::Errand;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::{Pass, PassOrder};
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::{Change, Rung};
use periculum_rigs::bench::{Answer, Bench, BenchEvent, Order};
use periculum_rigs::simulated::{Simulator, Spec, Truth};

/// A rig of the demo.
fn practice(name: &str) -> (Rig, Spec) {
    let path = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo").join(format!("{name}.rig.toml"));
    let text = fs::read_to_string(path).expect("a rig file");
    let document = Document::parse(&text).expect("TOML");
    let problems = Problems::default();
    let top = document.top(&problems);
    let rig = rig_file::read(&top).expect("a rig");
    let adapters = top.section("adapter").expect("adapters");
    let spec = Spec::read(adapters.section("simulated").expect("simulated"), &rig).expect("devices");
    assert!(problems.is_empty());
    (rig, spec)
}

/// Each with a load that its people run, and the setting that they climb with its values from easy to hard.
fn all() -> [(&'static str, &'static str, &'static str, Vec<Decimal>); 7] {
    let up = |from: i64, to: i64, step: usize| (from..=to).step_by(step).map(Decimal::from).collect::<Vec<_>>();
    [
        ("dome", "dense", "core_clock", up(4200, 5100, 25)),
        ("shelf", "pattern", "rate", up(4800, 7200, 100)),
        ("lens", "scene", "core_offset", up(0, 450, 15)),
        ("mount", "encode", "core_clock", up(1800, 2500, 25)),
        ("relic", "plot", "multiplier", up(2, 4, 1)),
        ("cryo", "digits", "left_multiplier", (84..=124).map(|half| Decimal::new(half * 5, 1)).collect()),
        ("lamp", "sweep", "refresh", up(60, 180, 1)),
    ]
}

/// Whether a trial of a rung holds from a rig at rest, whoever has to change what.
fn holds((rig, spec): (&Rig, &Spec), seed: u64, nth: u32, rung: &Rung, pass: &Pass) -> bool {
    let mut simulator = Simulator::new(spec, rig, seed, Moment::from_millis(0));
    for (setting, to) in rung.iter().filter(|(name, to)| rig.stock().get(name) != Some(*to)) {
        let change = Change { setting: setting.to_owned(), from: None, to };
        let order = match rig.needs_somebody(setting) {
            true => Order::Confirm(Errand::of(change)),
            false => Order::Apply(Errand::of(change)),
        };
        if !matches!(answer(&mut simulator, order), Answer::InForce(_)) {
            return false;
        }
    }
    let order = PassOrder { trial: nth, index: 0, pass: pass.clone(), nth, cores: vec![] };
    let Answer::Ended(report, _) = answer(&mut simulator, Order::Run(order)) else { panic!("a pass ends") };
    assert_eq!(report.refused, None);
    report.incidents.is_empty()
}

fn answer(simulator: &mut Simulator, order: Order) -> Answer {
    simulator.order(1, order);
    (0..100_000)
        .find_map(|_| {
            simulator.events(Span::from_seconds(10)).into_iter().find_map(|event| match event {
                BenchEvent::Answered { to: 1, answer } => Some(answer),
                _ => None,
            })
        })
        .expect("an answer")
}

#[test]
fn every_specimen_holds_at_stock() {
    for (name, load, ..) in all() {
        let (rig, spec) = practice(name);
        for seed in 0..12 {
            let pass = Pass::usual(load, Span::from_seconds(300));
            assert!(holds((&rig, &spec), seed, 1, &rig.stock(), &pass), "{name}, specimen {seed}");
        }
    }
}

#[test]
fn specimens_have_borders_of_their_own_within_their_ceilings() {
    for (name, load, setting, values) in all().into_iter().filter(|(name, ..)| *name != "relic") {
        let (rig, spec) = practice(name);
        let pass = [Pass::usual(load, Span::from_seconds(300))];
        let borders: Vec<Option<Decimal>> = (0..6)
            .map(|seed| Truth::of(&rig, &spec, seed).hardest(&rig.stock(), setting, &values, &pass, 0.9))
            .collect();
        assert!(
            borders.iter().all(|border| border.is_some_and(|it| it < values[values.len() - 1])),
            "{name}: {borders:?}"
        );
        let differ = borders.windows(2).any(|pair| pair[0] != pair[1]);
        assert!(differ, "{name}: {borders:?}");
    }
}

/// So many of so many trials held, with the probability that the truth tells, within three standard deviations.
#[test]
fn the_truth_of_each_is_what_happens_on_average() {
    const TRIALS: u32 = 150;
    for (name, load, setting, values) in all().into_iter().filter(|(name, ..)| *name != "relic") {
        let (rig, spec) = practice(name);
        let pass = Pass::usual(load, Span::from_seconds(120));
        let truth = Truth::of(&rig, &spec, 5);
        let of = |value: &Decimal| truth.survival(&rig.stock().with(setting, *value), std::slice::from_ref(&pass));
        let unsure = values.iter().map(|value| (value, of(value))).min_by(|a, b| {
            let off = |survival: f64| (survival - 0.5).abs();
            off(a.1).total_cmp(&off(b.1))
        });
        let (value, truth) = unsure.expect("values");
        let rung = rig.stock().with(setting, *value);
        let held = (1..=TRIALS).filter(|nth| holds((&rig, &spec), 5, *nth, &rung, &pass)).count();
        let share = held as f64 / f64::from(TRIALS);
        let deviation = (truth * (1.0 - truth) / f64::from(TRIALS)).sqrt();
        assert!((share - truth).abs() <= 3.0 * deviation + 0.02, "{name} at {value}: {share} of {truth}");
    }
}
