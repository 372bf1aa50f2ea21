#!/usr/bin/env bash
# Installs what the tests hold the interface and the exported files against, where it is missing: a terminal that can be
# typed into, an XML parser, PDF tools, an OpenMetrics parser,
# a graphics processor in software, an X server whose outputs are made up, and a bus for notifications.
set -euo pipefail

has_all() {
    command -v tmux && command -v dbus-daemon && command -v Xorg && command -v xmllint && command -v pdftotext &&
        compgen -G '/usr/share/vulkan/icd.d/*.json' && ldconfig -p | grep -q libvulkan.so.1 &&
        compgen -G '/usr/lib/xorg/modules/drivers/dummy_drv.so' &&
        /usr/bin/python3 -c 'import prometheus_client.openmetrics.parser'
} >/dev/null 2>&1

if ! has_all; then
    as_root=; [ "$(id -u)" = 0 ] || as_root=sudo
    $as_root apt-get update -qq
    $as_root apt-get install -y -qq tmux dbus-daemon libxml2-utils poppler-utils mesa-vulkan-drivers libvulkan1 \
        xserver-xorg-core xserver-xorg-video-dummy python3 python3-prometheus-client
fi
