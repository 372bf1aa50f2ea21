//! Why the engine does what it does: data first, sentences for people from it.

use std::fmt;

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::budget::Limit;
use crate::depth::Depth;
use crate::evidence::Bound;
use crate::incident::IncidentKind;
use crate::moment::Span;
use crate::quantity::{counted, with_unit};
use crate::rig::Rig;
use crate::rung::Rung;
use crate::telling::bound_words;
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

    /// The number of the trial that was disturbed, where that is the reason.
    pub fn disturbed(&self) -> Option<u32> {
        match self {
            Self::Disturbed { trial } => Some(*trial),
            _ => None,
        }
    }

    /// The reason as the part of a sentence behind "because".
    pub fn because(&self, rig: &Rig) -> String {
        match self {
            Self::Baseline { nth, of } if rig.settings.is_empty() && *of > 1 => {
                format!("it is to be measured ({nth} of up to {of})")
            }
            Self::Baseline { .. } if rig.settings.is_empty() => "it is to be proved".into(),
            Self::Baseline { nth, of } if *of > 1 => format!("the rig at stock comes first ({nth} of {of})"),
            Self::Baseline { .. } => "the rig at stock comes first".into(),
            Self::WarmUp { .. } => "a rig that is new begins with a short one".into(),
            Self::Harder { setting, from } => format!("{} held", written(rig, setting, *from)),
            Self::StepBack { setting, from, depth } => {
                let how = match depth {
                    Depth::Shallow => "did not hold",
                    Depth::Deep => "fell deep",
                    Depth::MachineDown => "took the machine down",
                };
                format!("{} {how}", written(rig, setting, *from))
            }
            Self::Open { setting } => format!("{} is raised so that it does not limit the search", label(rig, setting)),
            Self::Feed { setting, from, climbed, value } => format!(
                "{} fell with {} of {}",
                written(rig, climbed, *value),
                written(rig, setting, *from),
                label(rig, setting)
            ),
            Self::Start => "the stage starts there, and it has not held so far".into(),
            Self::Combination { nth, of } => format!("it is combination {nth} of {of}"),
            Self::Together { back: 0 } => "each alone held there".into(),
            Self::Together { back } => format!("together they have to be {back} back"),
            Self::Common { .. } => "one common value is to be compared".into(),
            Self::Score { setting, nth, of } => {
                format!("the score at this {} is to be known ({nth} of {of})", label(rig, setting))
            }
            Self::Disturbed { trial } => format!("the score of trial {trial} was too low to be undisturbed"),
            Self::Learn { foresight: None, .. } => "nothing has fallen so far".into(),
            Self::Learn { setting, foresight: Some(foresight), .. } => {
                format!("it tells most about the limit, so far {}", foresight.limit(rig, setting))
            }
            Self::Confirm { foresight, .. } => format!("it is expected to hold: {foresight}"),
            Self::Soak { margin: 0, .. } => "what was found is to be proved".into(),
            Self::Soak { margin, .. } => format!("{} of margin are kept", counted(*margin, "step")),
            Self::MoreTime { trial } => {
                format!("trial {trial} did not check everything in its time, so its passes get more")
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
    },
    /// Each setting's own limit is known, and what they hold together.
    EachKnown {
        /// The limits of each alone.
        alone: Vec<Alone>,
        /// By how many steps each is back from that when all hold together.
        back: u32,
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
                let limit = bound_words(limit, rig.setting(setting));
                format!("nothing beyond {} is allowed: {limit}", written(rig, setting, *value))
            }
            Self::LimitKnown { setting, value, target, foresight } => {
                format!("{} is not sure to hold {target}: {foresight}", written(rig, setting, *value))
            }
            Self::Limited { setting, value, incident } => {
                let did = if *incident == IncidentKind::TooHot { "gets too hot" } else { "is throttled" };
                format!("{} {did}: not its stability is the limit", written(rig, setting, *value))
            }
            Self::Opened { setting, value } => {
                format!("{} is open to {}", label(rig, setting), written(rig, setting, *value))
            }
            Self::GridDone { held, fell, skipped, fastest } => {
                let fastest = fastest.as_ref().map(|fastest| {
                    format!("; the best score is that of trial {}, {}", fastest.trial, rig.written(&fastest.rung))
                });
                let skipped = if *skipped == 0 { String::new() } else { format!(", {skipped} could not hold") };
                format!("{held} held, {fell} did not{skipped}{}", fastest.unwrap_or_default())
            }
            Self::EachKnown { alone, back, gain } => each_known(rig, alone, *back, *gain),
            Self::Mapped { setting, over, border } => mapped(rig, setting, over, border),
            Self::PastPeak { setting, benchmark } => {
                let of = benchmark.as_ref().map(|load| format!(" in {load}")).unwrap_or_default();
                format!("harder values of {} score less{of}", label(rig, setting))
            }
            Self::NoScore => "no pass of the proof has a score".into(),
            Self::BudgetSpent { limit } => limit.to_string(),
            Self::Soaked => "it held".into(),
            Self::NothingHeld { verdict, incident } => {
                format!("nothing held, and the easiest rung {verdict}{}", in_brackets(*incident))
            }
        }
    }
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

impl Border {
    /// The limit in words: a number where trials of this very row say so, an interval where others suggest it.
    pub fn words(&self, unit: &str) -> String {
        let written = |value: Decimal| with_unit(value.round_sf(4).unwrap_or(value).normalize(), unit);
        match (self.trials, self.between) {
            (Some(0), Some([low, high])) => {
                let low = low.round_sf(4).unwrap_or(low).normalize();
                format!("untested, somewhere from {low} to {}", written(high))
            }
            (Some(0), None) => "untested".into(),
            _ => written(self.limit),
        }
    }
}

/// As `strongest: core 3 (5 000 MHz), weakest: core 1 (4 800 MHz); together they hold one step back, +2.1 % over one common
/// value`.
fn each_known(rig: &Rig, alone: &[Alone], back: u32, gain: Option<f64>) -> String {
    let is_harder =
        |a: &Alone, b: &Alone| rig.setting(&a.setting).is_some_and(|known| known.is_harder(b.value, a.value));
    let strongest = alone.iter().reduce(|best, one| if is_harder(one, best) { one } else { best });
    let weakest = alone.iter().reduce(|worst, one| if is_harder(worst, one) { one } else { worst });
    let named = |one: &Alone| format!("{} ({})", label(rig, &one.setting), written(rig, &one.setting, one.value));
    let ends = match (strongest, weakest) {
        (Some(strongest), Some(weakest)) if strongest.value != weakest.value => {
            format!("strongest: {}, weakest: {}", named(strongest), named(weakest))
        }
        (Some(one), _) => format!("all go as far as {}", named(one)),
        _ => "there is none".into(),
    };
    let together = match back {
        0 => "together they hold there".to_owned(),
        1 => "together they hold one step back".to_owned(),
        _ => format!("together they hold {back} steps back"),
    };
    let gain = gain.map(|gain| format!(", {:+.1} % over one common value", 100.0 * gain));
    format!("{ends}; {together}{}", gain.unwrap_or_default())
}

/// As `core clock holds to 4 900 MHz at 1.250 V, to 4 700 MHz at 1.150 V`.
fn mapped(rig: &Rig, setting: &str, over: &str, border: &[Border]) -> String {
    let unit = rig.setting(setting).map_or("", |setting| setting.unit.as_str());
    let point = |point: &Border| {
        let to = if point.trials == Some(0) { "" } else { "to " };
        format!("{to}{} at {}", point.words(unit), written(rig, over, point.value))
    };
    let tested: Vec<&Border> = border.iter().filter(|row| row.trials != Some(0)).collect();
    let untested = border.len() - tested.len();
    let ends: Vec<String> = match tested[..] {
        [first, .., last] => vec![point(first), point(last)],
        _ => tested.iter().map(|row| point(row)).collect(),
    };
    let untested = match untested {
        0 => String::new(),
        1 => "; one row is untested".into(),
        many => format!("; {many} rows are untested"),
    };
    if ends.is_empty() {
        return format!("nothing is known of {}{untested}", label(rig, setting));
    }
    format!("{} holds {}{untested}", label(rig, setting), ends.join(", "))
}

fn label(rig: &Rig, setting: &str) -> String {
    rig.setting(setting).map_or_else(|| setting.to_owned(), |known| known.label.clone())
}

fn in_brackets(incident: Option<IncidentKind>) -> String {
    incident.map(|kind| format!(" ({kind})")).unwrap_or_default()
}

fn written(rig: &Rig, setting: &str, value: Decimal) -> String {
    rig.setting(setting).map_or_else(|| value.to_string(), |known| known.written(value))
}
