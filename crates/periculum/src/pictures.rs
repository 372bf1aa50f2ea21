//! Pictures of a climb: for the command that writes them, and for the views that show the same.

use std::collections::BTreeMap;
use std::fs::{self, File};
use std::path::Path;

use anyhow::{Context, Result, bail};
use periculum_charts::{Figure, Table, ascent, map, places, score_curve, sheet, traces, traces_over};
use periculum_core::analysis::scores::benchmarks;
use periculum_core::analysis::terrain::Terrain;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::plan::Plan;
use periculum_core::model::rig::Rig;
use periculum_core::story::Story;
use periculum_core::story::profile::{AscentProfile, Axis};
use periculum_core::story::series::Series;
use periculum_core::story::stretch::Stretch;

use crate::complaint::BadInput;
use crate::telling::{files, pictures};

/// A climb that pictures are drawn of.
#[derive(Clone, Copy)]
pub(crate) struct Drawn<'a> {
    pub(crate) story: &'a Story,
    pub(crate) rig: &'a Rig,
    pub(crate) plan: &'a Plan,
    pub(crate) traces: &'a BTreeMap<String, Series>,
}

impl Drawn<'_> {
    pub(crate) fn ascent(&self) -> Result<Figure> {
        let profile = AscentProfile::of(self.story, self.rig, self.plan);
        Ok(ascent(&profile.ok_or_else(|| nothing(pictures::NO_PROFILE))?)?)
    }

    pub(crate) fn map(&self) -> Result<Figure> {
        let terrain = Terrain::of(self.story, self.rig, self.plan);
        Ok(map(&terrain.ok_or_else(|| nothing(pictures::NO_MAP))?)?)
    }

    /// The curve of a benchmark, by its load; of the last one where none is named.
    pub(crate) fn scores(&self, load: Option<&str>) -> Result<Figure> {
        let all = benchmarks(self.story, self.rig, self.plan, self.traces);
        let known = || all.iter().map(|benchmark| benchmark.what.load.as_str()).collect::<Vec<_>>().join(", ");
        let wanted =
            |load: &str| all.iter().filter(|one| one.what.load == load).max_by_key(|benchmark| benchmark.levels.len());
        let benchmark = match load {
            Some(load) => wanted(load).ok_or_else(|| nothing(pictures::no_scores(load, known())))?,
            None => all.last().ok_or_else(|| nothing(pictures::NO_BENCHMARK))?,
        };
        let setting = self.plan.climbed_setting().and_then(|name| self.rig.setting(name));
        let setting = setting.ok_or_else(|| nothing(pictures::NO_CURVE))?;
        Ok(score_curve(benchmark, &Axis { label: setting.label.clone(), unit: setting.unit.clone() })?)
    }

    /// What sensors read from one moment to another one.
    pub(crate) fn traces(&self, from: Moment, to: Moment) -> Result<Figure> {
        Ok(traces(self.traces, self.rig, self.story, from, to)?)
    }

    /// What sensors read in these trials, laid over each other; in one alone, or in the whole climb, with what went wrong.
    pub(crate) fn traces_of(&self, trials: &[u32]) -> Result<Figure> {
        if let [] | [_] = trials {
            let (from, to) = self.stretch(trials.first().copied())?;
            return self.traces(from, to);
        }
        let part = |number: &u32| self.stretch(Some(*number)).map(|(from, to)| (*number, Stretch { from, to }));
        self.traces_over(&trials.iter().map(part).collect::<Result<Vec<_>>>()?)
    }

    /// What sensors read in these trials, laid over each other.
    pub(crate) fn traces_over(&self, trials: &[(u32, Stretch)]) -> Result<Figure> {
        let parts: Vec<(String, Stretch)> =
            trials.iter().map(|(number, part)| (format!("trial {number}"), *part)).collect();
        Ok(traces_over(self.traces, self.rig, &parts)?)
    }

    /// The stretch of time of a trial, or of everything that was read.
    pub(crate) fn stretch(&self, trial: Option<u32>) -> Result<(Moment, Moment)> {
        let trials = &self.story.trials;
        if let Some(number) = trial {
            let index = (number as usize).checked_sub(1);
            let trial = index.and_then(|index| trials.get(index));
            let trial = trial.ok_or_else(|| nothing(pictures::no_such_trial(number, trials.len())))?;
            let end = trials.get(number as usize).map_or(self.story.latest, |next| next.began);
            return Ok((trial.began, end));
        }
        let spans = self.traces.values().filter_map(Series::span);
        let whole = spans.reduce(|(from, to), (begin, end)| (from.min(begin), to.max(end)));
        let (from, to) = whole.ok_or_else(|| nothing(pictures::NO_SENSOR))?;
        Ok((from, to + Span::from_millis(1)))
    }

    pub(crate) fn cores(&self) -> Result<Figure> {
        Ok(sheet(&places(self.story, self.rig))?)
    }
}

/// Writes a picture as what the file's ending says.
pub(crate) fn write(figure: &Figure, path: &Path) -> Result<()> {
    let bytes = match ending(path) {
        "svg" => figure.svg().into_bytes(),
        "pdf" => figure.pdf()?,
        _ => {
            let name = path.display();
            return Err(nothing(pictures::picture_ending(&name)).into());
        }
    };
    fs::write(path, bytes).with_context(|| files::cannot_write(path.display()))
}

/// Writes a table into a new file, as what its ending says.
pub(crate) fn write_table(table: Table, path: &Path) -> Result<()> {
    let ending = ending(path);
    if !["csv", "jsonl"].contains(&ending) {
        bail!(files::samples_ending(path.display()));
    }
    let tell = || files::cannot_write(path.display());
    let file = File::create_new(path).with_context(tell)?;
    if ending == "csv" { table.write_csv(file) } else { table.write_json_lines(file) }.with_context(tell)
}

/// What the file's name ends in.
pub(crate) fn ending(path: &Path) -> &str {
    path.extension().and_then(|ending| ending.to_str()).unwrap_or_default()
}

fn nothing(why: impl Into<String>) -> BadInput {
    BadInput(why.into())
}
