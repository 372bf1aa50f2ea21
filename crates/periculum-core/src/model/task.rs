//! A pass that somebody makes by hand: what is asked of them, and what they write down.

use serde::{Deserialize, Serialize};

use crate::model::field::Field;

/// What somebody does in a pass, and what they write down of it.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Task {
    /// What is asked of them, in a sentence.
    pub ask: String,
    /// What they write down, in order.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub reads: Vec<Read>,
    /// What is calculated from it, in order.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub figures: Vec<Figure>,
}

/// Something that somebody reads and writes down.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Read {
    /// What it takes.
    #[serde(flatten)]
    pub field: Field,
    /// The words that are right; any where there is none.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub right: Vec<String>,
    /// What of it is better, where it is a number and a score.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub better: Option<Better>,
}

/// A score that is calculated from what was written down.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub struct Figure {
    /// Its name.
    pub name: String,
    /// How it is calculated, over the names of what is read as a number.
    pub formula: String,
    /// Its unit.
    pub unit: String,
    /// What of it is better.
    pub better: Better,
}

/// What of a number is better.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
pub enum Better {
    /// More.
    More,
    /// Less.
    Less,
}

impl Task {
    /// The names of its scores, in order: of numbers that are one themselves, then of those that are calculated.
    pub fn scored(&self) -> impl Iterator<Item = &str> {
        let read = self.reads.iter().filter(|read| read.better.is_some()).map(|read| read.field.name.as_str());
        read.chain(self.figures.iter().map(|figure| figure.name.as_str()))
    }
}
