//! What there is to start from: climbs that wait, rigs that are known, and the last climbs.

use std::fs;
use std::path::{Path, PathBuf};
use std::sync::Arc;

use anyhow::Result;
use periculum_core::model::moment::Moment;
use periculum_core::model::rig::Rig;
use periculum_core::model::rung::Rung;
use periculum_ledger::{ClimbRow, Ledger};
use periculum_rigs::adapters::Adapters;
use periculum_rigs::linux;

use crate::briefing::{SourceFile, read_rig_file};
use crate::climbing::{PROVING, SCORING, patiently, saved_of};
use crate::practice;
use crate::recalling::recall;

/// No more climbs than these are listed.
const LAST_CLIMBS: usize = 6;

/// How the names of rig files end.
const RIG_FILE: &str = ".rig.toml";

/// Everything that the start screen shows first.
pub(crate) struct Page {
    pub(crate) waiting: Vec<Waiting>,
    pub(crate) rigs: Vec<KnownRig>,
    /// The last climbs, the newest first, each with its mark in the rig's units.
    pub(crate) climbs: Vec<(ClimbRow, Option<String>)>,
}

/// A climb that waits to be gone on with.
pub(crate) struct Waiting {
    pub(crate) row: ClimbRow,
    /// When it was heard of last, by the wall's clock.
    pub(crate) since: Moment,
    /// The rung of its last trial, in the rig's units.
    pub(crate) at: Option<String>,
}

/// Where a rig is known from.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) enum Origin {
    /// This machine, as its kernel tells it.
    ThisMachine,
    /// A file of this folder.
    File(PathBuf),
    /// The climb of the ledger that was made on it last.
    Ledger(i64),
    /// It ships with the program.
    Practice,
    /// A setting was just added to it.
    Made,
}

/// A rig that could be climbed on.
#[derive(Clone)]
pub(crate) struct KnownRig {
    pub(crate) origin: Origin,
    pub(crate) text: String,
    pub(crate) rig: Arc<Rig>,
    pub(crate) adapters: Adapters,
    /// The last mark of it in the ledger.
    pub(crate) mark: Option<String>,
    /// What was saved of it, by name.
    pub(crate) profiles: Vec<(String, Rung)>,
}

impl Page {
    /// What a ledger, a folder and this machine have; what can't be read is left out, and told by the commands for it.
    pub(crate) fn read(ledger: Option<&Ledger>, folder: &Path, root: &Path) -> Result<Self> {
        let mut rows = ledger.map_or(Ok(Vec::new()), Ledger::climbs)?;
        rows.reverse();
        let is_waiting = |row: &&ClimbRow| row.end.is_none() && ledger.is_some_and(|ledger| !ledger.is_driven(row));
        let waiting = rows.iter().filter(is_waiting).map(|row| Waiting {
            row: row.clone(),
            since: heard_of(ledger, row).unwrap_or(row.wall),
            at: last_rung(ledger, row),
        });
        let waiting = waiting.collect();
        let climbs = rows.iter().filter(|row| row.end.is_some()).take(LAST_CLIMBS);
        let climbs = climbs.map(|row| (row.clone(), written(ledger, row, row.mark.as_ref()))).collect();
        let mut rigs: Vec<KnownRig> = this_machine(root).into_iter().collect();
        rigs.extend(of_folder(folder));
        let of_ledger: Vec<KnownRig> = of_ledger(ledger, &rows);
        rigs.extend(of_ledger.into_iter().filter(|known| is_new(known, &rigs)).collect::<Vec<_>>());
        let practice = practice::RIGS.into_iter().filter_map(|it| KnownRig::of(Origin::Practice, it.rig.to_owned()));
        rigs.extend(practice.filter(|known| is_new(known, &rigs)).collect::<Vec<_>>());
        for known in &mut rigs {
            let marked = rows.iter().find(|row| row.rig == known.rig.name && row.mark.is_some());
            known.mark = marked.and_then(|row| written(ledger, row, row.mark.as_ref()));
            known.profiles = ledger.map(|ledger| saved_of(ledger, &known.rig.name)).unwrap_or_default();
        }
        Ok(Self { waiting, rigs, climbs })
    }
}

impl KnownRig {
    /// The rig of this text; none where it can't be read.
    pub(crate) fn of(origin: Origin, text: String) -> Option<Self> {
        let file = SourceFile { path: PathBuf::new(), text: text.clone() };
        let (rig, adapters) = read_rig_file(file).ok()?;
        Some(Self { origin, text, rig: Arc::new(rig), adapters, mark: None, profiles: Vec::new() })
    }

    /// The models of its parts.
    pub(crate) fn parts(&self) -> String {
        self.rig.parts.iter().map(|part| part.model.as_str()).collect::<Vec<_>>().join(", ")
    }
}

/// Whether no rig of that name is listed already.
fn is_new(known: &KnownRig, rigs: &[KnownRig]) -> bool {
    !rigs.iter().any(|other| other.rig.name == known.rig.name)
}

fn this_machine(root: &Path) -> Option<KnownRig> {
    let root = root.to_owned();
    let text = patiently(move || linux::rig_text(&root)).ok()?;
    KnownRig::of(Origin::ThisMachine, text)
}

fn of_folder(folder: &Path) -> Vec<KnownRig> {
    let entries = fs::read_dir(folder).into_iter().flatten().flatten().map(|entry| entry.path());
    let is_rig = |path: &PathBuf| path.file_name().is_some_and(|name| name.to_string_lossy().ends_with(RIG_FILE));
    let mut files: Vec<PathBuf> = entries.filter(is_rig).collect();
    files.sort();
    let read = |path: PathBuf| Some((SourceFile::read(&path).ok()?.text, path));
    files.into_iter().filter_map(read).filter_map(|(text, path)| KnownRig::of(Origin::File(path), text)).collect()
}

/// The rigs of the ledger, as they were when they were climbed on last.
fn of_ledger(ledger: Option<&Ledger>, newest_first: &[ClimbRow]) -> Vec<KnownRig> {
    let mut known: Vec<KnownRig> = Vec::new();
    let climbed = newest_first.iter().filter(|row| row.use_name != PROVING && row.use_name != SCORING);
    for row in climbed {
        if known.iter().any(|one| one.rig.name == row.rig) {
            continue;
        }
        let text = ledger.and_then(|ledger| ledger.texts(row.climb).ok()).map(|(rig, _)| rig);
        known.extend(text.and_then(|text| KnownRig::of(Origin::Ledger(row.climb), text)));
    }
    known
}

fn heard_of(ledger: Option<&Ledger>, row: &ClimbRow) -> Option<Moment> {
    Some(ledger?.last_life(row.climb).ok()??.wall)
}

fn last_rung(ledger: Option<&Ledger>, row: &ClimbRow) -> Option<String> {
    let trials = ledger?.trials(row.climb).ok()?;
    written(ledger, row, trials.last().map(|trial| &trial.rung))
}

fn written(ledger: Option<&Ledger>, row: &ClimbRow, rung: Option<&Rung>) -> Option<String> {
    Some(recall(ledger?, row).ok()?.rig.written(rung?))
}
