//! Charts and reports of a climb, for people who were not there.
//!
//! [`ascent`], [`map`], [`score_curve`], [`traces`] and [`sheet`] draw a [`Figure`], which is written as SVG or PDF;
//! [`Reported`] tells a climb in [`Block`]s, which are written as Markdown, HTML or PDF. [`Table`] is what a climb is exported
//! as, and [`open_metrics`] and [`telemetry`] what monitoring reads. Start reading at [`Figure`], then `ascent`. The crate knows the core and nothing else, and opens no file.

mod ascent;
mod document;
mod figure;
mod font;
mod handout;
mod html;
mod map;
mod metrics;
mod palette;
mod pdf;
mod plane;
mod report;
mod report_curve;
mod score_curve;
mod sheet;
mod sheets;
mod svg;
mod table;
mod tables;
mod traces;
mod traces_over;

pub use ascent::ascent;
pub use document::{Block, report_markdown};
pub use figure::{ChartError, Colour, Figure, Shape};
pub use html::report_html;
pub use map::map;
pub use metrics::{open_metrics, telemetry};
pub use pdf::report_pdf;
pub use report::Reported;
pub use score_curve::score_curve;
pub use sheet::{Sheet, sheet};
pub use sheets::{comparison, places};
pub use table::{Cell, Table};
pub use tables::{attempts, incidents, samples, scores, trials};
pub use traces::traces;
pub use traces_over::traces_over;
