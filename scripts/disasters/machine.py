"""A machine in software: a disk that outlives it, a watchdog, a thermometer, and a firmware that keeps last words."""

import math
import os
import queue
import socket
import subprocess
import threading
import time
from pathlib import Path

DISK_MIB = 64
WAYS_OF_ITS_OWN = ("panic", "frozen", "killed", "spin")
FATAL_CHECK = "mce 0 1 0xb200000000000000 0x5 0 0"


class Machine:
    """One machine, its files in a folder of its own."""

    def __init__(self, built: Path, folder: Path):
        self.built, self.folder = built, folder
        folder.mkdir(parents=True)
        for name, size in (("disk", DISK_MIB), ("record", DISK_MIB), ("firmware", 1)):
            with open(folder / name, "wb") as file:
                file.truncate(size << 20)
        make = ["mke2fs", "-q", "-t", "ext4", str(folder / "disk")]
        subprocess.run(make, check=True, env={"PATH": os.environ["PATH"] + ":/sbin:/usr/sbin"})
        self.process = None
        self.ahead = 0.0
        self.struck = queue.Queue()

    def switch_on(self, clock: str = "utc"):
        """Starts it; its clock begins at a date, or is right."""
        for name in ("monitor", "orders"):
            (self.folder / name).unlink(missing_ok=True)
        command = (
            "qemu-system-x86_64 -M q35 -cpu qemu64 -accel tcg -smp 1 -m 384 -display none -nodefaults -no-user-config"
            f" -kernel {self.built}/kernel -initrd {self.built}/first-files"
            f" -rtc base={clock} -action watchdog=reset -device i6300esb"
            f" -drive file={self.folder}/disk,format=raw,if=none,id=disk -device virtio-blk-pci,drive=disk"
            f" -drive file={self.folder}/record,format=raw,if=none,id=record -device virtio-blk-pci,drive=record"
            f" -object memory-backend-file,id=firmware,mem-path={self.folder}/firmware,size=1M,share=on"
            " -device acpi-erst,memdev=firmware"
            f" -chardev file,id=console,path={self.folder}/console,append=on -serial chardev:console"
            f" -chardev socket,id=orders,path={self.folder}/orders,server=on,wait=off -serial chardev:orders"
            f" -monitor unix:{self.folder}/monitor,server=on,wait=off"
        ).split()
        self.process = subprocess.Popen([*command, "-append", "console=ttyS0 panic=1 quiet"], stdin=subprocess.DEVNULL)
        self.orders = self._connect("orders")
        self.monitor = self._connect("monitor")
        threading.Thread(target=self._listen, args=(self.orders.makefile("rb"),), daemon=True).start()

    def _listen(self, said):
        for line in said:
            word, *numbers = line.decode(errors="replace").split() or [""]
            if word == "started":
                self.ahead = math.inf
            elif word == "clock":
                seconds, micros, then, now = map(float, numbers)
                self.ahead = min(self.ahead, time.time() - (seconds + micros / 1e6 + now - then))
            elif word == "struck":
                self.struck.put(self.clock())

    def clock(self) -> float:
        """What the machine's clock shows."""
        return time.time() - self.ahead

    def _connect(self, name: str) -> socket.socket:
        end = socket.socket(socket.AF_UNIX)
        for _ in range(100):
            try:
                end.connect(str(self.folder / name))
                return end
            except OSError:
                time.sleep(0.05)
        raise RuntimeError(f"the machine's {name} do not answer")

    def strike(self, way: str) -> float | None:
        """Does it harm, and tells when by its clock; not where it had switched itself off before."""
        if self.process.poll() is not None:
            return None
        if way == "reset":
            self.monitor.sendall(b"system_reset\n")
        elif way == "machine check":
            self.monitor.sendall(FATAL_CHECK.encode() + b"\n")
        elif way == "power cut":
            self.process.kill()
            self.process.wait()
        elif way in WAYS_OF_ITS_OWN:
            return self._ordered(way)
        return self.clock()

    def _ordered(self, way: str) -> float | None:
        """When it has done what it was ordered to; while it starts it hears nothing, so that it is told again."""
        while self.process.poll() is None:
            try:
                self.orders.sendall(way.encode() + b"\n")
                return self.struck.get(timeout=1)
            except (queue.Empty, OSError):
                continue
        return None

    def has_switched_itself_off(self, within: float) -> bool:
        """Waits until it has."""
        try:
            return self.process.wait(within) == 0
        except subprocess.TimeoutExpired:
            self.process.kill()
            self.process.wait()
            return False

    def record(self) -> Path:
        """The folder of its user, as the machine left it."""
        home = self.folder / "home"
        home.mkdir()
        subprocess.run(["tar", "xmf", self.folder / "record", "-C", home], check=True)
        return home
