//! `periculum export`: what a climb found, for other programs.

use std::fs::File;
use std::io::{BufWriter, Write};
use std::process::ExitCode;

use anyhow::{Context, Result};
use periculum_charts::{incidents, open_metrics, samples, scores, telemetry, trials};

use crate::cli::{Common, Export, Exported};
use crate::climbing::{open_ledger, recall_to_look, tell_past};
use crate::complaint::BadInput;
use crate::places;
use crate::telling::files;

pub(super) fn run(export: &Export, common: &Common) -> Result<ExitCode> {
    let Export { climb, what, output } = export;
    let ending = output.extension().and_then(|ending| ending.to_str()).unwrap_or_default();
    let known: &[&str] = match what {
        Exported::Marks => &["om"],
        Exported::Samples => &["csv", "jsonl", "om"],
        Exported::Trials | Exported::Scores | Exported::Incidents => &["csv", "jsonl"],
    };
    if !known.contains(&ending) {
        let (name, known) = (output.display(), known.join(" or ."));
        return Err(BadInput(files::unknown_ending(&name, &known)).into());
    }
    let ledger = open_ledger(&places::ledger_to_read(common)?)?;
    let row = ledger.climb(*climb)?;
    let rig = recall_to_look(&ledger, &row)?.rig;
    let story = tell_past(&ledger.lines(*climb)?);
    let has_readings = matches!(what, Exported::Samples | Exported::Trials);
    let readings = if has_readings { ledger.samples(*climb)? } else { Default::default() };
    let tell = || files::cannot_write(output.display());
    let mut file = BufWriter::new(File::create(output).with_context(tell)?);
    let table = match what {
        Exported::Trials => Some(trials(&story, &rig, &readings)),
        Exported::Scores => Some(scores(&story)),
        Exported::Incidents => Some(incidents(&story)),
        Exported::Samples => Some(samples(&story, &readings, &rig)),
        Exported::Marks => None,
    };
    match (table, ending) {
        (None, _) => file.write_all(open_metrics(&story, &rig, *climb).as_bytes()),
        (Some(_), "om") => telemetry(&mut file, &story, &readings, &rig, *climb, row.wall),
        (Some(table), "csv") => table.write_csv(&mut file),
        (Some(table), _) => table.write_json_lines(&mut file),
    }
    .and_then(|()| file.flush())
    .with_context(tell)?;
    Ok(ExitCode::SUCCESS)
}
