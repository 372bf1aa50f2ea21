//! What a story is made of.

use std::collections::BTreeMap;

use rust_decimal::Decimal;

use crate::engine::ClimbEnd;
use crate::inference::comparison::Comparison;
use crate::model::incident::{Incident, IncidentKind};
use crate::model::moment::{Moment, Span};
use crate::model::pass::{Pass, PassReport, Score};
use crate::model::reason::{Reason, StageEnd};
use crate::model::rig::{Derived, Sensor};
use crate::model::rung::{InForce, Rung};
use crate::model::verdict::Verdict;
use crate::story::series::{Series, Spread, added};
use crate::story::stretch::Stretch;

/// A stage that has begun.
#[derive(Clone, Debug)]
pub struct StageStory {
    /// Its strategy's name.
    pub strategy: String,
    /// How it ended, where it has.
    pub end: Option<StageEnd>,
}

/// One rung put to one proof.
#[derive(Clone, Debug)]
pub struct TrialStory {
    /// The number, from 1.
    pub number: u32,
    /// The stage, from 0.
    pub stage: usize,
    /// What was on trial.
    pub rung: Rung,
    /// What the rig reported of it, once all of it was applied; settings that can't be read back are missing.
    pub reported: InForce,
    /// What somebody measured of it, in each setting's unit.
    pub measured: InForce,
    /// The proof's name.
    pub proof: String,
    /// Why this rung.
    pub reason: Reason,
    /// When it began.
    pub began: Moment,
    /// The passes that have begun.
    pub passes: Vec<PassStory>,
    /// When the rig was measured at rest before its first pass; none where it was not.
    pub rested: Option<Stretch>,
    /// The number of the rig's state that it belongs to, from 1.
    pub state: u32,
    /// What somebody read of sensors, in each sensor's unit.
    pub read: BTreeMap<String, f64>,
    /// How it ended; none while it is open.
    pub verdict: Option<Verdict>,
    /// The worst that happened.
    pub incident: Option<IncidentKind>,
    /// How long its passes ran, together.
    pub tested: Span,
    /// How its last score compares with the baseline's, where both are known.
    pub gain: Option<Comparison>,
    /// How long it is meant to take, where that is not as long as its proof.
    pub length: Option<Span>,
}

impl TrialStory {
    /// The score of its last pass, where it was run to its end.
    pub fn score(&self) -> Option<&Score> {
        self.passes.last()?.report.as_ref()?.score.as_ref()
    }

    /// That score with the load that made it.
    pub(super) fn last_score(&self) -> Option<(&str, &Score)> {
        Some((&self.passes.last()?.order.load, self.score()?))
    }

    /// Whether it held the whole proof, and not just a shorter trial on the way.
    pub fn held_the_proof(&self) -> bool {
        self.verdict == Some(Verdict::Held) && self.length.is_none()
    }

    /// Its passes that came to an end, with how.
    pub fn finished(&self) -> impl Iterator<Item = (&Pass, &PassReport)> {
        self.passes.iter().filter_map(|pass| Some((&pass.order, pass.report.as_ref()?)))
    }

    /// A sensor's readings while the passes of this trial ran, of those that came to an end; of one that somebody reads what they
    /// read in this trial.
    pub fn spread(&self, sensor: &Sensor, traces: &BTreeMap<String, Series>) -> Option<Spread> {
        if sensor.asked.is_some() {
            return self.read.get(&sensor.name).copied().map(Spread::of);
        }
        let series = traces.get(&sensor.name)?;
        let ran = self.passes.iter().filter_map(|pass| {
            let until = pass.began + pass.report.as_ref()?.ran;
            series.between(pass.began, until)
        });
        Spread::all(ran)
    }

    /// The states that a sensor of words read while the passes of this trial ran, each with how often; most often first.
    pub fn states(&self, sensor: &Sensor, traces: &BTreeMap<String, Series>) -> Vec<(f64, usize)> {
        let Some(series) = traces.get(&sensor.name) else { return Vec::new() };
        let ran = self.passes.iter().filter_map(|pass| Some((pass.began, pass.began + pass.report.as_ref()?.ran)));
        added(ran.flat_map(|(began, until)| series.states_between(began, until)))
    }

    /// The rung as far as it is known to be in force: what was asked, but for what the rig reports otherwise.
    pub fn in_force(&self) -> Rung {
        self.reported.iter().fold(self.rung.clone(), |rung, (name, value)| rung.with(name, *value))
    }

    /// A derived value of what is in force, and whether that is another one than was asked for.
    pub fn derived(&self, derived: &Derived) -> Option<(Decimal, bool)> {
        let value = derived.value(&self.in_force())?;
        Some((value, derived.value(&self.rung) != Some(value)))
    }

    /// What it is put to in words: the proof, or a part of it.
    pub fn put_to(&self) -> String {
        match self.length {
            Some(length) => format!("{} for {length}", self.proof),
            None => self.proof.clone(),
        }
    }
}

/// One run of one load.
#[derive(Clone, Debug)]
pub struct PassStory {
    /// What runs.
    pub order: Pass,
    /// When it began.
    pub began: Moment,
    /// How it went; none while it runs, or where it was cut short by a death.
    pub report: Option<PassReport>,
}

/// Something that went wrong, with its time and place in the climb.
#[derive(Clone, Debug)]
pub struct IncidentStory {
    /// When.
    pub at: Moment,
    /// In which trial; none outside any.
    pub trial: Option<u32>,
    /// In which pass, from 0; none outside any.
    pub pass: Option<usize>,
    /// What.
    pub incident: Incident,
}

/// How a climb ended.
#[derive(Clone, Debug)]
pub struct EndStory {
    /// How.
    pub end: ClimbEnd,
    /// How many trials fell.
    pub falls: u32,
    /// How long passes ran, together.
    pub tested: Span,
    /// The settings that are not known to be back at stock.
    pub not_at_stock: Vec<String>,
    /// The mark that the rig was left at; none where it was to go to stock.
    pub left_at: Option<Rung>,
}
