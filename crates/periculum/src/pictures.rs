//! Pictures of a climb: for the command that writes them, and for the views that show the same.

use std::collections::BTreeMap;
use std::fs::File;
use std::path::Path;

use anyhow::{Context, Result, bail};
use periculum_charts::{Figure, Table, ascent, map, places, score_curve, sheet, traces, traces_over};
use periculum_core::analysis::over::Over;
use periculum_core::analysis::scores::{Benchmark, benchmarks_over, family};
use periculum_core::analysis::terrain::Terrain;
use periculum_core::model::moment::{Moment, Span};
use periculum_core::model::plan::Plan;
use periculum_core::model::rig::Rig;
use periculum_core::story::Story;
use periculum_core::story::profile::AscentProfile;
use periculum_core::story::series::Series;
use periculum_core::story::stretch::Stretch;
use periculum_core::telling::beside_words;

use crate::complaint::BadInput;
use crate::handing_out::{ending, hand_out};
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

    /// The map over these two settings, across and up; those that the plan moves where one is not named;
    /// of the plane of this trial.
    pub(crate) fn map(&self, [across, up]: [Option<&str>; 2], plane: Option<u32>) -> Result<Figure> {
        if across.is_some() && across == up {
            return Err(nothing(pictures::TWICE_THE_SAME).into());
        }
        let mut sides = Terrain::usual(self.rig, self.plan).ok_or_else(|| nothing(pictures::NO_MAP))?;
        let known = || self.rig.settings.iter().map(|it| it.name.as_str()).collect::<Vec<_>>().join(", ");
        for (side, name) in [(0, across), (1, up)] {
            let Some(name) = name else { continue };
            self.rig.setting(name).ok_or_else(|| nothing(pictures::no_such_axis(name, known())))?;
            // What was on the other side changes places with it.
            if sides[1 - side] == name {
                sides.swap(0, 1);
            }
            name.clone_into(&mut sides[side]);
        }
        let terrain = Terrain::of(self.story, self.rig, self.plan, &sides, plane);
        Ok(map(&terrain.ok_or_else(|| nothing(pictures::NO_MAP))?)?)
    }

    /// The curves of a benchmark, by its load; of the last one where none is named.
    pub(crate) fn scores(&self, load: Option<&str>, over: Option<&str>) -> Result<Figure> {
        let over = self.axis(over)?;
        let all = self.benchmarks(over);
        let known = || all.iter().map(|benchmark| benchmark.what.load.as_str()).collect::<Vec<_>>().join(", ");
        let of_load = |load: &str| (0..all.len()).filter(|at| all[*at].what.load == load).collect::<Vec<_>>();
        let at = match load {
            Some(load) => {
                let longest = of_load(load).into_iter().max_by_key(|at| all[*at].levels.len());
                longest.ok_or_else(|| nothing(pictures::no_scores(load, known())))?
            }
            None => all.len().checked_sub(1).ok_or_else(|| nothing(pictures::NO_BENCHMARK))?,
        };
        self.family_of(&all, at, over)
    }

    /// The curve of the benchmark at this place, and its family.
    pub(crate) fn curve(&self, at: usize, over: Option<&str>) -> Result<Figure> {
        let over = self.axis(over)?;
        self.family_of(&self.benchmarks(over), at, over)
    }

    fn axis(&self, name: Option<&str>) -> Result<Over<'_>> {
        let usual = || Over::usual(self.rig, self.plan).ok_or_else(|| nothing(pictures::NO_CURVE));
        let Some(name) = name else { return Ok(usual()?) };
        let known =
            || Over::choices(self.rig, self.plan, self.story).iter().map(Over::name).collect::<Vec<_>>().join(", ");
        Over::named(self.rig, name).ok_or_else(|| nothing(pictures::no_such_axis(name, known())).into())
    }

    fn benchmarks(&self, over: Over) -> Vec<Benchmark> {
        benchmarks_over(self.story, self.rig, self.plan, self.traces, Some(over))
    }

    fn family_of(&self, all: &[Benchmark], at: usize, over: Over) -> Result<Figure> {
        let benchmark = all.get(at).ok_or_else(|| nothing(pictures::NO_BENCHMARK))?;
        let family = family(all, &benchmark.what);
        let shown = family.iter().position(|one| *one == benchmark).unwrap_or_default();
        let named: Vec<(String, &Benchmark)> =
            family.into_iter().map(|one| (beside_words(&one.beside, self.rig), one)).collect();
        Ok(score_curve(&named, shown, &over.axis())?)
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
    write_as(figure, path, ending(path))
}

/// The same in this form, whatever the file is called.
pub(crate) fn write_as(figure: &Figure, path: &Path, form: &str) -> Result<()> {
    let bytes = match form {
        "svg" => figure.svg().into_bytes(),
        "pdf" => figure.pdf()?,
        _ => {
            let name = path.display();
            return Err(nothing(pictures::picture_ending(&name)).into());
        }
    };
    hand_out(path, &bytes)
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

fn nothing(why: impl Into<String>) -> BadInput {
    BadInput(why.into())
}
