//! A rig that is made up: where its limits lie, by what its kind or a plan lets one expect, and how chance has it fail near them.

use std::collections::BTreeSet;

use rust_decimal::Decimal;
use rust_decimal::prelude::ToPrimitive;

use crate::model::kind::Kind;
use crate::model::ladder::Direction;
use crate::model::plan::{Plan, Stage, Start};
use crate::model::rig::Rig;
use crate::model::rung::InForce;
use crate::model::setting::Setting;
use crate::model::strategy::Strategy;

/// A rig at its limit fails once in ten minutes.
const AT_LIMIT: f64 = 1.0 / 600.0;

/// The limit is anywhere between stock and a little beyond what the plan may come to.
const BEYOND: f64 = 1.1;

/// Shares of the golden section are spread evenly, however many there are.
const GOLDEN: f64 = 0.618_033_988_749_895;

/// How much scores scatter, as shares.
const NOISES: [f64; 3] = [0.0005, 0.002, 0.006];

/// What a step of what is climbed for its score gains, and what one beyond the best value loses.
const GAINS: f64 = 0.01;
const LOSES: f64 = 0.02;

/// What a step gains where nobody climbs for it.
const FOLLOWS: f64 = 0.005;

/// A made-up rig.
#[derive(Clone, Debug)]
pub(super) struct Specimen {
    parts: Vec<Part>,
    /// The settings that are climbed for their scores, each with the step that is best.
    peaks: Vec<(Along, f64)>,
    noise: f64,
    dice: u64,
}

/// What fails by itself: what makes it faster beside everything that is trimmed, or the settings of a grid.
#[derive(Clone, Debug)]
struct Part {
    along: Vec<Along>,
    /// How much harder than stock its limit is, in factors of e.
    limit: f64,
}

/// A setting of the plan.
#[derive(Clone, Debug)]
struct Along {
    name: String,
    stock: Decimal,
    harder: Direction,
    step: Decimal,
    /// How much more often a step harder fails, in factors of e.
    slope: f64,
    /// How many steps there are to its hardest value.
    steps: f64,
}

impl Along {
    fn of(setting: &Setting, use_name: &str) -> Self {
        let step = setting.usual_step(use_name).unwrap_or_else(|| setting.ladder.widest_gap());
        Self {
            name: setting.name.clone(),
            stock: setting.stock,
            harder: setting.harder,
            step,
            slope: setting.usual_slope(step),
            steps: setting.steps(setting.stock, setting.hardest(use_name), step),
        }
    }

    /// How many steps harder than stock a value is.
    fn steps_to(&self, value: Option<Decimal>) -> f64 {
        let by = ((value.unwrap_or(self.stock) - self.stock) / self.step).to_f64().unwrap_or(0.0);
        if self.harder == Direction::Up { by } else { -by }
    }
}

/// How much harder than stock values of these settings are together, in factors of e.
fn harder(along: &[Along], value: impl Fn(&str) -> Option<Decimal>) -> f64 {
    along.iter().map(|along| along.slope * along.steps_to(value(&along.name))).sum()
}

impl Specimen {
    /// One of so many rigs, among which limits are spread as evenly as what is known of them lets one expect.
    pub(super) fn drawn(nth: usize, count: usize, (rig, plan): (&Rig, &Plan), kinds: &[Kind]) -> Self {
        let is_opened = |name: &str| {
            plan.stages.iter().any(|stage| matches!(&stage.strategy, Strategy::Open { setting } if setting == name))
        };
        let is_grid = |stage: &&Stage| matches!(stage.strategy, Strategy::Grid { .. });
        let (grids, others): (Vec<&Stage>, Vec<&Stage>) = plan.stages.iter().partition(is_grid);
        let of = |stages: &[&Stage]| -> Vec<Along> {
            let named: BTreeSet<&str> = stages.iter().flat_map(|stage| stage.strategy.settings()).collect();
            let moved = rig.settings.iter().filter(|it| named.contains(it.name.as_str()) && !is_opened(&it.name));
            moved.map(|setting| Along::of(setting, &plan.use_name)).collect()
        };
        let (faster, tighter): (Vec<Along>, Vec<Along>) =
            of(&others).into_iter().partition(|along| along.harder == Direction::Up);
        let with_tighter = |own: &Along| [std::slice::from_ref(own), &tighter].concat();
        let mut groups: Vec<Vec<Along>> = faster.iter().map(with_tighter).collect();
        if faster.is_empty() {
            groups.push(tighter.clone());
        }
        groups.extend(grids.iter().map(|stage| of(&[stage])));
        let share = |turn: usize| (((nth as f64 + 0.5) / count as f64) + turn as f64 * GOLDEN).fract();
        let part = |(turn, along): (usize, Vec<Along>)| {
            let expected = along.iter().find_map(|along| expected(along, kinds, share(turn)));
            let reach = along.iter().map(|along| along.slope * along.steps).fold(0.0, f64::max);
            // What a plan starts from is believed to hold.
            let starts = plan.stages.iter().filter_map(|stage| match &stage.start {
                Start::Profile(rung) => Some(harder(&along, |name| rung.get(name))),
                _ => None,
            });
            let known = starts.fold(0.0, f64::max);
            let limit = expected.unwrap_or(known + BEYOND * share(turn) * (reach - known).max(0.0)).max(0.0);
            Part { along, limit }
        };
        let is_peak = |along: &&Along| {
            plan.stages
                .iter()
                .any(|stage| matches!(&stage.strategy, Strategy::Peak { steps, .. } if steps.setting == along.name))
        };
        let peaks = faster.iter().chain(&tighter).filter(is_peak).cloned().map(|along| {
            let best = BEYOND * share(2) * along.steps;
            (along, best)
        });
        Self {
            peaks: peaks.collect(),
            parts: groups.into_iter().enumerate().map(part).collect(),
            noise: NOISES[nth % NOISES.len()],
            dice: nth as u64,
        }
    }

    /// A rig that holds everything, and always scores the same.
    pub(super) fn unbreakable() -> Self {
        Self { parts: Vec::new(), peaks: Vec::new(), noise: 0.0, dice: 0 }
    }

    /// After how many seconds what is in force fails.
    pub(super) fn fails_after(&mut self, in_force: &InForce) -> f64 {
        let hazard_of = |part: &Part| {
            let harder = harder(&part.along, |name| in_force.get(name).copied());
            // Stock never fails: nobody sells what does.
            AT_LIMIT * libm::exp((harder.max(0.0) - part.limit).min(40.0)) - AT_LIMIT * libm::exp(-part.limit)
        };
        let hazard = self.parts.iter().map(hazard_of).fold(0.0, |sum, one| sum + one);
        -libm::log(self.throw()) / hazard
    }

    /// What it scores with what is in force.
    pub(super) fn score(&mut self, in_force: &InForce) -> f64 {
        let of_peak = |(along, best): &(Along, f64)| {
            let at = along.steps_to(in_force.get(&along.name).copied());
            GAINS * at.min(*best) - LOSES * (at - best).max(0.0)
        };
        let follows = |along: &Along| FOLLOWS * along.steps_to(in_force.get(&along.name).copied()).max(0.0);
        let is_peak = |along: &Along| self.peaks.iter().any(|(peak, _)| peak.name == along.name);
        let others = self.parts.iter().flat_map(|part| &part.along).filter(|along| !is_peak(along));
        let gained = self.peaks.iter().map(of_peak).sum::<f64>() + others.map(follows).sum::<f64>();
        // Sums of uniform numbers are near enough to normal.
        let chance: f64 = (0..12).map(|_| self.throw() - 0.5).sum();
        100.0 * (1.0 + gained.max(-0.9)) * (1.0 + self.noise * chance)
    }

    /// A number above 0 and up to 1 (a linear congruential generator, Knuth, The Art of Computer Programming, volume 2, 3.3.4).
    fn throw(&mut self) -> f64 {
        self.dice = self.dice.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        ((self.dice >> 11) as f64 + 1.0) / (1u64 << 53) as f64
    }
}

/// How much harder than stock the limit of a setting is that so large a share of its kind lies below, in factors of e.
fn expected(along: &Along, kinds: &[Kind], share: f64) -> Option<f64> {
    let kind = kinds.iter().find(|kind| kind.setting == along.name)?;
    // The logistic distribution is near enough to normal (its deviation is π/√3).
    let off = kind.limit.spread * libm::log(share / (1.0 - share)) * 3f64.sqrt() / std::f64::consts::PI;
    let by = (kind.limit.mean + off - along.stock.to_f64()?) / along.step.to_f64()?;
    Some(along.slope * if along.harder == Direction::Up { by } else { -by })
}
