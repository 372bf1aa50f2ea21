//! PDF files: one picture on a page of its size, or a report on pages of A4.

mod ink;
mod page;
mod table;

use krilla::Document;
use krilla::geom::Size;
use krilla::metadata::Metadata;
use krilla::page::PageSettings;

use crate::document::Block;
use crate::figure::{ChartError, Figure};
use ink::Ink;
use page::{A4, Placed, Typesetter};

impl Figure {
    /// The picture as a PDF file of one page of its size, with the font in it.
    ///
    /// # Errors
    /// When the PDF library refuses something.
    pub fn pdf(&self) -> Result<Vec<u8>, ChartError> {
        let (width, height) = (self.size.0 as f32, self.size.1 as f32);
        let mut document = Document::new();
        let ink = Ink::new()?;
        let mut page = document.start_page_with(sized(width, height)?);
        let mut surface = page.surface();
        ink.figure(&mut surface, self);
        surface.finish();
        page.finish();
        finished(document)
    }
}

/// A report as a PDF file, with its title in the foot of each page.
///
/// # Errors
/// When the PDF library refuses something.
pub fn report_pdf(title: &str, blocks: &[Block]) -> Result<Vec<u8>, ChartError> {
    let pages = Typesetter::set(blocks);
    let mut document = Document::new();
    document.set_metadata(Metadata::new().title(title.to_owned()).creator("Periculum".into()));
    let ink = Ink::new()?;
    for (index, placed) in pages.iter().enumerate() {
        let mut page = document.start_page_with(sized(A4.0 as f32, A4.1 as f32)?);
        let mut surface = page.surface();
        for one in placed {
            ink.placed(&mut surface, one);
        }
        let foot = format!("{title}   page {} of {}", index + 1, pages.len());
        ink.placed(&mut surface, &Placed::foot(foot));
        surface.finish();
        page.finish();
    }
    finished(document)
}

fn sized(width: f32, height: f32) -> Result<PageSettings, ChartError> {
    let size = Size::from_wh(width, height).ok_or_else(|| ChartError::new("a page needs a size"))?;
    Ok(PageSettings::new(size))
}

fn finished(document: Document) -> Result<Vec<u8>, ChartError> {
    document.finish().map_err(|error| ChartError::new(format!("{error:?}")))
}
