//! Which measurements were disturbed: clearly below the others, as when another program took the processor for a while.

use crate::noise::Noise;
use crate::statistics::{mean, noise, share_above};

/// So often a series without disturbances is said to have some.
const FALSE_ALARMS: f64 = 0.01;

/// Fewer measurements than this beside those that were disturbed say too little of what is usual.
const FEWEST_OTHERS: usize = 3;

/// The measurements that do not belong to the others: clearly below all of them, as when another program took the processor for a
/// while. Fewer than half may be; in one of a hundred series without any some are taken for it, or fewer.
///
/// So many of the lowest were disturbed if even the best of these lies below what one more of the others would be, by Student's t with
/// the level divided among all choices of so many (Bonferroni); most are tried first, so that two do not hide each other (Rosner,
/// Percentage points for a generalized ESD many-outlier procedure, 1983).
pub fn disturbed(measurements: &[f64]) -> Vec<usize> {
    lowest(measurements, FEWEST_OTHERS, |others| (noise(others).unwrap_or_default(), others.len() - 1))
}

/// The same where the noise is known from elsewhere, so that one of three can be told.
pub fn disturbed_beside(measurements: &[f64], noise: &Noise) -> Vec<usize> {
    lowest(measurements, FEWEST_OTHERS - 1, |others| (noise.deviation * mean(others), noise.freedom))
}

fn lowest(measurements: &[f64], fewest_others: usize, noise: impl Fn(&[f64]) -> (f64, usize)) -> Vec<usize> {
    let mut ranked: Vec<usize> = (0..measurements.len()).collect();
    ranked.sort_by(|a, b| measurements[*a].total_cmp(&measurements[*b]));
    let count = ranked.len();
    let most = (count.saturating_sub(1) / 2).min(count.saturating_sub(fewest_others));
    let were = |lowest: &usize| {
        let others: Vec<f64> = ranked[*lowest..].iter().map(|at| measurements[*at]).collect();
        let (deviation, freedom) = noise(&others);
        let error = deviation * (1.0 + 1.0 / others.len() as f64).sqrt();
        let below = (mean(&others) - measurements[ranked[lowest - 1]]) / error;
        choices(count, *lowest) * share_above(below.max(0.0), freedom as f64) < FALSE_ALARMS / most as f64
    };
    let lowest = (1..=most).rev().find(were).unwrap_or(0);
    let mut found = ranked[..lowest].to_vec();
    found.sort_unstable();
    found
}

/// How many ways there are to choose so many of these.
fn choices(of: usize, chosen: usize) -> f64 {
    (0..chosen).map(|at| (of - at) as f64 / (at + 1) as f64).product()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::drawn::drawn;

    #[test]
    fn what_lies_far_below_the_others_was_disturbed() {
        assert_eq!(disturbed(&[100.0, 100.2, 92.0, 99.9]), [2]);
        assert_eq!(disturbed(&[100.0, 100.2, 99.7, 99.9]), [0; 0]);
        assert_eq!(disturbed(&[100.0, 92.0, 100.1]), [0; 0], "too few to tell");
        assert_eq!(disturbed(&[100.0, 108.0, 100.1, 99.9]), [0; 0], "nothing makes a run faster than it is");
        assert_eq!(disturbed(&[100.03, 80.0, 100.1, 81.0, 99.96, 100.05]), [1, 3], "two do not hide each other");
        assert_eq!(disturbed(&[80.0, 80.5, 100.1, 99.9]), [0; 0], "half are not fewer than the others");
        assert_eq!(disturbed(&[]), [0; 0]);
    }

    /// In one of a hundred clean series some are said to be disturbed; what is a tenth too low in noise of a third of a percent, is seldom missed.
    #[test]
    fn clean_series_are_seldom_said_to_be_disturbed_and_disturbed_ones_often() {
        let mut noise = drawn(5);
        for count in [4, 5, 8] {
            let mut series = |low: usize| -> Vec<f64> {
                (0..count).map(|at| (if at < low { 90.0 } else { 100.0 }) + 0.3 * noise()).collect()
            };
            let alarms = (0..2000).filter(|_| !disturbed(&series(0)).is_empty()).count();
            assert!(alarms <= 32, "{alarms} of 2000 with {count}");
            let found = (0..200).filter(|_| disturbed(&series(1)) == [0]).count();
            assert!(found >= 170, "{found} of 200 with {count}");
        }
    }

    #[test]
    fn beside_known_noise_one_of_three_can_be_told() {
        let groups: [&[f64]; 4] =
            [&[100.0, 100.3, 99.8], &[103.0, 103.2, 102.9], &[95.0, 106.0, 105.7], &[108.0, 108.4, 108.1]];
        let typical = Noise::typical(groups.into_iter()).expect("enough groups");
        assert!((0.001..0.004).contains(&typical.deviation), "{typical:?}");
        let found: Vec<Vec<usize>> = groups.iter().map(|group| disturbed_beside(group, &typical)).collect();
        assert_eq!(found, [vec![], vec![], vec![0], vec![]]);
        assert_eq!(Noise::typical(groups[..2].iter().copied()), None);
        let mut noise = drawn(9);
        let alarms = (0..1000).filter(|_| {
            let groups: Vec<Vec<f64>> = (0..5).map(|_| (0..3).map(|_| 100.0 + 0.3 * noise()).collect()).collect();
            let typical = Noise::typical(groups.iter().map(Vec::as_slice)).expect("enough groups");
            !disturbed_beside(&groups[0], &typical).is_empty()
        });
        let alarms = alarms.count();
        assert!(alarms <= 20, "{alarms} of 1000");
    }
}
