//! The load that does nothing but measure the clock.

use std::io;

use super::chain::sample;
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::Kernel;

/// Measures each core's clock.
pub struct Pulse;

/// How many rounds the reading is taken from.
const NEWEST: usize = 31;

/// A core's samples of the last round, and the medians of the newest rounds, in MHz.
struct Measure {
    samples: Vec<f64>,
    medians: [f64; NEWEST],
    rounds: usize,
}

const ABOUT: About = About {
    name: "pulse",
    stresses: "nothing: measures the clock each core reaches",
    size_name: "samples a round",
    unit: "MHz",
    usual_size: 1000,
    sizes: (11, 1_000_000),
    adds_up: false,
};

impl Load for Pulse {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn bytes(&self, size: u64) -> u64 {
        8 * (size + NEWEST as u64)
    }

    fn work(&self, size: u64) -> f64 {
        size as f64
    }

    fn begin(&self, _: Kernel, size: u64, _: u64) -> io::Result<Box<dyn Work>> {
        Ok(Box::new(Measure { samples: vec![0.0; size as usize], medians: [0.0; NEWEST], rounds: 0 }))
    }
}

impl Work for Measure {
    fn restart(&mut self) {}

    fn size(&self) -> u64 {
        self.samples.len() as u64
    }

    fn round(&mut self, _: &mut Touch) -> Option<Fault> {
        self.samples.fill_with(sample);
        self.medians[self.rounds % NEWEST] = median(&mut self.samples);
        self.rounds += 1;
        None
    }

    fn reading(&self) -> Option<f64> {
        let mut medians = self.medians;
        Some(median(&mut medians[..self.rounds.min(NEWEST)]))
    }
}

/// The middle of these numbers, which get sorted.
fn median(numbers: &mut [f64]) -> f64 {
    numbers.sort_unstable_by(f64::total_cmp);
    numbers.get(numbers.len() / 2).copied().unwrap_or_default()
}
