//! The report of a climb, as the ending of its file says.

use std::fs;
use std::path::Path;

use anyhow::{Context, Result};
use periculum_charts::{Reported, report_markdown, report_pdf};
use periculum_ledger::Ledger;

use crate::briefing::Briefing;
use crate::commands::date;
use crate::pictures;
use crate::recalling::{recall_to_look, tell_past};
use crate::telling::files;

/// Writes the report of a climb.
///
/// # Errors
/// Where the climb can't be read, or the file can't be written.
pub(crate) fn write(ledger: &Ledger, climb: i64, path: &Path) -> Result<()> {
    let row = ledger.climb(climb)?;
    let Briefing { rig, plan, .. } = recall_to_look(ledger, &row)?;
    let (story, traces) = (tell_past(&ledger.lines(climb)?), ledger.samples(climb)?);
    let reported = Reported {
        number: row.climb,
        seed: row.seed,
        begun: &date(row.wall),
        story: &story,
        rig: &rig,
        plan: &plan,
        traces: &traces,
        digest: ledger.digest(climb)?,
        version: env!("CARGO_PKG_VERSION"),
    };
    let blocks = reported.blocks()?;
    let bytes = match pictures::ending(path) {
        "md" => report_markdown(&blocks).into_bytes(),
        _ => report_pdf(&reported.title(), &blocks, row.wall)?,
    };
    fs::write(path, bytes).with_context(|| files::cannot_write(path.display()))
}
