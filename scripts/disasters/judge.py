"""Holds what the record says of a disaster against what happened."""

import json
import sqlite3
import subprocess
from dataclasses import dataclass
from pathlib import Path

LEDGER = ".local/share/periculum/periculum.ledger"
ENDS = ("restart", "freeze", "load-died")
# How well the moment is known, seconds.
ALLOWANCE = 0.2
DAY = 86_400


@dataclass
class Verdict:
    """Whether each thing is as it should be, and why one is not."""

    went_on: bool = False
    whole: bool = False
    kind: bool = False
    lifetime: bool = False
    said: str = ""

    def columns(self):
        return (self.went_on, self.whole, self.kind, self.lifetime)


def judge(program: Path, home: Path, kinds: tuple, struck: float) -> Verdict | None:
    """The verdict on a record of a machine that was struck at about this moment, which should be told as one of these kinds;
    none where no climb was begun by then."""
    if not has_climb(home / LEDGER):
        return None
    verdicts = [judge_at(program, home, kinds, struck + late) for late in (0, ALLOWANCE, -ALLOWANCE)]
    return max(verdicts, key=lambda verdict: sum(verdict.columns()))


def has_climb(ledger: Path) -> bool:
    if not ledger.exists():
        return False
    file = sqlite3.connect(f"file:{ledger}?mode=ro", uri=True)
    return file.execute("SELECT count(*) FROM climbs").fetchone()[0] > 0


def judge_at(program: Path, home: Path, kinds: tuple, struck: float) -> Verdict:
    ledger = home / LEDGER
    checked = subprocess.run([program, "--ledger", ledger, "ledger", "--check"], capture_output=True, text=True)
    file = sqlite3.connect(f"file:{ledger}?mode=ro", uri=True)
    journal = file.execute("SELECT at, wall, body FROM journal ORDER BY line").fetchall()
    # A clock that is behind at the next start goes on from what was heard last: its own time tells what was written there.
    is_after = [at / 1000 > struck or wall / 1000 < struck - DAY for at, wall, _ in journal]
    lines = [(at / 1000, json.loads(body)) for at, _, body in journal]
    ended = file.execute("SELECT how FROM ends").fetchone()
    trials = [number for (number,) in file.execute("SELECT trial FROM trials ORDER BY trial")]
    dropped = file.execute("SELECT count(*) FROM dropped").fetchone()[0]
    told = [kind for (kind,) in file.execute("SELECT kind FROM incidents") if kind in ENDS]

    before = [line for line, after in zip(lines, is_after) if not after]
    entries = [(at, entry) for at, line in before for entry in line.get("entries", [])]
    trial_ran = is_open(entries, "trial-began", "trial-ended")
    pass_ran = is_open(entries, "pass-began", "pass-ended")
    # Who waits for a start, or is about to start the machine itself, and gets one has lost nothing.
    done = [entry["kind"] for _, entry in entries if entry["kind"] != "operator"]
    waits = done[-1:] == ["asked"]
    wanted = [kind for kind in kinds if trial_ran and not waits]

    verdict = Verdict()
    verdict.went_on = ended is not None and is_after[-1]
    verdict.whole = checked.returncode == 0 and dropped == 0 and trials == list(range(1, len(trials) + 1))
    verdict.kind = told in ([[kind] for kind in wanted] or [[]])
    later = [line["event"] for (_, line), after in zip(lines, is_after) if after]
    lived = [event for event in later if event["event"] == "restarted"][:1]
    verdict.lifetime = is_right(lived[0] if lived else None, struck - pass_ran if pass_ran else None)
    verdict.said = f"told {told}, wanted {wanted}; lived {lived and span(lived[0])}, true {pass_ran and struck - pass_ran}; {ended}"
    if checked.returncode:
        verdict.said += f"; {checked.stdout}{checked.stderr}"
    return verdict


def is_open(entries, begins, ends):
    """When what was begun last began, where it had not ended; none where it had."""
    open_since = None
    for at, entry in entries:
        open_since = at if entry["kind"] == begins else None if entry["kind"] == ends else open_since
    return open_since


def span(event):
    return event.get("lived"), event.get("lived_at_most")


def is_right(event, true):
    """Whether the lifetime that is told holds the true one, seconds; nothing is told where no pass ran."""
    if event is None:
        return true is None
    least, most = span(event)
    if true is None or least is None or most is None:
        return true is None and least is None
    return least / 1000 <= true <= most / 1000
