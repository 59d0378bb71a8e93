"""Where things lie, and how the launcher speaks."""

from __future__ import annotations

import hashlib
import os
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
HOME = Path(os.environ.get("HEXTAN_HOME") or ROOT / ".hextan").resolve()
WEB = ROOT / "web"
DIST = WEB / "dist"
VENV = HOME / "venv"
PYTHON = VENV / "bin" / "python"


class LauncherError(Exception):
    """Something that keeps the launcher from going on; its text says what to do."""


def say(text: str) -> None:
    """Print a line of progress."""
    print(text, flush=True)


def digest(*files: Path, extra: str = "") -> str:
    """Hash the names and contents of files."""
    total = hashlib.sha256(extra.encode())
    for file in files:
        total.update(str(file.relative_to(ROOT)).encode())
        total.update(file.read_bytes())
    return total.hexdigest()


def application_environment() -> dict[str, str]:
    """Environment for the application's own processes."""
    return {
        **os.environ,
        "PYTHONPATH": f"{ROOT / 'src'}:{ROOT}",
        "HEXTAN_WEB_DIST": str(DIST),
        "PYTHONUNBUFFERED": "1",
    }
