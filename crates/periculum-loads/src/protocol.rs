//! What a load says to its parent: one JSON object a line on its standard output.

use serde::{Deserialize, Serialize};

use crate::frame::FaultKind;

/// A line from a load.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(tag = "says", rename_all = "kebab-case")]
pub enum Message {
    /// It knows its problem and is about to take its memory and work.
    Started(Started),
    /// It is alive and this far; several times a second.
    Progress(Progress),
    /// A result was wrong.
    Wrong(Wrong),
    /// A core works no more, though nobody has ended it.
    Lost {
        /// The processor, as the operating system numbers it.
        core: usize,
        /// How long the load had worked, seconds.
        seconds: f64,
        /// How it is known.
        why: String,
    },
    /// It dies of a signal that its own code raised; nothing follows.
    Struck {
        /// The processor whose thread raised it, as the operating system numbers it; none where another thread did.
        core: Option<usize>,
        /// The signal's number.
        signal: i32,
        /// The address that it is about.
        address: u64,
    },
    /// The device that it works on answers no more; nothing follows.
    DeviceLost {
        /// How long the load had worked, seconds.
        seconds: f64,
        /// How it is known.
        why: String,
    },
    /// It can't go on, as where there is not enough memory; nothing but the end follows.
    Failed {
        /// What is the matter.
        why: String,
    },
    /// It is done and exits.
    Ended(Progress),
}

/// What a load works on.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize)]
pub struct Started {
    /// The load's name.
    pub load: String,
    /// The kernel that the processor offers.
    pub kernel: String,
    /// The processors its threads are pinned to, as the operating system numbers them.
    pub cores: Vec<usize>,
    /// Size of the problem on each core.
    pub size: u64,
    /// What that size counts, as in `unknowns`.
    pub size_name: String,
    /// Memory it holds on all cores that work at a time, bytes.
    pub bytes: u64,
    /// How long a round should take, from a small trial, seconds; none where there was no time to try.
    pub round_seconds: Option<f64>,
    /// The unit of its rate.
    pub unit: String,
    /// Whether less of it is better.
    #[serde(default)]
    pub less_is_better: bool,
}

/// How far a load is.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize)]
pub struct Progress {
    /// How long it has worked, seconds.
    pub seconds: f64,
    /// Whether it still warms up.
    pub warms_up: bool,
    /// Rounds finished on all cores.
    pub rounds: u64,
    /// Wrong rounds on all cores.
    pub errors: u64,
    /// Its rate without the warm-up and checks not counted as work: of all cores together, or the mean core's where
    /// they work one by one or where rates don't add up, as those of clocks.
    pub rate: f64,
    /// All work since the warm-up over all time since then, checks and rests included, in the unit of the rate; 0 where the rate
    /// is no work over time.
    #[serde(default)]
    pub over_time: f64,
    /// How far it is on each core.
    pub cores: Vec<CoreProgress>,
    /// What else it measures, where it measures several things; the first is what its rate is of.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub figures: Vec<Figure>,
}

/// One of several things that a load measures.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Figure {
    /// What it is called, as in `skipped`.
    pub name: String,
    /// How much it is.
    pub value: f64,
    /// Its unit.
    pub unit: String,
    /// Whether less of it is better.
    pub less_is_better: bool,
}

/// How far a load is on one core.
#[derive(Clone, Debug, Default, PartialEq, Serialize, Deserialize)]
pub struct CoreProgress {
    /// The processor, as the operating system numbers it.
    pub core: usize,
    /// The thread that works on it, as the operating system numbers it; 0 where there is none of its own.
    #[serde(default)]
    pub thread: u32,
    /// What that does.
    #[serde(default)]
    pub state: CoreState,
    /// Rounds finished.
    pub rounds: u64,
    /// Wrong rounds.
    pub errors: u64,
    /// Its rate without the warm-up: the work of a round over the mean time of one.
    pub rate: f64,
    /// All work since the warm-up over all time since then, checks and rests included.
    #[serde(default)]
    pub over_time: f64,
    /// Standard error of that rate, as a share of it.
    #[serde(default)]
    pub noise: f64,
    /// The clock it really reached when last measured between two rounds, MHz; 0 before.
    pub clock: f64,
    /// When its last round was checked, seconds into the pass; 0 before.
    pub checked: f64,
}

/// What the thread of a core does.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
#[repr(u8)]
pub enum CoreState {
    /// There is none, or none yet.
    #[default]
    Absent,
    /// It takes its memory and fills it.
    Prepares,
    /// It waits for the others.
    Ready,
    /// It works.
    Works,
    /// It has come to its end.
    Done,
}

impl CoreState {
    /// Every state, in the order in which they follow each other.
    pub const ALL: [Self; 5] = [Self::Absent, Self::Prepares, Self::Ready, Self::Works, Self::Done];
}

/// A wrong result.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Wrong {
    /// The processor that it came from, as the operating system numbers it; none where that can't be told.
    pub core: Option<usize>,
    /// Which of the core's rounds, from 1.
    pub round: u64,
    /// How long the load had worked, seconds.
    pub seconds: f64,
    /// What kind of thing is wrong.
    pub kind: FaultKind,
    /// Where in the result or in memory, where that is known.
    pub part: Option<String>,
    /// What was expected, as bits or a bound.
    pub expected: String,
    /// What was found.
    pub found: String,
    /// How many wrong results this core has had, this one counted.
    pub nth: u64,
    /// Whether the same was wrong again when tried again, or before on this core; none where nothing is known.
    pub repeats: Option<bool>,
    /// The file in which the wrong picture was kept, where it is about one.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub picture: Option<String>,
}

impl std::fmt::Display for Wrong {
    /// One clause, as `round 7, columns 65–128: 3f… found, 3e… expected; 2nd on this core, the same again`.
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        write!(f, "round {}", self.round)?;
        if let Some(part) = &self.part {
            write!(f, ", {part}")?;
        }
        write!(f, ": {} found, {} expected; error {}", self.found, self.expected, self.nth)?;
        if self.core.is_some() {
            write!(f, " on this core")?;
        }
        match self.repeats {
            None => {}
            Some(true) => write!(f, ", the same again")?,
            Some(false) => write!(f, ", not the same again")?,
        }
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_wrong_result_is_told_in_one_clause() {
        let wrong = Wrong {
            core: Some(1),
            round: 7,
            seconds: 2.0,
            kind: FaultKind::Result,
            part: Some("tile 3".into()),
            expected: "0a".into(),
            found: "0b".into(),
            nth: 2,
            repeats: Some(false),
            picture: None,
        };
        let text = "round 7, tile 3: 0b found, 0a expected; error 2 on this core, not the same again";
        assert_eq!(wrong.to_string(), text);
    }
}
