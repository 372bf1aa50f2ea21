//! One linear system, its solution, and the checks of it.

use super::kernel::Kernel;
use super::lu::{factor, solve};
use super::matrix::{Columns, digest, fill};
use super::multiply::Workspace;

/// A scaled residual from here up is wrong, as in the usual acceptance test of dense linear solvers.
pub const WORST_RESIDUAL: f64 = 16.0;

/// A linear system of fixed order, solved in memory that is allocated once.
pub struct Solver {
    kernel: Kernel,
    order: usize,
    a: Vec<f64>,
    b: Vec<f64>,
    factors: Vec<f64>,
    x: Vec<f64>,
    pivots: Vec<usize>,
    row_sums: Vec<f64>,
    rest: Vec<f64>,
    work: Workspace,
}

impl Solver {
    /// Room for systems of this order, above zero.
    pub fn new(kernel: Kernel, order: usize) -> Self {
        Self {
            kernel,
            order,
            a: vec![0.0; order * order],
            b: vec![0.0; order],
            factors: vec![0.0; order * order],
            x: vec![0.0; order],
            pivots: vec![0; order],
            row_sums: vec![0.0; order],
            rest: vec![0.0; order],
            work: Workspace::new(order),
        }
    }

    /// Memory that a solver of this order holds, bytes; workspace of fixed size not counted.
    pub fn bytes(order: usize) -> u64 {
        let order = order as u64;
        8 * (2 * order * order + 5 * order)
    }

    /// Floating-point operations of one solution: ⅔n³ + 2n², as benchmarks of linear systems count them.
    pub fn operations(order: usize) -> f64 {
        let order = order as f64;
        2.0 / 3.0 * order * order * order + 2.0 * order * order
    }

    /// Makes the system that this seed stands for.
    pub fn generate(&mut self, seed: u64) {
        fill(&mut self.a, seed);
        fill(&mut self.b, seed ^ 0x5ee1);
    }

    /// The matrix of the system, column by column, and its right-hand side.
    pub fn system_mut(&mut self) -> (&mut [f64], &mut [f64]) {
        (&mut self.a, &mut self.b)
    }

    /// The factors of the last solution, column by column, and the solution itself.
    pub fn result_mut(&mut self) -> (&mut [f64], &mut [f64]) {
        (&mut self.factors, &mut self.x)
    }

    /// Factors the matrix.
    pub fn factor(&mut self) {
        self.factors.copy_from_slice(&self.a);
        let matrix = Columns { data: &mut self.factors, stride: self.order };
        factor(self.kernel, &mut self.work, matrix, 0, &mut self.pivots);
    }

    /// Solves the factored system.
    pub fn substitute(&mut self) {
        self.x.copy_from_slice(&self.b);
        let mut matrix = Columns { data: &mut self.factors, stride: self.order };
        solve(&mut matrix, &self.pivots, &mut self.x);
    }

    /// The scaled residual `‖Ax−b‖∞ / (ε·(‖A‖∞‖x‖∞+‖b‖∞)·n)`; not a number where the solution is not finite.
    pub fn residual(&mut self) -> f64 {
        self.rest.copy_from_slice(&self.b);
        self.row_sums.fill(0.0);
        for (column, x) in self.a.chunks_exact(self.order).zip(&self.x) {
            for ((rest, sum), element) in self.rest.iter_mut().zip(&mut self.row_sums).zip(column) {
                *rest -= element * x;
                *sum += element.abs();
            }
        }
        let scale = norm(&self.row_sums) * norm(&self.x) + norm(&self.b);
        norm(&self.rest) / (f64::EPSILON * scale * self.order as f64)
    }

    /// A digest of every bit of factors, pivots and solution.
    pub fn digest(&self) -> u64 {
        let pivots =
            self.pivots.iter().fold(0u64, |state, pivot| (state ^ *pivot as u64).wrapping_mul(0x0100_0000_01b3));
        digest(&self.x, digest(&self.factors, pivots))
    }
}

/// The largest magnitude; not a number where any value is none.
fn norm(values: &[f64]) -> f64 {
    // `max` alone would pass over what is not a number.
    let any_missing = values.iter().any(|value| value.is_nan());
    if any_missing { f64::NAN } else { values.iter().fold(0.0, |largest, value| largest.max(value.abs())) }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn solved(kernel: Kernel, order: usize, seed: u64) -> Solver {
        let mut solver = Solver::new(kernel, order);
        solver.generate(seed);
        solver.factor();
        solver.substitute();
        solver
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(60))]
        #[test]
        fn random_systems_are_solved_to_rounding_with_the_same_bits_by_every_kernel(order in 1usize..130, seed in any::<u64>()) {
            let mut portable = solved(Kernel::Portable, order, seed);
            let residual = portable.residual();
            prop_assert!(residual < 1.0, "residual {}", residual);
            for kernel in Kernel::ALL.into_iter().filter(|kernel| kernel.is_available()) {
                prop_assert_eq!(solved(kernel, order, seed).digest(), portable.digest(), "{}", kernel.name());
            }
        }
    }

    #[test]
    fn a_known_system_has_its_known_solution() {
        let mut solver = Solver::new(Kernel::best(), 3);
        let (a, b) = solver.system_mut();
        // Columns of [[2, 1, 1], [4, 3, 3], [8, 7, 9]], and its product with (1, -2, 3).
        a.copy_from_slice(&[2.0, 4.0, 8.0, 1.0, 3.0, 7.0, 1.0, 3.0, 9.0]);
        b.copy_from_slice(&[3.0, 7.0, 21.0]);
        solver.factor();
        solver.substitute();
        for (found, wanted) in solver.result_mut().1.iter().zip([1.0, -2.0, 3.0]) {
            assert!((found - wanted).abs() < 1e-14);
        }
    }

    #[test]
    fn a_singular_system_has_no_good_residual() {
        let mut solver = Solver::new(Kernel::best(), 40);
        solver.generate(3);
        solver.system_mut().0[..40].fill(0.0);
        solver.factor();
        solver.substitute();
        let residual = solver.residual();
        assert!(residual.is_nan() || residual >= WORST_RESIDUAL);
    }

    #[test]
    fn a_wrong_solution_shows_in_the_residual() {
        let mut solver = solved(Kernel::best(), 100, 1);
        solver.result_mut().1[50] *= 1.0 + 1e-9;
        assert!(solver.residual() > WORST_RESIDUAL);
    }
}
