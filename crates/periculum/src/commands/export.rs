//! `periculum export`: what a climb found, for other programs.

use std::collections::BTreeMap;
use std::fs::File;
use std::io::{self, BufWriter, Write};
use std::process::ExitCode;
use std::sync::Arc;

use anyhow::{Context, Result};
use periculum_charts::{Cell, Table, incidents, open_metrics, samples, scores, telemetry, trials};
use periculum_core::model::rig::Rig;
use periculum_core::story::Story;
use periculum_core::story::series::Series;
use periculum_ledger::{ClimbRow, Ledger};

use crate::cli::{Common, Export, Exported};
use crate::climbing::open_ledger;
use crate::complaint::BadInput;
use crate::handing_out::{form, goes_to_standard_output};
use crate::places;
use crate::recalling::{recall_to_look, tell_past};
use crate::telling::files;

pub(super) fn run(export: &Export, common: &Common) -> Result<ExitCode> {
    let Export { climb, what, output, written_as } = export;
    let usual = if *what == Exported::Marks { "om" } else { "csv" };
    let form = form(output, written_as.as_deref(), usual);
    let known: &[&str] = match what {
        Exported::Marks => &["om"],
        Exported::Samples => &["csv", "jsonl", "om"],
        Exported::Trials | Exported::Scores | Exported::Incidents => &["csv", "jsonl"],
    };
    if !known.contains(&form) {
        let (name, known) = (output.display(), known.join(" or ."));
        return Err(BadInput(files::unknown_ending(&name, &known)).into());
    }
    let ledger = open_ledger(&places::ledger_to_read(common)?)?;
    let recalled = climb.iter().map(|number| Recalled::of(&ledger, *number, *what)).collect::<Result<Vec<_>>>()?;
    let [first, others @ ..] = recalled.as_slice() else { return Ok(ExitCode::SUCCESS) };
    if !others.is_empty() && matches!(what, Exported::Samples | Exported::Marks) {
        return Err(BadInput(files::ONE_AT_A_TIME.to_owned()).into());
    }
    let table = match first.table(*what) {
        Some(_) if !others.is_empty() => Some(joined(&recalled, *what)),
        table => table,
    };
    let tell = || files::cannot_write(output.display());
    let mut file: Box<dyn Write> = match goes_to_standard_output(output) {
        true => Box::new(BufWriter::new(io::stdout())),
        false => Box::new(BufWriter::new(File::create(output).with_context(tell)?)),
    };
    let Recalled { row, rig, story, readings } = first;
    match (table, form) {
        (None, _) => file.write_all(open_metrics(story, rig, row.climb).as_bytes()),
        (Some(_), "om") => telemetry(&mut file, story, readings, rig, row.climb, row.wall),
        (Some(table), "csv") => table.write_csv(&mut file),
        (Some(table), _) => table.write_json_lines(&mut file),
    }
    .and_then(|()| file.flush())
    // Nobody reading is no reason to complain.
    .or_else(|error| if error.kind() == io::ErrorKind::BrokenPipe { Ok(()) } else { Err(error) })
    .with_context(tell)?;
    Ok(ExitCode::SUCCESS)
}

/// A climb as it is exported.
struct Recalled {
    row: ClimbRow,
    rig: Arc<Rig>,
    story: Story,
    readings: BTreeMap<String, Series>,
}

impl Recalled {
    fn of(ledger: &Ledger, number: i64, what: Exported) -> Result<Self> {
        let row = ledger.climb(number)?;
        let rig = recall_to_look(ledger, &row)?.rig;
        let story = tell_past(&ledger.lines(number)?);
        let has_readings = matches!(what, Exported::Samples | Exported::Trials);
        let readings = if has_readings { ledger.samples(number)? } else { BTreeMap::new() };
        Ok(Self { row, rig, story, readings })
    }

    /// The table of what is wanted; none where that is no table.
    fn table(&self, what: Exported) -> Option<Table<'_>> {
        Some(match what {
            Exported::Trials => trials(&self.story, &self.rig, &self.readings),
            Exported::Scores => scores(&self.story),
            Exported::Incidents => incidents(&self.story),
            Exported::Samples => samples(&self.story, &self.readings, &self.rig),
            Exported::Marks => return None,
        })
    }
}

/// One table of several climbs, each row with the climb, its rig and its specimen before it.
fn joined(climbs: &[Recalled], what: Exported) -> Table<'_> {
    let marked = |one: &'_ Recalled| -> Vec<Cell> {
        vec![
            Cell::Number(one.row.climb.to_string()),
            Cell::Text(one.row.rig.clone()),
            Cell::Text(one.row.specimen.clone()),
        ]
    };
    let tables = climbs.iter().filter_map(|one| Some((marked(one), one.table(what)?)));
    Table::joined(&["climb", "rig", "specimen"], tables.collect())
}
