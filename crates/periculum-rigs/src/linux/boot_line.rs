//! A setting that is a line of a file which the machine reads when it starts.

use std::fs;
use std::io::{self, Write};
use std::path::{Path, PathBuf};

use super::boot_file;
use super::keeper::Keeper;
use super::kept_line::{KeptLine, backup, beside};
use super::whole_file::{created, replace};
use crate::granted::Terms;

/// The line, and the file as it stands below the root.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Line {
    pub(super) file: PathBuf,
    pub(super) key: String,
    pub(super) between: String,
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
}

/// A line that is to have another value at the next start.
pub(super) struct Wanted {
    pub(super) line: Line,
    pub(super) value: String,
    /// What the line is called among what is kept, and what was allowed of it.
    pub(super) target: String,
    pub(super) terms: Terms,
}

/// Writes other values into a file for the next start, all of them in one step.
///
/// A copy of the file as it was before the first change is left beside it.
pub(super) fn write_lines(file: &Path, wanted: &[Wanted], keeper: &mut Keeper, boot: &str) -> io::Result<()> {
    let text = fs::read(file)?;
    if fs::symlink_metadata(backup(file)).is_err() {
        let mut copy = created(&backup(file))?;
        copy.set_permissions(fs::metadata(file)?.permissions())?;
        copy.write_all(&text).and_then(|()| copy.sync_all())?;
    }
    let mut changed = text;
    for Wanted { line, value, target, terms } in wanted {
        let began_with = line.in_force(keeper, target, boot);
        let (next, way_back) = boot_file::with_value(&changed, &line.key, &line.between, value);
        let way_back = keeper.line(target).map_or(way_back, |kept| kept.way_back.clone());
        let Line { file, key, between } = line.clone();
        let kept = KeptLine { file, key, between, way_back, changed_in: boot.to_owned(), began_with };
        keeper.keep_line((target, terms), kept)?;
        changed = next;
    }
    replace(file, &changed, Some(&fs::metadata(file)?))
}
