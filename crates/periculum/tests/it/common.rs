//! A home of its own for each test, so that no test sees another's ledger or the user's.

#![allow(dead_code, reason = "each test file uses its own part")]

use std::path::{Path, PathBuf};
use std::process::Command;

use assert_cmd::cargo::cargo_bin;
use serde_json::Value;

/// A temporary home with nothing in it.
pub(crate) struct Home {
    folder: tempfile::TempDir,
}

impl Home {
    pub(crate) fn new() -> Self {
        let folder = tempfile::tempdir().expect("a folder");
        // A name of its own for the machine, so that tests need not wait for each other.
        std::os::unix::fs::symlink("/", folder.path().join("machine")).expect("linked");
        Self { folder }
    }

    pub(crate) fn path(&self, name: &str) -> PathBuf {
        self.folder.path().join(name)
    }

    pub(crate) fn ledger(&self) -> PathBuf {
        self.path("data/periculum/periculum.ledger")
    }

    /// The `periculum` command in this home.
    pub(crate) fn periculum(&self) -> Command {
        let mut command = Command::new(cargo_bin("periculum"));
        command
            .env("HOME", self.folder.path())
            .env("XDG_DATA_HOME", self.path("data"))
            .env("XDG_STATE_HOME", self.path("state"))
            .env("XDG_CONFIG_HOME", self.path("config"))
            .env("TZ", "UTC")
            .env_remove("PERICULUM_LOG")
            .current_dir(self.folder.path())
            .arg("--sysroot")
            .arg(self.path("machine"));
        command
    }

    pub(crate) fn write(&self, name: &str, text: &str) -> PathBuf {
        let path = self.path(name);
        std::fs::write(&path, text).expect("written");
        path
    }
}

/// A file of the demo folder.
pub(crate) fn demo(name: &str) -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo").join(name)
}

/// The text that a command prints, which must succeed.
pub(crate) fn output(command: &mut Command) -> String {
    let output = command.output().expect("started");
    assert!(output.status.success(), "{command:?}\n{}", String::from_utf8_lossy(&output.stderr));
    String::from_utf8(output.stdout).expect("text")
}

/// The JSON lines that a text consists of.
pub(crate) fn json_lines(text: &str) -> Vec<Value> {
    text.lines().map(|line| serde_json::from_str(line).expect(line)).collect()
}

/// The lines of a kind.
pub(crate) fn of_kind<'a>(lines: &'a [Value], kind: &str) -> Vec<&'a Value> {
    lines.iter().filter(|line| line["kind"] == kind).collect()
}

/// The demo's plan with a proof that real loads pass in moments, for the by-hand rig.
pub(crate) fn short_by_hand(home: &Home) -> PathBuf {
    std::fs::copy(demo("by-hand.rig.toml"), home.path("by-hand.rig.toml")).expect("copied");
    let plan = std::fs::read_to_string(demo("by-hand.plan.toml")).expect("read");
    // Rounds so small that also a machine that has other things to do finishes some.
    home.write("by-hand.plan.toml", &plan.replace("for = \"20s\"", "size = 100, for = \"3s\""))
}
