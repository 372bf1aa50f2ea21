//! Whatever is planned on whichever rig, the engine and the rig come to an end together: nothing is applied that a use does not allow, what is
//! recorded says the same again, and everything is back at stock.

use std::fs;
use std::path::Path;
use std::sync::Arc;

use periculum_core::Decimal;
use periculum_core::engine::{Climb, Command, Entry, Event, Noted, Question, RULES, Said};
use periculum_core::files::{Document, Problems, plan_file, rig_file};
use periculum_core::model::budget::Budget;
use periculum_core::model::errand::Errand;
use periculum_core::model::ladder::Direction;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::plan::{Plan, Stage, Start};
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::InForce;
use periculum_core::model::setting::Setting;
use periculum_core::model::strategy::{Assurance, Each, Margin, Steps, Strategy as Way, Sweep};
use periculum_rigs::bench::{Answer, Bench, Order, answer_to};
use periculum_rigs::simulated::{Simulator, Spec};
use proptest::prelude::*;

/// The rigs that ship, by the names of their files.
const RIGS: [&str; 8] = ["dome", "vault", "shelf", "lens", "mount", "relic", "cryo", "lamp"];

/// No climb of these takes so many events.
const MOST_EVENTS: usize = 60_000;

/// A stage by numbers, whatever rig it is for: which strategy, which settings, and how large its steps are.
#[derive(Clone, Copy, Debug)]
struct Drawn {
    way: usize,
    settings: [usize; 2],
    steps: u32,
    is_from_stock: bool,
}

fn drawn() -> impl Strategy<Value = Drawn> {
    (0usize..9, any::<[prop::sample::Index; 2]>(), 1u32..4, any::<bool>()).prop_map(
        |(way, settings, steps, is_from_stock)| Drawn {
            way,
            settings: settings.map(|index| index.index(1000)),
            steps,
            is_from_stock,
        },
    )
}

fn shipped(name: &str) -> (Arc<Rig>, Plan, Spec) {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let texts = ["rig", "plan"].map(|kind| fs::read_to_string(folder.join(format!("{name}.{kind}.toml"))));
    let [rig, plan] = texts.map(|text| text.expect("a file"));
    let (rig, plan) = (Document::parse(&rig).expect("TOML"), Document::parse(&plan).expect("TOML"));
    let problems = Problems::default();
    let top = rig.top(&problems);
    let rig = rig_file::read(&top).expect("a rig");
    let section = top.section("adapter").and_then(|adapter| adapter.section("simulated"));
    let spec = section.and_then(|section| Spec::read(section, &rig)).expect("devices");
    let loads = spec.loads();
    let plan = plan_file::read(&plan.top(&problems), &rig, &loads).expect("a plan");
    (Arc::new(rig.raised(&plan.use_name, &plan.raised)), plan, spec)
}

impl Drawn {
    /// What it is on a rig, with the first proof of a plan.
    fn stage(&self, rig: &Rig, plan: &Plan) -> Stage {
        let use_name = &plan.use_name;
        // Nobody makes a pass for a part of its time.
        let has_lengths = !plan.proofs[0].is_by_hand();
        let moving: Vec<&Setting> = rig.settings.iter().filter(|it| it.hardest(use_name) != it.stock).collect();
        let [one, other] = self.settings.map(|index| moving[index % moving.len()]);
        let steps = |setting: &Setting| {
            let step = setting.ladder.widest_gap() * Decimal::from(self.steps);
            Steps::of(&setting.name, setting.ladder.contains(setting.stock + step).then_some(step))
        };
        let harder = |setting: &Setting| {
            let next = |value: &Decimal| setting.ladder.next(*value, setting.harder);
            let values = std::iter::successors(Some(setting.stock), next);
            let allowed = values.take_while(|value| setting.allows(*value, use_name)).step_by(self.steps as usize);
            Sweep { setting: setting.name.clone(), values: allowed.take(3).collect() }
        };
        let walk = || match one.harder {
            Direction::Up => Way::Ascend(steps(one)),
            Direction::Down => Way::Trim(steps(one)),
        };
        let strategy = match self.way {
            0 => Way::Baseline { repeats: 1 + self.steps, within: None, idle: None, starts: 1 },
            1 => Way::Open { setting: one.name.clone() },
            2 if has_lengths => Way::Seek { steps: steps(one), margin: Margin::Steps(1) },
            3 => Way::Grid { over: vec![harder(one)] },
            4 => Way::Peak { steps: steps(one), repeats: 1 },
            5 => Way::Soak { steps: vec![steps(one)], margin: Margin::Steps(self.steps) },
            6 if has_lengths && one.name != other.name => Way::Map { steps: steps(one), over: harder(other) },
            7 if one.name != other.name => {
                let park = vec![one.stock, other.stock];
                Way::Each(Each { steps: vec![steps(one), steps(other)], park, margin: Margin::Steps(0) })
            }
            _ => walk(),
        };
        let start = if self.is_from_stock { Start::Stock } else { Start::Last };
        Stage { strategy, proof: 0, start, save: None, pin: None, wants: self.is_from_stock.then(Assurance::default) }
    }
}

/// No order of these takes longer.
const LONGEST: Span = Span::from_seconds(20_000);

/// What comes of an order, for the engine.
fn answered(simulator: &mut Simulator, order: Order) -> Event {
    match answer_to(simulator, order, LONGEST) {
        Some(Answer::InForce(read_back)) => Event::Applied { reported: read_back.in_force },
        Some(Answer::Failed(incident)) => Event::ApplyFailed { incident },
        Some(Answer::Ended(report, _)) => Event::PassEnded { report: *report, reported: None },
        other => panic!("{other:?} is no answer to that"),
    }
}

/// What somebody says who does whatever is asked.
fn said(simulator: &mut Simulator, question: &Question) -> Said {
    let Question::Make { load, length, task, .. } = question else { return question.usual_answer().into() };
    let order = Order::Show { load: load.clone(), length: *length };
    let Some(Answer::Shown(shown)) = answer_to(simulator, order, LONGEST) else { panic!("a screen shows something") };
    shown.said(task)
}

/// An errand that somebody goes on.
fn made(simulator: &mut Simulator, errand: &Errand, rig: &Rig) -> Event {
    match answered(simulator, Order::Confirm(errand.clone())) {
        Event::Applied { reported } => {
            Event::ChangeMade { reported, started_anew: errand.needs_start(rig), noted: Noted::default() }
        }
        other => other,
    }
}

/// Every event of a climb with its time and what was recorded of it, and what is in force of the rig in the end.
type Played = (Vec<(Moment, Event, Vec<Entry>)>, InForce);

fn play(rig: &Arc<Rig>, plan: &Arc<Plan>, spec: &Spec, seed: u64) -> Played {
    let mut climb = Climb::new(Arc::clone(rig), Arc::clone(plan));
    let mut simulator = Simulator::new(spec, rig, seed, Moment::from_millis(0));
    let in_force = rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
    let mut event = Event::Started { in_force, ahead: 0, rules: RULES, kinds: Vec::new() };
    let mut record = Vec::new();
    while !climb.is_ended() {
        assert!(record.len() < MOST_EVENTS, "no end");
        let at = simulator.now();
        let step = climb.next(at, &event);
        record.push((at, event, step.entries));
        event = match step.command {
            Some(Command::Apply(errand)) => answered(&mut simulator, Order::Apply(errand)),
            Some(Command::RunPass(order)) => answered(&mut simulator, Order::Run(order)),
            Some(Command::Ask(question)) => match question.errand().filter(|_| !climb.is_confirming()) {
                Some(errand) => made(&mut simulator, errand, rig),
                None => Event::OperatorSaid { said: said(&mut simulator, &question) },
            },
            Some(Command::StopPass) | None => {
                simulator.events(Span::from_seconds(1));
                Event::TIME_PASSED
            }
        };
    }
    let Event::Applied { reported } = answered(&mut simulator, Order::ReadBack) else { panic!("it is read back") };
    (record, reported)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(8))]

    #[test]
    fn every_plan_on_every_rig_comes_to_an_end_at_stock(
        stages in prop::collection::vec(drawn(), 1..4),
        seed in 1u64..500,
    ) {
        for name in RIGS {
            let (rig, mut plan, spec) = shipped(name);
            plan.stages = stages.iter().map(|stage| stage.stage(&rig, &plan)).collect();
            plan.proofs.truncate(1);
            plan.proofs[0].passes.iter_mut().for_each(|pass| pass.length = Span::from_seconds(20));
            plan.budget = Budget { hours: Some(Span::from_seconds(3600)), changes: Some(40), ..Budget::default() };
            let plan = Arc::new(plan);
            let (record, in_force) = play(&rig, &plan, &spec, seed);
            for (_, _, entries) in &record {
                for entry in entries {
                    if let Entry::TrialBegan { rung, .. } = entry {
                        prop_assert!(rig.permit(rung, &plan.use_name).is_ok(), "{name}: {rung:?}");
                    }
                    if let Entry::AboutToApply { errand, .. } = entry {
                        for change in errand.changes() {
                            let setting = rig.setting(&change.setting).expect("a setting");
                            let is_within = change.to <= setting.ceiling(&plan.use_name) && change.to >= setting.floor;
                            prop_assert!(is_within, "{name}: {change:?}");
                        }
                    }
                }
            }
            let last = record.last().and_then(|(_, _, entries)| entries.last());
            let Some(Entry::Ended { not_at_stock, .. }) = last else { panic!("{name} did not end: {last:?}") };
            for (setting, value) in in_force.iter().filter(|(name, _)| !not_at_stock.contains(name)) {
                let stock = rig.setting(setting).expect("a setting").stock;
                prop_assert_eq!(*value, stock, "{}: {}", name, setting);
            }
            let mut again = Climb::new(Arc::clone(&rig), Arc::clone(&plan));
            for (at, event, entries) in &record {
                prop_assert_eq!(&again.next(*at, event).entries, entries, "{}", name);
            }
        }
    }
}
