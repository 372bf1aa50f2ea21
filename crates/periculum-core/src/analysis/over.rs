//! What results are laid over: a setting, or a value that is derived from settings.

use rust_decimal::Decimal;

use crate::model::ladder::Direction;
use crate::model::plan::Plan;
use crate::model::rig::{Derived, Rig};
use crate::model::rung::Rung;
use crate::model::setting::Setting;
use crate::story::Story;
use crate::story::profile::Axis;

/// A setting or a derived value as the axis that results are laid over.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Over<'a> {
    /// What is set.
    Setting(&'a Setting),
    /// What comes of it.
    Derived(&'a Derived),
}

impl<'a> Over<'a> {
    /// The setting that the plan climbs; none where it climbs none.
    pub fn usual(rig: &'a Rig, plan: &Plan) -> Option<Self> {
        Some(Self::Setting(rig.setting(plan.climbed_setting()?)?))
    }

    /// The setting or derived value of this name.
    pub fn named(rig: &'a Rig, name: &str) -> Option<Self> {
        let derived = || rig.derived.iter().find(|derived| derived.name == name);
        rig.setting(name).map(Self::Setting).or_else(|| derived().map(Self::Derived))
    }

    /// Everything that has more than one value among the trials, with the usual one first.
    pub fn choices(rig: &'a Rig, plan: &Plan, story: &Story) -> Vec<Self> {
        let usual = Self::usual(rig, plan);
        let settings = rig.settings.iter().map(Self::Setting);
        let all = settings.chain(rig.derived.iter().map(Self::Derived));
        let moved = all.filter(|over| Some(*over) != usual && over.is_moved(story.trials.iter().map(|it| &it.rung)));
        usual.into_iter().chain(moved).collect()
    }

    /// What files call it.
    pub fn name(&self) -> &'a str {
        match self {
            Self::Setting(setting) => &setting.name,
            Self::Derived(derived) => &derived.name,
        }
    }

    /// Its label and unit.
    pub fn axis(&self) -> Axis {
        match self {
            Self::Setting(setting) => Axis::of(setting),
            Self::Derived(derived) => Axis { label: derived.label(), unit: derived.unit.clone(), words: Vec::new() },
        }
    }

    /// Its value at a rung; none where it has none there, or can't be calculated.
    pub fn value(&self, rung: &Rung) -> Option<Decimal> {
        match self {
            Self::Setting(setting) => rung.get(&setting.name),
            Self::Derived(derived) => derived.value(rung),
        }
    }

    /// A value as people read it, with its unit.
    pub fn written(&self, value: Decimal) -> String {
        match self {
            Self::Setting(setting) => setting.written(value),
            Self::Derived(derived) => derived.written(value),
        }
    }

    /// The same where its unit is told elsewhere.
    pub fn written_short(&self, value: Decimal) -> String {
        match self {
            Self::Setting(setting) => setting.written_short(value),
            Self::Derived(derived) => derived.written_short(value),
        }
    }

    /// Which way it is told: from easy to hard for a setting, upwards for what is derived.
    pub fn direction(&self) -> Direction {
        match self {
            Self::Setting(setting) => setting.harder,
            Self::Derived(_) => Direction::Up,
        }
    }

    /// The setting among these that moves along it, while the others are held equal: of what a derived value is made
    /// of, the usual one, or that with the most values.
    pub(crate) fn along(&self, usual: Option<&str>, moved: &[(&'a str, usize)]) -> Option<&'a str> {
        let derived = match self {
            Self::Setting(setting) => return Some(&setting.name),
            Self::Derived(derived) => derived,
        };
        let names = derived.formula.names();
        let own = moved.iter().filter(|(moved, _)| names.iter().any(|(name, _)| name == moved));
        let rank = |(name, values): &&(&str, usize)| (Some(*name) == usual, *values);
        own.rev().max_by_key(rank).map(|(name, _)| *name)
    }

    fn is_moved<'b>(&self, rungs: impl Iterator<Item = &'b Rung>) -> bool {
        let mut values = rungs.filter_map(|rung| self.value(rung));
        let first = values.next();
        values.any(|value| Some(value) != first)
    }
}
