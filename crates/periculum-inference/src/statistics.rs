//! What a few measurements say about the value behind them.

use libm::{exp, expm1, lgamma, log, log1p};

/// A mean and how far the value behind it may lie from it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Interval {
    /// The mean of the measurements.
    pub mean: f64,
    /// The value behind them lies no further from the mean, with a confidence of 95 %.
    pub half_width: f64,
    /// How many measurements.
    pub count: usize,
}

impl Interval {
    /// The half width as a share of the mean; without bound where the mean is nothing.
    pub fn relative(&self) -> f64 {
        if self.mean == 0.0 { f64::INFINITY } else { (self.half_width / self.mean).abs() }
    }
}

/// Quantiles of Student's t distribution at 97.5 % for 1, 2, … degrees of freedom (Student, The probable error of a
/// mean, 1908; values as in any table of it).
const QUANTILES: [f64; 30] = [
    12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228, 2.201, 2.179, 2.160, 2.145, 2.131, 2.120,
    2.110, 2.101, 2.093, 2.086, 2.080, 2.074, 2.069, 2.064, 2.060, 2.056, 2.052, 2.048, 2.045, 2.042,
];

/// The quantile of Student's t distribution at 97.5 % for so many degrees of freedom, from 1.
pub fn quantile(freedom: usize) -> f64 {
    // Beyond the table the last value is a little too wide, never too narrow.
    QUANTILES[freedom.clamp(1, QUANTILES.len()) - 1]
}

/// The quantile of Student's t distribution for so many degrees of freedom, from 1, that only this share lies above: the interval of each
/// of several comparisons with one reference, so that with 97.5 % none of the values lies above its own.
///
/// Shares are as of independent comparisons (Šidák, Rectangular confidence regions for the means of multivariate normal distributions,
/// 1967): those with one reference hang together, which makes errors of any of them rarer, never more frequent.
pub fn quantile_of_several(freedom: usize, comparisons: usize) -> f64 {
    let above = -expm1(log1p(-0.025) / comparisons.max(1) as f64);
    if comparisons < 2 {
        return quantile(freedom);
    }
    let (mut low, mut high) = (0.0, 1e6);
    // Sixty halvings are as fine as a number can be.
    for _ in 0..60 {
        let middle = (low + high) / 2.0;
        if share_above(middle, freedom as f64) > above { low = middle } else { high = middle }
    }
    high
}

/// The share of Student's t distribution above a value from 0.
pub(crate) fn share_above(value: f64, freedom: f64) -> f64 {
    0.5 * incomplete_beta(freedom / (freedom + value * value), 0.5 * freedom, 0.5)
}

/// The regularized incomplete beta function by its continued fraction (Abramowitz and Stegun, Handbook of Mathematical Functions, 1964,
/// 26.5.8), which converges where `x` is below `(a + 1) / (a + b + 2)`; the rest is the other tail.
fn incomplete_beta(x: f64, a: f64, b: f64) -> f64 {
    if x <= 0.0 || x >= 1.0 {
        return x.clamp(0.0, 1.0);
    }
    if x > (a + 1.0) / (a + b + 2.0) {
        return 1.0 - incomplete_beta(1.0 - x, b, a);
    }
    let scale = exp(lgamma(a + b) - lgamma(a) - lgamma(b) + a * log(x) + b * log1p(-x));
    let term = |m: f64| {
        let even = m * (b - m) * x / ((a + 2.0 * m - 1.0) * (a + 2.0 * m));
        let odd = -(a + m) * (a + b + m) * x / ((a + 2.0 * m) * (a + 2.0 * m + 1.0));
        (even, odd)
    };
    let deepest = (0..200).rev().map(f64::from);
    let fraction = deepest.fold(1.0, |below, m| {
        let (even, odd) = term(m);
        let below = 1.0 + odd / below;
        if m > 0.0 { 1.0 + even / below } else { below }
    });
    scale / (a * fraction)
}

/// The mean of measurements; not a number for none.
pub fn mean(measurements: &[f64]) -> f64 {
    measurements.iter().sum::<f64>() / measurements.len() as f64
}

/// The standard deviation of the values that measurements come from; none for fewer than two.
pub fn deviation(measurements: &[f64]) -> Option<f64> {
    let freedom = measurements.len().checked_sub(1).filter(|freedom| *freedom > 0)?;
    let mean = mean(measurements);
    let squares: f64 = measurements.iter().map(|measured| (measured - mean).powi(2)).sum();
    Some((squares / freedom as f64).sqrt())
}

/// The standard deviation of measurements, which is no less than what their last digit leaves open; none for fewer than two.
pub fn noise(measurements: &[f64]) -> Option<f64> {
    Some(deviation(measurements)?.max(last_digit(measurements) / 12.0f64.sqrt()))
}

/// What the last digit counts that any of these numbers is told with.
fn last_digit(measurements: &[f64]) -> f64 {
    let decimals = |number: &f64| number.to_string().split_once('.').map_or(0, |(_, decimals)| decimals.len());
    let most = measurements.iter().map(decimals).max().unwrap_or(0);
    0.1f64.powi(i32::try_from(most).unwrap_or(i32::MAX))
}

/// The mean of measurements with the same normal noise, and its 95 % interval by Student's t; none for fewer than two.
pub fn mean_interval(measurements: &[f64]) -> Option<Interval> {
    let count = measurements.len();
    let deviation = deviation(measurements)?;
    let half_width = quantile(count - 1) * deviation / (count as f64).sqrt();
    Some(Interval { mean: mean(measurements), half_width, count })
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn a_known_sample_has_its_known_interval() {
        // Mean 5, deviation √(20/3), so 3.182 · √(20/3)/2.
        let interval = mean_interval(&[2.0, 4.0, 6.0, 8.0]).expect("an interval");
        assert!((interval.mean - 5.0).abs() < 1e-12);
        assert!((interval.half_width - 3.182 * (20.0f64 / 3.0).sqrt() / 2.0).abs() < 1e-9);
        assert!((interval.relative() - interval.half_width / 5.0).abs() < 1e-12);
    }

    #[test]
    fn quantiles_of_several_are_those_of_any_table_of_the_distribution() {
        // Tables have three decimals.
        for freedom in 1..=30 {
            let share = share_above(quantile(freedom), freedom as f64);
            assert!((share - 0.025).abs() < 3e-5, "{freedom}: {share}");
        }
        // One comparison is one; five are about as Bonferroni has them: t of 0.5 % with 10 degrees of freedom is 3.169.
        assert!((quantile_of_several(10, 1) - quantile(10)).abs() < 1e-12);
        assert!((quantile_of_several(10, 5) - 3.169).abs() < 0.01, "{}", quantile_of_several(10, 5));
        assert!((1..20).all(|count| quantile_of_several(6, count) < quantile_of_several(6, count + 1)));
    }

    #[test]
    fn one_measurement_says_nothing_about_its_noise() {
        assert_eq!(mean_interval(&[]), None);
        assert_eq!(mean_interval(&[3.0]), None);
    }

    proptest! {
        /// Sums of uniform numbers are near enough to normal for this.
        #[test]
        fn an_interval_covers_its_value_as_often_as_it_says(seed in any::<u32>()) {
            let mut state = u64::from(seed);
            let mut uniform = || {
                state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
                (state >> 33) as f64 / f64::from(1u32 << 31) - 0.5
            };
            let mut covered = 0;
            for _ in 0..1000 {
                let sample: Vec<f64> = (0..5).map(|_| 10.0 + (0..8).map(|_| uniform()).sum::<f64>()).collect();
                let interval = mean_interval(&sample).expect("an interval");
                covered += u32::from((interval.mean - 10.0).abs() <= interval.half_width);
            }
            prop_assert!((910..=985).contains(&covered), "{} of 1000", covered);
        }
    }
}
