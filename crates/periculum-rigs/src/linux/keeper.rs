//! What was there before this program changed it, on disk before the change is made: so that it can be put back by
//! whoever comes next, whatever becomes of this program.

use std::fs;
use std::io::{self, ErrorKind, Write};
use std::os::unix::fs::{DirBuilderExt, MetadataExt, OpenOptionsExt, fchown};
use std::path::{Path, PathBuf};

use serde::{Deserialize, Serialize};

use super::boot_line::KeptLine;
use super::setter::below;
use super::targets::{Target, Writing};
use crate::granted::Terms;

/// The way back for one target.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, Deserialize)]
pub(super) struct Kept {
    target: String,
    /// What was allowed when it was changed.
    #[serde(default)]
    terms: Terms,
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

impl Kept {
    /// What was allowed when it was changed.
    pub(super) fn terms(&self) -> &Terms {
        &self.terms
    }

    /// Whether it leads where its terms say: whoever writes into the file of what is kept can't send us elsewhere.
    pub(super) fn is_at_its_place(&self, root: &Path, found: &[Target]) -> bool {
        let term = |name: &str| self.terms.iter().find(|(known, _)| known == name).map(|(_, value)| value.as_str());
        match &self.way_back {
            WayBack::Line(line) => {
                let file = term("file").map(|file| below(root, file));
                file.is_some_and(|file| line.is_of(&file, term("key"), term("between key and value")))
            }
            WayBack::Writings(writings) => {
                let target = found.iter().find(|target| Some(target.name.as_str()) == term("target"));
                target.is_some_and(|target| writings.iter().all(|writing| target.writes_to(&writing.path)))
            }
        }
    }
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
    pub(super) fn keep(
        &mut self,
        target: &str,
        terms: &Terms,
        writings: impl FnOnce() -> Option<Vec<Writing>>,
    ) -> io::Result<()> {
        if self.kept.iter().any(|kept| kept.target == target) {
            return Ok(());
        }
        let unreadable = || io::Error::other("what is there now can't be read, so it could not be put back");
        let way_back = WayBack::Writings(writings().ok_or_else(unreadable)?);
        let (target, terms) = (target.to_owned(), terms.clone());
        self.kept.push(Kept { target, terms, boot: self.boot.clone(), way_back });
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
    pub(super) fn keep_line(&mut self, (target, terms): (&str, &Terms), line: KeptLine) -> io::Result<()> {
        let (terms, boot) = (terms.clone(), self.boot.clone());
        let kept = Kept { target: target.to_owned(), terms, boot, way_back: WayBack::Line(line) };
        // Several keys of one file have to be put back in the order in which they came.
        match self.kept.iter_mut().find(|known| known.target == target) {
            Some(known) => *known = kept,
            None => self.kept.push(kept),
        }
        self.save()
    }

    /// Puts everything back, the last change first, or only what takes effect at once; what can't be put back stays
    /// kept and is told.
    pub(super) fn put_back(&mut self, also_lines: bool, may: impl Fn(&Kept) -> bool) -> Vec<String> {
        let mut problems = Vec::new();
        let mut left = Vec::new();
        for kept in std::mem::take(&mut self.kept).into_iter().rev() {
            if also_lines && !may(&kept) {
                let why =
                    "is left as it is: writing there is not allowed, or no longer; `periculum allow RIG` allows it";
                problems.push(format!("{} {why}", kept.target));
                left.push(kept);
                continue;
            }
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
///
/// A symbolic link is followed and stays; a file of several names is written in place, so that all of them stay its names.
pub(super) fn replace(path: &Path, bytes: &[u8], like: Option<&fs::Metadata>) -> io::Result<()> {
    let resolved =
        if like.is_some() { fs::canonicalize(path).unwrap_or_else(|_| path.to_owned()) } else { path.to_owned() };
    let path = resolved.as_path();
    let folder = path.parent().unwrap_or(Path::new("."));
    if like.is_none() {
        fs::DirBuilder::new().recursive(true).mode(0o700).create(folder)?;
    }
    let mut name = path.file_name().unwrap_or_default().to_owned();
    name.push(".next");
    let next = folder.join(name);
    let mut file = created(&next)?;
    if let Some(like) = like {
        file.set_permissions(like.permissions())?;
        fchown(&file, Some(like.uid()), Some(like.gid()))?;
    }
    file.write_all(bytes)?;
    file.sync_all()?;
    if fs::metadata(path).is_ok_and(|metadata| metadata.nlink() > 1) {
        // What is to be there is safe beside it, should the machine die in between.
        let mut file = fs::OpenOptions::new().write(true).truncate(true).open(path)?;
        file.write_all(bytes)?;
        file.sync_all()?;
        return fs::remove_file(&next);
    }
    fs::rename(&next, path)?;
    fs::File::open(folder)?.sync_all()
}

/// Makes a file of the user's own that was not there: what stands in its place is taken away, and no link is followed.
pub(super) fn created(path: &Path) -> io::Result<fs::File> {
    match fs::remove_file(path) {
        Err(error) if error.kind() != ErrorKind::NotFound => return Err(error),
        _ => {}
    }
    fs::OpenOptions::new().write(true).create_new(true).mode(0o600).open(path)
}
