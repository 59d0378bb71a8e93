"""A body from few facts: sensor, scan modes in the words of its menu, formats by ticks, and what is still missing."""

from __future__ import annotations

import math
from typing import Annotated, Literal, TypeAlias

from pydantic import Field
from typing_extensions import TypedDict

from hextan.core.base import FaultBody, InvalidInputError, Part, Plain, RateSet, rate_words
from hextan.core.documents import UNKNOWN_MOUNT, BodyDocument, BodySheet, body_sheet, parse_body
from hextan.core.entry.figures import UNKNOWN_MAKER
from hextan.core.entry.mode_lines import ModeLine, read_mode, split_lines, stated_window
from hextan.core.entry.sensor import Contradiction, Sensor, SensorAsk, SensorFact, solve
from hextan.core.entry.tables import ColumnRead, read_table

Tick: TypeAlias = Literal["raw", "uhd", "dci4k", "hd"]
#: Recording formats that are offered for each scan mode, a row each: how it is called behind the arrow, and its raster
#: (UHD: ITU-R BT.2020, HD: ITU-R BT.709, 4096 x 2160: DCI; from memory). Raw records the whole window.
TICKS: dict[Tick, tuple[str, tuple[int, int] | None]] = {
    "raw": ("raw", None),
    "uhd": ("UHD", (3840, 2160)),
    "dci4k": ("4096", (4096, 2160)),
    "hd": ("HD", (1920, 1080)),
}
MOST_LINES = 100
#: Called so until it has a name.
UNNAMED = "Camera"


class QuickBodyAsk(Part):
    """What is known of a body, as it is typed."""

    name: Annotated[str, Field(max_length=80)] = ""
    maker: Annotated[str, Field(max_length=80)] = ""
    mount: Annotated[str, Field(max_length=80)] = ""
    sensor: SensorAsk = SensorAsk()
    #: One scan mode in a line, or a table.
    modes: Annotated[str, Field(max_length=40_000)] = ""
    formats: Annotated[list[Tick], Field(max_length=len(TICKS))] = ["raw", "uhd", "hd"]
    #: Single ones that are not wanted all the same: a tick, and the name of a scan mode behind it.
    without: Annotated[list[Annotated[str, Field(max_length=100)]], Field(max_length=400)] = []


class OfferedFormat(TypedDict):
    """A recording format that a scan mode can be given."""

    tick: Tick
    name: str
    #: Why the window does not give it; empty where it does.
    why_not: str


class LineRead(TypedDict):
    """A line, and what was understood of it."""

    line: str
    name: str
    #: What was understood, in words.
    told: str
    assumed: list[str]
    fault: str | None
    formats: list[OfferedFormat]


class QuickBody(TypedDict):
    """What few facts make of a body."""

    facts: list[SensorFact]
    faults: list[FaultBody]
    contradictions: list[Contradiction]
    modes: list[LineRead]
    columns: list[ColumnRead]
    #: What the body cannot be asked yet, and what would change that.
    missing: list[str]
    #: The body that can be kept, and its figures; none while something needed is missing.
    document: BodyDocument | None
    sheet: BodySheet | None


def quick_body(ask: QuickBodyAsk) -> QuickBody:
    """Make a body of few facts. Nothing is refused: what is not understood is told beside its field.

    Where photosites are not known, the first line that states a window is the whole sensor's.
    """
    table = read_table(ask.modes)
    lines = (table.lines if table else split_lines(ask.modes))[:MOST_LINES]
    first = stated_window(lines[0]) if lines else None
    given = ask.sensor
    if first is not None and not (given.photosites or given.megapixels or (given.size_mm and given.pitch_um)):
        given = given.model_copy(update={"photosites": f"{first[0]} x {first[1]}"})
    sensor = solve(given)
    modes = _modes(lines, sensor)
    faults = [*sensor.faults, *(fault for mode in modes for fault in mode.faults)]
    document = sheet = None
    if sensor.pitch_um is not None and not sensor.faults:
        understood = [mode for mode in modes if mode.window is not None]
        try:
            document = parse_body(_plain(ask, sensor, understood))
            sheet = body_sheet(document, [])
        except InvalidInputError as error:
            faults += error.faults
        if faults:
            # What was understood is drawn all the same; kept is only what was understood whole.
            document = None
    return {
        "facts": sensor.facts,
        "faults": [fault.as_dict() for fault in faults],
        "contradictions": sensor.contradictions,
        "modes": [_told(mode, sensor) for mode in modes],
        "columns": [
            {"title": title, "taken_for": meaning} for title, meaning in (table.columns if table else [])
        ],
        "missing": _missing(sensor, sheet),
        "document": document,
        "sheet": sheet,
    }


def _modes(lines: list[str], sensor: Sensor) -> list[ModeLine]:
    if sensor.photosites is None:
        return [ModeLine(line, name=line) for line in lines]
    pitch_um = None if sensor.pitch_um is None else sensor.pitch_um.value
    # Without a line the whole sensor is read.
    places = list(enumerate(lines)) or [(0, "Full")]
    modes = [read_mode(line, f"modes[{i}]", sensor.photosites, pitch_um) for i, line in places]
    names: set[str] = set()
    for mode in modes:
        free = next(
            n for n in (mode.name[:70], *(f"{mode.name[:70]} ({i})" for i in range(2, 999))) if n not in names
        )
        names.add(free)
        mode.name = free
    return modes


def _sampled(mode: ModeLine) -> tuple[int, int]:
    assert mode.window is not None
    return mode.window[0] // mode.sampling, mode.window[1] // mode.sampling


def _why_not(mode: ModeLine, raster: tuple[int, int] | None) -> str:
    """Why a window does not give a raster: its samples, cut to the raster's shape, are fewer."""
    if raster is None:
        return ""
    w, h = _sampled(mode)
    scale = min(w / raster[0], h / raster[1])
    # A few photosites too few are made up in the camera: 1 % cannot be seen (common practice, no source).
    return "" if scale >= 0.99 else f"the window gives {w} × {h}"


def _plain(ask: QuickBodyAsk, sensor: Sensor, modes: list[ModeLine]) -> Plain:
    assert sensor.photosites is not None and sensor.pitch_um is not None
    given = {fact["name"] for fact in sensor.facts if fact["given"]}
    computed = {"kind": "computed", "source": "from few facts"}
    return {
        "name": ask.name.strip() or UNNAMED,
        "maker": ask.maker.strip() or UNKNOWN_MAKER,
        "mount": ask.mount.strip() or UNKNOWN_MOUNT,
        "photosites": list(sensor.photosites),
        "pitch_um": round(sensor.pitch_um.value, 9),
        "origins": {name: computed for name in ("photosites", "pitch_um") if name not in given},
        "modes": [
            _mode(mode, [tick for tick in ask.formats if f"{tick} {mode.name}" not in ask.without])
            for mode in modes
        ],
    }


def _mode(mode: ModeLine, ticks: list[Tick]) -> Plain:
    assert mode.window is not None
    assumed = {"rates": {"kind": "computed", "source": "assumed, not stated"}} if mode.usual_rates else {}
    formats: list[Plain] = [
        {
            "name": f"{mode.name} raw" if raster is None else f"{mode.name} → {name}",
            "raster": list(raster or _sampled(mode)),
            "raw": raster is None,
            "samples": "raw" if raster is None else None,
            "interlaced": mode.interlaced,
            "rates": mode.rates,
            "origins": assumed,
        }
        for tick, (name, raster) in TICKS.items()
        if tick in ticks and not _why_not(mode, raster)
    ]
    method = mode.method if mode.sampling > 1 else "full"
    return {
        "name": mode.name,
        "window": list(mode.window),
        "sampling": [mode.sampling] * 2,
        "methods": [method, method],
        "formats": formats,
    }


def _told(mode: ModeLine, sensor: Sensor) -> LineRead:
    fault = mode.faults[0].rule if mode.faults else None
    read: LineRead = {
        "line": mode.line, "name": mode.name, "told": "", "assumed": mode.assumed, "fault": fault, "formats": []
    }  # fmt: skip
    if mode.window is None or sensor.photosites is None:
        return read
    w, h = mode.window
    parts = []
    if sensor.pitch_um is not None:
        um = sensor.pitch_um.value
        parts.append(f"{w * um / 1000:.1f} × {h * um / 1000:.1f} mm")
    parts.append("whole width" if w == sensor.photosites[0] else f"{sensor.photosites[0] / w:.3f}× crop")
    if not sensor.stands_in:
        parts.append(f"{w * h / 1e6:.1f} of {math.prod(sensor.photosites) / 1e6:.1f} MP")
    if mode.sampling > 1:
        parts.append(f"{mode.method} {mode.sampling}")
    spans = RateSet.parse(mode.rates).spans
    rates = [rate_words(s.low) + (f" to {rate_words(s.high)}" if s.high != s.low else "") for s in spans]
    parts.append(f"{', '.join(rates)} fps{', interlaced' if mode.interlaced else ''}")
    read["told"] = " · ".join(parts)
    read["formats"] = [
        {"tick": tick, "name": name, "why_not": _why_not(mode, raster)}
        for tick, (name, raster) in TICKS.items()
    ]
    return read


def _missing(sensor: Sensor, sheet: BodySheet | None) -> list[str]:
    if sensor.photosites is None or sensor.pitch_um is None:
        return [
            "Say two of size, photosites, pitch and class, or the megapixels and the class, or a crop factor."
        ]
    told = []
    if sensor.stands_in:
        told.append(
            "No photosites: fields, depth and crops are right, and nothing is told of pixels; "
            f"{sensor.photosites[0]} across stand in."
        )
    return told + ([] if sheet is None else sheet["missing"])
