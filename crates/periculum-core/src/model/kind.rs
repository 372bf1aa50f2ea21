//! What earlier climbs say of rigs of one kind: where the limit of a setting is expected, and how fast failures grow beyond it.

use std::collections::BTreeSet;

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;
use serde::{Deserialize, Serialize};

use crate::inference::family::Member;
use crate::inference::laws::Laws;
use crate::inference::prior::{Beliefs, Mechanism, Prior};
use crate::inference::worked::Worked;
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
    /// The same by how fast failures grow rarer on the easier side, and what else fails; none in records of before.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub mechanisms: Vec<Member>,
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

/// The laws of a setting around a rung, in steps of this size from there, before anything is seen: as its kind has them, or as is usual
/// of such slopes. Harder than the farthest rung that is of any interest nobody goes.
pub fn laws(
    rig: &Rig,
    along: (&Setting, Decimal),
    (rung, farthest): (&Rung, f64),
    kind: Option<&Kind>,
    beliefs: Beliefs,
) -> Laws {
    let (setting, step) = along;
    let usual = (beliefs.usual)(setting.usual_slope(step));
    let of_kind = |kind: &Kind| {
        let known = of_kind(kind, setting, step, rung)?;
        if (1..=beliefs.few).contains(&kind.climbs) {
            return Some(Prior { limit: known.limit, ..usual.clone() });
        }
        // What a rig taught of itself along another line is no more than it would have learnt here.
        let by_each = beliefs.by_each && kind.climbs > 0;
        Some(Prior { used: usual.used, by_each, ..known })
    };
    let prior = kind.and_then(of_kind).unwrap_or_else(|| usual.clone());
    begun(&prior, rig, along, (rung, farthest))
}

/// The same by what is believed of them, and by what the rig's owner says; who takes nothing for granted takes nobody's word either.
pub fn begun(prior: &Prior, rig: &Rig, (setting, step): (&Setting, Decimal), (rung, farthest): (&Rung, f64)) -> Laws {
    let stock = rig.stock();
    let from = rung.get(&setting.name).unwrap_or(setting.stock);
    let to = |other: &Rung| Some(setting.steps(from, other.get(&setting.name)?, step));
    let beside = |other: &Rung| to(other).filter(|_| rung.differs_only_in(&setting.name, other));
    if prior.used == Worked::NEVER {
        return Laws::near(beside(&stock), farthest, prior);
    }
    let is_told_of_stock = rig.history.iter().any(|told| told.rung == stock);
    let used = if is_told_of_stock { Worked::NEVER } else { prior.used };
    let mut laws = Laws::near(beside(&stock), farthest, &Prior { used, ..prior.clone() });
    let told = rig.history.iter().filter_map(|told| Some((beside(&told.rung)?, told.worked())));
    told.for_each(|(at, worked)| laws.hear(at, worked));
    laws
}

/// What is expected by its kind of a setting around a rung, in steps of this size from there.
fn of_kind(kind: &Kind, setting: &Setting, step: Decimal, rung: &Rung) -> Option<Prior> {
    let (step, from) = (step.to_f64()?, rung.get(&setting.name)?.to_f64()?);
    let sign = if setting.harder == Direction::Up { 1.0 } else { -1.0 };
    let limit = (sign * (kind.limit.mean - from) / step, kind.limit.spread / step);
    let slope = |log_slope: f64| libm::exp(log_slope) * step;
    let mechanism = |one: &Member| Mechanism::expected(one.tail, slope(one.slope), one.spread, one.shares);
    let expected = match kind.mechanisms.is_empty() {
        true => Prior::of_7(slope(kind.slope.mean), Some(kind.slope.spread)),
        false => Prior::of(kind.mechanisms.iter().map(mechanism).collect()),
    };
    Some(Prior { limit: rung.differs_only_in(&setting.name, &kind.beside).then_some(limit), ..expected })
}

/// The loads of a proof, by name.
pub fn loads(proof: &Proof) -> BTreeSet<String> {
    proof.passes.iter().map(|pass| pass.load.clone()).collect()
}
