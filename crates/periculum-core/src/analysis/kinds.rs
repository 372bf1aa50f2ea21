//! What earlier climbs say of rigs of one kind, and with them of the next one.
//!
//! Each earlier climb is a specimen whose limit and slope are known more or less well; how far specimens lie from one another is a part
//! of what is learnt (a random effects model, as in Gelman et al., Bayesian Data Analysis, 2013, chapter 5, by its moments).

use std::collections::BTreeSet;

use rust_decimal::prelude::ToPrimitive;

use crate::analysis::claim::observation;
use crate::inference::family::{self, Evidence, Member};
use crate::inference::hazard::Observation;
use crate::inference::prior::Prior;
use crate::inference::worked::Worked;
use crate::model::kind::{Expected, Kind, begun, loads};
use crate::model::ladder::Direction;
use crate::model::moment::Span;
use crate::model::plan::Plan;
use crate::model::rig::Rig;
use crate::model::setting::Setting;
use crate::story::Story;

/// How far the limits of specimens usually lie apart, as a share of stock, and for how many specimens that counts.
const LIMITS_APART: f64 = 0.015;
const COUNTS_FOR: f64 = 2.0;

/// How far the limit of one specimen drifts in a season, as a share of stock.
const DRIFT: f64 = 0.003;
const SEASON: f64 = 90.0 * 86_400.0;

/// No climb says more surely than this where its limit is, in steps.
const FINEST_LIMIT: f64 = 0.25;

/// An earlier climb.
pub struct Earlier<'a> {
    /// What happened in it.
    pub story: &'a Story,
    /// Its rig.
    pub rig: &'a Rig,
    /// Its plan.
    pub plan: &'a Plan,
    /// How long ago it began.
    pub age: Span,
    /// Whether that was the very rig.
    pub is_own: bool,
}

/// What one climb says of a setting, in its unit.
#[derive(Clone, Debug, PartialEq)]
struct Sighting {
    limit: Expected,
    evidence: Evidence,
    /// Whether that was the very rig; how long ago.
    own: Option<f64>,
}

/// What earlier climbs say of each setting that a plan climbs, under the loads of the proof that it is climbed with. Climbs of rigs of
/// another kind say nothing, nor do those in which nothing fell.
pub fn kinds(earlier: &[Earlier], rig: &Rig, plan: &Plan) -> Vec<Kind> {
    let mut kinds: Vec<Kind> = Vec::new();
    for stage in &plan.stages {
        let proof = &plan.proofs[stage.proof];
        for name in stage.strategy.climbed() {
            let Some(setting) = rig.setting(name).filter(|_| Kind::of(&kinds, name, proof).is_none()) else { continue };
            let loads = loads(proof);
            let sightings: Vec<Sighting> = earlier
                .iter()
                .filter(|one| are_alike(one.rig, rig))
                .filter_map(|one| sighting(one, setting, &loads))
                .collect();
            kinds.extend(kind(&sightings, rig, setting, loads));
        }
    }
    kinds
}

/// Whether two rigs are made of parts of the same models, with the same values at stock.
pub fn are_alike(one: &Rig, other: &Rig) -> bool {
    let models = |rig: &Rig| -> Vec<(String, String)> {
        rig.parts.iter().map(|part| (part.kind.clone(), part.model.clone())).collect()
    };
    !one.parts.is_empty() && models(one) == models(other) && one.stock() == other.stock()
}

/// What a climb says of a setting, all others at stock.
fn sighting(earlier: &Earlier, setting: &Setting, loads: &BTreeSet<String>) -> Option<Sighting> {
    let Earlier { story, plan, age, is_own, .. } = earlier;
    let theirs = earlier.rig.setting(&setting.name).filter(|theirs| theirs.harder == setting.harder)?;
    let steps = plan.stages.iter().flat_map(|stage| stage.strategy.steps());
    let step = steps.filter(|steps| steps.setting == setting.name).filter_map(|steps| steps.step).min();
    let step = step.or_else(|| theirs.usual_step(&plan.use_name)).unwrap_or_else(|| theirs.ladder.widest_gap());
    let stock = earlier.rig.stock();
    let passes = plan.proofs.iter().flat_map(|proof| &proof.passes);
    let works =
        passes.filter(|pass| loads.contains(&pass.load)).map(|pass| (pass.load.as_str(), pass.threads)).collect();
    let usual = setting.usual_slope(step);
    let hardest = theirs.steps(setting.stock, theirs.hardest(&plan.use_name), step);
    // What the very rig did before its climbs is said by its file, and counts once.
    let before = |prior: Prior| if *is_own { Prior { used: Worked::NEVER, ..prior } } else { prior };
    let [mut laws, mut even] = [Prior::usual(usual), Prior::even(usual)]
        .map(before)
        .map(|prior| begun(&prior, earlier.rig, (setting, step), (&stock, hardest)));
    let mut falls = 0;
    for trial in &story.trials {
        let Some((observation, _)) = observation(trial, &works) else { continue };
        let beside = trial.rung.get(&setting.name).filter(|_| trial.rung.differs_only_in(&setting.name, &stock));
        let Some(value) = beside else { continue };
        falls += u32::from(!matches!(observation, Observation::Held(_)));
        let rung = setting.steps(setting.stock, value, step);
        [&mut laws, &mut even].into_iter().for_each(|laws| laws.observe(rung, observation));
    }
    if falls == 0 {
        return None;
    }
    let [(limit, spread), _] = laws.figures();
    let step = step.to_f64()?;
    let sign = if setting.harder == Direction::Up { 1.0 } else { -1.0 };
    Some(Sighting {
        limit: Expected {
            mean: setting.stock.to_f64()? + sign * limit * step,
            // The points that laws are weighed at are no finer than this.
            spread: spread.max(FINEST_LIMIT) * step,
        },
        evidence: Evidence::of(&even, usual, step),
        own: is_own.then(|| age.seconds()),
    })
}

/// What all of them say of the next rig.
fn kind(sightings: &[Sighting], rig: &Rig, setting: &Setting, loads: BTreeSet<String>) -> Option<Kind> {
    if sightings.is_empty() {
        return None;
    }
    let stock = setting.stock.to_f64().map(f64::abs)?;
    let limits: Vec<Expected> = sightings.iter().map(|one| one.limit).collect();
    let apart = LIMITS_APART * if stock > 0.0 { stock } else { limits[0].mean.abs() };
    let of_kind = next_of(&limits, apart);
    let drifted = |one: &Sighting| {
        let spread = one.limit.spread.hypot(DRIFT * stock * (1.0 + one.own? / SEASON).sqrt());
        Some(Expected { mean: one.limit.mean, spread })
    };
    let limit = sightings.iter().filter_map(drifted).fold(of_kind, together);
    let gap = setting.ladder.widest_gap();
    let rigs: Vec<Evidence> = sightings.iter().map(|one| one.evidence.clone()).collect();
    let mechanisms = family::next(&rigs, setting.usual_slope(gap) / gap.to_f64()?);
    let slope = slope(&mechanisms);
    let climbs = sightings.len() as u32;
    Some(Kind { setting: setting.name.clone(), loads, beside: rig.stock(), limit, slope, mechanisms, climbs })
}

/// The logarithm of the next slope, whatever the mechanism.
fn slope(mechanisms: &[Member]) -> Expected {
    let of = |figure: fn(&Member) -> f64| -> f64 {
        mechanisms.iter().map(|one| one.shares.iter().sum::<f64>() * figure(one)).sum::<f64>() / of_all(mechanisms)
    };
    let mean = of(|one| one.slope);
    let square = of(|one| one.spread * one.spread + one.slope * one.slope);
    Expected { mean, spread: (square - mean * mean).max(0.0).sqrt() }
}

fn of_all(mechanisms: &[Member]) -> f64 {
    mechanisms.iter().flat_map(|one| one.shares).sum()
}

/// What is expected of the next of some values that lie apart, where so far is usual.
fn next_of(values: &[Expected], usually_apart: f64) -> Expected {
    let count = values.len() as f64;
    let mean = values.iter().map(|one| one.mean).sum::<f64>() / count;
    let beyond_error = |one: &Expected| ((one.mean - mean).powi(2) - one.spread.powi(2)).max(0.0);
    let squares: f64 = values.iter().map(beyond_error).sum();
    let apart = (COUNTS_FOR * usually_apart.powi(2) + squares) / (COUNTS_FOR + count - 1.0);
    let weight = |one: &Expected| 1.0 / (one.spread.powi(2) + apart);
    let all: f64 = values.iter().map(weight).sum();
    let mean = values.iter().map(|one| weight(one) * one.mean).sum::<f64>() / all;
    Expected { mean, spread: (apart + 1.0 / all).sqrt() }
}

/// Two statements about one value.
fn together(one: Expected, other: Expected) -> Expected {
    let [a, b] = [one, other].map(|it| it.spread.powi(-2));
    Expected { mean: (a * one.mean + b * other.mean) / (a + b), spread: (a + b).powf(-0.5) }
}
