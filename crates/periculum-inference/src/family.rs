//! What several rigs of a kind say of the next one: how fast failures grow, whether they grow rarer as fast, and what else fails.
//!
//! The logarithms of the slopes of a kind's rigs lie around one that is the kind's own; what it has on its easier side and what else fails
//! is the same for all of them (a hierarchical model, as in Gelman et al., Bayesian Data Analysis, 2013, chapter 5; summed over a grid).

use libm::{exp, log};
use serde::{Deserialize, Serialize};

use crate::laws::Laws;
use crate::prior::{BACKGROUND_COUNT, Mechanism, Prior, SLOPE_SPREAD, Tail, student};

/// Logarithms of a kind's slope are told apart to this, out to so far from what is usual.
const FINENESS: f64 = 0.07;
const FARTHEST: f64 = 2.1;

/// How far the logarithms of slopes of one kind lie apart.
const APART: f64 = 0.12;

/// In this share the next rig is not like the others, but for its slope.
const UNLIKE: f64 = 0.3;

/// What one rig says of each law, whatever its limit.
#[derive(Clone, Debug, PartialEq)]
pub struct Evidence {
    /// The logarithm of the first slope, and from one to the next.
    first: f64,
    apart: f64,
    /// For each tail, slope and background the logarithm of how likely what was seen is.
    of: Vec<Vec<[f64; BACKGROUND_COUNT]>>,
}

/// How a kind's rigs may fail that give way equally slowly on the easier side of their limit.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize)]
pub struct Member {
    /// How failures grow rarer there.
    pub tail: Tail,
    /// The mean of the logarithm of the next rig's slope.
    pub slope: f64,
    /// Its standard deviation.
    pub spread: f64,
    /// How likely the next rig is of it, by what else fails, from nothing to most.
    pub shares: [f64; BACKGROUND_COUNT],
}

impl Evidence {
    /// Evidence of laws that were all as likely before anything was seen, with slopes for such steps: in the setting's unit.
    pub fn of(laws: &Laws, slope: f64, step: f64) -> Self {
        let prior = Prior::even(slope);
        let of = laws.whatever_the_limit(prior.mechanisms.len());
        let slopes: Vec<f64> = prior.mechanisms[0].weighed().map(|(slope, _)| log(slope / step)).collect();
        Self { first: slopes[0], apart: slopes[1] - slopes[0], of }
    }

    /// The logarithm of how likely it is by this law, between points on a line.
    fn at(&self, tail: usize, slope: f64, background: usize) -> f64 {
        let of = &self.of[tail];
        let place = ((slope - self.first) / self.apart).clamp(0.0, (of.len() - 1) as f64);
        let below = (place as usize).min(of.len() - 2);
        let [a, b] = [of[below][background], of[below + 1][background]];
        a + (b - a) * (place - below as f64)
    }
}

/// What one search says of the next one of the same rig along the same setting, in steps.
pub fn of_one(laws: &Laws) -> Vec<Member> {
    let mut members: Vec<(Member, f64)> = Vec::new();
    for (shape, weights) in laws.shapes() {
        let (slope, weight) = (log(shape.slope), weights.iter().sum::<f64>());
        let at = members.iter().position(|(member, _)| member.tail == shape.tail).unwrap_or_else(|| {
            members.push((Member { tail: shape.tail, slope: 0.0, spread: 0.0, shares: [0.0; BACKGROUND_COUNT] }, 0.0));
            members.len() - 1
        });
        let (member, all) = &mut members[at];
        member.shares.iter_mut().zip(weights).for_each(|(share, weight)| *share += weight);
        member.slope += weight * slope;
        member.spread += weight * slope * slope;
        *all += weight;
    }
    let of = |(member, all): (Member, f64)| {
        let mean = member.slope / all;
        let spread = (member.spread / all - mean * mean).max(0.0).sqrt().hypot(APART);
        Member { slope: mean, spread, ..member }
    };
    members.into_iter().map(of).collect()
}

/// What they say of the next rig of their kind, whose slope is usually around this one, all in one unit of the setting.
pub fn next(rigs: &[Evidence], usual: f64) -> Vec<Member> {
    let count = (2.0 * FARTHEST / FINENESS) as usize;
    let powers: Vec<f64> = (0..=count).map(|index| index as f64 * FINENESS - FARTHEST).collect();
    let slopes: Vec<f64> = powers.iter().map(|power| log(usual) + power).collect();
    let near = near(slopes.len());
    let prior = Prior::usual(usual);
    let of_kind = |tail: usize, background: usize, share: f64| -> Vec<f64> {
        let mut weights: Vec<f64> = powers.iter().map(|power| log(share * student(power / SLOPE_SPREAD))).collect();
        for rig in rigs {
            let of_rig: Vec<f64> = slopes.iter().map(|slope| rig.at(tail, *slope, background)).collect();
            let greatest = of_rig.iter().copied().fold(f64::NEG_INFINITY, f64::max);
            let likely: Vec<f64> = of_rig.iter().map(|one| exp(one - greatest)).collect();
            weights
                .iter_mut()
                .enumerate()
                .for_each(|(at, weight)| *weight += greatest + log(spread(&likely, &near, at)));
        }
        weights
    };
    let all: Vec<[Vec<f64>; BACKGROUND_COUNT]> = prior
        .mechanisms
        .iter()
        .enumerate()
        .map(|(tail, one)| std::array::from_fn(|at| of_kind(tail, at, one.shares[at])))
        .collect();
    let greatest = all.iter().flatten().flatten().copied().fold(f64::NEG_INFINITY, f64::max);
    let weight = |of: &[f64]| of.iter().map(|one| exp(one - greatest)).sum::<f64>();
    let sum: f64 = all.iter().flatten().map(|of| weight(of)).sum();
    let member = |(of, usually): (&[Vec<f64>; BACKGROUND_COUNT], &Mechanism)| {
        let (mut weights, mut first, mut second) = (0.0, 0.0, 0.0);
        for (slope, weight) in of.iter().flat_map(|of| slopes.iter().zip(of)) {
            let weight = exp(weight - greatest).max(f64::MIN_POSITIVE);
            weights += weight;
            first += weight * slope;
            second += weight * slope * slope;
        }
        let mean = first / weights;
        let spread = (second / weights - mean * mean).max(0.0).sqrt().hypot(APART);
        let shares = std::array::from_fn(|at| (1.0 - UNLIKE) * weight(&of[at]) / sum + UNLIKE * usually.shares[at]);
        Member { tail: usually.tail, slope: mean, spread, shares }
    };
    all.iter().zip(&prior.mechanisms).map(member).collect()
}

/// How much slopes of rigs so many points from their kind's count.
fn near(points: usize) -> Vec<f64> {
    let of = |index: usize| exp(-0.5 * (index as f64 * FINENESS / APART).powi(2));
    (0..points).map(of).take_while(|weight| *weight > 1e-4).collect()
}

/// How likely something is of a rig whose kind's slope is at this point.
fn spread(likely: &[f64], near: &[f64], at: usize) -> f64 {
    let (mut sum, mut weights) = (0.0, 0.0);
    for (off, weight) in near.iter().enumerate() {
        let both = [at.checked_sub(off), Some(at + off).filter(|_| off > 0)];
        for one in both.into_iter().flatten().filter_map(|at| likely.get(at)) {
            sum += weight * one;
            weights += weight;
        }
    }
    sum / weights
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::hazard::Observation;

    const USUAL: f64 = 0.9;

    /// What a rig says that was seen at these rungs, its limit being somewhere around nothing.
    fn evidence(seen: &[(f64, Observation)]) -> Evidence {
        let mut laws = Laws::between(-12.0, 12.0, &Prior::even(USUAL));
        seen.iter().for_each(|(rung, observation)| laws.observe(*rung, *observation));
        Evidence::of(&laws, USUAL, 1.0)
    }

    /// Falls that come by so many factors of e sooner with each step.
    fn falls(slope: f64) -> Vec<(f64, Observation)> {
        [0.0, 1.0, 2.0, 3.0].map(|rung| (rung, Observation::Fell(600.0 * exp(-slope * rung)))).to_vec()
    }

    fn flat(members: &[Member]) -> f64 {
        members.iter().filter(|one| one.tail.is_flat()).flat_map(|one| one.shares).sum()
    }

    #[test]
    fn where_nothing_is_known_the_next_rig_is_like_any() {
        let members = next(&[], USUAL);
        let all: f64 = members.iter().flat_map(|one| one.shares).sum();
        assert!((all - 1.0).abs() < 1e-9 && (flat(&members) - 0.26).abs() < 1e-9, "{members:?}");
        assert!(members.iter().all(|one| (one.slope - log(USUAL)).abs() < 1e-6 && one.spread > SLOPE_SPREAD));
    }

    #[test]
    fn slopes_of_rigs_lead_to_that_of_the_next() {
        let of = |slope: f64, count: usize| next(&vec![evidence(&falls(slope)); count], USUAL)[0];
        let (steep, gentle, one) = (of(1.6, 4), of(0.5, 4), of(0.5, 1));
        assert!(steep.slope > log(1.2) && gentle.slope < log(0.65), "{steep:?} {gentle:?}");
        assert!(gentle.slope < one.slope && gentle.spread >= APART, "more rigs say more: {gentle:?} {one:?}");
    }

    #[test]
    fn nights_that_fail_where_they_should_not_make_a_kind_flat() {
        let nights = |observation| {
            let nights = [-5.0, -6.0, -7.0].map(|rung| (rung, observation));
            vec![evidence(&[falls(1.0), nights.to_vec()].concat()); 5]
        };
        let (held, fell) = (nights(Observation::Held(28_800.0)), nights(Observation::Fell(9_000.0)));
        let [held, fell] = [held, fell].map(|rigs| flat(&next(&rigs, USUAL)));
        assert!(held < 0.15 && fell > 0.35, "{held} {fell}");
    }

    #[test]
    fn one_search_says_what_it_was_told() {
        let mut laws = Laws::between(-12.0, 12.0, &Prior::usual(USUAL));
        falls(1.0).iter().for_each(|(rung, observation)| laws.observe(*rung, *observation));
        let members = of_one(&laws);
        let all: f64 = members.iter().flat_map(|one| one.shares).sum();
        let mean: f64 = members.iter().map(|one| one.shares.iter().sum::<f64>() * one.slope).sum();
        assert!((all - 1.0).abs() < 1e-9 && (mean - laws.figures()[1].0).abs() < 1e-9);
    }
}
