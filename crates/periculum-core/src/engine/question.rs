//! What the engine wants to know from somebody, and what may be answered: card, keys, lines and scripts are made from this.

use serde::{Deserialize, Serialize};

use crate::engine::answer::Answer;
use crate::model::errand::Errand;

/// What the engine wants to know.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(tag = "question", rename_all = "kebab-case")]
pub enum Question {
    /// Go on this errand, and say what came of it.
    Change {
        /// What is changed, from what to what.
        #[serde(flatten)]
        errand: Errand,
    },
}

impl Question {
    /// The answers that it takes, the usual one first.
    pub fn answers(&self) -> &'static [Answer] {
        match self {
            Self::Change { .. } => &[Answer::Done, Answer::NoStart, Answer::Defaults],
        }
    }
}
