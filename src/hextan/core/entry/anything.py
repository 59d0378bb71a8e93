"""Whatever people paste: a page, a list, a message. Each line goes to the reader that it speaks to, and equipment comes of it.

The text is parted into blocks by empty lines and into lines; a reader sees its own lines, the others blanked out, so that all
places stay those of the whole text.
"""

from __future__ import annotations

import re
from bisect import bisect_right
from dataclasses import dataclass, field
from typing import Annotated, Literal, TypeAlias

from pydantic import Field
from typing_extensions import TypedDict

from hextan.core.base import Fault, FaultBody, Part, new_key
from hextan.core.documents import (
    UNKNOWN_MOUNT,
    AdapterDocument,
    BodyDocument,
    BodySheet,
    FilterDocument,
    LensSetDocument,
    MountDocument,
)
from hextan.core.entry.body import MOST_LETTERS, MOST_LINES, UNNAMED, LineRead, QuickBodyAsk, Tick, quick_body
from hextan.core.entry.lens_line import LensLineAsk, lens_line
from hextan.core.entry.lens_table import read_lens_table
from hextan.core.entry.mode_lines import split_lines
from hextan.core.entry.sensor import Contradiction, SensorAsk, SensorFact
from hextan.core.entry.tables import read_table
from hextan.core.reading import (
    LensLineRead,
    PageLine,
    SpanRead,
    Word,
    number,
    read_lens_words,
    read_page_line,
    spans_of,
)

Kind: TypeAlias = Literal["body", "lens", "adapter", "filter", "name", "none"]
#: A name of a body is at most so many words on a line of its own.
_MOST_OF_A_NAME = 5
#: So many bodies are told apart in one text.
MOST_BODIES = 50
_N = r"\d+(?:[.,]\d+)?"
_ADAPTER = re.compile(
    rf"\s*(?P<kind>(?:focal\s+)?reducer|extender|(?:mount\s+)?adapters?|tele-?converter)\s*:?\s*(?:(?P<factor>{_N})\s*[x×]?)?\s*"
    r"(?P<lens>[A-Za-z]\w{0,11})\s*(?:-?mount)?\s*(?:to|→|->|on)\s*(?P<body>[A-Za-z]\w{0,11})(?:\s*-?mount)?\s*",
    re.IGNORECASE,
)
_FILTERS = re.compile(
    rf"\s*(?:set\s+of\s+)?(?:nds?|nd\s*filters?)\s*:?\s*(?P<list>{_N}(?:\s*[,/ ]\s*(?:nd\s*)?{_N})*)\s*",
    re.IGNORECASE,
)


class AnythingAsk(Part):
    """What was pasted, and what is known around it."""

    text: Annotated[str, Field(max_length=MOST_LETTERS)] = ""
    #: Mounts of the production, by their names.
    mounts: Annotated[list[Annotated[str, Field(max_length=80)]], Field(max_length=200)] = []
    #: What is recorded of a mode whose line does not say it.
    formats: Annotated[list[Tick], Field(max_length=4)] = ["raw", "uhd", "hd"]


class BodyMade(TypedDict):
    """A body that comes of a text: what was understood, and its document where all of it is plain."""

    name: str
    facts: list[SensorFact]
    contradictions: list[Contradiction]
    modes: list[LineRead]
    told: list[str]
    missing: list[str]
    document: BodyDocument | None
    sheet: BodySheet | None


class Anything(TypedDict):
    """What a text makes of equipment."""

    #: The whole text, each character in one span.
    spans: list[SpanRead]
    bodies: list[BodyMade]
    lens_sets: list[LensSetDocument]
    #: What lenses leave out, and what stands in for it.
    lenses_told: list[str]
    adapters: list[AdapterDocument]
    filters: list[FilterDocument]
    #: Mounts that are named and are not among the production's: their flange distance is not known.
    mounts: list[MountDocument]
    faults: list[FaultBody]
    #: What was not used, line by line.
    unused: list[str]


@dataclass
class _Line:
    """A line of the text: where it begins, and whom it speaks to."""

    start: int
    text: str
    kind: Kind = "none"
    words: list[Word] = field(default_factory=list)
    #: Which body it belongs to.
    body: int = 0

    @property
    def end(self) -> int:
        return self.start + len(self.text)


def anything(ask: AnythingAsk) -> Anything:
    """Read a text. Nothing is refused and nothing is kept: what is open is asked, what was not used is named.

    >>> found = anything(AnythingAsk(text="Skerry 60\\nSensor 36 x 24 mm, 24 MP\\nFull up to 60\\n25 35 50 T1.5 E18"))
    >>> found["bodies"][0]["name"], found["lens_sets"][0].lenses[1].focal_mm, [mount.name for mount in found["mounts"]]
    ('Skerry 60', 35.0, ['E18'])
    """
    lines = _lines(ask)
    words: list[SpanRead] = []
    bodies, body_faults = _bodies(ask, lines, words)
    sets, told, lens_faults = _lens_sets(ask, lines, words)
    adapters, filters = _rest(lines, words)
    mounts = _new_mounts(ask, bodies, sets, adapters)
    for line in lines:
        if line.kind == "none":
            words += [
                span
                for span in spans_of(line.text, _unknown(line.text), line.start)
                if span["group"] == "unused"
            ]
    spans = _whole(ask.text, words)
    return {
        "spans": spans,
        "bodies": bodies,
        "lens_sets": sets,
        "lenses_told": told,
        "adapters": adapters,
        "filters": filters,
        "mounts": mounts,
        "faults": [fault.as_dict() for fault in (*body_faults, *lens_faults)],
        "unused": _unused(lines, spans),
    }


def _lines(ask: AnythingAsk) -> list[_Line]:
    """All lines, each with whom it speaks to and which body it belongs to."""
    lines = [_Line(start, line) for start, line in split_lines(ask.text)]
    at = said = 0
    for block in _blocks(ask.text):
        first = at
        while at < len(lines) and lines[at].start < block[1]:
            at += 1
        inside = lines[first:at]
        text = ask.text[block[0] : block[1]]
        table: Kind | None = None
        if read_lens_table(text, UNKNOWN_MOUNT) is not None:
            table = "lens"
        elif (read := read_table(text)) is not None and read.lines:
            table = "body"
        for line in inside:
            if said < MOST_LINES:
                line.kind = table or _kind(line.text, ask.mounts)
                said += line.kind != "none"
    _name_bodies(lines)
    return lines


def _blocks(text: str) -> list[tuple[int, int]]:
    """Where the blocks between empty lines begin and end."""
    blocks: list[tuple[int, int]] = []
    at = 0
    begun: int | None = None
    for line in text.splitlines(keepends=True):
        if line.strip():
            begun = at if begun is None else begun
        elif begun is not None:
            blocks.append((begun, at))
            begun = None
        at += len(line)
    return blocks if begun is None else [*blocks, (begun, at)]


def _kind(text: str, mounts: list[str]) -> Kind:
    """Whom a line speaks to: what it says of lenses, and what of a body, is weighed."""
    if _ADAPTER.fullmatch(text):
        return "adapter"
    page, glass = read_page_line(text), read_lens_words(text, mounts)
    if _says_lenses(glass) and not _says_body(page):
        return "lens"
    if _FILTERS.fullmatch(text) and "stop" not in text.lower():
        return "filter"
    if _speaks(page):
        return "body"
    return "lens" if len(glass.lenses) > 1 and not glass.unused else "none"


def _speaks(page: PageLine) -> bool:
    """Whether a line says anything of a body: a bare figure beside words of no list is the name of one."""
    kinds = {word.kind for word in page.words} - {
        "space",
        "sign",
        "filler",
        "unknown",
        "name",
        "nothing",
        "off_topic",
    }
    return bool(kinds - {"open"}) or (
        page.asked != [] and not any(word.kind == "name" for word in page.words)
    )


def _says_lenses(glass: LensLineRead) -> bool:
    """Whether a line names lenses with their apertures, or says that it speaks of lenses."""
    kinds = {word.kind for word in glass.words}
    return bool(glass.lenses) and bool(
        kinds & {"t", "f", "long_t", "t_or"} or "squeeze" in kinds or "both" in kinds
    )


def _says_body(page: PageLine) -> bool:
    """Whether a line states what only a body has: rasters, bits, samples, raw, rates with their unit."""
    kinds = {word.kind for word in page.words}
    return bool(kinds & {"raster", "bits", "samples", "raw", "megabits", "cap", "eis", "base_eis"}) or any(
        word.kind == "rate" and word.value[1] for word in page.words
    )


def _name_bodies(lines: list[_Line]) -> None:
    """A short line of no words of the trade before what a body has is its name; each name begins another body."""
    number_of_body, begun = 0, False
    for line, after in zip(lines, [*lines[1:], _Line(0, "")], strict=False):
        short = len(line.text.split()) <= _MOST_OF_A_NAME and not re.search(r"[.!?,]\s*$", line.text)
        if line.kind == "none" and short and after.kind == "body" and number_of_body < MOST_BODIES:
            number_of_body += begun
            line.kind = "name"
        begun = begun or line.kind in ("body", "name")
        line.body = number_of_body


def _masked(text: str, lines: list[_Line]) -> tuple[str, int]:
    """The text from the first of these lines to the last, all others blanked out; and where it begins."""
    start = lines[0].start
    found = list(re.sub(r"[^\n]", " ", text[start : lines[-1].end]))
    # Pieces of one line are lines of their own.
    for line in lines:
        for edge in (line.start - start - 1, line.end - start):
            if 0 <= edge < len(found):
                found[edge] = "\n"
    for line in lines:
        found[line.start - start : line.end - start] = line.text
    return "".join(found), start


def _taken(spans: list[SpanRead], lines: list[_Line], start: int) -> list[SpanRead]:
    """The stretches of these lines that say something, by their places in the whole text."""
    spans = [
        {**span, "start": start + span["start"], "end": start + span["end"]}
        for span in spans
        if span["group"] != "plain"
    ]
    within = [(line.start, line.end) for line in lines]
    return [
        span for span in spans if span["group"] != "plain" and any(a <= span["start"] < b for a, b in within)
    ]


def _bodies(
    ask: AnythingAsk, lines: list[_Line], words: list[SpanRead]
) -> tuple[list[BodyMade], list[Fault]]:
    made: list[BodyMade] = []
    faults: list[Fault] = []
    by_body: dict[int, list[_Line]] = {}
    names: dict[int, _Line] = {}
    for line in lines:
        if line.kind == "body":
            by_body.setdefault(line.body, []).append(line)
        elif line.kind == "name":
            names.setdefault(line.body, line)
    for n, own in by_body.items():
        named = names.get(n)
        name = UNNAMED if named is None else named.text.strip(" \t:*#-")[:80]
        if named is not None:
            words += spans_of(named.text, [Word("name", 0, len(named.text), named.text, name)], named.start)
        text, start = _masked(ask.text, own)
        read = quick_body(QuickBodyAsk(name=name, modes=text, formats=ask.formats, sensor=SensorAsk()))
        words += _taken(read["spans"], own, start)
        faults += [Fault(f"{name}, {f['field']}", f["value"], f["rule"]) for f in read["faults"]]
        made.append(
            {
                "name": name,
                "facts": read["facts"],
                "contradictions": read["contradictions"],
                "modes": read["modes"],
                "told": read["body"],
                "missing": read["missing"],
                "document": read["document"],
                "sheet": read["sheet"],
            }
        )
    return made, faults


def _lens_sets(
    ask: AnythingAsk, lines: list[_Line], words: list[SpanRead]
) -> tuple[list[LensSetDocument], list[str], list[Fault]]:
    own = [line for line in lines if line.kind == "lens"]
    if not own:
        return [], [], []
    text, start = _masked(ask.text, own)
    read = lens_line(LensLineAsk(line=text, mounts=ask.mounts))
    words += _taken(read["spans"], own, start)
    faults = [Fault(f["field"], f["value"], f["rule"]) for f in read["faults"]]
    return (
        ([read["document"]] if read["document"] is not None else []),
        [*read["told"], *read["assumed"]],
        faults,
    )


def _rest(lines: list[_Line], words: list[SpanRead]) -> tuple[list[AdapterDocument], list[FilterDocument]]:
    adapters: list[AdapterDocument] = []
    filters: dict[str, FilterDocument] = {}
    for line in lines:
        if line.kind == "adapter" and (found := _ADAPTER.fullmatch(line.text)) is not None:
            factor = 1.0 if found["factor"] is None else number(found["factor"])
            adapters.append(
                AdapterDocument(
                    key=new_key(), name=re.sub(r"\s+", " ", line.text.strip())[:80], lens_mount=found["lens"],
                    body_mount=found["body"], magnification=factor, glass=factor != 1.0,
                )
            )  # fmt: skip
            words += spans_of(line.text, [Word("adapter", 0, len(line.text), line.text)], line.start)
        elif line.kind == "filter" and (found := _FILTERS.fullmatch(line.text)) is not None:
            for density in re.findall(_N, found["list"]):
                stops = round(number(density) / 0.3, 2)
                filters.setdefault(
                    density, FilterDocument(key=new_key(), name=f"ND {number(density):.1f}", stops=stops)
                )
            words += spans_of(line.text, [Word("filters", 0, len(line.text), line.text)], line.start)
    return adapters, list(filters.values())


def _new_mounts(
    ask: AnythingAsk, bodies: list[BodyMade], sets: list[LensSetDocument], adapters: list[AdapterDocument]
) -> list[MountDocument]:
    named = [body["document"].mount for body in bodies if body["document"] is not None]
    named += [lens.mount for kit in sets for lens in kit.lenses]
    named += [mount for adapter in adapters for mount in (adapter.lens_mount, adapter.body_mount)]
    return mounts_of(named, ask.mounts)


def mounts_of(named: list[str], known: list[str]) -> list[MountDocument]:
    """Rows for mounts that are named and not known yet: nobody has said their flange distance."""
    new = dict.fromkeys(name for name in named if name != UNKNOWN_MOUNT and name not in known)
    return [MountDocument(key=new_key(), name=name, note="flange distance not stated") for name in new]


def _whole(text: str, words: list[SpanRead]) -> list[SpanRead]:
    """All stretches in their order, with what lies between them."""
    spans: list[SpanRead] = []
    at = 0
    for word in sorted(words, key=lambda span: span["start"]):
        if word["start"] < at:
            continue
        if word["start"] > at:
            spans += spans_of(text[at : word["start"]], [], at)
        spans.append(word)
        at = word["end"]
    return spans + spans_of(text[at:], [], at)


def _unknown(text: str) -> list[Word]:
    """The words of a line that no reader takes."""
    return [Word("unknown", m.start(), m.end(), m[0]) for m in re.finditer(r"\w[\w'’.-]*", text)]


def _unused(lines: list[_Line], spans: list[SpanRead]) -> list[str]:
    """What was not used: a whole line where nothing of it was, else its words."""
    starts = [line.start for line in lines]
    of_line: dict[int, list[SpanRead]] = {}
    for span in spans:
        if span["group"] != "plain":
            of_line.setdefault(bisect_right(starts, span["start"]) - 1, []).append(span)
    found: list[str] = []
    for n, line in enumerate(lines):
        here = of_line.get(n, [])
        loose = [span["text"] for span in here if span["group"] == "unused" and not span["asked"]]
        if loose:
            found.append(line.text.strip()[:120] if len(loose) == len(here) else " ".join(loose)[:120])
    return found
