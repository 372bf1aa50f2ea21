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

mod answer;
mod climb;
mod course;
mod decision;
mod entry;
mod event;
mod outlook;
mod question;
pub mod route;
mod scoring;
mod state;
mod step;
pub mod watch;

pub use crate::model::field::{Entered, Field, Misfit, Takes, Written, check};
pub use answer::Answer;
pub use climb::Climb;
pub use decision::decide_alike;
pub use entry::{ClimbEnd, Declined, Entry, Mark, Profile};
pub use event::{Event, Noted, Other, RULES, Said};
pub use outlook::{Outlook, Prospect};
pub use question::{Question, Suggestion, Turn};
pub use step::{Command, Step};
