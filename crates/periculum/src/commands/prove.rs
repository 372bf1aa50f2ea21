//! `periculum prove`: a climb of one trial that changes nothing.

use std::collections::BTreeMap;
use std::io::IsTerminal;
use std::path::{Path, PathBuf};
use std::process::ExitCode;

use anyhow::Result;
use periculum_core::files::written::PlanText;
use periculum_core::model::moment::Span;
use periculum_core::model::pass::{Demand, Extent, Pass, StopOn};
use periculum_core::model::program::Program;

use super::{LEDGER, as_it_is, climb};
use crate::briefing::{self, Briefing, SourceFile};
use crate::cli::{Common, Output, Prove, WhenToStop};
use crate::climbing::{PROVING, Prepared, open_ledger};
use crate::{headless, places};

/// The proofs that have a name, each a file.
const PROOFS: [(&str, &str); 3] = [
    ("glance", include_str!("../proofs/glance.proof.toml")),
    ("firm", include_str!("../proofs/firm.proof.toml")),
    ("soak", include_str!("../proofs/soak.proof.toml")),
];

/// How long a single load runs where nobody says.
const USUAL_LENGTH: Span = Span::from_seconds(300);

pub(super) fn run(prove: &Prove, common: &Common) -> Result<ExitCode> {
    let rig = as_it_is::rig(prove.rig.as_deref(), &common.sysroot)?;
    let (name, passes) = proof(prove)?;
    let plan = SourceFile { path: PathBuf::from("prove.plan.toml"), text: plan_text(&name, &passes) };
    let briefing = Briefing::of(rig, plan)?;
    let ledger = open_ledger(&places::ledger(common, LEDGER)?)?;
    let prepared = Prepared::new(briefing, ledger, &common.sysroot, None)?;
    if prove.json || prove.headless || prove.rounds || !std::io::stdout().is_terminal() {
        return headless::drive(
            prepared,
            &Output { headless: true, json: prove.json, rounds: prove.rounds, answers: None },
            None,
        );
    }
    climb::show(prepared, common, None)
}

/// The proof that is asked for: its name and its passes.
fn proof(prove: &Prove) -> Result<(String, Vec<Pass>)> {
    let (name, mut passes) = match &prove.load {
        Some(load) => {
            let demand = Demand { stop_on: StopOn::Never, ..Demand::default() };
            (load.clone(), vec![Pass { demand, ..Pass::usual(load, USUAL_LENGTH) }])
        }
        None => named(&prove.proof)?,
    };
    if let Some(length) = prove.length {
        share(length, &mut passes);
    }
    passes.iter_mut().for_each(|pass| demand(prove, pass));
    Ok((name, passes))
}

fn named(proof: &str) -> Result<(String, Vec<Pass>)> {
    if let Some((name, text)) = PROOFS.iter().find(|(name, _)| *name == proof) {
        let file = SourceFile { path: format!("{name}.proof.toml").into(), text: (*text).to_owned() };
        let mut passes = briefing::read_proof(file)?;
        // How often a machine is wrong, and where, is worth knowing once it is being proved as it is.
        passes.iter_mut().for_each(|pass| pass.demand.stop_on = StopOn::Never);
        return Ok(((*name).to_owned(), passes));
    }
    let path = Path::new(proof);
    let stem = path.file_name().map_or(proof.into(), |name| name.to_string_lossy());
    let name = stem.trim_end_matches(".toml").trim_end_matches(".proof").to_owned();
    Ok((name, briefing::read_proof(SourceFile::read(path)?)?))
}

/// Lets passes share this time as they share their own.
fn share(length: Span, passes: &mut [Pass]) {
    let whole: Span = passes.iter().map(|pass| pass.length).sum();
    for pass in passes {
        let share = pass.length.seconds() / whole.seconds();
        pass.length = Span::from_millis(((length.millis() as f64 * share).round() as u64).max(1));
    }
}

/// What the command line asks for goes before what the proof does.
fn demand(prove: &Prove, pass: &mut Pass) {
    if let Some(threads) = prove.threads {
        pass.threads = threads;
    }
    pass.device = prove.device.clone().or(pass.device.take());
    let demand = &mut pass.demand;
    demand.times = prove.times.or(demand.times);
    demand.reserve = prove.reserve.or(demand.reserve);
    demand.priority = prove.priority.or(demand.priority);
    if let Some(extent) = prove.memory.map(Extent::Memory).or(prove.size.map(Extent::Size)) {
        demand.extent = extent;
    }
    demand.stop_on = match prove.stop_on {
        Some(WhenToStop::First) => StopOn::First,
        Some(WhenToStop::Never) => StopOn::Never,
        None => demand.stop_on,
    };
}

fn plan_text(name: &str, passes: &[Pass]) -> String {
    let mut text = PlanText::new("prove", "prove.rig.toml", PROVING);
    text.add_proof(name, passes);
    let programs: BTreeMap<&str, &Program> =
        passes.iter().filter_map(|pass| Some((pass.load.as_str(), pass.program.as_deref()?))).collect();
    programs.into_values().for_each(|program| text.add_program(program));
    text.add_stage("", &[("strategy", "baseline".into()), ("proof", name.into())]);
    text.text()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_named_proof_can_be_read_and_is_as_long_as_the_help_says() {
        for (name, minutes) in [("glance", 5), ("firm", 60), ("soak", 480)] {
            let (_, passes) = named(name).expect("a proof");
            let whole: Span = passes.iter().map(|pass| pass.length).sum();
            assert_eq!(whole, Span::from_seconds(minutes * 60), "{name}");
        }
    }

    #[test]
    fn passes_share_a_given_time_as_their_own() {
        let mut passes = [1, 2, 1].map(|minutes| Pass::usual("dense", Span::from_seconds(60 * minutes)));
        share(Span::from_seconds(10), &mut passes);
        assert_eq!(passes.map(|pass| pass.length.millis()), [2500, 5000, 2500]);
    }
}
