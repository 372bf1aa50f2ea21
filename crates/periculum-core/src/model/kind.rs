//! What earlier climbs say of rigs of one kind: where the limit of a setting is expected, and how fast failures grow beyond it.

use std::collections::BTreeSet;

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;
use serde::{Deserialize, Serialize};

use crate::inference::laws::{Laws, Prior};
use crate::model::ladder::Direction;
use crate::model::plan::Proof;
use crate::model::rig::Rig;
use crate::model::rung::Rung;
use crate::model::setting::Setting;

/// A value, and how far the true one may lie from it, as a standard deviation.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize)]
pub struct Expected {
    /// The value.
    pub mean: f64,
    /// The deviation.
    pub spread: f64,
}

/// What is expected of one setting under some loads.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
pub struct Kind {
    /// The setting.
    pub setting: String,
    /// The loads.
    pub loads: BTreeSet<String>,
    /// All settings at stock, beside which the limit was found.
    pub beside: Rung,
    /// The value that fails once in ten minutes of these loads, in the setting's unit.
    pub limit: Expected,
    /// The logarithm of how much more often it fails one unit of the setting harder, in factors of e.
    pub slope: Expected,
    /// How many climbs say so.
    pub climbs: u32,
}

impl Kind {
    /// What is known of a setting under the loads of a proof.
    pub fn of<'a>(kinds: &'a [Self], setting: &str, proof: &Proof) -> Option<&'a Self> {
        let loads = loads(proof);
        kinds.iter().find(|kind| kind.setting == setting && kind.loads == loads)
    }
}

/// The laws of a setting around a rung, in steps of this size from there, before anything is seen: as its kind has them, or as is usual.
/// Harder than the farthest rung that is of any interest nobody goes.
pub fn laws(rig: &Rig, along: (&Setting, Decimal), rung: &Rung, farthest: f64, kind: Option<&Kind>) -> Laws {
    let (setting, step) = along;
    let stock = rig.stock();
    let is_beside = rung.differs_only_in(&setting.name, &stock);
    let value = rung.get(&setting.name).unwrap_or(setting.stock);
    let to_stock = setting.steps(value, setting.stock, step);
    Laws::near(is_beside.then_some(to_stock), farthest, &prior(setting, step, rung, kind))
}

/// What is expected of a setting around a rung, in steps of this size from there: by its kind, or what is usual.
fn prior(setting: &Setting, step: Decimal, rung: &Rung, kind: Option<&Kind>) -> Prior {
    let usual = Prior::usual(setting.usual_slope(step));
    let (Some(kind), Some(step), Some(from)) =
        (kind, step.to_f64(), rung.get(&setting.name).and_then(|value| value.to_f64()))
    else {
        return usual;
    };
    let sign = if setting.harder == Direction::Up { 1.0 } else { -1.0 };
    let limit = (sign * (kind.limit.mean - from) / step, kind.limit.spread / step);
    Prior {
        slope: libm::exp(kind.slope.mean) * step,
        slope_spread: kind.slope.spread,
        limit: rung.differs_only_in(&setting.name, &kind.beside).then_some(limit),
    }
}

/// The loads of a proof, by name.
pub fn loads(proof: &Proof) -> BTreeSet<String> {
    proof.passes.iter().map(|pass| pass.load.clone()).collect()
}
