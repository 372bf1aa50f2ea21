//! The climbs of the ledger, for the interface: read in a thread of their own, and opened one at a time.

use std::collections::BTreeMap;
use std::path::{Path, PathBuf};
use std::sync::Arc;
use std::thread;

use anyhow::Result;
use crossbeam_channel::Sender;
use periculum_core::analysis::pool::Pool;
use periculum_core::model::rig::Rig;
use periculum_core::story::finding::Index;
use periculum_core::story::series::Series;
use periculum_ledger::{ClimbRow, EnteredRow, Ledger, RecordRow};

use super::climbed::{Climbed, climb_facts};
use super::picked::Picked;
use crate::places::pictures_of;
use crate::recalling::{recall, recall_to_look, tell_past};

/// The ledger that the interface looks into.
#[derive(Clone, Debug, Default)]
pub(crate) struct Library {
    path: PathBuf,
}

/// A climb as the list shows it.
#[derive(Clone, Debug)]
pub(super) struct Listed {
    pub(super) row: ClimbRow,
    /// The last mark that stands, in the rig's units.
    pub(super) mark: Option<String>,
}

/// What was read of the ledger.
pub(super) enum Read {
    /// Its climbs, the newest first.
    Climbs(Vec<Listed>),
    /// The best scores of each climb, and results from elsewhere.
    Records(Vec<RecordRow>, Vec<EnteredRow>),
    /// Every trial, for finding some.
    Trials(Index),
    /// Every attempt with all that is known of it, for finding some by their numbers; and the climbs that can't be read.
    Attempts(Box<Pool>, Index, Vec<i64>),
    /// What is to be seen of one climb before it is opened.
    Glimpse(Box<Climbed>),
    /// What was picked when the interface was used last, as far as it is still there.
    Picked(Vec<Picked>),
    /// It can't be read.
    Trouble(String),
}

impl Library {
    /// The ledger of this path.
    pub(crate) fn at(path: PathBuf) -> Self {
        Self { path }
    }

    /// The ledger, opened.
    pub(super) fn ledger(&self) -> Result<Ledger> {
        Ok(Ledger::open(&self.path)?)
    }

    /// Reads all climbs and trials and tells them as they come; a listener that is gone hears nothing more.
    pub(super) fn read(&self, listener: Sender<Read>) {
        let library = self.clone();
        thread::spawn(move || {
            if let Err(why) = library.tell(&listener) {
                let _ = listener.send(Read::Trouble(crate::telling::ledger::unreadable(why)));
            }
        });
    }

    fn tell(&self, listener: &Sender<Read>) -> Result<()> {
        if !self.path.exists() {
            listener.send(Read::Climbs(Vec::new()))?;
            return Ok(());
        }
        let ledger = Ledger::open(&self.path)?;
        let mut rows = ledger.climbs()?;
        rows.reverse();
        listener.send(Read::Climbs(listed(&ledger, &rows)))?;
        listener.send(Read::Records(ledger.records()?, ledger.entered()?))?;
        listener.send(Read::Trials(ledger.index(&rows, climb_facts)?))?;
        Ok(())
    }

    /// Reads every attempt of every climb with all that is known of it, and tells them together.
    pub(super) fn read_attempts(&self, listener: Sender<Read>) {
        let library = self.clone();
        thread::spawn(move || {
            let read = library.attempts().unwrap_or_else(|why| Read::Trouble(crate::telling::ledger::unreadable(why)));
            let _ = listener.send(read);
        });
    }

    fn attempts(&self) -> Result<Read> {
        let (mut pool, mut index, mut unread) = (Pool::default(), Index::default(), Vec::new());
        if !self.path.exists() {
            return Ok(Read::Attempts(Box::default(), index, unread));
        }
        let mut rows = Ledger::open(&self.path)?.climbs()?;
        rows.reverse();
        for row in &rows {
            match self.open(row.climb) {
                Ok(climbed) => climbed.pool(row, &mut pool, &mut index),
                Err(_) => unread.push(row.climb),
            }
        }
        Ok(Read::Attempts(Box::new(pool), index, unread))
    }

    /// Reads one climb without its readings, and tells it; one that can't be read is told when it is opened.
    pub(super) fn glimpse(&self, number: i64, listener: Sender<Read>) {
        let library = self.clone();
        thread::spawn(move || {
            if let Ok(climbed) = library.read_climb(number, |_| Ok(BTreeMap::new())) {
                let _ = listener.send(Read::Glimpse(Box::new(climbed)));
            }
        });
    }

    /// Reads what was picked, and tells it; what is not there any more is left out.
    pub(super) fn look_up(&self, picked: Vec<(i64, Option<u32>)>, listener: Sender<Read>) {
        let library = self.clone();
        thread::spawn(move || {
            let of = |(climb, trial): (i64, Option<u32>)| Picked::of(&library.open(climb).ok()?, trial);
            let _ = listener.send(Read::Picked(picked.into_iter().filter_map(of).collect()));
        });
    }

    /// Where a picture is that a pass has kept: where it was kept, or with the pictures of the ledger, which may have been moved together.
    pub(super) fn picture(&self, kept: &Path) -> PathBuf {
        let moved = kept.file_name().map(|name| pictures_of(self.path()).join(name));
        moved.filter(|moved| !kept.exists() && moved.exists()).unwrap_or_else(|| kept.to_owned())
    }

    /// Where it lies.
    pub(super) fn path(&self) -> &Path {
        &self.path
    }

    /// A climb with all that it left.
    pub(crate) fn open(&self, number: i64) -> Result<Climbed> {
        self.read_climb(number, |ledger| Ok(ledger.samples(number)?))
    }

    fn read_climb(
        &self,
        number: i64,
        samples: impl FnOnce(&Ledger) -> Result<BTreeMap<String, Series>>,
    ) -> Result<Climbed> {
        let ledger = Ledger::open(&self.path)?;
        let row = ledger.climb(number)?;
        let briefing = recall_to_look(&ledger, &row)?;
        Ok(Climbed::new(&row, &briefing, tell_past(&ledger.lines(number)?), samples(&ledger)?))
    }
}

/// The climbs with their marks, as the rig of that name was when it was climbed last.
fn listed(ledger: &Ledger, rows: &[ClimbRow]) -> Vec<Listed> {
    let mut rigs: BTreeMap<&str, Option<Arc<Rig>>> = BTreeMap::new();
    let list = rows.iter().map(|row| {
        let rig = rigs.entry(&row.rig).or_insert_with(|| recall(ledger, row).ok().map(|briefing| briefing.rig));
        let mark = rig.as_ref().zip(row.mark.as_ref()).map(|(rig, rung)| rig.written(rung));
        Listed { row: row.clone(), mark }
    });
    list.collect()
}
