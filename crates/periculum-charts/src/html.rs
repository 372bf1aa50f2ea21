//! A report as one HTML file (HTML living standard) that needs nothing else: its pictures stand in it, with texts that can be
//! searched and read aloud.

use std::fmt::Write;

use crate::document::Block;
use crate::svg::escaped;

/// What the page looks like, on a screen and on paper; figures that stand below each other line up.
const STYLE: &str = "\
    body{font:16px/1.5 system-ui,sans-serif;color:#22262b;background:#fff;max-width:62rem;margin:2rem auto;padding:0 1rem}\
    h1{font-size:1.7rem;margin:0 0 .5rem}h2{font-size:1.2rem;margin:2.2rem 0 .4rem;border-bottom:1px solid #c9cbc6}\
    table{border-collapse:collapse;font-variant-numeric:tabular-nums;margin:.6rem 0;display:block;overflow-x:auto}\
    th,td{text-align:left;padding:.15rem 1.4rem .15rem 0;vertical-align:top}th{color:#62666b;font-weight:normal}\
    tbody tr:nth-child(odd){background:#f4f4f0}figure{margin:1rem 0}figcaption{color:#62666b}svg{max-width:100%;height:auto}\
    hr{border:0;margin:3rem 0}@media print{hr{break-after:page;margin:0}body{margin:0;max-width:none;font-size:11pt}figure,tr{break-inside:avoid}}";

/// A report as an HTML file.
pub fn report_html(title: &str, blocks: &[Block]) -> String {
    let mut page = String::new();
    // Writing to a string can't fail.
    let _ = write_page(&mut page, title, blocks);
    page
}

fn write_page(page: &mut String, title: &str, blocks: &[Block]) -> std::fmt::Result {
    writeln!(page, "<!DOCTYPE html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\"/>")?;
    writeln!(page, "<meta name=\"viewport\" content=\"width=device-width\"/>\n<title>{}</title>", escaped(title))?;
    writeln!(page, "<style>{STYLE}</style>\n</head>\n<body>")?;
    let is_item = |block: Option<&Block>| matches!(block, Some(Block::Item(_)));
    for (at, block) in blocks.iter().enumerate() {
        if is_item(Some(block)) && !is_item(at.checked_sub(1).map(|before| &blocks[before])) {
            writeln!(page, "<ul>")?;
        }
        write_block(page, block)?;
        if is_item(Some(block)) && !is_item(blocks.get(at + 1)) {
            writeln!(page, "</ul>")?;
        }
    }
    writeln!(page, "</body>\n</html>")
}

fn write_block(page: &mut String, block: &Block) -> std::fmt::Result {
    match block {
        Block::Title(title) => writeln!(page, "<h1>{}</h1>", escaped(title)),
        Block::Heading(heading) => writeln!(page, "<h2>{}</h2>", escaped(heading)),
        Block::Paragraph(words) => writeln!(page, "<p>{}</p>", escaped(words)),
        Block::Item(words) => writeln!(page, "<li>{}</li>", escaped(words)),
        Block::Table(sheet) => {
            let row = |cells: &[String], kind: &str| {
                cells.iter().map(|cell| format!("<{kind}>{}</{kind}>", escaped(cell))).collect::<String>()
            };
            writeln!(page, "<table>\n<thead><tr>{}</tr></thead>\n<tbody>", row(&sheet.head, "th"))?;
            sheet.rows.iter().try_for_each(|cells| writeln!(page, "<tr>{}</tr>", row(cells, "td")))?;
            writeln!(page, "</tbody>\n</table>")
        }
        Block::NewPage => writeln!(page, "<hr/>"),
        Block::Picture { caption, figure } => {
            writeln!(
                page,
                "<figure>\n{}<figcaption>{}</figcaption>\n</figure>",
                figure.svg_with_text(),
                escaped(caption)
            )
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::figure::{Colour, Figure, Shape};
    use crate::sheet::Sheet;

    fn text(text: &str) -> String {
        text.to_owned()
    }

    #[test]
    fn blocks_are_written_and_hostile_text_stays_text() {
        let hostile = "<script>alert(\"&\")</script>";
        let shape = Shape::Text {
            at: (3.0, 4.0),
            size: 12.0,
            text: text(hostile),
            colour: Colour { rgb: (1, 2, 3), alpha: 1.0 },
            is_upright: true,
        };
        let blocks = [
            Block::Title(text(hostile)),
            Block::Item(text("a")),
            Block::Item(text("b")),
            Block::Table(Sheet { head: vec![text("x")], rows: vec![vec![text("<b>")]] }),
            Block::Picture { caption: text("c"), figure: Figure { size: (9, 9), shapes: vec![shape] } },
            Block::Item(text("alone")),
        ];
        let page = report_html(hostile, &blocks);
        assert!(!page.contains("<script"), "{page}");
        assert!(page.contains("<ul>\n<li>a</li>\n<li>b</li>\n</ul>\n<table>"), "{page}");
        assert!(page.contains("<ul>\n<li>alone</li>\n</ul>\n</body>"), "{page}");
        assert!(page.contains("<td>&lt;b&gt;</td>") && page.contains("rotate(-90 3.0 4.0)"), "{page}");
        assert_eq!(
            (page.matches("<svg").count(), page.matches("</svg>").count(), page.matches("<?xml").count()),
            (1, 1, 0)
        );
    }
}
