//! Why the engine does what it does: data first, sentences for people from it.

use std::fmt;

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::incident::IncidentKind;
use crate::moment::Span;
use crate::quantity::with_unit;
use crate::rig::Rig;
use crate::verdict::Verdict;

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
    /// A trial of this length teaches most about the limit for what it costs.
    Learn {
        /// The setting that moves.
        setting: String,
        /// How long the trial is.
        length: Span,
        /// What is known of the rung.
        foresight: Foresight,
    },
    /// The limit is known well enough to put a rung within it to the proof.
    Confirm {
        /// The setting that moves.
        setting: String,
        /// What is known of the rung.
        foresight: Foresight,
    },
    /// What the stages before have come to is put to a long proof.
    Soak {
        /// The setting that gives way.
        setting: String,
        /// How many steps easier than the mark it is.
        margin: u32,
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
            Self::Learn { setting, foresight, .. } => {
                format!("it tells most about the limit, so far {}", foresight.limit(rig, setting))
            }
            Self::Confirm { foresight, .. } => format!("it is expected to hold: {foresight}"),
            Self::Soak { margin: 0, .. } => "what was found is to be proved".into(),
            Self::Soak { margin, .. } => {
                format!("{margin} step{} of margin are kept", if *margin == 1 { "" } else { "s" })
            }
            Self::Again { trial } => format!("trial {trial} was broken off"),
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

impl Foresight {
    /// The limit in words, as `4 712 MHz ± 1.4 steps`.
    fn limit(&self, rig: &Rig, setting: &str) -> String {
        let unit = rig.setting(setting).map_or("", |setting| setting.unit.as_str());
        format!(
            "{} ± {:.1} steps",
            with_unit(self.limit.round_sf(4).unwrap_or(self.limit).normalize(), unit),
            self.deviation
        )
    }
}

impl fmt::Display for Foresight {
    /// As `it survives with 93 % (71 to 99 %)`.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let Self { survival, low, high, .. } = self;
        write!(f, "it survives with {:.0} % ({:.0} to {:.0} %)", 100.0 * survival, 100.0 * low, 100.0 * high)
    }
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
        /// The limit in words.
        limit: String,
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
            Self::LimitKnown { setting, value, target, foresight } => {
                format!("{} is not sure to hold {target}: {foresight}", written(rig, setting, *value))
            }
            Self::Soaked => "it held".into(),
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
