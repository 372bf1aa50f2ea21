//! What was there before this program changed it, on disk before the change is made: so that it can be put back by
//! whoever comes next, whatever becomes of this program.

use std::fs;
use std::io::{self, ErrorKind};
use std::path::{Path, PathBuf};

use periculum_core::Decimal;
use periculum_core::model::outlet::Outlet;
use serde::{Deserialize, Serialize};

use super::curves::Table;
use super::kept_line::KeptLine;
use super::targets::{Target, Writing};
use super::whole_file::{below, replace};
use crate::granted::Terms;
use crate::outlet;

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
    /// What a program or an instrument served, which outlive a start of this machine.
    Outlet(Outlet, Decimal),
}

impl Kept {
    /// What was allowed when it was changed.
    pub(super) fn terms(&self) -> &Terms {
        &self.terms
    }

    /// Whether it leads where its terms say: whoever writes into the file of what is kept can't send us elsewhere.
    pub(super) fn is_at_its_place(&self, root: &Path, found: &[Target], tables: &[Table]) -> bool {
        let term = |name: &str| self.terms.iter().find(|(known, _)| known == name).map(|(_, value)| value.as_str());
        match &self.way_back {
            WayBack::Line(line) => {
                let file = term("file").map(|file| below(root, file));
                file.is_some_and(|file| line.is_of(&file, term("key"), term("between key and value")))
            }
            // What is run and sent is what was allowed: all of it stands in the terms.
            WayBack::Outlet(outlet, _) => self.terms.starts_with(&outlet::terms(outlet)),
            WayBack::Writings(writings) => {
                let target = found.iter().find(|target| Some(target.name.as_str()) == term("target"));
                let table = tables.iter().find(|table| Some(table.name.as_str()) == term("target"));
                let leads_there = |writing: &Writing| {
                    target.is_some_and(|target| target.writes_to(&writing.path))
                        || table.is_some_and(|table| table.path == writing.path)
                };
                writings.iter().all(leads_there)
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
        let is_still_there = |kept: &Kept| kept.boot == boot || !matches!(kept.way_back, WayBack::Writings(_));
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
        let unreadable = || io::Error::other("what is there now can't be read, so it could not be put back");
        self.keep_way((target, terms), || Ok(WayBack::Writings(writings().ok_or_else(unreadable)?)))
    }

    /// Keeps the value that a program or an instrument has in force, unless an earlier one is kept.
    pub(super) fn keep_outlet(&mut self, of: (&str, &Terms), outlet: &Outlet) -> io::Result<()> {
        self.keep_way(of, || Ok(WayBack::Outlet(outlet.clone(), outlet::read(outlet).map_err(io::Error::other)?)))
    }

    fn keep_way(
        &mut self,
        (target, terms): (&str, &Terms),
        way_back: impl FnOnce() -> io::Result<WayBack>,
    ) -> io::Result<()> {
        if self.kept.iter().any(|kept| kept.target == target) {
            return Ok(());
        }
        let way_back = way_back()?;
        let (target, terms) = (target.to_owned(), terms.clone());
        self.kept.push(Kept { target, terms, boot: self.boot.clone(), way_back });
        self.save()
    }

    /// The kept line of a file, where there is one.
    pub(super) fn line(&self, target: &str) -> Option<&KeptLine> {
        self.kept.iter().find(|kept| kept.target == target).and_then(|kept| match &kept.way_back {
            WayBack::Line(line) => Some(line),
            WayBack::Writings(_) | WayBack::Outlet(..) => None,
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
                WayBack::Outlet(outlet, value) => outlet::put_back(outlet, *value),
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
