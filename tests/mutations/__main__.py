"""Break the core one line at a time and ask the tests of the line's room: ``python -m tests.mutations [part of a file's name]``."""

import os
import shutil
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from tests.mutations import MUTATIONS, Mutation

ROOT = Path(__file__).resolve().parents[2]
CORE = Path("hextan") / "core"
#: A mutation that makes a test run for ever has been noticed as well.
PATIENCE_S = 900


def asked_of(room: str) -> list[str]:
    """The room's own tests, those with values from outside first."""
    folders = (ROOT / "tests" / "reference" / room, ROOT / "tests" / "core" / room)
    return [str(folder) for folder in folders if folder.exists()]


def notices(mutation: Mutation) -> tuple[bool, str]:
    """Whether the tests of its room fail once a line is broken, and which did first."""
    folder = Path(tempfile.mkdtemp(prefix="hextan-mutation-"))
    try:
        shutil.copytree(ROOT / "src", folder / "src", ignore=shutil.ignore_patterns("__pycache__"))
        file = folder / "src" / CORE / mutation.file
        text = file.read_text(encoding="utf-8")
        assert text.count(mutation.old) == 1, (
            f"{mutation.file}: {mutation.old!r} stands {text.count(mutation.old)} times"
        )
        file.write_text(text.replace(mutation.old, mutation.new), encoding="utf-8")
        command = [sys.executable, "-m", "pytest", "-q", "-x", "--no-header", "-o", "pythonpath=", "-p", "no:xdist", str(file), *asked_of(mutation.room)]  # fmt: skip
        environment = {**os.environ, "PYTHONPATH": f"{folder / 'src'}{os.pathsep}{ROOT}", "PYTHONDONTWRITEBYTECODE": "1"}  # fmt: skip
        try:
            run = subprocess.run(command, cwd=ROOT, env=environment, capture_output=True, text=True, timeout=PATIENCE_S, check=False)  # fmt: skip
        except subprocess.TimeoutExpired:
            return True, "a test that does not end"
        first = next((line for line in run.stdout.splitlines() if line.startswith(("FAILED", "ERROR"))), "")
        return run.returncode != 0, first.removeprefix("FAILED ")[:110]
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def main(wanted: list[str]) -> int:
    """Run all, or those of some files; fails when one is not noticed."""
    chosen = [m for m in MUTATIONS if not wanted or any(part in m.file for part in wanted)]
    begun, missed = time.monotonic(), []
    with ThreadPoolExecutor(os.cpu_count() or 1) as several:
        for mutation, (noticed, by) in zip(chosen, several.map(notices, chosen), strict=True):
            print(
                f"{'noticed' if noticed else 'MISSED '} {mutation.file}: {mutation.new.strip()[:70]!r}  {by}",
                flush=True,
            )
            if not noticed:
                missed.append(mutation)
    print(f"{len(chosen) - len(missed)} of {len(chosen)} noticed in {time.monotonic() - begun:.0f} s")
    return 1 if missed else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
