"""How much of what people write is understood: the lines of tests/fixtures/written, counted against what they mean."""

from __future__ import annotations

import json
import re
import time
from collections import Counter
from collections.abc import Callable
from functools import cache
from importlib.resources import files
from pathlib import Path
from typing import Any, NamedTuple

from bench.result import Result
from hextan.core.ask import QUESTIONS, ask
from hextan.core.documents import body_of, parse_body
from hextan.core.entry import QuickBodyAsk, SensorAsk, quick_body
from hextan.core.equipment import Body, Package
from hextan.core.optics import format_class
from hextan.core.reading import (
    LensLineRead,
    LensSaid,
    PageLine,
    Stated,
    Word,
    read_lens_words,
    read_page_line,
    spans_of,
)

WRITTEN = Path(__file__).parents[1] / "tests" / "fixtures" / "written"
CLASS = {"ff": "full frame", "s35": "Super 35", "s35-3perf": "Super 35", "apsc": "APS-C", "apsc16": "APS-C", "mft": "four thirds",
         "1in": "1 inch", "s16": "Super 16", "lf": "large format", "8perf": "8-perforation 35"}  # fmt: skip
SHORT = {"full frame": "ff", "Super 35": "s35", "APS-C": "apsc", "four thirds": "mft", "1 inch": "1in", "Super 16": "s16",
         "large format": "lf", "8-perforation 35": "8perf", "65 mm": "65", "2/3 inch": "2/3"}  # fmt: skip


class Line(NamedTuple):
    """A line, what it means, and what the reader made of it."""

    written: str
    means: str
    found: str
    verdict: str


def lines(name: str) -> list[tuple[str, str]]:
    """The lines of a file with what each means."""
    rows = (WRITTEN / f"{name}.txt").read_text(encoding="utf-8").splitlines()
    return [(row.split(" | ")[0], row.split(" | ")[1]) for row in rows if row and not row.startswith("#")]


def _facts(text: str) -> tuple[Counter[frozenset[str]], set[str]]:
    """The formats of a meaning as sets of facts, and the words that have to be asked about or marked."""
    marked: set[str] = set()
    formats: list[frozenset[str]] = []
    for part in text.split(";"):
        # A mark goes on to the next fact: it may be of several words.
        pieces = re.split(r"\s+(?=(?:[a-z]+(?::|<=)|[?!~]|raw(?:\s|$)))", part.strip())
        facts = set()
        for piece in pieces:
            if piece[:1] in "?!":
                marked.add(piece[1:].strip().lower())
            elif piece and piece not in ("-", "n:") and not piece.startswith("name:"):
                facts.add(_plain(piece))
        formats.append(frozenset(facts))
    for f in formats:
        mm = next((fact for fact in f if fact.startswith("wmm:")), None)
        if mm is not None:
            w, h = (float(n) for n in mm[4:].split("x"))
            formats = [g - {f"c:{SHORT.get(format_class(w, h) or '', '')}"} if g is f else g for g in formats]
    return Counter(f for f in formats if f), marked


def _plain(piece: str) -> str:
    key, _, value = re.match(r"([a-z]+)(:|<=)?(.*)", piece).groups()  # type: ignore[union-attr]
    if key == "c":
        return f"c:{SHORT[CLASS[value]]}"
    if key == "a":
        w, _, h = value.partition(":")
        return f"a:{float(w) / float(h or 1):.3f}"
    if key == "x":
        return f"x:{float(value.split('/')[0]):g}"
    if key == "wmm":
        w, h = value.split("x")
        return f"wmm:{float(w):g}x{float(h):g}"
    return piece


def _marked(words: list[Word]) -> set[str]:
    """The words that are asked about or struck through."""
    spans = spans_of("", words)
    return {span["text"].strip().lower() for span in spans if span["asked"] or span["group"] == "unused"}


def _spec(line: PageLine) -> tuple[Counter[frozenset[str]], set[str]]:
    rows = [set(_stated(f)) for f in line.formats]
    body = line.body
    more = set()
    if body.eis is not None:
        more.add(
            "ei:"
            + ("-".join(map(str, body.eis)) if isinstance(body.eis, tuple) else ",".join(map(str, body.eis)))
        )
    if body.base_eis is not None:
        more.add("base:" + ",".join(map(str, body.base_eis)))
    if body.nd is not None:
        more.add(
            "nd:"
            + (
                "-".join(f"{n:g}" for n in body.nd)
                if isinstance(body.nd, tuple)
                else ",".join(f"{n:g}" for n in body.nd)
            )
        )
    if body.mount is not None:
        more.add(f"m:{body.mount}")
    if body.weight_kg is not None:
        more.add(f"kg:{body.weight_kg:g}")
    if body.in_camera:
        ranged = re.search(r"\d\s*[-–]\s*\d", body.in_camera_name)
        factors = (
            ["-".join(f"{k:g}" for k in body.in_camera)] if ranged else [f"{k:g}" for k in body.in_camera]
        )
        rows = [set(next(iter(rows), set())) | {f"k:{k}"} for k in factors]
    if more:
        rows = [row | more for row in rows] or [more]
    marked = _marked(line.words)
    return Counter(frozenset(row) for row in rows if row), marked


def _size(pair: tuple[float, float]) -> str:
    return f"{pair[0]:g}x{pair[1]:g}"


#: The facts of a statement in the notation of the fixtures: the field, and how it is written.
_FACTS: tuple[tuple[str, Callable[[Any], str]], ...] = (
    ("raster", lambda v: f"r:{_size(v)}"),
    ("factor", lambda v: f"x:{v:g}"),
    ("whole", lambda v: "x:1"),
    ("photosites", lambda v: f"wpx:{_size(v)}"),
    ("size_mm", lambda v: f"wmm:{_size(v)}"),
    ("megapixels", lambda v: f"mp:{v:g}"),
    ("aspect", lambda v: f"a:{v:.3f}"),
    ("raw", lambda v: "raw"),
    ("codec", lambda v: "cod:" + v.split()[0]),
    ("bits", lambda v: f"b:{v}"),
    ("samples", lambda v: "s:" + v.replace(":", "")),
    ("method", lambda v: f"h:{v}"),
    ("megabits", lambda v: f"mbit:{v:g}"),
    ("buffer_s", lambda v: f"buf:{v:g}"),
    ("row_us", lambda v: f"row:{v:g}"),
    ("readout_ms", lambda v: f"ms:{round(v, 2):g}"),
    ("firmware", lambda v: f"fw:{v}"),
    ("squeeze", lambda v: f"q:{v:g}"),
)


def _stated(f: Stated) -> list[str]:
    facts = [write(value) for name, write in _FACTS if (value := getattr(f, name))]
    if f.of_class and not (f.size_mm and format_class(*f.size_mm) == f.of_class):
        facts.append(f"c:{SHORT[f.of_class]}")
    facts += [f"n:{'card' if need == 'fast card' else need}" for need in f.needs]
    if len(f.rates) == 1 and f.rates[0].highest:
        facts.append(f"f<={f.rates[0].high}")
    elif f.rates:
        facts.append("f:" + ",".join(_rate(r.low, r.high, r.interlaced) for r in f.rates))
    return facts


def _rate(low: str, high: str, interlaced: bool) -> str:
    text = f"{float(low):g}" if low == high else f"{float(low):g}-{float(high):g}"
    return text + ("i" if interlaced else "")


def _same_rates(fact: str) -> str:
    """Rates are the same however they are printed, in any order."""
    if not fact.startswith("f:"):
        return fact
    shown = []
    for part in fact[2:].split(","):
        i = part.endswith("i")
        shown.append(_rate(*(part.rstrip("i").split("-") * 2)[:2], i))
    return "f:" + ",".join(sorted(shown))


def _one_rate(fact: str, written: str) -> str:
    """A single "48 fps" of a page may be the highest rate or the only one: it is offered the other way by its word."""
    alone = re.fullmatch(r"f(?:<=|:)(\d+)", fact)
    return (
        f"f<={alone[1]}"
        if alone and re.search(rf"(?<![\d.]){alone[1]}\s*fps", written, re.IGNORECASE)
        else fact
    )


def _normal(counter: Counter[frozenset[str]]) -> Counter[frozenset[str]]:
    return Counter(frozenset(map(_same_rates, f)) for f in counter.elements())


def verdict(
    means: tuple[Counter[frozenset[str]], set[str]], found: tuple[Counter[frozenset[str]], set[str]]
) -> str:
    """Understood wholly, asked or refused with the right word marked, or wrong in silence."""
    wanted, marks = _normal(means[0]), means[1]
    got, marked = _normal(found[0]), found[1]
    open_ = all(any(mark in m or m in mark for m in marked) for mark in marks)
    if wanted == got and open_:
        return "understood"
    claimed = set().union(*got) if got else set()
    there = set().union(*wanted) if wanted else set()
    # A word that has to be asked and is, holds back all that it stands in.
    return "asked" if (marked and claimed <= there) or (marks and open_) else "wrong"


def counted(name: str, read: Callable[[str], tuple[Counter[frozenset[str]], set[str]]]) -> list[Line]:
    """Read every line of a file."""
    rows = []
    for written, means in lines(name):
        found = read(written)
        shown = "; ".join(" ".join(sorted(f)) for f in found[0].elements()) + "".join(
            f" ?{m}" for m in sorted(found[1])
        )
        wanted, marks = _facts(means)
        rates = [
            Counter(frozenset(_one_rate(f, written) for f in row) for row in counter.elements())
            for counter in (wanted, found[0])
        ]
        rows.append(Line(written, means, shown, verdict((rates[0], marks), (rates[1], found[1]))))
    return rows


def spec(name: str = "spec_lines") -> list[Line]:
    """Lines of spec pages."""
    return counted(name, lambda written: _spec(read_page_line(written)))


def _lens(lens: LensSaid) -> frozenset[str]:
    focal = f"l:{lens.focal_mm:g}" + ("" if lens.long_mm is None else f"-{lens.long_mm:g}")
    facts = [focal]
    for key, low, high in (("t", lens.t_stop, lens.t_long), ("n", lens.f_number, lens.f_long)):
        if low is not None:
            facts.append(f"{key}:{low:g}" + ("" if high is None else f"-{high:g}"))
    rows = {
        "o": lens.circle_mm,
        "g": lens.close_m,
        "kg": lens.weight_kg,
        "d": lens.front_mm,
        "q": lens.squeeze,
    }
    facts += [f"{key}:{value:g}" for key, value in rows.items() if value is not None]
    facts += [f"m:{lens.mount}"] if lens.mount else []
    facts += [f"c:{SHORT[lens.of_class]}"] if lens.of_class else []
    return frozenset(facts)


def _glass(line: LensLineRead) -> tuple[Counter[frozenset[str]], set[str]]:
    marked = _marked(line.words)
    return Counter(_lens(lens) for lens in line.lenses), marked


def lenses(name: str = "lens_lines") -> list[Line]:
    """Lines about lenses."""
    return counted(name, lambda written: _glass(read_lens_words(written, ["XP", "W54", "K50", "E18", "G9"])))


#: Questions of the fixtures that are one of ours under another name.
_SAME = {
    "like for": {"like"},
    "depth": {"field", "hyperfocal", "which format"},
    "crop": {"crop", "crops"},
    "which mode": {"which format"},
    "distance": {"distance for"},
}


@cache
def _demo() -> Package:
    """The bodies of the demo: questions name them."""
    text = files("hextan.demo").joinpath("catalogue.json").read_text(encoding="utf-8")
    bodies: list[Body] = []
    used = 0
    for number, plain in enumerate(json.loads(text)["bodies"], 1):
        document = parse_body(plain)
        rows = [row.key for mode in document.modes for row in (mode, *mode.formats)] + [
            crop.key for crop in document.crops
        ]
        bodies.append(body_of(document, {key: used + i for i, key in enumerate(rows, 1)}, number))
        used += len(rows)
    return Package(bodies=tuple(bodies))


def _question(written: str, means: str) -> Line:
    """A question, held against its kind and against the figure that it comes to, where one is said."""
    asked = ask(written, _demo())
    facts, _, figure = means.partition(" = ")
    kind = re.split(r" (?=[a-z]+:|\?|~|\d|$)", facts)[0].strip()
    names = {question.told: question.name for question in QUESTIONS}
    found = {names.get(answer["question"], "term") for answer in asked["answers"]}
    shown = "; ".join(answer["told"] for answer in asked["answers"])
    marked = [word["text"] for word in asked["words"] if word["understood"] is None]
    every = " ".join([shown, *(f["value"] for a in asked["answers"] for f in a["figures"])])
    figures = re.findall(r"\d+(?:\.\d+)?", figure)
    right = found == _SAME.get(kind, {kind}) & found and bool(found)
    told = [float(n) for n in re.findall(r"\d+(?:\.\d+)?", every)]
    right = right and all(
        any(abs(n - float(want)) <= 0.005 * float(want) for n in told) for want in figures[:1]
    )
    words = facts.split()
    if (
        words
        and all(word[:1] in "?!" for word in words[1 if words[0][:1] not in "?!" else 0 :])
        and not asked["answers"]
    ):
        right = bool(marked or asked["wants"])
    result = "understood" if right else "wrong" if asked["answers"] else "asked"
    return Line(written, means, f"{sorted(found)} {shown or asked['wants']} {marked}", result)


def questions(name: str = "questions") -> list[Line]:
    """Questions in one line."""
    return [_question(written, means) for written, means in lines(name)]


EVERY: dict[str, Callable[[str], list[Line]]] = {
    "spec_lines": spec,
    "lens_lines": lenses,
    "questions": questions,
}


def understood() -> list[Result]:
    """Shares of the lines that are not understood wholly, and that are taken wrongly; and the time of a page of 200 kB."""
    results = []
    for name, read in EVERY.items():
        rows = [*read(name), *read(f"{name}_aside")]
        for verdicts, told, most in (
            (("asked", "wrong"), "not understood wholly", 5.0),
            (("wrong",), "taken wrongly in silence", 0.0),
        ):
            share = 100 * sum(row.verdict in verdicts for row in rows) / len(rows)
            results.append(Result(f"{name.replace('_', ' ')}: {told}", share, most, "%"))
    page = (
        "\n".join(written for written, _ in lines("spec_lines"))
        + "\nwords of a page that say nothing of the camera" * 100
    )
    page = (page * (200_000 // len(page) + 1))[:200_000]
    begun = time.perf_counter()
    quick_body(QuickBodyAsk(modes=page, sensor=SensorAsk(photosites="8192 x 5120", pitch_um="4")))
    results.append(Result("a page of 200 kB is read", time.perf_counter() - begun, 1.0, "s"))
    return results


if __name__ == "__main__":
    import sys

    for name in sys.argv[1:] or list(EVERY):
        rows = EVERY[name.removesuffix("_aside")](name)
        print(name, dict(Counter(row.verdict for row in rows)), f"of {len(rows)}")
        for row in rows:
            if row.verdict != "understood":
                print(
                    f"  {row.verdict:6} {row.written}\n         means {row.means}\n         found {row.found}"
                )
