//! The ledger from outside: what it keeps, what it says that it lost, and what it finds.

mod common;
mod crashes;
mod finding;
mod ledger;
mod properties;
mod records;
