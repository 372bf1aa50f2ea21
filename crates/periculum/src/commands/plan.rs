//! `periculum plan`: writes a plan in the interface, and climbs it from there.

use std::io::IsTerminal;
use std::path::Path;
use std::process::ExitCode;

use anyhow::Result;
use periculum_core::files::written::PlanText;
use periculum_core::model::moment::Span;
use periculum_core::model::pass::Pass;

use super::{LEDGER, climb};
use crate::briefing::{SourceFile, read_rig_file};
use crate::cli::{Common, Plan};
use crate::climbing::{Prepared, saved_in};
use crate::complaint::BadInput;
use crate::places;
use crate::telling::{files, starting};
use crate::tui::{self, Draft, Library};

pub(super) fn run(plan: &Plan, common: &Common) -> Result<ExitCode> {
    let Plan { plan: path, rig } = plan;
    let fresh = match rig {
        _ if path.exists() => None,
        Some(rig) => Some(beginning(path, rig)?),
        None => {
            let what = files::no_plan_there(path.display());
            return Err(BadInput(what).into());
        }
    };
    let ledger = places::ledger(common, LEDGER)?;
    let draft = Draft::of_file(path, fresh, &saved_in(&ledger))?;
    if !std::io::stdout().is_terminal() {
        let what = files::edits_in_terminal(path.display());
        return Err(BadInput(what).into());
    }
    match tui::write(draft, Library::at(ledger.clone()))? {
        Some(wanted) => climb::show(Prepared::of(&wanted, &ledger, &common.sysroot, None)?, common, None),
        None => Ok(ExitCode::SUCCESS),
    }
}

/// A plan to begin with: know the rig, find the limit of its first setting, and prove a rung a margin below.
fn beginning(plan: &Path, rig_path: &Path) -> Result<String> {
    let (rig, _) = read_rig_file(SourceFile::read(rig_path)?)?;
    let movable = rig.settings.iter().find_map(|setting| Some((setting, setting.ceilings.keys().next()?)));
    let Some((setting, use_name)) = movable else {
        let what = files::nothing_to_climb(rig_path.display());
        return Err(BadInput(what).into());
    };
    let folder = plan.parent().unwrap_or(Path::new("."));
    // Beside the plan the rig is named as a plan that moves with it should name it.
    let named = rig_path.strip_prefix(folder).map_or_else(|_| std::path::absolute(rig_path), |path| Ok(path.into()))?;
    let name = plan.file_name().and_then(|name| name.to_str()).unwrap_or("plan");
    let name = name.trim_end_matches(".toml").trim_end_matches(".plan").replace(['-', '_'], " ");
    let mut text = PlanText::new(&name, &named.display().to_string(), use_name);
    let pass = |load: &str, seconds| Pass::usual(load, Span::from_seconds(seconds));
    text.add_proof("quick", &[pass("integer", 20), pass("dense", 90)]);
    text.add_proof("long", &[pass("dense", 3600), pass("transform", 3600)]);
    let strategy = |name: &str| ("strategy", name.into());
    let proof = |name: &str| ("proof", name.into());
    let moves = || ("setting", setting.name.as_str().into());
    let save = ("save", use_name.as_str().into());
    let known = [strategy("baseline"), proof("quick"), ("repeats", 3.into())];
    text.add_stage(starting::TO_KNOW, &known);
    text.add_stage(starting::TO_FIND, &[strategy("seek"), moves(), proof("quick")]);
    let kept = [strategy("soak"), moves(), ("margin", 1.into()), proof("long"), save];
    text.add_stage(starting::TO_PROVE, &kept);
    Ok(text.text())
}
