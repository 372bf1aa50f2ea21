//! How far found marks are from the truth, what is claimed of them, and what they cost: `cargo bench -p periculum --bench climbs`.
//!
//! Specimens of four kinds of simulated processor, whose failures follow four laws, are climbed to the end by `seek` with a proof of
//! eight hours, as a plan says it that chooses nothing by the truth; those that are told, with a rig file that says how often stock failed
//! in two hundred hours, as the truth has it. Beside it stands stepping with passes of 15 minutes and a soak of
//! eight hours with the least margin at which 95 % of its marks are true, which only who knows the truth could choose.

use std::collections::BTreeMap;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, Mutex};
use std::thread;

use periculum_core::Decimal;
use periculum_core::analysis::claim::Claim;
use periculum_core::analysis::harder::Harder;
use periculum_core::analysis::kinds::{Earlier, kinds};
use periculum_core::engine::{Climb, Command, Entry, Event, RULES};
use periculum_core::files::{Document, Problems, plan_file, rig_file};
use periculum_core::inference::hazard::SURVIVAL;
use periculum_core::model::history::History;
use periculum_core::model::kind::Kind as Expectation;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::Pass;
use periculum_core::model::plan::{Plan, Start};
use periculum_core::model::reason::Reason;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;
use periculum_core::model::verdict::Verdict;
use periculum_core::story::Story;
use periculum_rigs::bench::{Answer, Bench, BenchEvent, Order};
use periculum_rigs::simulated::{Simulator, Spec, Truth};

/// Specimens of each kind and law, unless a number is given.
const SPECIMENS: usize = 50;

/// The kinds: the demo's processor with other lines in its description.
const KINDS: [(&str, &str); 4] = [
    ("desktop", ""),
    ("sharp, cold", "width = 0.003\nspecimen_spread = 0.02\n[adapter.simulated.cooling]\ncooler = 0.09\n"),
    (
        "blurred, hot",
        "width = 0.012\nper_degree = 0.0007\n[adapter.simulated.cooling]\ncooler = 0.2\ncooler_time = 160\n",
    ),
    (
        "drooping, uneven",
        "core_spread = 0.012\nslope = 0.9\n[adapter.simulated.power]\nload_line = 0.0009\nlimit = 400\n",
    ),
];

/// The laws, the first of which is the usual one.
const LAWS: [&str; 4] = ["exponential", "power-tail", "two-mechanisms", "background"];

/// How many other specimens of the kind have been climbed before.
const KNOWN: [usize; 3] = [0, 1, 5];

/// For how many hours its rig's file tells what a specimen did at stock.
const TOLD: f64 = 200.0;

/// The share of marks that must be true of what is compared with.
const HONEST: f64 = 0.95;

/// Margins are tried up to so many steps.
const MOST_MARGIN: u32 = 14;

/// Multiples of it spread evenly over the parts of one.
const GOLDEN: f64 = 0.618_033_988_749_894_9;

/// Of fewer rungs it is not said how many were foretold rightly.
const ENOUGH: usize = 50;

const SETTING: &str = "core_clock";

/// What climbs came to.
#[derive(Clone)]
struct Found {
    seed: u64,
    rig: Arc<Rig>,
    /// The last mark, stock where there is none.
    mark: Rung,
    /// The mark less the truth, in steps.
    off: f64,
    /// How often it survives the proof.
    survival: f64,
    /// Whether it is claimed to be as good as is wanted.
    is_claimed: bool,
    /// How sure one can be of harder values than the mark, and whether those are as good.
    harder: Vec<(f64, bool)>,
    /// Test hours without the proofs that held at last.
    hours: f64,
    falls: u32,
    restarts: u32,
    trials: u32,
    /// What was foretold of the rungs that were tried, and what is true of them.
    foretold: Vec<(f64, f64)>,
    story: Arc<Story>,
}

impl Found {
    fn is_true(&self) -> bool {
        self.survival >= SURVIVAL
    }
}

fn main() {
    let words: Vec<String> = std::env::args().skip(1).filter(|word| !word.starts_with('-')).collect();
    let count = words.iter().find_map(|word| word.parse().ok()).unwrap_or(SPECIMENS);
    let is_wanted = |name: &str| words.iter().all(|word| word.parse::<usize>().is_ok() || name.contains(word));
    println!(
        "| kind | law | method | sound specimens | claimed | true of the claimed | true marks | survival in the mean | found − true | its 95th percentile | true at 80 % | true at 50 % | test hours | falls | restarts | trials |\n\
         |---|---|---|---|---|---|---|---|---|---|---|---|---|---|---|---|"
    );
    let mut all_foretold = Vec::new();
    for (name, lines) in KINDS {
        for law in LAWS.into_iter().filter(|law| is_wanted(&format!("{name} {law}"))) {
            let kind = Kind::new(&format!("law = \"{law}\"\n{lines}"));
            if law == LAWS[0] {
                let (margin, found) = kind.honest(count);
                println!("{}", row(name, law, &format!("ascend, margin {margin}"), &found));
            }
            let plan = kind.plan("seek", Start::Last, 0);
            for told in ["", ", told"] {
                let rig = |seed| if told.is_empty() { Arc::clone(&kind.rig) } else { kind.told(seed) };
                let strangers = on_all_processors(count, |seed| kind.climb(&plan, seed, &rig(seed), Vec::new()));
                for known in KNOWN {
                    let found = on_all_processors(count, |seed| {
                        let others = (1..=known as u64).map(|next| (seed + next - 1) % count as u64 + 1);
                        let find = |of: u64| strangers.iter().find(|one| one.seed == of);
                        match known {
                            0 => find(seed).expect("climbed").clone(),
                            _ => kind.climb(&plan, seed, &rig(seed), kind.known(&plan, others.filter_map(find))),
                        }
                    });
                    let found: Vec<Found> = found.into_iter().filter(|one| kind.is_sound(one.seed)).collect();
                    println!("{}", row(name, law, &format!("seek, {known} known{told}"), &found));
                    let foretold: Vec<_> = found.into_iter().flat_map(|one| one.foretold).collect();
                    all_foretold.push((format!("{name}, {law}, {known} known{told}"), foretold));
                }
            }
        }
    }
    calibration(&all_foretold);
}

fn row(kind: &str, law: &str, method: &str, found: &[Found]) -> String {
    let mean = |of: fn(&Found) -> f64| found.iter().map(of).sum::<f64>() / found.len() as f64;
    let mut off: Vec<f64> = found.iter().map(|one| one.off.abs()).collect();
    off.sort_unstable_by(f64::total_cmp);
    let at = |sure: f64| {
        let of: Vec<bool> =
            found.iter().flat_map(|one| &one.harder).filter(|one| one.0 == sure).map(|one| one.1).collect();
        let are_true = of.iter().filter(|is_true| **is_true).count();
        if of.is_empty() { "–".to_owned() } else { format!("{:.0} %", 100.0 * are_true as f64 / of.len() as f64) }
    };
    let claimed = found.iter().filter(|one| one.is_claimed);
    let right = claimed.clone().filter(|one| one.is_true()).count();
    let claimed = claimed.count();
    let share = if claimed == 0 { "–".to_owned() } else { format!("{:.1} %", 100.0 * right as f64 / claimed as f64) };
    format!(
        "| {kind} | {law} | {method} | {} | {:.1} % | {share} | {:.1} % | {:.3} | {:+.2} | {:.0} | {} | {} | {:.2} | {:.1} | {:.2} | {:.1} |",
        found.len(),
        100.0 * claimed as f64 / found.len() as f64,
        100.0 * mean(|one| f64::from(u8::from(one.is_true()))),
        mean(|one| one.survival),
        mean(|one| one.off),
        off[off.len() * 95 / 100],
        at(0.8),
        at(0.5),
        mean(|one| one.hours),
        mean(|one| f64::from(one.falls)),
        mean(|one| f64::from(one.restarts)),
        mean(|one| f64::from(one.trials)),
    )
}

/// Of the rungs foretold to survive with so many percent, how many do on average, for each kind and law.
fn calibration(all: &[(String, Vec<(f64, f64)>)]) {
    println!("\n| kind, law | foretold | rungs | foretold on average | true on average |\n|---|---|---|---|---|");
    for (name, foretold) in all {
        for tenth in 0..10 {
            let range = f64::from(tenth) / 10.0..f64::from(tenth + 1) / 10.0 + f64::from(u8::from(tenth == 9));
            let of: Vec<_> = foretold.iter().filter(|(said, _)| range.contains(said)).collect();
            if of.len() < ENOUGH {
                continue;
            }
            let mean = |sum: f64| 100.0 * sum / of.len() as f64;
            let (said, truth) = (of.iter().map(|one| one.0).sum(), of.iter().map(|one| one.1).sum());
            let from = 10 * tenth;
            println!("| {name} | {from}–{} % | {} | {:.1} % | {:.1} % |", from + 10, of.len(), mean(said), mean(truth));
        }
    }
}

/// What comes of so many specimens, on all processors.
fn on_all_processors(count: usize, of_specimen: impl Fn(u64) -> Found + Sync) -> Vec<Found> {
    let (next, found) = (AtomicUsize::new(1), Mutex::new(Vec::new()));
    thread::scope(|scope| {
        for _ in 0..thread::available_parallelism().map_or(1, usize::from) {
            scope.spawn(|| {
                loop {
                    let seed = next.fetch_add(1, Ordering::Relaxed);
                    if seed > count {
                        return;
                    }
                    let one = of_specimen(seed as u64);
                    found.lock().expect("no panic").push(one);
                }
            });
        }
    });
    found.into_inner().expect("no panic")
}

fn rig(lines: &str) -> (Rig, Spec) {
    let text = include_str!("../../../demo/dome.rig.toml");
    let silicon = "[adapter.simulated.silicon]\n";
    let begin = text.find("[adapter.simulated]").expect("an adapter");
    let adapter = "[adapter.simulated]\nseed = 1\nclock = \"core_clock\"\nvoltage = \"core_voltage\"\ncores = 8\n";
    let text = format!("{}{adapter}{silicon}{lines}", &text[..begin]);
    let document = Document::parse(&text).expect("a document");
    let problems = Problems::default();
    let top = document.top(&problems);
    let rig = Rig { history: Vec::new(), ..rig_file::read(&top).expect("a rig") };
    let adapter = top.section("adapter").and_then(|adapter| adapter.section("simulated"));
    let spec = adapter.and_then(|section| Spec::read(section, &rig));
    (rig, spec.unwrap_or_else(|| panic!("{:?}", problems.into_sorted())))
}

/// A kind of processor.
struct Kind {
    rig: Arc<Rig>,
    spec: Spec,
    /// How rungs of specimens survive the night, as far as it was asked.
    nights: Mutex<BTreeMap<(u64, Rung), f64>>,
}

impl Kind {
    fn new(lines: &str) -> Self {
        let (rig, spec) = rig(lines);
        Self { rig: Arc::new(rig), spec, nights: Mutex::default() }
    }

    /// The smallest margin at which marks of stepping are true often enough, and what the climbs came to with it. What stepping finds
    /// is the same whatever the margin, so that only its soak is made anew.
    fn honest(&self, count: usize) -> (u32, Vec<Found>) {
        let plan = self.plan("ascend", Start::Last, 0);
        let searched = on_all_processors(count, |seed| self.climb(&plan, seed, &self.rig, Vec::new()));
        for margin in self.likely_margin(&searched).. {
            let soaked = on_all_processors(count, |seed| {
                let search = searched.iter().find(|one| one.seed == seed).expect("searched");
                self.soak(search, margin)
            });
            let share = soaked.iter().filter(|one| one.is_true()).count() as f64 / count as f64;
            if share >= HONEST || margin >= MOST_MARGIN {
                return (margin, soaked);
            }
        }
        unreachable!("margins are tried up to a limit")
    }

    /// The probability that a rung of this specimen survives the night.
    fn survival(&self, seed: u64, rung: &Rung) -> f64 {
        let key = (seed, rung.clone());
        if let Some(known) = self.nights.lock().expect("no panic").get(&key) {
            return *known;
        }
        let night = [Pass::usual("dense", Span::from_seconds(8 * 3600))];
        let survival = Truth::of(&self.rig, &self.spec, seed).survival(rung, &night);
        self.nights.lock().expect("no panic").insert(key, survival);
        survival
    }

    /// Whether this specimen is as good at stock as a mark has to be.
    fn is_sound(&self, seed: u64) -> bool {
        self.survival(seed, &self.rig.stock()) >= SURVIVAL
    }

    /// The rig of a specimen whose file tells how often stock failed.
    fn told(&self, seed: u64) -> Arc<Rig> {
        let often = -self.survival(seed, &self.rig.stock()).ln() / 8.0 * TOLD;
        let (rung, loaded) = (self.rig.stock(), Span::from_seconds(3600 * TOLD as u64));
        let history = vec![History { rung, loaded, failures: poisson(often, seed) }];
        Arc::new(Rig { history, ..(*self.rig).clone() })
    }

    /// The hardest value that survives the night nine times of ten, zero where none does.
    fn hardest(&self, seed: u64) -> Decimal {
        let values: Vec<Decimal> = (4200..=5100).step_by(25).map(Decimal::from).collect();
        let holds = |value: &Decimal| self.survival(seed, &self.rig.stock().with(SETTING, *value)) >= SURVIVAL;
        let first_not = values.partition_point(holds);
        first_not.checked_sub(1).map_or(Decimal::ZERO, |last| values[last])
    }

    /// A margin that is too small rather than too large: without a proof to find them out, half of the first
    /// candidates would not be true with it.
    fn likely_margin(&self, searched: &[Found]) -> u32 {
        let is_true = |one: &&Found, margin: u32| {
            let step = Decimal::from(25) * Decimal::from(margin);
            let value = one.mark.get(SETTING).unwrap_or_default() - step;
            let rung = one.mark.with(SETTING, value.max(Decimal::from(4200)));
            self.survival(one.seed, &rung) >= SURVIVAL
        };
        let share = |margin| searched.iter().filter(|one| is_true(one, margin)).count() as f64 / searched.len() as f64;
        (0..MOST_MARGIN).find(|margin| share(*margin) >= 0.5).unwrap_or(MOST_MARGIN)
    }

    /// A plan of one stage.
    fn plan(&self, strategy: &str, start: Start, margin: u32) -> Arc<Plan> {
        let margin = if strategy == "ascend" { String::new() } else { format!("margin = {margin}\n") };
        let proof = if strategy == "ascend" { "quarter" } else { "night" };
        let text = format!(
            "format = 1\n[plan]\nname = \"p\"\nrig = \"r\"\nuse = \"daily\"\n\
             [proof.quarter]\npasses = [{{ load = \"dense\", for = \"15min\" }}]\n\
             [proof.night]\npasses = [{{ load = \"dense\", for = \"8h\" }}]\n\
             [[stage]]\nstrategy = \"{strategy}\"\nsetting = \"{SETTING}\"\nstep = 25\nproof = \"{proof}\"\n{margin}"
        );
        let document = Document::parse(&text).expect("a document");
        let problems = Problems::default();
        let plan = plan_file::read(&document.top(&problems), &self.rig, &["dense"]);
        let mut plan = plan.unwrap_or_else(|| panic!("{:?}", problems.into_sorted()));
        plan.stages[0].start = start;
        Arc::new(plan)
    }

    /// The search's result with a soak of the night, this margin below its mark.
    fn soak(&self, search: &Found, margin: u32) -> Found {
        let soaked = self.climb(
            &self.plan("soak", Start::Profile(search.mark.clone()), margin),
            search.seed,
            &self.rig,
            Vec::new(),
        );
        Found {
            hours: search.hours + soaked.hours,
            falls: search.falls + soaked.falls,
            restarts: search.restarts + soaked.restarts,
            trials: search.trials + soaked.trials,
            foretold: search.foretold.clone(),
            ..soaked
        }
    }

    /// What earlier climbs say of the kind.
    fn known<'a>(&self, plan: &Plan, earlier: impl Iterator<Item = &'a Found>) -> Vec<Expectation> {
        let earlier: Vec<Earlier> = earlier
            .map(|one| Earlier { story: &one.story, rig: &one.rig, plan, age: Span::ZERO, is_own: false })
            .collect();
        kinds(&earlier, &self.rig, plan)
    }

    fn climb(&self, plan: &Arc<Plan>, seed: u64, rig: &Arc<Rig>, kinds: Vec<Expectation>) -> Found {
        let mut climb = Climb::new(Arc::clone(rig), Arc::clone(plan));
        let mut simulator = Simulator::new(&self.spec, rig, seed, Moment::from_millis(0));
        let stock = rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect();
        let mut event = Event::Started { in_force: stock, ahead: 0, rules: RULES, kinds };
        let (mut entries, mut story): (Vec<Entry>, Story) = Default::default();
        story.hear(&event);
        while !climb.is_ended() {
            let step = climb.next(simulator.now(), &event);
            step.entries.iter().for_each(|entry| story.tell(step.at, entry));
            entries.extend(step.entries);
            event = match step.command {
                Some(Command::Apply(errand)) => answered(&mut simulator, Order::Apply(errand)),
                Some(Command::RunPass(order)) => answered(&mut simulator, Order::Run(order)),
                Some(Command::StopPass | Command::Ask(_)) | None => break,
            };
        }
        self.judged(plan, (seed, rig), &entries, story)
    }

    fn judged(&self, plan: &Plan, (seed, rig): (u64, &Arc<Rig>), entries: &[Entry], story: Story) -> Found {
        let (mut hours, mut falls, mut restarts, mut trials, mut last) = (0.0, 0, 0, 0, 0.0);
        let (mut mark, mut is_claimed, mut foretold) = (rig.stock(), false, Vec::new());
        let mut less_sure = None;
        for entry in entries {
            match entry {
                Entry::TrialBegan {
                    rung,
                    reason: Reason::Learn { foresight: Some(foresight), .. } | Reason::Confirm { foresight, .. },
                    ..
                } => {
                    foretold.push((foresight.survival, self.survival(seed, rung)));
                }
                Entry::TrialEnded { verdict, tested, incident, .. } => {
                    trials += 1;
                    falls += u32::from(*verdict == Verdict::Fell);
                    restarts += u32::from(incident.is_some_and(|kind| kind.takes_machine_down()));
                    hours += tested.hours();
                    last = tested.hours();
                }
                Entry::MarkSet { mark: set } => {
                    mark = set.rung.clone();
                    let claim = Claim::of_mark(&story, rig, plan, set);
                    is_claimed = claim.as_ref().is_some_and(Claim::is_sure);
                    less_sure = claim.and_then(|claim| Harder::of_mark(&claim, (&story, rig, plan), set));
                    // The proof that ends a search is a soak too.
                    hours -= if plan.proof_of(set.stage).name == "night" { last } else { 0.0 };
                }
                _ => {}
            }
        }
        let found = mark.get(SETTING).unwrap_or_default();
        let off = f64::try_from((found - self.hardest(seed)) / Decimal::from(25)).unwrap_or(f64::NAN);
        let survival = self.survival(seed, &mark);
        let is_good = |value: Decimal| self.survival(seed, &mark.with(SETTING, value)) >= SURVIVAL;
        let harder =
            less_sure.map(|harder| harder.up_to.into_iter().map(|(sure, value)| (sure, is_good(value))).collect());
        Found {
            seed,
            rig: Arc::clone(rig),
            harder: harder.unwrap_or_default(),
            mark,
            off,
            survival,
            is_claimed,
            hours,
            falls,
            restarts,
            trials,
            foretold,
            story: Arc::new(story),
        }
    }
}

/// How often a specimen saw what happens so often in the mean (Poisson's distribution at points that specimens spread evenly).
fn poisson(mean: f64, seed: u64) -> u32 {
    let mut part = ((seed as f64 * GOLDEN).fract(), (-mean).exp());
    let mut count = 0;
    while part.0 > part.1 && part.1 > 0.0 {
        count += 1;
        part = (part.0 - part.1, part.1 * mean / f64::from(count));
    }
    count
}

/// What comes of an order, for the engine.
fn answered(simulator: &mut Simulator, order: Order) -> Event {
    simulator.order(1, order);
    loop {
        for event in simulator.events(Span::from_seconds(36_000)) {
            match event {
                BenchEvent::Answered { answer: Answer::InForce(read_back), .. } => {
                    return Event::Applied { reported: read_back.in_force };
                }
                BenchEvent::Answered { answer: Answer::Failed(incident), .. } => {
                    return Event::ApplyFailed { incident };
                }
                BenchEvent::Answered { answer: Answer::Ended(report, _), .. } => {
                    return Event::PassEnded { report: *report, reported: None };
                }
                _ => {}
            }
        }
    }
}
