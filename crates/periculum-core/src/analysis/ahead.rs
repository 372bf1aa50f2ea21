//! What is known of a rung before it is tried: the way there, what stands against it, what its neighbours did, and how likely it
//! survives.

use std::collections::VecDeque;

use crate::analysis::claim::Claim;
use crate::engine::route::route;
use crate::inference::hazard::Survival;
use crate::model::errand::Errand;
use crate::model::objection::Objection;
use crate::model::plan::Plan;
use crate::model::rig::Rig;
use crate::model::rung::{InForce, Rung};
use crate::model::verdict::Verdict;
use crate::story::{Story, TrialStory};

/// What is known of a rung before it is tried.
#[derive(Clone, Debug, PartialEq)]
pub struct Ahead {
    /// The errands that lead there from what is in force.
    pub errands: VecDeque<Errand>,
    /// What stands against it; nothing where it may be tried.
    pub against: Vec<Objection>,
    /// What is known of it, or of those around it.
    pub kin: Kin,
    /// How likely it survives the proof; none where nothing can be said.
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
    /// What is known of a rung under a proof of the plan, in the stage that is under way, given what is believed to be in force.
    pub fn of(rig: &Rig, plan: &Plan, story: &Story, in_force: &InForce, rung: &Rung, proof: usize) -> Self {
        let stage = story.stages.len().saturating_sub(1);
        Self {
            errands: route(rig, in_force, rung),
            against: Objection::all(rig, rung, &plan.use_name),
            kin: Kin::of(rig, story, rung),
            survival: Claim::of(story, rig, plan, (rung, stage), proof).and_then(|claim| claim.survival),
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
