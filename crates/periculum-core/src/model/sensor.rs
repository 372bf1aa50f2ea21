//! Something that is measured on a rig, and where its readings end a pass.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::model::cut_off::CutOff;
use crate::model::illegal::Illegal;
use crate::model::moment::Span;
use crate::model::outlet::Inquiry;
use crate::model::quantity::measured;
use crate::model::rung::Rung;

/// Something measured while the rig runs.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Sensor {
    /// The name that files and records use.
    pub name: String,
    /// The name that people read.
    pub label: String,
    /// The unit of its readings.
    pub unit: String,
    /// How many decimals of a reading mean something.
    pub decimals: usize,
    /// What the readings 0, 1, 2, … stand for, where it reads a state and no number: what limits a card now.
    pub words: Vec<String>,
    /// The reading above which a pass is stopped at once.
    pub cut_off: Option<CutOff>,
    /// The reading below which a pass is stopped at once: a pot that gets too cold for what stands in it.
    pub cut_off_below: Option<CutOff>,
    /// The reading at which the rig itself takes its clock back.
    pub limit: Option<Decimal>,
    /// The reading below which work has stopped arriving.
    pub least: Option<Decimal>,
    /// The setting whose value it reaches where nothing is throttled.
    pub follows: Option<String>,
    /// The core whose temperature it is.
    pub core: Option<u32>,
    /// How long whoever reads it may take for one reading; none where the adapter knows.
    pub patience: Option<Span>,
    /// The adapter that reads it.
    pub adapter: String,
    /// What the adapter calls it.
    pub source: String,
    /// The program that says what it reads; none where its adapter knows by itself.
    pub inquiry: Option<Inquiry>,
    /// When somebody is asked for what it reads; none where an adapter reads it.
    pub asked: Option<When>,
}

/// When somebody is asked for what a sensor reads.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum When {
    /// Before the first trial.
    Once,
    /// Before the first pass of every trial.
    EachTrial,
    /// The same, as the rig has it at rest.
    Idle,
    /// While the rig works, as far as it has been written down by then; else behind a trial's first pass.
    Loaded,
    /// Behind the last pass of a trial that nothing went wrong in.
    After,
}

impl Sensor {
    /// No rung is tried that leaves nothing to stop a pass at.
    pub(super) fn permit(&self, rung: &Rung) -> Result<(), Illegal> {
        let mut cut_offs = [&self.cut_off, &self.cut_off_below].into_iter().flatten();
        let is_known = cut_offs.all(|cut_off| cut_off.at(|name| rung.get(name)).is_some());
        if is_known { Ok(()) } else { Err(Illegal::Limitless { of: self.label.clone() }) }
    }

    /// The adapter of a sensor that somebody reads.
    pub const BY_HAND: &str = "by-hand";

    /// The adapter of a sensor that only readings are known of, which were attached to a climb afterwards.
    pub const ATTACHED: &str = "attached";

    /// A reading as people read it where its unit is told elsewhere: a number, or the word that it stands for.
    pub fn written(&self, reading: f64) -> String {
        let nth = reading.round();
        let word = if nth >= 0.0 { self.words.get(nth as usize) } else { None };
        word.cloned().unwrap_or_else(|| measured(reading, self.decimals))
    }

    /// The states of a sensor of words as people read them, in this order.
    pub fn written_states(&self, states: &[(f64, usize)]) -> String {
        states.iter().map(|(state, _)| self.written(*state)).collect::<Vec<_>>().join(", ")
    }

    /// Whether a cut-off rests on it.
    pub fn is_guarded(&self) -> bool {
        self.cut_off.is_some() || self.cut_off_below.is_some()
    }

    /// Its cut-offs as people read them, without the unit: `65`, `-40 to 65`, `above -40`; none where it has none. A formula is
    /// told as what it says for these values, and as it is written where it says nothing.
    pub fn cut_offs(&self, value: impl Fn(&str) -> Option<Decimal>) -> Option<String> {
        let told = |cut_off: &CutOff| cut_off.at(&value).map_or_else(|| cut_off.to_string(), |at| at.to_string());
        match (self.cut_off_below.as_ref().map(told), self.cut_off.as_ref().map(told)) {
            (None, None) => None,
            (None, Some(most)) => Some(most),
            (Some(least), Some(most)) => Some(format!("{least} to {most}")),
            (Some(least), None) => Some(format!("above {least}")),
        }
    }

    /// Whether its readings were attached afterwards, and are none that the rig was climbed by.
    pub fn is_attached(&self) -> bool {
        self.adapter == Self::ATTACHED
    }

    /// A sensor of this name without a limit or a role.
    pub fn plain(name: &str) -> Self {
        Self {
            inquiry: None,
            name: name.to_owned(),
            label: name.to_owned(),
            unit: String::new(),
            decimals: 0,
            words: Vec::new(),
            cut_off: None,
            cut_off_below: None,
            limit: None,
            least: None,
            follows: None,
            core: None,
            patience: None,
            adapter: String::new(),
            source: String::new(),
            asked: None,
        }
    }
}
