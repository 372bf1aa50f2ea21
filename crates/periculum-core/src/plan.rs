//! What to climb: stages, strategies and proofs.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::budget::Budget;
use crate::moment::Span;
use crate::pass::Pass;
use crate::rung::Rung;

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
    /// When it is enough, whatever is left to do.
    pub budget: Budget,
    /// The ceilings that are raised for this climb, each for a reason.
    pub raised: Vec<Raised>,
    /// Whether the rig's watchdog is armed during trials, since nobody is there to restart it.
    pub unattended: bool,
    /// Whether the machine is started anew by itself where a change needs that.
    pub restarts_itself: bool,
    /// How long a soak must have been before a profile of this plan may be applied at start.
    pub arm_after: Span,
}

/// How long that is where a plan does not say: a night.
pub const ARM_AFTER: Span = Span::from_seconds(8 * 3600);

/// A ceiling that is raised for one climb.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Raised {
    /// The setting.
    pub setting: String,
    /// The largest value that may be applied, in the setting's unit.
    pub ceiling: Decimal,
    /// Why that is all right.
    pub because: String,
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
    /// The rung that it stands on.
    pub start: Start,
    /// The name under which the rung that it settles at is saved as a profile.
    pub save: Option<String>,
}

/// The rung that a stage stands on.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub enum Start {
    /// The one that the stage before settled at; stock for the first.
    #[default]
    Last,
    /// Everything at stock.
    Stock,
    /// A profile of the plan.
    Profile(Rung),
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
    /// Take a limit that only holds the search back as far as it may go.
    Open {
        /// The setting that is the limit.
        setting: String,
    },
    /// Step a setting up until the rig falls, then step back.
    Ascend(Steps),
    /// Step a setting up and, where the rig falls, make another one easier and try again, up to its limit.
    Feed {
        /// The setting that goes up.
        steps: Steps,
        /// The setting that is fed, towards easier values.
        feed: Steps,
    },
    /// Take a setting's value away until the rig falls, then step back.
    Trim(Steps),
    /// Find the hardest value that survives the proof in the fewest test hours.
    Seek {
        /// The setting that moves.
        steps: Steps,
        /// How much easier than that value is what is put to the proof at last.
        margin: Margin,
    },
    /// Find the hardest value that survives the proof for each value of another setting.
    Map {
        /// The setting whose limit is found.
        steps: Steps,
        /// The values of the other one.
        over: Sweep,
    },
    /// Try every combination of the values of some settings.
    Grid {
        /// The settings, and their values.
        over: Vec<Sweep>,
    },
    /// Find the limit of each of some settings with the others parked, then of all together.
    Each(Each),
    /// Find the value with the best score.
    Peak {
        /// The setting that moves.
        steps: Steps,
        /// How many trials each value gets, so that the noise of its score is known; from 2.
        repeats: u32,
    },
    /// Put what the stages before have come to, a margin easier, to a long proof.
    Soak {
        /// The setting that gives way, and how far after a fall.
        steps: Steps,
        /// How much easier than the mark it begins.
        margin: Margin,
    },
}

/// How far a stage steps, and which setting.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Steps {
    /// The setting that moves.
    pub setting: String,
    /// How far a step goes until the first fall, and then the next ones until the next; each above zero and below the
    /// one before, in the setting's unit.
    pub coarse: Vec<Decimal>,
    /// How far each step goes at last, above zero, in the setting's unit; none for one value of the ladder at a time.
    pub step: Option<Decimal>,
    /// How many steps it goes back after a fall, from 1.
    pub back: u32,
}

/// Values of a setting that are all tried, from easy to hard.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Sweep {
    /// The setting.
    pub setting: String,
    /// The values, on its ladder and within its limits, from easy to hard; never empty.
    pub values: Vec<Decimal>,
}

/// Settings of the same kind, as the clocks of the cores, that are climbed one by one.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Each {
    /// Which, at least two, and how each one steps.
    pub steps: Vec<Steps>,
    /// The value that a setting has while another one climbs, for each of them.
    pub park: Vec<Decimal>,
}

/// How far a daily rung stays below its mark.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Margin {
    /// So many steps.
    Steps(u32),
    /// This share of the mark's value, at least.
    Share(Decimal),
}

impl Strategy {
    /// The name of the strategy that proves the rig at stock.
    pub const BASELINE: &str = "baseline";

    /// The strategy's name in plans.
    pub fn name(&self) -> &'static str {
        match self {
            Self::Baseline { .. } => Self::BASELINE,
            Self::Open { .. } => "open",
            Self::Ascend(_) => "ascend",
            Self::Feed { .. } => "feed",
            Self::Trim(_) => "trim",
            Self::Seek { .. } => "seek",
            Self::Map { .. } => "map",
            Self::Grid { .. } => "grid",
            Self::Each(_) => "each",
            Self::Peak { .. } => "peak",
            Self::Soak { .. } => "soak",
        }
    }

    /// The settings that move, the one that is climbed first.
    pub fn settings(&self) -> Vec<&str> {
        match self {
            Self::Baseline { .. } => Vec::new(),
            Self::Open { setting } => vec![setting],
            Self::Ascend(steps)
            | Self::Trim(steps)
            | Self::Seek { steps, .. }
            | Self::Peak { steps, .. }
            | Self::Soak { steps, .. } => vec![&steps.setting],
            Self::Feed { steps, feed } => vec![&steps.setting, &feed.setting],
            Self::Map { steps, over } => vec![&steps.setting, &over.setting],
            Self::Grid { over } => over.iter().map(|sweep| sweep.setting.as_str()).collect(),
            Self::Each(each) => each.steps.iter().map(|steps| steps.setting.as_str()).collect(),
        }
    }

    /// The setting that is climbed, where one is.
    pub fn setting(&self) -> Option<&str> {
        self.settings().first().copied()
    }
}

impl Steps {
    /// Steps of one size, or one value of the ladder at a time, and one back.
    pub fn of(setting: impl Into<String>, step: Option<Decimal>) -> Self {
        Self { setting: setting.into(), coarse: Vec::new(), step, back: 1 }
    }

    /// The same with these steps at first.
    #[must_use]
    pub fn after(self, coarse: Vec<Decimal>) -> Self {
        Self { coarse, ..self }
    }

    /// The same, going back so many steps after a fall.
    #[must_use]
    pub fn back(self, back: u32) -> Self {
        Self { back, ..self }
    }

    /// The size of the steps after so many falls; none for one value of the ladder at a time.
    pub fn size(&self, falls: usize) -> Option<Decimal> {
        self.coarse.get(falls).copied().or(self.step)
    }
}

impl Plan {
    /// The proof of a stage, by the stage's index.
    pub fn proof_of(&self, stage: usize) -> &Proof {
        &self.proofs[self.stages[stage].proof]
    }

    /// The setting whose value the ascent profile shows as height: the first one that a stage climbs.
    pub fn climbed_setting(&self) -> Option<&str> {
        let opens = |stage: &&Stage| matches!(stage.strategy, Strategy::Open { .. });
        let climbs = self.stages.iter().filter(|stage| !opens(stage));
        climbs.chain(&self.stages).find_map(|stage| stage.strategy.setting())
    }
}
