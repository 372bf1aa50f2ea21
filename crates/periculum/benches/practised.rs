//! What the plans of the practice rigs come to, beside the truth: `cargo bench -p periculum --bench practised -- [RIG] [SPECIMENS]`.
//!
//! Specimens of each rig are climbed by its own plan, by hands that do whatever is asked. A mark is true where its rung survives the
//! proof that it held nine times of ten; a border of a map is where the rung does that is next to it on the easier side.

use std::collections::BTreeMap;
use std::fs;
use std::path::Path;
use std::sync::Arc;

use periculum_core::Decimal;
use periculum_core::analysis::claim::Claim;
use periculum_core::analysis::forecast::{Forecast, forecast};
use periculum_core::engine::{Climb, Command, Entry, Event, Noted, Question, RULES, Said};
use periculum_core::files::{Document, Problems, plan_file, rig_file};
use periculum_core::inference::hazard::{SURVIVAL, Survival};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::Pass;
use periculum_core::model::plan::Plan;
use periculum_core::model::reason::{Border, StageEnd};
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;
use periculum_core::model::setting::Setting;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::Story;
use periculum_core::telling::forecast_words;
use periculum_rigs::bench::{Answer, Bench, BenchEvent, Order, answer_to};
use periculum_rigs::simulated::{Simulator, Spec, Truth};

/// Specimens of each rig, unless a number is given.
const SPECIMENS: u64 = 40;

/// Rigs, and the plans that are climbed on each.
const PLANS: [(&str, &str); 12] = [
    ("dome", "dome"),
    ("dome", "night"),
    ("vault", "vault"),
    ("shelf", "shelf"),
    ("shelf", "shelf-four"),
    ("lens", "lens"),
    ("lens", "lens-pinned"),
    ("mount", "mount"),
    ("relic", "relic"),
    ("cryo", "cryo"),
    ("cryo", "cryo-cold"),
    ("lamp", "lamp"),
];

/// What a stage took in all climbs, how many of its marks there were, and how many were true.
#[derive(Default)]
struct Sum {
    hours: f64,
    errands: u32,
    falls: u32,
    restarts: u32,
    trials: u32,
    marks: u32,
    are_true: u32,
    /// What was claimed of each mark, and how often it really survives.
    claims: Vec<(Survival, f64)>,
    /// How far each border of a map is from the truth, in steps of the ladder.
    off: Vec<f64>,
}

/// The stages of a plan, by their places.
type Sums = BTreeMap<usize, Sum>;

fn main() {
    let words: Vec<String> = std::env::args().skip(1).filter(|word| !word.starts_with('-')).collect();
    let count = words.iter().find_map(|word| word.parse().ok()).unwrap_or(SPECIMENS);
    println!(
        "| plan | stage | true marks | true of the sure | as claimed or better | claimed, true in the mean | hours of passes | errands | falls | restarts | trials |\n|---|---|---|---|---|---|---|---|---|---|---|"
    );
    let mut foretold = Vec::new();
    let is_wanted = |rig: &str| words.iter().all(|word| word.parse::<u64>().is_ok() || word == rig);
    for (rig_name, plan_name) in PLANS.into_iter().filter(|(rig, _)| is_wanted(rig)) {
        let (rig, plan, spec) = read(rig_name, plan_name);
        let mut sums = Sums::new();
        let took: Vec<Story> = (1..=count).map(|seed| climb(&rig, &plan, &spec, seed, &mut sums)).collect();
        foretold.push(foretold_row(plan_name, &forecast(&rig, &plan, &[]), &took));
        for (stage, sum) in &sums {
            let what = &plan.stages[*stage];
            let pinned = if what.pin.is_some() { ", pinned" } else { "" };
            let share = 100.0 * f64::from(sum.are_true) / f64::from(sum.marks.max(1));
            let marks = match (sum.marks, sum.off.len()) {
                (0, _) => "–".to_owned(),
                (marks, 0) => format!("{share:.0} % of {marks}"),
                (borders, count) => {
                    let off = sum.off.iter().map(|off| off.abs()).sum::<f64>() / count as f64;
                    format!("{share:.0} % of {borders} borders, off by {off:.1} steps")
                }
            };
            let mean = |total: f64| total / count as f64;
            println!(
                "| `{plan_name}` | {}{pinned}, {} | {marks} | {} | {:.2} | {:.1} | {:.1} | {:.1} | {:.1} |",
                what.strategy.name(),
                plan.proofs[what.proof].name,
                claimed(&sum.claims),
                mean(sum.hours),
                mean(sum.errands.into()),
                mean(sum.falls.into()),
                mean(sum.restarts.into()),
                mean(sum.trials.into())
            );
        }
    }
    println!(
        "\n| plan | foretold | trials in the middle | of passes in the middle | within what was foretold: trials | time |\n|---|---|---|---|---|---|"
    );
    foretold.iter().for_each(|row| println!("{row}"));
}

/// What was foretold of a plan, and how many climbs lie within it.
fn foretold_row(plan: &str, forecast: &Forecast, took: &[Story]) -> String {
    let [least, most] = forecast.whole;
    let middle = |mut figures: Vec<u64>| {
        figures.sort_unstable();
        figures[figures.len() / 2]
    };
    let trials: Vec<u64> = took.iter().map(|story| story.trials.len() as u64).collect();
    let times: Vec<u64> = took.iter().map(|story| story.tested().millis()).collect();
    let within = |figures: &[u64], least: u64, most: u64| {
        let count = figures.iter().filter(|figure| (least..=most).contains(*figure)).count();
        format!("{:.0} %", 100.0 * count as f64 / figures.len() as f64)
    };
    format!(
        "| `{plan}` | {} | {} | {} | {} | {} |",
        forecast_words(forecast),
        middle(trials.clone()),
        Span::from_seconds(middle(times.clone()) / 1000),
        within(&trials, least.trials.into(), most.trials.into()),
        within(&times, least.time.millis(), most.time.millis()),
    )
}

/// What claims come to: how many say that the mark is good for sure and how many of those are right, how often the truth is at least as
/// good as is claimed, and what is claimed and true in the mean.
fn claimed(claims: &[(Survival, f64)]) -> String {
    if claims.is_empty() {
        return "– | – | –".to_owned();
    }
    let is_sure = |claim: &Survival| claim.low >= SURVIVAL;
    let sure = claims.iter().filter(|(claim, _)| is_sure(claim)).count();
    let right = claims.iter().filter(|(claim, truth)| is_sure(claim) && *truth >= SURVIVAL).count();
    let at_least = claims.iter().filter(|(claim, truth)| *truth >= claim.low).count();
    let percent = |part: f64| 100.0 * part / claims.len() as f64;
    let (claimed, truth) =
        (claims.iter().map(|(claim, _)| claim.mean).sum(), claims.iter().map(|(_, truth)| truth).sum());
    let at_least = percent(at_least as f64);
    format!("{right} of {sure} | {at_least:.0} % | {:.0}, {:.0} %", percent(claimed), percent(truth))
}

fn read(rig: &str, plan: &str) -> (Arc<Rig>, Arc<Plan>, Spec) {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let text = |file: String| fs::read_to_string(folder.join(file)).expect("a file");
    let texts = [format!("{rig}.rig.toml"), format!("{plan}.plan.toml")].map(text);
    let [rig_document, plan_document] = texts.each_ref().map(|text| Document::parse(text).expect("TOML"));
    let problems = Problems::default();
    let top = rig_document.top(&problems);
    let rig = rig_file::read(&top).expect("a rig");
    let section = top.section("adapter").and_then(|adapter| adapter.section("simulated"));
    let spec = section.and_then(|section| Spec::read(section, &rig)).expect("devices");
    let loads = spec.loads();
    let plan = plan_file::read(&plan_document.top(&problems), &rig, &loads).expect("a plan");
    let rig = rig.raised(&plan.use_name, &plan.raised);
    (Arc::new(rig), Arc::new(plan), spec)
}

fn climb(rig: &Arc<Rig>, plan: &Arc<Plan>, spec: &Spec, seed: u64, sums: &mut Sums) -> Story {
    let mut stage_now = 0;
    let mut climb = Climb::new(Arc::clone(rig), Arc::clone(plan));
    let mut simulator = Simulator::new(spec, rig, seed, Moment::from_millis(0));
    let readable = rig.settings.iter().filter(|setting| !rig.needs_somebody(&setting.name) || setting.needs_start());
    let in_force = readable.map(|setting| (setting.name.clone(), setting.stock)).collect();
    let mut event = Event::Started { in_force, ahead: 0, rules: RULES, kinds: Vec::new() };
    let truth = Truth::of(rig, spec, seed);
    let mut last = rig.stock();
    let (mut story, mut marked) = (Story::default(), Vec::new());
    while !climb.is_ended() {
        let step = climb.next(simulator.now(), &event);
        step.entries.iter().for_each(|entry| story.tell(step.at, entry));
        for entry in step.entries {
            if let Entry::StageBegan { stage, .. } = &entry {
                stage_now = *stage;
            }
            let sum = sums.entry(stage_now).or_default();
            match entry {
                Entry::TrialBegan { rung, .. } => last = rung,
                Entry::StageEnded { stage, end: StageEnd::Mapped { setting, over, border } } => {
                    let step = rig.setting(&setting).expect("a setting").ladder.widest_gap();
                    let proof = &plan.proof_of(stage).passes;
                    for Border { value, limit, .. } in border {
                        let row = Row { truth: &truth, base: last.with(&over, value), setting: &setting, proof };
                        let (found, hardest) = (row.rung_at(rig, limit), row.hardest(rig));
                        sum.marks += 1;
                        sum.are_true += u32::from(row.holds(found));
                        sum.off.push(f64::try_from((found - hardest) / step).expect("a number"));
                    }
                }
                Entry::TrialEnded { verdict, tested, incident, .. } => {
                    sum.trials += 1;
                    sum.falls += u32::from(verdict == Verdict::Fell);
                    sum.restarts += u32::from(incident.is_some_and(|kind| kind.takes_machine_down()));
                    sum.hours += tested.hours();
                }
                Entry::MarkSet { mark } => {
                    let survival = truth.survival(&mark.rung, &plan.proof_of(mark.stage).passes);
                    marked.push((stage_now, mark, survival));
                    sum.marks += 1;
                    sum.are_true += u32::from(survival >= SURVIVAL);
                }
                _ => {}
            }
        }
        for (stage, mark, truth) in marked.drain(..) {
            let claim = Claim::of_mark(&story, rig, plan, &mark).and_then(|claim| claim.survival);
            sums.entry(stage).or_default().claims.extend(claim.map(|claim| (claim, truth)));
        }
        event = match step.command {
            Some(Command::Apply(errand)) => answered(&mut simulator, Order::Apply(errand)),
            Some(Command::RunPass(order)) => answered(&mut simulator, Order::Run(order)),
            Some(Command::Ask(question)) => {
                let Some(errand) = question.errand() else {
                    event = Event::OperatorSaid { said: said(&mut simulator, &question) };
                    continue;
                };
                sums.entry(stage_now).or_default().errands += 1;
                made(answered(&mut simulator, Order::Confirm(errand.clone())), errand.needs_start(rig))
            }
            // Nothing runs while the rig rests before a pass.
            Some(Command::StopPass) | None => {
                simulator.events(Span::from_seconds(1));
                Event::TIME_PASSED
            }
        };
    }
    story
}

/// A row of a map, whose true border is known.
struct Row<'a> {
    truth: &'a Truth<'a>,
    base: Rung,
    setting: &'a str,
    proof: &'a [Pass],
}

impl Row<'_> {
    fn holds(&self, value: Decimal) -> bool {
        self.truth.survival(&self.base.with(self.setting, value), self.proof) >= SURVIVAL
    }

    /// The value of the ladder next to a limit, on the easier side.
    fn rung_at(&self, rig: &Rig, limit: Decimal) -> Decimal {
        let setting = rig.setting(self.setting).expect("a setting");
        let easier = |value: &Decimal| *value == limit || setting.is_harder(*value, limit);
        self.values(setting).into_iter().rev().find(easier).unwrap_or(setting.stock)
    }

    /// The hardest value that holds, where all easier ones do.
    fn hardest(&self, rig: &Rig) -> Decimal {
        let setting = rig.setting(self.setting).expect("a setting");
        let values = self.values(setting);
        let first_not = values.partition_point(|value| self.holds(*value));
        first_not.checked_sub(1).map_or(setting.stock, |last| values[last])
    }

    /// From stock to the hardest that there is.
    fn values(&self, setting: &Setting) -> Vec<Decimal> {
        let next = |value: &Decimal| setting.ladder.next(*value, setting.harder);
        std::iter::successors(Some(setting.stock), next).collect()
    }
}

/// What somebody says who is asked for something else than a change.
fn said(simulator: &mut Simulator, question: &Question) -> Said {
    let Question::Make { load, length, task, .. } = question else { return question.usual_answer().into() };
    let order = Order::Show { load: load.clone(), length: *length };
    match answer_to(simulator, order, *length + Span::from_seconds(600)) {
        Some(Answer::Shown(shown)) => shown.said(task),
        other => panic!("a screen shows something, and not {other:?}"),
    }
}

/// What somebody says who made a change.
fn made(event: Event, started_anew: bool) -> Event {
    match event {
        Event::Applied { reported } => Event::ChangeMade { reported, started_anew, noted: Noted::default() },
        other => other,
    }
}

/// What comes of an order, for the engine.
fn answered(simulator: &mut Simulator, order: Order) -> Event {
    simulator.order(1, order);
    loop {
        for event in simulator.events(Span::from_seconds(36_000)) {
            let BenchEvent::Answered { answer, .. } = event else { continue };
            return match answer {
                Answer::InForce(read_back) => Event::Applied { reported: read_back.in_force },
                Answer::Failed(incident) => Event::ApplyFailed { incident },
                Answer::Ended(report, _) => Event::PassEnded { report: *report, reported: None },
                _ => continue,
            };
        }
    }
}
