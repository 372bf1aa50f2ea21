//! A report as a list of blocks, whatever it is written as.

use std::fmt::Write;

use crate::figure::Figure;
use crate::sheet::Sheet;

/// A part of a report.
#[derive(Clone, Debug, PartialEq)]
pub enum Block {
    /// What it is about.
    Title(String),
    /// What comes next.
    Heading(String),
    /// Sentences.
    Paragraph(String),
    /// One of several.
    Item(String),
    /// Rows and columns.
    Table(Sheet),
    /// What comes next begins on a new page, where there are pages.
    NewPage,
    /// A picture; Markdown has only its caption.
    Picture {
        /// What is to be seen.
        caption: String,
        /// The picture.
        figure: Figure,
    },
}

/// A report as Markdown, without its pictures and without headings that have nothing but pictures.
pub fn report_markdown(blocks: &[Block]) -> String {
    let written: Vec<&Block> = blocks.iter().filter(|block| !matches!(block, Block::Picture { .. })).collect();
    let is_empty = |index: usize| {
        matches!(written[index], Block::Heading(_)) && matches!(written.get(index + 1), None | Some(Block::Heading(_)))
    };
    let mut text = String::new();
    let mut before: Option<&Block> = None;
    for (index, block) in written.iter().enumerate().filter(|(index, _)| !is_empty(*index)) {
        let stands_close = matches!((before, block), (Some(Block::Item(_)), Block::Item(_)) | (None, _));
        let gap = if stands_close { "" } else { "\n" };
        before = Some(written[index]);
        // Writing to a string can't fail.
        let _ = write_block(&mut text, gap, block);
    }
    text
}

fn write_block(text: &mut String, gap: &str, block: &Block) -> std::fmt::Result {
    match block {
        Block::Title(title) => writeln!(text, "{gap}# {}", plain(title)),
        Block::Heading(heading) => writeln!(text, "{gap}## {}", plain(heading)),
        Block::Paragraph(words) => writeln!(text, "{gap}{}", plain(words)),
        Block::Item(words) => writeln!(text, "{gap}- {}", plain(words)),
        Block::Table(sheet) => {
            let row = |cells: &[String]| cells.iter().map(|cell| plain(cell)).collect::<Vec<_>>().join(" | ");
            writeln!(text, "{gap}| {} |\n|{}", row(&sheet.head), "---|".repeat(sheet.head.len()))?;
            sheet.rows.iter().try_for_each(|cells| writeln!(text, "| {} |", row(cells)))
        }
        Block::NewPage => writeln!(text, "{gap}---"),
        Block::Picture { .. } => Ok(()),
    }
}

/// Text that Markdown takes as it stands.
fn plain(text: &str) -> String {
    let mut escaped = String::with_capacity(text.len());
    for sign in text.chars() {
        if "\\`*_[]<>|#".contains(sign) {
            escaped.push('\\');
        }
        escaped.push(if sign.is_control() { ' ' } else { sign });
    }
    escaped
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_can_not_break_a_table() {
        let sheet = Sheet { head: vec!["a|b\nc*".into()], rows: Vec::new() };
        assert_eq!(report_markdown(&[Block::Table(sheet)]), "| a\\|b c\\* |\n|---|\n");
    }

    #[test]
    fn blocks_stand_apart_and_items_together() {
        let text = |text: &str| text.to_owned();
        let blocks = [
            Block::Title(text("t")),
            Block::Item(text("a")),
            Block::Item(text("b")),
            Block::Heading(text("only pictures")),
            Block::Picture { caption: text("c"), figure: Figure { size: (1, 1), shapes: Vec::new() } },
            Block::Heading(text("h")),
            Block::Paragraph(text("p")),
        ];
        assert_eq!(report_markdown(&blocks), "# t\n\n- a\n- b\n\n## h\n\np\n");
    }
}
