#!/usr/bin/env bash
# Makes what is installed: a tarball, a Debian package, a tarball of a static binary, and the symbols apart, in target/package. The
# same checkout, toolchain and libraries give the same bytes, wherever they are.
#   scripts/package.sh [BINARY]    # of this binary, where it was built already, and nothing static
set -euo pipefail
cd "$(dirname "$0")/.."

version=$(sed -n 's/^version = "\(.*\)"$/\1/p' Cargo.toml | head -1)
architecture=$(uname -m)
out=${PERICULUM_PACKAGES:-target/package}
SOURCE_DATE_EPOCH=${SOURCE_DATE_EPOCH:-$(git log -1 --format=%ct 2>/dev/null || stat -c %Y Cargo.lock)}
export SOURCE_DATE_EPOCH TZ=UTC LC_ALL=C
# A smaller number packs faster, and larger.
export DPKG_DEB_COMPRESSOR_LEVEL=${DPKG_DEB_COMPRESSOR_LEVEL:-9}
umask 022

built=${CARGO_TARGET_DIR:-target}

# Builds with these flags of the compiler besides, and what else Cargo is to be told.
build() {
    local flags=$1 cargo_home=${CARGO_HOME:-$HOME/.cargo}
    shift
    # Where it was built is in no byte of it.
    export RUSTFLAGS="--remap-path-prefix=$PWD=. --remap-path-prefix=$cargo_home=cargo $flags"
    export CFLAGS="-ffile-prefix-map=$PWD=. -ffile-prefix-map=$cargo_home=cargo" CARGO_INCREMENTAL=0
    # Who builds for themselves needs no lines of the source in the binary; of what is handed on they are kept apart.
    export CARGO_PROFILE_RELEASE_DEBUG=line-tables-only
    cargo build --release --locked --package periculum "$@" >&2
}

build_usual() {
    build ""
    echo "$built/release/periculum"
}

# For machines with another C library or none, such as what is booted from in need. It can load no driver of a graphics processor, since
# these are libraries for the machine's own C library.
build_static() {
    local host
    host=$(rustc -vV | sed -n 's/^host: //p')
    build "-C target-feature=+crt-static" --no-default-features --target "$host"
    echo "$built/$host/release/periculum"
}

# Takes the symbols out of a binary and keeps them under this name.
strip_apart() {
    binary=$(realpath "$2")
    stripped=$work/periculum
    objcopy --only-keep-debug "$binary" "$work/periculum.debug"
    objcopy --strip-all --add-gnu-debuglink="$work/periculum.debug" "$binary" "$stripped"
    gzip -n"$DPKG_DEB_COMPRESSOR_LEVEL" <"$work/periculum.debug" >"$out/$1.debug.gz"
}

# What both packages have, below the folder that everything is installed in.
lay_out() {
    local root=$1 prefix=$2
    install -D -m 755 "$stripped" "$root$prefix/bin/periculum"
    install -d "$root$prefix/share/man/man1"
    "$binary" man --output "$root$prefix/share/man/man1" >/dev/null
    chmod 644 "$root$prefix"/share/man/man1/*.1
    gzip -9n "$root$prefix"/share/man/man1/*.1
    local completions=$root$prefix/share
    install -d "$completions/bash-completion/completions" "$completions/zsh/site-functions" "$completions/fish/vendor_completions.d"
    "$binary" completions bash >"$completions/bash-completion/completions/periculum"
    "$binary" completions zsh >"$completions/zsh/site-functions/_periculum"
    "$binary" completions fish >"$completions/fish/vendor_completions.d/periculum.fish"
    install -d "$root$prefix/lib/systemd/user" "$root$prefix/share/doc/periculum/demo" "$root$prefix/share/doc/periculum/docs"
    local service
    for service in services/*.service; do
        sed "s|%h/.cargo/bin/periculum|$3/bin/periculum|" "$service" >"$root$prefix/lib/systemd/user/${service##*/}"
    done
    install -m 644 README.md CHANGELOG.md LICENSE-MIT LICENSE-APACHE "$root$prefix/share/doc/periculum"
    install -m 644 docs/*.md "$root$prefix/share/doc/periculum/docs"
    install -m 644 demo/*.toml "$root$prefix/share/doc/periculum/demo"
}

tarball() {
    local name=$1
    lay_out "$work/$name" "" /usr/local
    install -D -m 755 packaging/grant "$work/$name/lib/periculum/grant"
    install -D -m 644 packaging/70-periculum.rules "$work/$name/lib/udev/rules.d/70-periculum.rules"
    tar --create --sort=name --mtime="@$SOURCE_DATE_EPOCH" --owner=0 --group=0 --numeric-owner \
        --directory "$work" "$name" | gzip -n"$DPKG_DEB_COMPRESSOR_LEVEL" >"$out/$name.tar.gz"
}

debian() {
    local root=$work/debian
    lay_out "$root" /usr /usr
    install -D -m 755 packaging/grant "$root/usr/lib/periculum/grant"
    install -D -m 644 packaging/70-periculum.rules "$root/usr/lib/udev/rules.d/70-periculum.rules"
    mkdir -p "$root/usr/share/zsh/vendor-completions"
    mv "$root/usr/share/zsh/site-functions/_periculum" "$root/usr/share/zsh/vendor-completions"
    rmdir "$root/usr/share/zsh/site-functions"
    install -m 644 packaging/copyright "$root/usr/share/doc/periculum"
    # The oldest C library that has all it asks for.
    local libc
    libc=$(objdump -T "$stripped" | grep -o 'GLIBC_[0-9.]*' | sort -Vu | tail -1)
    install -d "$root/DEBIAN"
    install -m 755 packaging/postinst packaging/postrm "$root/DEBIAN"
    cat >"$root/DEBIAN/control" <<CONTROL
Package: periculum
Version: $version
Architecture: $(dpkg --print-architecture)
Maintainer: the authors of Periculum <periculum@localhost>
Installed-Size: $(du -sk --apparent-size "$root/usr" | cut -f1)
Depends: libc6 (>= ${libc#GLIBC_}), libgcc-s1, passwd
Recommends: libvulkan1
Section: utils
Priority: optional
Description: find the limit of one specimen of hardware
 A full-screen terminal application for people who push hardware past its ratings: it raises a setting step by step, loads
 the machine with work whose right answer is known, and records the highest setting that this specimen holds, with
 everything that went wrong on the way.
CONTROL
    find "$root" -exec touch --no-dereference --date="@$SOURCE_DATE_EPOCH" {} +
    dpkg-deb --root-owner-group --build "$root" "$out" >/dev/null
}

work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
mkdir -p "$out"
name=periculum-$version-$architecture-linux
strip_apart "$name" "${1:-$(build_usual)}"
tarball "$name"
debian
if (($# == 0)); then
    strip_apart "$name-static" "$(build_static)"
    tarball "$name-static"
fi
(cd "$out" && sha256sum periculum-* periculum_* | tee SHA256SUMS)
