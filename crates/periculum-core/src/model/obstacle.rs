//! What a climb can't go on with until somebody puts it right: as data, which `telling` makes sentences of.

use serde::{Deserialize, Serialize};

use crate::model::evidence::{Finding, Known, Value};
use crate::model::moment::Span;

/// What has to be put right first.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(untagged)]
pub enum Obstacle {
    /// In words, as records of earlier versions have it.
    Said(String),
    /// As data.
    Met(Box<Met>),
}

/// What was met.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(tag = "met", rename_all = "kebab-case")]
pub enum Met {
    /// Something about the rig that makes every result worthless.
    Unsound {
        /// What.
        finding: Finding,
    },
    /// A pass could not be started.
    NotStarted {
        /// Why, in the words of what should have started it.
        told: String,
    },
    /// Even with more time, not every core finished a round.
    NothingChecked {
        /// Of which load.
        load: String,
        /// In which time.
        length: Span,
    },
    /// The rig has a value in force that the climb may never apply.
    BeyondLimits {
        /// The label of its setting.
        setting: String,
        /// The value.
        value: Value,
        /// The smallest that may be applied.
        floor: Value,
        /// The largest that may be applied.
        ceiling: Value,
    },
    /// A rung must not be applied.
    NotAllowed {
        /// What stands against it.
        bound: Known,
    },
}

impl From<Met> for Obstacle {
    fn from(met: Met) -> Self {
        Self::Met(Box::new(met))
    }
}
