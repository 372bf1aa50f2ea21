//! The files that a wish comes to, reviewed before anything is written.

use std::fs;
use std::path::{Path, PathBuf};

use anyhow::{Context, Result};
use periculum_core::analysis::forecast::{Forecast, forecast};
use periculum_core::files::rig_text;
use periculum_core::files::written::with_starts;
use periculum_core::model::kind::Kind;
use periculum_core::model::ladder::Direction;
use periculum_core::model::task::Task;
use periculum_rigs::granted::Written;
use periculum_rigs::linux::written_by;

use super::known::{KnownRig, Origin};
use super::plans::{Intent, Work, plan_text};
use super::wish::Wish;
use crate::briefing::{Briefing, SourceFile, real_loads};
use crate::climbing::patiently;
use crate::permits::Permits;
use crate::places;
use crate::telling::{files, starting};

/// A rig file and a plan file that are not written yet.
#[derive(Clone, Debug)]
pub(crate) struct Proposal {
    pub(crate) plan: PathBuf,
    /// The rig's file; none where it is there already.
    rig: Option<(PathBuf, String)>,
    text: String,
}

/// Everything that somebody has to know before they begin.
pub(crate) struct Review {
    pub(crate) briefing: Briefing,
    /// What earlier climbs say of rigs of its kind.
    pub(crate) kinds: Vec<Kind>,
    pub(crate) forecast: Forecast,
    /// What is written to this machine or sent.
    pub(crate) written: Vec<Written>,
    /// The files that are written when it begins.
    pub(crate) files: Vec<PathBuf>,
}

impl Review {
    /// Of a climb whose files are there.
    ///
    /// # Errors
    /// Where the kernel does not answer.
    pub(crate) fn of(briefing: Briefing, root: &Path, kinds: Vec<Kind>) -> Result<Self> {
        let forecast = forecast(&briefing.rig, &briefing.plan, &kinds);
        let (root, of) = (root.to_owned(), briefing.rig.clone());
        let is_real = briefing.adapters.is_here() && !briefing.rig.settings.is_empty();
        let written = if is_real { patiently(move || written_by(&root, &of))? } else { Vec::new() };
        Ok(Self { briefing, kinds, forecast, written, files: Vec::new() })
    }
}

impl Proposal {
    /// The files for what is wanted of a rig, in this folder.
    pub(crate) fn of(known: &KnownRig, intent: &Intent, folder: &Path) -> Self {
        let stem = plain(&known.rig.name);
        let (rig_file, rig) = match (&known.origin, as_it_is(known, intent.wish)) {
            (Origin::File(path), None) => (path.clone(), None),
            (_, as_it_is) => {
                let stem = if as_it_is.is_some() { format!("{stem}-as-it-is") } else { stem.clone() };
                let text = as_it_is.unwrap_or_else(|| known.text.clone());
                let path = free(folder, &stem, "rig.toml", &text);
                (path.clone(), Some((path, text)))
            }
        };
        let named = rig_file.file_name().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default();
        let loads = known.adapters.loads().unwrap_or_else(real_loads);
        let tests: Vec<(String, Task)> =
            known.adapters.tests().into_iter().map(|(name, task)| (name.to_owned(), task)).collect();
        let harder = intent.setting.as_ref().and_then(|name| known.rig.setting(name)).map(|setting| setting.harder);
        let work = Work {
            loads: if tests.is_empty() { &loads } else { &[] },
            tests: if tests.is_empty() { Work::of_anything() } else { tests },
            harder: harder.unwrap_or(Direction::Up),
        };
        let text = plan_text(intent, starting::name_of(intent.wish), &named, &work);
        let text = with_starts(&text, &known.profiles);
        let plan = free(folder, &format!("{stem}-{}", plain(starting::name_of(intent.wish))), "plan.toml", &text);
        Self { plan, rig, text }
    }

    /// What it would do, and to what.
    ///
    /// # Errors
    /// Where the plan can't be climbed, or the kernel does not answer.
    pub(crate) fn review(&self, known: &KnownRig, root: &Path) -> Result<Review> {
        Ok(Review {
            files: self.files().into_iter().map(Path::to_owned).collect(),
            ..Review::of(self.briefing(known)?, root, Vec::new())?
        })
    }

    /// Its rig and its plan, read as if they were written.
    pub(super) fn briefing(&self, known: &KnownRig) -> Result<Briefing> {
        let rig = match (&self.rig, &known.origin) {
            (Some((path, text)), _) => SourceFile { path: path.clone(), text: text.clone() },
            (None, Origin::File(path)) => SourceFile { path: path.clone(), text: known.text.clone() },
            (None, _) => SourceFile { path: PathBuf::new(), text: known.text.clone() },
        };
        Briefing::of(rig, SourceFile { path: self.plan.clone(), text: self.text.clone() })
    }

    /// The files that are written when it begins.
    pub(super) fn files(&self) -> Vec<&Path> {
        let plan = (!self.plan.exists()).then_some(self.plan.as_path());
        let rig = self.rig.iter().map(|(path, _)| path.as_path()).filter(|path| !path.exists());
        rig.chain(plan).collect()
    }

    /// Writes the files, and lets the settings be written that somebody has just looked at.
    ///
    /// # Errors
    /// Where a file can't be written.
    pub(crate) fn write(&self, written: &[Written]) -> Result<()> {
        let plan = Some((&self.plan, &self.text));
        let rig = self.rig.as_ref().map(|(path, text)| (path, text));
        for (path, text) in rig.into_iter().chain(plan).filter(|(path, _)| !path.exists()) {
            fs::write(path, text).with_context(|| files::cannot_write(path.display()))?;
        }
        if written.is_empty() {
            return Ok(());
        }
        let mut permits = Permits::read(places::permits()?)?;
        written.iter().for_each(|one| permits.set_written(one, true));
        permits.write()
    }
}

/// The rig without its settings, where a real one is to be left as it is; none where it is the rig itself that is wanted.
fn as_it_is(known: &KnownRig, wish: Wish) -> Option<String> {
    let leaves_it = !wish.moves() && known.adapters.is_here() && !known.rig.settings.is_empty();
    leaves_it.then(|| rig_text::as_it_is(&known.rig))
}

/// A name as a file may have it.
fn plain(name: &str) -> String {
    let sign = |sign: char| if sign.is_alphanumeric() || sign == '-' || sign == '_' { sign } else { '-' };
    let name: String = name.to_lowercase().chars().map(sign).collect();
    if name.trim_matches('-').is_empty() { "rig".to_owned() } else { name.trim_matches('-').to_owned() }
}

/// The first name that no other text has: one whose file is this very text is used again.
fn free(folder: &Path, stem: &str, ending: &str, text: &str) -> PathBuf {
    let numbered = std::iter::once(String::new()).chain((2u32..).map(|number| format!("-{number}")));
    let paths = numbered.map(|number| folder.join(format!("{stem}{number}.{ending}")));
    let is_usable = |path: &PathBuf| !path.exists() || fs::read_to_string(path).is_ok_and(|there| there == text);
    paths.into_iter().find(is_usable).unwrap_or_else(|| folder.join(format!("{stem}.{ending}")))
}
