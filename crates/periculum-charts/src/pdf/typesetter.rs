//! Fills pages from above.

use super::page::{BOTTOM, INK, LEFT, LINE, PALE, Page, Part, Placed, TABLE_TEXT, TEXT, TOP, WIDE};
use crate::figure::Figure;
use crate::font::{Face, width};

/// The size of what stands below a picture.
const CAPTION: f64 = 8.0;

/// Fills pages from above.
pub(super) struct Typesetter {
    pages: Vec<Page>,
    /// The block that is set.
    block: usize,
    /// How far the last page is filled.
    y: f64,
}

impl Typesetter {
    /// Before the first page.
    pub(super) fn new() -> Self {
        Self { pages: vec![Vec::new()], block: 0, y: TOP }
    }

    /// What comes next is of this block.
    pub(super) fn begin(&mut self, block: usize) {
        self.block = block;
    }

    /// The pages that were filled.
    pub(super) fn pages(self) -> Vec<Page> {
        self.pages
    }

    /// The sign before an item of a list.
    pub(super) fn dot(&mut self) {
        self.need(LINE);
        let at = (LEFT, self.y + TEXT);
        let dot = Placed::Text { at, size: TEXT, face: Face::Plain, colour: PALE, text: "–".into() };
        self.put(Part::Page, dot);
    }

    pub(super) fn picture(&mut self, caption: &str, figure: &Figure) {
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
    pub(super) fn lines(&mut self, text: &str, size: f64, face: Face, indent: f64) {
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
                self.put(part, Placed::Text { at, size: TABLE_TEXT, face: Face::Plain, colour, text: line.clone() });
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
    pub(super) fn need(&mut self, height: f64) {
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

    pub(super) fn put(&mut self, part: Part, placed: Placed) {
        if let Some(page) = self.pages.last_mut() {
            page.push((part, placed));
        }
    }
}

/// How many points a unit of a picture has on a page, and how high the picture is there, points.
fn scale(figure: &Figure) -> f64 {
    (WIDE / f64::from(figure.size.0)).min(0.62)
}

pub(super) fn height(figure: &Figure) -> f64 {
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
