//! What people call something in a rig file, and its unit.

use crate::files::section::Section;
use crate::model::quantity::harmless;

/// The unit of a section; a dash, as tables have it, is none.
pub(super) fn unit(section: &Section) -> String {
    let unit = section.optional_text("unit").map(|text| harmless(text.value.trim())).unwrap_or_default();
    if matches!(unit.as_str(), "-" | "–" | "—") { String::new() } else { unit }
}

/// A name with its underscores spoken as blanks.
pub(super) fn spoken(name: &str) -> String {
    harmless(&name.replace('_', " "))
}
