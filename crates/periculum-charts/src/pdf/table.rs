//! Sets a table: columns as wide as they need, or as there is room for, with its head on every page.

use super::page::{LINE, Typesetter, WIDE, wrapped};
use crate::font::{Face, width};
use crate::sheet::Sheet;

/// The size of a table's texts, points, and the room between columns.
pub(super) const TEXT: f64 = 8.0;
const BETWEEN: f64 = 10.0;

pub(super) fn set(setter: &mut Typesetter, sheet: &Sheet) {
    let widths = widths(sheet);
    let cells = |row: &[String]| -> Vec<(f64, Vec<String>)> {
        let cell = |(text, wide): (&String, &f64)| (*wide, wrapped(text, Face::Plain, TEXT, wide - BETWEEN));
        row.iter().zip(&widths).map(cell).collect()
    };
    let head = cells(&sheet.head);
    let height =
        |cells: &[(f64, Vec<String>)]| cells.iter().map(|(_, lines)| lines.len()).max().unwrap_or(0) as f64 * LINE;
    if !setter.fits(height(&head) + 2.0 * LINE) {
        setter.turn();
    }
    setter.row(&head, true);
    for row in &sheet.rows {
        let row = cells(row);
        if !setter.fits(height(&row)) {
            setter.turn();
            setter.row(&head, true);
        }
        setter.row(&row, false);
    }
    setter.skip(6.0);
}

/// Each column as wide as what is in it; where that is too much together, the widest ones give way.
fn widths(sheet: &Sheet) -> Vec<f64> {
    let natural = |column: usize| {
        let cells = std::iter::once(&sheet.head).chain(&sheet.rows).filter_map(|row| row.get(column));
        cells.map(|cell| width(cell, Face::Plain, TEXT)).fold(0.0, f64::max) + BETWEEN + 1.0
    };
    let natural: Vec<f64> = (0..sheet.head.len()).map(natural).collect();
    // The largest width that every column may have so that all fit.
    let mut most = WIDE;
    for _ in 0..64 {
        let taken: f64 = natural.iter().map(|wide| wide.min(most)).sum();
        if taken <= WIDE {
            break;
        }
        let cut = natural.iter().filter(|wide| **wide >= most).count().max(1);
        most -= (taken - WIDE) / cut as f64;
        most = most.max(BETWEEN * 2.0);
    }
    natural.into_iter().map(|wide| wide.min(most)).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn columns_fit_the_page(words in prop::collection::vec("[a-z ]{0,200}", 1..10)) {
            let sheet = Sheet { head: words.iter().map(|_| "head".into()).collect(), rows: vec![words] };
            prop_assert!(widths(&sheet).iter().sum::<f64>() <= WIDE + 1e-6);
        }
    }
}
