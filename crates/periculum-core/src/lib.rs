//! What Periculum knows and decides, without any input or output.
//!
//! The crate has no clock, no threads, no files and no interface: time comes in with each event, and what is to be done goes
//! out as a value. It stands on [`inference`], what numbers say: intervals, comparisons, and how fast rigs fail. Its rooms, each of
//! which knows only those before it:
//!
//! - [`model`]: rigs, settings, plans, passes, incidents, verdicts, and the reasons for decisions;
//! - [`engine`]: the state machine that climbs; start reading at [`engine::Climb`];
//! - [`files`]: rig and plan files, read and written;
//! - [`story`]: the record of a climb, as views and reports show it;
//! - [`analysis`]: what stories say together: scores, terrain, contrasts, and what a plan will cost;
//! - [`telling`]: the sentences that are made from all this.
//!
//! Whoever comes anew reads `engine/event`, `engine/entry` and `engine/step`, which are all that goes in and comes out, then
//! `engine/climb/climber`, and one strategy in `engine/course`.

pub mod analysis;
pub mod engine;
pub mod files;
pub mod model;
pub mod story;
pub mod telling;

pub use periculum_inference as inference;
pub use rust_decimal::Decimal;
