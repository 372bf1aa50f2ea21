//! Everything that the command line says, in tables: one file for what belongs together, a row a sentence. What is said of a
//! climb itself is told by the core; what the interface says stands in its own tables.

pub(crate) mod allowing;
pub(crate) mod arguments;
pub(crate) mod attaching;
pub(crate) mod bundles;
pub(crate) mod climbing;
#[cfg_attr(not(feature = "graphics"), allow(dead_code, reason = "nobody says it without devices"))]
pub(crate) mod devices;
pub(crate) mod drafts;
pub(crate) mod files;
pub(crate) mod headless;
pub(crate) mod ledger;
pub(crate) mod pictures;
pub(crate) mod preferences;
pub(crate) mod profiles;
pub(crate) mod proving;
pub(crate) mod results;
pub(crate) mod revealing;
pub(crate) mod running;
pub(crate) mod scoring;
pub(crate) mod screens;
pub(crate) mod starting;
#[cfg(test)]
pub(crate) mod texts;

/// A table of sentences: each row makes a function of what is put into its sentence.
macro_rules! sentences {
    ($($name:ident($($hole:ident),*) = $text:literal;)*) => {$(
        #[allow(clippy::too_many_arguments, reason = "a row of a list has as many holes as the list has columns")]
        pub(crate) fn $name($($hole: impl std::fmt::Display),*) -> String {
            format!($text)
        }
    )*};
}

use sentences;

#[cfg(test)]
mod tests {
    use std::fs;
    use std::path::{Path, PathBuf};

    use super::texts::{Text, texts};

    fn files(folder: &Path) -> Vec<PathBuf> {
        let entries = fs::read_dir(folder).expect("a folder").flatten().map(|entry| entry.path());
        entries.flat_map(|path| if path.is_dir() { files(&path) } else { vec![path] }).collect()
    }

    fn holds_code(path: &Path) -> bool {
        let name = path.file_name().unwrap_or_default().to_string_lossy();
        let is_table = path.components().any(|part| part.as_os_str() == "telling");
        name.ends_with(".rs") && !name.ends_with("tests.rs") && name != "rehearsal.rs" && !is_table
    }

    #[test]
    fn texts_are_found_in_code() {
        let code = r#"fn a<'a>() { let told = format!("{:>9} of {name}", '"', label("a", '\'')); // "not this"
            tracing::warn!(why, "for developers"); } const B: &str = "it \"is\" \
            here";"#;
        let found = texts(code);
        let told: Vec<&str> = found.iter().map(|text| &*text.text).collect();
        assert_eq!(told[..3], [" of ", "a", "for developers"]);
        assert_eq!(found.iter().map(|text| text.words()).collect::<Vec<_>>(), [0, 0, 2, 1]);
        assert_eq!(found.iter().position(|text| text.is_for_developers()), Some(2));
    }

    /// What is said in more than a word is written in this folder or in the interface's, so that it can be read as a whole. A
    /// section of a file is no word for people.
    #[test]
    fn no_sentence_stands_outside_the_tables() {
        let is_sentence = |text: &Text| {
            let is_said = text.text.trim().contains(' ') && !text.text.starts_with('[');
            text.words() > 0 && is_said && !text.is_for_developers()
        };
        let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
        let sentences = files(&folder).into_iter().filter(|path| holds_code(path)).flat_map(|path| {
            let found = texts(&fs::read_to_string(&path).expect("text"));
            found.into_iter().filter(is_sentence).map(move |text| (path.display().to_string(), text.text))
        });
        assert_eq!(sentences.collect::<Vec<_>>(), []);
    }
}
