//! Whether a score is really better or worse than another: a difference is only said with its interval.

use serde::{Deserialize, Serialize};

use crate::statistics::{mean, noise, quantile};

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
    /// A difference of which nobody knows how far it may be off.
    pub fn unknown(change: f64) -> Self {
        Self { change, low: f64::NEG_INFINITY, high: f64::INFINITY }
    }

    /// A difference that may be off by no more than this, with a confidence of 95 %.
    pub fn within(change: f64, half_width: f64) -> Self {
        Self { change, low: change - half_width, high: change + half_width }
    }

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
/// different population variances are involved, 1947). Otherwise the noise is that of the reference, see [`compare_alike`].
pub fn compare(reference: &[f64], measured: &[f64]) -> Comparison {
    let (Some(noise), Some(other)) = (noise(reference), noise(measured)) else {
        return compare_alike(reference, measured);
    };
    let (base, change) = (mean(reference), mean(measured) / mean(reference) - 1.0);
    if base.is_nan() || base <= 0.0 {
        return Comparison::unknown(change);
    }
    let part = |deviation: f64, count: usize| deviation * deviation / count as f64;
    // A ratio is off by as much more as it is larger.
    let (a, b) = (part(noise * (1.0 + change), reference.len()), part(other, measured.len()));
    let spread = a * a / (reference.len() - 1) as f64 + b * b / (measured.len() - 1) as f64;
    let freedom = if spread > 0.0 { (a + b).powi(2) / spread } else { f64::from(u32::MAX) };
    Comparison::within(change, quantile(freedom as usize) * (a + b).sqrt() / base)
}

/// Compares measurements with a reference of at least two whose noise they share as a share of their mean: a few of them say little of
/// noise by themselves.
///
/// Student's t with the deviation of the reference alone; of a single measurement that is the interval of one future observation (Hahn
/// and Meeker, Statistical Intervals, 1991, 4.7). Nothing is known, and the interval has no bounds, where the reference was measured
/// less than twice or is not above zero.
pub fn compare_alike(reference: &[f64], measured: &[f64]) -> Comparison {
    let (base, change) = (mean(reference), mean(measured) / mean(reference) - 1.0);
    let is_known = !measured.is_empty() && base > 0.0;
    let Some(noise) = noise(reference).filter(|_| is_known) else { return Comparison::unknown(change) };
    let error = noise / base * (1.0 / measured.len() as f64 + 1.0 / reference.len() as f64).sqrt();
    Comparison::within(change, quantile(reference.len() - 1) * error * (1.0 + change).abs())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::drawn::drawn;
    use proptest::prelude::*;

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
        // Deviations 1 and 2 of three each: error √(1.1²/3 + 4/3), 3.1 degrees of freedom, taken as 3.
        let compared = compare(&[99.0, 100.0, 101.0], &[108.0, 110.0, 112.0]);
        let half_width = 3.182 * (1.1f64 * 1.1 / 3.0 + 4.0 / 3.0).sqrt() / 100.0;
        assert!((compared.change - 0.1).abs() < 1e-12 && (compared.high - 0.1 - half_width).abs() < 1e-9);
    }

    /// Two measurements that are both a little low are a loss beside the noise of the baseline, and say nothing by themselves.
    #[test]
    fn a_loss_is_noticed_by_the_noise_of_the_reference() {
        let mut noise = drawn(7);
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
    fn what_the_last_digit_leaves_open_is_no_difference() {
        assert_eq!(compare(&[10_000.0; 4], &[10_001.0]).says(), Says::Same, "counted to one");
        assert_eq!(compare(&[59.94; 4], &[59.95]).says(), Says::Same);
        assert_eq!(compare(&[59.94; 4], &[60.2]).says(), Says::More);
        for reference in [[0.0; 3], [-2.0; 3], [-0.0; 3], [f64::NAN; 3]] {
            assert!(
                compare(&reference, &[1.0]).says() == Says::Same
                    && compare(&reference, &[1.0, 2.0]).low == f64::NEG_INFINITY
            );
        }
    }

    /// Whatever a level scores more than the reference, its interval covers what is true as often as it says.
    #[test]
    fn noise_grows_with_what_is_measured() {
        let mut noise = drawn(3);
        for factor in [0.5, 1.0, 2.0] {
            let covered = (0..4000).filter(|_| {
                let mut sample = |count: usize, mean: f64| -> Vec<f64> {
                    (0..count).map(|_| mean * (1.0 + 0.01 * noise())).collect()
                };
                let compared = compare_alike(&sample(4, 100.0), &sample(1, 100.0 * factor));
                (compared.low..=compared.high).contains(&(factor - 1.0))
            });
            let covered = covered.count();
            assert!((3720..=3880).contains(&covered), "{covered} of 4000 at {factor}");
        }
    }

    proptest! {
        #[test]
        fn what_does_not_differ_is_seldom_said_to(seed in any::<u64>(), single in any::<bool>()) {
            let mut noise = drawn(seed);
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
