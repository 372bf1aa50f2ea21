//! What the user has allowed: a file in the configuration folder with a line for each program of their own, by its digest
//! and name, and for each target that settings are written to, as `target` and its name.

use std::fs;
use std::io::{ErrorKind, Write};
use std::path::{Path, PathBuf};

use anyhow::{Context, Result};
use periculum_core::program::Program;
use periculum_core::quantity::harmless;
use periculum_rigs::linux::Written;

use crate::complaint::BadInput;

/// What the line of a target begins with.
const TARGET: &str = "target ";

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
            Err(error) => return Err(error).with_context(|| format!("can't read {}", path.display())),
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
        Err(BadInput(format!(
            "the program `{}` has not been allowed to run as it is defined (digest {}…); look at it and allow it with \
             `periculum allow FILE`, where FILE is the plan or proof that defines it",
            program.name,
            &program.digest()[..12]
        )))
    }

    /// Allows a program from now on, or no longer.
    pub(crate) fn set(&mut self, program: &Program, is_allowed: bool) {
        let digest = program.digest();
        self.lines.retain(|line| line.split_whitespace().next() != Some(&digest));
        if is_allowed {
            self.lines.push(format!("{digest} {}", harmless(&program.name)));
        }
    }

    /// Whether settings may be written to this target.
    pub(crate) fn allow_target(&self, target: &str) -> bool {
        self.lines.iter().any(|line| line.strip_prefix(TARGET) == Some(target))
    }

    /// Complains about targets that have not been allowed.
    pub(crate) fn check_targets(&self, written: &[Written]) -> Result<(), BadInput> {
        let denied: Vec<String> = written
            .iter()
            .filter(|one| !self.allow_target(&one.target))
            .map(|one| format!("{} ({})", one.label, one.target))
            .collect();
        if denied.is_empty() {
            return Ok(());
        }
        Err(BadInput(format!(
            "nobody has allowed periculum to set {}; look at what is written and allow it with `periculum allow RIG`, \
             where RIG is the rig file",
            denied.join(", ")
        )))
    }

    /// Allows a target from now on, or no longer.
    pub(crate) fn set_target(&mut self, target: &str, is_allowed: bool) {
        self.lines.retain(|line| line.strip_prefix(TARGET) != Some(target));
        if is_allowed {
            self.lines.push(format!("{TARGET}{}", harmless(target)));
        }
    }

    /// Where the file is.
    pub(crate) fn path(&self) -> &Path {
        &self.path
    }

    /// Writes the file anew, in one step.
    pub(crate) fn write(&self) -> Result<()> {
        let tell = || format!("can't write {}", self.path.display());
        fs::create_dir_all(self.path.parent().unwrap_or(Path::new("."))).with_context(tell)?;
        let next = self.path.with_extension("next");
        let mut file = fs::File::create(&next).with_context(tell)?;
        let text: String = self.lines.iter().map(|line| format!("{line}\n")).collect();
        file.write_all(text.as_bytes()).and_then(|()| file.sync_all()).with_context(tell)?;
        fs::rename(&next, &self.path).with_context(tell)
    }
}
