//! How much a score varies when nothing is changed, known from several values that were each measured several times.

use crate::comparison::Comparison;
use crate::statistics::{mean, noise, quantile, quantile_of_several};

/// How much a score varies when nothing is changed.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Noise {
    /// Standard deviation of one measurement, as a share of it.
    pub deviation: f64,
    /// Degrees of freedom that it is known with.
    pub freedom: usize,
}

impl Noise {
    /// What is known from repeated measurements, each with its own mean: the pooled relative deviation. Values that are not above zero
    /// have none.
    pub fn pooled<'a>(groups: impl Iterator<Item = &'a [f64]>) -> Option<Self> {
        let (mut squares, mut freedom) = (0.0, 0);
        for group in groups.filter(|group| mean(group) > 0.0) {
            let Some(deviation) = noise(group) else { continue };
            squares += (deviation / mean(group)).powi(2) * (group.len() - 1) as f64;
            freedom += group.len() - 1;
        }
        (freedom > 0).then(|| Self { deviation: (squares / freedom as f64).sqrt(), freedom })
    }

    /// The noise of the middle one of these groups, of which less than half may be disturbed; none of fewer than three. The middle of
    /// deviations is lower than what they are deviations from (Wilson and Hilferty, The distribution of chi-square, 1931), and says
    /// about half as much of it.
    pub fn typical<'a>(groups: impl Iterator<Item = &'a [f64]>) -> Option<Self> {
        let known = groups.filter(|group| mean(group) > 0.0).filter_map(|group| {
            let freedom = group.len() - 1;
            let middle = (1.0 - 2.0 / (9.0 * freedom as f64)).powf(1.5);
            Some((noise(group)? / mean(group) / middle, freedom))
        });
        let mut known: Vec<(f64, usize)> = known.collect();
        known.sort_by(|(a, _), (b, _)| a.total_cmp(b));
        let freedom = known.iter().map(|(_, freedom)| freedom).sum::<usize>() / 2;
        let middle = known.get(known.len() / 2).filter(|_| known.len() >= 3)?;
        Some(Self { deviation: middle.0, freedom: freedom.max(1) })
    }

    /// How far the mean of so many measurements may be off, as a share of it, with a confidence of 95 %.
    pub fn half_width(&self, count: usize) -> f64 {
        quantile(self.freedom) * self.deviation / (count as f64).sqrt()
    }

    /// The same of the best of so many values, so that none of them is farther off.
    pub fn half_width_of_best(&self, values: usize, count: usize) -> f64 {
        quantile_of_several(self.freedom, values) * self.deviation / (count as f64).sqrt()
    }

    /// Compares the means of two groups of measurements that share this noise (Student's t with pooled variance).
    pub fn compare(&self, reference: (f64, usize), measured: (f64, usize)) -> Comparison {
        self.compare_one_of(1, reference, measured)
    }

    /// The same where that is one of so many comparisons with the reference, all of which are to be right together.
    pub fn compare_one_of(
        &self,
        comparisons: usize,
        (reference, of): (f64, usize),
        (measured, times): (f64, usize),
    ) -> Comparison {
        let change = measured / reference - 1.0;
        if reference.is_nan() || reference <= 0.0 {
            return Comparison::unknown(change);
        }
        // A ratio is off by as much more as it is larger.
        let error = self.deviation * (1.0 / of as f64 + 1.0 / times as f64).sqrt() * (1.0 + change).abs();
        Comparison::within(change, quantile_of_several(self.freedom, comparisons) * error)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::comparison::Says;

    #[test]
    fn groups_are_pooled_as_shares_of_their_means() {
        let groups: [&[f64]; 4] = [&[99.0, 101.0], &[198.0, 202.0], &[7.0], &[0.0, 0.0]];
        let noise = Noise::pooled(groups.into_iter()).expect("two groups");
        assert_eq!(noise.freedom, 2);
        assert!((noise.deviation - 0.02f64 / 2.0f64.sqrt()).abs() < 1e-12, "{noise:?}");
        assert_eq!(Noise::pooled([&[1.0][..], &[]].into_iter()), None);
        assert!(noise.half_width_of_best(5, 2) > noise.half_width(2));
    }

    #[test]
    fn one_of_many_has_to_differ_by_more() {
        let noise = Noise { deviation: 0.01, freedom: 10 };
        let [alone, of_many] = [1, 20].map(|count| noise.compare_one_of(count, (100.0, 3), (102.2, 3)));
        assert_eq!((alone.says(), of_many.says()), (Says::More, Says::Same));
        for reference in [0.0, -0.0, -4.0, f64::NAN] {
            assert_eq!(noise.compare((reference, 3), (1.0, 3)).says(), Says::Same);
        }
    }
}
