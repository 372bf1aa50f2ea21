//! `periculum report`: a climb on paper, whole or in one picture.

use std::fs;
use std::process::ExitCode;

use anyhow::{Context, Result};
use periculum_charts::{Figure, Reported, comparison, report_markdown, report_pdf, sheet};
use periculum_core::analysis::contrast::{Fact, facts_of_climb};
use periculum_core::story::Story;
use periculum_ledger::Ledger;

use super::date;
use crate::briefing::Briefing;
use crate::cli::{Common, Pictured, Report};
use crate::climbing::{open_ledger, recall_to_look, tell_past};
use crate::complaint::BadInput;
use crate::pictures::{self, Drawn};
use crate::places;

pub(super) fn run(report: &Report, common: &Common) -> Result<ExitCode> {
    let ending = pictures::ending(&report.output);
    if !["svg", "pdf", "md"].contains(&ending) {
        let name = report.output.display();
        return Err(BadInput(format!("can't tell what {name} is to be; end it in .pdf, .svg or .md")).into());
    }
    let picture = report.picture.or((ending == "svg").then_some(Pictured::Ascent));
    refuse_idle_options(report, picture)?;
    let ledger = open_ledger(&places::ledger_to_read(common)?)?;
    match picture {
        Some(picture) => pictures::write(&drawn(report, picture, &ledger)?, &report.output)?,
        None => write_whole(report, &ledger)?,
    }
    Ok(ExitCode::SUCCESS)
}

/// An option that the picture has no use for was meant for another one.
fn refuse_idle_options(report: &Report, picture: Option<Pictured>) -> Result<()> {
    let given = [
        (!report.trial.is_empty(), "--trial is for --picture traces", Pictured::Traces),
        (report.benchmark.is_some(), "--benchmark is for --picture scores", Pictured::Scores),
        (!report.with.is_empty(), "--with is for --picture compare", Pictured::Compare),
    ];
    match given.into_iter().find(|(is_given, _, of)| *is_given && picture != Some(*of)) {
        Some((_, what, _)) => Err(BadInput(format!("{what}; leave it out, or ask for that picture")).into()),
        None => Ok(()),
    }
}

fn write_whole(report: &Report, ledger: &Ledger) -> Result<()> {
    let row = ledger.climb(report.climb)?;
    let Briefing { rig, plan, .. } = recall_to_look(ledger, &row)?;
    let (story, traces) = (tell_past(&ledger.lines(report.climb)?), ledger.samples(report.climb)?);
    let reported = Reported {
        number: row.climb,
        seed: row.seed,
        begun: &date(row.wall),
        story: &story,
        rig: &rig,
        plan: &plan,
        traces: &traces,
        digest: ledger.digest(report.climb)?,
        version: env!("CARGO_PKG_VERSION"),
    };
    let blocks = reported.blocks()?;
    let bytes = match pictures::ending(&report.output) {
        "md" => report_markdown(&blocks).into_bytes(),
        _ => report_pdf(&reported.title(), &blocks, row.wall)?,
    };
    fs::write(&report.output, bytes).with_context(|| format!("can't write {}", report.output.display()))
}

fn drawn(report: &Report, picture: Pictured, ledger: &Ledger) -> Result<Figure> {
    if picture == Pictured::Compare {
        return compared(report, ledger);
    }
    let row = ledger.climb(report.climb)?;
    let Briefing { rig, plan, .. } = recall_to_look(ledger, &row)?;
    let (story, traces) = (tell_past(&ledger.lines(report.climb)?), ledger.samples(report.climb)?);
    let drawn = Drawn { story: &story, rig: &rig, plan: &plan, traces: &traces };
    match picture {
        Pictured::Map => drawn.map(),
        Pictured::Scores => drawn.scores(report.benchmark.as_deref()),
        Pictured::Traces => drawn.traces_of(&report.trial),
        Pictured::Cores => drawn.cores(),
        Pictured::Ascent | Pictured::Compare => drawn.ascent(),
    }
}

fn compared(report: &Report, ledger: &Ledger) -> Result<Figure> {
    if report.with.is_empty() {
        return Err(BadInput("nothing to compare with; name other climbs, as in --with 2,5".into()).into());
    }
    let numbers: Vec<i64> = std::iter::once(report.climb).chain(report.with.iter().copied()).collect();
    let side = |number: &i64| -> Result<Vec<Fact>> {
        let row = ledger.climb(*number)?;
        let Briefing { rig, plan, .. } = recall_to_look(ledger, &row)?;
        let story: Story = tell_past(&ledger.lines(*number)?);
        Ok(facts_of_climb(&story, &rig, &plan, &ledger.samples(*number)?))
    };
    let sides: Vec<Vec<Fact>> = numbers.iter().map(side).collect::<Result<_>>()?;
    let titles: Vec<String> = numbers.iter().map(|number| format!("climb {number}")).collect();
    let sides: Vec<&[Fact]> = sides.iter().map(Vec::as_slice).collect();
    Ok(sheet(&comparison(&titles, &sides))?)
}
