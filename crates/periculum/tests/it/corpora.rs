//! The corpora of the fuzzers, as an ordinary test: hostile bytes that were kept, each through what it is let into.

use std::fs;
use std::path::Path;

#[path = "../../../../fuzz/targets.rs"]
mod targets;

/// What hostile bytes are let into.
type Target = fn(&[u8]);

#[test]
fn no_hostile_input_that_was_kept_does_harm() {
    let all: [(&str, Target); 6] = [
        ("files", targets::files),
        ("outline", targets::outline),
        ("journal", targets::journal),
        ("instruments", targets::instruments),
        ("messages", targets::messages),
        ("kernel", targets::kernel),
    ];
    for (name, target) in all {
        let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../fuzz/corpus").join(name);
        let inputs: Vec<_> = fs::read_dir(folder).expect("a corpus").flatten().collect();
        assert!(!inputs.is_empty(), "{name}");
        for input in inputs {
            target(&fs::read(input.path()).expect("read"));
        }
    }
}

/// Files that ask for more than any rig has are refused, each with what is too much.
#[test]
fn files_without_measure_are_refused_at_once() {
    let corpus = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../fuzz/corpus/files");
    for (file, why) in [
        ("endless-ladder", "can't be on a ladder"),
        ("long-formula", "a formula has at most"),
        ("many-settings", "a rig has at most 500"),
    ] {
        let home = crate::common::Home::new();
        let run = home.periculum().arg("check").arg(corpus.join(file)).output().expect("started");
        let told = String::from_utf8_lossy(&run.stderr).into_owned();
        assert!(run.status.code() == Some(2) && told.contains(why), "{file}: {}", &told[..told.len().min(500)]);
    }
}
