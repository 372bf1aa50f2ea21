//! Sets blocks on pages, one below the other.

use super::page::{Page, TEXT};
use super::table;
use super::typesetter::{Typesetter, height};
use crate::document::Block;
use crate::font::Face;

/// The pages that these blocks fill.
pub(super) fn set(blocks: &[Block]) -> Vec<Page> {
    let mut setter = Typesetter::new();
    for (index, block) in blocks.iter().enumerate() {
        setter.begin(index);
        set_block(&mut setter, block, blocks.get(index + 1));
    }
    setter.pages()
}

fn set_block(setter: &mut Typesetter, block: &Block, next: Option<&Block>) {
    match block {
        Block::Title(text) => {
            setter.lines(text, 17.0, Face::Bold, 0.0);
            setter.skip(6.0);
        }
        Block::Heading(text) => {
            // A heading is not left alone at the end of a page.
            let height =
                next.map_or(0.0, |next| if let Block::Picture { figure, .. } = next { height(figure) } else { 0.0 });
            setter.need(60.0 + height);
            setter.skip(10.0);
            setter.lines(text, 12.0, Face::Bold, 0.0);
            setter.skip(3.0);
        }
        Block::Paragraph(text) => {
            setter.lines(text, TEXT, Face::Plain, 0.0);
            setter.skip(4.0);
        }
        Block::Item(text) => {
            setter.dot();
            setter.lines(text, TEXT, Face::Plain, 12.0);
        }
        Block::Table(sheet) => table::set(setter, sheet),
        Block::NewPage => setter.turn(),
        Block::Picture { caption, figure } => setter.picture(caption, figure),
    }
}

#[cfg(test)]
mod tests {
    use super::super::page::{BOTTOM, Part, Placed, TOP};
    use super::super::typesetter::wrapped;
    use super::*;
    use crate::figure::Figure;
    use crate::font::width;
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
        let pages = set(&blocks);
        assert_eq!(parts(&pages, 0), [Part::Block(0)]);
        assert_eq!(parts(&pages, 1), [Part::Block(1)], "the dash before it says nothing");
        assert_eq!(parts(&pages, 2), [Part::Block(2), Part::Caption(2)]);
    }

    #[test]
    fn a_tables_head_is_repeated_for_the_eye_only() {
        let pages = set(&[sheet(120)]);
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
        #![proptest_config(ProptestConfig::with_cases(64))]

        /// Whatever a report consists of, nothing stands below the margin, and the pages are read from above.
        #[test]
        fn pages_are_filled_from_above(rows in 0usize..60, words in prop::collection::vec("[a-z]{1,12}", 1..200)) {
            let text = words.join(" ");
            let blocks = [Block::Heading("A".into()), Block::Paragraph(text.clone()), sheet(rows), Block::Item(text)];
            for page in set(&blocks) {
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
