//! Benches that answer late, out of order, twice, or never.

use std::path::Path;

use periculum_core::engine::{Climb, Entry};
use periculum_core::model::ending::Boot;
use periculum_core::model::incident::{Incident, IncidentKind};
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::pass::PassReport;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::{InForce, Rung};
use periculum_core::model::verdict::Verdict;
use periculum_rigs::bench::{Answer, Bench, BenchEvent, Number, Order, ReadBack, Shown};
use tempfile::TempDir;

use super::{Operator, Parting};
use crate::briefing::Briefing;
use crate::cli::Pace;
use crate::climbing::{Prepared, open_ledger};
use crate::notice::Notice;

/// How a bench behaves.
#[derive(Clone, Copy, Default)]
struct Manners {
    /// It is asked so often before it answers.
    late: u32,
    /// Each answer comes a second time, and one that nobody asked for before it.
    mixed_up: bool,
    /// The number of the order that it never answers; 0 for none.
    deaf_to: Number,
}

/// A rig that takes everything up to a clock, and answers when it likes.
struct Moody {
    manners: Manners,
    in_force: InForce,
    holds_to: i64,
    now: Moment,
    waiting: Vec<(Number, Order, u32)>,
    last: Option<(Number, Answer)>,
}

impl Moody {
    fn answer(&mut self, order: Order) -> Option<Answer> {
        match order {
            Order::Apply(errand) => {
                self.in_force.extend(errand.made());
                Some(Answer::InForce(self.read_back()))
            }
            Order::Run(order) => {
                let clock = i64::try_from(self.in_force["core_clock"]).expect("whole");
                let mut report = PassReport { ran: order.pass.length, rounds: 10, ..PassReport::default() };
                report.incidents.extend(
                    (clock > self.holds_to).then(|| Incident::new(IncidentKind::WrongResult, "beyond the border")),
                );
                self.now = self.now + order.pass.length;
                Some(Answer::Ended(Box::new(report), self.read_back()))
            }
            Order::PutBack => Some(Answer::PutBack(Vec::new())),
            Order::Prepare(_) => Some(Answer::Prepared),
            Order::Confirm(_) | Order::ReadBack => Some(Answer::InForce(self.read_back())),
            Order::Show { .. } => Some(Answer::Shown(Shown::default())),
            Order::StartAnew | Order::Break => None,
        }
    }

    fn read_back(&self) -> ReadBack {
        self.in_force.clone().into()
    }
}

impl Bench for Moody {
    fn order(&mut self, number: Number, order: Order) {
        let late = if number == self.manners.deaf_to { u32::MAX } else { self.manners.late };
        self.waiting.push((number, order, late));
    }

    fn events(&mut self, at_most: Span) -> Vec<BenchEvent> {
        self.now = self.now + at_most;
        self.waiting.iter_mut().for_each(|(_, _, left)| *left = left.saturating_sub(1));
        let Some(at) = self.waiting.iter().position(|(_, _, left)| *left == 0) else {
            // Nobody waits through hours of silence here.
            self.now = self.now + Span::from_seconds(1);
            return Vec::new();
        };
        let (number, order, _) = self.waiting.remove(at);
        let Some(answer) = self.answer(order) else { return Vec::new() };
        let mut events = vec![BenchEvent::Answered { to: number, answer: answer.clone() }];
        if self.manners.mixed_up {
            let stale = self.last.replace((number, answer.clone()));
            let nobodys = (number + 100, Answer::InForce(ReadBack::default()));
            for (to, answer) in [nobodys].into_iter().chain(stale) {
                events.insert(0, BenchEvent::Answered { to, answer });
            }
            events.push(BenchEvent::Answered { to: number, answer });
        }
        events
    }

    fn now(&self) -> Moment {
        self.now
    }

    fn is_virtual(&self) -> bool {
        true
    }

    fn identity(&self) -> Boot {
        Boot { id: "moody".into(), since: None }
    }
}

/// What a climb of the demo's plan came to on a bench of these manners: how it parted, and everything it told.
fn climbed(manners: Manners) -> (Parting, Vec<Entry>) {
    let folder = TempDir::new().expect("a folder");
    let plan = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/dome.plan.toml");
    let briefing = Briefing::read(&plan).expect("a plan");
    let stock = stock(&briefing.rig);
    let ledger = open_ledger(&folder.path().join("test.ledger")).expect("a ledger");
    let prepared = Prepared::new(briefing, ledger, Path::new("/"), Some(11)).expect("a climb");
    let (_words, operator) = Operator::new();
    let mut told = Vec::new();
    let listen = |notice: Notice| {
        if let Notice::Told { entry, .. } = notice {
            told.push(entry);
        }
    };
    let (mut driver, first, claim) = prepared.driver(operator, Some(Pace::Max), listen);
    let now = driver.bench.now();
    driver.bench = Box::new(Moody { manners, in_force: stock, holds_to: 4650, now, waiting: Vec::new(), last: None });
    let parting = driver.drive(first, |_| false).expect("driven");
    drop(driver);
    // What was recorded says the same again.
    drop(claim);
    let ledger = open_ledger(&folder.path().join("test.ledger")).expect("a ledger");
    let lines = ledger.lines(1).expect("lines");
    let recorded: Vec<Entry> = lines.iter().flat_map(|line| line.entries.clone()).collect();
    assert_eq!(recorded, told);
    (parting, told)
}

fn stock(rig: &Rig) -> InForce {
    rig.stock().iter().map(|(name, value)| (name.to_owned(), value)).collect()
}

/// The rungs that were tried, and what became of them.
fn trials(told: &[Entry]) -> (Vec<Rung>, Vec<Verdict>) {
    let rungs = told.iter().filter_map(|entry| match entry {
        Entry::TrialBegan { rung, .. } => Some(rung.clone()),
        _ => None,
    });
    let verdicts = told.iter().filter_map(|entry| match entry {
        Entry::TrialEnded { verdict, .. } => Some(*verdict),
        _ => None,
    });
    (rungs.collect(), verdicts.collect())
}

#[test]
fn a_bench_that_answers_late_or_mixed_up_leads_to_the_same_marks() {
    let (parting, prompt) = climbed(Manners::default());
    assert_eq!(parting, Parting::Ended);
    assert!(trials(&prompt).1.contains(&Verdict::Fell) || trials(&prompt).1.contains(&Verdict::Slipped));
    for manners in [Manners { late: 40, ..Manners::default() }, Manners { late: 3, mixed_up: true, deaf_to: 0 }] {
        let (parting, told) = climbed(manners);
        assert_eq!((parting, trials(&told)), (Parting::Ended, trials(&prompt)));
    }
}

#[test]
fn a_bench_that_never_answers_one_change_costs_that_trial_and_no_more() {
    // The third change that is ordered.
    let mut deaf_to = 0;
    let mut changes = 0;
    let (_, prompt) = climbed(Manners::default());
    for entry in &prompt {
        match entry {
            Entry::AboutToApply { .. } => {
                deaf_to += 1;
                changes += 1;
            }
            Entry::PassBegan { .. } => deaf_to += 1,
            _ => {}
        }
        if changes == 3 {
            break;
        }
    }
    let (parting, told) = climbed(Manners { deaf_to, ..Manners::default() });
    assert_eq!(parting, Parting::Ended);
    let unanswered = told.iter().filter(
        |entry| matches!(entry, Entry::Incident { incident, .. } if incident.evidence.to_string().contains("has not answered for")),
    );
    assert_eq!(unanswered.count(), 1);
    let is_at_stock = |entry: &Entry| matches!(entry, Entry::Ended { not_at_stock, .. } if not_at_stock.is_empty());
    assert!(told.iter().any(is_at_stock), "the rig is back at stock");
}

#[test]
fn a_climb_waits_for_the_answer_before_it_is_put_aside() {
    let folder = TempDir::new().expect("a folder");
    let plan = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/dome.plan.toml");
    let briefing = Briefing::read(&plan).expect("a plan");
    let stock = stock(&briefing.rig);
    let ledger = open_ledger(&folder.path().join("test.ledger")).expect("a ledger");
    let prepared = Prepared::new(briefing, ledger, Path::new("/"), Some(11)).expect("a climb");
    let (words, operator) = Operator::new();
    let (mut driver, first, _claim) = prepared.driver(operator, Some(Pace::Max), |_| ());
    let (now, manners) = (driver.bench.now(), Manners { late: 20, ..Manners::default() });
    driver.bench =
        Box::new(Moody { manners, in_force: stock.clone(), holds_to: 4650, now, waiting: Vec::new(), last: None });
    driver.drive(first, |climb| climb.trials() > 3 && climb.is_applying()).expect("driven");
    words.send(periculum_core::engine::Said::Suspend).expect("heard");
    assert_eq!(driver.go_on(|_| false).expect("driven"), Parting::Waiting);
    assert!(driver.climb.is_paused() && !Climb::is_applying(&driver.climb));
    driver.bench.order(1000, Order::ReadBack);
    let read = std::iter::repeat_with(|| driver.bench.events(Span::from_millis(1))).find(|events| !events.is_empty());
    let answer = Answer::InForce(stock.into());
    assert_eq!(read, Some(vec![BenchEvent::Answered { to: 1000, answer }]));
}
