"""A body from few facts: sensor, scan modes in the words of its menu, formats by ticks, and what is still missing."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Annotated, Literal, TypeAlias

from pydantic import Field
from typing_extensions import TypedDict

from hextan.core.base import Fault, FaultBody, InvalidInputError, Part, Plain, RateSet, new_key, rate_words
from hextan.core.documents import UNKNOWN_MOUNT, BodyDocument, BodySheet, body_sheet, parse_body
from hextan.core.entry.facts import Facts, facts_of, sensor_of, under
from hextan.core.entry.figures import UNKNOWN_MAKER
from hextan.core.entry.mode_lines import (
    MOST_INTERLACED_LINES,
    ModeLine,
    asks_of,
    format_words,
    kept_rates,
    read_modes,
    split_lines,
    stated_window,
)
from hextan.core.entry.sensor import Contradiction, Sensor, SensorAsk, SensorFact, solve
from hextan.core.entry.tables import ColumnRead, moved, read_table
from hextan.core.reading import (
    NAME_OF_RASTER,
    Option,
    PageLine,
    SpanRead,
    Stated,
    Word,
    read_page_line,
    spans_of,
)

Tick: TypeAlias = Literal["raw", "uhd", "dci4k", "hd"]
#: Recording formats that are offered for each scan mode, a row each: how it is called behind the arrow, and its raster
#: (UHD: ITU-R BT.2020, HD: ITU-R BT.709, 4096 x 2160: DCI; from memory). Raw records the whole window.
TICKS: dict[Tick, tuple[str, tuple[int, int] | None]] = {
    "raw": ("raw", None),
    "uhd": ("UHD", (3840, 2160)),
    "dci4k": ("4096", (4096, 2160)),
    "hd": ("HD", (1920, 1080)),
}
MOST_LINES, MOST_LETTERS = 400, 200_000
#: A window gives a raster if it has this share of its pixels: a few are made up in the camera (common practice, no source).
ENOUGH = 0.99
#: A raster may leave out as much of a window's width as 16:9 does of 17:9; what cuts more is offered as what it is.
USUAL_CUT = 0.93
#: Called so until it has a name.
UNNAMED = "Camera"


class QuickBodyAsk(Part):
    """What is known of a body, as it is typed."""

    name: Annotated[str, Field(max_length=80)] = ""
    maker: Annotated[str, Field(max_length=80)] = ""
    mount: Annotated[str, Field(max_length=80)] = ""
    sensor: SensorAsk = SensorAsk()
    #: Scan modes and formats, a line each, or a table.
    modes: Annotated[str, Field(max_length=MOST_LETTERS)] = ""
    #: What is recorded of a mode whose line does not say it.
    formats: Annotated[list[Tick], Field(max_length=len(TICKS))] = ["raw", "uhd", "hd"]
    #: Single ones that are not wanted all the same, and those that cut the sides of a window and are wanted:
    #: a tick, and the name of a scan mode behind it.
    without: Annotated[list[Annotated[str, Field(max_length=100)]], Field(max_length=400)] = []
    also: Annotated[list[Annotated[str, Field(max_length=100)]], Field(max_length=400)] = []


class OfferedFormat(TypedDict):
    """A recording format that a scan mode can be given."""

    tick: Tick
    name: str
    #: Why the window does not give it; empty where it does.
    why_not: str
    #: What it leaves out at the sides; empty where the window is no wider than it.
    cuts: str


class LineRead(TypedDict):
    """A scan mode of a line, and what was understood of it."""

    line: str
    name: str
    #: What was understood, in words.
    told: str
    #: What the line says is recorded.
    recorded: list[str]
    assumed: list[str]
    fault: str | None
    #: What could be recorded, where the line says nothing of it.
    formats: list[OfferedFormat]


class QuickBody(TypedDict):
    """What few facts make of a body."""

    facts: list[SensorFact]
    faults: list[FaultBody]
    contradictions: list[Contradiction]
    modes: list[LineRead]
    columns: list[ColumnRead]
    #: The text of the modes, each character in one span with what it was taken for.
    spans: list[SpanRead]
    #: What the lines say of the body as a whole.
    body: list[str]
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
    lines = table.lines[:MOST_LINES] if table else _page_lines(ask.modes)
    given, lines = sensor_of(ask.sensor, lines)
    first = stated_window(lines[0]) if lines else None
    if first is not None and not (given.photosites or given.megapixels or (given.size_mm and given.pitch_um)):
        given = given.model_copy(update={"photosites": f"{first[0]} x {first[1]}"})
    sensor = solve(given)
    modes = _modes(lines, sensor)
    _offer_crops(lines, sensor, ask.formats)
    _refuse_what_is_not_given(modes)
    facts = facts_of(lines)
    if sum(line.says for line in lines) >= MOST_LINES:
        facts.told.append(f"{MOST_LINES} lines are read at most: what stands behind them is left out")
    faults = [*sensor.faults, *(fault for mode in modes for fault in mode.faults)]
    document = sheet = None
    if sensor.pitch_um is not None and not sensor.faults:
        understood = [mode for mode in modes if mode.window is not None]
        try:
            document = parse_body(_plain(ask, sensor, understood, facts))
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
        "spans": spans_of(
            ask.modes, [word for line in lines for word in line.words if word.end > word.start]
        ),
        "body": facts.told,
        "missing": _missing(sensor, sheet),
        "document": document,
        "sheet": sheet,
    }


def _page_lines(text: str) -> list[PageLine]:
    """The lines of a text, their words by their places in all of it; what a heading says holds below it."""
    found: list[PageLine] = []
    head: Stated | None = None
    said = 0
    for start, line in split_lines(text):
        if said >= MOST_LINES:
            break
        read = read_page_line(line)
        read.words = [moved(word, start) for word in read.words]
        said += read.says
        if read.heads and read.formats and not read.formats[0].rates:
            head = read.formats[0]
        elif head is not None:
            if not any(stated.window for stated in read.formats):
                read.above = head.name
            read.formats = [stated if stated.window else under(head, stated) for stated in read.formats]
        if not (read.heads and read.formats and not read.formats[0].recorded and not read.formats[0].rates):
            found.append(read)
        else:
            found.append(replace(read, formats=[], heading=True))
    return found


def _modes(lines: list[PageLine], sensor: Sensor) -> list[ModeLine]:
    if sensor.photosites is None:
        return [ModeLine(line.text, name=line.text, faults=asks_of(line, f"modes[{i}]"))
                for i, line in enumerate(lines) if line.formats or line.asked]  # fmt: skip
    pitch_um = None if sensor.pitch_um is None else sensor.pitch_um.value
    # Without a line the whole sensor is read.
    # A line that says nothing is struck through where others say something; alone it is asked about.
    says = any(line.formats for line in lines)
    places = [(i, line) for i, line in enumerate(lines) if line.formats or line.asked or not says]
    places = places or [(0, read_page_line("Full"))]
    read = [
        mode
        for i, line in places
        if not line.heading
        for mode in read_modes(line, f"modes[{i}]", sensor.photosites, pitch_um)
    ]
    modes: list[ModeLine] = []
    for mode in read:
        same = next((other for other in modes if _one_mode(other, mode)), None)
        if same is None:
            modes.append(mode)
            continue
        # Two lines that differ in what is recorded are two formats of one mode.
        same.recorded += mode.recorded
        same.faults += mode.faults
        same.assumed += [told for told in mode.assumed if told not in same.assumed]
        same.usual_rates = same.usual_rates and mode.usual_rates
        same.line = f"{same.line}; {mode.line}"
    names: set[str] = set()
    for mode in modes:
        free = next(
            n for n in (mode.name[:70], *(f"{mode.name[:70]} ({i})" for i in range(2, 999))) if n not in names
        )
        names.add(free)
        mode.name = free
    return modes


def _one_mode(one: ModeLine, other: ModeLine) -> bool:
    """Whether two lines speak of one scan mode: the same window read alike, and each says what is recorded."""
    return (
        bool(one.recorded and other.recorded)
        and one.window is not None
        and (one.window, one.sampling, one.method) == (other.window, other.sampling, other.method)
        and (one.name == other.name or not (one.named and other.named))
    )


def _short_of(sampled: tuple[int, int], raster: tuple[int, int]) -> float:
    """What share of a raster's pixels a window gives, cut to the raster's shape."""
    return min(sampled[0] / raster[0], sampled[1] / raster[1])


def _why_not(mode: ModeLine, raster: tuple[int, int] | None) -> str:
    """Why a window does not give a raster: its samples, cut to the raster's shape, are fewer."""
    if raster is None:
        return ""
    w, h = mode.sampled
    if _short_of((w, h), raster) >= ENOUGH:
        return ""
    short = f"{raster[0] - w} photosites" if w < raster[0] else f"{raster[1] - h} rows"
    return f"{short} short: the window gives {w} × {h}"


def _cuts(mode: ModeLine, raster: tuple[int, int] | None) -> str:
    """What a raster leaves out at the sides of a wider window; from 17:9 to 16:9 is usual, and is no more than a crop."""
    if raster is None or mode.window is None:
        return ""
    w, h = mode.window
    kept = h * raster[0] / raster[1]
    return f"cuts its sides: {kept:.0f} of {w} photosites" if kept < w * USUAL_CUT else ""


def _offer_crops(lines: list[PageLine], sensor: Sensor, ticks: list[Tick]) -> None:
    """A factor on a page is rounded: where a raster is only just missed, the crop that gives it is offered."""
    if sensor.photosites is None:
        return
    ticked = [raster for tick, (_, raster) in TICKS.items() if tick in ticks and raster is not None]
    for line in lines:
        stated = [f.raster for f in line.formats if f.raster is not None]
        for i, word in enumerate(line.words):
            if word.kind == "factor" and not word.asked and word.value[0]:
                options = _rounded(word, sensor.photosites, list(dict.fromkeys([*stated, *ticked])))
                line.words[i] = word._replace(options=(*word.options, *options))


def _rounded(word: Word, photosites: tuple[int, int], rasters: list[tuple[int, int]]) -> list[Option]:
    """The crops within the last digit of a printed one that give rasters which it just misses."""
    text, factor = word.value
    least = factor - 0.5 * 10 ** -len(text.replace(",", ".").partition(".")[2])
    w, h = photosites
    options = []
    for raster in rasters:
        gives = min(w / raster[0], h / raster[1])
        if _short_of((round(w / factor), round(h / factor)), raster) < ENOUGH and least <= gives:
            exact = math.floor(gives * 1000) / 1000
            name = NAME_OF_RASTER.get(raster, f"{raster[0]} x {raster[1]}")
            options.append(
                Option(f"rounded: {exact:g}, which gives {name}", word.text.replace(text, f"{exact:g}"))
            )
    return options


def _refuse_what_is_not_given(modes: list[ModeLine]) -> None:
    """A raster that is said to be recorded and is more than the window gives is asked about."""
    for mode in modes:
        for stated in mode.recorded:
            why = _why_not(mode, stated.raster) if mode.window else ""
            if why:
                more = ": a factor on a page is rounded, say which crop it is" if mode.factor_text else ""
                mode.faults.append(Fault(mode.at, format_words(stated), f"is {why}{more}"))


def _plain(ask: QuickBodyAsk, sensor: Sensor, modes: list[ModeLine], facts: Facts) -> Plain:
    assert sensor.photosites is not None and sensor.pitch_um is not None
    given = {fact["name"] for fact in sensor.facts if fact["given"]}
    computed = {"kind": "computed", "source": "from few facts"}
    rows = [_mode(mode, ask) for mode in modes]
    return {
        "name": ask.name.strip() or UNNAMED,
        "maker": ask.maker.strip() or UNKNOWN_MAKER,
        "mount": ask.mount.strip() or facts.mount or UNKNOWN_MOUNT,
        "photosites": list(sensor.photosites),
        "pitch_um": round(sensor.pitch_um.value, 9),
        "origins": {name: computed for name in ("photosites", "pitch_um") if name not in given},
        "modes": rows,
        "crops": [
            {"name": name, "rules": [{"mode": row["key"], "factor": factor} for row in rows]}
            for name, factor in facts.crops
        ],
        **facts.plain,
    }


def _mode(mode: ModeLine, ask: QuickBodyAsk) -> Plain:
    assert mode.window is not None
    method = mode.method if mode.sampling > 1 else "full"
    plain: Plain = {
        "key": new_key(),
        "name": mode.name,
        "window": list(mode.window),
        "sampling": [mode.sampling] * 2,
        "methods": [method, method],
        "formats": _recorded(mode, ask) if mode.recorded else _ticked(mode, ask),
    }
    return plain | ({} if mode.row_us is None else {"row_time_us": mode.row_us})


def ticks_of(mode: ModeLine, ask: QuickBodyAsk) -> list[Tick]:
    """The recording formats that are wanted of a mode and that its window gives."""
    return [
        tick
        for tick, (_, raster) in TICKS.items()
        if (tick in ask.formats or f"{tick} {mode.name}" in ask.also)
        and not _why_not(mode, raster)
        and f"{tick} {mode.name}" not in ask.without
        and (not _cuts(mode, raster) or f"{tick} {mode.name}" in ask.also)
    ]


def _ticked(mode: ModeLine, ask: QuickBodyAsk) -> list[Plain]:
    """Formats of the rasters that are ticked, at the rates of the line."""
    assumed = {"rates": {"kind": "assumed", "source": "not stated"}} if mode.usual_rates else {}
    found: list[Plain] = []
    for tick in ticks_of(mode, ask):
        name, raster = TICKS[tick]
        plain: Plain = {
            "name": f"{mode.name} raw" if raster is None else f"{mode.name} → {name}",
            "raster": list(raster or mode.sampled),
            "raw": raster is None,
            "samples": "raw" if raster is None else None,
            "origins": assumed,
        }
        found += _with_rates(plain, mode.rates, mode.interlaced)
    return found


def _with_rates(plain: Plain, frames: list[str], fields: list[str]) -> list[Plain]:
    """One format of whole frames, and one of two fields where such are recorded: never raw, and of HD at most."""
    found: list[Plain] = [{**plain, "interlaced": False, "rates": frames}] if frames else []
    if fields and not plain["raw"] and plain["raster"][1] <= MOST_INTERLACED_LINES:
        found.append(
            {
                **plain,
                "name": f"{plain['name']} interlaced" if frames else plain["name"],
                "interlaced": True,
                "rates": fields,
            }
        )
    return found


def _recorded(mode: ModeLine, ask: QuickBodyAsk) -> list[Plain]:
    """The formats that a line states."""
    rows: list[Plain] = []
    for stated in mode.recorded:
        rasters = [(format_words(stated), stated.raster)]
        if stated.raster is None and not stated.raw:
            # What is said of no raster is said of every one that is ticked.
            rasters = [
                (format_words(replace(stated, raster=r)), r)
                for tick in ticks_of(mode, ask)
                if (r := TICKS[tick][1])
            ]
        frames, fields = kept_rates(stated.rates) if stated.rates else (mode.rates, mode.interlaced)
        silent = mode.usual_rates or not stated.rates
        for words, raster in rasters:
            raw = stated.raw
            plain: Plain = {
                "name": f"{mode.name} {words}" if raw and raster is None else f"{mode.name} → {words}",
                "raster": list(raster or mode.sampled),
                "raw": raw,
                "samples": "raw" if raw else stated.samples,
                "bits": stated.bits,
                "codec": stated.codec or "",
                "compression": stated.compression,
                "megabits": stated.megabits,
                "needs": stated.needs,
                "from_firmware": stated.firmware,
                "origins": {"rates": {"kind": "assumed", "source": "not stated"}} if silent else {},
            }
            rows += _with_rates(plain, frames, fields)
    return _apart(rows)


def _apart(rows: list[Plain]) -> list[Plain]:
    """Formats that differ in their rates or needs alone are told apart by those."""
    merged: list[Plain] = []
    for row in rows:
        same = next(
            (m for m in merged if {**m, "rates": 0, "origins": 0} == {**row, "rates": 0, "origins": 0}), None
        )
        if same is None:
            merged.append(row)
        else:
            same["rates"] = list(dict.fromkeys([*same["rates"], *row["rates"]]))
    names = [row["name"] for row in merged]
    for row in merged:
        if names.count(row["name"]) > 1:
            more = [*row["needs"], RateSet.parse(row["rates"]).words]
            row["name"] = f"{row['name']}, {', '.join(more)}"[:80]
    return merged


def _told(mode: ModeLine, sensor: Sensor) -> LineRead:
    fault = (
        f"{mode.faults[0].value}: {mode.faults[0].rule}"
        if mode.faults and mode.faults[0].value != mode.line
        else None
    )
    if mode.faults and fault is None:
        fault = mode.faults[0].rule
    read: LineRead = {
        "line": mode.line, "name": mode.name, "told": "", "recorded": [], "assumed": mode.assumed, "fault": fault,
        "formats": [],
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
    if mode.recorded:
        read["recorded"] = [_recorded_words(stated, mode) for stated in mode.recorded]
    else:
        parts.append(_rate_words(mode.rates, mode.interlaced))
        if mode.interlaced:
            read["assumed"] = [*mode.assumed, "interlaced rates are recorded in HD alone, and never raw"]
        read["formats"] = [
            {"tick": tick, "name": name, "why_not": _why_not(mode, raster), "cuts": _cuts(mode, raster)}
            for tick, (name, raster) in TICKS.items()
        ]
    read["told"] = " · ".join(parts)
    return read


def _rate_words(frames: list[str], fields: list[str]) -> str:
    told = [
        rate_words(s.low) + (f" to {rate_words(s.high)}" if s.high != s.low else "")
        for s in RateSet.parse(frames).spans
    ]
    shown = [f"{', '.join(told)} fps"] if told else []
    return ", ".join([*shown, *(f"{rate_words(2 * s.high)}i" for s in RateSet.parse(fields).spans)])


def _recorded_words(stated: Stated, mode: ModeLine) -> str:
    frames, fields = kept_rates(stated.rates) if stated.rates else (mode.rates, mode.interlaced)
    parts = [format_words(stated) or "every raster that is ticked", _rate_words(frames, fields)]
    parts += [f"{stated.megabits:g} Mbit/s"] if stated.megabits else []
    parts += [f"needs a {need}" for need in stated.needs]
    parts += [f"from firmware {stated.firmware}"] if stated.firmware else []
    why = _why_not(mode, stated.raster)
    return ", ".join([*parts, why] if why else parts)


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
