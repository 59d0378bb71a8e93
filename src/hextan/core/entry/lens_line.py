"""A lens set from one line: `18 25 35 50 85 T1.5 Super 35 K50`, `24-70 f2.8 full frame`; or from a table.

Focal lengths, an aperture, a class and a mount, in any order. Circles by class are assumed, and marked so.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field
from typing_extensions import TypedDict

from hextan.core.base import Fault, FaultBody, InvalidInputError, Part, Plain, either_way
from hextan.core.documents import UNKNOWN_MOUNT, LensSetDocument, parse_lens_set
from hextan.core.entry.figures import CLASS_WORDS, UNKNOWN_MAKER
from hextan.core.entry.lens_table import LensTable, read_lens_table
from hextan.core.entry.tables import ColumnRead
from hextan.core.optics import FormatClass

#: Diameter in mm of the circle that a lens made for a class is taken to have: the diagonal of the class's largest usual
#: window (Super 35 24.89 x 18.66, full frame 36 x 24, Super 16 12.52 x 7.41, 65 mm 54.1 x 25.6, 2/3 inch 11).
#: Common practice, no source.
CIRCLE_MM: dict[FormatClass, float] = {
    "65 mm": 59.9, "full frame": 43.3, "Super 35": 31.1, "Super 16": 14.5, "2/3 inch": 11.0,
}  # fmt: skip
MOST_LENSES = 60
_N = r"\d+(?:[.,]\d+)?"
_APERTURE = rf"\b(t)\s*/?\s*({_N})|\bf\s*/?\s*({_N})"
_SQUEEZE = rf"(?<![\d.,])({_N})\s*[x×](?!\s*\d)"
_FOCAL = re.compile(rf"(?<![\w.,])({_N})(?:\s*(?:-|–|to)\s*({_N}))?(?:\s*mm)?(?!\w)", re.IGNORECASE)
_MOUNT = r"\b(?=\w*[a-z])\w{1,12}\b"
#: Words around a line that mean nothing.
_WORDS = re.compile(
    r"\b(?:mount|primes?|zooms?|set|lenses|lens|for|and|mm|spherical|anamorphic)\b", re.IGNORECASE
)


class LensLineAsk(Part):
    """A set of lenses, as it is typed."""

    #: A line, or a table with titles.
    line: Annotated[str, Field(max_length=40_000)] = ""
    name: Annotated[str, Field(max_length=80)] = ""
    #: The mount where the line names none: that of the body.
    mount: Annotated[str, Field(max_length=80)] = ""


class LensLine(TypedDict):
    """What a line makes of a set."""

    told: list[str]
    assumed: list[str]
    faults: list[FaultBody]
    #: Of a table.
    columns: list[ColumnRead]
    document: LensSetDocument | None


@dataclass
class _Said:
    """What a line says; ends of zooms, None at the long one of a prime."""

    focals: list[tuple[float, float | None]]
    stop: float | None
    #: Whether it is a T-stop; else an f-number.
    by_light: bool
    of_class: FormatClass | None
    squeeze: float
    mount: str
    left: str


def _understood(line: str) -> _Said:
    rest = line

    def take(pattern: str) -> re.Match[str] | None:
        nonlocal rest
        found = re.search(pattern, rest, re.IGNORECASE)
        if found is not None:
            rest = f"{rest[: found.start()]} {rest[found.end() :]}"
        return found

    aperture = take(_APERTURE)
    of_class = next((name for name, pattern in CLASS_WORDS.items() if take(pattern)), None)
    squeeze = take(_SQUEEZE)
    rest = _WORDS.sub(" ", rest)
    focals = [(_number(m[1]), _number(m[2]) if m[2] else None) for m in _FOCAL.finditer(rest)]
    rest = _FOCAL.sub(" ", rest)
    mount = take(_MOUNT)
    return _Said(
        focals=focals,
        stop=None if aperture is None else _number(aperture[2] or aperture[3]),
        by_light=aperture is not None and aperture[1] is not None,
        of_class=of_class,
        squeeze=1.0 if squeeze is None else _number(squeeze[1]),
        mount="" if mount is None else mount[0],
        left=rest.strip(" ,;\t\n"),
    )


def lens_line(ask: LensLineAsk) -> LensLine:
    """Read a line. Nothing is refused: what is not understood is told.

    >>> lens_line(LensLineAsk(line="18 25 35 T1.5 Super 35 K50"))["told"]
    ['3 lenses: 18, 25, 35 mm', 'T1.5', 'made for Super 35', 'mount K50']
    """
    table = read_lens_table(ask.line, ask.mount.strip() or UNKNOWN_MOUNT)
    if table is not None:
        return _of_table(ask, table)
    said = _understood(ask.line)
    faults = _faults(ask.line, said)
    document = None
    if said.focals and not faults:
        document, faults = _document(_plain(ask, said))
    assumed = _assumed(said) if said.focals else []
    return {
        "told": _told(said), "assumed": assumed, "faults": [fault.as_dict() for fault in faults], "columns": [],
        "document": document,
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
            ("f_number", "No f-number: depth is computed with the T-stop, and told a little too deep."),
            ("close_focus_m", "No close focus: no distance is said to be too near."),
        )
        if any(lens.get(key) is None for lens in table.lenses)
    ]
    names = ", ".join(_name(*focal) for focal in ends)
    told = [f"{len(ends)} {'lens' if len(ends) == 1 else 'lenses'}: {names} mm"] if ends else []
    columns: list[ColumnRead] = [{"title": title, "taken_for": meaning} for title, meaning in table.columns]
    return {
        "told": told, "assumed": silent, "faults": [fault.as_dict() for fault in faults], "columns": columns,
        "document": document,
    }  # fmt: skip


def _faults(line: str, said: _Said) -> list[Fault]:
    told = [
        Fault("line", number, str(either_way(number)))
        for number in re.findall(r"(?<!\d)\d{1,3},\d{3}(?!\d)", line)
    ]
    if said.left:
        rule = "is not understood: write focal lengths, T or f, a class and a mount"
        told.append(Fault("line", said.left, rule))
    if line.strip() and not said.focals:
        told.append(Fault("line", line, "says no focal length: begin with them, like 18 25 35 or 24-70"))
    if len(said.focals) > MOST_LENSES:
        told.append(Fault("line", len(said.focals), f"a line has at most {MOST_LENSES} lenses: read a file"))
    if said.focals and said.stop is None:
        told.append(Fault("line", line, "says no aperture: add T1.5 or f2.8"))
    return told


def _told(said: _Said) -> list[str]:
    names = [_name(short, long) for short, long in said.focals]
    return [
        text
        for text, there in (
            (f"{len(names)} {'lens' if len(names) == 1 else 'lenses'}: {', '.join(names)} mm", names),
            (f"{'T' if said.by_light else 'f/'}{said.stop:g}" if said.stop else "", said.stop),
            (f"squeeze {said.squeeze:g}x", said.squeeze != 1.0),
            (f"made for {said.of_class}", said.of_class),
            (f"mount {said.mount}", said.mount),
        )
        if there
    ]


def _assumed(said: _Said) -> list[str]:
    if said.of_class is None:
        circles = "No class: nothing is known of their circles, and coverage is told as not known."
    else:
        circles = (
            f"Circles of {CIRCLE_MM[said.of_class]:g} mm, as the class usually has: enter measured ones."
        )
    if said.by_light:
        stops = "No f-number: depth is computed with the T-stop, and told a little too deep."
    else:
        stops = "No T-stop: the exposure is told by the f-number, a little too bright."
    return [circles, stops, "No close focus: no distance is said to be too near."]


def _number(text: str) -> float:
    return float(text.replace(",", "."))


def _name(short: float, long: float | None) -> str:
    return f"{short:g}" if long is None else f"{short:g}-{long:g}"


def _set_name(focals: list[tuple[float, float | None]]) -> str:
    kind = "Zooms" if all(long is not None for _, long in focals) else "Primes"
    ends = dict.fromkeys(_name(*focal) for focal in (focals[0], focals[-1]))
    return f"{kind} {' to '.join(ends)}"


def _plain(ask: LensLineAsk, said: _Said) -> Plain:
    assumed = {"kind": "computed", "source": "assumed of its class, not stated"}
    circle = None if said.of_class is None else CIRCLE_MM[said.of_class]
    seen: dict[str, int] = {}
    lenses = []
    for short, long in said.focals:
        name = _name(short, long)
        seen[name] = seen.get(name, 0) + 1
        lenses.append(
            {
                "name": name if seen[name] == 1 else f"{name} ({seen[name]})",
                "focal_mm": short,
                "focal_long_mm": long,
                "t_stop": said.stop if said.by_light else None,
                "f_number": None if said.by_light else said.stop,
                "designed_for": said.of_class,
                "image_circle_mm": circle,
                "origins": {} if circle is None else {"image_circle_mm": assumed},
                "squeeze": said.squeeze,
                "mount": said.mount or ask.mount.strip() or UNKNOWN_MOUNT,
            }
        )
    return {"name": ask.name.strip() or _set_name(said.focals), "maker": UNKNOWN_MAKER, "lenses": lenses}
