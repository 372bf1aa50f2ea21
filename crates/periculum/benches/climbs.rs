//! How far found marks are from the truth, and what they cost: `cargo bench -p periculum --bench climbs`.
//!
//! Specimens of four kinds of simulated processor are climbed to the end by stepping with passes of 15 minutes and by
//! `seek`, each with the same soak of eight hours at last. Each method gets the margin at which at least 95 % of its
//! marks are true, that is, survive that soak nine times of ten.

use std::sync::atomic::{AtomicUsize, Ordering};
use std::sync::{Arc, Mutex};
use std::thread;

use periculum_core::Decimal;
use periculum_core::engine::{Climb, Command, Entry, Event};
use periculum_core::file::{Document, Problems, plan_file, rig_file};
use periculum_core::moment::{Moment, Span};
use periculum_core::pass::Pass;
use periculum_core::plan::Plan;
use periculum_core::reason::Reason;
use periculum_core::rig::Rig;
use periculum_core::verdict::Verdict;
use periculum_rigs::bench::{Apply, KeepTime, PassNews, ReadBack, RunPasses};
use periculum_rigs::simulated::{Simulator, Spec, Truth};

/// Specimens of all kinds together, unless a number is given.
const SPECIMENS: usize = 1000;

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

/// The share of marks that must be true.
const HONEST: f64 = 0.95;

/// Margins are tried up to so many steps, on so many specimens at first.
const MOST_MARGIN: u32 = 10;
const FEW: usize = 40;

const SETTING: &str = "core_clock";

/// What a climb came to.
struct Found {
    /// The mark less the truth, in steps.
    off: f64,
    is_true: bool,
    /// Test hours without the soak that held at last.
    hours: f64,
    falls: u32,
    restarts: u32,
    trials: u32,
    /// What was foretold of the rungs that were tried, and what is true of them.
    foretold: Vec<(f64, f64)>,
}

fn main() {
    let count = std::env::args().skip(1).find_map(|argument| argument.parse().ok()).unwrap_or(SPECIMENS);
    println!(
        "| kind | method | margin | true marks | mean of found − true | its 95th percentile | test hours | falls | restarts | trials |\n\
         |---|---|---|---|---|---|---|---|---|---|"
    );
    let mut foretold = Vec::new();
    for (kind, lines) in KINDS {
        for method in ["ascend", "seek"] {
            let (margin, found) = honest(lines, method, count / KINDS.len());
            println!("{}", row(kind, method, margin, &found));
            foretold.extend(found.into_iter().flat_map(|one| one.foretold));
        }
    }
    calibration(&foretold);
}

/// The smallest margin at which marks are true often enough, and the climbs with it; a few specimens tell which
/// margins are worth trying.
fn honest(lines: &str, method: &str, count: usize) -> (u32, Vec<Found>) {
    let share = |found: &[Found]| found.iter().filter(|one| one.is_true).count() as f64 / found.len() as f64;
    let mut margin = (0..MOST_MARGIN).find(|margin| share(&climbs(lines, method, *margin, count.min(FEW))) >= HONEST);
    loop {
        let tried = margin.unwrap_or(MOST_MARGIN);
        let found = climbs(lines, method, tried, count);
        if share(&found) >= HONEST || tried == MOST_MARGIN {
            return (tried, found);
        }
        margin = Some(tried + 1);
    }
}

fn row(kind: &str, method: &str, margin: u32, found: &[Found]) -> String {
    let mean = |of: fn(&Found) -> f64| found.iter().map(of).sum::<f64>() / found.len() as f64;
    let mut off: Vec<f64> = found.iter().map(|one| one.off.abs()).collect();
    off.sort_unstable_by(f64::total_cmp);
    format!(
        "| {kind} | {method} | {margin} | {:.1} % | {:+.2} | {:.0} | {:.2} | {:.1} | {:.2} | {:.1} |",
        100.0 * mean(|one| f64::from(u8::from(one.is_true))),
        mean(|one| one.off),
        off[off.len() * 95 / 100],
        mean(|one| one.hours),
        mean(|one| f64::from(one.falls)),
        mean(|one| f64::from(one.restarts)),
        mean(|one| f64::from(one.trials)),
    )
}

/// Of the rungs foretold to survive with so many percent, how many do on average.
fn calibration(foretold: &[(f64, f64)]) {
    println!("\n| foretold | rungs | foretold on average | true on average |\n|---|---|---|---|");
    for tenth in 0..10 {
        let range = f64::from(tenth) / 10.0..f64::from(tenth + 1) / 10.0 + f64::from(u8::from(tenth == 9));
        let of: Vec<_> = foretold.iter().filter(|(said, _)| range.contains(said)).collect();
        let mean = |sum: f64| 100.0 * sum / of.len().max(1) as f64;
        let (said, truth) = (of.iter().map(|one| one.0).sum(), of.iter().map(|one| one.1).sum());
        println!(
            "| {}–{} % | {} | {:.1} % | {:.1} % |",
            10 * tenth,
            10 * tenth + 10,
            of.len(),
            mean(said),
            mean(truth)
        );
    }
}

/// Climbs of as many specimens, on all processors.
fn climbs(lines: &str, method: &str, margin: u32, count: usize) -> Vec<Found> {
    let (rig, spec) = rig(lines);
    let plan = Arc::new(plan(&rig, method, margin));
    let rig = Arc::new(rig);
    let (next, found) = (AtomicUsize::new(0), Mutex::new(Vec::new()));
    thread::scope(|scope| {
        for _ in 0..thread::available_parallelism().map_or(1, usize::from) {
            scope.spawn(|| {
                loop {
                    let seed = next.fetch_add(1, Ordering::Relaxed);
                    if seed >= count {
                        return;
                    }
                    let one = climb(&rig, &spec, &plan, seed as u64 + 1);
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
    let rig = rig_file::read(&top).expect("a rig");
    let adapter = top.section("adapter").and_then(|adapter| adapter.section("simulated"));
    let spec = adapter.and_then(|section| Spec::read(section, &rig));
    (rig, spec.unwrap_or_else(|| panic!("{:?}", problems.into_sorted())))
}

fn plan(rig: &Rig, method: &str, margin: u32) -> Plan {
    let (find, proof) = if method == "ascend" { ("ascend", "quarter") } else { ("seek", "night") };
    let text = format!(
        "format = 1\n[plan]\nname = \"p\"\nrig = \"r\"\nuse = \"daily\"\n\
         [proof.quarter]\npasses = [{{ load = \"dense\", for = \"15min\" }}]\n\
         [proof.night]\npasses = [{{ load = \"dense\", for = \"8h\" }}]\n\
         [[stage]]\nstrategy = \"{find}\"\nsetting = \"{SETTING}\"\nstep = 25\nproof = \"{proof}\"\n\
         [[stage]]\nstrategy = \"soak\"\nsetting = \"{SETTING}\"\nstep = 25\nmargin = {margin}\nproof = \"night\"\n"
    );
    let document = Document::parse(&text).expect("a document");
    let problems = Problems::default();
    let plan = plan_file::read(&document.top(&problems), rig, &["dense"]);
    plan.unwrap_or_else(|| panic!("{:?}", problems.into_sorted()))
}

fn climb(rig: &Arc<Rig>, spec: &Spec, plan: &Arc<Plan>, seed: u64) -> Found {
    let mut climb = Climb::new(Arc::clone(rig), Arc::clone(plan));
    let mut simulator = Simulator::new(spec.clone(), rig, seed, Moment::from_millis(0));
    let mut event = Event::Started { in_force: simulator.read_back() };
    let mut entries: Vec<Entry> = Vec::new();
    while !climb.is_ended() {
        let step = climb.next(simulator.now(), &event);
        entries.extend(step.entries);
        event = match step.command {
            Some(Command::Apply(change)) => match simulator.apply(&change) {
                Ok(()) => Event::Applied { reported: simulator.read_back() },
                Err(incident) => Event::ApplyFailed { incident },
            },
            Some(Command::RunPass(order)) => {
                simulator.start(&order);
                Event::PassEnded { report: ended(&mut simulator) }
            }
            Some(Command::StopPass | Command::Ask(_)) | None => break,
        };
    }
    judged(rig, spec, plan, seed, &entries)
}

fn ended(simulator: &mut Simulator) -> periculum_core::pass::PassReport {
    loop {
        for news in simulator.wait(Span::from_seconds(3600)) {
            if let PassNews::Ended(report) = news {
                return report;
            }
        }
    }
}

fn judged(rig: &Rig, spec: &Spec, plan: &Plan, seed: u64, entries: &[Entry]) -> Found {
    let truth = Truth::of(rig, spec, seed);
    let night = [Pass::usual("dense", Span::from_seconds(8 * 3600))];
    let values: Vec<Decimal> = (4200..=5100).step_by(25).map(Decimal::from).collect();
    let hardest = truth.hardest(&rig.stock(), SETTING, &values, &night, 0.9).unwrap_or(Decimal::ZERO);
    let (mut hours, mut falls, mut restarts, mut trials, mut last) = (0.0, 0, 0, 0, 0.0);
    let (mut mark, mut foretold) = (rig.stock(), Vec::new());
    for entry in entries {
        match entry {
            Entry::TrialBegan {
                rung,
                reason: Reason::Learn { foresight, .. } | Reason::Confirm { foresight, .. },
                ..
            } => {
                foretold.push((foresight.survival, truth.survival(rung, &night)));
            }
            Entry::TrialEnded { verdict, tested, incident, .. } => {
                trials += 1;
                falls += u32::from(*verdict == Verdict::Fell);
                restarts += u32::from(incident.is_some_and(|kind| kind.takes_machine_down()));
                hours += tested.hours();
                last = tested.hours();
            }
            Entry::MarkSet { mark: set } if set.stage + 1 == plan.stages.len() => {
                mark = set.rung.clone();
                hours -= last;
            }
            // The proof that ends the search is a soak too.
            Entry::MarkSet { mark: set } if plan.proof_of(set.stage).name == "night" => hours -= last,
            _ => {}
        }
    }
    let found = mark.get(SETTING).unwrap_or_default();
    let off = f64::try_from((found - hardest) / Decimal::from(25)).unwrap_or(f64::NAN);
    Found { off, is_true: truth.survival(&mark, &night) >= 0.9, hours, falls, restarts, trials, foretold }
}
