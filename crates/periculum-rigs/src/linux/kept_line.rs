//! How a line of a file is put back that the machine reads when it starts.

use std::fs;
use std::io;
use std::path::{Path, PathBuf};

use serde::{Deserialize, Serialize};

use super::boot_file::{self, WayBack};
use super::whole_file::replace;

/// How to put a line back, and what of it is in force meanwhile.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub(super) struct KeptLine {
    pub(super) file: PathBuf,
    pub(super) key: String,
    pub(super) between: String,
    pub(super) way_back: WayBack,
    /// The boot in which the line was changed last, and the value that this boot began with.
    pub(super) changed_in: String,
    pub(super) began_with: Option<String>,
}

impl KeptLine {
    /// Whether it is this line of this file.
    pub(super) fn is_of(&self, file: &Path, key: Option<&str>, between: Option<&str>) -> bool {
        self.file == file && Some(self.key.as_str()) == key && Some(self.between.as_str()) == between
    }

    /// Puts the line back as it was before the first change.
    pub(super) fn put_back(&self) -> Result<(), String> {
        let put = || {
            let text = fs::read(&self.file)?;
            let before = boot_file::taken_back(&text, &self.key, &self.between, &self.way_back);
            replace(&self.file, &before, Some(&fs::metadata(&self.file)?))?;
            match fs::remove_file(backup(&self.file)) {
                // Another key of the same file was put back before.
                Err(error) if error.kind() == io::ErrorKind::NotFound => Ok(()),
                removed => removed,
            }
        };
        put().map_err(|error: io::Error| format!("{}: {error}", self.file.display()))
    }
}

/// Where the file as it was is kept.
pub(super) fn backup(file: &Path) -> PathBuf {
    beside(file, ".before-periculum")
}

pub(super) fn beside(file: &Path, ending: &str) -> PathBuf {
    let mut name = file.file_name().unwrap_or_default().to_owned();
    name.push(ending);
    file.with_file_name(name)
}
