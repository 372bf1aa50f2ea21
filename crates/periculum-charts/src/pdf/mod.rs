//! PDF files: one picture on a page of its size, or a report on pages of A4.

mod blocks;
mod ink;
mod page;
mod table;
mod tags;
mod typesetter;

use krilla::Document;
use krilla::destination::XyzDestination;
use krilla::geom::{Point, Size};
use krilla::metadata::{DateTime, Metadata};
use krilla::outline::{Outline, OutlineNode};
use krilla::page::PageSettings;
use krilla::tagging::{Artifact, ArtifactType, ContentTag, SpanTag};
use periculum_core::model::moment::Moment;

use crate::document::Block;
use crate::figure::{ChartError, Figure};
use ink::Ink;
use page::{A4, Page, Part, Placed};
use tags::Tags;

impl Figure {
    /// The picture as a PDF file of one page of its size, with the font in it.
    ///
    /// # Errors
    /// When the PDF library refuses something.
    pub fn pdf(&self) -> Result<Vec<u8>, ChartError> {
        let (width, height) = (self.size.0 as f32, self.size.1 as f32);
        let mut document = Document::new();
        document.set_metadata(Metadata::new().creator("Periculum".into()).language(LANGUAGE.into()));
        let ink = Ink::new()?;
        let mut page = document.start_page_with(sized(width, height)?);
        let mut surface = page.surface();
        ink.figure(&mut surface, self);
        surface.finish();
        page.finish();
        finished(document)
    }
}

/// The language of everything that is written.
const LANGUAGE: &str = "en";

/// A report as a PDF file that counts as made at this moment, so that the same climb gives the same bytes; with its title in the foot of each page, its headings as an outline, and tags for
/// what everything is.
///
/// # Errors
/// When the PDF library refuses something.
pub fn report_pdf(title: &str, blocks: &[Block], made: Moment) -> Result<Vec<u8>, ChartError> {
    let pages = blocks::set(blocks);
    let mut document = Document::new();
    document.set_metadata(metadata(title, made));
    let (ink, mut tags) = (Ink::new()?, Tags::default());
    for (index, placed) in pages.iter().enumerate() {
        let mut page = document.start_page_with(sized(A4.0 as f32, A4.1 as f32)?);
        let mut surface = page.surface();
        for (part, one) in placed {
            let tag = match (part, one) {
                (Part::Page, _) => ContentTag::Artifact(Artifact::with_kind(ArtifactType::Other)),
                (_, Placed::Text { .. }) => ContentTag::Span(SpanTag::empty()),
                _ => ContentTag::Other,
            };
            tags.note(*part, surface.start_tagged(tag));
            ink.placed(&mut surface, one);
            surface.end_tagged();
        }
        let foot = format!("{title}   page {} of {}", index + 1, pages.len());
        surface.start_tagged(ContentTag::Artifact(Artifact::with_kind(ArtifactType::Footer)));
        ink.placed(&mut surface, &Placed::foot(foot));
        surface.end_tagged();
        surface.finish();
        page.finish();
    }
    document.set_outline(outline(blocks, &pages));
    document.set_tag_tree(tags.tree(blocks));
    finished(document)
}

fn metadata(title: &str, made: Moment) -> Metadata {
    let of = Metadata::new().title(title.to_owned()).creator("Periculum".into()).language(LANGUAGE.into());
    let Ok(instant) = jiff::Timestamp::from_millisecond(made.millis()) else { return of };
    let utc = instant.to_zoned_datetime(jiff::tz::TimeZone::UTC);
    let small = |number: i8| u8::try_from(number).unwrap_or_default();
    let date = DateTime::new(u16::try_from(utc.year()).unwrap_or_default())
        .month(small(utc.month()))
        .day(small(utc.day()))
        .hour(small(utc.hour()))
        .minute(small(utc.minute()))
        .second(small(utc.second()))
        .utc_offset_hour(0);
    of.creation_date(date)
}

/// The headings, each with the place that it stands at.
fn outline(blocks: &[Block], pages: &[Page]) -> Outline {
    let mut outline = Outline::new();
    for (index, block) in blocks.iter().enumerate() {
        let Block::Heading(text) = block else { continue };
        let place = pages.iter().enumerate().find_map(|(page, placed)| {
            let (_, first) = placed.iter().find(|(part, _)| part.block() == Some(index))?;
            Some(XyzDestination::new(page, Point::from_xy(0.0, first.top() as f32)))
        });
        if let Some(place) = place {
            outline.push_child(OutlineNode::new(text.clone(), place));
        }
    }
    outline
}

fn sized(width: f32, height: f32) -> Result<PageSettings, ChartError> {
    let size = Size::from_wh(width, height).ok_or_else(|| ChartError::new("a page needs a size"))?;
    Ok(PageSettings::new(size))
}

fn finished(document: Document) -> Result<Vec<u8>, ChartError> {
    document.finish().map_err(|error| ChartError::new(format!("{error:?}")))
}
