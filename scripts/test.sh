#!/usr/bin/env bash
# Runs every test of the workspace, after what they need was installed where it is missing.
set -euo pipefail
cd "$(dirname "$0")/.."

scripts/install-test-tools.sh

# A failing property is told with its seed on the terminal; no test writes into the checkout.
export PROPTEST_FAILURE_PERSISTENCE=off INSTA_UPDATE=no
# Many tests wait for a terminal, a load or a process of their own, and leave the processors to others meanwhile.
export RUST_TEST_THREADS="${RUST_TEST_THREADS:-$(($(nproc) * 2 + 1))}"
cargo test --workspace --locked
