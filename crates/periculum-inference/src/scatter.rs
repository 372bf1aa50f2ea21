//! How much of a scatter lies between groups, and how much within them.

use crate::statistics::mean;

/// Two parts of a scatter, each as a standard deviation and a share of the mean of all.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Scatter {
    /// From one group to another, beside what the scatter within them makes of their means; nothing where that explains all.
    pub between: f64,
    /// From one measurement of a group to another of the same.
    pub within: f64,
}

/// The parts of the scatter of these groups of measurements; none for fewer than two groups, or where no group has two.
///
/// They are the components of variance of a random one-way layout, estimated by the mean squares of its analysis of variance
/// (Searle, Casella and McCulloch, Variance Components, 1992, 3.6).
pub fn scatter(groups: &[Vec<f64>]) -> Option<Scatter> {
    let groups: Vec<&[f64]> = groups.iter().map(Vec::as_slice).filter(|group| !group.is_empty()).collect();
    let all: Vec<f64> = groups.concat();
    let freedom_within = all.len() - groups.len();
    let freedom_between = groups.len().checked_sub(1).filter(|freedom| *freedom > 0)?;
    if freedom_within == 0 || mean(&all) <= 0.0 {
        return None;
    }
    let of_all = mean(&all);
    let squares_within: f64 = groups.iter().flat_map(|group| group.iter().map(|one| (one - mean(group)).powi(2))).sum();
    let squares_between: f64 = groups.iter().map(|group| group.len() as f64 * (mean(group) - of_all).powi(2)).sum();
    let within = squares_within / freedom_within as f64;
    let count = all.len() as f64;
    let sizes: f64 = groups.iter().map(|group| (group.len() * group.len()) as f64).sum();
    let usual_size = (count - sizes / count) / freedom_between as f64;
    let between = (squares_between / freedom_between as f64 - within) / usual_size;
    Some(Scatter { between: between.max(0.0).sqrt() / of_all, within: within.sqrt() / of_all })
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn a_known_layout_has_its_known_parts() {
        // Means 10, 12 and 14 of two each, each off by 1: mean squares 2 within and 8 between, so (8 - 2) / 2 between.
        let groups = [vec![9.0, 11.0], vec![11.0, 13.0], vec![13.0, 15.0]];
        let found = scatter(&groups).expect("parts");
        assert!((found.within - 2.0f64.sqrt() / 12.0).abs() < 1e-12, "{found:?}");
        assert!((found.between - 3.0f64.sqrt() / 12.0).abs() < 1e-12, "{found:?}");
    }

    #[test]
    fn one_group_or_groups_of_one_say_nothing() {
        assert_eq!(scatter(&[]), None);
        assert_eq!(scatter(&[vec![1.0, 2.0]]), None);
        assert_eq!(scatter(&[vec![1.0], vec![2.0], vec![]]), None);
    }

    proptest! {
        #[test]
        fn both_parts_are_found_again(seed in any::<u64>(), wide in 0u32..5) {
            let mut state = seed;
            let mut noise = || {
                let mut sum = 0.0;
                for _ in 0..12 {
                    state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
                    sum += (state >> 33) as f64 / f64::from(1u32 << 31) - 0.5;
                }
                sum
            };
            let groups: Vec<Vec<f64>> = (0..400)
                .map(|_| {
                    let at = 1000.0 + f64::from(wide) * noise();
                    (0..2).map(|_| at + noise()).collect()
                })
                .collect();
            let found = scatter(&groups).expect("parts");
            // Mean squares of 399 and 400 degrees of freedom are off by 7 % now and then: six times that is too much.
            let (between, within) = ((1000.0 * found.between).powi(2), (1000.0 * found.within).powi(2));
            let wide = f64::from(wide * wide);
            let off = (2.0f64 / 400.0).sqrt();
            prop_assert!((within - 1.0).abs() < 6.0 * off, "{:?}", found);
            prop_assert!((between - wide).abs() < 6.0 * off * (2.0 * wide + 1.0).hypot(1.0) / 2.0, "{:?}", found);
        }
    }
}
