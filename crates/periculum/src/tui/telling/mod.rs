//! Everything that the interface says: its labels in one table, its sentences, and what each view is for. What is said of a
//! climb itself, here and in reports alike, is told by the core; why something could not be done, by what refused it.

mod help;
pub(super) mod labels;
mod sentences;

pub(super) use help::SIGNS;
pub(super) use sentences::*;

#[cfg(test)]
mod tests {
    use std::fs;
    use std::path::Path;

    /// The texts in quotation marks on a line of code, without the names of what is put into them.
    fn texts(line: &str) -> Vec<String> {
        let (mut texts, mut open, mut depth, mut before) = (Vec::new(), None::<String>, 0, ' ');
        for sign in line.chars() {
            match (&mut open, sign) {
                (None, '/') if before == '/' => break,
                (None, '"') if before != '\'' => open = Some(String::new()),
                (Some(text), '"') if before != '\\' => {
                    texts.push(std::mem::take(text));
                    open = None;
                }
                (Some(_), '{') => depth += 1,
                (Some(_), '}') => depth -= 1,
                (Some(text), sign) if depth == 0 => text.push(sign),
                _ => {}
            }
            before = sign;
        }
        texts
    }

    fn has_a_word(text: &str) -> bool {
        text.split(|sign: char| !sign.is_alphabetic()).any(|word| word.chars().count() > 2)
    }

    #[test]
    fn texts_are_found_in_code() {
        let line = r#"let told = format!("{:>9} of {name}", label("a")); // "not this""#;
        assert_eq!(texts(line), [" of ", "a"]);
        assert!(has_a_word("now: ") && !has_a_word(" %  °C "));
    }

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
            for line in code.lines().take_while(|line| line.trim() != "#[cfg(test)]") {
                // A key of plan files is no word for people.
                let words: Vec<String> =
                    texts(line).into_iter().filter(|text| text != "stage" && has_a_word(text)).collect();
                assert!(words.is_empty(), "{name}: {words:?} belongs into tui/telling");
            }
        }
    }
}
