"""Ends a machine that climbs in many ways, and prints what became of each climb."""

import os
import random
import shutil
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from judge import Verdict, judge
from machine import Machine

# Each way to end it, and what it may be told as. A program that was killed is started again by the service; where no
# service started it, nobody feeds the watchdog any more, and that restarts the machine.
WAYS = {
    "reset": ("restart",),
    "power cut": ("restart",),
    "panic": ("restart",),
    "machine check": ("restart",),
    "frozen": ("freeze",),
    "spin": ("freeze",),
    "killed": ("freeze", "load-died"),
}
EARLIEST, LATEST = 8, 45
PATIENCE = 420
CLOCKS = ("utc", "2019-03-01T05:00:00", "2031-03-01T05:00:00")


def disaster(number: int, program: Path, built: Path, seed: int):
    """Ends one machine once; tells the way, the moment, and the verdict."""
    luck = random.Random(seed)
    way = list(WAYS)[number % len(WAYS)]
    verdict = None
    # Before a climb has begun, and after its end, there is nothing to lose.
    while verdict is None:
        moment = luck.uniform(EARLIEST, LATEST)
        folder = built / "machines" / str(number)
        shutil.rmtree(folder, ignore_errors=True)
        machine = Machine(built, folder)
        machine.switch_on()
        time.sleep(moment)
        struck = machine.strike(way)
        if struck is None:
            continue
        if way == "power cut":
            time.sleep(luck.uniform(0, 5))
            machine.switch_on(luck.choice(CLOCKS))
        verdict = Verdict(said="it did not end")
        if machine.has_switched_itself_off(PATIENCE):
            verdict = judge(program, machine.record(), WAYS[way], struck)
    if all(verdict.columns()):
        shutil.rmtree(machine.folder)
    return way, moment, verdict


def main(program: Path, built: Path, times: int):
    seed = random.randrange(1 << 32)
    shutil.rmtree(built / "machines", ignore_errors=True)
    print(f"seed {seed}\n{'':>3}  {'way':14}{'after':>7}  went on  whole  kind  lifetime", flush=True)
    at_once = os.cpu_count() or 1
    right = [0, 0, 0, 0]
    with ThreadPoolExecutor(at_once) as pool:
        for number, (way, moment, verdict) in enumerate(
            pool.map(lambda number: disaster(number, program, built, seed + number), range(times))
        ):
            columns = verdict.columns()
            right = [sum(pair) for pair in zip(right, columns)]
            signs = ["yes" if good else "NO" for good in columns]
            print(f"{number + 1:>3}  {way:14}{moment:>6.0f}s  {signs[0]:7}  {signs[1]:5}  {signs[2]:4}  {signs[3]}", flush=True)
            if not all(columns):
                print(f"     {verdict.said}", flush=True)
    went_on, whole, kind, lifetime = (f"{count}/{times}" for count in right)
    print(f"     {'of all':14}{'':>7}  {went_on:7}  {whole:5}  {kind:4}  {lifetime}")
    return 0 if right == [times] * 4 else 1


if __name__ == "__main__":
    sys.exit(main(Path(sys.argv[1]).resolve(), Path(sys.argv[2]).resolve(), int(sys.argv[3])))
