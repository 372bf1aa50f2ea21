//! What stands where in a report, for those who can't see it: the structure tree of a tagged PDF (ISO 32000-2, 14.7 and 14.8).

use std::collections::BTreeMap;
use std::num::NonZeroU16;

use krilla::tagging::{Identifier, ListNumbering, Node, TableHeaderScope, Tag, TagGroup, TagTree};

use super::page::Part;
use crate::document::Block;

/// What was drawn, by the block that it belongs to.
#[derive(Default)]
pub(super) struct Tags {
    drawn: BTreeMap<usize, Vec<(Part, Identifier)>>,
}

impl Tags {
    /// Notes that this was drawn for that part.
    pub(super) fn note(&mut self, part: Part, drawn: Identifier) {
        if let Some(block) = part.block() {
            self.drawn.entry(block).or_default().push((part, drawn));
        }
    }

    /// The tree of these blocks; items that follow each other are one list.
    pub(super) fn tree(mut self, blocks: &[Block]) -> TagTree {
        let mut tree = TagTree::new().with_lang(Some(super::LANGUAGE.into()));
        let mut list: Vec<Node> = Vec::new();
        for (index, block) in blocks.iter().enumerate() {
            let Some(drawn) = self.drawn.remove(&index) else { continue };
            if matches!(block, Block::Item(_)) {
                let body = TagGroup::with_children(Tag::LBody, leaves(drawn));
                list.push(TagGroup::with_children(Tag::LI, vec![body.into()]).into());
                continue;
            }
            close(&mut tree, &mut list);
            tree.push(group(block, drawn));
        }
        close(&mut tree, &mut list);
        tree
    }
}

fn close(tree: &mut TagTree, list: &mut Vec<Node>) {
    if !list.is_empty() {
        tree.push(TagGroup::with_children(Tag::L(ListNumbering::Disc), std::mem::take(list)));
    }
}

fn group(block: &Block, drawn: Vec<(Part, Identifier)>) -> TagGroup {
    match block {
        Block::Title(text) => TagGroup::with_children(Tag::Hn(NonZeroU16::MIN, Some(text.clone())), leaves(drawn)),
        Block::Heading(text) => {
            let second = NonZeroU16::MIN.saturating_add(1);
            TagGroup::with_children(Tag::Hn(second, Some(text.clone())), leaves(drawn))
        }
        Block::Paragraph(_) | Block::Item(_) | Block::NewPage => TagGroup::with_children(Tag::P, leaves(drawn)),
        Block::Table(_) => table(drawn),
        Block::Picture { caption, .. } => picture(caption, drawn),
    }
}

fn table(drawn: Vec<(Part, Identifier)>) -> TagGroup {
    let mut rows: BTreeMap<usize, BTreeMap<usize, Vec<Node>>> = BTreeMap::new();
    for (part, one) in drawn {
        if let Part::Cell { row, column, .. } = part {
            rows.entry(row).or_default().entry(column).or_default().push(one.into());
        }
    }
    let row = |(row, cells): (usize, BTreeMap<usize, Vec<Node>>)| {
        let cell = |lines: Vec<Node>| match row {
            0 => TagGroup::with_children(Tag::TH(TableHeaderScope::Column), lines),
            _ => TagGroup::with_children(Tag::TD, lines),
        };
        TagGroup::with_children(Tag::TR, cells.into_values().map(|lines| cell(lines).into()).collect())
    };
    TagGroup::with_children(Tag::Table, rows.into_iter().map(|cells| row(cells).into()).collect())
}

fn picture(caption: &str, drawn: Vec<(Part, Identifier)>) -> TagGroup {
    let (figure, words): (Vec<_>, Vec<_>) = drawn.into_iter().partition(|(part, _)| matches!(part, Part::Block(_)));
    let mut children = leaves(figure);
    children.push(TagGroup::with_children(Tag::Caption, leaves(words)).into());
    TagGroup::with_children(Tag::Figure(Some(caption.to_owned())), children)
}

fn leaves(drawn: Vec<(Part, Identifier)>) -> Vec<Node> {
    drawn.into_iter().map(|(_, one)| one.into()).collect()
}
