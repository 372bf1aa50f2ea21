//! A ledger in one file of SQLite.

mod attached;
mod checksum;
mod extract;
mod finding;
mod journal;
mod ledger;
mod profiles;
mod queries;
mod records;
mod samples;
mod schema;
mod seals;
mod store;
mod tables;

pub use attached::Attached;
pub use ledger::Ledger;
pub use profiles::{Armed, ProfileRow};
pub use records::{Entered, EnteredRow, RecordRow};
