//! Loads with their checks and without, each built in a folder of its own.

use std::path::{Path, PathBuf};
use std::process::Command;

/// How long a pass is.
const SECONDS: &str = if cfg!(feature = "graphics") { "6" } else { "3" };

/// The program that runs a load, twice.
pub(crate) struct Both {
    with: PathBuf,
    without: PathBuf,
}

impl Both {
    pub(crate) fn build() -> Option<Self> {
        Some(Self { with: build("checked", "")?, without: build("unchecked", "--cfg unchecked")? })
    }

    pub(crate) fn with_checks(&self, load: &str) -> Option<f64> {
        rate(&self.with, load)
    }

    pub(crate) fn without(&self, load: &str) -> Option<f64> {
        rate(&self.without, load)
    }
}

fn build(folder: &str, flags: &str) -> Option<PathBuf> {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../target").join(folder);
    let mut cargo = Command::new(env!("CARGO"));
    cargo.args(["build", "--release", "--quiet", "--locked", "-p", "periculum-loads", "--example", "rate"]);
    if cfg!(feature = "graphics") {
        cargo.args(["--features", "graphics"]);
    }
    cargo.env("RUSTFLAGS", flags).arg("--target-dir").arg(&folder).current_dir(env!("CARGO_MANIFEST_DIR"));
    cargo.status().ok()?.success().then(|| folder.join("release/examples/rate"))
}

fn rate(program: &Path, load: &str) -> Option<f64> {
    let told = Command::new(program).args([load, SECONDS]).output().ok()?;
    str::from_utf8(&told.stdout).ok()?.trim().parse().ok()
}
