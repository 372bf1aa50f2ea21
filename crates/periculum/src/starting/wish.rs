//! What somebody may want of a rig, and what stands against it.

use std::collections::BTreeSet;

use periculum_core::model::ladder::Direction;
use periculum_core::model::rig::Rig;
use periculum_core::model::setting::Setting;
use strum::VariantArray;

/// What is wanted.
#[derive(Clone, Copy, Debug, PartialEq, Eq, VariantArray)]
pub(crate) enum Wish {
    /// How far a setting goes.
    FindLimit,
    /// The same speed with less.
    LessVoltage,
    /// The value from which on more is not worth it.
    WhatPays,
    /// To choose each rung oneself.
    Lead,
    /// Whether it is right as it is.
    Prove,
    /// How fast it is.
    Score,
}

/// What a rig lacks for a wish.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Lack {
    /// A setting that may become harder than stock.
    Room,
    /// A setting of which less is harder, and which may be less than at stock.
    RoomBelow,
}

impl Wish {
    pub(crate) const ALL: &[Self] = Self::VARIANTS;

    /// What stands against it on this rig; none where it can be.
    pub(crate) fn lacks(self, rig: &Rig) -> Option<Lack> {
        if !self.moves() || !self.settings(rig).is_empty() {
            return None;
        }
        Some(if self == Self::LessVoltage { Lack::RoomBelow } else { Lack::Room })
    }

    /// Whether it moves settings.
    pub(crate) fn moves(self) -> bool {
        !matches!(self, Self::Prove | Self::Score)
    }

    /// Whether one setting is chosen for it.
    pub(crate) fn needs_setting(self) -> bool {
        matches!(self, Self::FindLimit | Self::LessVoltage | Self::WhatPays)
    }

    /// Whether it may start from a profile.
    pub(crate) fn may_start_elsewhere(self) -> bool {
        matches!(self, Self::FindLimit | Self::LessVoltage | Self::Lead)
    }

    /// Whether it matters how long one has.
    pub(crate) fn needs_time(self) -> bool {
        !matches!(self, Self::Lead | Self::Score)
    }

    /// The settings that it may be about, for any use.
    pub(crate) fn settings(self, rig: &Rig) -> Vec<&Setting> {
        let goes_harder = |setting: &&Setting| match setting.harder {
            Direction::Up => setting.ceilings.values().any(|ceiling| *ceiling > setting.stock),
            Direction::Down => setting.floor < setting.stock,
        };
        let fits = |setting: &&Setting| self != Self::LessVoltage || setting.harder == Direction::Down;
        rig.settings_but_points().filter(goes_harder).filter(fits).collect()
    }

    /// The uses that settings have ceilings for, those with the lowest ones first.
    pub(crate) fn uses(rig: &Rig) -> Vec<String> {
        let uses: BTreeSet<&String> = rig.settings.iter().flat_map(|setting| setting.ceilings.keys()).collect();
        let mut uses: Vec<String> = uses.into_iter().cloned().collect();
        uses.sort_by_key(|use_name| rig.settings.iter().map(|setting| setting.ceiling(use_name)).collect::<Vec<_>>());
        uses
    }
}
