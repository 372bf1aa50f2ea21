//! How it is known that something went wrong, and what stands against a value: as data, which `telling` makes sentences of.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::inference::comparison::Comparison;
use crate::model::ending::Ending;
use crate::model::moment::Span;
use crate::model::setting::Setting;

/// How an incident is known.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(untagged)]
pub enum Evidence {
    /// What something else says of it in its own words: a load, a program, the kernel, an instrument. Records of earlier versions
    /// have everything like this.
    Said(String),
    /// What the engine found.
    Found(Box<Finding>),
}

/// What the engine found itself.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(tag = "found", rename_all = "kebab-case")]
pub enum Finding {
    /// A sensor reads more than its cut-off.
    OverCutOff {
        /// What it reads.
        reading: Reading,
        /// The cut-off, in the same unit.
        cut_off: Decimal,
    },
    /// A sensor reads less than its lower cut-off.
    UnderCutOff {
        /// What it reads.
        reading: Reading,
        /// The cut-off, in the same unit.
        cut_off: Decimal,
    },
    /// What follows a setting stays below what was asked of it.
    BelowAsked {
        /// The highest that was reached.
        reached: Reading,
        /// What was asked, in the same unit.
        asked: Decimal,
        /// What holds it back.
        held_back: HeldBack,
    },
    /// A sensor that reads at least so much while there is work has read less.
    TooLittle {
        /// The most that it read.
        reading: Reading,
        /// What is usual, in the same unit.
        least: Decimal,
        /// For how long.
        during: Span,
    },
    /// A sensor that a cut-off rests on no longer tells anything.
    Silent {
        /// Its label.
        sensor: String,
        /// Why, where anybody knows.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        because: Option<String>,
    },
    /// One core is far hotter than the others.
    Uneven {
        /// Which.
        core: u32,
        /// Its temperature, °C.
        hottest: f64,
        /// The median of the others, °C.
        median: f64,
    },
    /// A change was not answered.
    Unanswered {
        /// For how long it was waited.
        waited: Span,
    },
    /// A pass runs on beyond its length.
    NotEnded {
        /// Its length.
        length: Span,
    },
    /// A pass that was told to stop runs on, whatever is done.
    Unstoppable {
        /// How long ago it was told.
        waited: Span,
    },
    /// A pass has ended before its time though nobody stopped it.
    EndedEarly,
    /// The score is clearly below the baseline's, and was again.
    ScoredLess {
        /// How it compares.
        gain: Comparison,
    },
    /// A setting is not at the value that it was set to.
    Differs {
        /// What it was set to.
        wanted: Value,
        /// What the rig reports.
        reported: Value,
        /// Whether it has just been set, and not left as it was.
        was_set: bool,
    },
    /// A setting was measured, and is not at the value that it was set to.
    Mismeasured {
        /// What it was set to.
        wanted: Value,
        /// What was measured.
        measured: Value,
    },
    /// A setting that could be read back before now can't.
    Unread {
        /// Why, where anybody knows.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        because: Option<String>,
    },
    /// What somebody wrote down is not what is right.
    WrittenWrong {
        /// The words that are right.
        right: Vec<String>,
        /// What was written down.
        written: String,
    },
    /// The operator says that the rig hung.
    SaidHung,
    /// Nobody said that all is well, so that it goes back.
    Unconfirmed,
    /// The operator says that the picture was wrong.
    SaidWrongPicture {
        /// What was wrong with it.
        what: String,
    },
    /// The operator says that the rig did not start.
    SaidNoStart,
    /// The operator says that the rig came back with its defaults.
    SaidDefaults,
    /// The operator saw something, and does not say what.
    Seen,
    /// The operator stopped the climb.
    Stopped,
    /// The program or the machine came to its end.
    WentDown {
        /// Which, and how that is known.
        ending: Ending,
        /// What was said last before, where anybody kept that.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        last_words: Option<String>,
    },
}

/// What a sensor read.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Reading {
    /// In its unit.
    pub value: f64,
    /// How many decimals of it mean something.
    pub decimals: usize,
    /// The unit.
    pub unit: String,
}

/// What holds something back.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(tag = "by", rename_all = "kebab-case")]
pub enum HeldBack {
    /// A sensor that is at the rig's own limit.
    Limit {
        /// Its label.
        sensor: String,
        /// What it reads.
        reading: Reading,
        /// The limit, in the same unit.
        limit: Decimal,
    },
    /// Nothing: another sensor says that it was reached, so that it never took.
    Nothing {
        /// That sensor's label.
        reported_by: String,
    },
    /// Nothing that is known here.
    Unknown,
}

/// A value of a setting, and how people read it, which may be a word.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Value {
    /// In the setting's unit.
    pub value: Decimal,
    /// With its unit, or as a word.
    pub written: String,
}

impl Value {
    /// This value of a setting.
    pub fn of(setting: &Setting, value: Decimal) -> Self {
        Self { value, written: setting.written(value) }
    }
}

/// What stands against a value.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(untagged)]
pub enum Bound {
    /// In words, as records of earlier versions have it.
    Said(String),
    /// As data.
    Known(Known),
}

/// What is known to stand against a value.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(tag = "bound", rename_all = "kebab-case")]
pub enum Known {
    /// The ladder has no further value.
    LadderEnds,
    /// The ceiling of a use.
    Ceiling {
        /// Which use.
        use_name: String,
        /// Its value.
        at: Decimal,
    },
    /// The floor.
    Floor {
        /// Its value.
        at: Decimal,
    },
    /// A derived value would leave its window.
    Window {
        /// The derived value's name.
        derived: String,
        /// What it would be.
        value: String,
        /// Its window, as people read it.
        window: String,
    },
    /// The rig has no such setting, or no such value.
    Impossible,
}

impl Evidence {
    /// Whether these words are part of what something else said.
    pub fn says(&self, words: &str) -> bool {
        matches!(self, Self::Said(said) if said.contains(words))
    }
}

impl<T: Into<String>> From<T> for Evidence {
    fn from(said: T) -> Self {
        Self::Said(said.into())
    }
}

impl From<Finding> for Evidence {
    fn from(found: Finding) -> Self {
        Self::Found(Box::new(found))
    }
}
