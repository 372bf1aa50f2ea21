//! The ledger: one file, two connections.

use std::collections::BTreeMap;
use std::os::unix::fs::{DirBuilderExt, MetadataExt, OpenOptionsExt};
use std::path::{Path, PathBuf};
use std::time::Duration;
use std::{fs, io};

use periculum_core::model::moment::Moment;
use periculum_core::story::finding::Index;
use periculum_core::story::series::Series;
use rusqlite::types::ValueRef;
use rusqlite::{Connection, TransactionBehavior, params};

use super::attached::{self, Attached};
use super::checksum::Sum;
use super::profiles::{self, Armed, ProfileRow};
use super::records::{self, Entered, EnteredRow, RecordRow};
use super::{extract, finding, journal, queries, samples, schema, seals, tables};
use crate::claim::{Claim, beside};
use crate::error::LedgerError;
use crate::record::{Checked, Dropped, Line, Newer};
use crate::rows::{ClimbId, ClimbRow, IncidentRow, LastLife, NewClimb, TrialRow};
use crate::signs;

/// How long a writer waits for the other connection to finish.
const PATIENCE: Duration = Duration::from_secs(5);

/// The permanent record.
///
/// A line is on the disk when [`Ledger::append`] returns (`synchronous = FULL`). Samples go through a connection
/// of their own that does not wait for the disk (`NORMAL`): the newest may be lost, and they never delay a line.
pub struct Ledger {
    path: PathBuf,
    record: Connection,
    samples: Connection,
    dropped: Vec<Dropped>,
    newer: Vec<Newer>,
    /// Device and inode of the file.
    file: (u64, u64),
    /// Whether nobody minds if all of it is lost, since it is only being made.
    is_draft: bool,
}

impl Ledger {
    /// Opens the ledger at this path, which is made where it is missing, and checks every line that has not been checked
    /// since its climb was over; those are checked again when they are read, and by [`Ledger::check`].
    ///
    /// # Errors
    /// When the file can't be used at all; lines that are damaged are dropped and told by [`Ledger::dropped`].
    pub fn open(path: &Path) -> Result<Self, LedgerError> {
        Self::opened(path, ["FULL", "NORMAL"])
    }

    /// The same for a file that is only being made, and takes its place when it is whole: nothing waits for the disk before
    /// that, and nothing is kept twice.
    ///
    /// # Errors
    /// As of [`Ledger::open`].
    pub fn draft(path: &Path) -> Result<Self, LedgerError> {
        Ok(Self { is_draft: true, ..Self::opened(path, ["OFF", "OFF"])? })
    }

    /// Puts a draft on the disk, in the place of the file at this path.
    ///
    /// # Errors
    /// When it can't be written there.
    pub fn take_place_of(self, path: &Path) -> Result<(), LedgerError> {
        let Self { path: draft, record, samples, .. } = self;
        drop((record, samples));
        let placed = fs::File::open(&draft).and_then(|file| file.sync_all()).and_then(|()| fs::rename(&draft, path));
        placed.map_err(|source| LedgerError::File { path: path.to_owned(), source })
    }

    fn opened(path: &Path, [of_lines, of_samples]: [&str; 2]) -> Result<Self, LedgerError> {
        if let Some(folder) = path.parent() {
            let made = fs::DirBuilder::new().recursive(true).mode(0o700).create(folder);
            made.map_err(|source| LedgerError::File { path: folder.to_owned(), source })?;
        }
        if fs::metadata(path).is_ok_and(|there| !there.is_file()) {
            return Err(LedgerError::NoFile { path: path.to_owned() });
        }
        make_private(path).map_err(|source| LedgerError::File { path: path.to_owned(), source })?;
        let unreadable = |why: rusqlite::Error| LedgerError::Unreadable { path: path.to_owned(), why: why.to_string() };
        let mut record = connect(path, of_lines).map_err(unreadable)?;
        let found = schema::prepare(&mut record).map_err(|error| match error {
            LedgerError::Database(why) => LedgerError::Unreadable { path: path.to_owned(), why: why.to_string() },
            other => other,
        })?;
        if found > schema::FORMAT {
            return Err(LedgerError::TooNew { path: path.to_owned(), found, known: schema::FORMAT });
        }
        let samples = connect(path, of_samples).map_err(unreadable)?;
        let file = fs::metadata(path).map_err(|source| LedgerError::File { path: path.to_owned(), source })?;
        let file = (file.dev(), file.ino());
        let (path, dropped, newer) = (path.to_owned(), Vec::new(), Vec::new());
        let mut ledger = Self { path, record, samples, dropped, newer, file, is_draft: false };
        ledger.mend()?;
        Ok(ledger)
    }

    /// Where the file is.
    pub fn path(&self) -> &Path {
        &self.path
    }

    /// The lines that had to be dropped when it was opened.
    pub fn dropped(&self) -> &[Dropped] {
        &self.dropped
    }

    /// The lines that a newer version wrote, the first of each climb; where there are any, the file is left as it is.
    pub fn newer(&self) -> &[Newer] {
        &self.newer
    }

    fn check_writable(&self) -> Result<(), LedgerError> {
        let Some(Newer { climb, line, what }) = self.newer.first().cloned() else { return Ok(()) };
        Err(LedgerError::ReadOnly { path: self.path.clone(), climb, line, what })
    }

    /// Takes the right to climb on this rig with this ledger.
    ///
    /// # Errors
    /// Where another process has it.
    pub fn claim(&self, rig: &str) -> Result<Claim, LedgerError> {
        self.check_writable()?;
        Claim::take(&self.path, rig)
    }

    /// Writes down a new climb, after a snapshot of the whole ledger, and tells its number.
    ///
    /// # Errors
    /// When it can't be written.
    pub fn begin_climb(&mut self, new: &NewClimb) -> Result<i64, LedgerError> {
        self.check_writable()?;
        if !self.is_draft {
            self.snapshot()?;
        }
        let id = ClimbId::fresh().map_err(|error| LedgerError::NoIdentifier { why: error.to_string() })?;
        // Whoever dies in between has begun none.
        let transaction = self.record.transaction_with_behavior(TransactionBehavior::Immediate)?;
        transaction.execute(
            "INSERT INTO climbs (plan, rig, specimen, use_name, seed, plan_text, rig_text, wall, id)
            VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)",
            params![
                new.plan,
                new.rig,
                new.specimen,
                new.use_name,
                new.seed,
                new.plan_text,
                new.rig_text,
                new.wall.millis(),
                id.as_str()
            ],
        )?;
        let climb = transaction.last_insert_rowid();
        let sum = Sum::default().int(climb).text(new.plan).text(new.rig).text(new.specimen).text(new.use_name);
        let sum = sum.value(new.seed.map_or(ValueRef::Null, |seed| ValueRef::Integer(seed as i64)));
        let texts = Sum::default().int(climb).text(new.rig_text).text(new.plan_text).finish();
        transaction.execute(
            "UPDATE climbs SET checksum = ?, texts_checksum = ? WHERE climb = ?",
            params![sum.int(new.wall.millis()).text(id.as_str()).finish(), texts, climb],
        )?;
        transaction.commit()?;
        Ok(climb)
    }

    /// Writes the next line of a climb; it is on the disk when this returns.
    ///
    /// # Errors
    /// When it can't be written; then nothing of it was.
    pub fn append(&mut self, climb: i64, line: &Line) -> Result<(), LedgerError> {
        self.check_there()?;
        let transaction = self.record.transaction_with_behavior(TransactionBehavior::Immediate)?;
        let number = transaction
            .prepare_cached("SELECT coalesce(max(line) + 1, 0) FROM journal WHERE climb = ?")?
            .query_row([climb], |row| row.get(0))?;
        journal::append(&transaction, climb, number, line)?;
        tables::project(&transaction, climb, number, line)?;
        Ok(transaction.commit()?)
    }

    /// Writes sensor readings, each set taken at its moment by the rig's clock.
    ///
    /// # Errors
    /// When they can't be written.
    pub fn add_samples(&mut self, climb: i64, readings: &[(Moment, BTreeMap<String, f64>)]) -> Result<(), LedgerError> {
        samples::add(&mut self.samples, climb, readings)
    }

    /// Every sensor's readings during a climb.
    ///
    /// # Errors
    /// When they can't be read.
    pub fn samples(&self, climb: i64) -> Result<BTreeMap<String, Series>, LedgerError> {
        samples::of_climb(&self.record, climb)
    }

    /// Every line of a climb, in order.
    ///
    /// # Errors
    /// When they can't be read.
    pub fn lines(&self, climb: i64) -> Result<Vec<Line>, LedgerError> {
        let lines = journal::lines(&self.record, climb)?;
        seals::check(&self.record, climb)?;
        Ok(lines)
    }

    /// SHA-256 over a climb's record, as it is now: that of the checksums of its lines.
    ///
    /// # Errors
    /// When it can't be read.
    pub fn digest(&self, climb: i64) -> Result<[u8; 32], LedgerError> {
        journal::digest(&self.record, climb)
    }

    /// Writes a ledger that holds one climb alone into a new file: to hand it on.
    ///
    /// # Errors
    /// When there is no such climb, or the file can't be written.
    pub fn extract(&self, climb: i64, path: &Path) -> Result<(), LedgerError> {
        self.climb(climb)?;
        make_private(path).map_err(|source| LedgerError::File { path: path.to_owned(), source })?;
        extract::extract(&self.record, climb, path)
    }

    /// Checks every line of every climb, whenever it was checked before, and keeps what is good.
    ///
    /// # Errors
    /// When the file can't be read or written.
    pub fn check(&mut self) -> Result<(), LedgerError> {
        self.check_telling(|_, _| ())
    }

    /// The same, telling before each climb how many were compared with their lines, and of how many.
    ///
    /// # Errors
    /// As above.
    pub fn check_telling(&mut self, told: impl FnMut(usize, usize)) -> Result<(), LedgerError> {
        self.check_writable()?;
        let contradicted = journal::contradicted(&self.record)?;
        self.record.execute("DELETE FROM seals", [])?;
        self.check_tables(told)?;
        let altered = std::mem::take(&mut self.dropped);
        self.mend()?;
        for (climb, seal) in contradicted {
            // Where every line is what was written it is the seal that is not, or lines that are missing: nothing is sealed in
            // its place.
            if self.dropped.iter().all(|dropped| dropped.climb != climb) {
                self.record.execute("UPDATE seals SET digest = ? WHERE climb = ?", params![seal, climb])?;
            }
            let why = "its lines are others than when it was sealed".to_owned();
            self.dropped.push(Dropped { climb, line: 0, why });
        }
        self.dropped.extend(altered);
        Ok(())
    }

    /// Compares what the tables say with the journal, and makes those anew that say something else.
    fn check_tables(&mut self, mut told: impl FnMut(usize, usize)) -> Result<(), LedgerError> {
        let mut altered = Vec::new();
        let transaction = self.record.transaction_with_behavior(TransactionBehavior::Immediate)?;
        let climbs = queries::numbers(&transaction)?;
        for (read, row) in climbs.iter().copied().enumerate() {
            told(read, climbs.len());
            let before = tables::digest(&transaction, row)?;
            match tables::rebuild(&transaction, row) {
                Ok(()) if tables::digest(&transaction, row)? != before => altered.push(row),
                // Damaged lines are dropped later, and told then.
                Ok(()) | Err(LedgerError::Damaged { .. } | LedgerError::NewerLine { .. }) => {}
                Err(other) => return Err(other),
            }
        }
        transaction.commit()?;
        let why = "the list of its trials was not what its journal says, and was made anew";
        self.dropped = altered.into_iter().map(|climb| Dropped { climb, line: 0, why: why.into() }).collect();
        Ok(())
    }

    /// Every climb, oldest first.
    ///
    /// # Errors
    /// When they can't be read.
    pub fn climbs(&self) -> Result<Vec<ClimbRow>, LedgerError> {
        queries::climbs(&self.record)
    }

    /// Every trial of these climbs for finding some, each climb under the facts that are told of it.
    ///
    /// # Errors
    /// When they can't be read.
    pub fn index(&self, climbs: &[ClimbRow], facts_of: impl Fn(&ClimbRow) -> String) -> Result<Index, LedgerError> {
        finding::index(&self.record, climbs, facts_of)
    }

    /// One climb.
    ///
    /// # Errors
    /// When there is no such climb.
    pub fn climb(&self, climb: i64) -> Result<ClimbRow, LedgerError> {
        queries::climb(&self.record, climb)
    }

    /// The number of the climb of this identifier.
    ///
    /// # Errors
    /// When there is no such climb.
    pub fn number(&self, id: &ClimbId) -> Result<i64, LedgerError> {
        queries::number(&self.record, id)
    }

    /// The newest climb that has not ended and that nobody drives now; where somebody drives each, the newest.
    ///
    /// # Errors
    /// When it can't be read.
    pub fn unfinished(&self) -> Result<Option<ClimbRow>, LedgerError> {
        let open = queries::unfinished(&self.record)?;
        let waits = open.iter().find(|row| !self.is_driven(row));
        Ok(waits.or(open.first()).cloned())
    }

    /// Whether a process climbs now on the rig of a climb.
    pub fn is_driven(&self, row: &ClimbRow) -> bool {
        Claim::is_taken(&self.path, &row.rig)
    }

    /// The texts of the rig file and the plan file of a climb, as they were when it began.
    ///
    /// # Errors
    /// When there is no such climb.
    pub fn texts(&self, climb: i64) -> Result<(String, String), LedgerError> {
        queries::texts(&self.record, climb)
    }

    /// The trials of a climb, in order.
    ///
    /// # Errors
    /// When they can't be read.
    pub fn trials(&self, climb: i64) -> Result<Vec<TrialRow>, LedgerError> {
        tables::check(&self.record, climb)?;
        queries::trials(&self.record, climb)
    }

    /// The incidents of a climb, in order.
    ///
    /// # Errors
    /// When they can't be read.
    pub fn incidents(&self, climb: i64) -> Result<Vec<IncidentRow>, LedgerError> {
        tables::check(&self.record, climb)?;
        queries::incidents(&self.record, climb)
    }

    /// The best score of each load, thread count and unit in each climb.
    ///
    /// # Errors
    /// When they can't be read.
    pub fn records(&self) -> Result<Vec<RecordRow>, LedgerError> {
        records::records(&self.record)
    }

    /// Writes down a result from elsewhere, and tells its number.
    ///
    /// # Errors
    /// When it can't be written.
    pub fn enter(&self, result: &Entered, wall: Moment) -> Result<i64, LedgerError> {
        self.check_writable()?;
        records::enter(&self.record, result, wall)
    }

    /// Every result from elsewhere, oldest first.
    ///
    /// # Errors
    /// When they can't be read.
    pub fn entered(&self) -> Result<Vec<EnteredRow>, LedgerError> {
        records::entered(&self.record)
    }

    /// Takes a result from elsewhere back, and tells whether there was one of this number.
    ///
    /// # Errors
    /// When it can't be written.
    pub fn take_back(&self, entered: i64) -> Result<bool, LedgerError> {
        self.check_writable()?;
        records::take_back(&self.record, entered)
    }

    /// Lays readings of instruments beside those of a climb, each in the order of time by the rig's clock.
    ///
    /// # Errors
    /// When they can't be written, as under a name that readings were attached under before; then none were.
    pub fn attach(&mut self, climb: i64, all: &[(Attached, Vec<(Moment, f64)>)]) -> Result<(), LedgerError> {
        self.check_writable()?;
        let transaction = self.record.transaction_with_behavior(TransactionBehavior::Immediate)?;
        all.iter().try_for_each(|(of, readings)| attached::attach(&transaction, climb, of, readings))?;
        Ok(transaction.commit()?)
    }

    /// Whose readings were attached to a climb.
    ///
    /// # Errors
    /// When they can't be read.
    pub fn attached(&self, climb: i64) -> Result<Vec<Attached>, LedgerError> {
        attached::of_climb(&self.record, climb)
    }

    /// Takes attached readings off a climb, and tells whether there were any under this name.
    ///
    /// # Errors
    /// When they can't be taken off.
    pub fn detach(&mut self, climb: i64, sensor: &str) -> Result<bool, LedgerError> {
        self.check_writable()?;
        let transaction = self.record.transaction_with_behavior(TransactionBehavior::Immediate)?;
        let found = attached::detach(&transaction, climb, sensor)?;
        transaction.commit()?;
        Ok(found)
    }

    /// Every saved profile, newest first.
    ///
    /// # Errors
    /// When they can't be read.
    pub fn profiles(&self) -> Result<Vec<ProfileRow>, LedgerError> {
        profiles::all(&self.record)
    }

    /// The newest profile of this name, of one climb where that is given.
    ///
    /// # Errors
    /// When it can't be read.
    pub fn profile(&self, name: &str, climb: Option<i64>) -> Result<Option<ProfileRow>, LedgerError> {
        let found = profiles::named(&self.record, name, climb)?;
        found.iter().try_for_each(|profile| tables::check(&self.record, profile.climb))?;
        Ok(found)
    }

    /// Arms a profile to be applied when its rig's machine starts, in place of any other of that rig.
    ///
    /// # Errors
    /// When its mark held no soak, or it can't be written.
    pub fn arm(&self, profile: &ProfileRow) -> Result<(), LedgerError> {
        self.check_writable()?;
        if !profile.soaked {
            return Err(LedgerError::NotSoaked { name: profile.name.clone() });
        }
        profiles::arm(&self.record, &profile.rig, profile.climb, &profile.name)
    }

    /// Disarms whatever is armed for a rig, and tells whether anything was.
    ///
    /// # Errors
    /// When it can't be written.
    pub fn disarm(&self, rig: &str) -> Result<bool, LedgerError> {
        self.check_writable()?;
        profiles::disarm(&self.record, rig)
    }

    /// Every rig with an armed profile, and which.
    ///
    /// # Errors
    /// When they can't be read.
    pub fn armed(&self) -> Result<Vec<(String, Armed)>, LedgerError> {
        profiles::armed(&self.record)
    }

    /// Notes, durably, that a start with the armed profile of a rig has begun, or that it went well.
    ///
    /// # Errors
    /// When it can't be written.
    pub fn note_start(&self, rig: &str, is_starting: bool) -> Result<(), LedgerError> {
        self.check_writable()?;
        profiles::note_start(&self.record, rig, is_starting)
    }

    /// When a climb was last heard of; none where it never began.
    ///
    /// # Errors
    /// When it can't be read.
    pub fn last_life(&self, climb: i64) -> Result<Option<LastLife>, LedgerError> {
        let Some((boot, at, wall)) = journal::last(&self.record, climb)? else { return Ok(None) };
        let sample = samples::last(&self.record, climb)?.map_or(at, |sample| sample.max(at));
        let sign = signs::last(&self.path, climb, &boot);
        let heard = sign.map_or(sample, |sign| sign.at.max(sample));
        let next_due = signs::next_due(&self.path, sign);
        Ok(Some(LastLife { boot, at: heard, wall: wall + heard.since(at), next_due }))
    }

    /// Whether the file is still the one that was opened.
    fn check_there(&self) -> Result<(), LedgerError> {
        let is_same = fs::metadata(&self.path).is_ok_and(|now| (now.dev(), now.ino()) == self.file);
        if is_same { Ok(()) } else { Err(LedgerError::Gone { path: self.path.clone() }) }
    }

    fn snapshot(&self) -> Result<(), LedgerError> {
        let path = beside(&self.path, "snapshot");
        make_private(&path).map_err(|source| LedgerError::File { path: path.clone(), source })?;
        Ok(self.record.backup("main", path, None::<fn(_)>)?)
    }

    fn mend(&mut self) -> Result<(), LedgerError> {
        let Checked { dropped, newer } = journal::check(&self.record)?;
        self.newer = newer;
        if !self.newer.is_empty() {
            return Ok(());
        }
        let transaction = self.record.transaction_with_behavior(TransactionBehavior::Immediate)?;
        // Earlier versions wrote the head of a climb in two steps, between which a machine could die.
        transaction.execute(
            "DELETE FROM climbs WHERE checksum IS NULL AND climb NOT IN (SELECT climb FROM journal UNION SELECT climb FROM heads)",
            [],
        )?;
        journal::set_aside(&transaction, &dropped)?;
        let mut climbs: Vec<i64> = dropped.iter().map(|line| line.climb).collect();
        climbs.dedup();
        for climb in climbs {
            tables::rebuild(&transaction, climb)?;
            journal::add_head(&transaction, climb)?;
        }
        seals::seal(&transaction)?;
        transaction.commit()?;
        self.dropped = dropped;
        Ok(())
    }
}

/// Makes a file that is missing as the user's alone; what SQLite makes beside it has the same mode.
fn make_private(path: &Path) -> io::Result<()> {
    fs::OpenOptions::new().append(true).create(true).mode(0o600).open(path).map(drop)
}

fn connect(path: &Path, synchronous: &str) -> rusqlite::Result<Connection> {
    let connection = Connection::open(path)?;
    connection.busy_timeout(PATIENCE)?;
    connection.pragma_update(None, "journal_mode", "WAL")?;
    connection.pragma_update(None, "synchronous", synchronous)?;
    Ok(connection)
}
