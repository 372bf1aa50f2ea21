#!/usr/bin/env bash
# Runs every test of the workspace. Installs tmux, which the interface's tests type into, where it is missing.
set -euo pipefail
cd "$(dirname "$0")/.."

if ! command -v tmux >/dev/null; then
    as_root=; [ "$(id -u)" = 0 ] || as_root=sudo
    $as_root apt-get update -qq
    $as_root apt-get install -y -qq tmux
fi

# A failing property is told with its seed on the terminal; no test writes into the checkout.
export PROPTEST_FAILURE_PERSISTENCE=off INSTA_UPDATE=no
cargo test --workspace --locked
