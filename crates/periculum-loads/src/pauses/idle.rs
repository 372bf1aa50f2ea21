//! `idle`: long sleeps and short wake-ups, since the lowest voltages belong to the lightest loads.

use std::io;
use std::time::Duration;

use crate::dense::Solver;
use crate::digest::join;
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::Kernel;
use crate::random::Random;

/// Sleep, and a little work at every wake-up.
pub struct Idle;

/// The longest sleep; the shortest is a tenth of it.
const LONGEST: Duration = Duration::from_millis(500);

/// The order of the system that is solved at a wake-up: some microseconds of work.
const ORDER: u64 = 48;

/// Words of a wake-up's integer work.
const WORDS: usize = 4096;

struct Sleeper {
    solver: Solver,
    seed: u64,
    sleeps: Random,
    words: Vec<u64>,
    digests: Vec<u64>,
}

const ABOUT: About = About {
    name: "idle",
    stresses: "the low-voltage end: sleep and wake-ups",
    size_name: "wake-ups a round",
    unit: "wake-ups/s",
    usual_size: 1,
    sizes: (1, 1000),
    adds_up: true,
};

impl Load for Idle {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn bytes(&self, _: u64) -> u64 {
        Solver::bytes(ORDER) + 8 * WORDS as u64
    }

    fn rests(&self, size: u64) -> Duration {
        LONGEST * u32::try_from(size).unwrap_or(u32::MAX)
    }

    fn work(&self, size: u64) -> f64 {
        size as f64
    }

    fn begin(&self, kernel: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>> {
        let solver = Solver::new(kernel, ORDER as usize)?;
        let digests = vec![0; (solver.parts() + 1) * size as usize];
        Ok(Box::new(Sleeper { solver, seed, sleeps: Random::new(seed), words: vec![0; WORDS], digests }))
    }
}

impl Work for Sleeper {
    fn restart(&mut self) {
        self.solver.generate(self.seed);
    }

    fn inputs(&self) -> u64 {
        self.solver.system_digest()
    }

    fn size(&self) -> u64 {
        (self.digests.len() / (self.solver.parts() + 1)) as u64
    }

    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        for wake_up in self.digests.chunks_exact_mut(self.solver.parts() + 1) {
            std::thread::sleep(LONGEST.mul_f64(0.1 + 0.9 * self.sleeps.unit()));
            let Some((of_words, of_system)) = wake_up.split_first_mut() else { continue };
            let mut random = Random::new(self.seed);
            self.words.fill_with(|| random.word());
            touch.at("words", &mut self.words);
            *of_words = self.words.iter().fold(0, |state, word| join(state, word.wrapping_mul(state | 1) ^ word));
            touch.at("matrix", self.solver.system_mut().0);
            self.solver.factor();
            self.solver.substitute(of_system);
            self.solver.digest_solution(of_system);
        }
        None
    }

    fn digests(&self) -> &[u64] {
        &self.digests
    }

    fn digests_mut(&mut self) -> &mut [u64] {
        &mut self.digests
    }

    fn part(&self, index: usize) -> String {
        let parts = self.solver.parts() + 1;
        match index % parts {
            0 => format!("words of wake-up {}", index / parts + 1),
            part => format!("{} of wake-up {}", self.solver.part(part - 1), index / parts + 1),
        }
    }
}
