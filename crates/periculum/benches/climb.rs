//! How long whole commands take: `cargo bench -p periculum`.

use std::process::{Command, Stdio};

fn main() {
    divan::main();
}

/// The demo's climb from its beginning to its end, without the interface, its ledger on disk included.
#[divan::bench(sample_count = 20)]
fn headless_climb(bencher: divan::Bencher) {
    let home = tempfile::tempdir().expect("a folder");
    let plan = concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/dome.plan.toml");
    bencher.bench_local(|| {
        let status = Command::new(env!("CARGO_BIN_EXE_periculum"))
            .args(["climb", plan, "--headless"])
            .env("XDG_DATA_HOME", home.path())
            .env("XDG_STATE_HOME", home.path())
            .stdout(Stdio::null())
            .status();
        assert!(status.expect("started").success());
    });
}
