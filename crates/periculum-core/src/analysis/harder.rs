//! How much harder than a mark somebody may go who is content to be less sure.

use rust_decimal::Decimal;

use crate::analysis::claim::{Claim, Known};
use crate::engine::Mark;
use crate::inference::prior::Beliefs;
use crate::model::objection::Objection;
use crate::model::plan::Plan;
use crate::model::rig::Rig;
use crate::model::strategy::Assurance;
use crate::model::verdict::Verdict;
use crate::story::{Story, TrialStory};

/// How sure those may want to be who want to be less sure than the plan: four times of five, and as often as not.
const SURE: [f64; 2] = [0.8, 0.5];

/// The hardest values beyond a mark of which one can be less sure that they are as good as it has to be.
#[derive(Clone, Debug, PartialEq)]
pub struct Harder {
    /// The proof's name.
    pub proof: String,
    /// What is wanted of the mark.
    pub wants: Assurance,
    /// What its stage climbs.
    pub setting: String,
    /// How sure one can be, and up to which value: ever less sure, and ever harder.
    pub up_to: Vec<(f64, Decimal)>,
}

impl Harder {
    /// What a climb says of what is harder than a mark of it, of which this is claimed; none where nothing is, or where something puts all
    /// its claims in doubt. What did not hold, for whatever reason, and what may not be applied ends it.
    pub fn of_mark(claim: &Claim, (story, rig, plan): (&Story, &Rig, &Plan), mark: &Mark) -> Option<Self> {
        if claim.survival.is_none() || claim.is_in_doubt() {
            return None;
        }
        let proof = plan.proofs.iter().position(|proof| proof.name == claim.proof)?;
        let at = (&mark.rung, mark.stage);
        let Known { proof, wants, axis, laws, .. } = Known::by(Beliefs::PRESENT, &[], (story, rig, plan), at, proof)?;
        let aim = wants.aim(proof.length());
        let (setting, _) = axis.harder(&mark.rung, 1)?;
        let did_not_hold = |trial: &&TrialStory| {
            matches!(trial.verdict, Some(Verdict::Fell | Verdict::Slipped)) && trial.state == story.last_state()
        };
        let did_not_hold = story.trials.iter().filter(did_not_hold);
        let failed = did_not_hold.filter_map(|trial| axis.distance(&mark.rung, &trial.rung, false));
        let easiest_failed = failed.fold(f64::INFINITY, f64::min);
        let unproved = laws.unproved(&aim);
        let beyond = (1..).map_while(|steps| {
            let (_, value) = axis.harder(&mark.rung, steps)?;
            let within = unproved.sure(f64::from(steps), 0.0);
            let may_be = Objection::all(rig, &mark.rung.with(&setting.name, value), &plan.use_name).is_empty();
            let is_there = may_be && f64::from(steps) < easiest_failed && within >= SURE[SURE.len() - 1];
            is_there.then_some((within, value))
        });
        let beyond: Vec<(f64, Decimal)> = beyond.collect();
        let mut up_to: Vec<(f64, Decimal)> = Vec::new();
        for sure in SURE.into_iter().filter(|sure| *sure < aim.sure) {
            let hardest = beyond.iter().take_while(|(within, _)| *within >= sure).last();
            let is_new = |value: &Decimal| up_to.last().is_none_or(|(_, before)| before != value);
            let found = hardest.map(|(_, value)| *value).filter(is_new);
            up_to.extend(found.map(|value| (sure, value)));
        }
        (!up_to.is_empty()).then(|| Self { proof: proof.name.clone(), wants, setting: setting.name.clone(), up_to })
    }
}
