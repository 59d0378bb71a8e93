"""Whole productions out of Hextan and into it, through the server that runs, or one that is started for the time."""

from __future__ import annotations

import contextlib
import json
import sys
import urllib.error
import urllib.parse
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from launcher.paths import LauncherError
from launcher.running import address

SECONDS = 120


def _asked(at: str, path: str, data: bytes | None = None, media: str = "application/octet-stream") -> bytes:
    request = urllib.request.Request(f"{at}api/{path}", data)
    if data is not None:
        request.add_header("Content-Type", media)
    try:
        with urllib.request.urlopen(request, timeout=SECONDS) as answer:
            return bytes(answer.read())
    except urllib.error.HTTPError as error:
        told = {}
        with contextlib.suppress(ValueError):
            told = json.load(error).get("error", {})
        raise LauncherError("\n".join(_lines(told)) or f"The server refuses: {error}") from None
    except OSError as error:
        raise LauncherError(f"The server does not answer: {error}") from None


def _lines(told: dict[str, Any]) -> Iterator[str]:
    faults = told.get("faults", [])
    if not faults and told.get("message"):
        yield told["message"]
    yield from (f"{fault['field']}: {fault['rule']}" for fault in faults)
    if told.get("more"):
        yield f"And {told['more']} more."


def _found(at: str, name: str) -> dict[str, Any]:
    """A production by its name or its number."""
    rows = json.loads(_asked(at, "productions"))
    found: list[dict[str, Any]] = [
        p for p in rows["here"] + rows["removed"] if name in (p["name"], str(p["id"]))
    ]
    if len(found) != 1:
        names = ", ".join(f"{p['id']} {p['name']}" for p in rows["here"] + rows["removed"])
        told = "There is no production" if not found else "There are several productions"
        raise LauncherError(f"{told} {name}. There are: {names or 'none'}. Name one by its number.")
    return found[0]


def export(name: str, removed: bool, kind: str | None = None, of: str = "bench") -> int:
    """Write a production, named or by its number, to standard output, or its set-ups as a kind of file for other programs."""
    out = sys.stdout.buffer
    with contextlib.redirect_stdout(sys.stderr), address() as at:
        home = f"productions/{_found(at, name)['id']}"
        if kind is not None:
            out.write(_asked(at, f"{home}/handover/{urllib.parse.quote(kind, safe='')}?of={of}"))
            return 0
        query = "?removed=true" if removed else ""
        out.write(_asked(at, f"{home}/file{query}"))
    return 0


def clips(name: str, facts: list[Any], unit: str, day: str) -> int:
    """List clips with a day of a production's log, and say what of the day differed."""
    with contextlib.redirect_stdout(sys.stderr), address() as at:
        home = f"productions/{_found(at, name)['id']}"
        asked = {"facts": facts, "unit": unit, "day": day, "by": "hextan clips"}
        listed = json.loads(_asked(at, f"{home}/log/clips", json.dumps(asked).encode(), "application/json"))
        query = urllib.parse.urlencode({"day": day})
        report = json.loads(_asked(at, f"{home}/set/report?{query}"))
    print(f"{listed['added']} clips are listed, {listed['there']} were there.")
    for clip in report["clips"]["clips"]:
        took = f"{clip['take_told']}, {clip['found_by']}" if clip["take"] else "no take"
        print(
            f"{clip['clock']}  {clip['name']}  {clip['fits'][0] if clip['fits'] else clip['fit_told']}  ({took})"
        )
    for fault in report["faults"]:
        print(f"{'!' if fault['loud'] else ' '} {fault['unit']} {fault['told']}")
    return 0


def take_in(file: str) -> int:
    """Add the production of a file; - for standard input."""
    try:
        data = sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()
    except OSError as error:
        raise LauncherError(f"{file}: {error.strerror}") from None
    with address() as at:
        made = json.loads(_asked(at, "productions/file", data))
    print(f"Production {made['id']} {made['facts']['name']} is added.", file=sys.stderr)
    return 0
