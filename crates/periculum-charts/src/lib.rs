//! Charts and reports of a climb, for people who were not there.
//!
//! [`ascent_svg`] draws the ascent profile, [`report_markdown`] writes the short report. The crate knows the core
//! and nothing else; it returns text and writes no file.

mod ascent;
mod palette;
mod report;

pub use ascent::{ChartError, ascent_svg};
pub use report::report_markdown;
