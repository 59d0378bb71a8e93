"""Break the sources one place at a time and ask the tests: ``python -m tests.mutations [--random N --seed S] [part of a file's name]``.

Without more the listed lines of the core, each asked of its own room; with ``--random`` places that a program chooses, in every room.
"""

import argparse
import os
import shutil
import subprocess
import sys
import tempfile
import time
from collections import Counter
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from functools import partial
from pathlib import Path

from tests.mutations import MUTATIONS, Mutation
from tests.mutations.chosen import Change, chosen

ROOT = Path(__file__).resolve().parents[2]
SOURCES = ROOT / "src" / "hextan"
#: A mutation that makes a test run for ever has been noticed as well.
PATIENCE_S = 900
#: Of the changes that a program chooses, so large a part may go unnoticed.
MOST_SURVIVORS = 0.1


def asked_of(room: str) -> list[str]:
    """The tests of a room, those with values from outside first."""
    name = room.removeprefix("core/")
    folders = (ROOT / "tests" / "reference" / name, ROOT / "tests" / room)
    return [str(folder) for folder in folders if folder.exists()]


def notices(file: str, room: str, broken: Callable[[str], str]) -> tuple[bool, str]:
    """Whether the tests of a room fail once a file is broken, and which did first."""
    folder = Path(tempfile.mkdtemp(prefix="hextan-mutation-"))
    try:
        shutil.copytree(ROOT / "src", folder / "src", ignore=shutil.ignore_patterns("__pycache__"))
        there = folder / "src" / "hextan" / file
        there.write_text(broken(there.read_text(encoding="utf-8")), encoding="utf-8")
        doctests = [str(there)] if file.startswith("core/") else []
        command = [sys.executable, "-m", "pytest", "-q", "-x", "--no-header", "-o", "pythonpath=", "-p", "no:xdist", *doctests, *asked_of(room)]  # fmt: skip
        environment = {**os.environ, "PYTHONPATH": f"{folder / 'src'}{os.pathsep}{ROOT}", "PYTHONDONTWRITEBYTECODE": "1"}  # fmt: skip
        try:
            run = subprocess.run(command, cwd=ROOT, env=environment, capture_output=True, text=True, timeout=PATIENCE_S, check=False)  # fmt: skip
        except subprocess.TimeoutExpired:
            return True, "a test that does not end"
        first = next((line for line in run.stdout.splitlines() if line.startswith(("FAILED", "ERROR"))), "")
        return run.returncode != 0, first.removeprefix("FAILED ")[:110]
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def of_line(mutation: Mutation) -> tuple[bool, str]:
    """Ask about a listed line."""

    def broken(text: str) -> str:
        assert text.count(mutation.old) == 1, (
            f"{mutation.file}: {mutation.old!r} stands {text.count(mutation.old)} times"
        )
        return text.replace(mutation.old, mutation.new)

    return notices(f"core/{mutation.file}", f"core/{mutation.room}", broken)


def of_change(change: Change) -> tuple[bool, str]:
    """Ask about a chosen change."""
    return notices(change.file, change.room, change.applied)


def main(arguments: list[str]) -> int:
    """Run them; fails when a listed one, or more than a tenth of the chosen ones, is not noticed."""
    parser = argparse.ArgumentParser(prog="./hextan mutate", description=__doc__)
    parser.add_argument("--random", type=int, default=0, metavar="N", help="so many that a program chooses")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("files", nargs="*", help="only in files whose names have this in them")
    options = parser.parse_args(arguments)
    begun = time.monotonic()
    jobs: list[tuple[str, str, Callable[[], tuple[bool, str]]]]
    if options.random:
        jobs = [
            (
                c.room,
                f"{c.file}: {c.kind}: {c.old.strip()[:60]!r} -> {c.new.strip()[:60]!r}",
                partial(of_change, c),
            )
            for c in chosen(SOURCES, options.random, options.seed, options.files)
        ]
    else:
        listed = [m for m in MUTATIONS if not options.files or any(part in m.file for part in options.files)]
        jobs = [(m.room, f"{m.file}: {m.new.strip()[:70]!r}", partial(of_line, m)) for m in listed]
    missed: Counter[str] = Counter()
    with ThreadPoolExecutor(os.cpu_count() or 1) as several:
        for (room, told, _), (noticed, by) in zip(jobs, several.map(lambda job: job[2](), jobs), strict=True):
            print(f"{'noticed' if noticed else 'MISSED '} {told}  {by}", flush=True)
            if not noticed:
                missed[room] += 1
    survivors = missed.total()
    print(
        f"{len(jobs) - survivors} of {len(jobs)} noticed in {time.monotonic() - begun:.0f} s; missed by room: {dict(missed)}"
    )
    return 1 if survivors > (MOST_SURVIVORS * len(jobs) if options.random else 0) else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
