//! The record of Periculum on disk: one SQLite file that survives the death of the machine it is about.
//!
//! The journal is the record: append-only lines, each an event with the entries that the engine made of it,
//! committed in one transaction with a checksum. Everything else follows from the journal and can be made again.
//! [`Ledger::open`] checks what it finds, keeps what is good, and says exactly what it dropped.
//!
//! What a record is stands in `record`, which knows no database; [`Store`] is what whoever drives a climb needs of one, wherever it
//! is kept; `sqlite` keeps it in a file, with what only a file of one's own has: ranks, profiles, results from elsewhere. The
//! crate knows the core and nothing else; start reading at [`Ledger`].

mod claim;
mod error;
mod record;
mod rows;
mod signs;
mod sqlite;
mod store;

pub use claim::Claim;
pub use error::LedgerError;
pub use record::{Dropped, Line, Newer};
pub use rows::{ClimbId, ClimbRow, IncidentRow, LastLife, NewClimb, TrialRow};
pub use signs::{Sign, SignsOfLife};
pub use sqlite::{Armed, Attached, Entered, EnteredRow, Ledger, ProfileRow, RecordRow};
pub use store::Store;
