"""A lens set from one line: `18 25 35 50 85 T1.5 Super 35 K50`, `24-70 f2.8 full frame`; or from a table.

Focal lengths, an aperture, a class and a mount, in any order. Circles by class are assumed, and marked so.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Any

from pydantic import Field
from typing_extensions import TypedDict

from hextan.core.base import Fault, FaultBody, InvalidInputError, Part, Plain
from hextan.core.documents import UNKNOWN_MOUNT, LensSetDocument, parse_lens_set
from hextan.core.entry.figures import UNKNOWN_MAKER
from hextan.core.entry.lens_table import LensTable, read_lens_table
from hextan.core.entry.tables import ColumnRead
from hextan.core.optics import class_circle_mm
from hextan.core.reading import LensLineRead, LensSaid, SpanRead, read_lens_words, spans_of

MOST_LENSES = 60
MOST_LETTERS = 200_000


class LensLineAsk(Part):
    """A set of lenses, as it is typed."""

    #: A line, several, or a table with titles.
    line: Annotated[str, Field(max_length=MOST_LETTERS)] = ""
    name: Annotated[str, Field(max_length=80)] = ""
    #: The mount where the line names none: that of the body.
    mount: Annotated[str, Field(max_length=80)] = ""
    #: Mounts of the production, by their names.
    mounts: Annotated[list[Annotated[str, Field(max_length=80)]], Field(max_length=200)] = []


class LensLine(TypedDict):
    """What a line makes of a set."""

    told: list[str]
    assumed: list[str]
    faults: list[FaultBody]
    #: The text, each character in one span with what it was taken for.
    spans: list[SpanRead]
    #: Of a table.
    columns: list[ColumnRead]
    document: LensSetDocument | None


def lens_line(ask: LensLineAsk) -> LensLine:
    """Read lines about lenses. Nothing is refused: what is not understood is told.

    >>> lens_line(LensLineAsk(line="18 25 35 T1.5 Super 35 K50"))["told"]
    ['3 lenses: 18, 25, 35 mm', 'T1.5', 'made for Super 35', 'mount K50']
    """
    table = read_lens_table(ask.line, ask.mount.strip() or UNKNOWN_MOUNT)
    if table is not None:
        return _of_table(ask, table)
    read = read_lens_words(ask.line, [*ask.mounts, ask.mount.strip()])
    faults = _faults(read)
    document = None
    if read.lenses and not faults:
        document, faults = _document(plain_set(read.lenses, ask.name.strip(), ask.mount.strip()))
    return {
        "told": _told(read.lenses), "assumed": _assumed(read.lenses), "faults": [fault.as_dict() for fault in faults],
        "spans": spans_of(ask.line, read.words), "columns": [], "document": document,
    }  # fmt: skip


def _document(plain: Plain) -> tuple[LensSetDocument | None, list[Fault]]:
    try:
        return parse_lens_set(plain), []
    except InvalidInputError as error:
        return None, list(error.faults)


def _of_table(ask: LensLineAsk, table: LensTable) -> LensLine:
    """A set from a table; a lens is kept only where all of them are understood."""
    faults = list(table.faults)
    if len(table.lenses) > MOST_LENSES:
        faults.append(
            Fault("line", len(table.lenses), f"a table has at most {MOST_LENSES} lenses here: read a file")
        )
    document = None
    ends = [(lens["focal_mm"], lens.get("focal_long_mm")) for lens in table.lenses]
    if ends and not faults:
        document, faults = _document(
            {"name": ask.name.strip() or _set_name(ends), "maker": UNKNOWN_MAKER, "lenses": table.lenses}
        )
    silent = [
        told
        for key, told in (
            ("image_circle_mm", "No image circle: coverage is told as not known."),
            ("f_number", "No f-number: depth goes by one that is wider than T, by as much as Settings say."),
            ("close_focus_m", "No close focus: no distance is said to be too near."),
        )
        if any(lens.get(key) is None for lens in table.lenses)
    ]
    names = ", ".join(_name(*focal) for focal in ends)
    told = [f"{len(ends)} {'lens' if len(ends) == 1 else 'lenses'}: {names} mm"] if ends else []
    columns: list[ColumnRead] = [{"title": title, "taken_for": meaning} for title, meaning in table.columns]
    return {
        "told": told, "assumed": silent, "faults": [fault.as_dict() for fault in faults], "spans": [],
        "columns": columns, "document": document,
    }  # fmt: skip


def _faults(read: LensLineRead) -> list[Fault]:
    told = [Fault("line", word.text.strip(), word.rule) for word in read.asked]
    if read.text.strip() and not read.lenses and not told:
        rule = "says no focal length: begin with them, like 18 25 35 or 24-70"
        told.append(Fault("line", read.text[:200], rule))
    if len(read.lenses) > MOST_LENSES:
        rule = f"a line has at most {MOST_LENSES} lenses: read a file"
        told.append(Fault("line", len(read.lenses), rule))
    silent = [lens for lens in read.lenses if lens.t_stop is None and lens.f_number is None]
    if silent:
        names = ", ".join(_name(lens.focal_mm, lens.long_mm) for lens in silent[:6])
        told.append(Fault("line", names, "says no aperture: add T1.5 or f2.8"))
    return told


def _one(values: Iterable[Any]) -> Any:
    """The value that all have; None where they differ, or have none."""
    found = set(values)
    return found.pop() if len(found) == 1 else None


def _told(lenses: list[LensSaid]) -> list[str]:
    if not lenses:
        return []
    names = [_name(lens.focal_mm, lens.long_mm) for lens in lenses]
    count = f"{len(names)} {'lens' if len(names) == 1 else 'lenses'}"
    same = _one(_stop_words(lens) for lens in lenses)
    if same is None:
        names = [f"{name} {_stop_words(lens)}".strip() for name, lens in zip(names, lenses, strict=True)]
    told = [f"{count}: {', '.join(names)} mm" if same is not None else f"{count}: {', '.join(names)}"]
    told += [same] if same else []
    rows = (
        ("squeeze", "squeeze {:g}x"), ("of_class", "made for {}"), ("mount", "mount {}"), ("circle_mm", "circle {:g} mm"),
        ("close_m", "close focus {:g} m"), ("front_mm", "front {:g} mm"), ("weight_kg", "{:g} kg"),
    )  # fmt: skip
    for name, words in rows:
        values = [getattr(lens, name) for lens in lenses]
        shown = list(dict.fromkeys(value for value in values if value is not None))
        told += [" / ".join(words.format(value) for value in shown)] if shown else []
    return told


def _stop_words(lens: LensSaid) -> str:
    parts = []
    for mark, low, high in (("T", lens.t_stop, lens.t_long), ("f/", lens.f_number, lens.f_long)):
        if low is not None:
            parts.append(f"{mark}{low:g}" + ("" if high is None else f"-{high:g}"))
    return " ".join(parts)


def _assumed(lenses: list[LensSaid]) -> list[str]:
    if not lenses:
        return []
    classes = list(
        dict.fromkeys(lens.of_class for lens in lenses if lens.circle_mm is None and lens.of_class)
    )
    told = [
        f"Circles of {class_circle_mm(name):.1f} mm, as {name} lenses usually have: enter measured ones."
        for name in classes
    ]
    lacks: dict[str, bool] = {
        "No class: nothing is known of their circles, and coverage is told as not known.": any(
            x.circle_mm is None and x.of_class is None for x in lenses
        ),
        "No f-number: depth goes by one that is wider than T, by as much as Settings say.": any(
            x.f_number is None for x in lenses
        ),
        "No T-stop: the exposure is told by the f-number, a little too bright.": any(
            x.t_stop is None for x in lenses
        ),
        "No close focus: no distance is said to be too near.": any(x.close_m is None for x in lenses),
    }
    return told + [words for words, lacking in lacks.items() if lacking]


def _name(short: float, long: float | None) -> str:
    return f"{short:g}" if long is None else f"{short:g}-{long:g}"


def _set_name(focals: list[tuple[float, float | None]]) -> str:
    kind = "Zooms" if all(long is not None for _, long in focals) else "Primes"
    ends = dict.fromkeys(_name(*focal) for focal in (focals[0], focals[-1]))
    return f"{kind} {' to '.join(ends)}"


def plain_set(lenses: list[LensSaid], name: str, mount: str) -> Plain:
    """A set of lenses as plain data.

    Parameters
    ----------
    name : of the set; empty where it goes by the lenses
    mount : of those whose line says none
    """
    assumed = {"kind": "assumed", "source": "as lenses of its class usually have, not stated"}
    seen: dict[str, int] = {}
    rows = []
    for lens in lenses:
        focal = _name(lens.focal_mm, lens.long_mm)
        seen[focal] = seen.get(focal, 0) + 1
        circle = lens.circle_mm
        if circle is None and lens.of_class is not None:
            circle = class_circle_mm(lens.of_class)
        rows.append(
            {
                "name": focal if seen[focal] == 1 else f"{focal} ({seen[focal]})",
                "focal_mm": lens.focal_mm,
                "focal_long_mm": lens.long_mm,
                "t_stop": lens.t_stop,
                "t_stop_long": lens.t_long,
                "f_number": lens.f_number,
                "f_number_long": lens.f_long,
                "designed_for": lens.of_class,
                "image_circle_mm": circle,
                "origins": {"image_circle_mm": assumed}
                if circle is not None and lens.circle_mm is None
                else {},
                "squeeze": lens.squeeze or 1.0,
                "close_focus_m": lens.close_m,
                "weight_kg": lens.weight_kg,
                "front_mm": lens.front_mm,
                "mount": lens.mount or mount or UNKNOWN_MOUNT,
            }
        )
    names = list(dict.fromkeys(lens.name for lens in lenses if lens.name))
    told = name or (
        names[0][:80] if len(names) == 1 else _set_name([(x.focal_mm, x.long_mm) for x in lenses])
    )
    return {"name": told, "maker": UNKNOWN_MAKER, "lenses": rows}
