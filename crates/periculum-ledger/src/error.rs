//! What can go wrong with a ledger.

use std::path::PathBuf;

use crate::rows::ClimbId;

/// Something wrong with a ledger.
#[derive(Debug, thiserror::Error)]
pub enum LedgerError {
    /// The folder or a file beside the ledger can't be used.
    #[error("can't use {path}")]
    File {
        /// Which file.
        path: PathBuf,
        /// Why.
        source: std::io::Error,
    },
    /// What was given as a ledger is a folder, a device or another thing that holds no record.
    #[error("{path} is no regular file, so it can't be a ledger")]
    NoFile {
        /// What was given.
        path: PathBuf,
    },
    /// The file is no SQLite database, or damaged beyond what SQLite reads.
    #[error("{path} is not a ledger, or is damaged: {why}")]
    Unreadable {
        /// Which file.
        path: PathBuf,
        /// What SQLite says of it.
        why: String,
    },
    /// A newer version made the file.
    #[error("{path} is of ledger format {found}, and this version knows formats up to {known}")]
    TooNew {
        /// Which file.
        path: PathBuf,
        /// Its format.
        found: i64,
        /// The newest format that is known.
        known: i64,
    },
    /// A newer version wrote into the file, and this one only reads it.
    #[error(
        "{path} is only read by this version: a newer one wrote line {line} of climb {climb} ({what}); write to it with \
         that version, or give this one --ledger FILE"
    )]
    ReadOnly {
        /// Which file.
        path: PathBuf,
        /// The climb.
        climb: i64,
        /// The line, from 0.
        line: i64,
        /// What is not known.
        what: String,
    },
    /// A newer version wrote a climb's record.
    #[error(
        "a newer version wrote the record of climb {climb} ({what}); it is left as it is, look at it with that version"
    )]
    NewerLine {
        /// The climb.
        climb: i64,
        /// What is not known.
        what: String,
    },
    /// Another process is climbing on this rig with this ledger.
    #[error("another periculum is climbing on {rig} with {path}; wait for it, or give this one --ledger FILE")]
    Claimed {
        /// Which rig.
        rig: String,
        /// Which ledger.
        path: PathBuf,
    },
    /// A climb's record is not what was written.
    #[error("the record of climb {climb} is damaged: {why}; `periculum ledger --check` keeps what is good of it")]
    Damaged {
        /// The climb.
        climb: i64,
        /// What is wrong with it.
        why: String,
    },
    /// Something beside the journal is not what was written.
    #[error("{what} is not what was written, so it is not used; `periculum ledger --check` looks at the whole file")]
    Altered {
        /// What.
        what: String,
    },
    /// The file was removed, or another one put in its place, while it was open.
    #[error("{path} has been removed or replaced while it was written to")]
    Gone {
        /// Which file.
        path: PathBuf,
    },
    /// There is no climb of this number.
    #[error("there is no climb {climb} in this ledger")]
    NoSuchClimb {
        /// The number.
        climb: i64,
    },
    /// There is no climb of this identifier.
    #[error("there is no climb {id} in this ledger")]
    UnknownClimb {
        /// The identifier.
        id: ClimbId,
    },
    /// A climb could not be given an identifier.
    #[error("the operating system has no random numbers to tell this climb from others by: {why}")]
    NoIdentifier {
        /// What it says.
        why: String,
    },
    /// A profile whose mark held no soak is not applied at start.
    #[error("profile {name} has not held a soak, and what has not may keep the machine from starting: soak it first")]
    NotSoaked {
        /// The profile's name.
        name: String,
    },
    /// The database refused something.
    #[error("the ledger's database failed")]
    Database(#[source] Box<dyn std::error::Error + Send + Sync>),
    /// A line can't be turned into text or back.
    #[error("a line of the ledger can't be written")]
    Format(#[from] serde_json::Error),
}

impl From<rusqlite::Error> for LedgerError {
    fn from(error: rusqlite::Error) -> Self {
        Self::Database(Box::new(error))
    }
}
