//! Writes what a view shows into a file.

use std::fs::File;
use std::path::Path;

use anyhow::{Context, Result, bail};
use periculum_charts::{Table, comparison, sheet, trials};
use periculum_core::analysis::contrast::Fact;
use periculum_core::story::stretch::Stretch;

use super::App;
use crate::pictures::{self, Drawn};
use crate::tui::action::View;
use crate::tui::climbed::Climbed;
use crate::tui::telling;

impl App {
    /// The name that is proposed for the file of the shown view: one that is not taken, unless it is the plan's own.
    pub(super) fn name_of_file(&self) -> String {
        match self.draft.as_ref().filter(|_| self.view == View::Plan) {
            Some(draft) if draft.file().is_some() => draft.name(),
            Some(draft) => free(draft.name()),
            None => free(name_of_view(self)),
        }
    }

    /// Writes what the view shows into a file, and tells where.
    pub(in crate::tui) fn save(&mut self, name: &str) -> Result<String> {
        let path = Path::new(name);
        if let Some(draft) = self.draft.as_mut().filter(|_| self.view == View::Plan) {
            let told = draft.save(path)?;
            if self.shown.is_planned() {
                self.shown = Climbed::not_begun(&draft.briefing()?);
            }
            return Ok(told);
        }
        if path.exists() {
            bail!("{name} is there already, so nothing was written; give another name");
        }
        let Climbed { story, rig, plan, traces, .. } = &self.shown;
        if self.view == View::Trials {
            write_table(trials(story, rig, traces), path)?;
            return Ok(telling::written(name));
        }
        let drawn = Drawn { story, rig, plan, traces };
        let figure = match self.view {
            View::Map => drawn.map()?,
            View::Scores => {
                let benchmarks = self.benchmarks();
                let shown = benchmarks.get(self.benchmark_at(&benchmarks));
                drawn.scores(shown.map(|benchmark| benchmark.what.load.as_str()))?
            }
            View::Traces if !self.laid_over().is_empty() => drawn.traces_over(&self.laid_over())?,
            View::Traces => match self.stretch() {
                Some(Stretch { from, to }) => drawn.traces(from, to)?,
                None => bail!("no sensor was read yet"),
            },
            View::Compare => {
                let titles: Vec<String> = self.picks.iter().map(|picked| picked.title[0].clone()).collect();
                let sides: Vec<&[Fact]> = self.picks.iter().map(|picked| picked.facts.as_slice()).collect();
                sheet(&comparison(&titles, &sides))?
            }
            View::Climb if self.shows_cores => drawn.cores()?,
            _ => drawn.ascent()?,
        };
        pictures::write(&figure, path)?;
        Ok(telling::written(name))
    }
}

/// The name, or the first one like it with a number that nothing has.
fn free(name: String) -> String {
    let path = Path::new(&name);
    let file = path.file_name().unwrap_or_default().to_string_lossy();
    let (stem, ending) = file.split_once('.').unwrap_or((&file, ""));
    let numbered = (2..).map(|number| path.with_file_name(format!("{stem}-{number}.{ending}")).display().to_string());
    std::iter::once(name.clone()).chain(numbered).find(|name| !Path::new(name).exists()).unwrap_or(name)
}

fn name_of_view(app: &App) -> String {
    if app.view == View::Trials {
        return format!("climb-{}-trials.csv", app.shown.number);
    }
    let what = match app.view {
        View::Map => "map",
        View::Scores => "scores",
        View::Traces => "traces",
        View::Compare => "comparison",
        View::Climb if app.shows_cores => "cores",
        _ => "ascent",
    };
    format!("climb-{}-{what}.svg", app.shown.number)
}

/// Writes a table as what the file's ending says.
fn write_table(table: Table, path: &Path) -> Result<()> {
    let ending = pictures::ending(path);
    if !["csv", "jsonl"].contains(&ending) {
        bail!("can't tell what {} is to be; end it in .csv or .jsonl", path.display());
    }
    let tell = || format!("can't write {}", path.display());
    let file = File::create_new(path).with_context(tell)?;
    if ending == "csv" { table.write_csv(file) } else { table.write_json_lines(file) }.with_context(tell)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_name_that_is_taken_gets_a_number() {
        let folder = tempfile::tempdir().expect("a folder");
        let path = |name: &str| folder.path().join(name).display().to_string();
        assert_eq!(free(path("dome.plan.toml")), path("dome.plan.toml"));
        for taken in ["dome.plan.toml", "dome-2.plan.toml"] {
            std::fs::write(path(taken), "").expect("written");
        }
        assert!(free(path("dome.plan.toml")).ends_with("dome-3.plan.toml"));
    }
}
