//! Ends of climbs as sentences.

use super::evidence::bound_words;
use crate::engine::ClimbEnd;
use crate::model::evidence::Bound;
use crate::model::obstacle::{Met, Obstacle};

impl ClimbEnd {
    /// The end as a sentence.
    pub fn sentence(&self) -> String {
        match self {
            Self::Completed => "every stage is done".into(),
            Self::NothingHeld { stage } => format!("stage {} found nothing that holds", stage + 1),
            Self::Stopped => "the operator stopped it".into(),
            Self::BudgetSpent { limit, left } => match &left[..] {
                [] => limit.to_string(),
                [only] => format!("{limit}, and stage {} was not finished", only + 1),
                [first, .., last] => format!("{limit}, and stages {} to {} were not finished", first + 1, last + 1),
            },
            Self::KeepsFalling { times } => {
                format!("the machine went down {times} times in a row and nothing ran between; somebody has to look")
            }
            Self::Unsound { why } => obstacle(why),
            Self::Refused { why } => format!("a rung was refused: {}", obstacle(why)),
        }
    }
}

/// What has to be put right first.
fn obstacle(obstacle: &Obstacle) -> String {
    let met = match obstacle {
        Obstacle::Said(said) => return said.clone(),
        Obstacle::Met(met) => met,
    };
    match &**met {
        Met::Unsound { finding } => finding.to_string(),
        Met::NotStarted { told } => format!("a pass could not be started: {told}"),
        Met::NothingChecked { load, length } => format!(
            "not every core finished a round of {load} in {length}, or somebody halted it meanwhile, so that not all was \
             checked: give the pass more time in the plan, or a smaller size"
        ),
        Met::BeyondLimits { setting, value, floor, ceiling } => {
            let [value, floor, ceiling] = [value, floor, ceiling].map(|value| &value.written);
            format!("the rig has {setting} at {value}, outside {floor} … {ceiling}; put it back first")
        }
        Met::NotAllowed { bound } => bound_words(&Bound::Known(bound.clone()), None),
    }
}
