#!/usr/bin/env bash
# Builds the machine that is to die: a kernel and its first file system, from Debian's packages and the program.
set -euo pipefail

program=$(realpath "$1")
mkdir -p "$2"
work=$(realpath "$2")
here=$(realpath "$(dirname "$0")")
modules="virtio_pci virtio_blk ext4 crc32c_generic i6300esb i2c-dev i2c-stub lm75 lm63"

kernel_package=$(apt-cache depends linux-image-amd64 | sed -n 's/ *Depends: *\(linux-image-[^ ]*\).*/\1/p' | head -1)
version=${kernel_package#linux-image-}

if [ ! -e "$work/packages/boot/vmlinuz-$version" ]; then
    mkdir -p "$work/packages"
    (cd "$work/packages" && apt-get download "$kernel_package" busybox-static)
    for package in "$work"/packages/*.deb; do dpkg-deb --extract "$package" "$work/packages"; done
fi
busybox=$work/packages/bin/busybox
cp "$work/packages/boot/vmlinuz-$version" "$work/kernel"

rm -rf "$work/root"
mkdir -p "$work"/root/{bin,dev,etc,modules,proc,run,state,sys,tmp}
cp "$busybox" "$work/root/bin/busybox"
cp "$here/init" "$work/root/init"
cp "$here/strikes" "$here/machine.rig.toml" "$here/up.plan.toml" "$work/root/etc/"
sed -n 's/^ExecStart=%h\/.cargo\/bin\///p' "$here/../../services/periculum-resume.service" >"$work/root/etc/service"

# A program and the libraries that it is linked with.
add() {
    strip -o "$work/root/bin/$(basename "$1")" "$1"
    ldd "$1" | grep -o '/[^ ]*' | while read -r library; do
        mkdir -p "$work/root/$(dirname "$library")"
        cp --dereference --update "$library" "$work/root/$library"
    done
}
add "$program"
add "$(command -v chrt)"

# The modules and those that they need, each after what it needs.
(cd "$work/packages" && "$busybox" depmod -b "$work/packages" "$version")
needed_by() {
    local line
    line=$(grep -m1 "/$1.ko:" "$work/packages/lib/modules/$version/modules.dep")
    echo "${line#*:}" | tr ' ' '\n' | sed '/^$/d' | "$busybox" tac
    echo "${line%%:*}"
}
for module in $modules; do needed_by "$module"; done | awk '!seen[$0]++' | while read -r file; do
    cp "$work/packages/lib/modules/$version/$file" "$work/root/modules/"
    basename "$file" >>"$work/root/modules/order"
done

(cd "$work/root" && find . | "$busybox" cpio -o -H newc 2>/dev/null | gzip -1) >"$work/first-files"
