//! The solution of a factored system, a panel of the factors at a time.

use super::matrix::WIDTH;
use crate::kernel::for_each_kernel;
use crate::lanes::{LANES, Lanes};

/// Takes the right-hand side through exchanges of the factorisation from this row on, as the rest of the matrix was.
pub(super) fn exchange(pivots: &[usize], first: usize, x: &mut [f64]) {
    for (index, pivot) in pivots.iter().enumerate() {
        x.swap(first + index, *pivot);
    }
}

for_each_kernel! {
    /// Takes the panel of L that begins with this column out of `x`.
    pub(super) fn forward(panel: &[f64], first: usize, x: &mut [f64]) = forward_in_lanes;
}

#[inline(always)]
fn forward_in_lanes<L: Lanes>(panel: &[f64], first: usize, x: &mut [f64]) {
    let (rows, _) = panel[first * WIDTH..].as_chunks::<WIDTH>();
    let end = x.len().min(first + WIDTH);
    let (of_panel, below) = x[first..].split_at_mut(end - first);
    let (triangle, rows) = rows.split_at(of_panel.len());
    for (index, row) in triangle.iter().enumerate() {
        let (known, left) = of_panel.split_at_mut(index);
        left[0] = subtracted(left[0], row, known);
    }
    subtract::<L>(below, rows, of_panel);
}

for_each_kernel! {
    /// Takes the panel of U that begins with this column out of `x`, whose elements from there on are the solution then.
    pub(super) fn back(panel: &[f64], first: usize, x: &mut [f64]) = back_in_lanes;
}

#[inline(always)]
fn back_in_lanes<L: Lanes>(panel: &[f64], first: usize, x: &mut [f64]) {
    let (rows, _) = panel.as_chunks::<WIDTH>();
    let end = x.len().min(first + WIDTH);
    let (above, of_panel) = x[..end].split_at_mut(first);
    for index in (0..of_panel.len()).rev() {
        let (left, known) = of_panel.split_at_mut(index + 1);
        let row = &rows[first + index];
        left[index] = subtracted(left[index], &row[index + 1..], known) / row[index];
    }
    subtract::<L>(above, &rows[..first], of_panel);
}

/// What is left of an element after known ones, times what stands for them in its row.
#[inline(always)]
fn subtracted(element: f64, row: &[f64], known: &[f64]) -> f64 {
    row.iter().zip(known).fold(element, |left, (factor, known)| (-factor).mul_add(*known, left))
}

/// Takes the known elements of a panel out of others, each of which has its row of it: of as many rows at once as a vector is long.
#[inline(always)]
fn subtract<L: Lanes>(x: &mut [f64], rows: &[[f64; WIDTH]], of_panel: &[f64]) {
    let mut known = [0.0; WIDTH];
    known[..of_panel.len()].copy_from_slice(of_panel);
    let (vectors, rest) = x.as_chunks_mut::<LANES>();
    let (groups, rows_of_rest) = rows.as_chunks::<LANES>();
    for (vector, rows) in vectors.iter_mut().zip(groups) {
        let mut sums = [L::splat(0.0); LANES];
        for (sum, row) in sums.iter_mut().zip(rows) {
            for (row, known) in row.as_chunks::<LANES>().0.iter().zip(known.as_chunks::<LANES>().0) {
                *sum = L::load(row).mul_add(L::load(known), *sum);
            }
        }
        let [a, b, c, d, e, f, g, h] = L::transpose(sums);
        let sum = a.add(b).add(c.add(d)).add(e.add(f).add(g.add(h)));
        L::load(vector).sub(sum).store(vector);
    }
    for (element, row) in rest.iter_mut().zip(rows_of_rest) {
        *element = subtracted(*element, row, &known);
    }
}
