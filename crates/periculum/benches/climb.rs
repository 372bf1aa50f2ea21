//! How long whole commands take: `cargo bench -p periculum`.

use std::process::{Command, Stdio};

fn main() {
    divan::main();
}

/// Plans that need nobody: the demo's climb, several groups of cores, a graphics card, and a night of eight hours.
const PLANS: [&str; 4] = ["dome", "vault", "lens", "night"];

/// A climb from its beginning to its end, without the interface, its ledger on disk included.
#[divan::bench(sample_count = 20, sample_size = 1, args = PLANS)]
fn headless_climb(bencher: divan::Bencher, plan: &str) {
    let home = tempfile::tempdir().expect("a folder");
    let plan = format!(concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/{}.plan.toml"), plan);
    bencher.bench_local(|| {
        let status = Command::new(env!("CARGO_BIN_EXE_periculum"))
            .args(["climb", &plan, "--headless", "--pace", "max"])
            .env("XDG_DATA_HOME", home.path())
            .env("XDG_STATE_HOME", home.path())
            .stdout(Stdio::null())
            .status();
        assert!(status.expect("started").success());
    });
}
