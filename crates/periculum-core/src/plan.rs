//! What to climb: stages, strategies and proofs.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::moment::Span;
use crate::pass::Pass;

/// The file that says what to climb, resolved and checked against its rig.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Plan {
    /// The plan's name.
    pub name: String,
    /// What the result is for; it chooses the ceilings.
    pub use_name: String,
    /// The proofs that stages name.
    pub proofs: Vec<Proof>,
    /// What is done, in this order.
    pub stages: Vec<Stage>,
}

/// An ordered list of passes that a rung must survive, never empty.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Proof {
    /// The proof's name.
    pub name: String,
    /// The passes, cheap and revealing ones first.
    pub passes: Vec<Pass>,
}

impl Proof {
    /// How long all passes take together.
    pub fn length(&self) -> Span {
        self.passes.iter().map(|pass| pass.length).sum()
    }
}

/// One move of a plan.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Stage {
    /// What is done.
    pub strategy: Strategy,
    /// Which proof each trial is put to, as an index into the plan's proofs.
    pub proof: usize,
}

/// How a stage chooses its rungs.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Strategy {
    /// Prove the rig at stock, before anything is changed.
    Baseline {
        /// How many trials at most, above zero.
        repeats: u32,
        /// Fewer are enough when the 95 % interval of every pass's score is within this share of its mean.
        within: Option<Decimal>,
    },
    /// Step a setting up until the rig falls, then step back.
    Ascend(Steps),
    /// Take a setting's value away until the rig falls, then step back.
    Trim(Steps),
    /// Find the hardest value that survives the proof in the fewest test hours.
    Seek(Steps),
    /// Put what the stages before have come to, a margin easier, to a long proof.
    Soak {
        /// The setting that gives way, and how far after a fall.
        steps: Steps,
        /// How many steps easier than the mark it begins.
        margin: u32,
    },
}

/// How far a stage steps, and which setting.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Steps {
    /// The setting that moves.
    pub setting: String,
    /// How far each step goes, above zero, in the setting's unit; none for one value of the ladder at a time.
    pub step: Option<Decimal>,
    /// How many steps it goes back after a fall, from 1.
    pub back: u32,
}

impl Strategy {
    /// The name of the strategy that proves the rig at stock.
    pub const BASELINE: &str = "baseline";

    /// The strategy's name in plans.
    pub fn name(&self) -> &'static str {
        match self {
            Self::Baseline { .. } => Self::BASELINE,
            Self::Ascend(_) => "ascend",
            Self::Trim(_) => "trim",
            Self::Seek(_) => "seek",
            Self::Soak { .. } => "soak",
        }
    }

    /// The setting that moves, where one does.
    pub fn setting(&self) -> Option<&str> {
        match self {
            Self::Baseline { .. } => None,
            Self::Ascend(steps) | Self::Trim(steps) | Self::Seek(steps) | Self::Soak { steps, .. } => {
                Some(&steps.setting)
            }
        }
    }
}

impl Plan {
    /// The proof of a stage, by the stage's index.
    pub fn proof_of(&self, stage: usize) -> &Proof {
        &self.proofs[self.stages[stage].proof]
    }

    /// The setting whose value the ascent profile shows as height: the first one that a stage moves.
    pub fn climbed_setting(&self) -> Option<&str> {
        self.stages.iter().find_map(|stage| stage.strategy.setting())
    }
}
