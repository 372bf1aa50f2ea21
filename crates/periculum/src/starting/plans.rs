//! The plan that fulfils a wish.

use periculum_core::files::written::PlanText;
use periculum_core::model::moment::Span;
use periculum_core::model::pass::Pass;

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

/// The text of the plan, for a rig of this file with these loads.
pub(crate) fn plan_text(intent: &Intent, name: &str, rig_file: &str, loads: &[&str]) -> String {
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
            text.add_proof(QUICK, &short(loads));
            text.add_proof(LONGER, &long(loads, seconds / SHARE_OF_PROOF));
            text.add_stage(starting::TO_KNOW, &known);
            let seek = [strategy("seek"), moved(), proof(QUICK)].into_iter().chain(start);
            text.add_stage(starting::TO_FIND, &seek.collect::<Vec<_>>());
            let soak = [strategy("soak"), moved(), ("margin", 1.into()), proof(LONGER), saved];
            text.add_stage(starting::TO_PROVE, &soak);
        }
        Wish::WhatPays => {
            text.add_proof(QUICK, &short(loads));
            text.add_stage(starting::TO_KNOW, &known);
            text.add_stage(starting::TO_COMPARE, &[strategy("peak"), moved(), proof(QUICK), ("repeats", 2.into())]);
        }
        Wish::Lead => {
            text.add_proof(QUICK, &short(loads));
            text.add_proof(LONGER, &long(loads, FIRM));
            let lead = [strategy("lead"), proof(QUICK)].into_iter().chain(start);
            text.add_stage(starting::TO_LEAD, &lead.collect::<Vec<_>>());
            text.ends_at_mark();
        }
        Wish::Prove => {
            text.add_proof(LONGER, &long(loads, seconds));
            text.add_stage("", &[strategy("baseline"), proof(LONGER)]);
        }
        Wish::Score => {
            for load in &scored(loads) {
                text.add_proof(load, &[Pass::usual(*load, Span::from_seconds(10))]);
            }
            for load in &scored(loads) {
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
fn scored<'a>(loads: &[&'a str]) -> Vec<&'a str> {
    let known: Vec<&str> = loads.iter().copied().filter(|load| SCORED.contains(load)).collect();
    if known.is_empty() { loads.to_vec() } else { known }
}

/// What shows within a minute or two that a step was too large.
fn short(loads: &[&str]) -> Vec<Pass> {
    let known = SHORT.into_iter().filter(|(load, _)| loads.contains(load));
    let passes: Vec<Pass> = known.map(|(load, seconds)| Pass::usual(load, Span::from_seconds(seconds))).collect();
    if passes.is_empty() { any(loads, 60) } else { passes }
}

/// What deserves trust after so many seconds, in equal parts.
fn long(loads: &[&str], seconds: u64) -> Vec<Pass> {
    let known: Vec<&str> = LONG.into_iter().filter(|load| loads.contains(load)).collect();
    let part = (seconds / known.len().max(1) as u64).max(1);
    let passes: Vec<Pass> = known.iter().map(|load| Pass::usual(*load, Span::from_seconds(part))).collect();
    if passes.is_empty() { any(loads, seconds) } else { passes }
}

fn any(loads: &[&str], seconds: u64) -> Vec<Pass> {
    loads.first().map(|load| Pass::usual(*load, Span::from_seconds(seconds))).into_iter().collect()
}
