//! What a load says to its parent: one JSON object a line on its standard output.

use serde::{Deserialize, Serialize};

/// A line from a load.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(tag = "says", rename_all = "kebab-case")]
pub enum Message {
    /// It has its memory and is about to work.
    Started {
        /// The load's name.
        load: String,
        /// The kernel that the processor offers.
        kernel: String,
        /// The processors its threads are pinned to, as the operating system numbers them.
        cores: Vec<usize>,
        /// Order of the linear systems.
        order: usize,
        /// Memory it holds, bytes.
        bytes: u64,
    },
    /// It is alive and this far; several times a second.
    Progress(Progress),
    /// A result was wrong.
    Wrong(Wrong),
    /// It is done and exits.
    Ended(Progress),
}

/// How far a load is.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize)]
pub struct Progress {
    /// How long it has worked, seconds.
    pub seconds: f64,
    /// Rounds finished on all cores.
    pub rounds: u64,
    /// Wrong rounds on all cores.
    pub errors: u64,
    /// Work done in a second on all cores, GFLOP/s, checks not counted as work.
    pub rate: f64,
    /// The same for each core.
    pub cores: Vec<CoreProgress>,
}

/// How far a load is on one core.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize)]
pub struct CoreProgress {
    /// The processor, as the operating system numbers it.
    pub core: usize,
    /// Rounds finished.
    pub rounds: u64,
    /// Wrong rounds.
    pub errors: u64,
    /// Work done in a second, GFLOP/s.
    pub rate: f64,
}

/// A wrong result.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Wrong {
    /// The processor that it came from, as the operating system numbers it.
    pub core: usize,
    /// Which of the core's rounds, from 1.
    pub round: u64,
    /// How long the load had worked, seconds.
    pub seconds: f64,
    /// What was expected and what was found.
    pub evidence: String,
}
