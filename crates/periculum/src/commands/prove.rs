//! `periculum prove`: a climb of one trial that changes nothing.

use std::path::PathBuf;
use std::process::ExitCode;

use anyhow::Result;
use periculum_core::moment::Span;

use super::LEDGER;
use crate::briefing::{Briefing, SourceFile};
use crate::cli::{Common, Output, Prove};
use crate::climbing::{PROVING, Prepared, open_ledger};
use crate::{headless, places};

const RIG: &str = include_str!("../prove.rig.toml");

pub(super) fn run(prove: &Prove, common: &Common) -> Result<ExitCode> {
    let rig = SourceFile { path: PathBuf::from("prove.rig.toml"), text: RIG.to_owned() };
    let plan = SourceFile { path: PathBuf::from("prove.plan.toml"), text: plan_text(prove.length) };
    let briefing = Briefing::of(rig, plan)?;
    let ledger = open_ledger(&places::ledger(common, LEDGER)?)?;
    let prepared = Prepared::new(briefing, ledger, &common.sysroot, None)?;
    headless::drive(prepared, &Output { headless: true, json: prove.json, answers: None }, None)
}

fn plan_text(length: Span) -> String {
    format!(
        "format = 1

[plan]
name = \"prove\"
rig = \"prove.rig.toml\"
use = \"{PROVING}\"

[proof.dense]
passes = [{{ load = \"dense\", for = \"{}ms\" }}]

[[stage]]
strategy = \"baseline\"
proof = \"dense\"
",
        length.millis()
    )
}
