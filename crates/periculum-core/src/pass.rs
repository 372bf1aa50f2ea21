//! One run of one load at one rung: what is ordered and what comes back.

use std::collections::BTreeMap;

use serde::{Deserialize, Serialize};

use crate::incident::Incident;
use crate::moment::Span;

/// How many threads a load runs on.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Threads {
    /// One on every core there is.
    All,
    /// This many, above zero.
    Count(u32),
}

/// One run of one load, as a proof lists it.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Pass {
    /// The load's name.
    pub load: String,
    /// How long it runs, warm-up included.
    pub length: Span,
    /// On how many threads.
    pub threads: Threads,
}

/// Everything a rig needs to start a pass.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct PassOrder {
    /// The trial's number in the climb, from 1.
    pub trial: u32,
    /// Which pass of the proof, from 0.
    pub index: usize,
    /// What to run.
    pub pass: Pass,
}

/// A benchmark's natural number.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Score {
    /// The number.
    pub value: f64,
    /// Its unit, as in `GFLOP/s`; larger is better.
    pub unit: String,
}

/// How far a running pass has come.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize)]
pub struct Progress {
    /// How long it has run.
    pub done: Span,
    /// Rounds finished on all threads together.
    pub rounds: u64,
    /// Wrong rounds so far.
    pub errors: u64,
    /// Work done in a second, in the load's own unit; none before the first round.
    pub rate: Option<Score>,
}

/// How a pass ended.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize)]
pub struct PassReport {
    /// How long it ran.
    pub ran: Span,
    /// Rounds finished on all threads together.
    pub rounds: u64,
    /// What the load measured, where it ran to its end.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub score: Option<Score>,
    /// What went wrong, in order.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub incidents: Vec<Incident>,
    /// The highest reading of each sensor during the pass, by sensor name, in the sensor's unit.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub peaks: BTreeMap<String, f64>,
    /// Whether it was stopped before its end from outside.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub stopped: bool,
}
