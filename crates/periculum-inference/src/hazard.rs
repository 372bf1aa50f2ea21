//! What falls and survivals at some rungs say about others: a Bayesian model of the hazard.
//!
//! Near its limit a rig falls at random, as a Poisson process whose rate grows exponentially with the setting. So what
//! happens within minutes at hard rungs tells about hours at easier ones, as in accelerated life testing (Nelson,
//! Accelerated testing, 1990). With `x` in steps along the setting,
//!
//! ```text
//! ln hazard(x) = ln hazard(limit) + slope · d · (1 + bend · d),   d = x − limit, no bend below the limit
//! ```
//!
//! where a rung at the limit survives the target proof with a probability of [`SURVIVAL`]. The bend stands for silicon
//! that needs ever more for the next step, so that the limit is lower than a straight line says. The three unknowns
//! have a weight on each point of a grid; observations multiply it by their likelihood. Functions of the `libm` crate make
//! every machine reckon the same, so that records can be replayed anywhere.

use std::sync::LazyLock;

use libm::{exp, expm1, log};

/// A rung that survives the target proof at least this often is within the limit.
pub const SURVIVAL: f64 = 0.9;

/// A rig warms up over about this many seconds in a pass, and at its beginning the hazard is so much of a warm one's.
const WARM_UP: f64 = 60.0;
const COLD: f64 = 0.4;

/// Slopes from the least to the greatest that any rig has, in e-foldings a step.
const SLOPES: (f64, f64) = (0.08, 5.0);

/// Before anything is known, slopes are spread around this one, half of them by less than this in their logarithm: steps
/// are chosen so that a few of them matter. The distribution is Cauchy's, whose long tails let a rig that is different
/// be believed after a few falls.
const USUAL_SLOPE: f64 = 1.2;
const SLOPE_SPREAD: f64 = 0.25;

/// Points of the grid between those, evenly in their logarithm.
const SLOPE_POINTS: usize = 15;

/// By what share the slope is more a step beyond the limit, halved.
const BENDS: [f64; 3] = [0.0, 0.01, 0.02];

/// Points of the grid from one step to the next, and along the whole setting at most.
const POINTS_PER_STEP: f64 = 2.0;
const MOST_LIMITS: f64 = 160.0;

/// Where what is expected of a limit is wrong, the limit lies within so many of its deviations half of the time.
const FAR: f64 = 5.0;

/// Points of less weight hardly change what is expected.
const NEGLIGIBLE: f64 = 1e-4;

/// When a fall happened is known no better than this, seconds: what comes at once may have come in the first moment.
const MOMENT: f64 = 5.0;

/// What happened at a rung.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Observation {
    /// It survived so many seconds.
    Held(f64),
    /// It fell after so many seconds.
    Fell(f64),
    /// It fell after the first and before the second of so many seconds: nobody heard of it between.
    FellBetween(f64, f64),
}

/// The model of one rig along one setting.
#[derive(Clone, Debug, PartialEq)]
pub struct Hazard {
    points: Vec<Point>,
    /// How long the target proof takes, seconds.
    target: f64,
}

#[derive(Clone, Copy, Debug, PartialEq)]
struct Point {
    limit: f64,
    slope: f64,
    bend: f64,
    weight: f64,
}

/// What is expected of a trial.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Expectation {
    /// The probability that it falls.
    pub falls: f64,
    /// The probability that it falls before the first moment, as deep falls do.
    pub falls_at_once: f64,
    /// How long it takes, seconds.
    pub seconds: f64,
    /// The share of the limit's variance that is left afterwards.
    pub variance_left: f64,
}

/// The survival of a rung: its expectation and where most of the weight lies, nine tenths where nothing else is wanted.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Survival {
    /// The probability that the rung survives the target proof.
    pub mean: f64,
    /// A twentieth of the weight, or what one dares to be wrong by, says it is below this.
    pub low: f64,
    /// As much says it is above this.
    pub high: f64,
}

impl Survival {
    /// From where to where it lies, the mean among it: who is content to be hardly sure leaves that outside.
    pub fn around(&self) -> (f64, f64) {
        (self.low.min(self.mean), self.high.max(self.mean))
    }

    /// Of probabilities, each with its weight; the weights are one together, and this share of them lies below and above.
    pub(super) fn of(mut survivals: Vec<(f64, f64)>, beyond: f64) -> Self {
        survivals.sort_by(|(a, _), (b, _)| a.total_cmp(b));
        let mean = survivals.iter().map(|(survival, weight)| survival * weight).sum();
        let quantile = |part: f64| {
            let mut below = 0.0;
            let found = survivals.iter().find(|(_, weight)| {
                below += weight;
                below >= part
            });
            found.or(survivals.last()).map_or(0.0, |(survival, _)| *survival)
        };
        Self { mean, low: quantile(beyond), high: quantile(1.0 - beyond) }
    }
}

impl Hazard {
    /// A rig of which nothing is known but that its limit lies between these steps, for a target proof of so many
    /// seconds.
    pub fn unknown(from: f64, to: f64, target: f64) -> Self {
        let count = ((to - from) * POINTS_PER_STEP).ceil().clamp(1.0, MOST_LIMITS) as usize;
        let slope = |index: usize| {
            let part = index as f64 / (SLOPE_POINTS - 1) as f64;
            exp(log(SLOPES.0) + part * log(SLOPES.1 / SLOPES.0))
        };
        let limits = (0..=count).map(|index| from + (to - from) * index as f64 / count as f64);
        let lines = limits.flat_map(|limit| (0..SLOPE_POINTS).map(move |index| (limit, slope(index))));
        let weight = |slope: f64| 1.0 / (1.0 + (log(slope / USUAL_SLOPE) / SLOPE_SPREAD).powi(2));
        let point = |(limit, slope)| BENDS.map(|bend| Point { limit, slope, bend, weight: weight(slope) });
        let mut model = Self { points: lines.flat_map(point).collect(), target };
        model.normalise();
        model
    }

    /// The same model where the limit is expected here, in steps, give or take so much, and slopes and bends are as
    /// likely as another rig's model of the same setting has them. With this share beside the rest that is wrong, and the limit
    /// may be far from there.
    pub fn expecting(mut self, limit: f64, deviation: f64, wrong: f64, other: &Self) -> Self {
        let kinds = SLOPE_POINTS * BENDS.len();
        let mut shares = vec![0.0; kinds];
        other.points.iter().enumerate().for_each(|(index, point)| shares[index % kinds] += point.weight);
        for (index, point) in self.points.iter_mut().enumerate() {
            let off = (point.limit - limit) / deviation;
            let anywhere = wrong / (1.0 + (off / FAR).powi(2));
            point.weight = shares[index % kinds] * (exp(-0.5 * off * off) + anywhere + 1e-9);
        }
        self.normalise();
        self
    }

    /// Takes in what happened at a rung.
    pub fn observe(&mut self, rung: f64, observation: Observation) {
        let target = warmed(self.target);
        for point in &mut self.points {
            let hazard = point.hazard(rung, target);
            let likelihood = match observation {
                Observation::Held(seconds) => exp(-hazard * warmed(seconds)),
                Observation::FellBetween(earliest, latest) => {
                    let within = warmed(latest.max(earliest + MOMENT)) - warmed(earliest);
                    -exp(-hazard * warmed(earliest)) * expm1(-hazard * within)
                }
                Observation::Fell(seconds) => {
                    let before = (seconds - MOMENT).max(0.0);
                    let within = warmed(seconds.max(MOMENT)) - warmed(before);
                    -exp(-hazard * warmed(before)) * expm1(-hazard * within)
                }
            };
            // Nothing is ruled out altogether: rigs are not as regular as their model.
            point.weight *= likelihood + 1e-12;
        }
        self.normalise();
    }

    fn normalise(&mut self) {
        let sum: f64 = self.points.iter().map(|point| point.weight).sum();
        self.points.iter_mut().for_each(|point| point.weight /= sum);
    }

    /// The limit's expectation and its standard deviation, in steps.
    pub fn limit(&self) -> (f64, f64) {
        let mean: f64 = self.points.iter().map(|point| point.weight * point.limit).sum();
        let variance: f64 = self.points.iter().map(|point| point.weight * (point.limit - mean).powi(2)).sum();
        (mean, variance.sqrt())
    }

    /// The probability that a rung is within the limit.
    pub fn within(&self, rung: f64) -> f64 {
        self.points.iter().filter(|point| point.limit >= rung).map(|point| point.weight).sum()
    }

    /// How a rung survives the target proof.
    pub fn survival(&self, rung: f64) -> Survival {
        let target = warmed(self.target);
        let of = |point: &Point| (exp(-point.hazard(rung, target) * target), point.weight);
        Survival::of(self.points.iter().map(of).collect(), 0.05)
    }

    /// The same model without the points that hardly matter, to foresee many trials.
    pub fn likely(&self) -> Self {
        let points = self.points.iter().filter(|point| point.weight > NEGLIGIBLE).copied().collect();
        Self { points, target: self.target }
    }

    /// What to expect of trials at a rung that end at each of these moments, in ascending seconds. A fall is known by
    /// the two moments that it happens between; one before the first moment is one at once.
    pub fn expect(&self, rung: f64, moments: &[f64]) -> Vec<Expectation> {
        let unit = log(-log(SURVIVAL) / warmed(self.target));
        let mut all = Share::default();
        let mut alive: Vec<(f64, Share)> =
            moments.iter().map(|moment| (unit + log(warmed(*moment)), Share::default())).collect();
        for point in &self.points {
            all.add(point, 1.0);
            let exponent = point.exponent(rung);
            for (dose, alive) in &mut alive {
                alive.add(point, CURVE.survival(exponent + *dose));
            }
        }
        let at_once = alive.first().map_or(0.0, |(_, first)| 1.0 - first.weight / all.weight);
        let mut before = (0.0, all);
        let (mut seconds, mut variance_of_falls) = (0.0, 0.0);
        let expected = moments.iter().zip(alive).map(|(moment, (_, alive_now))| {
            let (since, alive_before) = before;
            seconds += (moment - since) * (alive_before.weight + alive_now.weight) / 2.0;
            variance_of_falls += alive_before.less(alive_now).variance();
            before = (*moment, alive_now);
            Expectation {
                falls: 1.0 - alive_now.weight / all.weight,
                falls_at_once: at_once,
                seconds: seconds / all.weight,
                variance_left: (variance_of_falls + alive_now.variance()) / all.variance().max(f64::MIN_POSITIVE),
            }
        });
        expected.collect()
    }
}

/// The weight of points under which something happens, with the sums of their limits and of these squared.
#[derive(Clone, Copy, Default)]
struct Share {
    weight: f64,
    first: f64,
    second: f64,
}

impl Share {
    fn add(&mut self, point: &Point, probability: f64) {
        let weight = point.weight * probability;
        self.weight += weight;
        self.first += weight * point.limit;
        self.second += weight * point.limit * point.limit;
    }

    fn less(self, other: Self) -> Self {
        Self { weight: self.weight - other.weight, first: self.first - other.first, second: self.second - other.second }
    }

    /// The variance of the limit among these points, times their weight.
    fn variance(self) -> f64 {
        if self.weight > 0.0 { (self.second - self.first * self.first / self.weight).max(0.0) } else { 0.0 }
    }
}

/// Survival as a curve over the logarithm of the dose, that is, of the hazard summed up over time, in a table: what is
/// expected is worked out at many rungs after each trial.
pub(super) struct Curve(Vec<f64>);

pub(super) static CURVE: LazyLock<Curve> = LazyLock::new(Curve::new);

impl Curve {
    /// From no dose that matters to one that nothing survives, and points of the table for a factor of e.
    const FROM: f64 = -20.0;
    const TO: f64 = 4.0;
    const FINENESS: f64 = 64.0;

    fn new() -> Self {
        let count = ((Self::TO - Self::FROM) * Self::FINENESS) as usize + 1;
        let dose = |index: usize| exp(Self::FROM + index as f64 / Self::FINENESS);
        Self((0..count).map(|index| exp(-dose(index))).collect())
    }

    /// The probability to survive a dose of this logarithm.
    pub(super) fn survival(&self, log_dose: f64) -> f64 {
        let Self(table) = self;
        let place = ((log_dose - Self::FROM) * Self::FINENESS).clamp(0.0, (table.len() - 2) as f64);
        let index = place as usize;
        table[index] + (table[index + 1] - table[index]) * (place - index as f64).min(1.0)
    }
}

impl Point {
    /// The hazard at a rung, in a second of a warm rig.
    fn hazard(&self, rung: f64, target: f64) -> f64 {
        exp(self.exponent(rung)) * -log(SURVIVAL) / target
    }

    /// The logarithm of the hazard at a rung over that at the limit.
    fn exponent(&self, rung: f64) -> f64 {
        let distance = rung - self.limit;
        (self.slope * distance * (1.0 + self.bend * distance.max(0.0))).min(60.0)
    }
}

/// How much of so many seconds counts: the first ones count less.
pub(super) fn warmed(seconds: f64) -> f64 {
    seconds + (1.0 - COLD) * WARM_UP * expm1(-seconds / WARM_UP)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    const NIGHT: f64 = 8.0 * 3600.0;

    fn model() -> Hazard {
        Hazard::unknown(-4.0, 30.0, NIGHT)
    }

    #[test]
    fn a_rung_at_the_limit_survives_as_it_is_defined() {
        let point = Point { limit: 7.0, slope: 1.3, bend: 0.0, weight: 1.0 };
        let only = Hazard { points: vec![point], target: NIGHT };
        assert!((only.survival(7.0).mean - SURVIVAL).abs() < 1e-9);
        assert!(only.survival(8.0).mean < SURVIVAL && only.within(7.0) == 1.0 && only.within(7.1) == 0.0);
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(40))]

        #[test]
        fn weights_stay_weights_and_survival_falls_along_the_setting(
            seen in prop::collection::vec((0f64..26.0, 0.5f64..4000.0, any::<bool>()), 0..12),
        ) {
            let mut model = model();
            for (rung, seconds, held) in seen {
                model.observe(rung, if held { Observation::Held(seconds) } else { Observation::Fell(seconds) });
            }
            let sum: f64 = model.points.iter().map(|point| point.weight).sum();
            prop_assert!((sum - 1.0).abs() < 1e-9);
            let survivals: Vec<Survival> = (0..26).map(|rung| model.survival(f64::from(rung))).collect();
            prop_assert!(survivals.is_sorted_by(|a, b| a.mean >= b.mean - 1e-12));
            prop_assert!(survivals.iter().all(|survival| survival.low <= survival.high));
        }

        #[test]
        fn a_trial_is_expected_to_teach_and_never_to_unteach(rung in 0f64..26.0, seconds in 30f64..4000.0) {
            let mut model = model();
            model.observe(8.0, Observation::Held(300.0));
            model.observe(14.0, Observation::Fell(40.0));
            let foreseen = model.likely().expect(rung, &[10.0, seconds, 2.0 * seconds]);
            for (expectation, moment) in foreseen.iter().zip([10.0, seconds, 2.0 * seconds]) {
                prop_assert!((0.0..=1.0001).contains(&expectation.variance_left));
                prop_assert!((-1e-9..=1.0).contains(&expectation.falls));
                prop_assert!(expectation.falls_at_once <= expectation.falls + 1e-9);
                prop_assert!(expectation.seconds <= moment + 1e-9);
            }
            prop_assert!(foreseen[2].variance_left <= foreseen[1].variance_left + 1e-9);
        }
    }

    #[test]
    fn the_table_is_as_good_as_the_functions() {
        for step in -2500..500 {
            let log_dose = f64::from(step) / 100.0;
            let dose = log_dose.exp();
            assert!((CURVE.survival(log_dose) - (-dose).exp()).abs() < 2e-5, "{log_dose}");
        }
    }

    /// A rig that is as the model has it is found where it is.
    #[test]
    fn falls_at_hard_rungs_lead_to_the_limit_far_below() {
        let truth = Point { limit: 9.0, slope: 1.1, bend: 0.01, weight: 1.0 };
        let mut model = model();
        model.observe(4.0, Observation::Held(600.0));
        for rung in [13.0, 14.0, 15.0, 16.0, 17.0] {
            for part in [0.3, 0.7, 1.2, 1.6] {
                let mean = 1.0 / truth.hazard(rung, warmed(NIGHT));
                model.observe(rung, Observation::Fell((1.0 - COLD) * WARM_UP + part * mean));
            }
        }
        let (limit, deviation) = model.limit();
        assert!((limit - 9.0).abs() < 1.5 && deviation < 1.5, "{limit} ± {deviation}");
        assert!(model.within(5.0) > 0.95 && model.within(12.0) < 0.05);
    }
}
