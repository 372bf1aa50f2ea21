//! Which programs of their own the user has allowed: a file of digests in the configuration folder, one a line, each
//! followed by the program's name.

use std::fs;
use std::io::{ErrorKind, Write};
use std::path::{Path, PathBuf};

use anyhow::{Context, Result};
use periculum_core::program::Program;
use periculum_core::quantity::harmless;

use crate::complaint::BadInput;

/// The programs that are allowed.
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
