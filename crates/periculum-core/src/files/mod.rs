//! Rig and plan files: TOML read with the place of everything in it, so that every problem is told where it is.
//!
//! A file is read in two steps. [`Document`] is the text and its tables; [`rig_file::read`] and
//! [`plan_file::read`] turn it into a [`crate::model::rig::Rig`] and a [`crate::model::plan::Plan`], gathering every problem
//! on the way instead of stopping at the first.

pub mod added;
mod budget_file;
mod curve_file;
mod document;
mod formula_text;
mod label;
pub mod outlet_file;
mod problem;
mod section;
mod setting_file;
mod share;
mod stage_file;
mod start_file;
mod task_file;

pub mod outline;
pub mod plan_file;
pub mod program_file;
pub mod proof_file;
pub mod rig_file;
pub mod rig_text;
pub mod written;

pub use document::Document;
pub use problem::{Problem, Problems};
pub use section::{Located, Section};
