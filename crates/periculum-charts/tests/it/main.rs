//! Charts, tables and reports of climbs that are told by hand.

mod ascent;
mod common;
mod map;
mod metrics;
mod report;
mod score_curve;
mod sheets;
mod svg;
mod tables;
mod traces;
