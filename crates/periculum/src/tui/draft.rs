//! A plan that is being written: its text, what of it can't be, and what it would do.

use std::fs::{self, File};
use std::io::{self, Write};
use std::path::{Path, PathBuf};

use anyhow::{Context, Result, anyhow, bail};
use periculum_core::analysis::forecast::{Forecast, forecast};
use periculum_core::files::Problem;
use periculum_core::files::outline::{self, CantChange, Line, LineKind};
use periculum_core::files::written::with_starts;
use periculum_core::model::rung::Rung;

use super::telling;
use super::travel::Travel;
use crate::briefing::{Briefing, SavedOf, SourceFile, rig_named};
use crate::complaint::BadFile;
use crate::telling::{drafts, files};

/// Where a plan is from, which says on which rig it is to be climbed.
#[derive(Clone, Debug)]
enum Source {
    /// A file of the user's, beside which its rig is; what was saved of that, its stages may start from.
    File(PathBuf, Vec<(String, Rung)>),
    /// A climb of the ledger, with its rig; what is written of it is another plan.
    Climb { number: i64, rig: SourceFile, written: Option<PathBuf> },
}

/// What a text means.
#[derive(Clone, Debug)]
pub(super) enum Meaning {
    /// A plan, what it would do, and what of it will come to nothing on this machine.
    Plan(Box<Briefing>, Box<Forecast>, Vec<String>),
    /// Nothing yet: what is wrong, each with the line it belongs to.
    Wrong(Vec<(Option<usize>, Problem)>),
}

/// A plan that is being written.
pub(crate) struct Draft {
    source: Source,
    text: String,
    /// As it is in its file, or in the record.
    saved: String,
    /// What was changed, the newest last, each with the line that was selected.
    before: Vec<(String, usize)>,
    pub(super) lines: Vec<Line>,
    at: usize,
    pub(super) meaning: Meaning,
    /// Why the last change was not made.
    pub(super) refusal: Option<String>,
}

impl Draft {
    /// The plan of this file; of this text where the file is still to be written.
    pub(crate) fn of_file(path: &Path, fresh: Option<String>, saved_of: SavedOf) -> Result<Self> {
        let (text, saved) = match fresh {
            Some(text) => (text, String::new()),
            None => SourceFile::read(path).map(|file| (file.text.clone(), file.text))?,
        };
        let rig = Briefing::without_plan(path, text.clone()).ok().map(|briefing| briefing.rig);
        let starts = rig.map(|rig| saved_of(&rig.name)).unwrap_or_default();
        Self::of(Source::File(path.to_owned(), starts), text, saved)
    }

    /// The plan of a climb of the ledger, as it was recorded.
    pub(super) fn of_climb(number: i64, rig_text: &str, plan_text: &str) -> Result<Self> {
        let rig = SourceFile { path: drafts::rig_of_climb(number).into(), text: rig_text.to_owned() };
        Self::of(Source::Climb { number, rig, written: None }, plan_text.to_owned(), plan_text.to_owned())
    }

    fn of(source: Source, text: String, saved: String) -> Result<Self> {
        let lines = outline::lines(&text)?;
        let meaning = mean(&source, &text, &lines)?;
        Ok(Self { source, text, saved, before: Vec::new(), lines, at: 0, meaning, refusal: None })
    }

    /// The rig with the plan as far as there is one: where it can't be read yet, one without stages.
    pub(super) fn briefing(&self) -> Result<Briefing> {
        match (&self.meaning, &self.source) {
            (Meaning::Plan(briefing, ..), _) => Ok((**briefing).clone()),
            (Meaning::Wrong(_), Source::File(path, _)) => Briefing::without_plan(path, self.text.clone()),
            (Meaning::Wrong(_), Source::Climb { .. }) => bail!(drafts::ALWAYS_READABLE),
        }
    }

    /// The file that it belongs to.
    pub(super) fn file(&self) -> Option<&Path> {
        match &self.source {
            Source::File(path, _) | Source::Climb { written: Some(path), .. } => Some(path),
            Source::Climb { written: None, .. } => None,
        }
    }

    /// Whose plan it is, in words.
    pub(super) fn whose(&self) -> String {
        match &self.source {
            Source::File(path, _) | Source::Climb { written: Some(path), .. } => path.display().to_string(),
            Source::Climb { number, .. } => telling::plan_of(*number, self.is_changed()),
        }
    }

    /// Whether it is the untouched plan of a climb, another than this one.
    pub(super) fn is_of_another(&self, climb: i64) -> bool {
        matches!(self.source, Source::Climb { number, .. } if number != climb) && !self.is_changed()
    }

    /// Whether there is something that is in no file.
    pub(super) fn is_changed(&self) -> bool {
        self.text != self.saved
    }

    /// Whether it could be climbed as it is in its file, on the rig that it names there.
    pub(super) fn is_ready(&self) -> bool {
        !self.is_changed() && matches!((&self.source, &self.meaning), (Source::File(..), Meaning::Plan(..)))
    }

    /// Which line is selected.
    pub(super) fn at(&self) -> usize {
        self.at.min(self.lines.len().saturating_sub(1))
    }

    pub(super) fn select(&mut self, step: Travel) {
        self.refusal = None;
        self.at = step.from(self.at(), self.lines.len());
    }

    /// Selects a line by its place.
    pub(super) fn point_at(&mut self, at: usize) {
        self.select(Travel::First);
        self.at = at;
    }

    /// What is written on the selected line, where that can be changed.
    pub(super) fn written(&self) -> Option<&str> {
        match &self.lines.get(self.at())?.kind {
            LineKind::Value(text) | LineKind::Element(text) if !text.is_empty() => Some(text),
            _ => None,
        }
    }

    /// Writes something else on the selected line.
    pub(super) fn write(&mut self, written: &str) {
        self.change(|text, line| outline::set(text, line.ok_or_else(CantChange::nothing_there)?, written));
    }

    /// Adds a key to the selected section, or a section at the end.
    pub(super) fn add(&mut self, written: &str) {
        let lines = self.lines.len();
        self.change(|text, line| outline::add(text, line, written));
        if written.trim_start().starts_with('[') && self.lines.len() > lines {
            self.at = self.lines.len() - 1;
        }
    }

    pub(super) fn copy(&mut self) {
        self.change(|text, line| outline::copy(text, line.ok_or_else(CantChange::nothing_there)?));
    }

    pub(super) fn remove(&mut self) {
        self.change(|text, line| outline::remove(text, line.ok_or_else(CantChange::nothing_there)?));
    }

    /// Moves the selected stage or element of a list, and goes with it.
    pub(super) fn shift(&mut self, later: bool) {
        let Some(mut path) = self.lines.get(self.at()).map(|line| line.path.clone()) else { return };
        self.change(|text, line| outline::shift(text, line.ok_or_else(CantChange::nothing_there)?, later));
        if self.refusal.is_none() {
            if let Some(outline::Turn::Nth(nth)) = path.last_mut() {
                *nth = if later { *nth + 1 } else { nth.saturating_sub(1) };
            }
            self.at = self.lines.iter().position(|line| line.path == path).unwrap_or(self.at);
        }
    }

    /// Takes the last change back.
    pub(super) fn undo(&mut self) {
        let Some((text, at)) = self.before.pop() else { return };
        if self.become_text(text.clone()) {
            self.at = at;
        } else {
            self.before.push((text, at));
        }
    }

    pub(super) fn can_undo(&self) -> bool {
        !self.before.is_empty()
    }

    /// Writes it into a file, into another one than its own only where there is none yet, and tells what was written.
    pub(super) fn save(&mut self, path: &Path) -> Result<String> {
        if let Meaning::Wrong(problems) = &self.meaning {
            bail!(drafts::lines_are_wrong(problems.len()));
        }
        let there = fs::read_to_string(path).ok();
        if self.file() != Some(path) && path.exists() {
            bail!(drafts::is_there_already(path.display()));
        }
        if there.is_some_and(|there| there != self.saved) {
            bail!(drafts::was_changed_meanwhile(path.display()));
        }
        replace(path, &self.text).with_context(|| files::cannot_write(path.display()))?;
        self.saved = self.text.clone();
        let told = telling::written(&path.display().to_string());
        let Source::Climb { rig, written, .. } = &mut self.source else { return Ok(told) };
        let (is_same, about_rig) = lay_beside(path, &self.text, &rig.text)?;
        if is_same {
            self.source = Source::File(path.to_owned(), Vec::new());
        } else {
            *written = Some(path.to_owned());
        }
        Ok(format!("{told}{about_rig}"))
    }

    /// The name that is proposed for its file.
    pub(super) fn name(&self) -> String {
        match (&self.source, &self.meaning) {
            (Source::File(..) | Source::Climb { written: Some(_), .. }, _) => self.whose(),
            (Source::Climb { .. }, Meaning::Plan(briefing, ..)) => {
                format!("{}.plan.toml", briefing.plan.name.replace([' ', '/'], "-"))
            }
            (Source::Climb { number, .. }, Meaning::Wrong(_)) => format!("climb-{number}.plan.toml"),
        }
    }

    fn change(&mut self, act: impl FnOnce(&str, Option<&Line>) -> Result<String, CantChange>) {
        match act(&self.text, self.lines.get(self.at())) {
            Ok(text) if text == self.text => self.refusal = None,
            Ok(text) => {
                let before = (self.text.clone(), self.at());
                if self.become_text(text) {
                    self.before.push(before);
                }
            }
            Err(why) => self.refusal = Some(why.to_string()),
        }
    }

    /// Takes another text, unless it can't even be read; tells whether it did.
    fn become_text(&mut self, text: String) -> bool {
        let read = outline::lines(&text).map_err(anyhow::Error::from);
        let read = read.and_then(|lines| mean(&self.source, &text, &lines).map(|meaning| (lines, meaning)));
        match read {
            Ok((lines, meaning)) => {
                (self.text, self.lines, self.meaning, self.refusal) = (text, lines, meaning, None);
                true
            }
            Err(why) => {
                self.refusal = Some(format!("{why:#}"));
                false
            }
        }
    }
}

/// Lays the rig of a climb where a plan that was written of it names its rig, so that the plan can be climbed; tells whether
/// it is there, and what is to be said about it.
fn lay_beside(plan: &Path, plan_text: &str, rig_text: &str) -> Result<(bool, String)> {
    let Some(named) = rig_named(plan_text) else { return Ok((false, String::new())) };
    let rig = plan.parent().unwrap_or(Path::new("")).join(&named);
    let shown = rig.display();
    match fs::read_to_string(&rig) {
        Ok(there) if there == rig_text => Ok((true, String::new())),
        Ok(_) => Ok((false, drafts::other_rig(shown))),
        Err(_) if named.is_absolute() => Ok((false, drafts::rig_unreadable(shown))),
        Err(_) => {
            replace(&rig, rig_text).with_context(|| drafts::rig_not_written(&shown))?;
            Ok((true, drafts::and_its_rig(shown)))
        }
    }
}

/// Puts a text in the place of a file's, whole or not at all: a plan that is cut short by a crash is no plan.
fn replace(path: &Path, text: &str) -> io::Result<()> {
    let beside = path.with_extension("writing");
    let mut file = File::create(&beside)?;
    file.write_all(text.as_bytes())?;
    file.sync_all()?;
    fs::rename(&beside, path)
}

/// What a text means on its rig.
fn mean(source: &Source, text: &str, lines: &[Line]) -> Result<Meaning> {
    let whole = match source {
        Source::File(_, saved) => with_starts(text, saved),
        Source::Climb { .. } => text.to_owned(),
    };
    let read = match source {
        Source::File(path, _) => Briefing::of_text(path, whole.clone()),
        Source::Climb { rig, .. } => {
            Briefing::of(rig.clone(), SourceFile { path: drafts::THE_PLAN.into(), text: text.to_owned() })
        }
    };
    match read {
        Ok(briefing) => {
            let foreseen = forecast(&briefing.rig, &briefing.plan, &[]);
            let warnings = briefing.warnings();
            Ok(Meaning::Plan(Box::new(briefing), Box::new(foreseen), warnings))
        }
        Err(error) => match error.downcast::<BadFile>() {
            Ok(bad) if bad.source_text == whole => {
                let placed = bad.problems.into_iter().map(|problem| (outline::line_of(lines, &problem), problem));
                Ok(Meaning::Wrong(placed.collect()))
            }
            Ok(bad) => Err(anyhow!(bad)),
            Err(error) => Err(error),
        },
    }
}
