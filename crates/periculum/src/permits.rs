//! What the user has allowed: a file in the configuration folder with a line for each program of their own, by its digest
//! and name, and for each thing that is written or sent, as `target`, its digest and its name.

use std::fs;
use std::io::{ErrorKind, Write};
use std::os::unix::fs::OpenOptionsExt;
use std::path::{Path, PathBuf};

use anyhow::{Context, Result};
use periculum_core::model::program::Program;
use periculum_core::model::quantity::harmless;
use periculum_rigs::granted::Written;

use crate::complaint::BadInput;
use crate::places;
use crate::telling::{allowing, files};

/// What the line of a target begins with.
const TARGET: &str = "target ";

/// The digest in the line of something that is written.
fn digest_of(line: &str) -> Option<&str> {
    line.strip_prefix(TARGET)?.split_whitespace().next()
}

/// The programs and targets that are allowed.
#[derive(Clone, Debug)]
pub(crate) struct Permits {
    path: PathBuf,
    lines: Vec<String>,
}

impl Permits {
    /// Reads the file; where there is none, nothing is allowed.
    pub(crate) fn read(path: PathBuf) -> Result<Self> {
        let text = match fs::read_to_string(&path) {
            Ok(text) => text,
            Err(error) if error.kind() == ErrorKind::NotFound => String::new(),
            Err(error) => return Err(error).with_context(|| files::cannot_read(path.display())),
        };
        Ok(Self { path, lines: text.lines().map(str::to_owned).collect() })
    }

    /// Whether this very definition is allowed.
    pub(crate) fn allow(&self, program: &Program) -> bool {
        let digest = program.digest();
        self.lines.iter().any(|line| line.split_whitespace().next() == Some(&digest))
    }

    /// Complains about a program that is not allowed.
    pub(crate) fn check(&self, program: &Program) -> Result<(), BadInput> {
        if self.allow(program) {
            return Ok(());
        }
        Err(BadInput(allowing::program_not_allowed(&program.name, &program.digest()[..12])))
    }

    /// Allows a program from now on, or no longer.
    pub(crate) fn set(&mut self, program: &Program, is_allowed: bool) {
        let digest = program.digest();
        self.lines.retain(|line| line.split_whitespace().next() != Some(&digest));
        if is_allowed {
            self.lines.push(format!("{digest} {}", harmless(&program.name)));
        }
    }

    /// Whether this very thing may be written or sent, with everything that decides what it is.
    pub(crate) fn allow_written(&self, digest: &str) -> bool {
        self.lines.iter().any(|line| digest_of(line) == Some(digest))
    }

    /// Complains about what has not been allowed as it is.
    pub(crate) fn check_written(&self, written: &[Written]) -> Result<(), BadInput> {
        let denied: Vec<String> = written
            .iter()
            .filter(|one| !self.allow_written(&one.digest()))
            .map(|one| format!("{} ({})", one.label, one.target))
            .collect();
        if denied.is_empty() {
            return Ok(());
        }
        Err(BadInput(allowing::nobody_allowed(denied.join(", "))))
    }

    /// Allows something to be written from now on, as it is, or no longer.
    pub(crate) fn set_written(&mut self, written: &Written, is_allowed: bool) {
        let digest = written.digest();
        self.lines.retain(|line| digest_of(line) != Some(&digest));
        if is_allowed {
            self.lines.push(format!("{TARGET}{digest} {}", harmless(&written.target)));
        }
    }

    /// Where the file is.
    pub(crate) fn path(&self) -> &Path {
        &self.path
    }

    /// Writes the file anew, in one step.
    pub(crate) fn write(&self) -> Result<()> {
        let tell = || files::cannot_write(self.path.display());
        places::make_folder(self.path.parent().unwrap_or(Path::new("."))).with_context(tell)?;
        let next = self.path.with_extension("next");
        // What was left there by an earlier try is no file of ours.
        let _ = fs::remove_file(&next);
        let mut file = fs::File::options().write(true).create_new(true).mode(0o600).open(&next).with_context(tell)?;
        let text: String = self.lines.iter().map(|line| format!("{line}\n")).collect();
        file.write_all(text.as_bytes()).and_then(|()| file.sync_all()).with_context(tell)?;
        fs::rename(&next, &self.path).with_context(tell)
    }
}
