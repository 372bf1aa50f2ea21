//! The record of Periculum on disk: one SQLite file that survives the death of the machine it is about.
//!
//! The journal is the record: append-only lines, each an event with the entries that the engine made of it,
//! committed in one transaction with a checksum. Every other table is made from the journal and can be made
//! again. [`Ledger::open`] checks what it finds, keeps what is good, and says exactly what it dropped.
//! The crate knows the core and nothing else; start reading at [`Ledger`].

mod attached;
mod checksum;
mod claim;
mod error;
mod finding;
mod journal;
mod ledger;
mod profiles;
mod projection;
mod queries;
mod records;
mod samples;
mod schema;
mod seals;
mod signs;

pub use attached::Attached;
pub use claim::Claim;
pub use error::LedgerError;
pub use journal::{Dropped, Line, Newer};
pub use ledger::{Ledger, NewClimb};
pub use profiles::{Armed, ProfileRow};
pub use queries::{ClimbRow, IncidentRow, LastLife, TrialRow};
pub use records::{Entered, EnteredRow, RecordRow};
pub use signs::{Sign, SignsOfLife};
