//! What is climbed and what can come of it: rigs, settings, plans, passes, incidents, verdicts, reasons.

pub mod amount;
pub mod budget;
mod by_hand;
pub mod depth;
pub mod ending;
pub mod errand;
pub mod evidence;
pub mod field;
mod field_of;
pub mod formula;
pub mod incident;
pub mod incident_kind;
pub mod ladder;
pub mod moment;
pub mod objection;
pub mod obstacle;
pub mod pass;
pub mod plan;
pub mod program;
pub mod quantity;
pub mod reason;
pub mod rig;
pub mod rung;
pub mod setting;
pub mod strategy;
pub mod task;
pub mod verdict;
