//! Loads with their checks and without, each built in a folder of its own.

use std::path::{Path, PathBuf};
use std::process::{Child, Command, Stdio};

/// How long a pass is.
const SECONDS: &str = if cfg!(feature = "graphics") { "6" } else { "5" };

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

    /// Both rates while the two share one processor, which the system takes from one and gives to the other every few milliseconds: so
    /// whatever the host does meets both alike. The other one begins first in every second turn.
    pub(crate) fn side_by_side(&self, load: &str, turn: usize) -> Option<(f64, f64)> {
        let start = |program: &Path| begin(program, load);
        let (with, without) = if turn.is_multiple_of(2) {
            let with = start(&self.with)?;
            (with, start(&self.without)?)
        } else {
            let without = start(&self.without)?;
            (start(&self.with)?, without)
        };
        Some((told(with)?, told(without)?))
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
    told(begin(program, load)?)
}

fn begin(program: &Path, load: &str) -> Option<Child> {
    Command::new(program).args([load, SECONDS]).stdout(Stdio::piped()).spawn().ok()
}

fn told(running: Child) -> Option<f64> {
    str::from_utf8(&running.wait_with_output().ok()?.stdout).ok()?.trim().parse().ok()
}
