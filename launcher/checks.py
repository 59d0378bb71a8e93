"""`./hextan test`: every check and test, in the order in which they fail fastest."""

from __future__ import annotations

import os
import subprocess
import time

from launcher import debian, environment
from launcher.paths import PYTHON, ROOT, VENV, WEB, LauncherError, application_environment, say

#: Says that chance may take its time (tests/budget.py).
LONG = "--long"


def run(arguments: list[str]) -> int:
    """Install what is missing, then run all checks; closes on pytest's line.

    Parameters
    ----------
    arguments : for pytest, which then runs alone; ``--long`` lets properties be tried far more often
    """
    pytest_arguments = [argument for argument in arguments if argument != LONG]
    if LONG in arguments:
        os.environ["HEXTAN_LONG"] = "1"
    debian.ensure(debian.FOR_PYTHON, debian.FOR_DATABASE, debian.FOR_BROWSER, debian.FOR_DRIVER)
    environment.ensure_python(development=True)
    if not pytest_arguments:
        _check("Formatting (Python)", "ruff", "format", "--check", "-q", ".")
        _check("Linting (Python)", "ruff", "check", "-q", ".")
        _check("Types (Python)", "mypy", "--no-error-summary")
    node = environment.Node()
    node.install()
    if not pytest_arguments:
        _check_lock_file()
        _check("OpenAPI document in step with the code", "python", "-m", "hextan.api.openapi", "--check")
        _check_generated_types(node)
        for title, script in (
            ("Formatting (front end)", "format:check"),
            ("Linting (front end)", "lint"),
            ("Types (front end)", "check"),
            ("Unit tests (front end)", "test"),
        ):
            with _Timed(title):
                node.run(script)
    environment.ensure_web()
    say("Tests (core, reference, API, launcher, browser)")
    return _pytest(pytest_arguments)


def _pytest(arguments: list[str]) -> int:
    workers = [] if arguments else ["-n", str(min(os.cpu_count() or 1, 4)), "--dist", "loadgroup"]
    seed = [] if "HEXTAN_LONG" in os.environ else [f"--hypothesis-seed={_seed_of_the_commit()}"]
    command = [str(PYTHON), "-m", "pytest", "-q", "-rR", *workers, *seed, *arguments]
    return subprocess.run(command, cwd=ROOT, env=application_environment(), check=False).returncode


def _seed_of_the_commit() -> int:
    """The same commit is tested with the same examples everywhere; 0 where nothing says which it is."""
    command = ["git", "rev-parse", "--short=8", "HEAD"]
    try:
        asked = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False)
    except OSError:
        # The sources may lie on a machine that has no git.
        return 0
    return int(asked.stdout.strip() or "0", 16)


class _Timed:
    """Prints a title and how long its block took."""

    def __init__(self, title: str) -> None:
        self.title = title

    def __enter__(self) -> None:
        self.start = time.monotonic()

    def __exit__(self, kind: object, *rest: object) -> None:
        say(f"{'failed' if kind else 'ok':6} {self.title} ({time.monotonic() - self.start:.1f} s)")


def _check(title: str, program: str, *arguments: str) -> None:
    with _Timed(title):
        command = [str(VENV / "bin" / program), *arguments]
        if subprocess.run(command, cwd=ROOT, env=application_environment(), check=False).returncode:
            raise LauncherError(f"{title}: see above.")


def _check_lock_file() -> None:
    """No lock file may name a registry's host."""
    for lock in [WEB / "package-lock.json", *ROOT.glob("requirements*.txt")]:
        text = lock.read_text()
        if '"resolved"' in text or "--index-url" in text or "--find-links" in text:
            raise LauncherError(
                f"{lock.name} names a registry. Write it anew with the settings in web/.npmrc."
            )


def _check_generated_types(node: environment.Node) -> None:
    generated = WEB / "src" / "lib" / "generated" / "api.ts"
    committed = generated.read_text()
    with _Timed("Generated TypeScript types in step with the OpenAPI document"):
        node.run("types")
        if generated.read_text() != committed:
            raise LauncherError("The generated types were out of date and are written anew: commit them.")


def write_types() -> int:
    """Write the OpenAPI document and the TypeScript types anew."""
    environment.ensure_python(development=True)
    command = [str(PYTHON), "-m", "hextan.api.openapi"]
    subprocess.run(command, cwd=ROOT, env=application_environment(), check=True)
    node = environment.Node()
    node.install()
    node.run("types")
    return 0


def lock() -> int:
    """Write the lock files anew."""
    environment.ensure_python(development=True)
    subprocess.run([str(PYTHON), "-m", "pip", "install", "-q", "uv"], check=True)
    common: list[str] = [
        str(VENV / "bin" / "uv"), "pip", "compile", "--universal", "--python-version", "3.11", "--generate-hashes", "-q",
        "--no-emit-index-url", "--no-emit-find-links", "--custom-compile-command", "./hextan lock",
    ]  # fmt: skip
    steps: tuple[tuple[str, str, list[str]], ...] = (
        ("pyproject.toml", "requirements.txt", []),
        (
            "pyproject.toml",
            "requirements-dev.txt",
            ["--extra", "dev", "--extra", "reference", "-c", "requirements.txt"],
        ),
        ("requirements-node.in", "requirements-node.txt", []),
    )
    for source, target, extra in steps:
        subprocess.run([*common, source, *extra, "-o", target], cwd=ROOT, check=True)
    return 0
