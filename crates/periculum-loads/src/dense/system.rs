//! One linear system, its solution, and the checks of it.

use std::io;

use super::lu::{Room, factor};
use super::matrix::{Columns, WIDTH, height_for};
use super::multiply::DEPTH;
use super::substitute::{back, exchange, forward};
use crate::buffer::Buffer;
use crate::digest::{digest, join};
use crate::kernel::Kernel;
use crate::random::fill;

/// A scaled residual from here up is wrong, as in the usual acceptance test of dense linear solvers.
pub const WORST_RESIDUAL: f64 = 16.0;

/// A linear system of fixed order, solved in memory that is allocated once.
///
/// Matrices stand in panels of 24 columns, in each of which row stands after row; what they have too much is nothing.
pub struct Solver {
    kernel: Kernel,
    order: usize,
    height: usize,
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
        let height = height_for(order);
        let numbers = height * order.next_multiple_of(WIDTH);
        Ok(Self {
            kernel,
            order,
            height,
            a: Buffer::zeroed(numbers)?,
            b: vec![0.0; order],
            factors: Buffer::zeroed(numbers)?,
            x: vec![0.0; order],
            pivots: vec![0; order],
            row_sums: vec![0.0; order],
            rest: vec![0.0; order],
            room: Room::new(height),
        })
    }

    /// How many unknowns the system has.
    pub fn order(&self) -> u64 {
        self.order as u64
    }

    /// Memory that a solver of this order holds, bytes.
    pub fn bytes(order: u64) -> u64 {
        let height = height_for(order as usize) as u64;
        8 * (2 * order.next_multiple_of(WIDTH as u64) * height + 5 * order) + Room::bytes(height)
    }

    /// Floating-point operations of one solution: ⅔n³ + 2n², as benchmarks of linear systems count them.
    pub fn operations(order: u64) -> f64 {
        let order = order as f64;
        2.0 / 3.0 * order * order * order + 2.0 * order * order
    }

    /// Makes the system that this seed stands for.
    pub fn generate(&mut self, seed: u64) {
        let mut matrix = Columns { data: &mut self.a, rows: self.order, height: self.height };
        for (first, panel) in (0..self.order).step_by(WIDTH).zip(matrix.panels()) {
            fill(panel.as_flattened_mut(), seed ^ (first as u64) << 20);
            let there = WIDTH.min(self.order - first);
            panel.iter_mut().for_each(|row| row[there..].fill(0.0));
        }
        fill(&mut self.b, seed ^ 0x5ee1);
    }

    /// A digest of the system.
    pub fn system_digest(&self) -> u64 {
        let panels = self.a.chunks_exact(self.height * WIDTH);
        let matrix = panels.fold(0, |state, panel| digest(self.kernel, &panel[..self.order * WIDTH], state));
        digest(self.kernel, &self.b, matrix)
    }

    /// The matrix of the system, panel by panel, and its right-hand side.
    pub fn system_mut(&mut self) -> (&mut [f64], &mut [f64]) {
        (&mut self.a, &mut self.b)
    }

    /// The factors of the last solution, panel by panel, and the solution itself.
    pub fn result_mut(&mut self) -> (&mut [f64], &mut [f64]) {
        (&mut self.factors, &mut self.x)
    }

    /// Factors the matrix.
    pub fn factor(&mut self) {
        let matrix = Columns { data: &mut self.factors, rows: self.order, height: self.height };
        factor(self.kernel, &mut self.room, matrix, Some(&self.a), 0, &mut self.pivots);
    }

    /// Solves the factored system, and digests every bit of the factors on the way, while they are at hand: so many
    /// panels, as far as there is room for digests.
    pub fn substitute(&mut self, digests: &mut [u64]) {
        self.x.copy_from_slice(&self.b);
        let panels = self.factors.chunks_exact(self.height * WIDTH).map(|panel| &panel[..self.order * WIDTH]);
        let panels = (0..self.order).step_by(WIDTH).zip(panels);
        for (part, (first, panel)) in panels.clone().enumerate() {
            if first % DEPTH == 0 {
                exchange(&self.pivots[first..self.order.min(first + DEPTH)], first, &mut self.x);
            }
            if let Some(digest_of_panel) = digests.get_mut(part) {
                *digest_of_panel = digest(self.kernel, panel, 0);
            }
            forward(self.kernel, panel, first, &mut self.x);
        }
        panels.rev().for_each(|(first, panel)| back(self.kernel, panel, first, &mut self.x));
    }

    /// The scaled residual `‖Ax−b‖∞ / (ε·(‖A‖∞‖x‖∞+‖b‖∞)·n)`; not a number where the solution is not finite.
    pub fn residual(&mut self) -> f64 {
        self.rest.copy_from_slice(&self.b);
        self.row_sums.fill(0.0);
        for (panel, x) in self.a.chunks_exact(self.height * WIDTH).zip(self.x.chunks(WIDTH)) {
            for ((rest, sum), row) in self.rest.iter_mut().zip(&mut self.row_sums).zip(panel.chunks_exact(WIDTH)) {
                for (element, x) in row.iter().zip(x) {
                    *rest -= element * x;
                    *sum += element.abs();
                }
            }
        }
        let scale = norm(&self.row_sums) * norm(&self.x) + norm(&self.b);
        norm(&self.rest) / (f64::EPSILON * scale * self.order as f64)
    }

    /// How many digests a result has: of the factors, and of the solution.
    pub fn parts(&self) -> usize {
        self.order.div_ceil(WIDTH) + 1
    }

    /// Digests every bit of pivots and solution, into the last of the digests.
    pub fn digest_solution(&self, digests: &mut [u64]) {
        if let Some(last) = digests.last_mut() {
            let pivots = self.pivots.iter().fold(0, |state, pivot| join(state, *pivot as u64));
            *last = digest(self.kernel, &self.x, pivots);
        }
    }

    /// What a digest is of.
    pub fn part(&self, index: usize) -> String {
        let first = index * WIDTH;
        match first < self.order {
            true => format!("columns {}–{}", first + 1, (first + WIDTH).min(self.order)),
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
    use super::super::matrix::place;
    use super::*;
    use crate::random::Random;

    fn solved(kernel: Kernel, order: usize, seed: u64) -> Solver {
        let mut solver = Solver::new(kernel, order).expect("memory");
        solver.generate(seed);
        solver.factor();
        solver.substitute(&mut []);
        solver
    }

    fn digests(mut solver: Solver) -> Vec<u64> {
        let mut digests = vec![0; solver.parts()];
        solver.substitute(&mut digests);
        solver.digest_solution(&mut digests);
        digests
    }

    /// To rounding, and with the same bits by every kernel; portable code takes its time.
    fn is_solved_to_the_same_bits(order: usize) {
        let mut portable = solved(Kernel::Portable, order, order as u64);
        let residual = portable.residual();
        assert!(residual < 1.0, "{order}: a residual of {residual}");
        let expected = digests(portable);
        for kernel in Kernel::available_loudly() {
            assert_eq!(digests(solved(kernel, order, order as u64)), expected, "{order} by {}", kernel.name());
        }
    }

    #[test]
    fn every_small_order_is_solved_to_the_same_bits_by_every_kernel() {
        (1..=200).for_each(is_solved_to_the_same_bits);
    }

    /// `ORDERS=30 cargo test --release -p periculum-loads -- --ignored large_orders`
    #[test]
    #[ignore = "takes minutes"]
    fn large_orders_are_solved_to_the_same_bits_by_every_kernel() {
        let orders = std::env::var("ORDERS").ok().and_then(|orders| orders.parse().ok()).unwrap_or(5);
        let mut random = Random::new(orders);
        (0..orders).for_each(|_| is_solved_to_the_same_bits(201 + random.below(2800) as usize));
    }

    #[test]
    fn orders_beyond_a_panel_are_solved_too() {
        for order in [1000, 1024, 1031] {
            let mut solver = solved(Kernel::best(), order, 4);
            assert!(solver.residual() < 1.0);
        }
    }

    #[test]
    fn what_stands_below_the_last_row_changes_nothing() {
        for order in [30, 220, 500] {
            let mut solver = Solver::new(Kernel::best(), order).expect("memory");
            solver.generate(5);
            let expected = solver.system_digest();
            for panel in solver.system_mut().0.chunks_exact_mut(height_for(order) * WIDTH) {
                panel[order * WIDTH..].fill(f64::NAN);
            }
            assert_eq!(solver.system_digest(), expected);
            solver.factor();
            assert_eq!(digests(solver), digests(solved(Kernel::best(), order, 5)), "{order}");
        }
    }

    #[test]
    fn a_known_system_has_its_known_solution() {
        let mut solver = Solver::new(Kernel::best(), 3).expect("memory");
        let (a, b) = solver.system_mut();
        // The product of the matrix with (1, -2, 3).
        for (row, values) in [[2.0, 1.0, 1.0], [4.0, 3.0, 3.0], [8.0, 7.0, 9.0]].iter().enumerate() {
            values.iter().enumerate().for_each(|(column, value)| a[place(height_for(3), row, column)] = *value);
        }
        b.copy_from_slice(&[3.0, 7.0, 21.0]);
        solver.factor();
        solver.substitute(&mut []);
        for (found, wanted) in solver.result_mut().1.iter().zip([1.0, -2.0, 3.0]) {
            assert!((found - wanted).abs() < 1e-14);
        }
    }

    #[test]
    fn a_singular_system_has_no_good_residual() {
        let mut solver = Solver::new(Kernel::best(), 40).expect("memory");
        solver.generate(3);
        solver.system_mut().0.chunks_exact_mut(WIDTH).take(40).for_each(|row| row[0] = 0.0);
        solver.factor();
        solver.substitute(&mut []);
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
        let solver = Solver::new(Kernel::best(), 50).expect("memory");
        let names: Vec<String> = (0..solver.parts()).map(|part| solver.part(part)).collect();
        assert_eq!(names, ["columns 1–24", "columns 25–48", "columns 49–50", "the solution"]);
    }
}
