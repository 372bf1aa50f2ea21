//! The record of a climb as views show it.

pub mod finding;
mod fold;
mod parts;
pub mod profile;
pub mod readback;
pub mod series;
pub mod stretch;

pub use fold::Story;
pub use parts::{EndStory, IncidentStory, PassStory, StageStory, TrialStory};
