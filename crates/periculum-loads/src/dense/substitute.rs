//! The solution of a factored system, a column of the factors at a time.

use std::ops::Range;

use crate::kernel::for_each_kernel;
use crate::lanes::{LANES, Lanes};

/// Takes the right-hand side through the exchanges of the factorisation, as the matrix was.
pub(super) fn exchange(pivots: &[usize], x: &mut [f64]) {
    for (index, pivot) in pivots.iter().enumerate() {
        x.swap(index, *pivot);
    }
}

for_each_kernel! {
    /// Takes some columns of L, which are so far apart, out of `x`.
    pub(super) fn forward(factors: &[f64], stride: usize, columns: Range<usize>, x: &mut [f64]) = forward_in_lanes;
}

#[inline(always)]
fn forward_in_lanes<L: Lanes>(factors: &[f64], stride: usize, columns: Range<usize>, x: &mut [f64]) {
    for index in columns {
        let (known, below) = x.split_at_mut(index + 1);
        subtract::<L>(below, &factors[index * stride + index + 1..], known[index]);
    }
}

for_each_kernel! {
    /// Takes U out of `x`, which is the solution then.
    pub(super) fn back(factors: &[f64], stride: usize, x: &mut [f64]) = back_in_lanes;
}

#[inline(always)]
fn back_in_lanes<L: Lanes>(factors: &[f64], stride: usize, x: &mut [f64]) {
    for index in (0..x.len()).rev() {
        let column = &factors[index * stride..];
        x[index] /= column[index];
        let (above, known) = x.split_at_mut(index);
        subtract::<L>(above, column, known[0]);
    }
}

/// Subtracts a column times a factor.
#[inline(always)]
fn subtract<L: Lanes>(x: &mut [f64], column: &[f64], factor: f64) {
    let (vectors, rest) = x.as_chunks_mut::<LANES>();
    let (columns, of_rest) = column.split_at(vectors.len() * LANES);
    for (vector, column) in vectors.iter_mut().zip(columns.as_chunks::<LANES>().0) {
        L::load(column).neg_mul_add(L::splat(factor), L::load(vector)).store(vector);
    }
    for (element, column) in rest.iter_mut().zip(of_rest) {
        *element = (-column).mul_add(factor, *element);
    }
}
