//! Everything that the interface says: its labels in one table, its sentences, and what each view is for. What is said of a
//! climb itself, here and in reports alike, is told by the core; why something could not be done, by what refused it.

mod curve;
mod help;
pub(super) mod labels;
mod lead;
mod sentences;

pub(super) use curve::*;
pub(super) use help::SIGNS;
pub(super) use lead::*;
pub(super) use sentences::*;

#[cfg(test)]
mod tests {
    use std::fs;
    use std::path::Path;

    use crate::telling::texts::{Text, texts};

    /// What stands on the screen is written in this folder, so that one thing is called by one name everywhere.
    #[test]
    fn views_have_no_words_of_their_own() {
        let folders =
            ["screens", "overlays", "app"].map(|name| Path::new(env!("CARGO_MANIFEST_DIR")).join("src/tui").join(name));
        let files = folders.iter().flat_map(|folder| fs::read_dir(folder).expect("a folder").flatten());
        for file in files.map(|entry| entry.path()) {
            let name = file.file_name().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default();
            if file.is_dir() || name.ends_with("tests.rs") {
                continue;
            }
            let code = fs::read_to_string(&file).expect("text");
            // A key of plan files is no word for people.
            let is_word = |text: &Text| text.words() > 0 && text.text != "stage" && !text.is_for_developers();
            let words: Vec<String> = texts(&code).into_iter().filter(is_word).map(|text| text.text).collect();
            assert!(words.is_empty(), "{name}: {words:?} belongs into tui/telling");
        }
    }
}
