//! What is on a page, and where.

use crate::figure::{Colour, Figure};
use crate::font::Face;

/// Width and height of a page, points.
pub(super) const A4: (f64, f64) = (595.0, 842.0);

pub(super) const LEFT: f64 = 52.0;
pub(super) const TOP: f64 = 52.0;
pub(super) const BOTTOM: f64 = A4.1 - 58.0;
pub(super) const WIDE: f64 = A4.0 - 2.0 * LEFT;

/// The size of plain text, and the distance of its lines.
pub(super) const TEXT: f64 = 9.0;
pub(super) const LINE: f64 = 12.5;

/// The size of a table's texts.
pub(super) const TABLE_TEXT: f64 = 8.0;

pub(super) const INK: Colour = Colour { rgb: (0x2b, 0x2e, 0x33), alpha: 1.0 };
pub(super) const PALE: Colour = Colour { rgb: (0x76, 0x79, 0x7e), alpha: 1.0 };

/// Something in its place on a page, points from its upper left corner.
pub(super) enum Placed {
    /// A line of text that begins here, on its baseline.
    Text { at: (f64, f64), size: f64, face: Face, colour: Colour, text: String },
    /// A thin line from here to this far right.
    Rule { from: (f64, f64), to: f64, colour: Colour },
    /// A picture, whose units are so many points.
    Figure { at: (f64, f64), scale: f64, figure: Figure },
}

/// What of a report something on a page belongs to.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Part {
    /// Nothing: it stands there for the page's sake.
    Page,
    /// A block, by its number.
    Block(usize),
    /// The caption of a block that is a picture.
    Caption(usize),
    /// A cell of a block that is a table; row 0 is its head.
    Cell { block: usize, row: usize, column: usize },
}

impl Part {
    /// The block that it is of.
    pub(super) fn block(self) -> Option<usize> {
        match self {
            Self::Page => None,
            Self::Block(block) | Self::Caption(block) | Self::Cell { block, .. } => Some(block),
        }
    }
}

/// What is on a page, in the order of reading.
pub(super) type Page = Vec<(Part, Placed)>;

impl Placed {
    /// How far from the top of the page it is, points.
    pub(super) fn top(&self) -> f64 {
        match self {
            Self::Text { at, size, .. } => at.1 - size,
            Self::Figure { at, .. } => at.1,
            Self::Rule { from, .. } => from.1,
        }
    }

    /// What stands below everything else on a page.
    pub(super) fn foot(text: String) -> Self {
        Self::Text { at: (LEFT, A4.1 - 30.0), size: 7.5, face: Face::Plain, colour: PALE, text }
    }
}
