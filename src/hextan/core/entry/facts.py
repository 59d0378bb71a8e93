"""What a page says of a body as a whole, beside its scan modes: its sensor, sensitivities, ND, crops, mount and weight."""

from __future__ import annotations

import re
from dataclasses import dataclass, field, replace

from hextan.core.base import Plain
from hextan.core.entry.sensor import SensorAsk
from hextan.core.reading import BodyFacts, PageLine, Stated

#: Usual EI values in thirds of a stop, as menus print them (common practice after ISO 12232, no source).
EI_SERIES = (
    50, 64, 80, 100, 125, 160, 200, 250, 320, 400, 500, 640, 800, 1000, 1250, 1600, 2000, 2500, 3200, 4000, 5000, 6400, 8000,
    10_000, 12_800, 16_000, 20_000, 25_600, 32_000, 40_000, 51_200, 64_000, 80_000, 102_400, 128_000, 160_000, 204_800, 256_000,
    320_000, 409_600,
)  # fmt: skip


@dataclass
class Facts:
    """What all lines say of the body."""

    plain: Plain = field(default_factory=dict)
    crops: list[tuple[str, float]] = field(default_factory=list)
    mount: str = ""
    told: list[str] = field(default_factory=list)


def eis_between(low: int, high: int) -> list[int]:
    """The usual EI values from one to another, both among them.

    >>> eis_between(100, 400), eis_between(6400, 10_000)
    ([100, 125, 160, 200, 250, 320, 400], [6400, 8000, 10000])
    """
    return sorted({low, high, *(n for n in EI_SERIES if low < n < high)})


def facts_of(lines: list[PageLine]) -> Facts:
    """Gather them; what stands twice is taken as it stood first."""
    facts = Facts()
    for line in lines:
        _add(facts, line.body)
    for stated in (stated for line in lines for stated in line.formats):
        if stated.buffer_s is not None:
            facts.told.append(f"a buffer of {stated.buffer_s:g} s: not kept, enter its size in GB")
        if stated.squeeze is not None:
            facts.told.append(f"a de-squeeze of {stated.squeeze:g}: it goes by the lens, and is not kept")
    facts.told = list(dict.fromkeys(facts.told))
    return facts


def _add(facts: Facts, said: BodyFacts) -> None:
    plain = facts.plain
    if said.eis is not None and "eis" not in plain:
        plain["eis"] = eis_between(*said.eis) if isinstance(said.eis, tuple) else sorted(set(said.eis))
        words = f"EI {plain['eis'][0]} to {plain['eis'][-1]}"
        facts.told.append(f"{words} in thirds of a stop" if isinstance(said.eis, tuple) else words)
    if said.base_eis is not None and "base_eis" not in plain:
        plain["base_eis"] = sorted(set(said.base_eis))
        facts.told.append(f"base EI {', '.join(map(str, plain['base_eis']))}")
    if "eis" in plain and "base_eis" in plain:
        plain["eis"] = sorted({*plain["eis"], *plain["base_eis"]})
    if said.nd is not None and "nd_stops" not in plain:
        if isinstance(said.nd, tuple):
            low, high = (round(n / 0.3) for n in said.nd)
            plain["nd_stops"] = [float(n) for n in range(max(1, low), high + 1)]
            facts.told.append(f"built-in ND of {low} to {high} stops, kept in whole ones")
        else:
            plain["nd_stops"] = [round(n / 0.3, 2) for n in said.nd if n > 0]
            told = ", ".join(f"{n:g}" for n in plain["nd_stops"])
            facts.told.append(f"built-in ND of {told} stops" if told else "no built-in ND")
    for factor in said.in_camera:
        name = f"{re.split(r'[0-9:(]', said.in_camera_name)[0].strip()[:40]} {factor:g}x"
        if factor >= 1 and (name, factor) not in facts.crops:
            facts.crops.append((name, factor))
            facts.told.append(f"{name}: an in-camera crop in every mode, never for raw")
    if said.mount and not facts.mount:
        facts.mount = said.mount
        facts.told.append(f"mount {said.mount}")
    if said.weight_kg is not None and "weight_kg" not in plain:
        plain["weight_kg"] = said.weight_kg
        facts.told.append(f"weighs {said.weight_kg:g} kg")


def sensor_of(ask: SensorAsk, lines: list[PageLine]) -> tuple[SensorAsk, list[PageLine]]:
    """What lines say of the whole sensor, where it is not typed in its own fields; and the lines without it."""
    found: dict[str, object] = {}
    rest: list[PageLine] = []
    for line in lines:
        if not _speaks_of_the_sensor(line):
            rest.append(line)
            continue
        for stated in line.formats:
            if stated.size_mm:
                found.setdefault("size_mm", _as_written(line, "size_mm"))
            if stated.photosites:
                found.setdefault("photosites", "{} x {}".format(*stated.photosites))
            if stated.megapixels:
                found.setdefault("megapixels", _as_written(line, "megapixels"))
            if stated.of_class and not stated.size_mm:
                found.setdefault("format_class", stated.of_class)
            if stated.factor and not stated.of_class:
                found.setdefault("crop", stated.factor_text)
        rest.append(replace(line, formats=[], of_sensor=True))
    return ask.model_copy(update={k: v for k, v in found.items() if not getattr(ask, k)}), rest


def _as_written(line: PageLine, kind: str) -> str:
    """The figures of a word with all their digits: how exactly they are known goes by them."""
    text = next(word.text for word in line.words if word.kind == kind)
    return " x ".join(re.findall(r"\d+(?:[.,]\d+)?", text))


def _speaks_of_the_sensor(line: PageLine) -> bool:
    """Whether a line states the whole sensor and nothing that is recorded of it."""
    said = bool(line.formats) and not any(f.recorded or f.rates for f in line.formats)
    words = {word.text.lower() for word in line.words if word.kind == "filler"}
    cue = (
        any(f.megapixels for f in line.formats)
        or "sensor" in words
        or any(word.kind == "photosites" and "effective" in word.text.lower() for word in line.words)
    )
    return said and cue


def under(head: Stated, stated: Stated) -> Stated:
    """A statement below a heading: the window is the heading's."""
    return replace(stated, of_class=head.of_class, photosites=head.photosites, size_mm=head.size_mm, factor=head.factor,
                   factor_text=head.factor_text, whole=head.whole, open_gate=head.open_gate, aspect=stated.aspect or head.aspect,
                   method=stated.method or head.method, step=stated.step or head.step, name=head.name)  # fmt: skip
