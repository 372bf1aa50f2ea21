//! One leaf of the start screen: a few lines, and groups of things to choose from.

use std::path::PathBuf;

use periculum_core::files::added::Way;

use crate::starting::Wish;
use crate::tui::travel::Travel;

/// What choosing something does.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) enum Act {
    /// Goes on with a climb that waits.
    Resume(i64),
    /// Opens a climb of the ledger.
    Open(i64),
    /// Asks what is wanted of this rig, by its place.
    Rig(usize),
    Wish(Wish),
    Setting(String),
    Use(String),
    /// Starts from a profile, or from stock.
    Start(Option<String>),
    Hours(u32),
    /// Gives a setting that the machine offers a ceiling.
    Offered(String),
    /// Describes a setting that is changed this way.
    Add(Way),
    Begin,
    Edit,
    /// Begins what was asked for.
    Go,
    Leave,
}

/// What was chosen on the start screen, when it closes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(crate) enum Chosen {
    /// Goes on with this climb.
    Resume(i64),
    /// Shows this climb.
    Open(i64),
    /// Climbs the plan of this file.
    Climb(PathBuf),
    /// Opens the plan of this file to be written.
    Edit(PathBuf),
}

/// Something to choose.
#[derive(Clone, Debug)]
pub(super) struct Choice {
    pub(super) label: String,
    /// What is known of it, on its line.
    pub(super) fact: String,
    /// What it would do, below it.
    pub(super) beside: String,
    /// Nothing where it can't be done, which `beside` says.
    pub(super) act: Option<Act>,
}

impl Choice {
    pub(super) fn new(label: impl Into<String>, fact: impl Into<String>, beside: impl Into<String>, act: Act) -> Self {
        Self { label: label.into(), fact: fact.into(), beside: beside.into(), act: Some(act) }
    }
}

/// One leaf.
#[derive(Clone, Debug, Default)]
pub(super) struct Leaf {
    pub(super) title: String,
    /// What stands above the groups.
    pub(super) above: Vec<String>,
    pub(super) groups: Vec<(String, Vec<Choice>)>,
    pub(super) at: usize,
}

impl Leaf {
    pub(super) fn choices(&self) -> impl Iterator<Item = &Choice> {
        self.groups.iter().flat_map(|(_, choices)| choices)
    }

    pub(super) fn selected(&self) -> Option<&Choice> {
        self.choices().nth(self.at)
    }

    pub(super) fn select(&mut self, step: Travel) {
        self.at = step.from(self.at, self.choices().count());
    }
}
