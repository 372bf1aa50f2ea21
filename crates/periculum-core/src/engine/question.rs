//! What the engine wants to know from somebody, and what may be answered: card, keys, lines and scripts are made from this.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::engine::answer::Answer;
use crate::engine::field::{Entered, Field, Takes, Written};
use crate::model::errand::Errand;
use crate::model::reason::Reason;
use crate::model::rig::Rig;
use crate::model::rung::{InForce, Rung};
use crate::model::setting::TakesEffect;

/// What the engine wants to know.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[serde(tag = "question", rename_all = "kebab-case")]
pub enum Question {
    /// Go on this errand, and say what came of it.
    Change {
        /// What is changed, from what to what.
        #[serde(flatten)]
        errand: Errand,
    },
    /// Say which rung is tried next.
    WhatNext {
        /// What the next one is, where nothing else is said.
        #[serde(flatten)]
        turn: Turn,
    },
}

/// Where an operator stands who leads.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Turn {
    /// The rung that was tried last; where the stage stands before the first.
    pub at: Rung,
    /// What is believed to be in force.
    #[serde(default)]
    pub in_force: InForce,
    /// The proof that it was put to, by name.
    pub proof: String,
    /// The proofs that there are.
    pub proofs: Vec<String>,
    /// The trial in which a rung held last.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub held: Option<u32>,
    /// What a strategy would try.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub suggestion: Option<Suggestion>,
}

/// What a strategy would try next, and why.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Suggestion {
    /// The rung.
    pub rung: Rung,
    /// Why.
    pub reason: Reason,
}

impl Question {
    /// The field in which the proof stands; a rig with a setting of this name is not led.
    pub const PROOF: &str = "proof";

    /// The answers that it takes, the usual one first.
    pub fn answers(&self) -> Vec<Answer> {
        match self {
            Self::Change { .. } => vec![Answer::Done, Answer::NoStart, Answer::Defaults],
            Self::WhatNext { turn } => {
                let of_suggestion = turn.suggestion.as_ref().map(|_| Answer::Take);
                let of_what_held = turn.held.map(|_| [Answer::Back, Answer::Mark, Answer::Save]);
                let ahead = of_suggestion.into_iter().chain([Answer::Try]);
                ahead.chain(of_what_held.into_iter().flatten()).chain([Answer::End]).collect()
            }
        }
    }

    /// The usual answer of somebody who lets it go on by itself, and ends where nothing is left to do.
    pub fn usual_answer(&self) -> Answer {
        match self {
            Self::Change { .. } => Answer::Done,
            Self::WhatNext { turn } if turn.suggestion.is_some() => Answer::Take,
            Self::WhatNext { .. } => Answer::End,
        }
    }

    /// The errand that it asks somebody to go on; none where it asks for anything else.
    pub fn errand(&self) -> Option<&Errand> {
        match self {
            Self::Change { errand } => Some(errand),
            Self::WhatNext { .. } => None,
        }
    }

    /// Where the operator stands who is to say what comes next.
    pub fn turn(&self) -> Option<&Turn> {
        match self {
            Self::WhatNext { turn } => Some(turn),
            Self::Change { .. } => None,
        }
    }

    /// The answer that something may be written down with.
    pub fn written_with(&self) -> Answer {
        match self {
            Self::Change { .. } => Answer::Done,
            Self::WhatNext { .. } => Answer::Try,
        }
    }

    /// The values of settings by what was written down; what is nothing for its field says nothing.
    pub fn values(&self, rig: &Rig, written: &Written) -> InForce {
        let fields = self.fields(rig);
        let value = |(name, typed): (&String, &String)| {
            let field = fields.iter().find(|field| field.name == *name)?;
            rig.setting(name)?;
            match field.read(typed).ok()? {
                Entered::Number(number) => Some((name.clone(), number)),
                Entered::Word(place) => Some((name.clone(), Decimal::from(place))),
                Entered::Yes | Entered::No | Entered::Text(_) => None,
            }
        };
        written.iter().filter_map(value).collect()
    }

    /// What may be written down with the answer that takes something: what the rig itself shows of each setting that somebody
    /// changed, since no adapter reads that back; or every value of the next rung, and its proof.
    pub fn fields(&self, rig: &Rig) -> Vec<Field> {
        match self {
            Self::Change { errand } => {
                let changed = errand.changes().iter().filter_map(|change| rig.setting(&change.setting));
                changed.filter(|setting| setting.takes_effect == TakesEffect::ByHand).map(Field::of_setting).collect()
            }
            Self::WhatNext { turn } => {
                let proofs = Takes::Words(turn.proofs.clone());
                let proof = Field { name: Self::PROOF.into(), label: Self::PROOF.into(), takes: proofs };
                rig.settings.iter().map(Field::of_setting).chain([proof]).collect()
            }
        }
    }
}

impl Turn {
    /// The rung with these values instead of those that were tried last.
    pub fn with(&self, values: &InForce) -> Rung {
        values.iter().fold(self.at.clone(), |rung, (name, value)| rung.with(name, *value))
    }
}
