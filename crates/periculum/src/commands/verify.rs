//! `periculum verify`: whether what was handed on is whole and unchanged.

use std::process::ExitCode;

use anyhow::Result;
use serde_json::json;

use crate::bundle::{self, Directory};
use crate::cli::Verify;
use crate::complaint::FAILED;
use crate::output::{complain, hand_out, say};
use crate::telling::bundles;

pub(super) fn run(verify: &Verify) -> Result<ExitCode> {
    let path = verify.file.display();
    let found = bundle::verify(&verify.file)?;
    if verify.listing.json {
        let Directory { climb, plan, rig, digest, .. } = &found.directory;
        let (is_whole, wrong) = (found.wrong.is_empty(), &found.wrong);
        let told =
            json!({ "climb": climb, "plan": plan, "rig": rig, "digest": digest, "is_whole": is_whole, "wrong": wrong });
        hand_out(told.to_string());
        return Ok(if is_whole { ExitCode::SUCCESS } else { ExitCode::from(FAILED) });
    }
    found.wrong.iter().for_each(|why| complain(bundles::wrong_with(&path, why)));
    if !found.wrong.is_empty() {
        return Ok(ExitCode::from(FAILED));
    }
    let Directory { climb, plan, rig, begun, digest, .. } = &found.directory;
    say(bundles::whole(&path, climb, plan, rig, begun, digest));
    say(found.left_out.unwrap_or_else(|| bundles::ALL_MADE_ANEW.to_owned()));
    Ok(ExitCode::SUCCESS)
}
