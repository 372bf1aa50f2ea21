//! A setting that is a line of a file which the machine reads when it starts.

use std::fs;
use std::io::{self, Write};
use std::path::PathBuf;

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
