//! The engine: a pure state machine that climbs a plan on a rig.
//!
//! [`Climb::next`] takes one [`Event`] and answers with a [`Step`]: what has to be recorded, durably, and then
//! at most one [`Command`] to carry out. Because a step has a single command behind its entries, nothing can
//! be done to a rig before the record of it is safe.
//!
//! ```text
//!           ┌──────────── Event ────────────┐
//!           ▼                               │
//!     Climb::next ──► Step { entries, command }
//!                            │        │
//!                    commit first   carry out
//! ```

mod baseline;
mod climb;
mod course;
mod decision;
mod each;
mod entry;
mod event;
mod grid;
mod map;
mod open;
mod outlook;
mod peak;
mod seek;
mod soak;
mod state;
mod walk;

pub use climb::Climb;
pub use decision::decide_alike;
pub use entry::{ClimbEnd, Declined, Entry, Mark, Profile};
pub use event::{Command, Event, Other, Question, RULES, Said, Step};
pub use outlook::{Outlook, Prospect};
