//! Sets a table: columns as wide as they need, or as there is room for, with its head on every page.

use super::page::{LINE, TABLE_TEXT as TEXT, WIDE};
use super::typesetter::{Typesetter, words, wrapped};
use crate::font::{Face, width};
use crate::sheet::Sheet;

/// The room between columns.
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
    setter.row(&head, Some(0));
    for (index, row) in sheet.rows.iter().enumerate() {
        let row = cells(row);
        if !setter.fits(height(&row)) {
            setter.turn();
            setter.row(&head, None);
        }
        setter.row(&row, Some(index + 1));
    }
    setter.skip(6.0);
}

/// Each column as wide as what is in it. Where that is too much together, heads give way first; then either the widest columns
/// do down to one width, or all by a share of what they have beyond their longest words: whichever takes fewer lines.
fn widths(sheet: &Sheet) -> Vec<f64> {
    let wide = |text: &str| width(text, Face::Plain, TEXT) + BETWEEN + 1.0;
    let widest_word = |text: &String| words(text).iter().map(|word| wide(word)).fold(wide(""), f64::max);
    let widest = |column: usize, of: &dyn Fn(&String) -> f64| {
        sheet.rows.iter().filter_map(|row| row.get(column)).map(of).fold(wide(""), f64::max)
    };
    let heads = || sheet.head.iter().enumerate();
    let natural: Vec<f64> = heads().map(|(column, head)| widest(column, &|cell| wide(cell)).max(wide(head))).collect();
    if natural.iter().sum::<f64>() <= WIDE {
        return natural;
    }
    let of_rows = |(column, head): (usize, &String)| widest(column, &|cell| wide(cell)).max(widest_word(head));
    let natural: Vec<f64> = heads().map(of_rows).collect();
    let least: Vec<f64> = heads().map(|(column, head)| widest(column, &widest_word).max(widest_word(head))).collect();
    if natural.iter().sum::<f64>() <= WIDE {
        return natural;
    }
    if least.iter().sum::<f64>() > WIDE {
        return capped(&natural, &vec![0.0; natural.len()]);
    }
    let candidates = [capped(&natural, &least), shared(&natural, &least)];
    candidates.into_iter().min_by_key(|widths| lines(sheet, widths)).unwrap_or_default()
}

/// How many lines a table has with columns of these widths.
fn lines(sheet: &Sheet, widths: &[f64]) -> usize {
    let cell = |(text, wide): (&String, &f64)| wrapped(text, Face::Plain, TEXT, wide - BETWEEN).len();
    sheet.rows.iter().map(|row| row.iter().zip(widths).map(cell).max().unwrap_or(0)).sum()
}

/// No column wider than one width, as far as it need not be, so that all fit.
fn capped(natural: &[f64], least: &[f64]) -> Vec<f64> {
    let at = |cap: f64| natural.iter().zip(least).map(move |(natural, least)| natural.min(cap).max(*least));
    let (mut fits, mut most) = (0.0, WIDE);
    for _ in 0..32 {
        let middle = (fits + most) / 2.0;
        if at(middle).sum::<f64>() <= WIDE { fits = middle } else { most = middle }
    }
    at(fits).collect()
}

/// Each column with what it needs, and the same share of what it has beyond that.
fn shared(natural: &[f64], least: &[f64]) -> Vec<f64> {
    let (needed, wanted) = (least.iter().sum::<f64>(), natural.iter().sum::<f64>());
    let share = (WIDE - needed) / (wanted - needed);
    natural.iter().zip(least).map(|(natural, least)| least + (natural - least) * share).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    proptest! {
        #[test]
        fn columns_fit_the_page(words in prop::collection::vec("[a-z ]{0,200}", 1..10)) {
            let sheet = Sheet { head: words.iter().map(|_| "head".into()).collect(), rows: vec![words] };
            let widths = widths(&sheet);
            prop_assert!(widths.iter().sum::<f64>() <= WIDE + 1e-6);
            // Where a column had to give way, no room is left over.
            let natural = |text: &String| width(text, Face::Plain, TEXT) + BETWEEN;
            if widths.iter().zip(&sheet.rows[0]).any(|(wide, text)| *wide < natural(text)) {
                prop_assert!(widths.iter().sum::<f64>() > WIDE - 1e-3, "{widths:?}");
            }
        }
    }
}
