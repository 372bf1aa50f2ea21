//! How much harder one rung is than another, along the settings that were moved.

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use crate::inference::laws::Laws;
use crate::inference::prior::Beliefs;
use crate::model::kind::{Kind, laws};
use crate::model::ladder::Direction;
use crate::model::plan::Proof;
use crate::model::rig::Rig;
use crate::model::rung::Rung;
use crate::model::setting::Setting;
use crate::model::strategy::Steps;

/// The settings along which a stage found a rung, beside the others.
pub(crate) struct Axis<'a> {
    settings: Vec<Along<'a>>,
}

/// A setting of the rig.
struct Along<'a> {
    setting: &'a Setting,
    /// The finest step by which the plan moves it, or what one usually takes: slopes are expected for such steps, and a ladder may be
    /// as fine as it likes.
    step: Decimal,
    /// Whether its stage moved it, and whether that is what it climbs.
    is_moved: bool,
    is_climbed: bool,
}

impl<'a> Axis<'a> {
    /// The axis of whoever climbs this setting with these steps and has moved those settings.
    pub(crate) fn new(
        rig: &'a Rig,
        use_name: &str,
        steps: &[&Steps],
        climbed: Option<&str>,
        was_moved: impl Fn(&str) -> bool,
    ) -> Self {
        let step = |name: &str| steps.iter().filter(|one| one.setting == name).filter_map(|one| one.step).min();
        let along = |setting: &'a Setting| Along {
            step: step(&setting.name)
                .or_else(|| setting.usual_step(use_name))
                .unwrap_or_else(|| setting.ladder.widest_gap()),
            is_climbed: climbed == Some(&setting.name),
            is_moved: climbed == Some(&setting.name) || was_moved(&setting.name),
            setting,
        };
        Self { settings: rig.settings.iter().map(along).collect() }
    }

    /// The one that the stage climbs, or the first that it moved; none where it moved nothing.
    fn climbed(&self) -> Option<&Along<'a>> {
        let moved = || self.settings.iter().filter(|along| along.is_moved);
        moved().find(|along| along.is_climbed).or_else(|| moved().next())
    }

    /// What earlier climbs say of it.
    pub(crate) fn kind<'b>(&self, kinds: &'b [Kind], proof: &Proof) -> Option<&'b Kind> {
        Kind::of(kinds, &self.climbed()?.setting.name, proof)
    }

    /// What it climbs, and the value so many steps harder than a rung's.
    pub(crate) fn harder(&self, rung: &Rung, steps: u32) -> Option<(&'a Setting, Decimal)> {
        let Along { setting, step, .. } = self.climbed()?;
        let by = *step * Decimal::from(steps);
        let from = rung.get(&setting.name)?;
        Some((setting, if setting.harder == Direction::Up { from + by } else { from - by }))
    }

    /// What is known before anything was seen, around a rung and as far as the farthest trial of it.
    pub(crate) fn laws(
        &self,
        rig: &Rig,
        use_name: &str,
        (rung, farthest): (&Rung, f64),
        kind: Option<&Kind>,
        beliefs: Beliefs,
    ) -> Laws {
        let of = |Along { setting, step, .. }: &Along| {
            let value = rung.get(&setting.name).unwrap_or(setting.stock);
            let hardest = setting.steps(value, setting.hardest(use_name), *step);
            laws(rig, (setting, *step), (rung, hardest.max(farthest)), kind, beliefs)
        };
        self.climbed().or(self.settings.first()).map_or_else(|| Laws::unexpected(farthest, beliefs.usual), of)
    }

    /// How many steps harder a rung is than that one. Where it is harder in one setting and easier in another, what held there says
    /// as much as if nothing were harder, and what fell as much as if nothing were easier; how much other settings than those that
    /// were moved make it easier or harder, nobody knows, so that nothing is said then.
    pub(crate) fn distance(&self, from: &Rung, rung: &Rung, has_held: bool) -> Option<f64> {
        let (mut harder, mut easier) = (0.0, 0.0);
        for Along { setting, step, is_moved, .. } in &self.settings {
            let by = ((rung.get(&setting.name)? - from.get(&setting.name)?) / step).to_f64()?;
            let by = if setting.harder == Direction::Up { by } else { -by };
            let says_nothing = if has_held { by < 0.0 } else { by > 0.0 };
            match is_moved {
                true => (harder, easier) = (harder + by.max(0.0), easier + by.min(0.0)),
                false if says_nothing => return None,
                false => {}
            }
        }
        Some(match has_held {
            true if easier < 0.0 => easier,
            false if harder > 0.0 => harder,
            _ => harder + easier,
        })
    }
}
