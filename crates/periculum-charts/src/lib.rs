//! Charts and reports of a climb, for people who were not there.
//!
//! [`ascent_svg`] draws the ascent profile, [`report_markdown`] writes the short report, [`Table`] is what a climb is
//! exported as, and [`open_metrics`] what monitoring reads. The crate knows the core and nothing else, and opens no file.

mod ascent;
mod metrics;
mod palette;
mod report;
mod table;
mod tables;

pub use ascent::{ChartError, ascent_svg};
pub use metrics::open_metrics;
pub use report::report_markdown;
pub use table::{Cell, Table};
pub use tables::{incidents, samples, scores, trials};
