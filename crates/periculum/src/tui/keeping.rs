//! What people looked for and picked, kept from one time that they look at a ledger to the next.

use std::collections::BTreeMap;
use std::fs;
use std::path::{Path, PathBuf, absolute};

use anyhow::Result;
use serde::{Deserialize, Serialize};

use crate::places;

/// What is kept for one ledger.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub(super) struct Kept {
    /// What the listed trials and climbs have, and how they are sorted.
    pub(super) looked_for: String,
    /// The climbs and trials that were picked, in order.
    pub(super) picked: Vec<(i64, Option<u32>)>,
}

/// What is kept, by ledger.
type Shelves = BTreeMap<PathBuf, Kept>;

impl Kept {
    /// What was kept for this ledger; nothing where that can't be read, since nobody misses much then.
    pub(super) fn of(ledger: &Path) -> Self {
        places::looked_at().and_then(|file| Self::read(&file, ledger)).unwrap_or_default()
    }

    /// Keeps it; where that can't be done, the log says why.
    pub(super) fn keep(&self, ledger: &Path) {
        if let Err(why) = places::looked_at().and_then(|file| self.write(&file, ledger)) {
            tracing::warn!("what was looked for and picked could not be kept: {why:#}");
        }
    }

    fn read(file: &Path, ledger: &Path) -> Result<Self> {
        Ok(shelves(file).remove(&absolute(ledger)?).unwrap_or_default())
    }

    /// Writes it among what is kept for other ledgers that are still there; whoever reads meanwhile finds one or the other.
    fn write(&self, file: &Path, ledger: &Path) -> Result<()> {
        let mut all = shelves(file);
        all.retain(|ledger, _| ledger.exists());
        all.insert(absolute(ledger)?, self.clone());
        let beside = file.with_extension(format!("{}", std::process::id()));
        if let Some(folder) = file.parent() {
            places::make_folder(folder)?;
        }
        fs::write(&beside, serde_json::to_vec_pretty(&all)?)?;
        Ok(fs::rename(beside, file)?)
    }
}

fn shelves(file: &Path) -> Shelves {
    fs::read(file).ok().and_then(|bytes| serde_json::from_slice(&bytes).ok()).unwrap_or_default()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_ledger_has_its_own_as_long_as_it_is_there() {
        let folder = tempfile::tempdir().expect("a folder");
        let [file, one, other] =
            ["state/looked-at.json", "one.ledger", "other.ledger"].map(|name| folder.path().join(name));
        [&one, &other].iter().for_each(|ledger| fs::write(ledger, "").expect("a ledger"));
        let kept = Kept { looked_for: "fell by score".into(), picked: vec![(3, None), (2, Some(15))] };
        kept.write(&file, &one).expect("written");
        Kept::default().write(&file, &other).expect("written");
        assert_eq!(Kept::read(&file, &one).expect("read"), kept);
        assert_eq!(Kept::read(&file, &other).expect("read"), Kept::default());
        fs::remove_file(&one).expect("gone");
        kept.write(&file, &other).expect("written");
        assert_eq!(Kept::read(&file, &one).expect("read"), Kept::default());
        assert_eq!(fs::read_dir(folder.path().join("state")).expect("a folder").count(), 1, "nothing lies about");
    }

    #[test]
    fn what_can_t_be_read_is_nothing() {
        let folder = tempfile::tempdir().expect("a folder");
        let file = folder.path().join("looked-at.json");
        assert_eq!(Kept::read(&file, Path::new("a.ledger")).expect("read"), Kept::default());
        for text in ["", "{", "[1]", "{\"/a\": 3}"] {
            fs::write(&file, text).expect("written");
            assert_eq!(Kept::read(&file, Path::new("/a")).expect("read"), Kept::default());
        }
    }
}
