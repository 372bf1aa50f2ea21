//! `periculum score`: benchmarks of this machine as it is, repeated until they are known well enough.

use std::path::PathBuf;
use std::process::ExitCode;
use std::time::Duration;

use anyhow::Result;
use periculum_core::files::written::PlanText;
use periculum_core::inference::statistics::mean_interval;
use periculum_core::model::moment::Span;
use periculum_core::model::pass::{Demand, Pass, Score as Measured, Threads};
use periculum_core::model::program::Program;
use periculum_core::model::quantity::{grouped, scored};
use periculum_core::story::Story;
use periculum_rigs::linux::Linux;

use super::{LEDGER, as_it_is};
use crate::briefing::{self, Briefing, SourceFile, real_loads};
use crate::cli::{Common, Output, Score};
use crate::climbing::{Prepared, SCORING, open_ledger};
use crate::complaint::{BadInput, NOT_SURE};
use crate::output::{complain, say, say_lines};
use crate::telling::scoring;
use crate::{headless, places};

/// What is measured where nobody says: all but what only watches or waits.
const USUAL: [&str; 12] = [
    "dense",
    "transform",
    "integer",
    "render",
    "encode",
    "digits",
    "bandwidth-read",
    "bandwidth-write",
    "bandwidth-copy",
    "latency",
    "latency-small-pages",
    "pulse",
];

/// How long other programs are watched before anything is measured.
const WATCHING: Duration = Duration::from_millis(700);

/// Programs that use less of a processor than this are not worth a word, percent.
const WORTH_A_WORD: f64 = 2.0;

pub(super) fn run(score: &Score, common: &Common) -> Result<ExitCode> {
    let programs = programs(score)?;
    let mut names = score.names.clone();
    if names.is_empty() && programs.is_empty() {
        names = USUAL.map(str::to_owned).to_vec();
    }
    names.extend(programs.iter().map(|program| program.name.clone()).filter(|name| !score.names.contains(name)));
    let is_known =
        |name: &&String| real_loads().contains(&name.as_str()) || programs.iter().any(|one| one.name == **name);
    if let Some(unknown) = names.iter().find(|name| !is_known(name)) {
        return Err(BadInput(scoring::no_such_benchmark(unknown, real_loads().join(", "))).into());
    }
    if !score.json {
        warn_of_others(&Linux::below(&common.sysroot));
    }
    let rig = as_it_is::rig(score.rig.as_deref(), &common.sysroot)?;
    let plan = SourceFile { path: PathBuf::from("score.plan.toml"), text: plan_text(score, &names, &programs) };
    let briefing = Briefing::of(rig, plan)?;
    let ledger = open_ledger(&places::ledger(common, LEDGER)?)?;
    let prepared = Prepared::new(briefing, ledger, &common.sysroot, None)?;
    let output = Output { headless: true, json: score.json, rounds: score.rounds, answers: None };
    let (code, story) = headless::drive_to_story(prepared, &output, None)?;
    if !score.json {
        say_lines(&format!("\n{}", table(&story, &names)));
    }
    let unsure: Vec<&str> = names
        .iter()
        .enumerate()
        .filter(|(at, _)| is_unsure(&story, *at, score.within))
        .map(|(_, name)| &**name)
        .collect();
    if code != ExitCode::SUCCESS || unsure.is_empty() {
        return Ok(code);
    }
    complain(scoring::not_sure(score.within, score.repeats, unsure.join(", ")));
    Ok(ExitCode::from(NOT_SURE))
}

/// Whether the mean of a benchmark is not known as well as was asked for; a single measurement was not to be.
fn is_unsure(story: &Story, stage: usize, within: f64) -> bool {
    let trials = story.trials.iter().filter(|trial| trial.stage == stage);
    let scores: Vec<f64> = trials.filter_map(|trial| trial.score().map(|score| score.value)).collect();
    scores.len() > 1 && mean_interval(&scores).is_none_or(|interval| 100.0 * interval.relative() > within)
}

/// The programs of the user's own that have a score.
fn programs(score: &Score) -> Result<Vec<Program>> {
    let Some(path) = &score.programs else { return Ok(Vec::new()) };
    let mut programs = briefing::read_programs(SourceFile::read(path)?)?;
    programs.retain(|program| program.score.is_some());
    if programs.is_empty() {
        return Err(BadInput(scoring::no_scored_program(path.display())).into());
    }
    Ok(programs)
}

fn warn_of_others(linux: &Linux) {
    let others = linux.busy_programs(WATCHING);
    let busy: Vec<String> = others
        .into_iter()
        .filter(|(_, share)| *share >= WORTH_A_WORD)
        .map(|(name, share)| format!("{name} ({share:.0} %)"))
        .collect();
    if busy.is_empty() {
        say(scoring::NOBODY_ELSE);
    } else {
        say(scoring::others_busy(busy.join(", ")));
    }
}

/// One stage a benchmark, so that each is repeated as often as it needs.
fn plan_text(score: &Score, names: &[String], programs: &[Program]) -> String {
    let mut text = PlanText::new("score", "prove.rig.toml", SCORING);
    for name in names {
        let threads = score.threads.unwrap_or(Threads::All);
        // A program is run once a repetition where nobody says how long.
        let limit = programs.iter().find(|program| program.name == *name).map(|program| program.limit);
        let times = limit.filter(|_| score.length.is_none()).map(|_| 1);
        let length = score.length.or(limit).unwrap_or(Span::from_seconds(3));
        let pass = Pass { threads, demand: Demand { times, ..Demand::default() }, ..Pass::usual(name, length) };
        text.add_proof(name, &[pass]);
    }
    programs.iter().for_each(|program| text.add_program(program));
    for name in names {
        let within = format!("{}%", score.within);
        let (repeats, proof) = (i64::from(score.repeats).into(), name.as_str().into());
        let strategy = "baseline".into();
        text.add_stage(
            "",
            &[("strategy", strategy), ("proof", proof), ("repeats", repeats), ("within", within.into())],
        );
    }
    text.text()
}

/// One line a benchmark: value, how far it may be off, spread, how often it was measured, and the kernel.
fn table(story: &Story, names: &[String]) -> String {
    let lines = names.iter().enumerate().map(|(stage, name)| {
        let reports: Vec<_> = story
            .trials
            .iter()
            .filter(|trial| trial.stage == stage)
            .filter_map(|trial| trial.passes.last()?.report.as_ref())
            .collect();
        let scores: Vec<&Measured> = reports.iter().filter_map(|report| report.score.as_ref()).collect();
        let Some(first) = scores.first() else { return scoring::no_score(name) };
        let values: Vec<f64> = scores.iter().map(|score| score.value).collect();
        let workload = reports.iter().find_map(|report| report.workload.as_ref());
        let what = workload.map(|work| scoring::workload(grouped(work.size.into()), &work.size_name, &work.kernel));
        let lowest = values.iter().copied().fold(f64::INFINITY, f64::min);
        let highest = values.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        let interval = mean_interval(&values);
        let mean = interval.map_or(first.value, |interval| interval.mean);
        let off = interval.map_or("?".into(), |interval| format!("{:.1} %", 100.0 * interval.relative()));
        scoring::one_score(
            name,
            scored(mean, mean),
            &first.unit,
            &off,
            scored(lowest, mean),
            scored(highest, mean),
            values.len(),
            what.unwrap_or_default(),
        )
    });
    let head = format!("{:<20} {:>10} {:<10} {:<9} {:>9}", "benchmark", "mean", "", "95 %", scoring::SPREAD);
    std::iter::once(head).chain(lines).collect::<Vec<_>>().join("\n")
}
