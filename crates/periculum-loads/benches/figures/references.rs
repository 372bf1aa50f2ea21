//! The programs that are compared with: built with the C compiler and Cargo when they are first needed; what can't be
//! built here is left out, and said to be.

use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};

use periculum_loads::cores::allowed;

/// The programs.
pub(crate) struct References {
    folder: PathBuf,
    /// The program of general crates, where it could be built.
    crates: Option<PathBuf>,
}

impl References {
    pub(crate) fn build() -> Self {
        let source = Path::new(env!("CARGO_MANIFEST_DIR")).join("benches/references");
        let folder = std::env::temp_dir().join(format!("periculum-references-{}", std::process::id()));
        std::fs::create_dir_all(&folder).expect("a folder for programs");
        for (name, libraries) in [
            ("peak", ""),
            ("solve", "-lopenblas"),
            ("transform", "-lfftw3"),
            ("stream", ""),
            ("chase", ""),
            ("pi", "-lgmp"),
        ] {
            let mut compile = Command::new("cc");
            compile
                .args(["-O3", "-march=native", "-o"])
                .arg(folder.join(name))
                .arg(source.join(name).with_extension("c"));
            compile.args(libraries.split_whitespace()).arg("-lm");
            if !compile.output().is_ok_and(|output| output.status.success()) {
                eprintln!("left out: {name}.c could not be built here");
            }
        }
        let crates = source.join("crates");
        let cargo = Command::new(env!("CARGO")).args(["build", "--release", "--quiet"]).current_dir(&crates).status();
        let program = crates.join("target/release/references");
        let is_built = cargo.is_ok_and(|status| status.success());
        if !is_built {
            eprintln!("left out: the crates to compare with could not be built here");
        }
        Self { folder, crates: is_built.then_some(program) }
    }

    /// What a C program measures with so many threads of its library.
    pub(crate) fn c(&self, name: &str, arguments: &[&str], threads: usize) -> Option<f64> {
        measured(Command::new(self.folder.join(name)).args(arguments), threads)
    }

    /// What a C program measures at the same time on each of the first processors, in sum.
    pub(crate) fn c_on_each(&self, name: &str, arguments: &[&str], processors: usize) -> Option<f64> {
        let start = |processor: usize| {
            let mut pinned = Command::new("taskset");
            pinned.args(["-c", &processor.to_string()]).arg(self.folder.join(name)).args(arguments);
            pinned.stdout(Stdio::piped()).spawn().ok()
        };
        let running: Vec<_> = allowed().into_iter().take(processors).map(start).collect();
        let rate = |child: std::process::Child| number(&child.wait_with_output().ok()?.stdout);
        running.into_iter().map(|child| rate(child?)).sum()
    }

    /// What the program of general crates measures.
    pub(crate) fn crates(&self, arguments: &[&str], threads: usize) -> Option<f64> {
        measured(Command::new(self.crates.as_ref()?).args(arguments), threads)
    }
}

impl Drop for References {
    fn drop(&mut self) {
        // A folder of programs left behind in the place for such things does no harm.
        let _ = std::fs::remove_dir_all(&self.folder);
    }
}

fn measured(command: &mut Command, threads: usize) -> Option<f64> {
    let output = command.env("OPENBLAS_NUM_THREADS", threads.to_string()).output().ok()?;
    number(&output.stdout)
}

fn number(told: &[u8]) -> Option<f64> {
    str::from_utf8(told).ok()?.trim().parse().ok()
}
