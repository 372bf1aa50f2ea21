#!/usr/bin/env bash
# Shows that nothing is lost where a machine really dies: lets a small machine in software climb with nobody there, ends it
# N times (40 unless said otherwise) in random ways, and tells whether each climb went on by itself, with a whole record, the
# right kind of end and the right lifetime.
#
# It needs QEMU, mke2fs, chrt, Python and the lists of Debian's packages, and no rights beyond a user's.
set -euo pipefail
cd "$(dirname "$0")/.."

times=${1:-40}
for tool in qemu-system-x86_64 mke2fs chrt python3 apt-get dpkg-deb ldd strip; do
    PATH=$PATH:/sbin:/usr/sbin command -v "$tool" >/dev/null || { echo "disasters: $tool is missing; install it first" >&2; exit 2; }
done

cargo build --release --locked --bin periculum
built=${CARGO_TARGET_DIR:-target}
scripts/disasters/build.sh "$built/release/periculum" "$built/disasters"
python3 scripts/disasters/strike.py "$built/release/periculum" "$built/disasters" "$times"
