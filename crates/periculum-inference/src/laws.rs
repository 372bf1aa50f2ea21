//! How often a rung survives a proof, whatever the law by which its rig fails: what a claim rests on.
//!
//! Near a limit failures come as a Poisson process whose rate grows by a factor from one step to the next. How large that factor is,
//! where the limit lies, whether the rate falls as fast on the easier side as it grows on the harder one, and whether something else
//! fails now and then that no setting changes, nobody knows: each combination of these is a law, and what is seen weighs them
//! (Bayes; a grid over all parameters as in Gelman et al., Bayesian Data Analysis, 2013, 3.7). A statement counts the laws under which
//! it is wrong.

use std::sync::OnceLock;

use libm::{exp, expm1, log};

use crate::hazard::{Observation, Survival, warmed};
use crate::prior::{BACKGROUND, BACKGROUND_COUNT, BACKGROUNDS, Prior, Tail};
use crate::worked::Worked;

/// Failures in a second at the limit: one in ten minutes, which a proof of minutes shows.
pub(super) const AT_LIMIT: f64 = 1.0 / 600.0;

/// The limit may lie so many steps on the easier side of stock, and so many beyond the hardest rung, or of a rung that is not beside stock.
const ROOM: f64 = 2.0;
const BEYOND: f64 = 12.0;

/// Limits are told apart to this part of a step.
const FINENESS: f64 = 0.5;

/// More limits than this are not looked at: beyond them the step is larger.
const MOST_LIMITS: f64 = 80.0;

/// A law whose weight is so many factors of e below the greatest counts for nothing until others fall as far.
const NOTHING: f64 = 23.0;

/// When a fall happened is known no better than this, seconds.
const MOMENT: f64 = 5.0;

/// Laws with their weights, along one direction in steps; harder is more.
#[derive(Clone, Debug)]
pub struct Laws {
    /// Laws that differ in nothing but their background, of all of which the rest is worked out once.
    shapes: Vec<Shape>,
    /// For each of them and each background the logarithm of what is not its weight yet, but that times what all have in common.
    log_weights: Vec<[f64; BACKGROUND_COUNT]>,
    /// The weights of those that matter, worked out when somebody asks after something was seen.
    live: OnceLock<Vec<(usize, [f64; BACKGROUND_COUNT])>>,
    /// Whether what is said has to be as sure by each mechanism alone as by all of them together.
    by_each: bool,
}

/// A law without its background.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Shape {
    limit: f64,
    pub(super) slope: f64,
    pub(super) tail: Tail,
    mechanism: usize,
}

impl Shape {
    /// The logarithm of the hazard at a rung over that at the limit.
    pub(super) fn exponent(&self, rung: f64) -> f64 {
        let steep = self.slope * (rung - self.limit);
        let Tail { depth, flatness } = self.tail;
        if steep < -depth { (steep + depth) * flatness - depth } else { steep.min(40.0) }
    }

    /// Failures in a second at a rung.
    fn hazard(&self, rung: f64) -> f64 {
        AT_LIMIT * exp(self.exponent(rung))
    }

    /// The rung at which it has this hazard.
    pub(super) fn rung_of(&self, hazard: f64) -> f64 {
        let exponent = log(hazard / AT_LIMIT);
        let Tail { depth, flatness } = self.tail;
        let steep = if exponent < -depth { (exponent + depth) / flatness - depth } else { exponent };
        self.limit + steep / self.slope
    }
}

/// What a rung is to survive, and how surely.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Aim {
    /// The proof, seconds.
    pub proof: f64,
    /// How often it is to be survived.
    pub survives: f64,
    /// How sure one wants to be of that.
    pub sure: f64,
}

impl Laws {
    /// What is known before anything is seen around rung nothing of a rig that works at stock, where that is beside it, and is allowed
    /// to go no farther than the hardest rung.
    pub fn near(stock: Option<f64>, hardest: f64, prior: &Prior) -> Self {
        let easiest = stock.map_or(-BEYOND, |stock| stock - ROOM);
        let mut laws = Self::between(easiest, hardest.max(easiest) + BEYOND, prior);
        if let Some(stock) = stock.filter(|_| prior.used != Worked::NEVER) {
            laws.hear(stock, prior.used);
        }
        laws
    }

    /// What is known of something of which not even a step is known, but for how far it was tried.
    pub fn unexpected(farthest: f64, usual: fn(f64) -> Prior) -> Self {
        Self::near(None, farthest, &usual(1.0))
    }

    /// What is known before anything is seen: the limit lies between these rungs, in steps.
    pub fn between(from: f64, to: f64, prior: &Prior) -> Self {
        let count = ((to - from) / FINENESS).ceil().clamp(1.0, MOST_LIMITS) as usize;
        let limits = (0..=count).map(|index| from + (to - from) * index as f64 / count as f64);
        let (mut shapes, mut log_weights) = (Vec::new(), Vec::new());
        for limit in limits {
            let of_limit = prior.of_limit(limit);
            for (index, mechanism) in prior.mechanisms.iter().enumerate() {
                for (slope, weights) in mechanism.weighed() {
                    shapes.push(Shape { limit, slope, tail: mechanism.tail, mechanism: index });
                    log_weights.push(weights.map(|weight| of_limit + weight));
                }
            }
        }
        Self { shapes, log_weights, live: OnceLock::new(), by_each: prior.by_each }
    }

    /// How far from rung nothing the limit is where it fails once in ten minutes, and the logarithm of the slope, each with its
    /// standard deviation.
    pub fn figures(&self) -> [(f64, f64); 2] {
        let of = |figure: fn(&Shape) -> f64| {
            let (mut first, mut second) = (0.0, 0.0);
            for (shape, weights) in self.shapes() {
                let (weight, figure) = (weights.iter().sum::<f64>(), figure(shape));
                first += weight * figure;
                second += weight * figure * figure;
            }
            (first, (second - first * first).max(0.0).sqrt())
        };
        [of(|shape| shape.limit), of(|shape| log(shape.slope))]
    }

    /// For each of so many mechanisms, each slope and each background, the logarithm of all weights together, whatever the limit.
    pub(super) fn whatever_the_limit(&self, mechanisms: usize) -> Vec<Vec<[f64; BACKGROUND_COUNT]>> {
        let first = self.shapes[0].limit;
        let a_limit = self.shapes.iter().take_while(|shape| shape.limit == first).count();
        let together = |index: usize| {
            std::array::from_fn(|at| {
                let of_limits = || self.log_weights.iter().skip(index).step_by(a_limit).map(|weights| weights[at]);
                let greatest = of_limits().fold(f64::NEG_INFINITY, f64::max);
                greatest + log(of_limits().map(|weight| exp(weight - greatest)).sum())
            })
        };
        let slopes = a_limit / mechanisms;
        (0..mechanisms).map(|of| (of * slopes..(of + 1) * slopes).map(together).collect()).collect()
    }

    /// Takes in what happened at a rung.
    pub fn observe(&mut self, rung: f64, observation: Observation) {
        self.live = OnceLock::new();
        let (survived, within) = stretch(observation);
        let weighed = self.shapes.iter().zip(&mut self.log_weights);
        let Some(within) = within else {
            for (shape, log_weights) in weighed {
                let of_shape = shape.hazard(rung);
                log_weights
                    .iter_mut()
                    .zip(BACKGROUNDS)
                    .for_each(|(it, background)| *it -= (of_shape + background) * survived);
            }
            return;
        };
        let of_background = BACKGROUNDS.map(|background| (background * survived, -expm1(-background * within)));
        for (shape, log_weights) in weighed {
            let hazard = shape.hazard(rung);
            let of_shape = -expm1(-hazard * within);
            for (log_weight, (before, falls)) in log_weights.iter_mut().zip(of_background) {
                // Either of them falls, or both.
                *log_weight += log(of_shape + falls - of_shape * falls) - hazard * survived - before;
            }
        }
    }

    /// Takes in what a rig did at a rung before: nobody knows when it failed.
    pub fn hear(&mut self, rung: f64, worked: Worked) {
        self.observe(rung, Observation::Held(worked.seconds));
        if worked.failures <= 0.0 {
            return;
        }
        for (shape, log_weights) in self.shapes.iter().zip(&mut self.log_weights) {
            let of_shape = shape.hazard(rung);
            let weighed = log_weights.iter_mut().zip(BACKGROUNDS);
            weighed.for_each(|(it, background)| *it += worked.failures * log(of_shape + background));
        }
    }

    /// How often a rung survives so many seconds: in the mean of all laws, and at least and at most as one can be so sure.
    pub fn survival(&self, rung: f64, seconds: f64, sure: f64) -> Survival {
        let beyond = 1.0 - sure;
        let all = Survival::of(self.survivals(rung, seconds), beyond);
        if !self.by_each {
            return all;
        }
        let each = self.survivals_by_mechanism(rung, seconds).map(|one| Survival::of(one, beyond));
        each.fold(all, |all, one| Survival { low: all.low.min(one.low), high: all.high.max(one.high), ..all })
    }

    /// The same in the mean alone.
    pub fn mean_survival(&self, rung: f64, seconds: f64) -> f64 {
        self.survivals(rung, seconds).into_iter().map(|(survival, weight)| survival * weight).sum()
    }

    /// How often each law survives so many seconds at a rung, and its weight.
    pub(super) fn survivals(&self, rung: f64, seconds: f64) -> Vec<(f64, f64)> {
        survivals(self.shapes(), rung, seconds)
    }

    /// The same for each mechanism, whose weights are one together.
    fn survivals_by_mechanism(&self, rung: f64, seconds: f64) -> impl Iterator<Item = Vec<(f64, f64)>> {
        (0..self.mechanisms()).filter_map(move |mechanism| {
            let of_one = self.shapes().filter(|(shape, _)| shape.mechanism == mechanism);
            let mut one = survivals(of_one, rung, seconds);
            let all: f64 = one.iter().map(|(_, weight)| weight).sum();
            one.iter_mut().for_each(|(_, weight)| *weight /= all);
            (all > 0.0).then_some(one)
        })
    }

    fn mechanisms(&self) -> usize {
        self.shapes.last().map_or(0, |last| last.mechanism + 1)
    }

    /// What can be said of rungs once they survived the whole proof.
    pub fn once_proved(&self, aim: &Aim) -> OnceProved<'_> {
        self.once_survived(warmed(aim.proof), aim)
    }

    /// How sure one can be of rungs now.
    pub fn unproved(&self, aim: &Aim) -> OnceProved<'_> {
        self.once_survived(0.0, aim)
    }

    fn once_survived(&self, time: f64, aim: &Aim) -> OnceProved<'_> {
        OnceProved {
            time,
            bearable: -log(aim.survives) / warmed(aim.proof),
            survive: BACKGROUNDS.map(|background| exp(-background * time)),
            weighed: self.shapes().collect(),
            mechanisms: if self.by_each { self.mechanisms() } else { 1 },
        }
    }

    /// The hardest rung that is as good as this, in the mean, and its standard deviation: among laws by which any rung can be.
    pub fn limit(&self, aim: &Aim) -> (f64, f64) {
        let bearable = -log(aim.survives) / warmed(aim.proof);
        let (mut all, mut first, mut second) = (0.0, 0.0, 0.0);
        for (shape, weights) in self.shapes() {
            for (weight, background) in weights.into_iter().zip(BACKGROUNDS).filter(|(_, it)| *it < bearable) {
                let limit = shape.rung_of(bearable - background);
                all += weight;
                first += weight * limit;
                second += weight * limit * limit;
            }
        }
        let mean = first / all;
        (mean, (second / all - mean * mean).max(0.0).sqrt())
    }

    /// How likely it is that a rung is as good as this.
    pub fn within(&self, rung: f64, aim: &Aim) -> f64 {
        let bearable = -log(aim.survives) / warmed(aim.proof);
        let of_shape = |(shape, weights): (&Shape, [f64; BACKGROUND_COUNT])| {
            let hazard = shape.hazard(rung);
            let good = weights.into_iter().zip(BACKGROUNDS).filter(|(_, background)| hazard + background <= bearable);
            good.map(|(weight, _)| weight).sum::<f64>()
        };
        self.shapes().map(of_shape).sum()
    }

    /// How likely it is that something fails at every rung, whatever is set, and how many hours lie between two such failures then, in the
    /// mean of their logarithm.
    pub fn background(&self) -> (f64, f64) {
        let (mut likely, mut sum) = (0.0, 0.0);
        for (_, weights) in self.shapes() {
            for (weight, (hours, _)) in weights.into_iter().zip(BACKGROUND).filter(|(_, (hours, _))| hours.is_finite())
            {
                likely += weight;
                sum += weight * log(hours);
            }
        }
        (likely, exp(sum / likely))
    }

    /// How likely it is that failures grow rarer more slowly on the easier side of the limit than they grow more frequent on the harder one.
    pub fn flatter(&self) -> f64 {
        let flat = self.shapes().filter(|(shape, _)| shape.tail.is_flat());
        flat.map(|(_, weights)| weights.iter().sum::<f64>()).sum()
    }

    /// The logarithm of how likely everything was that was seen, but for what is the same whatever was.
    pub(super) fn log_evidence(&self) -> f64 {
        let all = || self.log_weights.iter().flatten().copied();
        let greatest = all().fold(f64::NEG_INFINITY, f64::max);
        greatest + log(all().map(|one| exp(one - greatest)).sum())
    }

    /// The shapes that matter with the weights of their backgrounds, one together.
    pub(super) fn shapes(&self) -> impl Iterator<Item = (&Shape, [f64; BACKGROUND_COUNT])> {
        let live = self.live.get_or_init(|| self.weighed());
        live.iter().map(|(at, weights)| (&self.shapes[*at], *weights))
    }

    /// The places of the shapes that matter with their weights.
    fn weighed(&self) -> Vec<(usize, [f64; BACKGROUND_COUNT])> {
        let most = |of_shape: &[f64; BACKGROUND_COUNT]| of_shape.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        let greatest = self.log_weights.iter().map(most).fold(f64::NEG_INFINITY, f64::max);
        let live = self.log_weights.iter().enumerate().filter(|(_, of_shape)| most(of_shape) > greatest - NOTHING);
        let weighed = live.map(|(at, of_shape)| (at, of_shape.map(|log_weight| exp(log_weight - greatest))));
        let mut weighed: Vec<(usize, [f64; BACKGROUND_COUNT])> = weighed.collect();
        let all: f64 = weighed.iter().map(|(_, weights)| weights.iter().sum::<f64>()).sum();
        weighed.iter_mut().flat_map(|(_, weights)| weights).for_each(|weight| *weight /= all);
        weighed
    }
}

/// Laws with their weights, and a proof that a rung is thought to survive.
pub struct OnceProved<'a> {
    time: f64,
    bearable: f64,
    survive: [f64; BACKGROUND_COUNT],
    weighed: Vec<(&'a Shape, [f64; BACKGROUND_COUNT])>,
    /// How many mechanisms are told apart.
    mechanisms: usize,
}

impl OnceProved<'_> {
    /// How sure it is that a rung so many steps harder than this one is as good as wanted, if this one survives the whole proof.
    pub fn sure(&self, rung: f64, harder: f64) -> f64 {
        let (mut all, mut good) = (0.0, 0.0);
        let mut each = vec![(0.0, 0.0); self.mechanisms];
        for (shape, weights) in &self.weighed {
            let hazard = shape.hazard(rung);
            let survives = exp(-hazard * self.time);
            let bearable = self.bearable - if harder == 0.0 { hazard } else { shape.hazard(rung + harder) };
            let (all_of_it, good_of_it) = &mut each[shape.mechanism.min(self.mechanisms - 1)];
            for (at, weight) in weights.iter().enumerate() {
                let weight = weight * survives * self.survive[at];
                let if_good = if BACKGROUNDS[at] <= bearable { weight } else { 0.0 };
                (all, good) = (all + weight, good + if_good);
                (*all_of_it, *good_of_it) = (*all_of_it + weight, *good_of_it + if_good);
            }
        }
        let share = |(all, good): (f64, f64)| good / all;
        let possible = each.into_iter().filter(|(all, _)| *all > 0.0);
        if all > 0.0 { possible.map(share).fold(share((all, good)), f64::min) } else { 0.0 }
    }
}

/// How often each of these laws survives so many seconds at a rung, and its weight.
fn survivals<'a>(
    shapes: impl Iterator<Item = (&'a Shape, [f64; BACKGROUND_COUNT])>,
    rung: f64,
    seconds: f64,
) -> Vec<(f64, f64)> {
    let time = warmed(seconds);
    let of_background = BACKGROUNDS.map(|background| exp(-background * time));
    let of_shape = |(shape, weights): (&Shape, [f64; BACKGROUND_COUNT])| {
        let of_shape = exp(-shape.hazard(rung) * time);
        std::array::from_fn::<_, BACKGROUND_COUNT, _>(|at| (of_shape * of_background[at], weights[at]))
    };
    shapes.flat_map(of_shape).collect()
}

impl PartialEq for Laws {
    fn eq(&self, other: &Self) -> bool {
        self.shapes == other.shapes && self.log_weights == other.log_weights
    }
}

/// How long something survived, and within how long it fell then; none where it did not. Both as warm seconds.
fn stretch(observation: Observation) -> (f64, Option<f64>) {
    let between = |earliest: f64, latest: f64| (warmed(earliest), Some(warmed(latest) - warmed(earliest)));
    match observation {
        Observation::Held(seconds) => (warmed(seconds), None),
        Observation::Fell(seconds) => between((seconds - MOMENT).max(0.0), seconds.max(MOMENT)),
        Observation::FellBetween(earliest, latest) => between(earliest, latest.max(earliest + MOMENT)),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::prior::Mechanism;
    use proptest::prelude::*;

    const PROOF: f64 = 120.0;

    fn after(seen: &[(f64, Observation)]) -> Survival {
        let mut laws = Laws::between(-8.0, 20.0, &Prior::usual(0.8));
        seen.iter().for_each(|(rung, observation)| laws.observe(*rung, *observation));
        laws.survival(0.0, PROOF, 0.95)
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
        let mut laws = Laws::between(-8.0, 20.0, &Prior::usual(0.8));
        falls.iter().chain(&held).for_each(|(rung, observation)| laws.observe(*rung, *observation));
        assert!(laws.survival(0.0, 28_800.0, 0.95).low < near.low);
    }

    #[test]
    fn what_fails_whatever_is_set_is_told_from_the_limit() {
        let mut laws = Laws::between(-8.0, 20.0, &Prior::usual(0.8));
        assert!(laws.background().0 < 0.2 && laws.flatter() < 0.5, "nothing is suspected before anything is seen");
        let fell = |laws: &mut Laws, rungs: &[f64], seconds: f64| {
            rungs.iter().for_each(|rung| laws.observe(*rung, Observation::Fell(seconds)));
        };
        fell(&mut laws, &[8.0, 9.0], 60.0);
        [3.0, 4.0, 5.0].iter().for_each(|rung| laws.observe(*rung, Observation::Held(7_200.0)));
        let usual = laws.clone();
        fell(&mut laws, &[-7.0, -6.0, -5.0, -7.0, -6.0], 14_000.0);
        let (likely, hours) = laws.background();
        assert!(likely > 0.9 && (1.0..40.0).contains(&hours), "{likely} {hours}");
        assert!(usual.background().0 < 0.3, "falls beyond a limit are no background");
    }

    #[test]
    fn what_is_said_by_each_is_as_sure_by_a_way_to_give_way_that_is_hardly_believed() {
        const NIGHT: Aim = Aim { proof: 28_800.0, survives: 0.9, sure: 0.95 };
        let usual = Prior::usual(0.8);
        let of = |mechanism: usize, share: f64| {
            let tail = usual.mechanisms[mechanism].tail;
            Mechanism::expected(tail, 0.8, 0.05, [share, 0.0, 0.0, 0.0, 0.0, 0.0])
        };
        let together = Prior::of(vec![of(0, 0.97), of(2, 0.03)]);
        let each = Prior { by_each: true, ..together.clone() };
        let [together, each] = [together, each].map(|prior| {
            let mut laws = Laws::between(-40.0, 20.0, &prior);
            [12.0, 12.0, 13.0, 14.0].iter().for_each(|rung| laws.observe(*rung, Observation::Fell(300.0)));
            laws
        });
        let sure = |laws: &Laws, rung: f64| laws.once_proved(&NIGHT).sure(rung, 0.0);
        let low = |laws: &Laws, rung: f64| laws.survival(rung, NIGHT.proof, NIGHT.sure).low;
        let [near, far] = [1.0, -6.0];
        assert!(
            sure(&together, near) > 0.95 && sure(&each, near) < 0.5,
            "{} {}",
            sure(&together, near),
            sure(&each, near)
        );
        assert!(low(&together, near) > 0.9 && low(&each, near) < 0.9, "{} {}", low(&together, near), low(&each, near));
        assert!(sure(&each, far) > 0.95 && low(&each, far) > 0.9, "far away it is sure by each of them");
    }

    #[test]
    fn what_was_used_before_is_believed_to_work_at_stock_until_it_falls_there() {
        let used = Prior::usual(0.8);
        let new = Prior { used: Worked::NEVER, ..used.clone() };
        let at_stock = |laws: &Laws| laws.survival(-3.0, 28_800.0, 0.95);
        let [mut used, new] = [used, new].map(|prior| Laws::near(Some(-3.0), 10.0, &prior));
        assert!(at_stock(&used).mean > at_stock(&new).mean + 0.1);
        let before = at_stock(&used);
        used.observe(-3.0, Observation::Fell(600.0));
        let fallen = at_stock(&used);
        assert!(before.mean - fallen.mean > 0.2 && fallen.low < 0.5, "{before:?} {fallen:?}");
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
        fn more_work_at_a_rung_before_never_lowers_its_claim_and_more_failures_never_raise_it(seen in seen(), hours in 0.1f64..70.0) {
            let with = |seconds: f64, failures: u32| {
                let mut laws = Laws::between(-8.0, 20.0, &Prior::usual(0.8));
                seen.iter().for_each(|(rung, observation)| laws.observe(*rung, *observation));
                laws.hear(0.0, Worked::told(seconds, failures));
                let Survival { low, mean, high } = laws.survival(0.0, PROOF, 0.95);
                [low, mean, high]
            };
            let [never, once, longer, oftener] =
                [(0.0, 0), (3600.0 * hours, 1), (4800.0 * hours, 1), (3600.0 * hours, 3)].map(|(time, often)| with(time, often));
            let well = with(3600.0 * hours, 0);
            for at in 0..3 {
                prop_assert!(well[at] >= never[at] - 1e-9 && longer[at] >= once[at] - 1e-9, "{never:?} {well:?} {once:?} {longer:?}");
                prop_assert!(once[at] <= well[at] + 1e-9 && oftener[at] <= once[at] + 1e-9, "{well:?} {once:?} {oftener:?}");
            }
        }

        #[test]
        fn a_longer_proof_or_a_harder_rung_is_never_survived_more_often(seen in seen()) {
            let mut laws = Laws::between(-8.0, 20.0, &Prior::usual(0.8));
            seen.iter().for_each(|(rung, observation)| laws.observe(*rung, *observation));
            let base = laws.survival(0.0, PROOF, 0.95);
            for other in [laws.survival(0.0, 2.0 * PROOF, 0.95), laws.survival(1.0, PROOF, 0.95)] {
                prop_assert!(other.low <= base.low + 1e-9 && other.mean <= base.mean + 1e-9 && other.high <= base.high + 1e-9);
            }
        }
    }
}
