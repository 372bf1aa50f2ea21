//! This machine as it is: its sensors, or those of a rig file, and no setting.

use std::path::{Path, PathBuf};

use anyhow::Result;
use periculum_core::files::rig_text;
use periculum_core::model::rig::{Rig, Sensor};
use periculum_rigs::linux;

use crate::briefing::{self, SourceFile};
use crate::climbing::{PROVING_RIG, patiently};
use crate::complaint::BadInput;
use crate::telling::proving;

/// The rig file of a climb that changes nothing: the sensors, cut-offs and parts of a rig file, or every sensor that this
/// machine has, without a cut-off.
pub(super) fn rig(file: Option<&Path>, root: &Path) -> Result<SourceFile> {
    let text = match file {
        Some(path) => rig_text::as_it_is(&of_file(path)?),
        None => rig_text::as_it_is(&found(root)?),
    };
    Ok(SourceFile { path: PathBuf::from("prove.rig.toml"), text })
}

fn of_file(path: &Path) -> Result<Rig> {
    let file = SourceFile::read(path)?;
    let (rig, adapters) = briefing::read_rig_file(file)?;
    if !adapters.is_here() {
        let why = proving::only_this_machine(path.display());
        return Err(BadInput(why).into());
    }
    Ok(rig)
}

/// This machine with every sensor that was found. Nobody asked for a cut-off.
fn found(root: &Path) -> Result<Rig> {
    let built_in = |text: &str| SourceFile { path: PathBuf::from("prove.rig.toml"), text: text.to_owned() };
    let (usual, _) = briefing::read_rig_file(built_in(PROVING_RIG))?;
    // A machine of which nothing sensible can be said has the usual sensors.
    let root = root.to_owned();
    let text = patiently(move || linux::rig_text(&root))?;
    let Ok((found, _)) = briefing::read_rig_file(built_in(&text)) else { return Ok(usual) };
    let sensors =
        found.sensors.into_iter().map(|sensor| Sensor { cut_off: None, cut_off_below: None, ..sensor }).collect();
    Ok(Rig { sensors, parts: found.parts, ..usual })
}
