//! One run of one load at one rung: what is ordered and what comes back.

use std::collections::BTreeMap;
use std::fmt;

use serde::{Deserialize, Serialize};

use crate::model::amount::{Amount, written};
use crate::model::field::Written;
use crate::model::incident::Incident;
use crate::model::moment::Span;
use crate::model::program::Program;
use crate::model::quantity::grouped;
use crate::model::task::Task;

/// How many threads a load runs on.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Threads {
    /// One on every core there is.
    All,
    /// This many, above zero.
    Count(u32),
    /// One on every core there is, one core at a time.
    Each,
}

impl fmt::Display for Threads {
    /// As a plan has it, without quotes.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::All => f.write_str("all"),
            Self::Count(count) => write!(f, "{count}"),
            Self::Each => f.write_str("each"),
        }
    }
}

/// How large a problem a load works on.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Extent {
    /// The load's own choice.
    #[default]
    Usual,
    /// This size on each core, in the load's own measure.
    Size(u64),
    /// As large as fits into this much memory for all cores.
    Memory(Amount),
}

/// When a load ends before its time is over.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum StopOn {
    /// At the first wrong result.
    #[default]
    First,
    /// Never: every wrong result is told.
    Never,
}

/// What a pass asks for that has a usual value.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub struct Demand {
    /// How many rounds each core works at most; as many as there is time for without a number.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub times: Option<u64>,
    /// How large the problem is.
    #[serde(default)]
    pub extent: Extent,
    /// How much of the machine's memory must stay available, bytes; without a number what the rig keeps.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reserve: Option<u64>,
    /// How nice the load is to everything else, as the operating system counts it: -20 to 19.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub priority: Option<i32>,
    /// When it ends before its time.
    #[serde(default)]
    pub stop_on: StopOn,
}

impl Demand {
    fn is_usual(&self) -> bool {
        *self == Self::default()
    }
}

/// One run of one load, as a proof lists it.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Pass {
    /// The load's name.
    pub load: String,
    /// How long it runs, warm-up included.
    pub length: Span,
    /// How long the rig rests before it.
    #[serde(default, skip_serializing_if = "Span::is_zero")]
    pub pause: Span,
    /// On how many threads.
    pub threads: Threads,
    /// What else it asks for.
    #[serde(default, skip_serializing_if = "Demand::is_usual")]
    pub demand: Demand,
    /// The device that it runs on, as its card is called, by its number or a part of its name; none for the best there is, and for
    /// what runs on processors.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub device: Option<String>,
    /// The user's own program that the load is; none for a load that comes with this one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub program: Option<Box<Program>>,
    /// What somebody does who makes the pass by hand; none where a load runs by itself.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub by_hand: Option<Box<Task>>,
}

impl Pass {
    /// A pass on every core that asks for nothing unusual.
    pub fn usual(load: impl Into<String>, length: Span) -> Self {
        Self {
            load: load.into(),
            length,
            pause: Span::ZERO,
            threads: Threads::All,
            demand: Demand::default(),
            device: None,
            program: None,
            by_hand: None,
        }
    }
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
    /// Which of the climb's trials that said something it is, from 1: what was broken off does not count, so that it changes
    /// nobody's luck.
    pub nth: u32,
    /// The processors that it is about, where it runs on some only, as the operating system numbers them; empty for any.
    pub cores: Vec<u32>,
}

/// A benchmark's natural number.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Score {
    /// The number.
    pub value: f64,
    /// Its unit, as in `GFLOP/s`.
    pub unit: String,
    /// Whether less of it is better, as of a latency.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub less_is_better: bool,
}

impl Score {
    /// A score of which more is better.
    pub fn of(value: f64, unit: impl Into<String>) -> Self {
        Self { value, unit: unit.into(), less_is_better: false }
    }

    /// A number of which more is better, whatever the score counts: the score or its reciprocal.
    pub fn merit(&self) -> f64 {
        if self.less_is_better { 1.0 / self.value } else { self.value }
    }
}

/// What a load made of its order.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Workload {
    /// The kernel that the processor offers.
    pub kernel: String,
    /// Size of the problem on each core.
    pub size: u64,
    /// What that size counts, as in `unknowns`.
    pub size_name: String,
    /// Memory that all cores hold at a time, bytes.
    pub bytes: u64,
    /// How long a round should take; none where that is not known.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub round: Option<Span>,
}

impl fmt::Display for Workload {
    /// One clause, as `2 000 unknowns, 122 MiB, about 350 ms a round, avx512 kernel`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let size = grouped(self.size.into());
        write!(f, "{size} {}, {}", self.size_name, written(self.bytes))?;
        if let Some(round) = self.round {
            write!(f, ", about {round} a round")?;
        }
        write!(f, ", {} kernel", self.kernel)
    }
}

/// How far a running pass has come on one core.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize)]
pub struct CoreProgress {
    /// The processor, as the operating system numbers it.
    pub core: usize,
    /// Rounds finished.
    pub rounds: u64,
    /// Wrong rounds.
    pub errors: u64,
    /// Work done in a second, in the pass's own unit.
    pub rate: f64,
    /// Standard error of the rate, as a share of it.
    pub noise: f64,
    /// The clock it really reached, MHz; none where it was not measured.
    pub clock: Option<f64>,
    /// How long into the pass its last result was checked; none before the first.
    pub checked: Option<Span>,
}

/// How far a running pass has come.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize)]
pub struct Progress {
    /// How long it has run.
    pub done: Span,
    /// Whether it still warms up.
    #[serde(default)]
    pub warms_up: bool,
    /// Rounds finished on all threads together.
    pub rounds: u64,
    /// Wrong rounds so far.
    pub errors: u64,
    /// Work done in a second, in the load's own unit; none before the first round.
    pub rate: Option<Score>,
    /// What it works on, where the load told.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub workload: Option<Workload>,
    /// How far it is on each core, where the load told.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub cores: Vec<CoreProgress>,
}

/// How many standard errors a core must be slower than the middle of the others to fall behind them.
const CLEARLY: f64 = 4.0;

/// Cores that differ by less than this share do not differ for any purpose.
const LEAST: f64 = 0.01;

impl Progress {
    /// Whether this core is slower than the median of the others by more than their noise.
    pub fn falls_behind(&self, core: &CoreProgress) -> bool {
        let others = self.cores.iter().filter(|other| other.core != core.core && other.rate > 0.0);
        let mut others: Vec<&CoreProgress> = others.collect();
        others.sort_by(|a, b| a.rate.total_cmp(&b.rate));
        let Some(middle) = others.get(others.len() / 2) else { return false };
        let noise = core.noise.hypot(middle.noise);
        core.rate > 0.0 && core.rate < middle.rate * (1.0 - LEAST.max(CLEARLY * noise))
    }
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
    /// What else was measured by the same pass.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub further: Vec<Score>,
    /// What its scores are called, where there are several.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub score_names: Vec<String>,
    /// All of the load's work over all of its time since the warm-up, in the score's unit: below the score by what checks,
    /// pauses and waiting for a processor took. None where the score is no work over time.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub over_time: Option<f64>,
    /// What went wrong, in order.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub incidents: Vec<Incident>,
    /// The highest reading of each sensor during the pass, by sensor name, in the sensor's unit.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub peaks: BTreeMap<String, f64>,
    /// What it worked on, where the load told.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub workload: Option<Workload>,
    /// Why it could not be started at all; nothing ran then, and nothing is known of the rung.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub refused: Option<String>,
    /// Whether it ran to its end and not everything was checked, since a core finished no round or somebody halted the load: that
    /// says nothing about the rung.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub unchecked: bool,
    /// Whether it was stopped before its end from outside.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub stopped: bool,
    /// What somebody wrote down who made it by hand, as it was typed.
    #[serde(default, skip_serializing_if = "Written::is_empty")]
    pub written: Written,
}

impl PassReport {
    /// All its scores with what they are called: by the load that it is of, and where there are several by that and their own name.
    pub fn scores<'a>(&'a self, load: &'a str) -> impl Iterator<Item = (String, &'a Score)> {
        let name = move |(place, score)| match self.score_names.get(place) {
            Some(name) => (format!("{load} {name}"), score),
            None => (load.to_owned(), score),
        };
        self.score.iter().chain(&self.further).enumerate().map(name)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn progress(rates: &[(f64, f64)]) -> Progress {
        let core = |(core, (rate, noise)): (usize, &(f64, f64))| CoreProgress {
            core,
            rate: *rate,
            noise: *noise,
            ..CoreProgress::default()
        };
        Progress { cores: rates.iter().enumerate().map(core).collect(), ..Progress::default() }
    }

    fn behind(rates: &[(f64, f64)]) -> Vec<usize> {
        let progress = progress(rates);
        progress.cores.iter().filter(|core| progress.falls_behind(core)).map(|core| core.core).collect()
    }

    #[test]
    fn a_core_falls_behind_when_it_is_slower_by_more_than_the_noise() {
        assert_eq!(behind(&[(50.0, 0.001), (50.1, 0.001), (47.0, 0.001), (50.0, 0.001)]), [2]);
        assert_eq!(behind(&[(50.0, 0.02), (50.1, 0.02), (47.0, 0.02)]), [0; 0]);
        assert_eq!(behind(&[(50.0, 0.0), (49.8, 0.0)]), [0; 0]);
        assert_eq!(behind(&[(50.0, 0.0), (40.0, 0.0)]), [1]);
        assert_eq!(behind(&[(50.0, 0.0)]), [0; 0]);
        // A core that has not worked so far has no rate to compare.
        assert_eq!(behind(&[(50.0, 0.0), (0.0, 0.0)]), [0; 0]);
    }

    #[test]
    fn a_workload_is_told_in_one_clause() {
        let workload = Workload {
            kernel: "avx2".into(),
            size: 20_000,
            size_name: "unknowns".into(),
            bytes: 6 << 30,
            round: Some(Span::from_seconds(95)),
        };
        assert_eq!(workload.to_string(), "20 000 unknowns, 6.0 GiB, about 1 min 35 s a round, avx2 kernel");
    }

    #[test]
    fn passes_recorded_before_there_were_demands_are_read_as_usual_ones() {
        let old = r#"{"load":"dense","length":60000,"threads":"all"}"#;
        let pass = Pass::usual("dense", Span::from_seconds(60));
        assert_eq!(serde_json::from_str::<Pass>(old).expect("json"), pass);
        assert_eq!(serde_json::to_string(&pass).expect("json"), old);
    }
}
