//! A setting that is a line of a file which the machine reads when it starts.

use std::fs;
use std::io::{self, Write};
use std::path::{Path, PathBuf};

use serde::{Deserialize, Serialize};

use super::boot_file::{self, WayBack};
use super::keeper::{Keeper, created, replace};
use crate::granted::Terms;

/// The line, and the file as it stands below the root.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Line {
    pub(super) file: PathBuf,
    pub(super) key: String,
    pub(super) between: String,
}

/// How to put a line back, and what of it is in force meanwhile.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub(super) struct KeptLine {
    file: PathBuf,
    key: String,
    between: String,
    way_back: WayBack,
    /// The boot in which the line was changed last, and the value that this boot began with.
    changed_in: String,
    began_with: Option<String>,
}

impl Line {
    /// The value that the running boot began with; none where the file does not say.
    pub(super) fn in_force(&self, keeper: &Keeper, target: &str, boot: &str) -> Option<String> {
        match keeper.line(target).filter(|kept| kept.changed_in == boot) {
            Some(kept) => kept.began_with.clone(),
            None => self.written().ok()?,
        }
    }

    /// What is written in the file now.
    fn written(&self) -> io::Result<Option<String>> {
        let text = fs::read(&self.file)?;
        let value = boot_file::value(&text, &self.key, &self.between);
        Ok(value.map(|value| String::from_utf8_lossy(value).into_owned()))
    }

    /// Whether files may be made beside this one, as its change needs.
    pub(super) fn try_folder(&self) -> io::Result<()> {
        let probe = beside(&fs::canonicalize(&self.file)?, ".periculum-probe");
        drop(created(&probe)?);
        fs::remove_file(probe)
    }

    /// Writes another value, for the next start.
    ///
    /// A copy of the file as it was before the first change is left beside it.
    pub(super) fn write(
        &self,
        value: &str,
        keeper: &mut Keeper,
        (target, terms): (&str, &Terms),
        boot: &str,
    ) -> io::Result<()> {
        let began_with = self.in_force(keeper, target, boot);
        let text = fs::read(&self.file)?;
        let (changed, way_back) = boot_file::with_value(&text, &self.key, &self.between, value);
        let way_back = keeper.line(target).map_or(way_back, |kept| kept.way_back.clone());
        if fs::symlink_metadata(backup(&self.file)).is_err() {
            let mut copy = created(&backup(&self.file))?;
            copy.set_permissions(fs::metadata(&self.file)?.permissions())?;
            copy.write_all(&text).and_then(|()| copy.sync_all())?;
        }
        let (file, key, between) = (self.file.clone(), self.key.clone(), self.between.clone());
        keeper.keep_line(
            (target, terms),
            KeptLine { file, key, between, way_back, changed_in: boot.to_owned(), began_with },
        )?;
        replace(&self.file, &changed, Some(&fs::metadata(&self.file)?))
    }
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
fn backup(file: &Path) -> PathBuf {
    beside(file, ".before-periculum")
}

fn beside(file: &Path, ending: &str) -> PathBuf {
    let mut name = file.file_name().unwrap_or_default().to_owned();
    name.push(ending);
    file.with_file_name(name)
}
