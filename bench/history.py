"""What was measured before on this machine: what became slower since is told, and a line is added for the next time."""

from __future__ import annotations

import json
import subprocess
import time
from statistics import median
from typing import TypedDict

import numpy as np

from bench.result import Result
from launcher.paths import ROOT

FILE = ROOT / ".hextan" / "bench-history.jsonl"
#: Slower by more than this share of what it was is told.
SLOWER = 0.10
#: Figures in these units grow with the machine's own slowness; ratios and bytes do not.
OF_THE_MACHINE = frozenset({"s", "ms", "%"})


class Run(TypedDict):
    """One run of all measurements."""

    commit: str
    at: str
    #: What a fixed piece of work took, milliseconds: a machine that is twice as slow takes twice as long.
    yardstick_ms: float
    figures: dict[str, float]


def yardstick_ms() -> float:
    """Time a fixed piece of work, plain Python and NumPy, such as the server does; milliseconds, the median of several."""
    numbers = np.linspace(0.1, 1.0, 400)
    taken = []
    for _ in range(15):
        began = time.perf_counter()
        for i in range(400):
            np.hypot(numbers, i).sum()
        json.dumps([{"at": i, "as": str(i)} for i in range(4000)])
        taken.append(1000 * (time.perf_counter() - began))
    return median(taken)


def slower(results: list[Result], now_ms: float, before: Run) -> list[str]:
    """Sentences for what became slower by more than a tenth, with the machine's own slowness taken out of times."""
    told = []
    for result in results:
        was = before["figures"].get(result.name)
        if not was:
            continue
        machine = now_ms / before["yardstick_ms"] if result.unit in OF_THE_MACHINE else 1.0
        grown = result.value / (was * machine) - 1
        if grown > SLOWER:
            told.append(
                f"slower by {100 * grown:.0f} % since {before['commit']}: {result.name} ({was:.2f} to {result.shown})"
            )
    return told


def last() -> Run | None:
    """The run before this one; None where there is none."""
    try:
        lines = FILE.read_text(encoding="utf-8").splitlines()
    except OSError:
        return None
    return json.loads(lines[-1]) if lines else None


def add(results: list[Result], now_ms: float) -> None:
    """Note a run."""
    command = ["git", "rev-parse", "--short=8", "HEAD"]
    commit = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False).stdout.strip()
    run: Run = {
        "commit": commit or "unknown",
        "at": time.strftime("%Y-%m-%dT%H:%M:%SZ", time.gmtime()),
        "yardstick_ms": round(now_ms, 3),
        "figures": {result.name: result.value for result in results},
    }
    FILE.parent.mkdir(exist_ok=True)
    with FILE.open("a", encoding="utf-8") as file:
        file.write(json.dumps(run) + "\n")
