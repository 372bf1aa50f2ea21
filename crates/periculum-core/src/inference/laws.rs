//! How often a rung survives a proof, whatever the law by which its rig fails: what a claim rests on.
//!
//! Near a limit failures come as a Poisson process whose rate grows by a factor from one step to the next. How large that factor is,
//! where the limit lies, whether the rate falls as fast on the easier side as it grows on the harder one, and whether something else
//! fails now and then that no setting changes, nobody knows: each combination of these is a law, and what is seen weighs them
//! (Bayes; a grid over all parameters as in Gelman et al., Bayesian Data Analysis, 2013, 3.7). A statement counts the laws under which
//! it is wrong.

use libm::{exp, expm1, log};

use crate::inference::hazard::{Observation, Survival, warmed};

/// Failures in a second at the limit: one in ten minutes, which a proof of minutes shows.
const AT_LIMIT: f64 = 1.0 / 600.0;

/// How much more often a step harder fails: factors of e, from the least to the most that any rig has.
const SLOPES: (f64, f64) = (0.06, 6.0);
const SLOPE_POINTS: usize = 13;

/// Half of all rigs have a slope within a factor of e to this power of the usual one: steps are chosen so that a few of them take a rig
/// from sound to hopeless. The distribution of its logarithm is Cauchy's, whose long tails let a rig that is different be believed.
const USUAL_SLOPE: f64 = 0.8;
const SLOPE_SPREAD: f64 = 0.6;

/// The slope on the easier side of the limit as a share of that on the harder one, and the share of rigs that have it: a second, flatter
/// mechanism shows only there.
const FLATNESS: [(f64, f64); 3] = [(1.0, 0.75), (0.6, 0.17), (0.3, 0.08)];

/// What fails at every rung, in hours from one failure to the next, and the share of rigs that have it: something else than what is
/// climbed, or another setting that is at its own limit.
const BACKGROUND: [(f64, f64); 6] =
    [(f64::INFINITY, 0.8), (100.0, 0.04), (20.0, 0.04), (4.0, 0.04), (1.0, 0.04), (0.25, 0.04)];

/// Limits are told apart to this part of a step.
const FINENESS: f64 = 0.5;

/// More limits than this are not looked at: beyond them the step is larger.
const MOST_LIMITS: f64 = 80.0;

/// When a fall happened is known no better than this, seconds.
const MOMENT: f64 = 5.0;

/// Laws with their weights, along one direction in steps; harder is more.
#[derive(Clone, Debug, PartialEq)]
pub struct Laws {
    laws: Vec<Law>,
}

#[derive(Clone, Copy, Debug, PartialEq)]
struct Law {
    limit: f64,
    slope: f64,
    flatness: f64,
    /// Failures in a second.
    background: f64,
    /// The logarithm of what is not its weight yet, but that times what all have in common.
    log_weight: f64,
}

impl Law {
    /// Failures in a second at a rung.
    fn hazard(&self, rung: f64) -> f64 {
        let beyond = rung - self.limit;
        let slope = if beyond < 0.0 { self.slope * self.flatness } else { self.slope };
        AT_LIMIT * exp((slope * beyond).min(40.0)) + self.background
    }
}

impl Laws {
    /// What is known before anything is seen: the limit lies anywhere between these rungs, in steps.
    pub fn between(from: f64, to: f64) -> Self {
        let count = ((to - from) / FINENESS).ceil().clamp(1.0, MOST_LIMITS) as usize;
        let limits = (0..=count).map(|index| from + (to - from) * index as f64 / count as f64);
        let slope = |index: usize| {
            let part = index as f64 / (SLOPE_POINTS - 1) as f64;
            exp(log(SLOPES.0) + part * log(SLOPES.1 / SLOPES.0))
        };
        let mut laws = Vec::new();
        for limit in limits {
            for slope in (0..SLOPE_POINTS).map(slope) {
                let of_slope = 1.0 / (1.0 + (log(slope / USUAL_SLOPE) / SLOPE_SPREAD).powi(2));
                for (flatness, of_flatness) in FLATNESS {
                    laws.extend(BACKGROUND.map(|(hours, share)| Law {
                        limit,
                        slope,
                        flatness,
                        background: 1.0 / (3600.0 * hours),
                        log_weight: log(of_slope * of_flatness * share),
                    }));
                }
            }
        }
        Self { laws }
    }

    /// Takes in what happened at a rung.
    pub fn observe(&mut self, rung: f64, observation: Observation) {
        for law in &mut self.laws {
            let hazard = law.hazard(rung);
            let between = |earliest: f64, latest: f64| {
                let within = warmed(latest) - warmed(earliest);
                log(-expm1(-hazard * within)) - hazard * warmed(earliest)
            };
            law.log_weight += match observation {
                Observation::Held(seconds) => -hazard * warmed(seconds),
                Observation::Fell(seconds) => between((seconds - MOMENT).max(0.0), seconds.max(MOMENT)),
                Observation::FellBetween(earliest, latest) => between(earliest, latest.max(earliest + MOMENT)),
            };
        }
    }

    /// How often a rung survives so many seconds: in the mean of all laws, and between which shares nine tenths of their weight lie.
    pub fn survival(&self, rung: f64, seconds: f64) -> Survival {
        let time = warmed(seconds);
        let greatest = self.laws.iter().map(|law| law.log_weight).fold(f64::NEG_INFINITY, f64::max);
        let weights: Vec<f64> = self.laws.iter().map(|law| exp(law.log_weight - greatest)).collect();
        let all: f64 = weights.iter().sum();
        let of = |(law, weight): (&Law, &f64)| (exp(-law.hazard(rung) * time), weight / all);
        Survival::of(self.laws.iter().zip(&weights).map(of).collect())
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const PROOF: f64 = 120.0;

    fn after(seen: &[(f64, Observation)]) -> Survival {
        let mut laws = Laws::between(-8.0, 20.0);
        seen.iter().for_each(|(rung, observation)| laws.observe(*rung, *observation));
        laws.survival(0.0, PROOF)
    }

    #[test]
    fn nothing_seen_says_next_to_nothing_and_a_held_proof_little_more() {
        let nothing = after(&[]);
        assert!(nothing.low < 0.1 && nothing.high > 0.99, "{nothing:?}");
        let once = after(&[(0.0, Observation::Held(PROOF))]);
        assert!(once.low > nothing.low && once.low < 0.8, "{once:?}");
    }

    #[test]
    fn falls_far_beyond_a_rung_and_much_time_at_it_make_sure() {
        let falls = [3.0, 4.0, 4.0, 5.0].map(|rung| (rung, Observation::Fell(50.0 / rung)));
        let held = [(0.0, Observation::Held(PROOF)), (1.0, Observation::Held(PROOF)), (2.0, Observation::Held(PROOF))];
        let near = after(&[&falls[..], &held[..]].concat());
        let far = after(&[&falls[..], &held[..], &[(0.0, Observation::Held(30.0 * PROOF))]].concat());
        assert!(near.low > 0.5 && far.low > 0.9, "{near:?} {far:?}");
        // A night is another matter.
        let mut laws = Laws::between(-8.0, 20.0);
        falls.iter().chain(&held).for_each(|(rung, observation)| laws.observe(*rung, *observation));
        assert!(laws.survival(0.0, 28_800.0).low < near.low);
    }

    fn seen() -> impl Strategy<Value = Vec<(f64, Observation)>> {
        let one = (-5i32..15, 1u32..600, any::<bool>()).prop_map(|(rung, seconds, held)| {
            let seconds = f64::from(seconds);
            (f64::from(rung), if held { Observation::Held(seconds) } else { Observation::Fell(seconds) })
        });
        prop::collection::vec(one, 0..6)
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(24))]

        #[test]
        fn more_survived_time_never_lowers_a_claim_and_a_fall_instead_never_raises_it(seen in seen(), seconds in 1f64..4000.0) {
            let with = |observation| after(&[&seen[..], &[(0.0, observation)]].concat());
            let [held, longer, fell] =
                [Observation::Held(seconds), Observation::Held(2.0 * seconds), Observation::Fell(seconds)].map(with);
            let [before, held, longer, fell] = [after(&seen), held, longer, fell].map(|it| [it.low, it.mean, it.high]);
            for at in 0..3 {
                prop_assert!(held[at] >= before[at] - 1e-9 && longer[at] >= held[at] - 1e-9, "{before:?} {held:?} {longer:?}");
                prop_assert!(fell[at] <= held[at] + 1e-9, "{held:?} {fell:?}");
            }
        }

        #[test]
        fn a_longer_proof_or_a_harder_rung_is_never_survived_more_often(seen in seen()) {
            let mut laws = Laws::between(-8.0, 20.0);
            seen.iter().for_each(|(rung, observation)| laws.observe(*rung, *observation));
            let base = laws.survival(0.0, PROOF);
            for other in [laws.survival(0.0, 2.0 * PROOF), laws.survival(1.0, PROOF)] {
                prop_assert!(other.low <= base.low + 1e-9 && other.mean <= base.mean + 1e-9 && other.high <= base.high + 1e-9);
            }
        }
    }
}
