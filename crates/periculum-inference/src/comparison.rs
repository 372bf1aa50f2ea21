//! Whether a score is really better or worse than another: a difference is only said with its interval.

use serde::{Deserialize, Serialize};

use crate::statistics::{deviation, mean, quantile};

/// How much a score differs from a reference, as a share of the reference's mean.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize)]
pub struct Comparison {
    /// The difference of the means.
    pub change: f64,
    /// With a confidence of 95 % the true difference is no less than this …
    pub low: f64,
    /// … and no more than this.
    pub high: f64,
}

/// What a comparison says.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Says {
    /// The score is less, beyond the noise.
    Less,
    /// Noise could be all there is.
    Same,
    /// The score is more, beyond the noise.
    More,
}

impl Comparison {
    /// The same of the scores themselves, where they were compared by their reciprocals since less of them is better.
    #[must_use]
    pub fn of_scores(&self, less_is_better: bool) -> Self {
        if !less_is_better {
            return *self;
        }
        let inverse = |share: f64| 1.0 / (1.0 + share) - 1.0;
        let known = self.low.is_finite() && self.low > -1.0;
        let [low, high] = if known { [self.high, self.low].map(inverse) } else { [f64::NEG_INFINITY, f64::INFINITY] };
        Self { change: inverse(self.change), low, high }
    }

    /// What it says.
    pub fn says(&self) -> Says {
        if self.high < 0.0 {
            Says::Less
        } else if self.low > 0.0 {
            Says::More
        } else {
            Says::Same
        }
    }
}

/// Compares measurements with a reference of at least two.
///
/// Both have noise of their own where both were repeated (Welch, The generalization of Student's problem when several
/// different population variances are involved, 1947). A single measurement has the noise of the reference: its interval
/// is that of one future observation (Hahn and Meeker, Statistical Intervals, 1991, 4.7). Nothing is known, and the
/// interval has no bounds, where the reference was measured less than twice or is not above zero.
pub fn compare(reference: &[f64], measured: &[f64]) -> Comparison {
    let (Some(noise), Some(other)) = (deviation(reference), deviation(measured)) else {
        return compare_alike(reference, measured);
    };
    let (base, change) = (mean(reference), mean(measured) / mean(reference) - 1.0);
    if base <= 0.0 {
        return Comparison { change, low: f64::NEG_INFINITY, high: f64::INFINITY };
    }
    let part = |deviation: f64, count: usize| deviation * deviation / count as f64;
    let (a, b) = (part(noise, reference.len()), part(other, measured.len()));
    let spread = a * a / (reference.len() - 1) as f64 + b * b / (measured.len() - 1) as f64;
    let freedom = if spread > 0.0 { (a + b).powi(2) / spread } else { f64::from(u32::MAX) };
    let half_width = quantile(freedom as usize) * (a + b).sqrt() / base;
    Comparison { change, low: change - half_width, high: change + half_width }
}

/// Compares measurements with a reference of at least two whose noise they share: a few of them say little of noise by themselves.
///
/// Student's t with the deviation of the reference alone. Nothing is known where that was measured less than twice or is not above zero.
pub fn compare_alike(reference: &[f64], measured: &[f64]) -> Comparison {
    let (base, change) = (mean(reference), mean(measured) / mean(reference) - 1.0);
    let unknown = Comparison { change, low: f64::NEG_INFINITY, high: f64::INFINITY };
    let (Some(noise), false) = (deviation(reference), measured.is_empty() || base <= 0.0) else { return unknown };
    let error = noise * (1.0 / measured.len() as f64 + 1.0 / reference.len() as f64).sqrt();
    let half_width = quantile(reference.len() - 1) * error / base;
    Comparison { change, low: change - half_width, high: change + half_width }
}

/// The measurement that does not belong to the others: clearly below all of them, as when another program took the
/// processor for a while; none where there is no such one, or too few to tell.
///
/// It is left out when it lies below the interval of one future observation of the others, twice as wide.
pub fn disturbed(measurements: &[f64]) -> Option<usize> {
    const FEWEST: usize = 4;
    if measurements.len() < FEWEST {
        return None;
    }
    let lowest = (0..measurements.len()).min_by(|a, b| measurements[*a].total_cmp(&measurements[*b]))?;
    let others: Vec<f64> =
        measurements.iter().enumerate().filter(|(index, _)| *index != lowest).map(|(_, value)| *value).collect();
    let seen = compare(&others, &measurements[lowest..=lowest]);
    let half_width = seen.high - seen.change;
    (seen.change < -2.0 * half_width).then_some(lowest)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    /// Normal enough noise of deviation 1 from a seed.
    fn noise(seed: u64) -> impl FnMut() -> f64 {
        let mut state = seed;
        move || {
            let mut sum = 0.0;
            for _ in 0..12 {
                state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
                sum += (state >> 33) as f64 / f64::from(1u32 << 31) - 0.5;
            }
            sum
        }
    }

    #[test]
    fn a_difference_is_said_only_beyond_the_noise() {
        let base = [100.0, 101.0, 99.0, 100.0];
        assert_eq!(compare(&base, &[100.5]).says(), Says::Same);
        assert_eq!(compare(&base, &[104.0]).says(), Says::More);
        assert_eq!(compare(&base, &[96.0]).says(), Says::Less);
        assert_eq!(compare(&base, &[103.0, 102.0, 104.0]).says(), Says::More);
        assert_eq!(compare(&[100.0], &[150.0]).says(), Says::Same, "the noise is not known");
        assert_eq!(compare(&base, &[]).says(), Says::Same);
    }

    #[test]
    fn what_takes_less_time_is_inverted_to_that() {
        let faster = Comparison { change: 0.25, low: 0.20, high: 0.3 };
        let shorter = faster.of_scores(true);
        assert!((shorter.change + 0.2).abs() < 1e-12, "{shorter:?}");
        assert!((shorter.low - (1.0 / 1.3 - 1.0)).abs() < 1e-12 && (shorter.high - (1.0 / 1.2 - 1.0)).abs() < 1e-12);
        assert_eq!((faster.says(), shorter.says()), (Says::More, Says::Less));
        let unknown = compare(&[100.0], &[125.0]).of_scores(true);
        assert!(!unknown.low.is_finite() && !unknown.high.is_finite() && unknown.says() == Says::Same);
    }

    #[test]
    fn a_known_case_has_its_known_interval() {
        // Deviations 1 and 2 of three each: error √(1/3 + 4/3), 2.94 degrees of freedom, taken as 2.
        let compared = compare(&[99.0, 100.0, 101.0], &[108.0, 110.0, 112.0]);
        let half_width = 4.303 * (5.0f64 / 3.0).sqrt() / 100.0;
        assert!((compared.change - 0.1).abs() < 1e-12 && (compared.high - 0.1 - half_width).abs() < 1e-9);
    }

    /// Two measurements that are both a little low are a loss beside the noise of the baseline, and say nothing by themselves.
    #[test]
    fn a_loss_is_noticed_by_the_noise_of_the_reference() {
        let mut noise = noise(7);
        let mut rates = |count: usize, loss: f64| {
            let (mut alike, mut by_themselves) = (0, 0);
            for _ in 0..500 {
                let mut sample = |count: usize, mean: f64| (0..count).map(|_| mean + 0.3 * noise()).collect::<Vec<_>>();
                let (base, both) = (sample(count, 100.0), sample(2, 100.0 - loss));
                alike += u32::from(compare_alike(&base, &both).says() == Says::Less);
                by_themselves += u32::from(compare(&base, &both).says() == Says::Less);
            }
            (alike, by_themselves)
        };
        let (found, found_before) = rates(4, 3.0);
        assert!(found >= 499 && found_before < 450, "{found} and {found_before} of 500");
        let (few, many) = (rates(3, 1.0).0, rates(8, 1.0).0);
        assert!(many > few && many > 400, "a larger baseline helps: {few}, {many}");
        assert!(rates(4, 0.0).0 <= 25, "no loss is seldom said to be one");
    }

    #[test]
    fn one_run_far_below_the_others_was_disturbed() {
        assert_eq!(disturbed(&[100.0, 100.2, 92.0, 99.9]), Some(2));
        assert_eq!(disturbed(&[100.0, 100.2, 99.7, 99.9]), None);
        assert_eq!(disturbed(&[100.0, 92.0, 100.1]), None, "too few to tell");
        assert_eq!(disturbed(&[100.0, 108.0, 100.1, 99.9]), None, "nothing makes a run faster than it is");
    }

    proptest! {
        #[test]
        fn what_does_not_differ_is_seldom_said_to(seed in any::<u64>(), single in any::<bool>()) {
            let mut noise = noise(seed);
            let mut said = 0;
            for _ in 0..400 {
                let mut sample = |count: usize| (0..count).map(|_| 200.0 + noise()).collect::<Vec<_>>();
                let (base, measured) = (sample(5), sample(if single { 1 } else { 4 }));
                said += u32::from(compare(&base, &measured).says() != Says::Same);
            }
            prop_assert!(said <= 45, "{} of 400", said);
        }
    }
}
