"""Where things lie, and how the launcher speaks."""

from __future__ import annotations

import contextlib
import hashlib
import os
import shutil
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
HOME = Path(os.environ.get("HEXTAN_HOME") or ROOT / ".hextan").resolve()
WEB = ROOT / "web"
DIST = WEB / "dist"
VENV = HOME / "venv"
PYTHON = VENV / "bin" / "python"


#: A log longer than this is put aside.
MOST_LOG_BYTES = 5_000_000


class LauncherError(Exception):
    """Something that keeps the launcher from going on; its text says what to do."""


def say(text: str) -> None:
    """Print a line of progress."""
    print(text, flush=True)


def trim_log(log: Path) -> None:
    """Keep a log within bounds: what is too long becomes the one before, in place of an older one.

    The file itself stays, because its writer has it open to append to.
    """
    with contextlib.suppress(OSError):
        if log.stat().st_size > MOST_LOG_BYTES:
            shutil.copyfile(log, log.with_name(f"{log.name}.1"))
            os.truncate(log, 0)


def digest(*files: Path, extra: str = "") -> str:
    """Hash the names and contents of files."""
    total = hashlib.sha256(extra.encode())
    for file in files:
        total.update(str(file.relative_to(ROOT)).encode())
        total.update(file.read_bytes())
    return total.hexdigest()


def application_environment() -> dict[str, str]:
    """Environment for the application's own processes.

    Every one of them, and every child that reads a foreign file, would compile the sources anew where compiled ones are not wanted
    beside them: then they lie with what is installed.
    """
    given = dict(os.environ)
    if given.pop("PYTHONDONTWRITEBYTECODE", ""):
        given.setdefault("PYTHONPYCACHEPREFIX", str(HOME / "compiled"))
    return {
        **given,
        "PYTHONPATH": f"{ROOT / 'src'}:{ROOT}",
        "HEXTAN_WEB_DIST": str(DIST),
        "PYTHONUNBUFFERED": "1",
    }
