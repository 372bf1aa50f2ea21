//! Why the engine does what it does: data first, sentences for people from it.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::incident::IncidentKind;
use crate::rig::Rig;
use crate::verdict::Verdict;

/// Why a rung is tried.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(tag = "why", rename_all = "kebab-case")]
pub enum Reason {
    /// To know the rig before anything is changed.
    Baseline {
        /// Which trial of the baseline, from 1.
        nth: u32,
        /// How many there are.
        of: u32,
    },
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
    },
    /// An earlier trial of the same rung was broken off.
    Again {
        /// The number of the trial that was broken off.
        trial: u32,
    },
}

impl Reason {
    /// The reason as the part of a sentence behind "because".
    pub fn because(&self, rig: &Rig) -> String {
        match self {
            Self::Baseline { nth, of } if rig.settings.is_empty() && *of > 1 => {
                format!("it is to be measured ({nth} of up to {of})")
            }
            Self::Baseline { .. } if rig.settings.is_empty() => "it is to be proved".into(),
            Self::Baseline { nth, of } if *of > 1 => format!("the rig at stock comes first ({nth} of {of})"),
            Self::Baseline { .. } => "the rig at stock comes first".into(),
            Self::Harder { setting, from } => format!("{} is behind us", written(rig, setting, *from)),
            Self::StepBack { setting, from } => format!("{} did not hold", written(rig, setting, *from)),
            Self::Again { trial } => format!("trial {trial} was broken off"),
        }
    }
}

/// Why a stage is over.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
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
        /// The limit in words.
        limit: String,
    },
    /// No value held, down to the easiest one.
    NothingHeld {
        /// How the easiest one ended.
        verdict: Verdict,
        /// The worst that happened.
        incident: Option<IncidentKind>,
    },
}

impl StageEnd {
    /// The end as a sentence.
    pub fn sentence(&self, rig: &Rig) -> String {
        match self {
            Self::BaselineHeld => "stock holds".into(),
            Self::NextDidNotHold { setting, value, verdict, incident } => {
                format!("{} {verdict}{}", written(rig, setting, *value), in_brackets(*incident))
            }
            Self::AtLimit { setting, value, limit } => {
                format!("nothing beyond {} is allowed: {limit}", written(rig, setting, *value))
            }
            Self::NothingHeld { verdict, incident } => {
                format!("nothing held, and the easiest rung {verdict}{}", in_brackets(*incident))
            }
        }
    }
}

fn in_brackets(incident: Option<IncidentKind>) -> String {
    incident.map(|kind| format!(" ({kind})")).unwrap_or_default()
}

fn written(rig: &Rig, setting: &str, value: Decimal) -> String {
    rig.setting(setting).map_or_else(|| value.to_string(), |known| known.written(value))
}
