//! Why the engine does what it does, as data, which `telling` makes sentences of.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::model::budget::Limit;
use crate::model::depth::Depth;
use crate::model::evidence::Bound;
use crate::model::incident::IncidentKind;
use crate::model::moment::Span;
use crate::model::rung::Rung;
use crate::model::verdict::Verdict;

/// Why a rung is tried.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(tag = "why", rename_all = "kebab-case")]
pub enum Reason {
    /// To know the rig before anything is changed.
    Baseline {
        /// Which trial of the baseline, from 1.
        nth: u32,
        /// How many there are.
        of: u32,
        /// Which start of the machine it begins with, from 2, where it begins with one of its own.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        start: Option<u32>,
    },
    /// A short trial at stock before a long one: what is wrong from the beginning shows at once.
    WarmUp {
        /// How long it is.
        length: Span,
    },
    /// Where a stage starts has not held so far in this climb.
    Start,
    /// The value before it held, so the next one is harder.
    Harder {
        /// The setting that moves.
        setting: String,
        /// The value that held, or that the stage starts from.
        from: Decimal,
    },
    /// A harder value did not hold.
    StepBack {
        /// The setting that moves.
        setting: String,
        /// The value that did not hold.
        from: Decimal,
        /// How deep it fell, which decides how far back it goes.
        #[serde(default)]
        depth: Depth,
    },
    /// A limit that only holds the search back is opened.
    Open {
        /// The setting that is the limit.
        setting: String,
    },
    /// The rung before fell, and is tried again with more of what is fed.
    Feed {
        /// The setting that is fed.
        setting: String,
        /// The value of it that was not enough.
        from: Decimal,
        /// The setting that climbs.
        climbed: String,
        /// Its value.
        value: Decimal,
    },
    /// It is the next combination of a grid.
    Combination {
        /// Which, from 1; those that can't hold are passed over.
        nth: u32,
        /// How many there are.
        of: u32,
    },
    /// Each setting has a limit of its own, and now all go there together.
    Together {
        /// By how many steps each is back from its limit.
        back: u32,
    },
    /// What drives a core that something went wrong on gives way first.
    GivesWay {
        /// The settings that are easier now.
        settings: Vec<String>,
        /// The cores that something went wrong on.
        cores: Vec<u32>,
    },
    /// Something went wrong that no one of the settings alone is known to be to blame for: all of them give way.
    AllGiveWay,
    /// Beside their own limits one common value is measured.
    Common {
        /// The value that all have.
        value: Decimal,
    },
    /// The score at this value is to be known.
    Score {
        /// The setting that moves.
        setting: String,
        /// Which measurement, from 1.
        nth: u32,
        /// How many there are.
        of: u32,
    },
    /// A score was clearly too low, as when another program takes the processor: it is measured again.
    Disturbed {
        /// The number of the trial that had it.
        trial: u32,
    },
    /// A trial of this length teaches most about the limit for what it costs.
    Learn {
        /// The setting that moves.
        setting: String,
        /// How long the trial is.
        length: Span,
        /// What is known of the rung; nothing before something fell.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        foresight: Option<Foresight>,
    },
    /// The limit is known well enough to put a rung within it to the proof.
    Confirm {
        /// The setting that moves.
        setting: String,
        /// What is known of the rung.
        foresight: Foresight,
    },
    /// The operator wants it.
    Chosen,
    /// The operator goes back to what held.
    Back {
        /// The number of the trial that it held in.
        trial: u32,
    },
    /// It lies between a value that held and a harder one that did not.
    Between {
        /// The setting that moves.
        setting: String,
        /// The value that held.
        held: Decimal,
        /// The value that did not.
        fell: Decimal,
    },
    /// What the stages before have come to is put to a long proof.
    Soak {
        /// The setting that gives way.
        setting: String,
        /// How many steps easier than the mark it is.
        margin: u32,
    },
    /// In an earlier trial of the same rung not everything was checked: a core finished no round, or the load was halted.
    MoreTime {
        /// The number of that trial.
        trial: u32,
    },
    /// An earlier trial of the same rung was broken off.
    Again {
        /// The number of the trial that was broken off.
        trial: u32,
    },
}

impl Reason {
    /// How long the trial is, where that is not as long as its proof.
    pub fn length(&self) -> Option<Span> {
        match self {
            Self::Learn { length, .. } | Self::WarmUp { length } => Some(*length),
            _ => None,
        }
    }

    /// The number of the trial that is made again, where that is the reason.
    pub fn repeats(&self) -> Option<u32> {
        match self {
            Self::Again { trial } | Self::MoreTime { trial } | Self::Disturbed { trial } => Some(*trial),
            _ => None,
        }
    }

    /// Whether the machine is started anew for the trial, whatever is in force.
    pub fn wants_start(&self) -> bool {
        matches!(self, Self::Baseline { start: Some(_), .. })
    }

    /// The number of the trial that was disturbed, where that is the reason.
    pub fn disturbed(&self) -> Option<u32> {
        match self {
            Self::Disturbed { trial } => Some(*trial),
            _ => None,
        }
    }
}

/// What is known of a rung before it is tried, from falls and survivals at others.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize)]
pub struct Foresight {
    /// The probability that it survives the proof.
    pub survival: f64,
    /// With a probability of 0.05 that probability is below this.
    pub low: f64,
    /// With a probability of 0.05 that probability is above this.
    pub high: f64,
    /// The probability that it survives the proof nine times of ten or more often.
    pub within: f64,
    /// The hardest value that does, as far as is known, in the setting's unit.
    pub limit: Decimal,
    /// Its standard deviation, in steps.
    pub deviation: f64,
}

/// Why a stage is over.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(tag = "because", rename_all = "kebab-case")]
pub enum StageEnd {
    /// The baseline held every time.
    BaselineHeld,
    /// The value beyond the mark did not hold.
    NextDidNotHold {
        /// The setting that moved.
        setting: String,
        /// The value that did not hold.
        value: Decimal,
        /// How it ended.
        verdict: Verdict,
        /// The worst that happened.
        incident: Option<IncidentKind>,
    },
    /// The next value would be beyond a limit.
    AtLimit {
        /// The setting that moved.
        setting: String,
        /// The last value before the limit.
        value: Decimal,
        /// What the limit is.
        limit: Bound,
    },
    /// The next value would not survive the proof often enough.
    LimitKnown {
        /// The setting that moved.
        setting: String,
        /// The next value.
        value: Decimal,
        /// How long the proof takes.
        target: Span,
        /// What is known of that value.
        foresight: Foresight,
    },
    /// The next value gets too hot or is throttled: the limit is the cooling or the power, not what more voltage helps.
    Limited {
        /// The setting that moved.
        setting: String,
        /// The value that was throttled or got too hot.
        value: Decimal,
        /// Which of both.
        incident: IncidentKind,
    },
    /// A limit was opened.
    Opened {
        /// The setting that was the limit.
        setting: String,
        /// The value it has now.
        value: Decimal,
    },
    /// Every combination was tried, but those that could not hold.
    GridDone {
        /// How many held.
        held: u32,
        /// How many did not.
        fell: u32,
        /// How many were not tried, because they are in no way easier than one that did not hold.
        skipped: u32,
        /// The combination with the best score, where there are scores.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        fastest: Option<Fastest>,
        /// What the order of the combinations spared whoever changed them by hand.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        spared: Option<Spared>,
    },
    /// Each setting's own limit is known, and what they hold together.
    EachKnown {
        /// The limits of each alone.
        alone: Vec<Alone>,
        /// By how many steps each is back from that when all hold together; at most, where they differ.
        back: u32,
        /// By how many steps each of them is back, where they differ.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        apart: Vec<u32>,
        /// The gain in score over one common value, as a share; none where that is not known.
        gain: Option<f64>,
    },
    /// The border is known.
    Mapped {
        /// The setting whose limit was found.
        setting: String,
        /// The setting along which it was found.
        over: String,
        /// The limits.
        border: Vec<Border>,
    },
    /// Harder values score less.
    PastPeak {
        /// The setting that moved.
        setting: String,
        /// The benchmark that decided it; none where records of earlier versions do not say.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        benchmark: Option<String>,
    },
    /// No pass of the proof has a score, so that there is nothing to compare.
    NoScore,
    /// The budget ended first.
    BudgetSpent {
        /// Which of its limits.
        limit: Limit,
    },
    /// The operator has led as far as it goes.
    Led {
        /// How many rungs were tried.
        tried: u32,
    },
    /// The rung held the long proof.
    Soaked,
    /// No value held, down to the easiest one.
    NothingHeld {
        /// How the easiest one ended.
        verdict: Verdict,
        /// The worst that happened.
        incident: Option<IncidentKind>,
    },
}

/// What an order of combinations takes, and what it would take with easy ones simply coming first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Spared {
    /// Visits to the machine.
    pub visits: [u32; 2],
    /// Single changes in them.
    pub changes: [u32; 2],
}

/// The rung with the best score of those that held.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Fastest {
    /// The rung.
    pub rung: Rung,
    /// The trial that scored.
    pub trial: u32,
}

/// The limit of one setting alone.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Alone {
    /// The setting.
    pub setting: String,
    /// The hardest value that held.
    pub value: Decimal,
}

/// One point of a border.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Border {
    /// The value of the setting along which it runs.
    pub value: Decimal,
    /// The limit of the other setting there, in its unit, between the values of its ladder too.
    pub limit: Decimal,
    /// Its standard deviation, in steps.
    pub deviation: f64,
    /// How many trials of this row it rests on; none where records of earlier versions do not say.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub trials: Option<u32>,
    /// The least and the greatest value that it may have with 95 %, within the ladder and the limits of the setting.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub between: Option<[Decimal; 2]>,
}
