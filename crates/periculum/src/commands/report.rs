//! `periculum report`: a climb on paper, whole or in one picture.

use std::process::ExitCode;

use anyhow::Result;
use periculum_charts::{Figure, comparison, sheet};
use periculum_core::analysis::contrast::{Fact, facts_of_climb};
use periculum_core::story::Story;
use periculum_ledger::Ledger;

use crate::briefing::Briefing;
use crate::cli::{Common, Pictured, Report};
use crate::climbing::open_ledger;
use crate::complaint::BadInput;
use crate::handing_out::{form, hand_out};
use crate::pictures::{self, Drawn};
use crate::recalling::{recall_to_look, tell_past};
use crate::telling::files;
use crate::{bundle, places, reports};

pub(super) fn run(report: &Report, common: &Common) -> Result<ExitCode> {
    if let Some(file) = &report.bundle {
        let ledger = open_ledger(&places::ledger_to_read(common)?)?;
        hand_out(file, &bundle::of(&ledger, report.climb)?)?;
        return Ok(ExitCode::SUCCESS);
    }
    let Some(output) = &report.output else { return Err(BadInput(files::NO_FILE_FOR_REPORT.into()).into()) };
    let usual = if report.picture.is_some() { "svg" } else { "md" };
    let form = form(output, report.written_as.as_deref(), usual);
    if !["svg", "pdf", "md", "html"].contains(&form) {
        let name = output.display();
        return Err(BadInput(files::report_ending(&name)).into());
    }
    let picture = report.picture.or((form == "svg").then_some(Pictured::Ascent));
    refuse_idle_options(report, picture)?;
    if report.text && form != "svg" {
        return Err(BadInput(files::TEXT_IS_FOR_SVG.into()).into());
    }
    let ledger = open_ledger(&places::ledger_to_read(common)?)?;
    match picture {
        Some(picture) if report.text => {
            hand_out(output, drawn(report, picture, &ledger)?.svg_with_text().as_bytes())?;
        }
        Some(picture) => pictures::write_as(&drawn(report, picture, &ledger)?, output, form)?,
        None => {
            let begun = super::date(ledger.climb(report.climb)?.wall);
            hand_out(output, &reports::report(&ledger, report.climb, form, &begun)?)?;
        }
    }
    Ok(ExitCode::SUCCESS)
}

/// An option that the picture has no use for was meant for another one.
fn refuse_idle_options(report: &Report, picture: Option<Pictured>) -> Result<()> {
    let given = [
        (!report.trial.is_empty(), files::TRIAL_IS_FOR_TRACES, [Pictured::Traces; 2]),
        (report.benchmark.is_some(), files::BENCHMARK_IS_FOR_SCORES, [Pictured::Scores; 2]),
        (report.over.is_some(), files::OVER_IS_FOR_SCORES_AND_MAP, [Pictured::Scores, Pictured::Map]),
        (report.against.is_some(), files::AGAINST_IS_FOR_MAP, [Pictured::Map; 2]),
        (!report.with.is_empty(), files::WITH_IS_FOR_COMPARE, [Pictured::Compare; 2]),
    ];
    match given.into_iter().find(|(is_given, _, of)| *is_given && !picture.is_some_and(|it| of.contains(&it))) {
        Some((_, what, _)) => Err(BadInput(files::leave_out(what)).into()),
        None => Ok(()),
    }
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
        Pictured::Map => drawn.map([report.over.as_deref(), report.against.as_deref()], None),
        Pictured::Scores => drawn.scores(report.benchmark.as_deref(), report.over.as_deref()),
        Pictured::Traces => drawn.traces_of(&report.trial),
        Pictured::Cores => drawn.cores(),
        Pictured::Ascent | Pictured::Compare => drawn.ascent(),
    }
}

fn compared(report: &Report, ledger: &Ledger) -> Result<Figure> {
    if report.with.is_empty() {
        return Err(BadInput(files::NOTHING_TO_COMPARE.into()).into());
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
