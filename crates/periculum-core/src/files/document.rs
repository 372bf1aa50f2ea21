//! The text of a file and the tables in it.

use toml::Spanned;
use toml::de::DeTable;

use crate::files::problem::{Problem, Problems};
use crate::files::section::Section;

/// The only version of the file formats that this program knows.
const FORMAT: &str = "1";

/// A TOML file that was read.
pub struct Document<'a> {
    top: Spanned<DeTable<'a>>,
}

impl<'a> Document<'a> {
    /// Reads the text of a TOML file.
    ///
    /// # Errors
    /// Tells where the text is not TOML.
    pub fn parse(source: &'a str) -> Result<Self, Problem> {
        match DeTable::parse(source) {
            Ok(top) => Ok(Self { top }),
            Err(error) => Err(Problem {
                at: error.span().unwrap_or(0..0),
                what: format!("this is not TOML: {}", error.message()),
                help: None,
            }),
        }
    }

    /// The file's top section, after its `format` was checked.
    pub fn top<'d>(&'d self, problems: &'d Problems) -> Section<'d> {
        let section = Section::new("the file", self.top.get_ref(), self.top.span(), problems);
        match section.number("format") {
            Some(format) if format.value.to_string() != FORMAT => problems.advise(
                format.at,
                format!("format {} is not known to this version", format.value),
                format!("write `format = {FORMAT}`"),
            ),
            _ => {}
        }
        section
    }
}
