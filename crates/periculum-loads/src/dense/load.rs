//! `dense` as the frame sees it.

use std::io;

use super::system::{Solver, WORST_RESIDUAL};
use crate::frame::{About, Fault, Load, Touch, Work};
use crate::kernel::Kernel;

/// Linear systems solved over and over.
pub struct Dense;

/// The system that one core solves.
struct System {
    solver: Solver,
    seed: u64,
    digests: Vec<u64>,
}

const ABOUT: About = About {
    name: "dense",
    stresses: "vector units, heat",
    size_name: "unknowns",
    unit: "GFLOP/s",
    // 61 MiB a thread for a matrix and its factors, and several rounds a second; larger ones are a fifth faster at best.
    usual_size: 2000,
    sizes: (1, 1 << 20),
    adds_up: true,
};

impl Load for Dense {
    fn about(&self) -> &About {
        &ABOUT
    }

    fn bytes(&self, size: u64) -> u64 {
        Solver::bytes(size)
    }

    fn work(&self, size: u64) -> f64 {
        Solver::operations(size) / 1e9
    }

    /// Small systems spend their time beside the products: by rates at orders from 120 to 2,000, as much as 250/n of it.
    fn effort(&self, size: u64) -> f64 {
        self.work(size) * (1.0 + 250.0 / size as f64)
    }

    fn begin(&self, kernel: Kernel, size: u64, seed: u64) -> io::Result<Box<dyn Work>> {
        let solver = Solver::new(kernel, size as usize)?;
        let digests = vec![0; solver.parts()];
        Ok(Box::new(System { solver, seed, digests }))
    }
}

impl Work for System {
    fn restart(&mut self) {
        self.solver.generate(self.seed);
    }

    fn inputs(&self) -> u64 {
        self.solver.system_digest()
    }

    fn size(&self) -> u64 {
        self.solver.order()
    }

    fn round(&mut self, touch: &mut Touch) -> Option<Fault> {
        let (a, b) = self.solver.system_mut();
        touch.at("matrix", a);
        touch.at("right-hand side", b);
        self.solver.factor();
        touch.at("factors", self.solver.result_mut().0);
        self.solver.substitute(&mut self.digests);
        touch.at("solution", self.solver.result_mut().1);
        self.solver.digest_solution(&mut self.digests);
        None
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

    /// A result with the same bits as one with a good residual has that same residual, so only those that a
    /// reference is made of, or that differ from it, need theirs calculated.
    fn inspect(&mut self) -> Option<Fault> {
        let residual = self.solver.residual();
        // What is not a number is no good residual either.
        let is_good = residual < WORST_RESIDUAL;
        (!is_good).then(|| {
            Fault::result(format!("a scaled residual below {WORST_RESIDUAL}"), format!("one of {residual:.1}"))
        })
    }
}
