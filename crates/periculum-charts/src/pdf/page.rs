//! Sets blocks on pages, one below the other.

use super::table;
use crate::document::Block;
use crate::figure::{Colour, Figure};
use crate::font::{Face, width};

/// Width and height of a page, points.
pub(super) const A4: (f64, f64) = (595.0, 842.0);

const LEFT: f64 = 52.0;
const TOP: f64 = 52.0;
const BOTTOM: f64 = A4.1 - 58.0;
pub(super) const WIDE: f64 = A4.0 - 2.0 * LEFT;

/// The size of plain text, and the distance of its lines.
pub(super) const TEXT: f64 = 9.0;
pub(super) const LINE: f64 = 12.5;

/// The size of what stands below a picture.
const CAPTION: f64 = 8.0;

const INK: Colour = Colour { rgb: (0x2b, 0x2e, 0x33), alpha: 1.0 };
const PALE: Colour = Colour { rgb: (0x76, 0x79, 0x7e), alpha: 1.0 };

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

/// Fills pages from above.
pub(super) struct Typesetter {
    pages: Vec<Page>,
    /// The block that is set.
    block: usize,
    /// How far the last page is filled.
    y: f64,
}

impl Typesetter {
    /// The pages that these blocks fill.
    pub(super) fn set(blocks: &[Block]) -> Vec<Page> {
        let mut setter = Self { pages: vec![Vec::new()], block: 0, y: TOP };
        for (index, block) in blocks.iter().enumerate() {
            setter.block = index;
            setter.block(block, blocks.get(index + 1));
        }
        setter.pages
    }

    fn block(&mut self, block: &Block, next: Option<&Block>) {
        match block {
            Block::Title(text) => {
                self.lines(text, 17.0, Face::Bold, 0.0);
                self.skip(6.0);
            }
            Block::Heading(text) => {
                // A heading is not left alone at the end of a page.
                let height = next
                    .map_or(0.0, |next| if let Block::Picture { figure, .. } = next { height(figure) } else { 0.0 });
                self.need(60.0 + height);
                self.skip(10.0);
                self.lines(text, 12.0, Face::Bold, 0.0);
                self.skip(3.0);
            }
            Block::Paragraph(text) => {
                self.lines(text, TEXT, Face::Plain, 0.0);
                self.skip(4.0);
            }
            Block::Item(text) => {
                self.need(LINE);
                let dot = Placed::Text {
                    at: (LEFT, self.y + TEXT),
                    size: TEXT,
                    face: Face::Plain,
                    colour: PALE,
                    text: "–".into(),
                };
                self.put(Part::Page, dot);
                self.lines(text, TEXT, Face::Plain, 12.0);
            }
            Block::Table(sheet) => table::set(self, sheet),
            Block::Picture { caption, figure } => self.picture(caption, figure),
        }
    }

    fn picture(&mut self, caption: &str, figure: &Figure) {
        let (scale, height) = (scale(figure), height(figure));
        let caption = wrapped(caption, Face::Plain, CAPTION, WIDE);
        self.need(height + caption.len() as f64 * LINE + 6.0);
        self.skip(4.0);
        self.put(Part::Block(self.block), Placed::Figure { at: (LEFT, self.y), scale, figure: figure.clone() });
        self.y += height;
        for text in caption {
            let at = (LEFT, self.y + TEXT);
            let line = Placed::Text { at, size: CAPTION, face: Face::Plain, colour: PALE, text };
            self.put(Part::Caption(self.block), line);
            self.y += LINE;
        }
        self.skip(6.0);
    }

    /// A text in as many lines as it needs, so far from the left.
    fn lines(&mut self, text: &str, size: f64, face: Face, indent: f64) {
        for line in wrapped(text, face, size, WIDE - indent) {
            let height = size * LINE / TEXT;
            self.need(height);
            let line = Placed::Text { at: (LEFT + indent, self.y + size), size, face, colour: INK, text: line };
            self.put(Part::Block(self.block), line);
            self.y += height;
        }
    }

    /// A row of cells side by side, as high as the highest: the head is row 0, and without a number where it is repeated.
    pub(super) fn row(&mut self, cells: &[(f64, Vec<String>)], row: Option<usize>) {
        let is_head = row.is_none_or(|row| row == 0);
        let height = cells.iter().map(|(_, lines)| lines.len()).max().unwrap_or(0) as f64 * LINE;
        let mut x = LEFT;
        for (column, (width, lines)) in cells.iter().enumerate() {
            let part = row.map_or(Part::Page, |row| Part::Cell { block: self.block, row, column });
            for (index, line) in lines.iter().enumerate() {
                let at = (x, self.y + TEXT + index as f64 * LINE);
                let colour = if is_head { PALE } else { INK };
                self.put(part, Placed::Text { at, size: table::TEXT, face: Face::Plain, colour, text: line.clone() });
            }
            x += width;
        }
        self.y += height;
        if is_head {
            self.put(Part::Page, Placed::Rule { from: (LEFT, self.y), to: LEFT + WIDE, colour: PALE });
            self.y += 2.0;
        }
    }

    /// Whether so much still fits on this page.
    pub(super) fn fits(&self, height: f64) -> bool {
        self.y + height <= BOTTOM
    }

    /// Goes to the next page where so much does not fit on this one.
    fn need(&mut self, height: f64) {
        if !self.fits(height) && self.y > TOP {
            self.turn();
        }
    }

    pub(super) fn turn(&mut self) {
        self.pages.push(Vec::new());
        self.y = TOP;
    }

    pub(super) fn skip(&mut self, height: f64) {
        self.y += height;
    }

    fn put(&mut self, part: Part, placed: Placed) {
        if let Some(page) = self.pages.last_mut() {
            page.push((part, placed));
        }
    }
}

/// How many points a unit of a picture has on a page, and how high the picture is there, points.
fn scale(figure: &Figure) -> f64 {
    (WIDE / f64::from(figure.size.0)).min(0.62)
}

fn height(figure: &Figure) -> f64 {
    f64::from(figure.size.1) * scale(figure)
}

/// A text in lines that are not wider than this; a word that is wider is cut, and a number in groups is one word.
pub(super) fn wrapped(text: &str, face: Face, size: f64, room: f64) -> Vec<String> {
    let mut lines = vec![String::new()];
    for word in words(text).iter().flat_map(|word| cut(word, face, size, room)) {
        let Some(line) = lines.last_mut() else { break };
        let longer = if line.is_empty() { word.clone() } else { format!("{line} {word}") };
        if line.is_empty() || width(&longer, face, size) <= room {
            *line = longer;
        } else {
            lines.push(word);
        }
    }
    lines
}

/// The words of a text; the groups of a number belong together, as in `4 700`.
pub(super) fn words(text: &str) -> Vec<String> {
    let is_group = |word: &str| word.len() >= 3 && word.as_bytes()[..3].iter().all(u8::is_ascii_digit);
    let mut words: Vec<String> = Vec::new();
    for word in text.split(' ') {
        match words.last_mut().filter(|last| last.ends_with(|sign: char| sign.is_ascii_digit()) && is_group(word)) {
            Some(number) => *number = format!("{number} {word}"),
            None => words.push(word.to_owned()),
        }
    }
    words
}

/// A word in parts that are not wider than this.
fn cut(word: &str, face: Face, size: f64, room: f64) -> Vec<String> {
    let mut parts = vec![String::new()];
    for sign in word.chars() {
        let Some(part) = parts.last_mut() else { break };
        part.push(sign);
        if width(part, face, size) > room && part.chars().count() > 1 {
            part.pop();
            parts.push(sign.to_string());
        }
    }
    parts
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[test]
    fn a_number_in_groups_is_not_torn() {
        let lines = wrapped("fast cores 4 700 MHz, lean 10 4 600.5 MHz", Face::Plain, TEXT, 60.0);
        assert!(
            lines.iter().any(|line| line.contains("4 700")) && lines.iter().any(|line| line.contains("4 600.5")),
            "{lines:?}"
        );
    }

    fn sheet(rows: usize) -> Block {
        let row = |row: usize| vec![format!("trial {row}"), "a reason that is as long as reasons are ".repeat(2)];
        Block::Table(crate::sheet::Sheet {
            head: vec!["trial".into(), "because".into()],
            rows: (1..=rows).map(row).collect(),
        })
    }

    /// What of a block is on the pages, in their order.
    fn parts(pages: &[Page], block: usize) -> Vec<Part> {
        pages.iter().flatten().map(|(part, _)| *part).filter(|part| part.block() == Some(block)).collect()
    }

    #[test]
    fn everything_that_is_read_belongs_to_its_block() {
        let figure = Figure { size: (800, 300), shapes: Vec::new() };
        let blocks = [
            Block::Title("What was found".into()),
            Block::Item("one of several".into()),
            Block::Picture { caption: "A picture.".into(), figure },
        ];
        let pages = Typesetter::set(&blocks);
        assert_eq!(parts(&pages, 0), [Part::Block(0)]);
        assert_eq!(parts(&pages, 1), [Part::Block(1)], "the dash before it says nothing");
        assert_eq!(parts(&pages, 2), [Part::Block(2), Part::Caption(2)]);
    }

    #[test]
    fn a_tables_head_is_repeated_for_the_eye_only() {
        let pages = Typesetter::set(&[sheet(120)]);
        assert!(pages.len() > 2, "{}", pages.len());
        let cells = parts(&pages, 0);
        let of_row = |wanted: usize| {
            cells.iter().filter(|part| matches!(part, Part::Cell { row, .. } if *row == wanted)).count()
        };
        assert_eq!(of_row(0), 2, "one head, of two columns");
        assert!((1..=120).all(|row| of_row(row) >= 2), "and every row");
        let heads = |page: &Page| {
            let is_head = |placed: &Placed| matches!(placed, Placed::Text { text, .. } if text == "because");
            page.iter().filter(|(_, placed)| is_head(placed)).count()
        };
        assert!(pages.iter().all(|page| heads(page) == 1), "each page has it");
    }

    proptest! {
        /// Whatever a report consists of, nothing stands below the margin, and the pages are read from above.
        #[test]
        fn pages_are_filled_from_above(rows in 0usize..60, words in prop::collection::vec("[a-z]{1,12}", 1..200)) {
            let text = words.join(" ");
            let blocks = [Block::Heading("A".into()), Block::Paragraph(text.clone()), sheet(rows), Block::Item(text)];
            for page in Typesetter::set(&blocks) {
                let tops: Vec<f64> = page.iter().filter(|(part, _)| !matches!(part, Part::Cell { .. } | Part::Page)).map(|(_, it)| it.top()).collect();
                prop_assert!(tops.windows(2).all(|pair| pair[0] <= pair[1]), "{tops:?}");
                prop_assert!(page.iter().all(|(_, placed)| placed.top() >= TOP - 1.0 && placed.top() <= BOTTOM));
            }
        }

        /// Nothing is lost, and nothing sticks out.
        #[test]
        fn text_is_wrapped_whole(words in prop::collection::vec("[a-zA-Z0-9]{1,30}", 1..20), room in 30f64..400.0) {
            let text = words.join(" ");
            let lines = wrapped(&text, Face::Plain, TEXT, room);
            prop_assert!(lines.iter().all(|line| width(line, Face::Plain, TEXT) <= room));
            let letters = |text: &str| text.replace(' ', "");
            prop_assert_eq!(letters(&lines.concat()), letters(&text));
        }
    }
}
