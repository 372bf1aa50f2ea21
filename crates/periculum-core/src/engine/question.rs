//! What the engine wants to know from somebody, and what may be answered: card, keys, lines and scripts are made from this.

use rust_decimal::Decimal;
use serde::{Deserialize, Serialize};

use crate::engine::answer::Answer;
use crate::model::errand::Errand;
use crate::model::field::{Entered, Field, Misfit, Takes, Written, check};
use crate::model::moment::{Moment, Span};
use crate::model::reason::Reason;
use crate::model::rig::{Rig, When};
use crate::model::rung::{InForce, Rung};
use crate::model::setting::{Setting, TakesEffect};
use crate::model::task::Task;

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
    /// Make this pass, and write down what it says.
    Make {
        /// What the pass is called.
        load: String,
        /// How long it should take.
        length: Span,
        /// What is done, and what is written down.
        task: Task,
        /// The sensors to be read meanwhile, by name.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        sensors: Vec<String>,
    },
    /// Read these sensors.
    Read {
        /// By name.
        sensors: Vec<String>,
        /// What the rig does meanwhile.
        when: When,
    },
    /// Say that all is well with what was changed, or it goes back by itself.
    Confirm {
        /// What was changed, from what to what.
        #[serde(flatten)]
        errand: Errand,
        /// When it goes back.
        until: Moment,
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

    /// What the name of a field begins with in which a measurement of a setting stands.
    const MEASURED: &str = "measured.";

    /// The field in which a measurement of this setting stands.
    pub fn measured(setting: &str) -> String {
        format!("{}{setting}", Self::MEASURED)
    }

    /// The answers that it takes, the usual one first.
    pub fn answers(&self) -> Vec<Answer> {
        match self {
            Self::Change { .. } => vec![Answer::Done, Answer::NoStart, Answer::Defaults],
            Self::Make { .. } => {
                vec![Answer::Done, Answer::Hung, Answer::NoStart, Answer::WrongPicture, Answer::NotToday]
            }
            Self::Read { .. } => vec![Answer::Done, Answer::NotToday],
            Self::Confirm { .. } => vec![Answer::Done, Answer::WrongPicture],
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
            Self::Change { .. } | Self::Make { .. } | Self::Read { .. } | Self::Confirm { .. } => Answer::Done,
            Self::WhatNext { turn } if turn.suggestion.is_some() => Answer::Take,
            Self::WhatNext { .. } => Answer::End,
        }
    }

    /// The errand that it asks somebody to go on; none where it asks for anything else.
    pub fn errand(&self) -> Option<&Errand> {
        match self {
            Self::Change { errand } => Some(errand),
            Self::Make { .. } | Self::Read { .. } | Self::Confirm { .. } | Self::WhatNext { .. } => None,
        }
    }

    /// Whether it can be answered by anybody whose hands are simulated: that something is done, or that all is well.
    pub fn is_of_hands(&self) -> bool {
        matches!(self, Self::Change { .. } | Self::Confirm { .. })
    }

    /// Where the operator stands who is to say what comes next.
    pub fn turn(&self) -> Option<&Turn> {
        match self {
            Self::WhatNext { turn } => Some(turn),
            Self::Change { .. } | Self::Make { .. } | Self::Read { .. } | Self::Confirm { .. } => None,
        }
    }

    /// The answer that something may be written down with.
    pub fn written_with(&self) -> Answer {
        match self {
            Self::Change { .. } | Self::Make { .. } | Self::Read { .. } | Self::Confirm { .. } => Answer::Done,
            Self::WhatNext { .. } => Answer::Try,
        }
    }

    /// The same without these sensors, which were read.
    #[must_use]
    pub fn without_sensors(mut self, read: &[String]) -> Self {
        if let Self::Make { sensors, .. } | Self::Read { sensors, .. } = &mut self {
            sensors.retain(|sensor| !read.contains(sensor));
        }
        self
    }

    /// Whether it asks for nothing any more.
    pub fn is_empty(&self) -> bool {
        matches!(self, Self::Read { sensors, .. } if sensors.is_empty())
    }

    /// Checks what was written down with its answer.
    ///
    /// # Errors
    /// The first that is nothing for its field, that is missing, or that can't be calculated.
    pub fn check(&self, rig: &Rig, written: &Written) -> Result<(), Misfit> {
        check(&self.fields(rig), written)?;
        match self {
            Self::Make { task, .. } => task.report(written, Span::ZERO).map(drop),
            Self::Change { .. } | Self::Read { .. } | Self::Confirm { .. } | Self::WhatNext { .. } => Ok(()),
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

    /// What was measured of settings by what was written down, in each setting's unit.
    pub fn measurements(&self, rig: &Rig, written: &Written) -> InForce {
        let fields = self.fields(rig);
        let value = |(name, typed): (&String, &String)| {
            let setting = name.strip_prefix(Self::MEASURED)?;
            match fields.iter().find(|field| field.name == *name)?.read(typed).ok()? {
                Entered::Number(number) => Some((setting.to_owned(), number)),
                _ => None,
            }
        };
        written.iter().filter_map(value).collect()
    }

    /// What may be written down with the answer that takes something. With an errand: what the rig itself shows of each setting that
    /// somebody changed, since no adapter reads that back, what they measured of it, and what the rig shows of the others that
    /// people set, since these may have changed by themselves. With a turn: every value of the next rung, and its proof.
    pub fn fields(&self, rig: &Rig) -> Vec<Field> {
        match self {
            Self::Change { errand } => {
                let by_hand = rig.settings.iter().filter(|setting| setting.takes_effect == TakesEffect::ByHand);
                let (changed, others): (Vec<&Setting>, Vec<&Setting>) =
                    by_hand.partition(|setting| errand.change_of(&setting.name).is_some());
                let both = changed.into_iter().flat_map(|setting| {
                    let shown = Field::of_setting(setting);
                    let measured = Field { name: Self::measured(&setting.name), ..shown.clone() };
                    [Some(shown), Some(measured).filter(|_| setting.words.is_empty())].into_iter().flatten()
                });
                both.chain(others.into_iter().map(Field::of_setting)).collect()
            }
            Self::Make { task, sensors, .. } => {
                let of_task = task.reads.iter().map(|read| read.field.clone());
                of_task.chain(fields_of(sensors, rig)).collect()
            }
            Self::Read { sensors, .. } => fields_of(sensors, rig).collect(),
            Self::Confirm { .. } => Vec::new(),
            Self::WhatNext { turn } => {
                let proofs = Takes::Words(turn.proofs.clone());
                let proof =
                    Field { name: Self::PROOF.into(), label: Self::PROOF.into(), takes: proofs, is_needed: false };
                rig.settings.iter().map(Field::of_setting).chain([proof]).collect()
            }
        }
    }
}

/// A field for each of these sensors.
fn fields_of(sensors: &[String], rig: &Rig) -> impl Iterator<Item = Field> {
    let named = |name: &String| rig.sensors.iter().find(|sensor| sensor.name == *name);
    sensors.iter().filter_map(named).map(Field::of_sensor)
}

impl Turn {
    /// The rung with these values instead of those that were tried last.
    pub fn with(&self, values: &InForce) -> Rung {
        values.iter().fold(self.at.clone(), |rung, (name, value)| rung.with(name, *value))
    }
}
