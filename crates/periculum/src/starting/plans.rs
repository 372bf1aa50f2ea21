//! The plan that fulfils a wish.

use periculum_core::files::written::PlanText;
use periculum_core::model::field::{Field, Takes};
use periculum_core::model::ladder::Direction;
use periculum_core::model::moment::Span;
use periculum_core::model::pass::Pass;
use periculum_core::model::task::{Better, Read, Task};

use super::Wish;
use crate::climbing::{PROVING, SCORING};
use crate::telling::starting;

/// What is wanted, as far as somebody has to say it.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) struct Intent {
    pub(crate) wish: Wish,
    /// Which ceilings hold; none where nothing moves.
    pub(crate) use_name: Option<String>,
    /// The setting that moves first.
    pub(crate) setting: Option<String>,
    /// The profile that it starts from; stock where there is none.
    pub(crate) start: Option<String>,
    /// How long one has, hours.
    pub(crate) hours: Option<u32>,
}

/// How often a score is measured, at most, and how well it is to be known.
const REPEATS: i64 = 5;
const WITHIN: &str = "1%";

/// The loads that are preferred for a short trial and for a long one, where the rig has them.
const SHORT: [(&str, u64); 2] = [("integer", 20), ("dense", 60)];
const LONG: [&str; 3] = ["dense", "transform", "integer"];

/// A proof may take this share of the time that one has.
const SHARE_OF_PROOF: u64 = 4;

/// The proof that a choice by hand is put to where more than a glance is wanted, seconds.
const FIRM: u64 = 300;

const QUICK: &str = "quick";
const LONGER: &str = "firm";

/// What a rig can be put to.
pub(crate) struct Work<'a> {
    /// The loads that run on it by themselves.
    pub(crate) loads: &'a [&'a str],
    /// What somebody makes where there are none: tests of it, by name.
    pub(crate) tests: Vec<(String, Task)>,
    /// Which way the setting that moves is harder.
    pub(crate) harder: Direction,
}

impl Work<'_> {
    /// What somebody makes on a rig of which no tests are known: they use it, and say how that went and how much they got done.
    pub(crate) fn of_anything() -> Vec<(String, Task)> {
        let field = |name: &str, takes, is_needed| Field { name: name.into(), label: name.into(), takes, is_needed };
        let number = Takes::Number { unit: String::new(), least: None, most: None };
        let reads = vec![
            Read { field: field(starting::WELL, Takes::YesOrNo, true), right: vec!["yes".into()], better: None },
            Read { field: field(starting::DONE, number, false), right: Vec::new(), better: Some(Better::More) },
        ];
        vec![(starting::USE.into(), Task { ask: starting::USE_IT.into(), reads, figures: Vec::new() })]
    }

    /// So many seconds of what somebody makes, in equal parts.
    fn by_hand(&self, seconds: u64) -> Vec<Pass> {
        let part = Span::from_seconds((seconds / self.tests.len().max(1) as u64).max(1));
        let pass =
            |(name, task): &(String, Task)| Pass { by_hand: Some(Box::new(task.clone())), ..Pass::usual(name, part) };
        self.tests.iter().map(pass).collect()
    }

    /// How a limit is found: nobody makes a pass for a part of its time, so that no lengths can be chosen there.
    fn search(&self) -> &'static str {
        match self.harder {
            _ if !self.loads.is_empty() => "seek",
            Direction::Up => "ascend",
            Direction::Down => "trim",
        }
    }
}

/// The text of the plan, for a rig of this file that can be put to this.
pub(crate) fn plan_text(intent: &Intent, name: &str, rig_file: &str, work: &Work) -> String {
    let use_name = intent.use_name.as_deref().unwrap_or(if intent.wish == Wish::Score { SCORING } else { PROVING });
    let mut text = PlanText::new(name, rig_file, use_name);
    let seconds = u64::from(intent.hours.unwrap_or(1)) * 3600;
    let strategy = |name: &str| ("strategy", name.into());
    let proof = |name: &str| ("proof", name.into());
    let moved = || ("setting", intent.setting.clone().unwrap_or_default().into());
    let known = [strategy("baseline"), proof(QUICK), ("repeats", 2.into())];
    let saved = ("save", use_name.into());
    let start = intent.start.as_deref().map(|start| ("start", start.into()));
    let budget = intent.wish.moves().then_some(intent.hours).flatten();
    match intent.wish {
        Wish::FindLimit | Wish::LessVoltage => {
            text.add_proof(QUICK, &short(work));
            text.add_proof(LONGER, &long(work, seconds / SHARE_OF_PROOF));
            text.add_stage(starting::TO_KNOW, &known);
            let seek = [strategy(work.search()), moved(), proof(QUICK)].into_iter().chain(start);
            text.add_stage(starting::TO_FIND, &seek.collect::<Vec<_>>());
            let soak = [strategy("soak"), moved(), ("margin", 1.into()), proof(LONGER), saved];
            text.add_stage(starting::TO_PROVE, &soak);
        }
        Wish::WhatPays => {
            text.add_proof(QUICK, &short(work));
            text.add_stage(starting::TO_KNOW, &known);
            text.add_stage(starting::TO_COMPARE, &[strategy("peak"), moved(), proof(QUICK), ("repeats", 2.into())]);
        }
        Wish::Lead => {
            text.add_proof(QUICK, &short(work));
            text.add_proof(LONGER, &long(work, FIRM));
            let lead = [strategy("lead"), proof(QUICK)].into_iter().chain(start);
            text.add_stage(starting::TO_LEAD, &lead.collect::<Vec<_>>());
            text.ends_at_mark();
        }
        Wish::Prove => {
            text.add_proof(LONGER, &long(work, seconds));
            text.add_stage("", &[strategy("baseline"), proof(LONGER)]);
        }
        Wish::Score => {
            for pass in scored(work) {
                text.add_proof(&pass.load.clone(), &[pass]);
            }
            for Pass { load, .. } in &scored(work) {
                let times = [("repeats", REPEATS.into()), ("within", WITHIN.into())];
                text.add_stage("", &[&[strategy("baseline"), proof(load)], &times[..]].concat());
            }
        }
    }
    budget.into_iter().for_each(|hours| text.limit_hours(hours.into()));
    text.text()
}

/// The benchmarks that say most of a machine.
const SCORED: [&str; 4] = ["dense", "transform", "integer", "bandwidth-read"];

/// Those that the rig has; all of a rig that is no machine like this one.
fn scored(work: &Work) -> Vec<Pass> {
    let known: Vec<&str> = work.loads.iter().copied().filter(|load| SCORED.contains(load)).collect();
    let loads = if known.is_empty() { work.loads.to_vec() } else { known };
    let passes: Vec<Pass> = loads.into_iter().map(|load| Pass::usual(load, Span::from_seconds(10))).collect();
    if passes.is_empty() { work.by_hand(120) } else { passes }
}

/// What shows within a minute or two that a step was too large.
fn short(work: &Work) -> Vec<Pass> {
    let known = SHORT.into_iter().filter(|(load, _)| work.loads.contains(load));
    let passes: Vec<Pass> = known.map(|(load, seconds)| Pass::usual(load, Span::from_seconds(seconds))).collect();
    if passes.is_empty() { any(work, 60) } else { passes }
}

/// What deserves trust after so many seconds, in equal parts.
fn long(work: &Work, seconds: u64) -> Vec<Pass> {
    let known: Vec<&str> = LONG.into_iter().filter(|load| work.loads.contains(load)).collect();
    let part = (seconds / known.len().max(1) as u64).max(1);
    let passes: Vec<Pass> = known.iter().map(|load| Pass::usual(*load, Span::from_seconds(part))).collect();
    if passes.is_empty() { any(work, seconds) } else { passes }
}

fn any(work: &Work, seconds: u64) -> Vec<Pass> {
    match work.loads.first() {
        Some(load) => vec![Pass::usual(*load, Span::from_seconds(seconds))],
        None => work.by_hand(seconds),
    }
}
