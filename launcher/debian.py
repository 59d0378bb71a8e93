"""Debian packages: which are missing, and how they come onto the machine."""

from __future__ import annotations

import ctypes.util
import importlib.util
import os
import shutil
import subprocess
from collections.abc import Callable
from pathlib import Path

from launcher.paths import LauncherError, say

CREATECLUSTER = Path("/etc/postgresql-common/createcluster.conf")


def postgres_programs() -> Path | None:
    """Folder of PostgreSQL's programs, the newest that is installed."""
    found = sorted(
        (p.parent for p in Path("/usr/lib/postgresql").glob("*/bin/initdb")), key=lambda p: int(p.parent.name)
    )
    if found:
        return found[-1]
    on_path = shutil.which("initdb")
    return Path(on_path).resolve().parent if on_path else None


def chromium_program() -> str | None:
    """Path of Debian's Chromium."""
    return shutil.which("chromium")


def _has_venv() -> bool:
    return importlib.util.find_spec("ensurepip") is not None


#: What is needed, how to see that it is there, and the Debian package that brings it.
FOR_PYTHON: tuple[Callable[[], object], str] = (_has_venv, "python3-venv")
FOR_DATABASE: tuple[Callable[[], object], str] = (postgres_programs, "postgresql")
FOR_BROWSER: tuple[Callable[[], object], str] = (chromium_program, "chromium")
#: Playwright's driver is linked against it, and a bare system has none.
FOR_DRIVER: tuple[Callable[[], object], str] = (lambda: ctypes.util.find_library("atomic"), "libatomic1")


def ensure(*needs: tuple[Callable[[], object], str]) -> None:
    """Install the packages that are missing; as an ordinary user, say what to run as root.

    Raises
    ------
    LauncherError
        When something is missing and cannot be installed.
    """
    missing = [package for present, package in needs if not present()]
    if not missing:
        return
    command = f"apt-get install -y --no-install-recommends {' '.join(missing)}"
    if shutil.which("apt-get") is None:
        raise LauncherError(
            f"Missing: {', '.join(missing)}. Install them with your system's package manager."
        )
    if os.geteuid() != 0:
        raise LauncherError(
            f"Missing: {', '.join(missing)}. Run this as root, then start again:\n\n    {command}\n"
        )
    say(f"Installing Debian packages: {', '.join(missing)} (about a minute)")
    if "postgresql" in missing:
        # Otherwise the package would make and start a cluster of its own on port 5432.
        CREATECLUSTER.parent.mkdir(parents=True, exist_ok=True)
        if not CREATECLUSTER.exists():
            CREATECLUSTER.write_text("create_main_cluster = false\n")
    environment = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
    for step in (["apt-get", "update", "-qq"], command.split()):
        done = subprocess.run(step, env=environment, capture_output=True, text=True, check=False)
        if done.returncode:
            raise LauncherError(f"{' '.join(step)} failed:\n{(done.stderr or done.stdout)[-2000:]}")
    still = [package for present, package in needs if not present()]
    if still:
        raise LauncherError(f"Installed, but still not found: {', '.join(still)}.")
