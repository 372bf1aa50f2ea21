//! Random numbers of a simulated rig: one stream per purpose, so that the same seed and the same actions give
//! the same events, whatever happened before.

use rand_chacha::ChaCha8Rng;
use rand_chacha::rand_core::{Rng, SeedableRng};

/// What a stream of random numbers is for.
#[derive(Clone, Copy, Debug)]
pub(super) enum Purpose {
    /// The making of the specimen.
    Specimen,
    /// One pass of one trial.
    Pass { trial: u32, index: usize },
    /// Sensor noise.
    Sensors,
    /// A start of the rig, by the milliseconds since it was made.
    Start { at: u64 },
}

/// A stream of random numbers.
#[derive(Clone, Debug)]
pub(super) struct Stream(ChaCha8Rng);

impl Stream {
    pub(super) fn new(seed: u64, purpose: Purpose) -> Self {
        let mut generator = ChaCha8Rng::seed_from_u64(seed);
        generator.set_stream(match purpose {
            Purpose::Specimen => 0,
            Purpose::Sensors => 1,
            Purpose::Start { at } => (1 << 63) | at,
            Purpose::Pass { trial, index } => 2 + (u64::from(trial) << 16) + index as u64,
        });
        Self(generator)
    }

    /// Evenly spread over [0, 1), in steps of 2⁻⁵³.
    pub(super) fn unit(&mut self) -> f64 {
        (self.0.next_u64() >> 11) as f64 / (1u64 << 53) as f64
    }

    /// Normal with mean 0 and deviation 1 (Box and Muller, A note on the generation of random normal deviates, 1958).
    pub(super) fn normal(&mut self) -> f64 {
        let radius = (-2.0 * (1.0 - self.unit()).ln()).sqrt();
        radius * (std::f64::consts::TAU * self.unit()).cos()
    }

    /// Exponential with mean 1.
    pub(super) fn exponential(&mut self) -> f64 {
        -(1.0 - self.unit()).ln()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn streams_are_pinned_so_that_old_records_replay() {
        let mut stream = Stream::new(7, Purpose::Pass { trial: 3, index: 1 });
        let drawn: Vec<String> = (0..3).map(|_| format!("{:.12}", stream.unit())).collect();
        assert_eq!(drawn, ["0.342341896068", "0.608230581116", "0.091600831927"]);
    }

    #[test]
    fn draws_have_the_moments_of_their_distributions() {
        let mut stream = Stream::new(1, Purpose::Specimen);
        let count = 20_000;
        let mean = |draw: &mut dyn FnMut() -> f64| (0..count).map(|_| draw()).sum::<f64>() / f64::from(count);
        assert!((mean(&mut || stream.unit()) - 0.5).abs() < 0.01);
        assert!(mean(&mut || stream.normal()).abs() < 0.03);
        assert!((mean(&mut || stream.normal().powi(2)) - 1.0).abs() < 0.05);
        assert!((mean(&mut || stream.exponential()) - 1.0).abs() < 0.03);
    }
}
