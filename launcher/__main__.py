"""The commands of `./hextan`."""

from __future__ import annotations

import argparse
import contextlib
import json
import os
import subprocess
import sys
from collections.abc import Callable

from launcher import checks, debian, environment, running, transfer
from launcher.paths import PYTHON, ROOT, LauncherError, application_environment, say

HELP = {
    "demo": "install what is missing, build, start with the demo production, print the address",
    "serve": "the same without demo data",
    "stop": "stop what runs",
    "test": "install what is missing and run every check and test",
    "evaluate": "answer a request of the public evaluation format: FILE, or - for standard input",
    "plan": "judge the shots of a production's file: FILE, or - for standard input",
    "sheets": "print the sheets of a production's file as PDF: FILE PDF",
    "ask": "answer a question in one line, like: 50 s35",
    "export": "write a whole production, by name or number, or its set-ups for other programs, to standard output",
    "import": "add a production from its file, or from - for standard input",
    "camera": "simulate cameras that speak, for trying out the Set: A='Ebb 64':45501 ...",
    "clips": "read the heads of clips and stills in a FOLDER, and hold them against a production's plan",
    "bench": "measure speed, as ratios",
    "soak": "mixed work with kills and a busy neighbour against an instance of its own: tells what was lost, ended wrongly, or grew",
    "mutate": "break the sources one place at a time: the tests have to notice",
    "types": "write what the front end is made from anew: the OpenAPI document, the types and the choices",
    "lock": "write the lock files anew from pyproject.toml",
}


def serve(demo: bool) -> int:
    """Run Hextan until it is stopped."""
    found = running.running()
    if found is not None:
        where = (
            f"at {found['address']} (process {found['process']})"
            if "address" in found
            else "and is just starting"
        )
        say(f"Hextan already runs {where}. Stop it with ./hextan stop.")
        return 0
    needs = [debian.FOR_PYTHON] + ([] if os.environ.get("HEXTAN_DATABASE_URL") else [debian.FOR_DATABASE])
    debian.ensure(*needs)
    environment.ensure_python(development=False)
    environment.ensure_web()
    with running.only_one() as mine:
        if mine is None:
            say("Another ./hextan is just starting.")
            return 0
        return running.Service(demo).run()


def python(*arguments: str) -> int:
    """Run a program of ours in the virtual environment."""
    debian.ensure(debian.FOR_PYTHON)
    return subprocess.run(
        [PYTHON, *arguments], cwd=ROOT, env=application_environment(), check=False
    ).returncode


def answer(command: str, file: str, *more: str) -> int:
    """Answer one file; nothing but the answer goes to standard output."""
    debian.ensure(debian.FOR_PYTHON)
    if not PYTHON.exists():
        environment.ensure_python(development=False)
    where = file if file == "-" else os.path.abspath(file)
    return python("-m", "hextan.cli", command, where, *more)


def of_plan(options: argparse.Namespace) -> list[str]:
    """What is asked of a plan besides its shots."""
    if options.kit is not None:
        return ["--kit", options.kit] if options.kit else ["--kit"]
    return ["--packages", options.packages] if options.packages else []


def of_sheets(options: argparse.Namespace) -> list[str]:
    """Which sheets are printed."""
    return ["--bundle", options.bundle] if options.bundle else []


def ready() -> None:
    """What a server needs that is started for the time."""
    debian.ensure(
        debian.FOR_PYTHON, *([] if os.environ.get("HEXTAN_DATABASE_URL") else [debian.FOR_DATABASE])
    )
    if not PYTHON.exists():
        environment.ensure_python(development=False)


def export(options: argparse.Namespace) -> int:
    """Write a production, or its set-ups; nothing but the file goes to standard output."""
    with contextlib.redirect_stdout(sys.stderr):
        ready()
    return transfer.export(options.name, options.removed, options.kind, options.of)


def take_in(file: str) -> int:
    """Add a production."""
    ready()
    return transfer.take_in(file)


def ask(words: list[str]) -> int:
    """Answer a question; nothing but the answer goes to standard output."""
    debian.ensure(debian.FOR_PYTHON)
    if not PYTHON.exists():
        environment.ensure_python(development=False)
    return python("-m", "hextan.cli", "ask", *words)


def camera(arguments: list[str]) -> int:
    """Simulate cameras until ended."""
    debian.ensure(debian.FOR_PYTHON)
    if not PYTHON.exists():
        environment.ensure_python(development=False)
    return python("-m", "hextan.standins.camera", *arguments)


def clips(options: argparse.Namespace) -> int:
    """Read heads; with a production they are listed with its day and held against the plan."""
    if options.production is None:
        return answer("clips", options.folder)
    with contextlib.redirect_stdout(sys.stderr):
        ready()
    command = [PYTHON, "-m", "hextan.cli", "clips", os.path.abspath(options.folder), "--json"]
    done = subprocess.run(
        command, cwd=ROOT, env=application_environment(), check=False, stdout=subprocess.PIPE
    )
    facts = json.loads(done.stdout or b"[]")
    if not facts:
        return done.returncode or 2
    return transfer.clips(options.production, facts, options.unit, options.day) or done.returncode


def bench() -> int:
    """Measure."""
    debian.ensure(debian.FOR_PYTHON, debian.FOR_DATABASE, debian.FOR_BROWSER, debian.FOR_DRIVER)
    environment.ensure_python(development=True)
    environment.ensure_web()
    return python("-m", "bench")


def soak(arguments: list[str]) -> int:
    """Work an instance of its own hard."""
    debian.ensure(debian.FOR_PYTHON, debian.FOR_DATABASE)
    if not PYTHON.exists():
        environment.ensure_python(development=False)
    environment.ensure_web()
    return python("-m", "soak", *arguments)


def mutate(arguments: list[str]) -> int:
    """Break the sources and ask the tests."""
    environment.ensure_python(development=True)
    return python("-m", "tests.mutations", *arguments)


def main() -> int:
    """Parse the command line and run the command."""
    parser = argparse.ArgumentParser(prog="./hextan", description="Plans lenses against scan modes.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    parsers = {name: commands.add_parser(name, help=text, description=text) for name, text in HELP.items()}
    parsers["evaluate"].add_argument("file")
    parsers["plan"].add_argument("file")
    which = parsers["plan"].add_mutually_exclusive_group()
    which.add_argument(
        "--kit", nargs="?", const="", metavar="NAME", help="and its smallest kit, or the kit of a name"
    )
    which.add_argument("--packages", metavar="A,B", help="and two packages for the same shots")
    parsers["sheets"].add_argument("file")
    parsers["sheets"].add_argument("pdf")
    parsers["sheets"].add_argument("--bundle", metavar="NAME", help="this bundle alone")
    parsers["test"].add_argument(
        "pytest", nargs=argparse.REMAINDER, help="run pytest alone, with these arguments"
    )
    parsers["mutate"].add_argument(
        "arguments", nargs=argparse.REMAINDER, metavar="[--random N --seed S] [part of a file's name]"
    )
    parsers["ask"].add_argument("words", nargs="+")
    parsers["export"].add_argument("name")
    parsers["export"].add_argument("--removed", action="store_true", help="with what was taken out of it")
    parsers["export"].add_argument(
        "--as", dest="kind", metavar="KIND", help="its set-ups for another program: usd, opentrackio, fdl"
    )
    parsers["export"].add_argument(
        "--of", choices=("bench", "comparisons", "shots"), default="bench", help="which set-ups"
    )
    parsers["import"].add_argument("file")
    parsers["clips"].add_argument("folder")
    parsers["clips"].add_argument(
        "--production", metavar="NAME", help="by name or number: list them with its log"
    )
    parsers["clips"].add_argument("--unit", default="", metavar="LETTER", help="the camera that shot them")
    parsers["clips"].add_argument("--day", default="1", help="the day of the list of shots")
    parsers["camera"].add_argument("arguments", nargs=argparse.REMAINDER, metavar="LETTER=BODY[:PORT]")
    parsers["soak"].add_argument("arguments", nargs=argparse.REMAINDER, metavar="--seconds 120 --seed 1")
    # What follows these is theirs, dashes and all.
    options, more = parser.parse_known_args()
    if more and options.command not in ("camera", "soak", "mutate"):
        parser.error(f"unrecognized arguments: {' '.join(more)}")
    actions: dict[str, Callable[[], int]] = {
        "demo": lambda: serve(demo=True),
        "serve": lambda: serve(demo=False),
        "stop": running.stop,
        "test": lambda: checks.run(options.pytest),
        "evaluate": lambda: answer("evaluate", options.file),
        "plan": lambda: answer("plan", options.file, *of_plan(options)),
        "sheets": lambda: answer("sheets", options.file, os.path.abspath(options.pdf), *of_sheets(options)),
        "ask": lambda: ask(options.words),
        "export": lambda: export(options),
        "import": lambda: take_in(options.file),
        "clips": lambda: clips(options),
        "camera": lambda: camera([*more, *options.arguments]),
        "bench": bench,
        "soak": lambda: soak([*more, *options.arguments]),
        "mutate": lambda: mutate([*more, *options.arguments]),
        "types": checks.write_types,
        "lock": checks.lock,
    }
    try:
        return actions[options.command]()
    except LauncherError as error:
        print(f"hextan: {error}", file=sys.stderr)
        return 1
    except KeyboardInterrupt:
        return 130


if __name__ == "__main__":
    sys.exit(main())
