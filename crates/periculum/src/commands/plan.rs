//! `periculum plan`: writes a plan in the interface, and climbs it from there.

use std::io::IsTerminal;
use std::path::Path;
use std::process::ExitCode;

use anyhow::Result;
use periculum_core::files::outline::quoted;

use super::{LEDGER, climb};
use crate::briefing::{SourceFile, read_rig_file};
use crate::cli::{Common, Plan};
use crate::climbing::Prepared;
use crate::complaint::BadInput;
use crate::places;
use crate::tui::{self, Draft, Library};

pub(super) fn run(plan: &Plan, common: &Common) -> Result<ExitCode> {
    let Plan { plan: path, rig } = plan;
    let fresh = match rig {
        _ if path.exists() => None,
        Some(rig) => Some(beginning(path, rig)?),
        None => {
            let what = format!("there is no {}; name the rig that a new plan is for, with --rig", path.display());
            return Err(BadInput(what).into());
        }
    };
    let draft = Draft::of_file(path, fresh)?;
    if !std::io::stdout().is_terminal() {
        let what = format!("`plan` needs a terminal; `periculum check {}` tells what it would do", path.display());
        return Err(BadInput(what).into());
    }
    let ledger = places::ledger(common, LEDGER)?;
    match tui::write(draft, Library::at(ledger.clone()))? {
        Some(wanted) => climb::show(Prepared::of(&wanted, &ledger, &common.sysroot, None)?, common, None, |_| true),
        None => Ok(ExitCode::SUCCESS),
    }
}

/// A plan to begin with: know the rig, find the limit of its first setting, and prove a rung a margin below.
fn beginning(plan: &Path, rig_path: &Path) -> Result<String> {
    let (rig, _) = read_rig_file(SourceFile::read(rig_path)?)?;
    let movable = rig.settings.iter().find_map(|setting| Some((setting, setting.ceilings.keys().next()?)));
    let Some((setting, use_name)) = movable else {
        let what = format!("no setting of {} has a ceiling, so there is nothing to climb", rig_path.display());
        return Err(BadInput(what).into());
    };
    let folder = plan.parent().unwrap_or(Path::new("."));
    // Beside the plan the rig is named as a plan that moves with it should name it.
    let named = rig_path.strip_prefix(folder).map_or_else(|_| std::path::absolute(rig_path), |path| Ok(path.into()))?;
    let name = plan.file_name().and_then(|name| name.to_str()).unwrap_or("plan");
    let name = name.trim_end_matches(".toml").trim_end_matches(".plan").replace(['-', '_'], " ");
    Ok(format!(
        "format = 1\n\n[plan]\nname = {}\nrig = {}\nuse = {}\n\n[proof.quick]\npasses = [\n    \
         {{ load = \"integer\", for = \"20s\" }},\n    {{ load = \"dense\", for = \"90s\" }},\n]\n\n[proof.long]\n\
         passes = [\n    {{ load = \"dense\", for = \"1h\" }},\n    {{ load = \"transform\", for = \"1h\" }},\n]\n\n\
         # To know the rig before anything is changed.\n[[stage]]\nstrategy = \"baseline\"\nrepeats = 3\n\
         proof = \"quick\"\n\n# To find the limit.\n[[stage]]\nstrategy = \"seek\"\nsetting = {setting}\n\
         proof = \"quick\"\n\n# To prove a rung for every day, a step below it.\n[[stage]]\nstrategy = \"soak\"\n\
         setting = {setting}\nmargin = 1\nproof = \"long\"\nsave = {use_name}\n",
        quoted(&name),
        quoted(&named.display().to_string()),
        quoted(use_name),
        setting = quoted(&setting.name),
        use_name = quoted(use_name),
    ))
}
