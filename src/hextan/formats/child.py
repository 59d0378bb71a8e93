"""The process in which foreign files are read: it limits itself, reads standard input, and prints rows as JSON."""

from __future__ import annotations

import io
import json
import resource
import sys
import zipfile
from collections.abc import Callable
from datetime import date, datetime, time
from typing import Any

from hextan.formats.csv_rows import MOST_CELLS, TooLargeError, bounded, csv_rows

#: Rows of one table, and all that a file may be unpacked, in bytes; `csv_rows` has the limits of rows and cells.
MOST_ROWS, MOST_BYTES = 5_000, 100_000_000
#: Memory of the child, bytes; its time on the processor, seconds.
MEMORY, SECONDS = 1 << 30, 10


#: Where a clip carries what a shot needs, what is answered, and in which column foreign metadata is kept.
OWN, ANSWERED, FOREIGN = "hextan", "hextan_answers", "OpenTimelineIO"
#: Where an edit list keeps what stands beside an event, how a comment begins that names the shot, and the column of it.
EVENT, EVENT_KEY, KEY = "cmx_3600", "HEXTAN", "Hextan key"


class FileError(Exception):
    """What is wrong with the file, in words for whoever sent it."""


def limit() -> None:
    """Limit memory, time, files and output of this process, for good."""
    for what, most in ((resource.RLIMIT_AS, MEMORY), (resource.RLIMIT_CPU, SECONDS), (resource.RLIMIT_FSIZE, 0),
                       (resource.RLIMIT_NOFILE, 64), (resource.RLIMIT_CORE, 0)):  # fmt: skip
        resource.setrlimit(what, (most, most))


def _unpacked(data: bytes) -> None:
    """Refuse an archive that would fill the memory; its table of contents is looked at before anything is unpacked."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            size = sum(info.file_size for info in archive.infolist())
    except zipfile.BadZipFile:
        raise FileError("is not a spreadsheet: it cannot be unpacked") from None
    if size > MOST_BYTES:
        raise FileError(f"unpacks to {size / 1e6:.0f} MB, and {MOST_BYTES / 1e6:.0f} MB may be read")


def xlsx(data: bytes) -> list[list[str]]:
    """Read the first sheet."""
    from openpyxl import load_workbook  # noqa: PLC0415  # each kind of file loads its own library

    book = load_workbook(io.BytesIO(data), read_only=True, data_only=True)
    sheet = book.worksheets[0]
    return _bounded([_text(value) for value in row] for row in sheet.iter_rows(values_only=True))


def ods(data: bytes) -> list[list[str]]:
    """Read the first table."""
    from odf.namespaces import TABLENS  # noqa: PLC0415
    from odf.opendocument import load  # noqa: PLC0415
    from odf.table import Table, TableRow  # noqa: PLC0415

    tables = load(io.BytesIO(data)).getElementsByType(Table)
    if not tables:
        raise FileError("has no table")

    def rows() -> Any:
        for row in tables[0].getElementsByType(TableRow):
            cells: list[str] = []
            for cell in row.childNodes:
                if getattr(cell, "qname", None) not in (
                    (TABLENS, "table-cell"),
                    (TABLENS, "covered-table-cell"),
                ):
                    continue
                times = int(cell.getAttribute("numbercolumnsrepeated") or 1)
                text = _of_ods(cell)
                # Whole empty screens are written as one cell that is repeated.
                cells += [text] * min(times, MOST_CELLS + 1 - len(cells))
            while cells and cells[-1] == "":
                cells.pop()
            repeated = int(row.getAttribute("numberrowsrepeated") or 1)
            yield from [cells] * (min(repeated, MOST_ROWS + 1) if any(cells) else 1)

    return _bounded(rows())


def _of_ods(cell: Any) -> str:
    from odf import teletype  # noqa: PLC0415
    from odf.text import P  # noqa: PLC0415

    if cell.getAttribute("valuetype") == "float":
        return _text(float(cell.getAttribute("value")))
    return "\n".join(teletype.extractText(part) for part in cell.getElementsByType(P))


def _text(value: object) -> str:
    """A cell as text: whole numbers without a point, days as ISO has them."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return str(int(value)) if value.is_integer() and abs(value) < 1e15 else repr(value)
    if isinstance(value, datetime):
        return value.date().isoformat() if value.time() == time() else value.isoformat(" ")
    if isinstance(value, date | time):
        return value.isoformat()
    return str(value)


def _bounded(rows: Any) -> list[list[str]]:
    found = list(bounded(rows, MOST_ROWS))
    while found and not found[-1]:
        found.pop()
    return found


def otio(data: bytes) -> list[list[str]]:
    """Read the clips of a timeline; what is not Hextan's of their metadata is kept as JSON."""
    # The library ends the process over deep text, so that it is looked at first.
    try:
        plain = json.loads(data)
    except (ValueError, RecursionError):
        raise FileError("is no JSON") from None
    if not isinstance(plain, dict) or not str(plain.get("OTIO_SCHEMA", "")).startswith("Timeline"):
        raise FileError("is no timeline of OpenTimelineIO")
    import opentimelineio  # noqa: PLC0415

    return _clips(opentimelineio.adapters.read_from_string(data.decode(), "otio_json"))


def edl(data: bytes, fps: str = "25") -> list[list[str]]:
    """Read the events of an edit list, which does not say its rate."""
    import opentimelineio  # noqa: PLC0415

    timeline = opentimelineio.adapters.read_from_string(
        data.decode("utf-8-sig", "replace"), "cmx_3600", rate=float(fps)
    )
    return _clips(timeline)


#: What every event of an edit list has, and what the library itself writes into the comments of one.
_OF_EVENTS = ("reel", "events")
_MADE_UP = "OTIO TRUNCATED REEL NAME"


def _of_event(metadata: dict[str, Any]) -> dict[str, str]:
    """Take from an event of an edit list what no other program said: the key of its shot, and what the library makes up."""
    event = metadata.pop(EVENT, None)
    if not isinstance(event, dict):
        return {}
    comments = [str(c) for c in event.get("comments", []) if not str(c).startswith(_MADE_UP)]
    keys = [c.removeprefix(EVENT_KEY).strip() for c in comments if c.startswith(EVENT_KEY)]
    rest = [c for c in comments if not c.startswith(EVENT_KEY)]
    said = {key: value for key, value in event.items() if key not in (*_OF_EVENTS, "comments")}
    said |= {"comments": rest} if rest else {}
    if said:
        metadata[EVENT] = said
    return {KEY: keys[0]} if keys else {}


def _clips(timeline: Any) -> list[list[str]]:
    import opentimelineio  # noqa: PLC0415

    found: list[dict[str, str]] = []
    for clip in timeline.find_clips():
        metadata = json.loads(opentimelineio.core.serialize_json_to_string(clip.metadata))
        own = metadata.pop(OWN, None)
        metadata.pop(ANSWERED, None)
        row: dict[str, str] = _of_event(metadata)
        if isinstance(own, dict):
            row |= {
                str(title): _text(value)
                for title, value in own.items()
                if isinstance(value, str | float | int)
            }
        # The name of the clip is the number of the shot: whoever renames one renames the other.
        row["Shot"] = clip.name
        if metadata:
            row[FOREIGN] = json.dumps(metadata, ensure_ascii=False)
        found.append(row)
    if not found:
        raise FileError("has no clip")
    titles = list(dict.fromkeys(["Shot", *(title for row in found for title in row)]))
    return _bounded([titles, *([row.get(title, "") for title in titles] for row in found)])


def comma(data: bytes, most_rows: str) -> list[list[str]]:
    """Read CSV; its text is known to be UTF-8."""
    return csv_rows(data.decode("utf-8-sig"), int(most_rows))


#: Kinds of files, and which of them are archives.
READERS: dict[str, Callable[..., list[list[str]]]] = {
    "xlsx": xlsx,
    "ods": ods,
    "otio": otio,
    "edl": edl,
    "csv": comma,
}
ARCHIVES = ("xlsx", "ods")


def main(kind: str, *more: str) -> int:
    """Read standard input as one kind of file; 1 and a line that begins with ``file:`` for a bad one."""
    limit()
    data = sys.stdin.buffer.read()
    try:
        if kind in ARCHIVES:
            _unpacked(data)
        rows = READERS[kind](data, *more)
    except (FileError, TooLargeError) as error:
        print(f"file: {error}", file=sys.stderr)
        return 1
    except ValueError as error:
        told = str(error) if kind == "csv" else f"cannot be read as {kind.upper()} ({type(error).__name__})"
        print(f"file: {told}", file=sys.stderr)
        return 1
    except MemoryError:
        print("file: takes more memory than a table may", file=sys.stderr)
        return 1
    except Exception as error:  # whatever a library makes of a foreign file is the file's fault
        print(f"file: cannot be read as {kind.upper()} ({type(error).__name__})", file=sys.stderr)
        return 1
    sys.stdout.write(json.dumps(rows))
    return 0


if __name__ == "__main__":
    sys.exit(main(*sys.argv[1:]))
