//! The list of the ledger's climbs: those that have what is looked for, and the selected one.

use crossbeam_channel::{Receiver, Sender, unbounded};
use periculum_core::analysis::pool::Pool;
use periculum_core::analysis::scores::Measure;
use periculum_core::story::finding::{Found, Index, Query};
use periculum_ledger::{Entered, EnteredRow, RecordRow};

use super::climbed::Climbed;
use super::library::{Library, Listed, Read};
use super::telling;
use super::travel::Travel;

/// A score that one's own is ranked with.
#[derive(Clone, Copy)]
pub(super) enum Other<'a> {
    /// The best of an earlier climb.
    Climb(f64, &'a Listed),
    /// One from elsewhere.
    Entered(&'a Entered),
}

impl Other<'_> {
    /// The score.
    pub(super) fn value(&self) -> f64 {
        match self {
            Self::Climb(value, _) => *value,
            Self::Entered(result) => result.value,
        }
    }
}

/// The climbs of the ledger, as they were when they were last read.
pub(super) struct Shelf {
    pub(super) library: Library,
    /// The newest first.
    climbs: Vec<Listed>,
    /// The best scores of each climb, and results from elsewhere.
    records: Vec<RecordRow>,
    entered: Vec<EnteredRow>,
    /// What trials are found by; none until it has been read.
    index: Option<Index>,
    /// Every attempt with all that is known of it; none until somebody wants it.
    pool: Option<Box<Pool>>,
    is_pooling: bool,
    /// What was found of what is looked for; none where all climbs are shown.
    found: Option<Vec<Found>>,
    /// The selected climb.
    selected: Option<i64>,
    /// What is to be seen of the selected climb, or of one that was selected before.
    glimpse: Option<Box<Climbed>>,
    /// The climb whose glimpse was asked for last.
    asked: Option<i64>,
    /// Why the ledger could not be read.
    pub(super) trouble: Option<String>,
    pub(super) is_reading: bool,
    reads: (Sender<Read>, Receiver<Read>),
}

impl Shelf {
    pub(super) fn of(library: Library) -> Self {
        Self {
            library,
            climbs: Vec::new(),
            records: Vec::new(),
            entered: Vec::new(),
            index: None,
            pool: None,
            is_pooling: false,
            found: None,
            selected: None,
            glimpse: None,
            asked: None,
            trouble: None,
            is_reading: false,
            reads: unbounded(),
        }
    }

    /// Reads the ledger anew; what was read before is shown until then.
    pub(super) fn read(&mut self) {
        self.is_reading = true;
        self.library.read(self.reads.0.clone());
    }

    /// Reads what was picked before.
    pub(super) fn look_up(&self, picked: Vec<(i64, Option<u32>)>) {
        self.library.look_up(picked, self.reads.0.clone());
    }

    /// What is read comes here.
    pub(super) fn reads(&self) -> Receiver<Read> {
        self.reads.1.clone()
    }

    pub(super) fn take(&mut self, read: Read, query: &Query) {
        match read {
            Read::Climbs(climbs) => {
                self.is_reading = !climbs.is_empty();
                (self.climbs, self.trouble) = (climbs, None);
            }
            Read::Records(records, entered) => (self.records, self.entered) = (records, entered),
            Read::Trials(index) => {
                self.index = Some(index);
                self.is_reading = false;
                // What was known of the ledger before is not all of it now.
                if self.pool.take().is_some() {
                    self.want_attempts();
                }
                self.find(query);
            }
            Read::Attempts(pool, index, unread) => {
                (self.pool, self.index, self.is_pooling) = (Some(pool), Some(index), false);
                self.trouble = (!unread.is_empty()).then(|| telling::not_read(&unread));
                self.find(query);
            }
            // One that was asked for before comes too late.
            Read::Glimpse(climbed) if self.asked != Some(climbed.number) => {}
            Read::Glimpse(climbed) => self.glimpse = Some(climbed),
            // That lies on the desk.
            Read::Picked(_) => {}
            Read::Trouble(why) => {
                self.trouble = Some(why);
                (self.is_reading, self.is_pooling) = (false, false);
            }
        }
    }

    /// Reads every attempt with all that is known of it, unless that was done.
    pub(super) fn want_attempts(&mut self) {
        if self.pool.is_none() && !self.is_pooling {
            self.is_pooling = true;
            self.library.read_attempts(self.reads.0.clone());
        }
    }

    /// Every attempt with all that is known of it, once it is read.
    pub(super) fn attempts(&self) -> Option<&Pool> {
        self.pool.as_deref()
    }

    /// Whether something is being read.
    pub(super) fn is_busy(&self) -> bool {
        self.is_reading || self.is_pooling
    }

    /// Shows the climbs that have what is looked for; where numbers are compared, all that is known of attempts is wanted.
    pub(super) fn find(&mut self, query: &Query) {
        if query.compares() && self.index.is_some() {
            self.want_attempts();
        }
        self.found = self.index.as_ref().filter(|_| !query.is_empty()).map(|index| index.find(query));
    }

    /// A climb by its number.
    pub(super) fn climb(&self, number: i64) -> Option<&Listed> {
        self.climbs.iter().find(|listed| listed.row.climb == number)
    }

    /// The best score of each climb in this measure, but one's own, and of others that were entered, in no order.
    pub(super) fn others(&self, measure: &Measure, own: i64) -> Vec<Other<'_>> {
        let threads = measure.threads.to_string();
        let is_same = |row: &&RecordRow| {
            row.load == measure.load && row.threads == threads && row.unit == measure.unit && row.climb != own
        };
        let of_climb = |row: &RecordRow| Some(Other::Climb(row.value, self.climb(row.climb)?));
        let is_like = |row: &&EnteredRow| row.result.what == measure.load && row.result.unit == measure.unit;
        let climbs = self.records.iter().filter(is_same).filter_map(of_climb);
        climbs.chain(self.entered.iter().filter(is_like).map(|row| Other::Entered(&row.result))).collect()
    }

    /// Every climb, the newest first.
    pub(super) fn all(&self) -> impl Iterator<Item = &Listed> {
        self.climbs.iter()
    }

    /// Results from elsewhere under this name.
    pub(super) fn entered<'a>(&'a self, what: &'a str) -> impl Iterator<Item = &'a Entered> {
        self.entered.iter().map(|row| &row.result).filter(move |result| result.what == what)
    }

    /// How many climbs there are, shown or not.
    pub(super) fn total(&self) -> usize {
        self.climbs.len()
    }

    /// The climbs that are shown, each with how many of its trials were found where some are looked for.
    pub(super) fn shown(&self) -> Vec<(&Listed, Option<usize>)> {
        let Some(found) = &self.found else { return self.climbs.iter().map(|listed| (listed, None)).collect() };
        // Both have the order in which the ledger was read.
        let mut climbs = self.climbs.iter();
        let shown = found.iter().filter_map(|found| {
            let listed = climbs.find(|listed| listed.row.climb == found.climb)?;
            Some((listed, Some(found.trials.len())))
        });
        shown.collect()
    }

    /// Which of the shown climbs is selected.
    pub(super) fn at(&self) -> usize {
        self.shown().iter().position(|(listed, _)| Some(listed.row.climb) == self.selected).unwrap_or(0)
    }

    /// The number of the selected climb.
    pub(super) fn selected(&self) -> Option<i64> {
        self.shown().get(self.at()).map(|(listed, _)| listed.row.climb)
    }

    pub(super) fn select(&mut self, step: Travel) {
        let shown = self.shown();
        self.selected = shown.get(step.from(self.at(), shown.len())).map(|(listed, _)| listed.row.climb);
    }

    /// Selects a climb by its number.
    pub(super) fn point_at(&mut self, climb: i64) {
        self.selected = Some(climb);
    }

    /// Asks for what is to be seen of the selected climb, unless it is this one, which is shown anyway.
    pub(super) fn peep(&mut self, shown: i64) {
        let wanted = self.selected().filter(|climb| *climb != shown);
        if let Some(climb) = wanted.filter(|climb| self.asked != Some(*climb)) {
            self.asked = wanted;
            self.library.glimpse(climb, self.reads.0.clone());
        }
    }

    /// What is to be seen of the selected climb, once it is read.
    pub(super) fn glimpse(&self) -> Option<&Climbed> {
        self.glimpse.as_deref().filter(|climbed| Some(climbed.number) == self.selected())
    }
}
