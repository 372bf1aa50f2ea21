//! A table as a picture, for what has rows and columns and no axes.

use plotters::element::{PathElement, Text};
use plotters::style::Color;

use crate::figure::{ChartError, Figure};
use crate::font::{Face, width};
use crate::palette::{INK, PALE};
use crate::plane::{TEXT, text};

/// Height of a row, and the room between columns, units.
const ROW: u32 = 22;
const BETWEEN: f64 = 24.0;
const MARGIN: i32 = 12;

/// Named columns and rows of words.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Sheet {
    /// The names of the columns.
    pub head: Vec<String>,
    /// The rows, each with words for each column.
    pub rows: Vec<Vec<String>>,
}

/// Draws a table, each column as wide as the widest of what is in it.
///
/// # Errors
/// When the drawing library refuses something.
pub fn sheet(sheet: &Sheet) -> Result<Figure, ChartError> {
    let wide = |column: usize| {
        let cells = std::iter::once(&sheet.head).chain(&sheet.rows).filter_map(|row| row.get(column));
        cells.map(|cell| width(cell, Face::Plain, TEXT.into())).fold(0.0, f64::max) + BETWEEN
    };
    let widths: Vec<f64> = (0..sheet.head.len()).map(wide).collect();
    let across = widths.iter().sum::<f64>().ceil() as u32 + 2 * MARGIN as u32;
    let size = (across, ROW * (sheet.rows.len() as u32 + 1) + 2 * MARGIN as u32);
    Figure::drawn(size, |root| {
        for (index, row) in std::iter::once(&sheet.head).chain(&sheet.rows).enumerate() {
            let y = MARGIN + index as i32 * ROW as i32;
            let mut x = f64::from(MARGIN);
            for (cell, width) in row.iter().zip(&widths) {
                let style = text(if index == 0 { &PALE } else { &INK });
                root.draw(&Text::new(cell.clone(), (x.round() as i32, y), style))?;
                x += width;
            }
        }
        let line = MARGIN + ROW as i32 - 4;
        root.draw(&PathElement::new(vec![(MARGIN, line), (across as i32 - MARGIN, line)], PALE.stroke_width(1)))
    })
}
