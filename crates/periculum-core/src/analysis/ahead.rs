//! What is known of a rung before it is tried: the way there, what stands against it, what its neighbours did, and how likely it
//! survives.

use std::collections::VecDeque;

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use crate::engine::route::route;
use crate::inference::hazard::{Observation, Survival};
use crate::inference::laws::Laws;
use crate::model::errand::Errand;
use crate::model::incident::IncidentKind;
use crate::model::ladder::Direction;
use crate::model::moment::Span;
use crate::model::objection::Objection;
use crate::model::rig::Rig;
use crate::model::rung::{InForce, Rung};
use crate::model::setting::Setting;
use crate::model::verdict::Verdict;
use crate::story::{Story, TrialStory};

/// The limit may lie so many steps on the easier side of the rung, or beyond the hardest that was tried.
const ROOM: f64 = 12.0;

/// What is known of a rung before it is tried.
#[derive(Clone, Debug, PartialEq)]
pub struct Ahead {
    /// The errands that lead there from what is in force.
    pub errands: VecDeque<Errand>,
    /// What stands against it; nothing where it may be tried.
    pub against: Vec<Objection>,
    /// What is known of it, or of those around it.
    pub kin: Kin,
    /// How likely it survives the proof; none where nothing on its line was tried.
    pub survival: Option<Survival>,
}

/// What the trials of a climb say of a rung.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Kin {
    /// It was tried itself, in this trial last, which ended like this.
    Same {
        /// The trial.
        trial: u32,
        /// How it ended.
        verdict: Verdict,
    },
    /// It is easier than one that held in this trial.
    EasierThanHeld {
        /// The trial.
        trial: u32,
    },
    /// It is harder than one that did not hold in this trial.
    HarderThanFallen {
        /// The trial.
        trial: u32,
        /// How it ended.
        verdict: Verdict,
    },
    /// It is harder than one that held, and easier than one that did not.
    Between {
        /// The trial that held.
        held: u32,
        /// The trial that did not.
        fallen: u32,
    },
    /// It is harder than one that held in this trial.
    BeyondHeld {
        /// The trial.
        trial: u32,
    },
    /// It is easier than one that did not hold in this trial.
    BelowFallen {
        /// The trial.
        trial: u32,
        /// How it ended.
        verdict: Verdict,
    },
    /// Nothing is known of it.
    Stranger,
}

impl Ahead {
    /// What is known of a rung for this use and a proof of this length, given what is believed to be in force.
    pub fn of(rig: &Rig, use_name: &str, story: &Story, in_force: &InForce, rung: &Rung, proof: Span) -> Self {
        Self {
            errands: route(rig, in_force, rung),
            against: Objection::all(rig, rung, use_name),
            kin: Kin::of(rig, story, rung),
            survival: survival(rig, use_name, story, rung, proof),
        }
    }
}

impl Kin {
    fn of(rig: &Rig, story: &Story, rung: &Rung) -> Self {
        let judged = || story.trials.iter().rev().filter_map(|trial| Some((trial, spoken(trial)?)));
        if let Some((trial, verdict)) = judged().find(|(trial, _)| trial.rung == *rung) {
            return Self::Same { trial: trial.number, verdict };
        }
        let is_easier = |one: &Rung, than: &Rung| {
            rig.settings.iter().all(|setting| {
                let values = one.get(&setting.name).zip(than.get(&setting.name));
                values.is_some_and(|(one, than)| !setting.is_harder(than, one))
            })
        };
        let find = |holds: bool, is_easier_side: bool| {
            judged().find(|(trial, verdict)| {
                let is_there = if is_easier_side { is_easier(&trial.rung, rung) } else { is_easier(rung, &trial.rung) };
                (*verdict == Verdict::Held) == holds && is_there
            })
        };
        let number = |found: Option<(&TrialStory, Verdict)>| found.map(|(trial, verdict)| (trial.number, verdict));
        match (
            number(find(false, true)),
            number(find(true, false)),
            number(find(true, true)),
            number(find(false, false)),
        ) {
            (Some((trial, verdict)), ..) => Self::HarderThanFallen { trial, verdict },
            (None, Some((trial, _)), ..) => Self::EasierThanHeld { trial },
            (None, None, Some((held, _)), Some((fallen, _))) => Self::Between { held, fallen },
            (None, None, Some((trial, _)), None) => Self::BeyondHeld { trial },
            (None, None, None, Some((trial, verdict))) => Self::BelowFallen { trial, verdict },
            (None, None, None, None) => Self::Stranger,
        }
    }
}

/// What a trial says about its rung; none of one that says nothing.
fn spoken(trial: &TrialStory) -> Option<Verdict> {
    trial.verdict.filter(|verdict| *verdict != Verdict::Void)
}

/// How likely the rung survives, by what happened along one of its settings with all else being the same: the setting of which
/// most is known.
fn survival(rig: &Rig, use_name: &str, story: &Story, rung: &Rung, proof: Span) -> Option<Survival> {
    let line = |setting: &Setting| {
        let like = |trial: &&TrialStory| {
            let value = trial.rung.get(&setting.name);
            value.is_some_and(|value| rung.with(&setting.name, value) == trial.rung)
        };
        story.trials.iter().filter(like).collect::<Vec<_>>()
    };
    let lines = rig.settings.iter().map(|setting| (setting, line(setting)));
    let (setting, trials) = lines.filter(|(_, trials)| !trials.is_empty()).max_by_key(|(_, trials)| trials.len())?;
    let step = setting.usual_step(use_name)?;
    let place = |value: Decimal| {
        let steps = ((value - setting.stock) / step).to_f64()?;
        Some(if setting.harder == Direction::Up { steps } else { -steps })
    };
    let at = place(rung.get(&setting.name)?)?;
    let seen = trials.into_iter().filter_map(|trial| Some((place(trial.rung.get(&setting.name)?)?, observed(trial)?)));
    let seen: Vec<(f64, Observation)> = seen.collect();
    if seen.is_empty() {
        return None;
    }
    let farthest = seen.iter().map(|(seen, _)| seen - at).fold(0.0, f64::max);
    let mut laws = Laws::between(-ROOM, farthest + ROOM);
    seen.into_iter().for_each(|(seen, observation)| laws.observe(seen - at, observation));
    Some(laws.survival(0.0, proof.seconds().max(1.0)))
}

fn observed(trial: &TrialStory) -> Option<Observation> {
    let tested = trial.tested.seconds();
    match spoken(trial)? {
        Verdict::Held => Some(Observation::Held(tested)),
        Verdict::Fell => Some(Observation::Fell(tested)),
        _ if trial.incident == Some(IncidentKind::CorrectedError) => Some(Observation::Fell(tested)),
        // What slips otherwise has other reasons than chance near a limit.
        _ => None,
    }
}
