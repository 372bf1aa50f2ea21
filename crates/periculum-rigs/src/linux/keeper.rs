//! What was there before this program changed it, on disk before the change is made: so that it can be put back by
//! whoever comes next, whatever becomes of this program.

use std::fs;
use std::io::{self, ErrorKind, Write};
use std::path::{Path, PathBuf};

use serde::{Deserialize, Serialize};

use super::boot_line::KeptLine;
use super::targets::Writing;

/// The way back for one target.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
struct Kept {
    target: String,
    /// The boot that it was changed in: what takes effect at once, the kernel forgets at the next one.
    boot: String,
    way_back: WayBack,
}

#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "kebab-case")]
enum WayBack {
    Writings(Vec<Writing>),
    Line(KeptLine),
}

/// The file of everything that is to be put back.
#[derive(Clone, Debug)]
pub(super) struct Keeper {
    file: PathBuf,
    boot: String,
    kept: Vec<Kept>,
}

impl Keeper {
    /// What an earlier life of the program left to be put back; nothing where there is no such file.
    pub(super) fn open(file: &Path, boot: &str) -> io::Result<Self> {
        let text = match fs::read_to_string(file) {
            Ok(text) => text,
            Err(error) if error.kind() == ErrorKind::NotFound => String::new(),
            Err(error) => return Err(error),
        };
        let kept: Vec<Kept> = text.lines().map(serde_json::from_str).collect::<Result<_, _>>()?;
        let is_still_there = |kept: &Kept| kept.boot == boot || matches!(kept.way_back, WayBack::Line(_));
        Ok(Self {
            file: file.to_owned(),
            boot: boot.to_owned(),
            kept: kept.into_iter().filter(is_still_there).collect(),
        })
    }

    /// Keeps the way back for a target, unless an earlier one is kept.
    pub(super) fn keep(&mut self, target: &str, writings: impl FnOnce() -> Option<Vec<Writing>>) -> io::Result<()> {
        if self.kept.iter().any(|kept| kept.target == target) {
            return Ok(());
        }
        let unreadable = || io::Error::other("what is there now can't be read, so it could not be put back");
        let way_back = WayBack::Writings(writings().ok_or_else(unreadable)?);
        self.kept.push(Kept { target: target.to_owned(), boot: self.boot.clone(), way_back });
        self.save()
    }

    /// The kept line of a file, where there is one.
    pub(super) fn line(&self, target: &str) -> Option<&KeptLine> {
        self.kept.iter().find(|kept| kept.target == target).and_then(|kept| match &kept.way_back {
            WayBack::Line(line) => Some(line),
            WayBack::Writings(_) => None,
        })
    }

    /// Keeps a line of a file as it is to be kept from now on.
    pub(super) fn keep_line(&mut self, target: &str, line: KeptLine) -> io::Result<()> {
        let kept = Kept { target: target.to_owned(), boot: self.boot.clone(), way_back: WayBack::Line(line) };
        // Several keys of one file have to be put back in the order in which they came.
        match self.kept.iter_mut().find(|known| known.target == target) {
            Some(known) => *known = kept,
            None => self.kept.push(kept),
        }
        self.save()
    }

    /// Puts everything back, the last change first, or only what takes effect at once; what can't be put back stays
    /// kept and is told.
    pub(super) fn put_back(&mut self, also_lines: bool) -> Vec<String> {
        let mut problems = Vec::new();
        let mut left = Vec::new();
        for kept in std::mem::take(&mut self.kept).into_iter().rev() {
            let done = match &kept.way_back {
                WayBack::Writings(writings) => writings.iter().try_for_each(|writing| {
                    writing.carry_out().map_err(|error| format!("{}: {error}", writing.path.display()))
                }),
                WayBack::Line(_) if !also_lines => {
                    left.push(kept);
                    continue;
                }
                WayBack::Line(line) => line.put_back(),
            };
            if let Err(why) = done {
                problems.push(format!("{} could not be put back: {why}", kept.target));
                left.push(kept);
            }
        }
        left.reverse();
        self.kept = left;
        problems.extend(self.save().err().map(|error| format!("can't write {}: {error}", self.file.display())));
        problems
    }

    /// The names of what is to be put back.
    pub(super) fn targets(&self) -> Vec<String> {
        self.kept.iter().map(|kept| kept.target.clone()).collect()
    }

    fn save(&self) -> io::Result<()> {
        if self.kept.is_empty() {
            return match fs::remove_file(&self.file) {
                Err(error) if error.kind() != ErrorKind::NotFound => Err(error),
                _ => Ok(()),
            };
        }
        let lines: Vec<String> = self.kept.iter().map(serde_json::to_string).collect::<Result<_, _>>()?;
        replace(&self.file, (lines.join("\n") + "\n").as_bytes(), None)
    }
}

/// Writes a file anew in one step, so that it is whole whenever the machine dies.
pub(super) fn replace(path: &Path, bytes: &[u8], like: Option<&fs::Metadata>) -> io::Result<()> {
    let folder = path.parent().unwrap_or(Path::new("."));
    if like.is_none() {
        fs::create_dir_all(folder)?;
    }
    let mut name = path.file_name().unwrap_or_default().to_owned();
    name.push(".next");
    let next = folder.join(name);
    let mut file = fs::File::create(&next)?;
    if let Some(like) = like {
        use std::os::unix::fs::{MetadataExt, fchown};
        file.set_permissions(like.permissions())?;
        fchown(&file, Some(like.uid()), Some(like.gid()))?;
    }
    file.write_all(bytes)?;
    file.sync_all()?;
    fs::rename(&next, path)?;
    fs::File::open(folder)?.sync_all()
}
