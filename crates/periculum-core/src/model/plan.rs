//! What to climb: stages, strategies and proofs.

use std::collections::BTreeSet;

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::model::budget::Budget;
use crate::model::moment::Span;
use crate::model::pass::{Pass, Threads};
use crate::model::rung::Rung;
use crate::model::strategy::{Aim, Assurance, Strategy};

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
    /// Where the rig is left when the climb has come to its end.
    pub ends: Ends,
    /// How long a soak must have been before a profile of this plan may be applied at start.
    pub arm_after: Span,
}

/// How long that is where a plan does not say: a night.
pub const ARM_AFTER: Span = Span::from_seconds(8 * 3600);

/// Where a rig is left.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Ends {
    /// Everything at stock.
    #[default]
    AtStock,
    /// At the last mark that stands; at stock where there is none.
    AtMark,
}

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

    /// What it is made of, however long each of it takes.
    pub fn works(&self) -> BTreeSet<(String, Threads)> {
        self.passes.iter().map(|pass| (pass.load.clone(), pass.threads)).collect()
    }

    /// Whether somebody makes one of its passes, which takes as long as it takes.
    pub fn is_by_hand(&self) -> bool {
        self.passes.iter().any(|pass| pass.by_hand.is_some())
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
    /// The point at which a curve is pinned in it; none where it is not.
    pub pin: Option<Pin>,
    /// What is wanted of its mark.
    pub wants: Option<Assurance>,
}

/// A curve that is flat from one of its points on, so that this is where its device sits.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Pin {
    /// The setting that says from where it is flat.
    pub setting: String,
    /// The point.
    pub at: Decimal,
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
    /// What an earlier stage saves under this name.
    Saved(String),
}

impl Plan {
    /// The proof of a stage, by the stage's index.
    pub fn proof_of(&self, stage: usize) -> &Proof {
        &self.proofs[self.stages[stage].proof]
    }

    /// The setting whose value the ascent profile shows as height: the first one that a stage climbs.
    pub fn climbed_setting(&self) -> Option<&str> {
        self.climbs().chain(&self.stages).find_map(|stage| stage.strategy.setting())
    }

    /// The stages that do not only raise what would limit the others.
    pub fn climbs(&self) -> impl Iterator<Item = &Stage> {
        self.stages.iter().filter(|stage| stage.strategy.aim() != Aim::RaiseLimit)
    }
}
