//! `swing`: all cores at full load and at rest in turn, from a millisecond to a second at a time.

use std::io;
use std::sync::OnceLock;
use std::time::{Duration, Instant};

use crate::dense::Solver;
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::Kernel;
use crate::random::Random;

/// Full load and idleness in turn.
pub struct Swing;

/// The shortest half of a swing, and the longest; between them any ratio is as likely as any other.
const SHORTEST: Duration = Duration::from_millis(1);
const LONGEST: f64 = 1000.0;

/// When the swings of this process began: all cores swing by the same clock, and so together.
static BEGAN: OnceLock<Instant> = OnceLock::new();

struct Cycle {
    solver: Solver,
    seed: u64,
    digests: Vec<u64>,
    /// Lengths of the swings' halves, and when the next one begins.
    lengths: Random,
    due: Duration,
    solved: u64,
    busy: Duration,
    order: u64,
}

const ABOUT: About = About {
    name: "swing",
    stresses: "power delivery",
    size_name: "unknowns",
    unit: "GFLOP/s",
    // A system is solved in less than a millisecond.
    usual_size: 144,
    sizes: (24, 1000),
    adds_up: true,
};

impl Load for Swing {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn bytes(&self, size: u64) -> u64 {
        Solver::bytes(size)
    }

    /// The second half of a swing, or both of one that a core came too late for.
    fn rests(&self, _: u64) -> Duration {
        2 * SHORTEST.mul_f64(LONGEST)
    }

    fn work(&self, size: u64) -> f64 {
        Solver::operations(size) / 1e9
    }

    fn begin(&self, kernel: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>> {
        let solver = Solver::new(kernel, size as usize)?;
        let digests = vec![0; solver.parts()];
        let lengths = Random::new(seed);
        let due = Duration::ZERO;
        Ok(Box::new(Cycle { solver, seed, digests, lengths, due, solved: 0, busy: Duration::ZERO, order: size }))
    }
}

impl Work for Cycle {
    fn restart(&mut self) {
        self.solver.generate(self.seed);
    }

    fn inputs(&self) -> u64 {
        self.solver.system_digest()
    }

    fn size(&self) -> u64 {
        self.solver.order()
    }

    /// Works for the first half of a swing and rests for the second; every solution must be the same.
    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        let began = BEGAN.get_or_init(Instant::now);
        let half = SHORTEST.mul_f64(LONGEST.powf(self.lengths.unit()));
        // A core that comes late, as after a restart of its work, joins the others in the swing that they are in.
        let from = self.due;
        self.due = from + 2 * half;
        std::thread::sleep(from.saturating_sub(began.elapsed()));
        let mut first = None;
        loop {
            let found = self.solve(touch);
            let expected = *first.get_or_insert(found);
            if found != expected {
                return Some(Fault::result(format!("digest {expected:016x}"), format!("digest {found:016x}")));
            }
            if began.elapsed() >= from + half {
                return None;
            }
        }
    }

    fn digests(&self) -> &[u64] {
        &self.digests
    }

    fn digests_mut(&mut self) -> &mut [u64] {
        &mut self.digests
    }

    fn part(&self, index: usize) -> String {
        self.solver.part(index)
    }

    fn reading(&self) -> Option<f64> {
        Some(self.solved as f64 * Solver::operations(self.order) / self.busy.as_secs_f64().max(1e-9) / 1e9)
    }
}

impl Cycle {
    /// Solves the system once; tells the digest of everything.
    fn solve(&mut self, touch: &mut Touch) -> u64 {
        let started = Instant::now();
        let (a, b) = self.solver.system_mut();
        touch.at("matrix", a);
        touch.at("right-hand side", b);
        self.solver.factor();
        touch.at("factors", self.solver.result_mut().0);
        self.solver.substitute(&mut self.digests);
        self.solver.digest_solution(&mut self.digests);
        self.solved += 1;
        self.busy += started.elapsed();
        self.digests.iter().fold(0, |all, digest| all.rotate_left(1) ^ digest)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::frame::{Disturb, NoDisturbance, Site};

    /// Turns over a bit of the factors in every solution but the first of a round.
    #[derive(Default)]
    struct Late(std::sync::atomic::AtomicU32);

    impl Disturb for Late {
        fn strike(&self, site: Site, bytes: &mut [u8]) {
            use std::sync::atomic::Ordering::Relaxed;
            if site.what == "factors" && self.0.fetch_add(1, Relaxed) > 0 {
                bytes[0] ^= 1;
            }
        }
    }

    #[test]
    fn a_solution_that_differs_within_a_swing_is_seen() {
        let mut work = Swing.begin(Kernel::best(), 24, 1).expect("memory");
        work.restart();
        assert_eq!(work.round(&mut Touch::of(&NoDisturbance, 0, 1)), None);
        let late = Late::default();
        let fault = (2..40).find_map(|round| work.round(&mut Touch::of(&late, 0, round)));
        assert!(fault.is_some());
        assert!(work.reading().is_some_and(|rate| rate > 0.0));
    }
}
