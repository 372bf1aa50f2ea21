#!/usr/bin/env bash
# Lets Miri, an interpreter that knows undefined behaviour when it meets it, run the portable kernels on small problems.
# Needs a nightly toolchain with its component: rustup component add --toolchain nightly miri rust-src
set -euo pipefail
cd "$(dirname "$0")/.."

# The clock and files are the machine's own; a property is tried once, since each step takes a thousand times as long.
export MIRIFLAGS="-Zmiri-disable-isolation" PROPTEST_CASES=1 PROPTEST_FAILURE_PERSISTENCE=off
cargo +nightly miri test --locked -p periculum-loads --lib --target-dir target/miri -- \
    buffer::tests::an_empty lanes:: dense::exchange dense::system::tests::a_known digest::tests::any \
    coding:: transform::residue digits::natural ram::address "$@"
