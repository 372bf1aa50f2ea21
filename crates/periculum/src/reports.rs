//! The report of a climb, as the ending of its file says.

use std::path::Path;

use anyhow::Result;
use periculum_charts::{Reported, report_html, report_markdown, report_pdf};
use periculum_ledger::Ledger;

use crate::briefing::Briefing;
use crate::commands::date;
use crate::handing_out::{ending, hand_out};
use crate::recalling::{recall_to_look, tell_past};

/// Writes the report of a climb into a file.
///
/// # Errors
/// Where the climb can't be read, or the file can't be written.
pub(crate) fn write(ledger: &Ledger, climb: i64, path: &Path) -> Result<()> {
    let begun = date(ledger.climb(climb)?.wall);
    hand_out(path, &report(ledger, climb, ending(path), &begun)?)
}

/// The report of a climb in this form, which began then, as dates are written.
///
/// # Errors
/// Where the climb can't be read.
pub(crate) fn report(ledger: &Ledger, climb: i64, form: &str, begun: &str) -> Result<Vec<u8>> {
    let row = ledger.climb(climb)?;
    let Briefing { rig, plan, .. } = recall_to_look(ledger, &row)?;
    let (story, traces) = (tell_past(&ledger.lines(climb)?), ledger.samples(climb)?);
    let reported = Reported {
        number: row.climb,
        seed: row.seed,
        begun,
        story: &story,
        rig: &rig,
        plan: &plan,
        traces: &traces,
        digest: ledger.digest(climb)?,
        version: env!("CARGO_PKG_VERSION"),
    };
    let blocks = reported.blocks()?;
    Ok(match form {
        "md" => report_markdown(&blocks).into_bytes(),
        "html" => report_html(&reported.title(), &blocks).into_bytes(),
        _ => report_pdf(&reported.title(), &blocks, row.wall)?,
    })
}
