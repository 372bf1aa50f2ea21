//! One linear system, its solution, and the checks of it.

use std::io;

use super::lu::{Room, factor, solve};
use super::matrix::{Columns, stride_for};
use crate::buffer::Buffer;
use crate::digest::{digest, join};
use crate::kernel::Kernel;
use crate::random::fill;

/// A scaled residual from here up is wrong, as in the usual acceptance test of dense linear solvers.
pub const WORST_RESIDUAL: f64 = 16.0;

/// How many columns of the factors are digested together.
const COLUMNS_A_PART: usize = 64;

/// A linear system of fixed order, solved in memory that is allocated once.
///
/// Matrices are column-major, with columns [`Solver::stride`] numbers apart.
pub struct Solver {
    kernel: Kernel,
    order: usize,
    stride: usize,
    a: Buffer<f64>,
    b: Vec<f64>,
    factors: Buffer<f64>,
    x: Vec<f64>,
    pivots: Vec<usize>,
    row_sums: Vec<f64>,
    rest: Vec<f64>,
    room: Room,
}

impl Solver {
    /// Room for systems of this order, above zero.
    ///
    /// # Errors
    /// When the system has not so much memory.
    pub fn new(kernel: Kernel, order: usize) -> io::Result<Self> {
        let stride = stride_for(order);
        Ok(Self {
            kernel,
            order,
            stride,
            a: Buffer::zeroed(stride * order)?,
            b: vec![0.0; order],
            factors: Buffer::zeroed(stride * order)?,
            x: vec![0.0; order],
            pivots: vec![0; order],
            row_sums: vec![0.0; order],
            rest: vec![0.0; order],
            room: Room::new(order)?,
        })
    }

    /// How many unknowns the system has.
    pub fn order(&self) -> u64 {
        self.order as u64
    }

    /// Memory that a solver of this order holds, bytes.
    pub fn bytes(order: u64) -> u64 {
        8 * (2 * stride_for(order as usize) as u64 * order + 5 * order) + Room::bytes(order)
    }

    /// Floating-point operations of one solution: ⅔n³ + 2n², as benchmarks of linear systems count them.
    pub fn operations(order: u64) -> f64 {
        let order = order as f64;
        2.0 / 3.0 * order * order * order + 2.0 * order * order
    }

    /// How far apart the columns of the matrices start, in numbers.
    pub fn stride(&self) -> usize {
        self.stride
    }

    /// Makes the system that this seed stands for.
    pub fn generate(&mut self, seed: u64) {
        for (index, column) in self.a.chunks_exact_mut(self.stride).enumerate() {
            let (rows, padding) = column.split_at_mut(self.order);
            fill(rows, seed ^ (index as u64) << 20);
            padding.fill(0.0);
        }
        fill(&mut self.b, seed ^ 0x5ee1);
    }

    /// A digest of the system.
    pub fn system_digest(&self) -> u64 {
        digest(self.kernel, &self.b, digest(self.kernel, &self.a, 0))
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
        let matrix = Columns { data: &mut self.factors, stride: self.stride, rows: self.order };
        factor(self.kernel, &mut self.room, matrix, Some(&self.a), 0, &mut self.pivots);
    }

    /// Solves the factored system.
    pub fn substitute(&mut self) {
        self.x.copy_from_slice(&self.b);
        let mut matrix = Columns { data: &mut self.factors, stride: self.stride, rows: self.order };
        solve(&mut matrix, &self.pivots, &mut self.x);
    }

    /// The scaled residual `‖Ax−b‖∞ / (ε·(‖A‖∞‖x‖∞+‖b‖∞)·n)`; not a number where the solution is not finite.
    pub fn residual(&mut self) -> f64 {
        self.rest.copy_from_slice(&self.b);
        self.row_sums.fill(0.0);
        for (column, x) in self.a.chunks_exact(self.stride).zip(&self.x) {
            for ((rest, sum), element) in self.rest.iter_mut().zip(&mut self.row_sums).zip(column) {
                *rest -= element * x;
                *sum += element.abs();
            }
        }
        let scale = norm(&self.row_sums) * norm(&self.x) + norm(&self.b);
        norm(&self.rest) / (f64::EPSILON * scale * self.order as f64)
    }

    /// How many digests [`Solver::digests`] gives.
    pub fn parts(&self) -> usize {
        self.order.div_ceil(COLUMNS_A_PART) + 1
    }

    /// Digests of every bit of the factors, so many columns at a time, and of pivots and solution.
    pub fn digests(&self, digests: &mut [u64]) {
        let groups = self.factors.chunks(self.stride * COLUMNS_A_PART);
        for (part, group) in digests.iter_mut().zip(groups) {
            *part = digest(self.kernel, group, 0);
        }
        if let Some(last) = digests.last_mut() {
            let pivots = self.pivots.iter().fold(0, |state, pivot| join(state, *pivot as u64));
            *last = digest(self.kernel, &self.x, pivots);
        }
    }

    /// What a digest is of.
    pub fn part(&self, index: usize) -> String {
        let first = index * COLUMNS_A_PART;
        match first < self.order {
            true => format!("columns {}–{}", first + 1, (first + COLUMNS_A_PART).min(self.order)),
            false => "the solution".into(),
        }
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
        let mut solver = Solver::new(kernel, order).expect("memory");
        solver.generate(seed);
        solver.factor();
        solver.substitute();
        solver
    }

    fn digests(solver: &Solver) -> Vec<u64> {
        let mut digests = vec![0; solver.parts()];
        solver.digests(&mut digests);
        digests
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(60))]
        #[test]
        fn random_systems_are_solved_to_rounding_with_the_same_bits_by_every_kernel(order in 1usize..300, seed in any::<u64>()) {
            let mut portable = solved(Kernel::Portable, order, seed);
            let residual = portable.residual();
            prop_assert!(residual < 1.0, "residual {}", residual);
            for kernel in Kernel::available_loudly() {
                prop_assert_eq!(digests(&solved(kernel, order, seed)), digests(&portable), "{}", kernel.name());
            }
        }
    }

    #[test]
    fn orders_beyond_a_panel_are_solved_too() {
        for order in [1000, 1024, 1031] {
            let mut solver = solved(Kernel::best(), order, 4);
            assert!(solver.residual() < 1.0);
        }
    }

    #[test]
    fn a_known_system_has_its_known_solution() {
        let mut solver = Solver::new(Kernel::best(), 3).expect("memory");
        let stride = solver.stride();
        let (a, b) = solver.system_mut();
        // The product of the matrix with (1, -2, 3).
        for (row, values) in [[2.0, 1.0, 1.0], [4.0, 3.0, 3.0], [8.0, 7.0, 9.0]].iter().enumerate() {
            values.iter().enumerate().for_each(|(column, value)| a[column * stride + row] = *value);
        }
        b.copy_from_slice(&[3.0, 7.0, 21.0]);
        solver.factor();
        solver.substitute();
        for (found, wanted) in solver.result_mut().1.iter().zip([1.0, -2.0, 3.0]) {
            assert!((found - wanted).abs() < 1e-14);
        }
    }

    #[test]
    fn a_singular_system_has_no_good_residual() {
        let mut solver = Solver::new(Kernel::best(), 40).expect("memory");
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

    #[test]
    fn every_part_has_its_name() {
        let solver = Solver::new(Kernel::best(), 100).expect("memory");
        let names: Vec<String> = (0..solver.parts()).map(|part| solver.part(part)).collect();
        assert_eq!(names, ["columns 1–64", "columns 65–100", "the solution"]);
    }
}
