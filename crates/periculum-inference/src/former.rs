//! Comparisons as the rules up to 7 had them, so that records of before say the same again.

use crate::comparison::Comparison;
use crate::statistics::{deviation, mean, quantile};

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
