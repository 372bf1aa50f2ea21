//! Writes what a screen shows into a file.

use std::path::Path;

use anyhow::{Result, bail};
use periculum_charts::{Figure, Table};

use super::Proposed;
use crate::pictures::{self, Drawn};
use crate::tui::climbed::Climbed;
use crate::tui::desk::Desk;
use crate::tui::telling::{self, labels};

/// The file that is proposed for the picture of what is shown.
pub(super) fn picture_of(desk: &Desk, what: &str) -> Proposed {
    let name = free(telling::file_of_climb(desk.shown.number, what));
    Proposed { name, title: labels::FILE_FOR_PICTURE }
}

/// Writes a picture of the climb, as what the file's ending says, and tells where.
pub(super) fn picture(path: &Path, desk: &Desk, draw: impl FnOnce(&Drawn) -> Result<Figure>) -> Result<String> {
    check_free(path)?;
    let Climbed { story, rig, plan, traces, .. } = &desk.shown;
    pictures::write(&draw(&Drawn { story, rig, plan, traces })?, path)?;
    Ok(telling::written(&path.display().to_string()))
}

/// Writes a table as what the file's ending says, and tells where.
pub(super) fn table(table: Table, path: &Path) -> Result<String> {
    check_free(path)?;
    pictures::write_table(table, path)?;
    Ok(telling::written(&path.display().to_string()))
}

fn check_free(path: &Path) -> Result<()> {
    if path.exists() {
        bail!(telling::is_there_already(path));
    }
    Ok(())
}

/// The name, or the first one like it with a number that nothing has.
pub(super) fn free(name: String) -> String {
    let path = Path::new(&name);
    let file = path.file_name().unwrap_or_default().to_string_lossy();
    let (stem, ending) = file.split_once('.').unwrap_or((&file, ""));
    let numbered = (2..).map(|number| path.with_file_name(format!("{stem}-{number}.{ending}")).display().to_string());
    std::iter::once(name.clone()).chain(numbered).find(|name| !Path::new(name).exists()).unwrap_or(name)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_name_that_is_taken_gets_a_number() {
        let folder = tempfile::tempdir().expect("a folder");
        let path = |name: &str| folder.path().join(name).display().to_string();
        assert_eq!(free(path("dome.plan.toml")), path("dome.plan.toml"));
        for taken in ["dome.plan.toml", "dome-2.plan.toml"] {
            std::fs::write(path(taken), "").expect("written");
        }
        assert!(free(path("dome.plan.toml")).ends_with("dome-3.plan.toml"));
    }
}
