//! What the engine wants to know from somebody, and what may be answered: card, keys, lines and scripts are made from this.

use serde::{Deserialize, Serialize};

use crate::engine::answer::Answer;
use crate::engine::field::{Entered, Field, Written};
use crate::model::errand::Errand;
use crate::model::rig::Rig;
use crate::model::rung::InForce;
use crate::model::setting::TakesEffect;

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

    /// The errand that it asks somebody to go on; none where it asks for anything else.
    pub fn errand(&self) -> Option<&Errand> {
        match self {
            Self::Change { errand } => Some(errand),
        }
    }

    /// The values that the rig shows by what was written down, by setting; what is nothing for its field says nothing.
    pub fn shown(&self, rig: &Rig, written: &Written) -> InForce {
        let fields = self.fields(rig);
        let value = |(name, typed): (&String, &String)| {
            let field = fields.iter().find(|field| field.name == *name)?;
            match field.read(typed).ok()? {
                Entered::Number(number) => Some((name.clone(), number)),
                Entered::Word(place) => Some((name.clone(), place.into())),
                Entered::Yes | Entered::No | Entered::Text(_) => None,
            }
        };
        written.iter().filter_map(value).collect()
    }

    /// What may be written down with [`Answer::Done`]: what the rig itself shows of each setting that somebody changed, since
    /// no adapter reads that back.
    pub fn fields(&self, rig: &Rig) -> Vec<Field> {
        let changes = self.errand().map(Errand::changes).unwrap_or_default();
        let changed = changes.iter().filter_map(|change| rig.setting(&change.setting));
        changed.filter(|setting| setting.takes_effect == TakesEffect::ByHand).map(Field::shown_of).collect()
    }
}
