//! What Periculum knows and decides, without any input or output.
//!
//! Rigs, settings, plans, verdicts and the engine that climbs live here. The crate has no clock, no threads,
//! no files and no interface: time comes in with each event, and what is to be done goes out as a value.
//! Start reading at [`engine::Climb`]; [`rig::Rig`] and [`plan::Plan`] say what it climbs, [`story::Story`]
//! is the record of a climb as a view shows it.

pub mod amount;
pub mod budget;
pub mod comparison;
pub mod contrast;
pub mod depth;
pub mod ending;
pub mod engine;
pub mod evidence;
pub mod file;
pub mod finding;
pub mod forecast;
pub mod formula;
pub mod hazard;
pub mod incident;
pub mod ladder;
pub mod moment;
pub mod pass;
pub mod plan;
pub mod profile;
pub mod program;
pub mod quantity;
pub mod readback;
pub mod reason;
pub mod rig;
pub mod route;
pub mod rung;
pub mod scores;
pub mod series;
pub mod setting;
pub mod statistics;
pub mod story;
pub mod stretch;
pub mod telling;
pub mod terrain;
pub mod verdict;
pub mod watch;

pub use rust_decimal::Decimal;
