//! `periculum report`: the ascent profile as a picture, or a short report, of one climb.

use std::fs;
use std::process::ExitCode;

use anyhow::{Context, Result};
use periculum_charts::{ascent_svg, report_markdown};
use periculum_core::profile::AscentProfile;

use super::LEDGER;
use crate::cli::{Common, Report};
use crate::climbing::{open_ledger, recall, tell_past};
use crate::complaint::BadInput;
use crate::places;

pub(super) fn run(report: &Report, common: &Common) -> Result<ExitCode> {
    let ending = report.output.extension().and_then(|ending| ending.to_str()).unwrap_or_default();
    if !["svg", "md"].contains(&ending) {
        let name = report.output.display();
        return Err(BadInput(format!("can't tell what {name} is to be; end it in .svg or .md")).into());
    }
    let ledger = open_ledger(&places::ledger(common, LEDGER)?)?;
    let row = ledger.climb(report.climb)?;
    let briefing = recall(&ledger, &row)?;
    let story = tell_past(&ledger.lines(report.climb)?);
    let text = match ending {
        "svg" => {
            let profile = AscentProfile::of(&story, &briefing.rig, &briefing.plan);
            let profile = profile
                .ok_or_else(|| BadInput(format!("climb {} moves no setting, so it has no profile", row.climb)))?;
            ascent_svg(&profile)?
        }
        _ => report_markdown(&story, &briefing.rig, &briefing.plan, row.climb, row.seed),
    };
    fs::write(&report.output, text).with_context(|| format!("can't write {}", report.output.display()))?;
    Ok(ExitCode::SUCCESS)
}
