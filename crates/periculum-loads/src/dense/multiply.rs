//! `C -= A·B`, block by block of what fits into the caches (Goto and van de Geijn, Anatomy of high-performance matrix multiplication, 2008).

use super::matrix::{Columns, Part, WIDTH};
use crate::kernel::Kernel;
use crate::panels::{Origin, Rows, subtract_own};

/// How deep products are at most; the same for every kernel, since sums are rounded once a product.
pub(super) const DEPTH: usize = 384;

/// How many numbers of B are taken at once: they fill half of a second-level cache of 1 MiB.
const TAKEN: usize = 144 * DEPTH;

/// Subtracts from the rows of `c` from `c_row` the product of so many rows of `a`, as deep as whole panels are and `DEPTH` at most, and
/// the rows of `c` from `b_row`: in a factorisation `B` and `C` are the upper and the lower rows of the same columns. Where there is an
/// origin, the rows of `c` are taken from it first.
pub(super) fn subtract_product(
    kernel: Kernel,
    (a, count, depth): (Part, usize, usize),
    c: &mut Columns,
    (b_row, c_row): (usize, usize),
    origin: Option<Origin>,
) {
    let rows = Rows { numbers: a.numbers(), height: a.height, count, depth };
    let at_once = TAKEN / depth / WIDTH * WIDTH * c.height;
    for (nth, some) in c.data.chunks_mut(at_once).enumerate() {
        let origin = origin.map(|Origin { numbers, sources }| Origin { numbers: &numbers[nth * at_once..], sources });
        subtract_own(kernel, rows, some, c.height, (b_row, c_row), origin);
    }
}

#[cfg(test)]
mod tests {
    use super::super::matrix::{height_for, place};
    use super::*;
    use crate::panels::GROUP;
    use crate::random::fill;
    use proptest::prelude::*;

    /// Rows, columns and depth of a product; the last two in panels.
    type Shape = (usize, usize, usize);

    fn operands((rows, panels, depth): Shape) -> (Vec<f64>, Vec<f64>) {
        let mut a = vec![0.0; height_for(rows) * depth * WIDTH];
        let mut c = vec![0.0; height_for(rows + depth * WIDTH) * panels * WIDTH];
        fill(&mut a, 1);
        fill(&mut c, 2);
        (a, c)
    }

    fn product(kernel: Kernel, shape: Shape, origin: Option<Origin>) -> Vec<f64> {
        let (rows, _, depth) = shape;
        let (a, mut c) = operands(shape);
        let all = rows + depth * WIDTH;
        let mut columns = Columns { data: &mut c, rows: all, height: height_for(all) };
        let a = (Part { data: &a, height: height_for(rows), row: 0 }, rows, depth * WIDTH);
        subtract_product(kernel, a, &mut columns, (0, depth * WIDTH), origin);
        c
    }

    /// The numbers of all rows that are there.
    fn expected(shape: Shape) -> Vec<(usize, f64)> {
        let (rows, panels, depth) = (shape.0, shape.1, shape.2 * WIDTH);
        let (a, c) = operands(shape);
        let (left, all) = (height_for(rows), height_for(rows + depth));
        let places = (0..panels * WIDTH).flat_map(|column| (0..rows).map(move |row| (row, column)));
        let left_over = |(row, column)| {
            let terms = (0..depth).map(|k| a[place(left, row, k)] * c[place(all, k, column)]);
            let place = place(all, depth + row, column);
            (place, c[place] - terms.sum::<f64>())
        };
        places.map(left_over).collect()
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(40))]
        #[test]
        fn every_kernel_gives_the_same_bits_and_the_right_numbers(rows in 1usize..70, panels in 1usize..3, depth in 1usize..4) {
            let shape = (rows, panels, depth);
            let portable = product(Kernel::Portable, shape, None);
            for (place, wanted) in expected(shape) {
                prop_assert!((portable[place] - wanted).abs() < 1e-13 * (depth * WIDTH) as f64);
            }
            for kernel in Kernel::ALL.into_iter().filter(|kernel| kernel.is_available()) {
                let found = product(kernel, shape, None);
                for (place, _) in expected(shape) {
                    prop_assert_eq!(found[place], portable[place], "{}", kernel.name());
                }
            }
        }

        #[test]
        fn rows_that_come_from_elsewhere_are_the_same_as_rows_that_were_there(rows in 1usize..70, panels in 1usize..9, turned in 0usize..70) {
            let shape = (rows, panels, DEPTH / WIDTH);
            let (_, there) = operands(shape);
            let height = there.len() / panels / WIDTH;
            let count = rows.next_multiple_of(GROUP);
            let sources: Vec<usize> = (0..count).map(|row| (row + turned) % count).collect();
            let mut original = there.clone();
            for panel in 0..panels {
                for (row, source) in sources.iter().enumerate() {
                    let from = place(height, DEPTH + row, panel * WIDTH);
                    original[place(height, *source, panel * WIDTH)..][..WIDTH].copy_from_slice(&there[from..][..WIDTH]);
                }
            }
            let origin = Origin { numbers: &original, sources: &sources };
            let [found, wanted] = [Some(origin), None].map(|origin| product(Kernel::best(), shape, origin));
            for (place, _) in expected(shape) {
                prop_assert_eq!(found[place], wanted[place]);
            }
        }
    }

    #[test]
    fn products_of_more_columns_than_are_taken_at_once_are_right_too() {
        let shape = (13, TAKEN / DEPTH / WIDTH + 1, DEPTH / WIDTH);
        let found = product(Kernel::best(), shape, None);
        for (place, wanted) in expected(shape) {
            assert!((found[place] - wanted).abs() < 1e-11);
        }
    }
}
