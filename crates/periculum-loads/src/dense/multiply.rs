//! `C -= A·B` through packed rows (Goto and van de Geijn, Anatomy of high-performance matrix multiplication, 2008).

use std::io;

use super::matrix::{Columns, Part, WIDTH};
use crate::buffer::Buffer;
use crate::kernel::{Kernel, for_each_kernel, prefetch};
use crate::lanes::{LANES, Lanes};
use crate::panels::{Rows, rows_of_block, subtract_own};

/// How deep packed rows are; the same for every kernel, since sums are rounded once a packing.
pub(super) const DEPTH: usize = 384;

/// How many numbers of B are taken at once: they fill half of a second-level cache of 1 MiB.
const TAKEN: usize = 144 * DEPTH;

/// Rows that are packed at once where columns are few: whole blocks of every kernel.
const AT_ONCE: usize = 48;

/// Rows of the largest block.
const TALLEST: usize = LANES;

/// Room for packed rows, made once.
pub(super) struct Workspace(Buffer<f64>);

impl Workspace {
    /// Room for products with at most this many rows, and at most so deep.
    pub(super) fn new(rows: usize, depth: usize) -> io::Result<Self> {
        let depth = DEPTH.min(depth.next_multiple_of(WIDTH));
        Buffer::zeroed((rows + TALLEST) * depth).map(Self)
    }

    /// Bytes of such room.
    pub(super) fn bytes(rows: u64, depth: u64) -> u64 {
        8 * (rows + TALLEST as u64) * depth.next_multiple_of(WIDTH as u64).min(DEPTH as u64)
    }
}

/// Subtracts from the rows of `c` from `c_row` the product of so many rows of `a`, as deep as whole panels are and `DEPTH` at most, and
/// the rows of `c` from `b_row`: in a factorisation `B` and `C` are the upper and the lower rows of the same columns.
pub(super) fn subtract_product(
    kernel: Kernel,
    work: &mut Workspace,
    (a, rows, depth): (Part, usize, usize),
    c: &mut Columns,
    (b_row, c_row): (usize, usize),
) {
    let columns_at_once = TAKEN / depth / WIDTH * WIDTH * c.rows;
    // What all columns need is packed at once; where these are few, rows are used while they are still in the caches.
    let rows_at_once = if c.data.len() > columns_at_once { rows } else { AT_ONCE };
    for from in (0..rows).step_by(rows_at_once.max(1)) {
        let count = rows_at_once.min(rows - from);
        pack_rows(kernel, &mut work.0, Part { row: a.row + from, ..a }, (count, depth), rows_of_block(kernel));
        let packed = Rows { count, depth, packed: &work.0 };
        for some in c.data.chunks_mut(columns_at_once) {
            subtract_own(kernel, packed, some, c.rows, (b_row, c_row + from));
        }
    }
}

for_each_kernel! {
    /// Packs rows of A: groups of `height` rows, each column after column; missing rows are nothing.
    fn pack_rows(packed: &mut [f64], a: Part, shape: (usize, usize), height: usize) = pack_rows_in_lanes;
}

#[inline(always)]
fn pack_rows_in_lanes<L: Lanes>(packed: &mut [f64], a: Part, (rows, depth): (usize, usize), height: usize) {
    for (first, group) in (0..rows).step_by(height).zip(packed.chunks_exact_mut(height * depth)) {
        let there = height.min(rows - first);
        for (panel, packed) in group.chunks_exact_mut(height * WIDTH).enumerate() {
            let source = a.rows(panel, first, there).as_chunks::<WIDTH>().0;
            match source.first_chunk() {
                Some(rows) if height == LANES => pack_group::<L>(packed, rows),
                _ => pack_one_by_one(packed, source, height),
            }
        }
    }
}

/// Packs as many rows of a panel as a vector is long.
#[inline(always)]
fn pack_group<L: Lanes>(packed: &mut [f64], rows: &[[f64; WIDTH]; LANES]) {
    let next = rows.as_ptr().wrapping_add(LANES).cast::<f64>();
    (0..LANES * WIDTH).step_by(LANES).for_each(|line| prefetch(next.wrapping_add(line)));
    let (places, _) = packed.as_chunks_mut::<LANES>();
    for (part, places) in places.chunks_exact_mut(LANES).enumerate() {
        let part_of = |row: usize| L::load(&rows[row].as_chunks().0[part]);
        let columns = L::transpose(std::array::from_fn(part_of));
        columns.into_iter().zip(places).for_each(|(column, place)| column.store(place));
    }
}

#[inline(always)]
fn pack_one_by_one(packed: &mut [f64], rows: &[[f64; WIDTH]], height: usize) {
    for (column, place) in packed.chunks_exact_mut(height).enumerate() {
        let (filled, missing) = place.split_at_mut(rows.len());
        filled.iter_mut().zip(rows).for_each(|(element, row)| *element = row[column]);
        missing.fill(0.0);
    }
}

#[cfg(test)]
mod tests {
    use super::super::matrix::place;
    use super::*;
    use crate::random::fill;
    use proptest::prelude::*;

    /// Rows, columns and depth of a product; the last two in panels.
    type Shape = (usize, usize, usize);

    fn operands((rows, panels, depth): Shape) -> (Vec<f64>, Vec<f64>) {
        let mut a = vec![0.0; rows * depth * WIDTH];
        let mut c = vec![0.0; (rows + depth * WIDTH) * panels * WIDTH];
        fill(&mut a, 1);
        fill(&mut c, 2);
        (a, c)
    }

    fn product(kernel: Kernel, shape: Shape) -> Vec<f64> {
        let (rows, _, depth) = shape;
        let (a, mut c) = operands(shape);
        let mut work = Workspace::new(rows, depth * WIDTH).expect("memory");
        let mut columns = Columns { data: &mut c, rows: rows + depth * WIDTH };
        let a = (Part { data: &a, rows, row: 0 }, rows, depth * WIDTH);
        subtract_product(kernel, &mut work, a, &mut columns, (0, depth * WIDTH));
        c
    }

    fn expected(shape: Shape) -> Vec<f64> {
        let (rows, panels, depth) = (shape.0, shape.1, shape.2 * WIDTH);
        let (a, mut c) = operands(shape);
        let all = rows + depth;
        for column in 0..panels * WIDTH {
            for row in 0..rows {
                let terms = (0..depth).map(|k| a[place(rows, row, k)] * c[place(all, k, column)]);
                c[place(all, depth + row, column)] -= terms.sum::<f64>();
            }
        }
        c
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(40))]
        #[test]
        fn every_kernel_gives_the_same_bits_and_the_right_numbers(rows in 1usize..70, panels in 1usize..3, depth in 1usize..4) {
            let shape = (rows, panels, depth);
            let portable = product(Kernel::Portable, shape);
            for (found, wanted) in portable.iter().zip(expected(shape)) {
                prop_assert!((found - wanted).abs() < 1e-13 * (depth * WIDTH) as f64);
            }
            for kernel in Kernel::ALL.into_iter().filter(|kernel| kernel.is_available()) {
                prop_assert_eq!(&product(kernel, shape), &portable, "{}", kernel.name());
            }
        }
    }

    #[test]
    fn products_of_more_columns_than_are_taken_at_once_are_right_too() {
        let shape = (13, TAKEN / DEPTH / WIDTH + 1, DEPTH / WIDTH);
        let wanted = expected(shape);
        for (found, wanted) in product(Kernel::best(), shape).iter().zip(&wanted) {
            assert!((found - wanted).abs() < 1e-11);
        }
    }
}
